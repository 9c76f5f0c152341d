/// Which one?, as a stranger meets it: from a new site to antennas that hang, by keys alone, with wishes that change and a site that does.
#include "tests/app/first_hour.h"

#include <QCheckBox>
#include <QTableView>

namespace vetchling::app {
namespace {

class AdvisorTest : public FirstHour {
protected:
    WhichOne& which() { return window().gallery().whichOne(); }
    AnswerTable& answers() { return which().table(); }
    AdvisorDesk& desk() { return window().gallery().advisor(); }
    QString sentence() { return window().gallery().findChild<QLabel*>(QStringLiteral("stageSentence"))->text(); }
    bool found()
    {
        return waitedFor([this] { return !desk().busy(); }, 120000);
    }
    /// A garden of one's own: a pole and a tree, 20 m wanted; few families fit, so that it is quick.
    void newSite(const std::function<void()>& act = [] {})
    {
        whenOpen("newSiteDialog", [act](QWidget& dialog) {
            act(), typeInto(dialog, "siteName", QStringLiteral("Rectory"));
            act(), QTest::mouseClick(dialog.findChild<QToolButton*>(QStringLiteral("siteBand 20 m")), Qt::LeftButton);
            act(), QTest::mouseClick(dialog.findChild<QPushButton*>(QStringLiteral("siteAddSupport")), Qt::LeftButton);
            act(), QTest::mouseClick(dialog.findChild<QPushButton*>(QStringLiteral("makeSite")), Qt::LeftButton);
        });
        act(), QTest::keyClick(&window(), Qt::Key_N, Qt::ControlModifier);
        activate();
    }
};

// An action is a click, a key or a value.
TEST_F(AdvisorTest, FromANewSiteToAHungAnswerInFifteenActions)
{
    int actions = 0;
    newSite([&] { ++actions; });
    ASSERT_TRUE(window().galleryOpen());
    EXPECT_TRUE(which().isVisible()) << "the first thing that is offered";
    ASSERT_TRUE(found());
    ASSERT_TRUE(answers().chosen());
    const advice::Answer hung = *answers().chosen();
    EXPECT_TRUE(answers().hasFocus());
    ++actions, QTest::keyClick(&answers(), Qt::Key_Return);
    EXPECT_LE(actions, 15);
    EXPECT_FALSE(window().galleryOpen());
    const Design& design = document().design();
    ASSERT_EQ(design.antennas.size(), hung.antennas.size());
    for (std::size_t i = 0; i < hung.antennas.size(); ++i) {
        EXPECT_EQ(design.antennas[i].shape, hung.antennas[i]->antenna.shape);
        EXPECT_FALSE(chainParts(design.antennas[i]).empty()) << "with its chain";
    }
    EXPECT_EQ(document().current(), design.antennas.front().id);
    ASSERT_TRUE(settle());
    EXPECT_EQ(solver().curve()->band(document().selectedBand())->shareUnderLimit, hung.bands.front().figure.share)
        << "the page tells the same";
    document().undoStack().undo();
    EXPECT_TRUE(document().design().antennas.empty()) << "one step";
    document().undoStack().redo();
    EXPECT_EQ(document().design().antennas.size(), hung.antennas.size());
}

TEST_F(AdvisorTest, KeysAloneChooseAndTheWishIsHeard)
{
    newSite();
    choose("wishAntennas", 0);
    ASSERT_TRUE(found());
    ASSERT_GT(desk().advice()->answers.size(), 2u);
    const std::string first = answers().chosen()->key();
    QTest::keyClick(&answers(), Qt::Key_Down);
    EXPECT_EQ(answers().chosen()->key(), desk().advice()->answers[1].key());
    QTest::keyClick(&answers(), Qt::Key_End);
    EXPECT_EQ(answers().chosen()->key(), desk().advice()->answers.back().key());
    QTest::keyClick(&answers(), Qt::Key_Home);
    EXPECT_EQ(answers().chosen()->key(), first);
    for (const advice::Answer& a : desk().advice()->answers)
        EXPECT_EQ(a.antennas.size(), 1u);
    type("wishWire", QStringLiteral("7"));
    EXPECT_TRUE(desk().busy()) << "it is looked for at once";
    ASSERT_TRUE(found());
    for (const advice::Answer& a : desk().advice()->answers)
        EXPECT_LE(a.takes.wire, 7.0);
    QTest::keyClick(&which(), Qt::Key_Escape);
    EXPECT_FALSE(window().galleryOpen());
    action("actionAdd");
    EXPECT_TRUE(which().isVisible()) << "where one was";
    EXPECT_FALSE(desk().busy()) << "what was found is kept";
}

TEST_F(AdvisorTest, WhatIsOfBeforeIsMarkedAndNotHung)
{
    newSite();
    choose("wishAntennas", 0);
    ASSERT_TRUE(found());
    EXPECT_FALSE(find<QPushButton>("lookAgain")->isVisible());
    document().edit({}, {}, [](Design& d) { d.site.supports.front().height += 1.0; });
    EXPECT_TRUE(desk().old());
    EXPECT_TRUE(sentence().contains(QStringLiteral("before"))) << sentence().toStdString();
    EXPECT_FALSE(find<QPushButton>("hangIt")->isEnabled());
    QTest::keyClick(&answers(), Qt::Key_Return);
    EXPECT_TRUE(document().design().antennas.empty());
    const double before = desk().advice()->answers.front().score;
    click("lookAgain");
    ASSERT_TRUE(found());
    EXPECT_FALSE(desk().old());
    EXPECT_NE(desk().advice()->answers.front().score, before) << "a metre changes the figures";
    EXPECT_TRUE(find<QPushButton>("hangIt")->isEnabled());
}

TEST_F(AdvisorTest, ItIsLeftAndGoesOn)
{
    newSite();
    choose("wishAntennas", 0);
    auto waiting = desk().waitings().front().waiting;
    ASSERT_TRUE(waitedFor([&] { return desk().advice() != nullptr; }, 60000));
    waiting.giveUp();
    EXPECT_FALSE(desk().busy());
    EXPECT_TRUE(desk().givenUp());
    EXPECT_TRUE(find<QPushButton>("lookAgain")->isVisible());
    waiting.goOn();
    EXPECT_TRUE(desk().busy());
    ASSERT_TRUE(found());
    EXPECT_TRUE(desk().advice()->complete);
}

TEST_F(AdvisorTest, NothingIsSilent)
{
    newSite();
    document().edit({}, {}, [](Design& d) {
        for (WantedBand& w : d.operation.bands)
            w.wish = Wish::No;
    });
    click("lookAgain");
    ASSERT_TRUE(found());
    EXPECT_TRUE(sentence().contains(QStringLiteral("no band is wanted"))) << sentence().toStdString();
    EXPECT_FALSE(find<QPushButton>("hangIt")->isEnabled());
    which().grab();
    EXPECT_FALSE(find<QLabel>("noSupports")->isVisible());
    document().edit({}, {}, [](Design& d) { d.site.supports.clear(); });
    EXPECT_TRUE(waitedFor([this] { return find<QLabel>("noSupports")->isVisible(); }, 5000)) << "a heading over nothing";
}

TEST_F(AdvisorTest, EveryPlaceIsListedAndEveryFamilyExplained)
{
    newSite();
    choose("wishAntennas", 0);
    ASSERT_TRUE(found());
    click("allTriedButton");
    auto* all = find<QTableView>("allTried");
    ASSERT_TRUE(all->isVisible());
    EXPECT_EQ(all->model()->rowCount(), int(desk().advice()->tried.size()));
    all->sortByColumn(3, Qt::DescendingOrder);
    auto* why = find<QComboBox>("whyNot");
    for (int i = 1; i < why->count(); ++i) {
        emit why->activated(i);
        EXPECT_GT(find<QLabel>("whyNotWords")->text().size(), 15) << why->itemText(i).toStdString();
    }
    which().resize(1100, 560);
    which().grab();
}

TEST_F(AdvisorTest, TheLastSupportStaysChosen)
{
    newSite();
    choose("wishAntennas", 0);
    const auto boxes = which().findChildren<QCheckBox*>();
    ASSERT_EQ(boxes.size(), 2);
    boxes[0]->setChecked(false);
    EXPECT_EQ(desk().wish().supports.size(), 1u);
    boxes[1]->setChecked(false);
    EXPECT_TRUE(boxes[1]->isChecked()) << "none at all would be all";
    ASSERT_TRUE(found());
    for (const advice::TriedPointer& t : desk().advice()->tried)
        for (const Id& id : t->usable() ? t->place.supports : std::vector<Id>())
            EXPECT_EQ(id, desk().wish().supports.front());
}

} // namespace
} // namespace vetchling::app
