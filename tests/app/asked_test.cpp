/// Questions to the background: always an outcome, never that of another question, and leaving.
#include "app/document/asked.h"
#include "app/document/build_desk.h"
#include "app/document/tune_desk.h"
#include "tests/app/app_fixture.h"

#include <atomic>

namespace vetchling::app {
namespace {

class AskedTest : public WindowTest {
protected:
    using Numbers = Asked<int, int>;
    void SetUp() override
    {
        WindowTest::SetUp();
        ASSERT_TRUE(settle());
        m_asked = std::make_unique<Numbers>(
            document(), solver(),
            [this](const int& question, const Watch& watch, const auto& soFar) -> Result<int> {
                ++m_runs;
                if (question < 0)
                    throw std::runtime_error("a broken invariant");
                if (question == 0)
                    return Fault{"", "nothing comes of nothing"};
                soFar(question);
                while (m_hold && !watch.stopped())
                    std::this_thread::sleep_for(std::chrono::milliseconds(1));
                watch.report(0.5);
                return unlessStopped(watch, 10 * question);
            },
            [this] { ++m_changes; });
    }
    void TearDown() override
    {
        m_hold = false;
        m_asked.reset();
        WindowTest::TearDown();
    }
    bool ended()
    {
        return waitedFor([&] { return !m_asked->busy(); }, 20000);
    }

