/// What takes long does not hold up the window: while it goes on, the event loop turns.
#include "app/document/aside.h"
#include "tests/app/app_fixture.h"

#include <thread>

namespace vetchling::app {
namespace {

/// Turns of the event loop while something is done in one call.
int turnsDuring(const std::function<void()>& work)
{
    int turns = 0;
    QTimer timer;
    QObject::connect(&timer, &QTimer::timeout, [&] { ++turns; });
    timer.start(0);
    work();
    return turns;
}

/// A log of many sweeps: some megabytes.
void makeLarge(Design& design)
{
    std::vector<std::pair<double, double>> sweep;
    for (int i = 0; i < 1000; ++i)
        sweep.emplace_back(7e6 + 100.0 * i, 1.2 + 1e-3 * i);
    for (int i = 0; i < 150; ++i) {
        Measurement m;
        m.dip = 7.05e6;
        m.sweep = sweep;
        design.antennas.front().trim.measurements.push_back(m);
    }
}

TEST_F(WindowTest, LargeFilesAreNotTheWindowsWork)
{
    ASSERT_TRUE(settle());
    document().edit(QStringLiteral("measure"), {}, makeLarge);
    const QString path = file("large.vetchling");
    EXPECT_GT(turnsDuring([&] { ASSERT_TRUE(window().fileDesk().saveTo(path)); }), 0) << "saving";
    EXPECT_GT(turnsDuring([&] { ASSERT_TRUE(window().fileDesk().openFile(path)); }), 0) << "opening";
    EXPECT_GE(document().antenna().trim.measurements.size(), 150U);
    EXPECT_EQ(turnsDuring([] { std::this_thread::sleep_for(std::chrono::milliseconds(60)); }), 0) << "what such a test sees else";
}

TEST_F(WindowTest, WhatIsDoneAsideComesBackAsItIs)
{
    EXPECT_EQ(aside([] { return 7; }), 7);
    EXPECT_NE(aside([] { return std::this_thread::get_id(); }), std::this_thread::get_id());
    EXPECT_THROW(aside([]() -> int { throw std::runtime_error("broken"); }), std::runtime_error);
    bool typed = false;
    QTimer::singleShot(0, &window(), [&] { typed = true; });
    aside([] { std::this_thread::sleep_for(std::chrono::milliseconds(200)); });
    EXPECT_TRUE(typed) << "timers go on";
}

// 2026-11: an answer that came while a file was being saved would have been taken for saved.
TEST_F(WindowTest, WhatChangesWhileItIsSavedIsNotSaved)
{
    ASSERT_TRUE(settle());
    document().edit(QStringLiteral("measure"), {}, makeLarge); // so that saving takes its time
    QTimer::singleShot(0, &window(), [&] { document().setParameter("apex_height_m", 13.0, {}); });
    ASSERT_TRUE(document().save(file("moving.vetchling")).empty());
    EXPECT_TRUE(document().modified());
}

} // namespace
} // namespace vetchling::app
