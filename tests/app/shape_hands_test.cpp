/// What hands do on the page of the shape: corners typed, ends flipped, rings moved by keys and in plan; and figures that are overtaken.
#include "tests/app/app_fixture.h"

#include "app/plots/scene/scene.h"
#include "app/plots/site_plan.h"
#include "app/widgets/value_edit.h"
#include "core/shapes/hang.h"

#include <atomic>
#include <thread>

namespace vetchling::app {
namespace {

class ShapeHands : public WindowTest {
protected:
    shapes::BuiltAntenna built() { return *shapes::buildOver(document().antenna().shape, document().design().site.soil.ground()); }
    void takeEndFed()
    {
        Antenna antenna = newAntenna(*shapes::findFamily("end-fed"), 7.1e6, document().design().site);
        document().addAntenna(antenna);
        ASSERT_TRUE(settle());
        show("shape");
    }
};

TEST_F(ShapeHands, ATypedCornerKeepsTheTieInOneUndo)
{
    takeEndFed();
    const Site& site = document().design().site;
    document().setShape({}, {}, document().current(), shapes::hangAt(site, document().antenna().shape, 1, site.supports.at(0).at, 0.1).shape);
    ASSERT_TRUE(shapes::tiedTo(site, built(), 1));
    const shapes::AntennaShape before = document().antenna().shape;
    type("first_run_m", QStringLiteral("6"));
    ASSERT_EQ(built().model.wires[0].points.size(), 3u);
    EXPECT_EQ(shapes::tiedTo(site, built(), 2), &site.supports.at(0));
    document().undoStack().undo();
    EXPECT_EQ(document().antenna().shape, before);
}

TEST_F(ShapeHands, FlipEndsFeedsItFromTheOtherEnd)
{
    takeEndFed();
    const Vec3 end = built().model.wires[0].points.back();
    find<QToolButton>("fold Where it stands")->setChecked(true);
    find<QPushButton>("flipEnds")->click();
    EXPECT_LT(distance(built().feedPoint, end), 1e-6);
    document().undoStack().undo();
    EXPECT_GT(distance(built().feedPoint, end), 1.0);
    chooseAntenna(0); // fed in its middle
    window().flipEnds();
    EXPECT_TRUE(find<QLabel>("message")->text().contains(QStringLiteral("no ends to flip")));
}

// 2026-11: in the turned view a step upwards was one along the picture, and the height went farther.
TEST_F(ShapeHands, AStepUpIsThatMuchHeightHoweverTheViewIsTurned)
{
    ASSERT_TRUE(settle());
    show("shape");
    auto* scene = find<Scene>("shapeScene");
    for (const char* view : {"view0", "view2"}) {
        find<QToolButton>(view)->click();
        scene->setFocus();
        QTest::keyClick(scene, Qt::Key_Space);
        std::vector<Vec3> before;
        for (const shapes::Handle& h : built().handles)
            before.push_back(h.at);
        QTest::keyClick(scene, Qt::Key_Up);
        double most = 0.0;
        for (std::size_t i = 0; i < before.size(); ++i)
            most = std::max(most, built().handles[i].at.z - before[i].z);
        EXPECT_NEAR(most, 0.05, 0.011) << view;
    }
}

TEST_F(ShapeHands, TheFeedsRingMovesTheWholeInPlan)
{
    takeEndFed();
    auto* scene = find<Scene>("shapeScene");
    find<QToolButton>("view1")->click();
    scene->grab();
    const Vec3 feed = built().feedPoint, end = built().model.wires[0].points.back();
    const QPoint at = scene->handlePosition("feed")->toPoint();
    QTest::mousePress(scene, Qt::LeftButton, {}, at);
    QTest::mouseMove(scene, at + QPoint(25, 10));
    QTest::mouseRelease(scene, Qt::LeftButton, {}, at + QPoint(25, 10));
    EXPECT_GT(distance(built().feedPoint, feed), 0.2);
    EXPECT_LT(distance(built().model.wires[0].points.back() - end, built().feedPoint - feed), 1e-6);
}

TEST_F(ShapeHands, OvertakenFiguresArePaleUntilTheNewOnesAreThere)
{
    ASSERT_TRUE(settle());
    show("shape");
    auto* certainty = find<QLabel>("certaintyNote");
    ASSERT_TRUE(waitedFor([&] { return !certainty->graphicsEffect(); }, 5000));
    auto held = std::make_shared<std::atomic<bool>>(true);
    solver().setProbe([held] {
        while (*held)
            std::this_thread::sleep_for(std::chrono::milliseconds(2));
    });
    document().setParameter("apex_height_m", 9.0, {});
    EXPECT_FALSE(solver().figuresAreOld()) << "what is answered at once does not flicker";
    EXPECT_TRUE(waitedFor([&] { return certainty->graphicsEffect() != nullptr; }, 5000));
    EXPECT_TRUE(find<QWidget>("lengthCard")->graphicsEffect());
    *held = false;
    ASSERT_TRUE(settle());
    EXPECT_TRUE(waitedFor([&] { return !certainty->graphicsEffect(); }, 20000));
    document().setParameter("end_height_m", 400.0, {}); // cannot be: what stands there is of another antenna
    EXPECT_TRUE(waitedFor([&] { return certainty->graphicsEffect() != nullptr; }, 5000));
}

} // namespace
} // namespace vetchling::app
