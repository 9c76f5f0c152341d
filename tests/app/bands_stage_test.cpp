/// The views of Bands and Sky by hand: coverage, segments, the map, the finder, the settings, the whole sky, antennas compared.
#include "tests/app/app_fixture.h"

#include "app/plots/pair_chart.h"
#include "app/plots/scene/scene.h"
#include "app/plots/scene/solids.h"
#include "app/stages/bands/coverage_rows.h"
#include "app/stages/bands/finder_view.h"
#include "app/stages/bands/length_map_chart.h"
#include "app/stages/bands/settings_chart.h"
#include "app/stages/sky/flat_sky.h"
#include "app/stages/sky/sky_compare.h"
#include "app/widgets/value_edit.h"
#include "core/shapes/hang.h"

#include <QCheckBox>

namespace vetchling::app {
namespace {

class BandsStageTest : public WindowTest {
protected:
    void showView(const char* view)
    {
        show("bands");
        ASSERT_TRUE(settle());
        click((std::string("bands ") + view).c_str());
    }
    QString sentence() { return pageSentence(); }
    template <class Words> bool waitForSentence(Words words)
    {
        return waitedFor([&] { return sentence().contains(QLatin1String(words)); }, 60000);
    }
    void openDemo()
    {
        Result<Design> design = files::readDesign(VETCHLING_SOURCE_DATA "/demo/gannet-skerry.vetchling");
        ASSERT_TRUE(design.ok());
        window().fileDesk().openNew(*design);
        ASSERT_TRUE(settle());
    }
    void chooseByName(const char* name)
    {
        for (const Antenna& a : document().design().antennas)
            if (a.name == name)
                document().setCurrent(a.id);
        ASSERT_TRUE(settle());
    }
};

// ---- coverage

TEST_F(BandsStageTest, TheReturnPathSaysWhatItDoes)
{
    show("bands");
    ASSERT_TRUE(settle());
    EXPECT_TRUE(find<QLabel>("returnEffect")->text().isEmpty()) << "a dipole has none";
    openDemo();
    chooseByName("Wall end-fed 40");
    const auto words = [&] { return find<QLabel>("returnEffect")->text(); };
    ASSERT_TRUE(waitedFor([&] { return words().contains(QStringLiteral("3.20 m of coax")); }, 60000)) << words().toStdString();
    EXPECT_TRUE(words().contains(QStringLiteral("counterpoise of 1.00 m"))) << words().toStdString();
}

TEST_F(BandsStageTest, WorkingBandsAreLargeAndHopelessOnesALine)
{
    show("bands");
    ASSERT_TRUE(settle());
    auto* rows = find<CoverageRows>("bandRows");
    const Id sixty = document().design().operation.bands[1].id, forty = document().design().operation.bands[2].id;
    EXPECT_TRUE(rows->isLarge(forty));
    EXPECT_FALSE(rows->isLarge(sixty));
    const std::vector<Id> order = rows->rows();
    EXPECT_LT(std::find(order.begin(), order.end(), forty) - order.begin(), std::find(order.begin(), order.end(), sixty) - order.begin());
    EXPECT_EQ(order.size(), 6u);
}

TEST_F(BandsStageTest, AllLinksCountTogether)
{
    openDemo();
    show("bands");
    ASSERT_TRUE(waitedFor([&] { return sentence().contains(QStringLiteral("best links")); }, 60000));
    EXPECT_TRUE(sentence().startsWith(QStringLiteral("2 of 6"))) << sentence().toStdString();
    EXPECT_TRUE(waitedFor([&] { return window().stage(QStringLiteral("bands"))->summary().startsWith(QStringLiteral("2 of 6")); }, 20000));
    auto* rows = find<CoverageRows>("bandRows");
    EXPECT_TRUE(rows->isLarge(document().design().operation.bands[1].id)); // 60 m, though the links stand open for 40 m
}

TEST_F(BandsStageTest, UseIsToldBesideTheMatch)
{
    show("bands");
    ASSERT_TRUE(settle());
    auto* against = find<QLabel>("against");
    ASSERT_TRUE(waitedFor([&] { return against->text().startsWith(QStringLiteral("40 m")); }, 60000));
    EXPECT_TRUE(against->text().contains(QStringLiteral("dB"))) << against->text().toStdString();
    EXPECT_TRUE(window().stage(QStringLiteral("bands"))->tableText().contains(QStringLiteral("vertical dBi")));
}

TEST_F(BandsStageTest, DistanceAndAngleFollowEachOther)
{
    show("bands");
    ASSERT_TRUE(settle());
    type("aimDistance", QStringLiteral("90"));
    EXPECT_NEAR(document().design().operation.aimElevation, 81.0, 1.0);
    type("aimAngle", QStringLiteral("5"));
    QTest::qWait(100);
    EXPECT_NEAR(find<ValueEdit>("aimDistance")->value(), 2800.0, 300.0);
    type("aimBearing", QStringLiteral("120"));
    EXPECT_EQ(document().design().operation.aimBearing, 120.0);
    auto* bearing = find<ValueEdit>("aimBearing");
    bearing->setFocus();
    bearing->selectAll();
    QTest::keyClick(bearing, Qt::Key_Delete);
    QTest::keyClick(bearing, Qt::Key_Return);
    EXPECT_FALSE(document().design().operation.aimBearing.has_value());
}

TEST_F(BandsStageTest, TheReferenceChangesTheSwr)
{
    show("bands");
    ASSERT_TRUE(settle());
    const double at50 = solver().curve()->bands[2].lowestSwr;
    type("reference", QStringLiteral("200"));
    ASSERT_TRUE(settle());
    EXPECT_GT(solver().curve()->bands[2].lowestSwr, 2.0 * at50);
    document().undoStack().undo();
    ASSERT_TRUE(settle());
    EXPECT_NEAR(solver().curve()->bands[2].lowestSwr, at50, 1e-9);
}

TEST_F(BandsStageTest, SegmentsOfThePlanAreWishedForAndUndone)
{
    show("bands");
    ASSERT_TRUE(settle());
    EXPECT_FALSE(window().findChild<QComboBox*>(QStringLiteral("segment0"))); // an old file has none
    click("fold ranges");
    click("putPlan");
    ASSERT_TRUE(settle());
    const auto& forty = document().design().operation.bands[3];
    ASSERT_EQ(forty.band.name, "40 m");
    ASSERT_EQ(forty.segments.size(), 3u);
    choose("segment2", int(Wish::Must));
    ASSERT_TRUE(settle());
    ASSERT_EQ(solver().curve()->bands[3].segments.size(), 1u);
    EXPECT_EQ(solver().curve()->bands[3].segments[0].segment.name, "phone");
    document().undoStack().undo();
    EXPECT_EQ(document().design().operation.bands[3].segments[2].wish, Wish::No);
}

TEST_F(BandsStageTest, ARangeInsideABandBecomesItsSegment)
{
    show("bands");
    ASSERT_TRUE(settle());
    click("fold ranges");
    find<QLineEdit>("ownName")->setText(QStringLiteral("evening net"));
    type("ownFrom", QStringLiteral("7.06"));
    type("ownTo", QStringLiteral("7.08"));
    click("addRange");
    const WantedBand& forty = document().design().operation.bands[2];
    ASSERT_EQ(forty.segments.size(), 1u);
    EXPECT_EQ(forty.segments[0].name, "evening net");
    EXPECT_TRUE(find<QLabel>("rangeNote")->text().isEmpty());
    type("ownTo", QStringLiteral("7.3")); // over the band's edge
    click("addRange");
    EXPECT_FALSE(find<QLabel>("rangeNote")->text().isEmpty());
}

TEST_F(BandsStageTest, WishesStartFromWhatIsOpen)
{
    show("bands");
    ASSERT_TRUE(settle());
    choose("wishStart", 4); // night, low sun
    EXPECT_EQ(document().design().operation.bands[2].wish, Wish::Must);
    EXPECT_EQ(document().design().operation.bands[8].wish, Wish::No);
    document().undoStack().undo();
    EXPECT_EQ(document().design().operation.bands[8].wish, Wish::Nice);
}

// An empty site: every new view says what is missing, or is not offered.
TEST_F(BandsStageTest, NothingIsSilentOnAnEmptySite)
{
    window().fileDesk().openNew(Design{});
    show("bands");
    for (const char* view : {"bands map", "bands settings", "bands finder"})
        EXPECT_TRUE(find<QWidget>(view)->isHidden()) << view;
    EXPECT_TRUE(sentence().contains(QStringLiteral("Add an antenna"))) << sentence().toStdString();
    show("sky");
    for (const char* view : {"skyRound", "skyAgainst", "skyCut"}) {
        click(view);
        window().grab();
        EXPECT_TRUE(sentence().contains(QStringLiteral("Add an antenna"))) << view << sentence().toStdString();
    }
    EXPECT_FALSE(solver().busyInBackground());
}

// An antenna without a wanted band: the map, the finder and the coil ask for one.
TEST_F(BandsStageTest, WithoutAWantedBandTheViewsAskForOne)
{
    chooseAntenna(1);
    document().edit({}, {}, [](Design& d) {
        for (WantedBand& w : d.operation.bands)
            w.wish = Wish::No;
    });
    for (const char* view : {"coverage", "map", "finder"}) {
        showView(view);
        EXPECT_TRUE(sentence().contains(QStringLiteral("No band is wanted yet"))) << view << sentence().toStdString();
    }
    showView("map");
    click("solveCoil");
    auto* words = find<QLabel>("coilWords");
    EXPECT_TRUE(waitedFor([&] { return words->text().contains(QStringLiteral("no band is wanted")); }, 20000))
        << words->text().toStdString();
}

// ---- map

TEST_F(BandsStageTest, TheMapTakesALengthAndItIsUndone)
{
    chooseAntenna(1);
    showView("map");
    auto* chart = find<LengthMapChart>("lengthMap");
    ASSERT_TRUE(waitForSentence("Click to take")) << sentence().toStdString();
    const double before = parameter("length_m");
    QTest::mouseClick(chart, Qt::LeftButton, {}, chart->placeOf(40, 2).toPoint());
    const double taken = parameter("length_m");
    EXPECT_NEAR(taken, before * (2.0 / 3.0 + 40.0 / 59.0 * (1.5 - 2.0 / 3.0)), 1e-6);
    ASSERT_TRUE(settle());
    EXPECT_TRUE(sentence().contains(QStringLiteral("Click to take"))) << "the map stays: " << sentence().toStdString();
    document().undoStack().undo();
    EXPECT_EQ(parameter("length_m"), before);
    click("takeBest");
    EXPECT_NE(parameter("length_m"), before);
}

TEST_F(BandsStageTest, TheMapIsUsedByKeys)
{
    chooseAntenna(1);
    showView("map");
    auto* chart = find<LengthMapChart>("lengthMap");
    ASSERT_TRUE(waitForSentence("Click to take"));
    const double before = parameter("length_m");
    chart->setFocus();
    QTest::keyClick(chart, Qt::Key_Right);
    QTest::keyClick(chart, Qt::Key_Right);
    ASSERT_TRUE(chart->hot().has_value());
    QTest::keyClick(chart, Qt::Key_Return);
    EXPECT_GT(parameter("length_m"), before);
}

TEST_F(BandsStageTest, AMapOfNoSenseSaysSo)
{
    chooseAntenna(1);
    showView("map");
    type("mapFrom", QStringLiteral("30 m"));
    type("mapTo", QStringLiteral("20 m"));
    EXPECT_TRUE(sentence().contains(QStringLiteral("lower to a higher"))) << sentence().toStdString();
    type("mapTo", QStringLiteral("nonsense"));
    EXPECT_FALSE(find<ValueEdit>("mapTo")->complaint().isEmpty());
}

TEST_F(BandsStageTest, AnotherDimensionIsVaried)
{
    chooseAntenna(1);
    showView("map");
    const double from = find<ValueEdit>("mapFrom")->value();
    choose("mapVary", 1);
    EXPECT_NE(find<ValueEdit>("mapFrom")->value(), from);
    ASSERT_TRUE(waitForSentence("Click to take")) << sentence().toStdString();
    click("takeBest");
    EXPECT_NEAR(parameter("length_m"), 19.66, 0.5) << "only the counterpoise was varied";
}

TEST_F(BandsStageTest, AnotherAntennaHasItsOwnMap)
{
    chooseAntenna(1);
    showView("map");
    ASSERT_TRUE(waitForSentence("Click to take"));
    chooseAntenna(3);
    ASSERT_TRUE(settle());
    EXPECT_TRUE(find<QComboBox>("mapVary")->currentText().contains(QStringLiteral("ire")));
    ASSERT_TRUE(waitForSentence("Click to take")) << sentence().toStdString();
    EXPECT_FALSE(window().findChild<QPushButton*>(QStringLiteral("solveCoil")));
}

TEST_F(BandsStageTest, ACoilNearTheFeedIsSolvedAndTaken)
{
    chooseAntenna(1);
    document().edit({}, {}, [](Design& d) { // a long wire, wanted on its lowest harmonics
        for (WantedBand& w : d.operation.bands)
            w.wish = w.band.name == "40 m" || w.band.name == "20 m" ? Wish::Must : Wish::No;
    });
    showView("map");
    click("solveCoil");
    auto* words = find<QLabel>("coilWords");
    ASSERT_TRUE(waitedFor([&] { return words->text().contains(QStringLiteral("core")); }, 120000)) << words->text().toStdString();
    click("bands map"); // the map with it, the one without as dashes
    ASSERT_TRUE(waitForSentence("Click to take"));
    find<QCheckBox>("tryCoil")->click();
    EXPECT_TRUE(waitedFor([&] { return sentence().contains(QStringLiteral("% of the lengths")); }, 5000)) << sentence().toStdString();
    ASSERT_TRUE(waitForSentence("Click to take")) << sentence().toStdString();
    EXPECT_FALSE(document().antenna().shape.parameters.contains("coil_H") && parameter("coil_H") > 0.0) << "tried, not taken";
    find<QCheckBox>("tryCoil")->click();
    ASSERT_TRUE(waitForSentence("Click to take"));
    auto* take = find<QPushButton>("takeCoil");
    if (take->isVisible()) {
        click("takeCoil");
        EXPECT_GT(parameter("coil_H"), 0.0);
        document().undoStack().undo();
        EXPECT_FALSE(document().antenna().shape.parameters.contains("coil_H") && parameter("coil_H") > 0.0);
    }
}

TEST_F(BandsStageTest, TheFavouriteIsWhatTheMapCutsFor)
{
    chooseAntenna(1);
    show("bands");
    ASSERT_TRUE(settle());
    choose("favourite", 1 + 8); // 10 m
    EXPECT_EQ(document().design().operation.favourite, document().design().operation.bands[8].id);
    showView("map");
    ASSERT_TRUE(waitForSentence("Click to take"));
    EXPECT_TRUE(find<QPushButton>("takeFavourite")->isHidden() ||
                find<QPushButton>("takeFavourite")->text().contains(QStringLiteral("10 m")));
    document().undoStack().undo();
    EXPECT_TRUE(document().design().operation.favourite.empty());
}

TEST_F(BandsStageTest, APlanIsTakenOutAgain)
{
    show("bands");
    ASSERT_TRUE(settle());
    const std::size_t before = document().design().operation.bands.size();
    click("fold ranges");
    choose("bandPlan", 4); // marine
    EXPECT_GT(document().design().operation.bands.size(), before);
    QTest::qWait(50);
    click("takePlan");
    EXPECT_EQ(document().design().operation.bands.size(), before);
}

// ---- settings and finder

TEST_F(BandsStageTest, SettingsOfAWhipAreTakenAndPrinted)
{
    openDemo();
    chooseByName("Walking whip 17");
    showView("settings");
    ASSERT_TRUE(waitForSentence("Reaches")) << sentence().toStdString();
    EXPECT_TRUE(sentence().contains(QStringLiteral("not"))) << sentence().toStdString();
    auto* chart = find<SettingsChart>("settingsChart");
    EXPECT_GT(chart->cells().size(), 5u);
    const double before = parameter("whip_m");
    for (const WantedBand& w : document().design().operation.bands)
        if (w.band.name == "20 m")
            document().selectBand(w.id);
    ASSERT_TRUE(settle());
    click("takeSetting");
    EXPECT_GT(parameter("whip_m"), before);
    document().undoStack().undo();
    EXPECT_EQ(parameter("whip_m"), before);
}

TEST_F(BandsStageTest, WhatIsCutHasNoSettings)
{
    show("bands");
    ASSERT_TRUE(settle());
    EXPECT_TRUE(find<QWidget>("bands settings")->isHidden());
}

TEST_F(BandsStageTest, TheFinderRanksGapsAndTakesOne)
{
    chooseAntenna(1);
    showView("finder");
    auto* ranked = find<QLabel>("finderRanked");
    EXPECT_TRUE(ranked->text().startsWith(QStringLiteral("1."))) << ranked->text().toStdString();
    type("finderMargin", QStringLiteral("48"));
    EXPECT_TRUE(ranked->text().contains(QStringLiteral("smaller margin"))) << ranked->text().toStdString();
    type("finderMargin", QStringLiteral("5"));
    ASSERT_TRUE(waitForSentence("lowest worst SWR")) << sentence().toStdString();
    const double before = parameter("length_m");
    document().setParameter("transformer_ratio", 2.0, {});
    const double ratio = parameter("transformer_ratio");
    ASSERT_TRUE(waitForSentence("lowest worst SWR")) << sentence().toStdString();
    click("finderTakeSolved");
    const QString words = find<QPushButton>("finderTakeSolved")->text();
    EXPECT_NE(parameter("length_m"), before);
    EXPECT_TRUE(words.contains(QStringLiteral("behind %1:1").arg(parameter("transformer_ratio")))) << words.toStdString();
    EXPECT_NE(parameter("transformer_ratio"), ratio);
    document().undoStack().undo(); // both in one
    EXPECT_EQ(parameter("length_m"), before);
    EXPECT_EQ(parameter("transformer_ratio"), ratio);
    click("finderTake");
    EXPECT_NE(parameter("length_m"), before);
}

TEST_F(BandsStageTest, TheFinderStaysWithinWhatThereIsRoomFor)
{
    chooseAntenna(1);
    showView("finder");
    const auto room = shapes::roomForWire(document().design().site, *shapes::buildOver(document().antenna().shape, {}));
    ASSERT_TRUE(room);
    EXPECT_LE(find<ValueEdit>("finderTo")->value(), *room + 1e-6);
    document().edit({}, {}, [](Design& d) { d.site.boundary = {{0, 0}, {400, 0}, {400, 300}, {0, 300}}; }); // the garden grows
    document().edit({}, {}, [](Design& d) { d.site.supports.clear(); });
    document().setParameter("first_run_m", 0.0, {});
    EXPECT_GT(find<ValueEdit>("finderTo")->value(), *room) << "and the proposal with it";
    type("finderTo", QStringLiteral("60")); // asked for
    EXPECT_EQ(find<ValueEdit>("finderTo")->value(), 60.0);
    document().setParameter("bearing_deg", 200.0, {});
    EXPECT_EQ(find<ValueEdit>("finderTo")->value(), 60.0) << "stays as typed";
}

TEST_F(BandsStageTest, TheFinderAddsAWireWhereThereIsNone)
{
    chooseAntenna(0);
    showView("finder");
    EXPECT_TRUE(sentence().contains(QStringLiteral("is none"))) << sentence().toStdString();
    const std::size_t before = document().design().antennas.size();
    click("finderAdd");
    EXPECT_EQ(document().design().antennas.size(), before + 1);
    EXPECT_EQ(document().antenna().shape.family, "long-wire");
    EXPECT_TRUE(find<QToolButton>("bands finder")->isChecked());
    EXPECT_TRUE(waitForSentence("lowest worst SWR")) << sentence().toStdString();
}

// ---- sky

TEST_F(BandsStageTest, TheWholeSkyIsShownAndAimedAt)
{
    show("sky");
    ASSERT_TRUE(settle());
    click("skyRound");
    auto* flat = find<FlatSky>("flatSky");
    QTest::mouseClick(flat, Qt::LeftButton, {}, {flat->width() / 2, flat->height() / 3});
    EXPECT_NEAR(find<ValueEdit>("skyBearing")->value(), 180.0, 15.0);
    flat->setFocus();
    const double before = find<ValueEdit>("skyAngle")->value();
    QTest::keyClick(flat, Qt::Key_Up);
    EXPECT_EQ(find<ValueEdit>("skyAngle")->value(), before + 1.0);
    click("lookUp");
    EXPECT_EQ(find<ValueEdit>("skyAngle")->value(), 90.0);
    type("skyDistance", QStringLiteral("1000"));
    EXPECT_NEAR(find<ValueEdit>("skyAngle")->value(), 28.0, 3.0);
    click("judgeByThis");
    EXPECT_NEAR(document().design().operation.aimElevation, find<ValueEdit>("skyAngle")->value(), 1e-9);
}

TEST_F(BandsStageTest, AntennasAreComparedOnEveryBand)
{
    show("sky");
    ASSERT_TRUE(settle());
    click("skyAgainst");
    auto* compare = find<SkyCompare>("skyCompare");
    ASSERT_TRUE(waitedFor([&] { return compare->cells().size() == 6u; }, 60000));
    EXPECT_EQ(compare->cells().front().size(), 7);
    EXPECT_TRUE(sentence().contains(QStringLiteral("leads"))) << sentence().toStdString();
    const Id last = document().design().antennas.back().id;
    window().findChild<QCheckBox*>(QStringLiteral("compare ") + QString::fromStdString(last))->click();
    ASSERT_TRUE(waitedFor([&] { return compare->cells().size() == 5u; }, 60000));
    find<QCheckBox>("compareVerticals")->click();
    ASSERT_TRUE(waitedFor([&] { return compare->cells().size() == 10u; }, 60000));
}

// ---- Shape: named lengths, corners, voltage

TEST_F(BandsStageTest, ANamedLengthIsFollowedByExpressions)
{
    show("shape");
    ASSERT_TRUE(settle());
    click("fold named");
    find<QLineEdit>("newName")->setText(QStringLiteral("side"));
    type("newLength", QStringLiteral("20 m"));
    click("addName");
    ASSERT_EQ(document().antenna().named.size(), 1u);
    type("leg_m", QStringLiteral("=side/2-10 cm"));
    EXPECT_NEAR(parameter("leg_m"), 9.9, 1e-9);
    type("named side", QStringLiteral("21 m"));
    EXPECT_NEAR(parameter("leg_m"), 10.4, 1e-9);
    document().undoStack().undo();
    EXPECT_NEAR(parameter("leg_m"), 9.9, 1e-9);
    find<QLineEdit>("newName")->setText(QStringLiteral("lambda"));
    click("addName");
    EXPECT_FALSE(find<QLabel>("namedComplaint")->text().isEmpty());
    click("forget side");
    EXPECT_TRUE(document().antenna().named.empty());
    EXPECT_NEAR(parameter("leg_m"), 9.9, 1e-9) << "what followed it keeps its value";
}

TEST_F(BandsStageTest, TheRibbonShowsVoltageOnRequest)
{
    show("shape");
    ASSERT_TRUE(settle());
    auto* scene = find<Scene>("shapeScene");
    const QImage current = scene->grab().toImage();
    find<QCheckBox>("showVoltage")->click();
    EXPECT_NE(scene->grab().toImage(), current);
    find<QCheckBox>("showVoltage")->click();
    EXPECT_EQ(scene->grab().toImage(), current);
}

TEST_F(BandsStageTest, WhatIsTradedIsChosen)
{
    chooseAntenna(4); // the loaded dipole
    show("shape");
    ASSERT_TRUE(settle());
    click("viewTrade");
    auto* pair = find<QComboBox>("tradePair");
    ASSERT_EQ(pair->count(), 2);
    EXPECT_TRUE(find<QWidget>("showVoltage")->isHidden());
    choose("tradePair", 1);
    auto* chart = find<PairChart>("pairChart");
    ASSERT_TRUE(waitedFor([&] { return chart->filled(); }, 60000));
    const double before = parameter("coil_place_percent");
    QTest::mouseClick(chart, Qt::LeftButton, {}, chart->placeOf(1).toPoint());
    EXPECT_NE(parameter("coil_place_percent"), before);
    document().undoStack().undo();
    EXPECT_EQ(parameter("coil_place_percent"), before);
}

// A wall in front of a wire hides it, and from behind the wire is in front of the wall.
TEST_F(BandsStageTest, WhatIsNearHidesWhatIsFar)
{
    Site site;
    site.buildings = {{"wall", {{-10, 0}, {10, 0}, {10, 0.2}, {-10, 0.2}}, 6.0, 6.1, "b", {}}};
    WireModel wires;
    Wire wire;
    wire.points = {{-5, 3, 3}, {5, 3, 3}};
    wires.wires = {wire};
    const auto leafPixels = [&](double yaw) {
        Camera camera;
        const double pitch = 0.05;
        camera.right = {std::cos(yaw), std::sin(yaw), 0.0};
        camera.up = {-std::sin(yaw) * std::sin(pitch), std::cos(yaw) * std::sin(pitch), std::cos(pitch)};
        camera.scale = 10.0;
        camera.centre = {150.0, 100.0};
        QImage image(300, 200, QImage::Format_RGB32);
        image.fill(Qt::white);
        QPainter painter(&image);
        Theme theme;
        Sketch sketch(painter, theme);
        paintSolids(sketch, camera, site, {}, wires);
        painter.end();
        int count = 0;
        for (int x = 0; x < image.width(); ++x)
            for (int y = 0; y < image.height(); ++y)
                count += image.pixelColor(x, y) == theme.colours().leaf;
        return count;
    };
    EXPECT_EQ(leafPixels(0.0), 0);  // looking north: the wall stands before the wire
    EXPECT_GT(leafPixels(pi), 100); // looking south: behind it
}

TEST_F(BandsStageTest, AFreeWireGetsACornerByDoubleClickAndLosesItByDelete)
{
    document().addAntenna(newAntenna(shapes::freeWireFamily(), 7.1e6, document().design().site));
    show("shape");
    ASSERT_TRUE(settle());
    click("view1"); // plan
    auto* scene = find<Scene>("shapeScene");
    const auto wireNow = [&] {
        return shapes::buildOver(document().antenna().shape, document().design().site.soil.ground())->model.wires[0];
    };
    const auto pieces = [&] { return document().family().value(document().antenna().shape, "piece_count"); };
    const double before = pieces();
    const Wire wire = wireNow();
    QTest::qWait(50);
    const Vec3 middle = 0.5 * (wire.points[0] + wire.points[1]);
    QTest::mouseDClick(scene, Qt::LeftButton, {}, scene->pointOf(middle).toPoint());
    EXPECT_EQ(pieces(), before + 1.0);
    EXPECT_NEAR(wireNow().length(), wire.length(), 0.02) << "a corner on the wire changes nothing yet";
    scene->setFocus();
    QTest::keyClick(scene, Qt::Key_Space);
    QTest::keyClick(scene, Qt::Key_Space); // the second ring
    QTest::keyClick(scene, Qt::Key_Delete);
    EXPECT_EQ(pieces(), before);
}

} // namespace
} // namespace vetchling::app
