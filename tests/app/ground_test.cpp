/// The ground farther off as a person tells it, sees it under the lobes, and tries places on it.
#include "app/plots/lobe_dial.h"
#include "app/stages/site/ground_panel.h"
#include "app/stages/site/ground_view.h"
#include "app/widgets/value_edit.h"
#include "core/study/far_ground.h"
#include "core/study/sky.h"
#include "tests/app/app_fixture.h"

#include <QCheckBox>

#include <fstream>

namespace vetchling::app {
namespace {

class GroundTest : public WindowTest {
protected:
    void SetUp() override
    {
        WindowTest::SetUp();
        show("site");
        click("siteGroundView");
    }
    const Site& site() { return document().design().site; }
    QString note(const char* name) { return find<QLabel>(name)->text(); }
    double gainTo(double bearing, double elevation)
    {
        return solver().detail()->spot()->field->gain(radians(elevation), study::azimuthOf(bearing));
    }
    /// A bearing with the sea below a cliff.
    void typeCliff()
    {
        click("addProfile");
        type("profileBearing", QStringLiteral("220"));
        type("pointDistance", QStringLiteral("30 m"));
        type("pointHeight", QStringLiteral("0 m"));
        click("addProfilePoint");
        type("pointDistance", QStringLiteral("45 m"));
        type("pointHeight", QStringLiteral("-20 m"));
        click("addProfilePoint");
        type("pointDistance", QStringLiteral("46 m"));
        auto* soil = find<QComboBox>("pointSoil");
        for (int i = 0; i < soil->count(); ++i)
            if (soil->itemText(i).contains(QStringLiteral("Sea"), Qt::CaseInsensitive))
                choose("pointSoil", i);
    }
};

TEST_F(GroundTest, ATypedCliffIsKeptDrawnAndCounted)
{
    EXPECT_TRUE(pageSentence().contains(QStringLiteral("counts as flat")));
    ASSERT_TRUE(settle());
    const double before = gainTo(220.0, 5.0), beside = gainTo(260.0, 5.0);
    typeCliff();
    ASSERT_EQ(site().profiles.size(), 1u);
    const GroundProfile& p = site().profiles.front();
    EXPECT_EQ(p.bearing, 220.0);
    ASSERT_EQ(p.points.size(), 4u);
    EXPECT_EQ(p.points[1].distance, 30.0);
    EXPECT_EQ(p.points[2].height, -20.0);
    EXPECT_GT(p.points[3].soil.value().figures.conductivity, 1.0);
    ASSERT_TRUE(settle());
    EXPECT_GT(gainTo(220.0, 5.0), before + 1.0) << "the sea below lifts the low lobe";
    EXPECT_EQ(gainTo(260.0, 5.0), beside);

    show("sky");
    type("skyAngle", QStringLiteral("5"));
    type("skyBearing", QStringLiteral("220"));
    const double by = gainTo(220.0, 5.0) - before;
    EXPECT_TRUE(pageSentence().contains(QStringLiteral("gives %1 dB").arg(by, 0, 'f', 1))) << pageSentence().toStdString();
    EXPECT_TRUE(find<LobeDial>("lobeDial")->grab().toImage().isGrayscale() == false);
    find<QCheckBox>("skyAsFlat")->click();
    EXPECT_TRUE(site().countsAsFlat);
    ASSERT_TRUE(settle());
    EXPECT_NEAR(gainTo(220.0, 5.0), before, 1e-9);
    EXPECT_FALSE(pageSentence().contains(QStringLiteral("flat ground")));
    document().undoStack().undo();
    ASSERT_TRUE(settle());
    EXPECT_NEAR(gainTo(220.0, 5.0), before + by, 1e-6);
}

TEST_F(GroundTest, NonsenseIsToldAndLosesNothing)
{
    typeCliff();
    const Site typed = site();
    for (const auto& [field, text] :
         {std::pair("pointDistance", "-5 m"), std::pair("pointDistance", "far"), std::pair("pointHeight", "1e9 m"),
          std::pair("profileBearing", "south-ish"), std::pair("profileBearing", "777")}) {
        type(field, QLatin1String(text));
        EXPECT_FALSE(find<ValueEdit>(field)->complaint().isEmpty()) << field << " " << text;
        EXPECT_EQ(site(), typed) << field << " " << text;
        find<ValueEdit>(field)->revert();
    }
    type("pointDistance", QStringLiteral("45 m")); // where another stands: the file could not be read again
    EXPECT_EQ(site(), typed);
    EXPECT_TRUE(files::parseDesign(files::writeDesign(document().design())).ok());
    click("removeProfilePoint");
    click("removeProfilePoint");
    click("removeProfilePoint");
    click("removeProfilePoint");
    EXPECT_TRUE(site().profiles.front().points.empty());
    EXPECT_TRUE(files::parseDesign(files::writeDesign(document().design())).ok());
    click("addProfilePoint");
    click("removeProfile");
    EXPECT_TRUE(site().profiles.empty());
}

TEST_F(GroundTest, ASlopeIsLaidAllRoundInOneStep)
{
    click("fold slope");
    type("slopeFall", QStringLiteral("8"));
    type("slopeTowards", QStringLiteral("130"));
    type("slopeLength", QStringLiteral("150 m"));
    click("laySlope");
    ASSERT_EQ(site().profiles.size(), 36u);
    const auto* page = find<QStackedWidget>("stages")->currentWidget()->findChild<QLabel*>(QStringLiteral("stageTitle"));
    EXPECT_TRUE(page->text().contains(QStringLiteral("130"))) << "that is looked along: " << page->text().toStdString();
    document().undoStack().undo();
    EXPECT_TRUE(site().profiles.empty());
}

// Fields that hold what no design has follow its units as well: a bare number would mean metres in a site of feet.
TEST_F(GroundTest, FieldsOfNoDesignReadInItsUnits)
{
    window().toggleUnits();
    EXPECT_EQ(find<ValueEdit>("slopeLength")->text(), QStringLiteral("656 ft 2 in"));
    type("slopeLength", QStringLiteral("300"));
    EXPECT_NEAR(find<ValueEdit>("slopeLength")->value(), 91.44, 1e-6);
    EXPECT_TRUE(find<ValueEdit>("yardAmount")->text().endsWith(QStringLiteral(" in"))) << "a page not on show";
    type("slopeFall", QStringLiteral("steep"));
    window().toggleUnits();
    EXPECT_EQ(find<ValueEdit>("slopeFall")->text(), QStringLiteral("steep")) << "what is typed stays";
    EXPECT_EQ(find<ValueEdit>("slopeLength")->text(), QStringLiteral("91.44 m"));
}

TEST_F(GroundTest, HeightsAreTakenFromAFile)
{
    auto* panel = window().findChild<GroundPanel*>();
    ASSERT_TRUE(panel);
    const auto take = [&](const QString& path) {
        panel->takeHeights(path);
        ASSERT_TRUE(waitedFor([&] { return !panel->reading() && !note("heightsNote").contains(QStringLiteral("Reading")); }, 20000));
    };
    take(file("none.txt"));
    EXPECT_TRUE(note("heightsNote").contains(QStringLiteral("cannot be read")));
    std::ofstream(file("degrees.txt").toStdString()) << "ncols 3 nrows 3 xllcenter -3 yllcenter 54 cellsize 0.01\n1 2 3 4 5 6 7 8 9\n";
    take(file("degrees.txt"));
    EXPECT_TRUE(note("heightsNote").contains(QStringLiteral("say first where"))) << note("heightsNote").toStdString();
    EXPECT_TRUE(site().profiles.empty());
    type("sitePlace", QStringLiteral("north of the pier"));
    EXPECT_TRUE(note("heightsNote").contains(QStringLiteral("latitude and longitude")));
    type("sitePlace", QStringLiteral("54.01, -2.99"));
    ASSERT_TRUE(site().place.has_value());
    take(file("degrees.txt"));
    EXPECT_EQ(site().profiles.size(), 36u) << note("heightsNote").toStdString();
    take(QStringLiteral(VETCHLING_SOURCE_DATA "/demo/gannet-skerry-heights.txt"));
    EXPECT_TRUE(note("heightsNote").contains(QStringLiteral("36 bearings"))) << note("heightsNote").toStdString();
    EXPECT_TRUE(note("heightsNote").contains(QStringLiteral("middle")));
    click("removeProfiles");
    EXPECT_TRUE(site().profiles.empty());
    EXPECT_TRUE(site().place.has_value()) << "where the site is stays";
}

TEST_F(GroundTest, APlaceIsTriedWithTheKeys)
{
    typeCliff();
    ASSERT_TRUE(settle());
    ASSERT_TRUE(waitedFor([&] { return pageSentence().contains(QStringLiteral("firm ground")); }, 60000)) << pageSentence().toStdString();
    auto* view = find<GroundView>("groundView");
    EXPECT_EQ(view->tried(), 0.0);
    view->setFocus();
    QTest::keyClick(view, Qt::Key_Right);
    QTest::keyClick(view, Qt::Key_Right);
    EXPECT_EQ(view->tried(), 2.0);
    EXPECT_FALSE(document().undoStack().canRedo());
    QTest::keyClick(view, Qt::Key_Home);
    EXPECT_EQ(view->tried(), 0.0);
    EXPECT_GT(view->tableText().count(QLatin1Char('\n')), 40);
}

} // namespace
} // namespace vetchling::app
