/// The gallery behind +: every family from its card, found, tuned, taken, changed, undone, saved and opened again.
#include "tests/app/first_hour.h"

#include "app/stages/gallery/gallery.h"
#include "core/files/design_file.h"
#include "tests/long_form.h"

#include "app/plots/pair_chart.h"

#include <set>

namespace vetchling::app {
namespace {

class GalleryTest : public FirstHour {
protected:
    const std::vector<GalleryDesk::Entry>& entries() { return window().gallery().desk().entries(); }
    bool filled()
    {
        return waitedFor([this] { return window().gallery().desk().unanswered() == 0; }, 120000);
    }
    /// A gallery of fewer bands fills sooner.
    void wantTwoBands()
    {
        document().edit({}, {}, [](Design& d) {
            std::erase_if(d.operation.bands, [](const WantedBand& w) { return w.band.name != "40 m" && w.band.name != "17 m"; });
        });
        ASSERT_EQ(document().design().operation.bands.size(), 2u);
    }
    int shown()
    {
        int count = 0;
        for (const GalleryCard* card : window().gallery().findChildren<GalleryCard*>())
            count += card->isVisible();
        return count;
    }
};

TEST_F(GalleryTest, OffersEveryFamilyAndTunesEachOverTheSitesSoil)
{
    if (!testing::longForm())
        wantTwoBands();
    action("actionAdd");
    std::set<std::string> families;
    for (const auto& entry : entries())
        families.insert(entry.proposal.antenna.shape.family);
    EXPECT_EQ(families.size(), shapes::families().size());
    ASSERT_TRUE(filled());
    em::GroundTableCache tables;
    for (const auto& entry : entries()) {
        if (!entry.proposal.fault().empty())
            continue;
        ASSERT_TRUE(entry.answer) << entry.proposal.id << ": " << entry.fault.english();
        EXPECT_EQ(entry.answer->antenna.shape.parameters.at(entry.answer->what.parameter), entry.answer->value) << entry.proposal.id;
        EXPECT_EQ(entry.answer->wished.size(), testing::many(2u, 6u));
    }
    const auto* dipole = window().gallery().desk().find("dipole");
    ASSERT_TRUE(dipole && dipole->answer);
    EXPECT_GE(dipole->answer->served(), 1);
}

TEST_F(GalleryTest, HangsFromTheSupportsThatThereAre)
{
    action("actionAdd");
    const Site& site = document().design().site;
    const auto* flat = window().gallery().desk().find("dipole between");
    ASSERT_TRUE(flat && flat->placed);
    for (const shapes::Handle& h : flat->placed->handles)
        EXPECT_LE(h.at.z, 9.0) << "not above the lower of the two";
    const auto* slope = window().gallery().desk().find("dipole sloping");
    ASSERT_TRUE(slope && slope->placed);
    EXPECT_NEAR(slope->placed->handles[1].at.z, 14.0, 1e-9);
    EXPECT_NEAR(slope->placed->handles[1].at.x, site.supports[0].at.x, 0.05);
    EXPECT_EQ(window().gallery().desk().find("vertical")->proposal.ties, advice::Ties::NoSupport);
}

// What is longer than the supports are apart says so, and is not offered as if it fitted.
TEST_F(GalleryTest, SaysWhatDoesNotFitAndByHowMuch)
{
    action("actionAdd");
    type("galleryFrequency", QStringLiteral("1.85"));
    const auto* flat = window().gallery().desk().find("dipole between");
    ASSERT_TRUE(flat);
    EXPECT_NE(flat->proposal.fault().english().find("apart"), std::string::npos);
    auto* card = find<GalleryCard>("proposal dipole between");
    EXPECT_TRUE(card->toolTip().contains(QStringLiteral("does not fit")));
}

// 2026-11: without a wanted band it spoke of squares that were not there.
TEST_F(GalleryTest, SaysWhenNoBandIsWanted)
{
    document().edit({}, {}, [](Design& d) {
        for (WantedBand& w : d.operation.bands)
            w.wish = Wish::No;
    });
    action("actionAdd");
    const auto* sentence = window().gallery().findChild<QLabel*>(QStringLiteral("stageSentence"));
    EXPECT_TRUE(sentence->text().contains(QStringLiteral("No band is wanted yet"))) << sentence->text().toStdString();
}

TEST_F(GalleryTest, ShowsWhatOneWants)
{
    wantTwoBands();
    action("actionAdd");
    ASSERT_TRUE(filled());
    const int all = shown();
    int sum = 0;
    for (int want : {1, 3}) { // each is for one band or for several
        choose("galleryWant", want);
        EXPECT_GT(shown(), 3);
        sum += shown();
    }
    EXPECT_EQ(sum, all);
    choose("galleryWant", 2);
    EXPECT_LT(shown(), all);
    choose("galleryWant", 0);
    EXPECT_EQ(shown(), all);
    choose("galleryWant", 4); // the shed is empty
    EXPECT_EQ(shown(), 0);
}

TEST_F(GalleryTest, HangsFromTheSupportsThatOneChooses)
{
    action("actionAdd");
    auto* ties = find<QComboBox>("galleryTies");
    const int row = ties->findText(QStringLiteral("on corner post and rowan"));
    ASSERT_GT(row, 0);
    choose("galleryTies", row);
    const auto heldBy = [&](const std::set<std::string>& names) {
        int held = 0;
        for (const auto& entry : entries())
            for (const Id& id : entry.place().supports) {
                held += entry.proposal.fault().empty();
                EXPECT_TRUE(!entry.proposal.fault().empty() || names.contains(findSupport(document().design(), id)->name))
                    << entry.proposal.id;
            }
        EXPECT_GT(held, 1);
    };
    heldBy({"rowan", "corner post"});
    const auto* card = window().gallery().findChildren<GalleryCard*>().front();
    EXPECT_TRUE(card->toolTip().contains(QStringLiteral("high"))) << card->toolTip().toStdString();
    choose("galleryTies", ties->findText(QStringLiteral("on rowan alone")));
    heldBy({"rowan"});
    for (const auto& entry : entries())
        EXPECT_NE(entry.proposal.ties, advice::Ties::TwoSupports) << entry.proposal.id;
}

TEST_F(GalleryTest, ShowsWhatTheShedIsEnoughFor)
{
    wantTwoBands();
    window().shed().take(QStringLiteral(VETCHLING_SOURCE_DATA "/demo/shed.json"));
    action("actionAdd");
    ASSERT_TRUE(filled());
    const int all = shown();
    choose("galleryWant", 4);
    EXPECT_GT(shown(), 3);
    EXPECT_LT(shown(), all);
    const auto* longWire = window().gallery().desk().find("long-wire");
    ASSERT_TRUE(longWire);
    EXPECT_FALSE(longWire->fromShed) << "there is no such length of wire";
}

TEST_F(GalleryTest, IsSearchedByTyping)
{
    action("actionAdd");
    const int all = shown();
    auto* filter = find<QLineEdit>("galleryFilter");
    filter->setFocus();
    QTest::keyClicks(filter, QStringLiteral("loop"));
    EXPECT_GE(shown(), 2);
    EXPECT_LT(shown(), all / 4);
    filter->clear();
    EXPECT_EQ(shown(), all);
    // on a card letters are typed too, though P alone would pin
    auto* card = find<GalleryCard>("proposal dipole");
    card->setFocus();
    QTest::keyClicks(card, QStringLiteral("p"));
    QTest::keyClicks(QApplication::focusWidget(), QStringLiteral("air"));
    EXPECT_EQ(filter->text(), QStringLiteral("pair"));
    EXPECT_FALSE(solver().pinned());
    EXPECT_LT(shown(), all / 3);
    QTest::keyClick(filter, Qt::Key_Tab);
    QTest::keyClick(QApplication::focusWidget(), Qt::Key_Tab);
    EXPECT_TRUE(qobject_cast<GalleryCard*>(QApplication::focusWidget())) << "past Back to the first card that was found";
}

TEST_F(GalleryTest, IsWalkedByTheArrowsAndTakenByEnter)
{
    action("actionAdd");
    auto* first = qobject_cast<GalleryCard*>(QApplication::focusWidget());
    ASSERT_TRUE(first);
    QTest::keyClick(first, Qt::Key_Right);
    auto* second = qobject_cast<GalleryCard*>(QApplication::focusWidget());
    ASSERT_TRUE(second);
    EXPECT_NE(first, second);
    QTest::keyClick(second, Qt::Key_Down);
    auto* below = qobject_cast<GalleryCard*>(QApplication::focusWidget());
    ASSERT_TRUE(below);
    EXPECT_GT(below->y(), second->y());
    const std::string family = window().gallery().desk().find(below->proposal())->proposal.antenna.shape.family;
    QTest::keyClick(below, Qt::Key_Return);
    EXPECT_TRUE(waitedFor([this] { return !window().galleryOpen(); }, 60000));
    EXPECT_EQ(document().antenna().shape.family, family);
}

TEST_F(GalleryTest, ClosesWhenAnotherAntennaOrStageIsChosen)
{
    action("actionAdd");
    chooseAntenna(1);
    EXPECT_FALSE(window().galleryOpen());
    action("actionAdd");
    show("bands");
    EXPECT_FALSE(window().galleryOpen());
    action("actionAdd");
    click("galleryBack");
    EXPECT_FALSE(window().galleryOpen());
}

// Each family: taken from its card, a handle dragged, tuned, undone, saved and opened again.
TEST_F(GalleryTest, EveryFamilyIsTakenDraggedTunedUndoneSavedAndOpened)
{
    document().edit({}, {}, [](Design& d) { // one band is enough
        std::erase_if(d.operation.bands, [](const WantedBand& w) { return w.band.name != "20 m"; });
        d.antennas.clear();
    });
    std::size_t number = 0;
    for (const shapes::Family* family : shapes::families()) {
        if (!testing::tried(number++, 9))
            continue;
        SCOPED_TRACE(family->id());
        action("actionAdd");
        type("galleryFrequency", QStringLiteral("14.2"));
        const auto is = [&](const auto& e) { return e.proposal.antenna.shape.family == family->id(); };
        auto entry = std::find_if(entries().begin(), entries().end(), [&](const auto& e) { return is(e) && e.proposal.fault().empty(); });
        if (entry == entries().end()) // what may not be here is taken none the less
            entry = std::find_if(entries().begin(), entries().end(), is);
        ASSERT_NE(entry, entries().end());
        takeProposal(entry->proposal.id.c_str());
        const shapes::AntennaShape taken = document().antenna().shape;
        EXPECT_EQ(taken.family, family->id());
        auto* scene = find<Scene>("shapeScene");
        scene->grab();
        const auto& handles =
            m_window->stage(QStringLiteral("shape")) ? shapes::buildOver(taken, {})->handles : std::vector<shapes::Handle>();
        const QPoint from = scene->handlePosition(handles.front().name)->toPoint();
        QTest::mousePress(scene, Qt::LeftButton, {}, from);
        QTest::mouseMove(scene, from + QPoint(3, 6));
        QTest::mouseMove(scene, from + QPoint(5, 9));
        QTest::mouseRelease(scene, Qt::LeftButton, {}, from + QPoint(5, 9));
        ASSERT_TRUE(settle());
        const shapes::AntennaShape dragged = document().antenna().shape;
        if (auto* tune = find<QPushButton>("tuneButton"); tune->isEnabled())
            QTest::mouseClick(tune, Qt::LeftButton);
        ASSERT_TRUE(settle());
        EXPECT_TRUE(solver().faults().empty());
        const QString path = file("one.vetchling");
        ASSERT_TRUE(document().save(path).empty());
        const auto again = files::readDesign(path.toStdString());
        ASSERT_TRUE(again.ok()) << again.firstFault();
        EXPECT_EQ(again->antennas.back().shape, document().antenna().shape);
        while (findAntenna(document().design(), document().current())->shape != taken && document().undoStack().canUndo())
            document().undoStack().undo();
        EXPECT_EQ(document().antenna().shape, taken);
        document().removeCurrentAntenna();
    }
}

// One more pair keeps what was finished, says how far its dips went, and can go back.
TEST_F(GalleryTest, AnotherPairKeepsTheStateBefore)
{
    action("actionAdd");
    type("galleryFrequency", QStringLiteral("14.2"));
    ASSERT_TRUE(filled());
    takeProposal("fan-dipole");
    ASSERT_TRUE(settle());
    const shapes::AntennaShape two = document().antenna().shape;
    EXPECT_FALSE(find<QPushButton>("goBack")->isVisible());
    type("pair_count", QStringLiteral("3"));
    ASSERT_EQ(document().antenna().copies.size(), 1u);
    EXPECT_EQ(document().antenna().copies.back().shape, two);
    ASSERT_TRUE(settle());
    EXPECT_TRUE(solver().faults().empty()) << solver().faults().front().text();
    EXPECT_TRUE(find<QLabel>("keptNote")->text().contains(QStringLiteral("kHz"))) << find<QLabel>("keptNote")->text().toStdString();
    click("goBack");
    EXPECT_EQ(document().antenna().shape, two);
    EXPECT_TRUE(document().antenna().copies.empty());
    document().undoStack().undo();
    EXPECT_EQ(document().antenna().copies.size(), 1u);
}

// A shortened antenna shows what shorter costs; a click takes a pair that is resonant again.
TEST_F(GalleryTest, ATradeIsLookedAtAndTaken)
{
    chooseAntenna(4); // the coil dipole
    ASSERT_TRUE(settle());
    auto* button = find<QToolButton>("viewTrade");
    ASSERT_TRUE(button->isVisible());
    QTest::mouseClick(button, Qt::LeftButton);
    auto* chart = find<PairChart>("pairChart");
    ASSERT_TRUE(waitedFor([&] { return pageSentence().contains(QStringLiteral("click a pair")); }, 60000)) << pageSentence().toStdString();
    chart->grab();
    QTest::mouseClick(chart, Qt::LeftButton, {}, chart->placeOf(0).toPoint());
    EXPECT_LT(parameter("leg_m"), 3.0);
    EXPECT_GT(parameter("inductance_H"), 9e-6);
    ASSERT_TRUE(settle());
    EXPECT_NEAR(solver().curve()->resonance->frequency / 10.12e6, 1.0, 1e-3);
    document().undoStack().undo();
    EXPECT_NEAR(parameter("leg_m"), 4.6, 1e-9);
    chooseAntenna(0);
    EXPECT_FALSE(button->isVisible());
    EXPECT_FALSE(chart->isVisible());
}

// So much wire as radials: counts side by side, and where more stop paying.
TEST_F(GalleryTest, RadialsAreCountedAgainstTheirLength)
{
    chooseAntenna(2); // the vertical
    ASSERT_TRUE(settle());
    click("viewRadials");
    ASSERT_TRUE(waitedFor([&] { return pageSentence().contains(QStringLiteral("are enough")); }, 60000)) << pageSentence().toStdString();
    auto* chart = find<PairChart>("pairChart");
    chart->grab();
    const double wire = parameter("radial_count") * parameter("radial_m");
    QTest::mouseClick(chart, Qt::LeftButton, {}, chart->placeOf(0).toPoint());
    EXPECT_LT(parameter("radial_count"), 5.0);
    EXPECT_NEAR(parameter("radial_count") * parameter("radial_m"), wire, 1e-9);
    document().undoStack().undo();
    EXPECT_NEAR(parameter("radial_count"), 6.0, 1e-9);
    chooseAntenna(0);
    EXPECT_FALSE(chart->isVisible());
}

// Two dimensions at once, by hand: what one alone cannot reach.
TEST_F(GalleryTest, SeveralDimensionsAreTunedTogether)
{
    chooseAntenna(4);
    ASSERT_TRUE(settle());
    click("fold tune");
    QTest::qWait(50); // the rows that came into sight take their places
    find<QCheckBox>("vary leg_m")->setChecked(true);
    choose("tuneUntil", 2);
    type("tuneResistance", QStringLiteral("40"));
    click("tuneSeveral");
    ASSERT_TRUE(waitedFor([&] { return !find<QLabel>("tuneNote")->text().isEmpty(); }, 60000));
    ASSERT_TRUE(settle());
    EXPECT_NEAR(solver().curve()->atLine(10.12e6).real(), 40.0, 1.0) << find<QLabel>("tuneNote")->text().toStdString();
    document().undoStack().undo();
    EXPECT_NEAR(parameter("leg_m"), 4.6, 1e-9);
    find<QCheckBox>("vary leg_m")->setChecked(false);
    find<QCheckBox>("vary inductance_H")->setChecked(false);
    click("tuneSeveral");
    ASSERT_TRUE(waitedFor([&] { return find<QLabel>("tuneNote")->text().contains(QStringLiteral("not tuned")); }, 10000));
}

// The length card says why: the causes make up the whole difference.
TEST_F(GalleryTest, TheLengthCardSaysWhy)
{
    ASSERT_TRUE(settle());
    const DetailPointer detail = solver().detail();
    ASSERT_FALSE(detail->causes.empty());
    double product = 1.0;
    for (const study::LengthCause& cause : detail->causes)
        product *= 1.0 + cause.share;
    EXPECT_NEAR(product, solvedLength() / detail->lengths[0].ruleValue, 1e-9);
    EXPECT_TRUE(find<QLabel>("lengthNote")->text().contains(QStringLiteral("jacket"))) << find<QLabel>("lengthNote")->text().toStdString();
}

// The links of a linked dipole are chosen beside the title; every view follows.
TEST_F(GalleryTest, LinksAreOpenedAndClosed)
{
    action("actionAdd");
    type("galleryFrequency", QStringLiteral("7.1"));
    takeProposal("linked-dipole between");
    ASSERT_TRUE(settle());
    ASSERT_EQ(document().configuration(), 0u);
    const double inner = solver().curve()->fundamental;
    auto* outer = m_window->stage(QStringLiteral("shape"))->page()->findChild<QToolButton*>(QStringLiteral("configuration2"));
    ASSERT_TRUE(outer);
    QTest::mouseClick(outer, Qt::LeftButton);
    EXPECT_EQ(document().configuration(), 1u);
    ASSERT_TRUE(settle());
    EXPECT_LT(solver().curve()->fundamental, 0.8 * inner);
    EXPECT_NEAR(solver().curve()->fundamental / shapes::frequencyOf(document().antenna().shape, 1), 1.0, 0.02);
    EXPECT_EQ(solver().detail()->lengths[solver().detail()->explained].what.parameter, "leg_2_m");
    chooseAntenna(1);
    EXPECT_FALSE(m_window->stage(QStringLiteral("shape"))->page()->findChild<QWidget*>(QStringLiteral("configurationBar"))->isVisible());
}

} // namespace
} // namespace vetchling::app
