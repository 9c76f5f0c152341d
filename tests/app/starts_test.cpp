/// What is told of the untouched demo after a start, while the machine is busy with other things.
#include "app/stages/trim/trim_board.h"
#include "tests/app/app_fixture.h"
#include "tests/long_form.h"

#include <atomic>
#include <set>
#include <thread>

namespace vetchling::app {
namespace {

/// Threads that do nothing but take time.
class Load {
public:
    explicit Load(int threads)
    {
        for (int i = 0; i < threads; ++i)
            m_threads.emplace_back([this] {
                volatile double sink = 1.0;
                while (!m_ended)
                    for (int k = 0; k < 10000; ++k)
                        sink = sink * 1.0000001;
            });
    }
    ~Load()
    {
        m_ended = true;
        for (std::thread& t : m_threads)
            t.join();
    }

private:
    std::atomic<bool> m_ended{false};
    std::vector<std::thread> m_threads;
};

// 2026-11: 7 of 89 starts told another step: a stopped computation was taken for an answer.
TEST(Starts, TheDemosAdviceIsAlwaysTheSame)
{
    using vetchling::testing::many;
    const Load load(4);
    std::set<QString> words;
    QTemporaryDir home;
    for (int i = 0; i < many(3, 300); ++i) {
        QSettings().clear();
        MainWindow window(QStringLiteral(VETCHLING_SOURCE_DATA), home.filePath(QStringLiteral("autosave")),
                          qEnvironmentVariable("VETCHLING_TEST_TABLES"));
        window.show();
        window.fileDesk().openDemo();
        window.showStage(i % window.stageCount()); // each asks for other things at once
        auto* board = window.findChild<TrimBoard*>();
        ASSERT_TRUE(board);
        ASSERT_TRUE(waitedFor([&] { return window.solver().atRest() && !window.solver().busyInBackground(); }, 120000)) << i;
        // between two questions the program may be at rest for a moment; what stays unanswered is told as it stands
        waitedFor([&] { return !board->headline().startsWith(QStringLiteral("Being")); }, 60000);
        words.insert(board->headline());
        window.document().undoStack().setClean();
    }
    EXPECT_EQ(words.size(), 1U) << QStringList(words.begin(), words.end()).join(QStringLiteral(" | ")).toStdString();
}

} // namespace
} // namespace vetchling::app
