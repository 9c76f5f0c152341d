/// What is left to do, as somebody meets it: one list, the same as the pages and the sheet say, by mouse and by keys.
#include "tests/app/first_hour.h"

#include "app/stages/left/left_board.h"
#include "app/view/finding_words.h"
#include "app/window/trail.h"

#include <QPushButton>

#include <set>

namespace vetchling::app {
namespace {

class LeftStageTest : public FirstHour {
protected:
    LeftDesk& left() { return window().left(); }
    LeftBoard* board() { return find<LeftBoard>("leftBoard"); }
    bool worked()
    {
        return settle() && waitedFor(
                               [this] {
                                   left().want();
                                   return left().standing() == Standing::Whole;
                               },
                               60000);
    }
    void open()
    {
        action("actionLeft");
        ASSERT_TRUE(worked());
        window().currentStage()->refresh();
    }
    const advice::Finding* line(const char* code)
    {
        for (const advice::Finding& f : board()->findings())
            if (f.code == std::string(code))
                return &f;
        return nullptr;
    }
    int row(const char* code)
    {
        const auto& all = board()->findings();
        for (std::size_t i = 0; i < all.size(); ++i)
            if (all[i].code == std::string(code))
                return int(i);
        return -1;
    }
    void wrongRatio()
    {
        document().editAntenna({}, {}, [](Antenna& a) {
            ChainPart t = newPart(part::transformer);
            t.values["ratio"] = 49.0;
            auto& parts = ownChain(a).parts;
            parts.insert(parts.begin(), t);
        });
    }
};

TEST_F(LeftStageTest, TheLeafTellsTheNumberOfLines)
{
    open();
    EXPECT_EQ(window().currentStage()->id(), QStringLiteral("left"));
    const auto* trail = find<Trail>("trail");
    const int last = trail->model()->rowCount() - 1;
    EXPECT_EQ(trail->model()->index(last - 1, 0).data().toString(), QStringLiteral("Trim"));
    EXPECT_EQ(trail->model()->index(last, 0).data(StageList::Number).toInt(), int(board()->findings().size()));
    EXPECT_FALSE(board()->findings().empty());
    for (const advice::Finding& f : board()->findings()) {
        EXPECT_FALSE(findingTitle(f, units::System::Metric).contains(QLatin1Char('%'))) << f.code;
        EXPECT_TRUE(findingSentence(f, units::System::Metric).endsWith(QLatin1Char('.'))) << f.code;
    }
}

// Pages had rules of their own of what is wrong with an antenna.
TEST_F(LeftStageTest, AFindingThatIsCuredIsGoneFromEveryPage)
{
    wrongRatio();
    open();
    const advice::Finding* f = line("ratio");
    ASSERT_TRUE(f);
    const QString words = findingSentence(*f, units::System::Metric);
    const auto told = [&] {
        QStringList where;
        show("feed");
        window().currentStage()->refresh();
        if (find<QLabel>("feedCautions")->text().contains(words))
            where << QStringLiteral("feed");
        open();
        if (line("ratio"))
            where << QStringLiteral("list");
        const auto site = left().findings();
        if (std::any_of(site.begin(), site.end(), [](const advice::Finding& g) { return g.open() && g.code == std::string("ratio"); }))
            where << QStringLiteral("desk");
        return where;
    };
    EXPECT_EQ(told(), (QStringList{QStringLiteral("feed"), QStringLiteral("list"), QStringLiteral("desk")}));
    const int before = document().undoStack().index();
    auto* button = find<QPushButton>(qPrintable(QStringLiteral("cure%1").arg(row("ratio"))));
    ASSERT_TRUE(button->isEnabled());
    QTest::mouseClick(button, Qt::LeftButton);
    EXPECT_EQ(document().undoStack().index(), before + 1) << "one step";
    EXPECT_TRUE(told().isEmpty()) << told().join(QLatin1Char(' ')).toStdString();
    document().undoStack().undo();
    EXPECT_EQ(told().size(), 3);
}

TEST_F(LeftStageTest, NothingIsDoneToWhatWasBefore)
{
    wrongRatio();
    open();
    const advice::Finding old(*line("ratio"));
    document().setParameters({}, {{"x_m", 14.5}});
    EXPECT_NE(left().standing(), Standing::Whole);
    const auto snapshot = document().snapshot();
    left().cure(old);
    EXPECT_EQ(document().snapshot(), snapshot);
    window().currentStage()->refresh();
    for (QPushButton* button : board()->findChildren<QPushButton*>())
        if (const int i = button->objectName().mid(4).toInt();
            button->isVisible() && i < int(board()->findings().size()) && board()->findings()[std::size_t(i)].cure) {
            EXPECT_FALSE(button->isEnabled()) << i;
        }
    ASSERT_TRUE(worked());
    left().cure(*line("ratio"));
    EXPECT_NE(document().snapshot(), snapshot);
}

TEST_F(LeftStageTest, WhatAPageHasSolvedIsListedUntilTheAntennaChanges)
{
    open();
    const int before = int(board()->findings().size());
    left().hear({{.antenna = document().current(),
                  .code = "choke-heat",
                  .brief = "The choke gets hot",
                  .message = "It gets hot.",
                  .stage = advice::Stage::Feed,
                  .view = "shield"}});
    window().currentStage()->refresh();
    ASSERT_EQ(int(board()->findings().size()), before + 1);
    board()->goTo(advice::Finding(*line("choke-heat")));
    EXPECT_EQ(window().currentStage()->id(), QStringLiteral("feed"));
    EXPECT_TRUE(find<QWidget>("shieldChart")->isVisible());
    document().setParameters({}, {{"x_m", 14.5}});
    open();
    EXPECT_FALSE(line("choke-heat"));
}

TEST_F(LeftStageTest, ByKeysAlone)
{
    wrongRatio();
    QTest::keyClick(&window(), Qt::Key_J, Qt::ControlModifier);
    EXPECT_EQ(window().currentStage()->id(), QStringLiteral("left"));
    ASSERT_TRUE(worked());
    window().currentStage()->refresh();
    board()->setFocus();
    QTest::keyClick(board(), Qt::Key_Home);
    for (int i = 0; i < row("ratio"); ++i)
        QTest::keyClick(board(), Qt::Key_Down);
    ASSERT_TRUE(board()->chosen());
    EXPECT_EQ(board()->chosen()->code, std::string("ratio"));
    EXPECT_EQ(find<QLabel>("leftTitle")->text(), findingTitle(*board()->chosen(), units::System::Metric));
    QTest::keyClick(board(), Qt::Key_Return);
    ASSERT_TRUE(worked());
    window().currentStage()->refresh();
    EXPECT_FALSE(line("ratio"));
    QTest::keyClick(board(), Qt::Key_End); // what is done by hand leads to its page
    ASSERT_TRUE(board()->chosen() && !board()->chosen()->cure);
    const QString stage = QString::fromLatin1(advice::idOf(board()->chosen()->stage));
    QTest::keyClick(board(), Qt::Key_Return);
    EXPECT_EQ(window().currentStage()->id(), stage);
}

TEST_F(LeftStageTest, TheWholeSiteIsOneListAntennaByAntenna)
{
    open();
    click("leftSite");
    ASSERT_TRUE(waitedFor([&] { return left().siteStanding() == Standing::Whole; }, 120000));
    window().currentStage()->refresh();
    std::vector<Id> order;
    for (const advice::Finding& f : board()->findings())
        if (order.empty() || order.back() != f.antenna)
            order.push_back(f.antenna);
    EXPECT_EQ(std::set<Id>(order.begin(), order.end()).size(), order.size()) << "each antenna once";
    EXPECT_GT(order.size(), 1u);
    const auto other = std::find_if(board()->findings().begin(), board()->findings().end(),
                                    [&](const advice::Finding& f) { return !f.antenna.empty() && f.antenna != document().current(); });
    ASSERT_NE(other, board()->findings().end());
    const Id id = other->antenna;
    board()->goTo(advice::Finding(*other));
    EXPECT_EQ(document().current(), id) << "its page shows the antenna it is of";
}

TEST_F(LeftStageTest, AnEmptyListSaysWhatWasChecked)
{
    window().fileDesk().openFile(QStringLiteral(VETCHLING_SOURCE_DATA "/demo/gannet-skerry.vetchling"));
    for (const Antenna& a : document().design().antennas)
        if (a.name == "Loop 17")
            document().setCurrent(a.id);
    open();
    EXPECT_TRUE(board()->findings().empty());
    EXPECT_TRUE(pageSentence().startsWith(QStringLiteral("Nothing is left to do"))) << pageSentence().toStdString();
    EXPECT_GE(board()->doneWords().size(), 4);
    EXPECT_EQ(find<Trail>("trail")->model()->index(window().stageCount() - 1, 0).data(StageList::Number).toInt(), 0);
}

TEST_F(LeftStageTest, WithoutAnAntennaItSaysSo)
{
    window().fileDesk().openNew(Design{});
    action("actionLeft");
    EXPECT_TRUE(board()->findings().empty());
    EXPECT_TRUE(pageSentence().contains(QStringLiteral("Add an antenna first")));
    QTest::keyClick(board(), Qt::Key_Return); // nothing, and no crash
}

} // namespace
} // namespace vetchling::app
