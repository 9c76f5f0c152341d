/// The coil workshop as a user meets it.
#include "app/stages/build/coil_board.h"
#include "tests/app/app_fixture.h"

namespace vetchling::app {
namespace {

class CoilTest : public WindowTest {
protected:
    void SetUp() override
    {
        WindowTest::SetUp();
        window().resize(1280, 800);
        Antenna loaded = newAntenna(*shapes::findFamily("loaded-dipole"), 10.12e6);
        document().addAntenna(loaded);
        show("build");
        click("buildCoil");
    }
    bool waitFor(const std::function<bool()>& what) { return waitedFor(what, 60000); }
    CoilBoard& board() { return *find<CoilBoard>("coilBoard"); }
    const Winding& winding() { return document().antenna().winding; }
};

TEST_F(CoilTest, ACoilIsWoundOtherwiseAndUndone)
{
    ASSERT_TRUE(waitFor([&] { return board().headline().startsWith(QStringLiteral("Wind")); })) << pageSentence().toStdString();
    const QString before = board().headline();
    type("coilFormer", QStringLiteral("50 mm"));
    EXPECT_NEAR(winding().former, 0.05, 1e-12);
    ASSERT_TRUE(waitFor([&] { return board().headline() != before && board().headline().startsWith(QStringLiteral("Wind")); }));
    EXPECT_TRUE(board().headline().contains(QStringLiteral("50.00 mm"))) << board().headline().toStdString();
    type("coilWire", QStringLiteral("14 AWG"));
    EXPECT_NEAR(winding().wire, 1.628e-3, 1e-5);
    type("coilFormer", QStringLiteral("wide"));
    EXPECT_NEAR(winding().former, 0.05, 1e-12) << "nonsense changes nothing";
    find<QLineEdit>("coilFormer")->clearFocus();
    document().undoStack().undo();
    document().undoStack().undo();
    EXPECT_EQ(winding(), Winding());
    ASSERT_TRUE(waitFor([&] { return board().headline() == before; }));
}

TEST_F(CoilTest, AnotherWindingIsTakenByKeysAndItsQByAButton)
{
    ASSERT_TRUE(waitFor([&] { return board().cells().size() > 4; }));
    board().grab(); // the rows have places once they are painted
    board().setFocus();
    for (int i = 0; i < 4; ++i)
        QTest::keyClick(&board(), Qt::Key_Down);
    QTest::keyClick(&board(), Qt::Key_Return);
    EXPECT_NEAR(winding().former, 1.6 * 0.032, 1e-9);
    ASSERT_TRUE(waitFor([&] { return find<QPushButton>("takeWinding")->isEnabled(); }));
    const double q = parameter("coil_q");
    click("takeWinding");
    EXPECT_NE(parameter("coil_q"), q);
    document().undoStack().undo();
    EXPECT_EQ(parameter("coil_q"), q);
    type("coilTurns", QStringLiteral("12"));
    EXPECT_TRUE(window().stage(QStringLiteral("build"))->tableText().contains(QStringLiteral("former")));
}

// A coil has a size; wound of few turns on a very thick former it is a point: the model says which, and takes either.
TEST_F(CoilTest, TheModelTakesTheSizeOfTheWinding)
{
    type("coilFormer", QStringLiteral("2 cm"));
    type("coilGap", QStringLiteral("2 mm"));
    QPushButton* take = find<QPushButton>("takeWinding");
    ASSERT_TRUE(waitFor([&] { return take->isEnabled() && board().headline().contains(QStringLiteral("20.00 mm")); }));
    EXPECT_FALSE(find<QPushButton>("takePoint")->isVisible());
    const double before = parameter("inductance_H");
    click("takeWinding");
    EXPECT_GT(parameter("coil_length_m"), 0.03);
    EXPECT_NEAR(parameter("coil_diameter_m"), 0.02 + 1.2e-3 + 1e-3, 1e-6) << "from centre to centre";
    EXPECT_EQ(parameter("inductance_H"), before);
    ASSERT_TRUE(waitFor([&] { return !take->isEnabled() && find<QPushButton>("takePoint")->isVisible(); }));
    click("takePoint");
    EXPECT_EQ(parameter("coil_length_m"), 0.0);
    document().undoStack().undo();
    document().undoStack().undo();
    EXPECT_EQ(parameter("coil_length_m"), 0.0) << "one step takes it all";
    type("coilFormer", QStringLiteral("30 cm"));
    ASSERT_TRUE(waitFor([&] {
        return board().headline().contains(QStringLiteral("300.0 mm")) || board().headline().contains(QStringLiteral("300.00 mm"));
    }));
    if (take->isEnabled())
        click("takeWinding");
    EXPECT_EQ(parameter("coil_length_m"), 0.0) << "less than a fifth of its thickness";
}

TEST_F(CoilTest, AnAntennaWithoutCoilsSaysSo)
{
    chooseAntenna(0);
    EXPECT_TRUE(waitFor([&] { return pageSentence().contains(QStringLiteral("no coil")); })) << pageSentence().toStdString();
    click("buildCut");
    EXPECT_TRUE(waitFor([&] { return pageSentence().contains(QStringLiteral("of wire")); })) << pageSentence().toStdString();
    type("allowFold", QStringLiteral("25 cm"));
    EXPECT_NEAR(document().antenna().allowances.fold, 0.25, 1e-12);
}

} // namespace
} // namespace vetchling::app