    std::atomic<bool> m_hold{false};
    std::atomic<int> m_runs{0};
    int m_changes = 0;
    std::unique_ptr<Numbers> m_asked;
};

TEST_F(AskedTest, AnAnswerComesWithItsQuestion)
{
    EXPECT_TRUE(m_asked->want(3));
    EXPECT_TRUE(m_asked->busy());
    EXPECT_FALSE(m_asked->want(3)) << "it is asked already";
    ASSERT_TRUE(ended());
    EXPECT_EQ(*m_asked->answer(), 30);
    EXPECT_TRUE(m_asked->answers(3));
    EXPECT_FALSE(m_asked->answers(4));
    EXPECT_FALSE(m_asked->want(3)) << "it is known";
    EXPECT_EQ(m_runs, 1);
    EXPECT_EQ(m_changes, 2) << "so far, and at last";
}

// 2026-11: work that threw left its question being computed for ever.
TEST_F(AskedTest, WhatIsThrownIsAFault)
{
    m_asked->want(-1);
    ASSERT_TRUE(ended());
    ASSERT_FALSE(m_asked->faults().empty());
    EXPECT_NE(m_asked->faults().front().message.english().find("a broken invariant"), std::string::npos);
    EXPECT_EQ(m_asked->answer(), nullptr);
    EXPECT_EQ(m_changes, 1);
    m_asked->want(2);
    ASSERT_TRUE(ended());
    EXPECT_TRUE(m_asked->faults().empty());
    EXPECT_EQ(*m_asked->answer(), 20);
}

TEST_F(AskedTest, AnOldAnswerStaysForANewQuestionButNotForAFault)
{
    m_asked->want(2);
    ASSERT_TRUE(ended());
    m_hold = true;
    m_asked->want(5);
    EXPECT_EQ(*m_asked->answer(), 20);
    EXPECT_FALSE(m_asked->answers(5));
    ASSERT_TRUE(waitedFor([&] { return m_asked->answers(5); }, 20000)) << "so far";
    EXPECT_TRUE(m_asked->busy());
    m_hold = false;
    ASSERT_TRUE(ended());
    EXPECT_EQ(*m_asked->answer(), 50);
    m_asked->want(0);
    ASSERT_TRUE(ended());
    EXPECT_EQ(m_asked->answer(), nullptr) << "what was true before is not true of what cannot be answered";
}

TEST_F(AskedTest, AnAnswerSaysWhatItMayBeTakenFor)
{
    EXPECT_EQ(m_asked->standing(2), Standing::None);
    m_hold = true;
    m_asked->want(2);
    ASSERT_TRUE(waitedFor([&] { return m_asked->standing(2) != Standing::None; }, 20000));
    EXPECT_EQ(m_asked->standing(2), Standing::Part) << "so far";
    EXPECT_EQ(m_asked->standing(3), Standing::Before);
    m_asked->giveUp();
    EXPECT_EQ(m_asked->standing(2), Standing::Part) << "what was left is not whole";
    m_hold = false;
    m_asked->goOn();
    ASSERT_TRUE(ended());
    EXPECT_EQ(m_asked->standing(2), Standing::Whole);
    m_hold = true;
    m_asked->want(4);
    EXPECT_EQ(m_asked->standing(4), Standing::Before);
}

TEST_F(AskedTest, TheNewestQuestionWinsAndAnotherAntennaForgets)
{
    m_hold = true;
    m_asked->want(1);
    m_asked->want(2);
    m_hold = false;
    ASSERT_TRUE(ended());
    EXPECT_EQ(*m_asked->answer(), 20);
    const Id first = document().current();
    chooseAntenna(1);
    EXPECT_EQ(m_asked->answer(), nullptr);
    document().setCurrent(first);
    EXPECT_EQ(*m_asked->answer(), 20) << "nothing else was asked meanwhile";
    chooseAntenna(1);
    EXPECT_TRUE(m_asked->want(2)) << "the same of another antenna is another question";
    ASSERT_TRUE(ended());
    document().setCurrent(first);
    EXPECT_EQ(m_asked->answer(), nullptr);
    openGarden();
    EXPECT_EQ(m_asked->question(), nullptr) << "another design";
}

TEST_F(AskedTest, WhatIsLeftIsNotBegunAgainByItself)
{
    m_hold = true;
    m_asked->want(4);
    ASSERT_TRUE(waitedFor([&] { return m_runs > 0; }, 20000));
    m_asked->giveUp();
    EXPECT_FALSE(m_asked->busy());
    EXPECT_TRUE(m_asked->givenUp());
    EXPECT_FALSE(m_asked->want(4));
    EXPECT_FALSE(m_asked->busy());
    m_hold = false;
    m_asked->goOn();
    EXPECT_FALSE(m_asked->givenUp());
    ASSERT_TRUE(ended());
    EXPECT_EQ(*m_asked->answer(), 40);
}

TEST_F(AskedTest, NothingIsAskedWhileSomethingIsDragged)
{
    document().setParameter("apex_height_m", 11.0, {}, true);
    ASSERT_TRUE(document().dragging());
    EXPECT_FALSE(m_asked->want(1));
    document().setParameter("apex_height_m", 11.5, {});
    EXPECT_TRUE(m_asked->want(1));
    ASSERT_TRUE(ended());
}

// Every desk that asks in the background says it, and goes on with the next question.
TEST_F(AskedTest, APageSaysThatItsComputationBrokeOff)
{
    show("build");
    solver().setProbe([] { throw std::runtime_error("a broken invariant"); });
    click("buildSafety");
    ASSERT_TRUE(waitedFor([&] { return pageSentence().contains(QStringLiteral("a broken invariant")); }, 20000))
        << pageSentence().toStdString();
    solver().setProbe({});
}

TEST_F(AskedTest, WhatWasTunedForAnotherShapeIsNotTaken)
{
    TuneDesk desk(document(), solver());
    solver().setProbe([this] {
        while (m_hold)
            std::this_thread::sleep_for(std::chrono::milliseconds(1));
    });
    const std::string lever = document().family().tuned(document().antenna().shape).front().parameter;
    JointAim aim;
    aim.kind = JointAim::Kind::Resonance;
    aim.at = {{7.1e6}};
    m_hold = true;
    desk.start({{lever}}, aim);
    document().setParameter("apex_height_m", 12.0, {});
    m_hold = false;
    ASSERT_TRUE(waitedFor([&] { return !desk.busy(); }, 60000));
    EXPECT_TRUE(desk.overtaken());
    solver().setProbe({});
    ASSERT_TRUE(settle());
    const int before = document().undoStack().index();
    desk.start({{lever}}, aim);
    ASSERT_TRUE(waitedFor([&] { return !desk.busy(); }, 60000));
    EXPECT_FALSE(desk.overtaken());
    EXPECT_EQ(document().undoStack().index(), before + 1);
}

} // namespace
} // namespace vetchling::app
