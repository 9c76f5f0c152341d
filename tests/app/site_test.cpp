#include "app/plots/site_plan.h"
#include "app/stages/site/notes_panel.h"
#include "app/widgets/value_edit.h"
#include "tests/app/app_fixture.h"

#include <QCheckBox>
#include <QPlainTextEdit>
#include <QTableView>

namespace vetchling::app {
namespace {

using Kind = SiteThing::Kind;

class SiteTest : public WindowTest {
protected:
    void SetUp() override
    {
        WindowTest::SetUp();
        show("site");
        window().grab(); // the plan knows its scale once it is painted
    }
    SitePlan& plan() { return *find<SitePlan>("sitePlan"); }
    const Site& site() { return document().design().site; }
    const Outline& cottage() { return site().buildings.front().outline; }
    QPoint at(PlanPoint p) { return plan().place(p).toPoint(); }
    void drag(PlanPoint from, PlanPoint to)
    {
        QTest::mousePress(&plan(), Qt::LeftButton, {}, at(from));
        QTest::mouseMove(&plan(), at({0.5 * (from.x + to.x), 0.5 * (from.y + to.y)}));
        QTest::mouseMove(&plan(), at(to));
        QTest::mouseRelease(&plan(), Qt::LeftButton, {}, at(to));
    }
    void clickPlan(PlanPoint p) { QTest::mouseClick(&plan(), Qt::LeftButton, {}, at(p)); }
};

TEST_F(SiteTest, ACornerIsDraggedAndUndone)
{
    clickPlan({6.0, 2.5}); // the cottage
    ASSERT_EQ(plan().selected().kind, Kind::Building);
    drag({12.0, 1.5}, {14.0, 3.0});
    EXPECT_EQ(plan().selected().corner, 1);
    EXPECT_NEAR(cottage()[1].x, 14.0, 0.15);
    EXPECT_NEAR(cottage()[1].y, 3.0, 0.15);
    EXPECT_EQ(cottage()[0], (PlanPoint{3.0, 1.5})) << "the others stay";
    document().undoStack().undo();
    EXPECT_EQ(cottage()[1], (PlanPoint{12.0, 1.5})) << "a drag is one step";
}

TEST_F(SiteTest, ACornerSnapsLevelWithItsNeighbours)
{
    clickPlan({6.0, 2.5});
    drag({12.0, 1.5}, {15.0, 1.6});
    EXPECT_EQ(cottage()[1].y, 1.5);
}

TEST_F(SiteTest, CornersAreAddedByADoubleClickAndTakenByDelete)
{
    clickPlan({6.0, 2.5});
    QTest::mouseDClick(&plan(), Qt::LeftButton, {}, at({7.5, 1.5}));
    QTest::mouseRelease(&plan(), Qt::LeftButton, {}, at({7.5, 1.5}));
    ASSERT_EQ(cottage().size(), 5u);
    EXPECT_EQ(plan().selected().corner, 1);
    EXPECT_NEAR(cottage()[1].x, 7.5, 0.2);
    QTest::keyClick(&plan(), Qt::Key_Delete);
    EXPECT_EQ(cottage().size(), 4u);
    EXPECT_EQ(site().buildings.size(), 1u) << "only the corner goes";
}

TEST_F(SiteTest, CornersByKeysAlone)
{
    plan().select({Kind::Building, site().buildings.front().id});
    plan().setFocus();
    QTest::keyClick(&plan(), Qt::Key_C);
    EXPECT_EQ(plan().selected().corner, 0);
    QTest::keyClick(&plan(), Qt::Key_Insert);
    ASSERT_EQ(cottage().size(), 5u);
    EXPECT_EQ(plan().selected().corner, 1);
    EXPECT_NEAR(cottage()[1].x, 7.5, 1e-9);
    QTest::keyClick(&plan(), Qt::Key_Up, Qt::ShiftModifier);
    EXPECT_NEAR(cottage()[1].y, 2.5, 1e-9);
    QTest::keyClick(&plan(), Qt::Key_Delete);
    EXPECT_EQ(cottage().size(), 4u);
}

TEST_F(SiteTest, ATriangleKeepsItsCorners)
{
    plan().select({Kind::Building, site().buildings.front().id, 0});
    QTest::keyClick(&plan(), Qt::Key_Delete);
    EXPECT_EQ(cottage().size(), 3u);
    plan().select({Kind::Building, site().buildings.front().id, 0});
    QTest::keyClick(&plan(), Qt::Key_Delete);
    EXPECT_EQ(cottage().size(), 3u);
    EXPECT_FALSE(find<QPushButton>("removeCorner")->isEnabled());
}

TEST_F(SiteTest, ACornerIsTyped)
{
    plan().select({Kind::Boundary});
    choose("cornerChoice", 3); // the third, in the north-east
    EXPECT_EQ(plan().selected().corner, 2);
    type("supportEast", QStringLiteral("30"));
    type("supportNorth", QStringLiteral("15 m"));
    EXPECT_EQ(site().boundary[2], (PlanPoint{30.0, 15.0}));
    EXPECT_EQ(site().boundary[1], (PlanPoint{34.0, 0.0}));
}

TEST_F(SiteTest, OutlinesAreDrawnAndLeft)
{
    click("drawWater");
    EXPECT_TRUE(pageSentence().contains(QStringLiteral("Click the corners"))) << pageSentence().toStdString();
    for (PlanPoint p : {PlanPoint{20.0, 8.0}, PlanPoint{24.0, 8.0}, PlanPoint{22.0, 12.0}})
        clickPlan(p);
    QTest::keyClick(&plan(), Qt::Key_Return);
    ASSERT_EQ(site().waters.size(), 2u);
    EXPECT_EQ(site().waters.back().outline.size(), 3u);
    EXPECT_EQ(plan().selected().kind, Kind::Water);
    click("drawBuilding");
    clickPlan({20.0, 8.0});
    QTest::keyClick(&plan(), Qt::Key_Escape);
    EXPECT_EQ(site().buildings.size(), 1u);
    EXPECT_FALSE(plan().drawing());
    document().undoStack().undo();
    EXPECT_EQ(site().waters.size(), 1u);
}

TEST_F(SiteTest, TheFeedLinesRouteIsDrawnAndKept)
{
    click("drawCoax");
    clickPlan({25.0, 10.0});
    clickPlan({15.0, 6.0});
    QTest::keyClick(&plan(), Qt::Key_Return);
    ASSERT_EQ(site().coaxRoute.size(), 2u);
    const QString path = file("routed.vetchling");
    ASSERT_TRUE(document().save(path).empty());
    ASSERT_TRUE(document().open(path).empty());
    EXPECT_EQ(site().coaxRoute.size(), 2u);
    plan().select({Kind::Coax});
    click("removeSupport");
    EXPECT_TRUE(site().coaxRoute.empty());
}

TEST_F(SiteTest, TheBoundaryCanGoAndComeBack)
{
    plan().select({Kind::Boundary});
    click("removeSupport");
    EXPECT_TRUE(site().boundary.empty());
    document().undoStack().undo();
    EXPECT_EQ(site().boundary.size(), 4u);
}

TEST_F(SiteTest, NeighboursAreAskedAboutAndCountedIn)
{
    ASSERT_TRUE(settle());
    const Complex alone = solver().curve()->atLine(7.1e6);
    click("askNeighbours");
    auto* words = find<QLabel>("neighbourWords");
    ASSERT_TRUE(waitedFor([&] { return words->text().contains(QStringLiteral("flagpole")); }, 60000)) << words->text().toStdString();
    EXPECT_TRUE(words->text().contains(QStringLiteral("kHz")));
    find<QCheckBox>("countMetal")->click();
    EXPECT_TRUE(document().antenna().surroundings.metal);
    choose("otherState", 1);
    EXPECT_EQ(document().antenna().surroundings.antennas.size(), 1u);
    ASSERT_TRUE(settle());
    EXPECT_GT(std::abs(solver().curve()->atLine(7.1e6) - alone), 0.01);
    document().undoStack().undo();
    document().undoStack().undo();
    EXPECT_EQ(document().antenna().surroundings, Surroundings());
}

TEST_F(SiteTest, SeaBeyondAShoreShowsInTheSkyThere)
{
    chooseAntenna(2); // the vertical
    ASSERT_TRUE(settle());
    const auto gainTo = [&](double bearing) { return solver().detail()->spot()->field->gain(radians(8.0), radians(90.0 - bearing)); };
    const double east = gainTo(90.0), west = gainTo(270.0);
    click("addFarGround");
    type("farFrom", QStringLiteral("30"));
    type("farTo", QStringLiteral("150"));
    type("farDistance", QStringLiteral("5 m"));
    EXPECT_TRUE(find<QLabel>("farGroundNote")->text().contains(QStringLiteral("up to 6 dB too high")));
    ASSERT_TRUE(settle());
    ASSERT_EQ(site().farGrounds.size(), 1u);
    EXPECT_GT(gainTo(90.0), east + 0.5);
    EXPECT_NEAR(gainTo(270.0), west, 1e-6);
    type("farDistance", QStringLiteral("far"));
    EXPECT_FALSE(find<ValueEdit>("farDistance")->complaint().isEmpty());
    click("removeFarGround");
    EXPECT_TRUE(site().farGrounds.empty());
}

TEST_F(SiteTest, NotesAndPicturesAreKept)
{
    QImage image(40, 30, QImage::Format_RGB32);
    image.fill(Qt::darkGreen);
    ASSERT_TRUE(image.save(file("mast.png")));
    const QString path = file("noted.vetchling");
    ASSERT_TRUE(document().save(path).empty());
    auto* text = find<QPlainTextEdit>("notesText");
    text->setFocus();
    QTest::keyClicks(text, QStringLiteral("the gate sticks"));
    EXPECT_TRUE(waitedFor([&] { return site().notes == "the gate sticks"; }, 5000));
    choose("notesOf", 1);
    window().findChild<NotesPanel*>()->addPicture(file("mast.png"));
    EXPECT_EQ(document().antenna().pictures, std::vector<std::string>{"mast.png"}) << "told from the design's folder";
    ASSERT_TRUE(waitedFor([&] { return window().findChild<QAbstractButton*>(QStringLiteral("picture 0")) != nullptr; }, 5000));
    EXPECT_FALSE(find<QAbstractButton>("picture 0")->icon().isNull());
    ASSERT_TRUE(document().save(path).empty());
    ASSERT_TRUE(document().open(path).empty());
    EXPECT_EQ(site().notes, "the gate sticks");
    EXPECT_EQ(document().antenna().pictures.size(), 1u);
}

TEST_F(SiteTest, TheShedSaysWhatIsThereAndWhatIsMissing)
{
    click("siteShedView");
    EXPECT_TRUE(pageSentence().contains(QStringLiteral("Put in what you have"))) << pageSentence().toStdString();
    click("exampleShed");
    auto* have = find<QTableView>("shedHave");
    EXPECT_EQ(have->model()->rowCount(), 6);
    auto* need = find<QTableView>("shedNeed");
    EXPECT_GT(need->model()->rowCount(), 1);
    EXPECT_TRUE(QFile::exists(file("shed.json"))) << "the list is a file of its own";
    click("addStock");
    EXPECT_EQ(have->model()->rowCount(), 7);
    type("stockLongest", QStringLiteral("50 m"));
    type("stockPrice", QStringLiteral("2.5"));
    type("stockLongest", QStringLiteral("lots"));
    EXPECT_FALSE(find<ValueEdit>("stockLongest")->complaint().isEmpty());
    MainWindow other(QStringLiteral(VETCHLING_SOURCE_DATA), m_home.filePath(QStringLiteral("autosave2")));
    EXPECT_EQ(other.shed().shed().items.size(), 7u);
    EXPECT_EQ(other.shed().shed().items.back().longest, 50.0);
    click("removeStock");
    EXPECT_EQ(have->model()->rowCount(), 6);
}

TEST_F(SiteTest, ABrokenListOfTheShedIsNotLost)
{
    QFile list(file("shed.json"));
    ASSERT_TRUE(list.open(QIODevice::WriteOnly));
    list.write("{ this is no list");
    list.close();
    ShedDesk desk(file("shed.json"));
    EXPECT_FALSE(desk.complaint().isEmpty());
    desk.edit([](Shed& shed) { shed.currency = "EUR"; });
    EXPECT_TRUE(QFile::exists(file("shed-1.json")));
}

} // namespace
} // namespace vetchling::app
