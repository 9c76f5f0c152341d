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

TEST_F(WindowTest, FilesAndTheGalleryAreNotTheWindowsWork)
{
    ASSERT_TRUE(settle());
    const QString path = file("aside.vetchling");
    EXPECT_GT(turnsDuring([&] { ASSERT_TRUE(window().fileDesk().saveTo(path)); }), 0) << "saving";
    EXPECT_GT(turnsDuring([&] { ASSERT_TRUE(window().fileDesk().openFile(path)); }), 0) << "opening";
    EXPECT_GT(turnsDuring([&] { window().gallery().desk().open(14.2e6); }), 0) << "placing the gallery";
    EXPECT_GT(turnsDuring([&] {
                  document().setParameter("apex_height_m", 12.0, {});
                  Autosave copies(document(), file("copies"));
                  copies.write();
                  EXPECT_TRUE(waitedFor([&] { return QFile::exists(copies.path()); }));
              }),
              0);
    EXPECT_EQ(turnsDuring([] { std::this_thread::sleep_for(std::chrono::milliseconds(20)); }), 0) << "what such a test sees else";
}

TEST_F(WindowTest, WhatIsDoneAsideComesBackAsItIs)
{
    EXPECT_EQ(aside([] { return 7; }), 7);
    EXPECT_NE(aside([] { return std::this_thread::get_id(); }), std::this_thread::get_id());
    EXPECT_THROW(aside([]() -> int { throw std::runtime_error("broken"); }), std::runtime_error);
    bool typed = false;
    QTimer::singleShot(0, &window(), [&] { typed = true; });
    aside([] { std::this_thread::sleep_for(std::chrono::milliseconds(30)); });
    EXPECT_TRUE(typed) << "timers go on";
}

// 2026-11: an answer that came while a file was being saved would have been taken for saved.
TEST_F(WindowTest, WhatChangesWhileItIsSavedIsNotSaved)
{
    ASSERT_TRUE(settle());
    QTimer::singleShot(0, &window(), [&] { document().setParameter("apex_height_m", 13.0, {}); });
    ASSERT_TRUE(document().save(file("moving.vetchling")).empty());
    EXPECT_TRUE(document().modified());
}

} // namespace
} // namespace vetchling::app
