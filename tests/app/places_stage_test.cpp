/// What is dangerous where an antenna hangs stands in red on every stage of it, in the trail and in Fits?; wishes stay the user's.
#include "tests/app/first_hour.h"

#include "app/window/trail.h"

namespace vetchling::app {
namespace {

class PlacesStageTest : public FirstHour {
protected:
    /// A dipole through the first house of the site.
    void moveIntoTheHouse()
    {
        document().edit({}, {}, [](Design& d) {
            d.site.powerLine.reset();
            d.site.buildings = {{"barn", rectangle({10.0, 5.0}, {8.0, 6.0}), 3.0, 9.0, "barn", {}}};
        });
        document().setParameters({}, {{"x_m", 14.0}, {"y_m", 8.0}, {"apex_height_m", 8.0}});
    }
    QString alarm() { return window().currentStage()->page()->alarm(); }
};

// A fan that was moved into the cottage "fitted".
TEST_F(PlacesStageTest, AWireThroughAHouseStandsInRedOnEveryStage)
{
    for (int i = 0; i < window().stageCount(); ++i) {
        window().showStage(i);
        EXPECT_FALSE(alarm().contains(QStringLiteral("Danger"))) << i;
    }
    moveIntoTheHouse();
    for (int i = 0; i < window().stageCount(); ++i) {
        window().showStage(i);
        EXPECT_TRUE(alarm().contains(QStringLiteral("Danger")) && alarm().contains(QStringLiteral("barn"))) << i << alarm().toStdString();
    }
    const QAbstractItemModel* trail = find<Trail>("trail")->model();
    EXPECT_EQ(trail->index(1, 0).data(StageList::Alarm).toString(), QStringLiteral("touches a house"));
    document().undoStack().undo();
    QTest::qWait(20);
    EXPECT_FALSE(alarm().contains(QStringLiteral("Danger")));
    EXPECT_TRUE(trail->index(1, 0).data(StageList::Alarm).toString() != QStringLiteral("touches a house"));
}

TEST_F(PlacesStageTest, FitsTellsTheOneOnShowFirstAndShowsTheOneThatIsPressed)
{
    moveIntoTheHouse();
    const Id danger = document().current();
    chooseAntenna(1);
    show("site");
    auto* fits = find<QLabel>("fitNote");
    const QString first = QString::fromStdString(document().antenna().id), second = QString::fromStdString(danger);
    EXPECT_LT(fits->text().indexOf(first), fits->text().indexOf(second));
    EXPECT_TRUE(fits->text().contains(QStringLiteral("Danger, ")));
    emit fits->linkActivated(second);
    EXPECT_EQ(document().current(), danger);
    EXPECT_LT(fits->text().indexOf(second), fits->text().indexOf(first));
}

// Adding a 20 m dipole made 20 m a must that had not been wanted.
TEST_F(PlacesStageTest, ANewAntennaLeavesTheWishesAsTheyAre)
{
    document().edit({}, {}, [](Design& d) {
        for (WantedBand& w : d.operation.bands)
            w.wish = w.band.name == "40 m" ? Wish::Must : Wish::No;
    });
    const auto before = document().design().operation.bands;
    action("actionAdd");
    type("galleryFrequency", QStringLiteral("14.2"));
    takeProposal("dipole");
    EXPECT_EQ(document().design().operation.bands, before);
    document().edit({}, {}, [](Design& d) {
        for (WantedBand& w : d.operation.bands)
            w.wish = Wish::No;
    });
    action("actionAdd");
    takeProposal("dipole");
    EXPECT_EQ(std::count_if(document().design().operation.bands.begin(), document().design().operation.bands.end(),
                            [](const WantedBand& w) { return w.wish == Wish::Must; }),
              1)
        << "where nothing was wished for yet";
}

} // namespace
} // namespace vetchling::app
