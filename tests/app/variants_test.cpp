#include "app/document/variants_desk.h"
#include "app/plots/band_strip.h"
#include "app/stages/shape/variants_chart.h"
#include "app/widgets/value_edit.h"
#include "tests/app/app_fixture.h"

#include <QAction>
#include <QCheckBox>

namespace vetchling::app {
namespace {

class VariantsTest : public WindowTest {
protected:
    bool waitFor(const std::function<bool()>& what, int ms = 60000) { return waitedFor(what, ms); }
    VariantsDesk& desk() { return window().variants(); }
    void pressV() { window().findChild<QAction*>(QStringLiteral("actionVariant"))->trigger(); }
    const Antenna& stored() { return *findAntenna(document().stored(), document().current()); }
};

TEST_F(VariantsTest, AKeyMakesOneAndWhatIsChangedIsIt)
{
    show("shape");
    const double drawn = parameter("end_height_m");
    pressV();
    ASSERT_EQ(document().antenna().variants.size(), 1u);
    EXPECT_FALSE(document().variant().empty());
    type("end_height_m", QStringLiteral("9"));
    EXPECT_EQ(parameter("end_height_m"), 9.0);
    EXPECT_EQ(stored().shape.parameters.at("end_height_m"), drawn) << "the antenna as drawn stays";
    ASSERT_TRUE(settle());
    EXPECT_EQ(solver().curve()->question.subject.shape.parameters.at("end_height_m"), 9.0) << "every view tells of the variant";
    window().findChild<QAction*>(QStringLiteral("actionNextVariant"))->trigger();
    EXPECT_TRUE(document().variant().empty());
    EXPECT_EQ(parameter("end_height_m"), drawn);
    document().undoStack().undo(); // of the height, in the variant
    EXPECT_FALSE(document().variant().empty()) << "what is undone is shown";
    EXPECT_EQ(parameter("end_height_m"), drawn);
    document().undoStack().undo();
    EXPECT_TRUE(document().antenna().variants.empty());
}

// The button went with the ledger's rows, and the keys with it.
TEST_F(VariantsTest, ANewOneIsAboutToBeNamed)
{
    window().activateWindow();
    ASSERT_TRUE(QTest::qWaitForWindowActive(&window()));
    show("shape");
    click("viewVariants");
    find<QPushButton>("newVariant")->setFocus();
    QTest::keyClick(find<QPushButton>("newVariant"), Qt::Key_Space);
    QTest::qWait(20);
    auto* name = qobject_cast<QLineEdit*>(QApplication::focusWidget());
    ASSERT_TRUE(name);
    EXPECT_EQ(name->objectName(), QStringLiteral("variantName"));
    QTest::keyClicks(name, QStringLiteral("on the moor"));
    QTest::keyClick(name, Qt::Key_Return);
    EXPECT_EQ(document().antenna().variants.front().name, "on the moor");
}

// The rows of the antenna as it was stood there like new ones.
TEST_F(VariantsTest, OldRowsArePaleUntilTheNewOnesAreThere)
{
    show("shape");
    pressV();
    click("viewVariants");
    auto* chart = find<VariantsChart>("variantsChart");
    ASSERT_TRUE(waitFor([&] { return desk().comparison() && desk().comparison()->size() == 2 && desk().comparison()->back().spread; }));
    EXPECT_TRUE(waitFor([&] { return !chart->graphicsEffect(); }));
    document().setParameter("end_height_m", 8.5, {});
    EXPECT_TRUE(waitFor([&] { return chart->graphicsEffect() != nullptr; }));
    EXPECT_TRUE(waitFor([&] { return !chart->graphicsEffect(); }));
}

TEST_F(VariantsTest, AreSavedAndOpenedAgain)
{
    pressV();
    document().setParameter("end_height_m", 9.0, QStringLiteral("9 m"));
    const QString path = file("varied.vetchling");
    ASSERT_TRUE(document().save(path).empty());
    ASSERT_TRUE(document().open(path).empty());
    ASSERT_EQ(document().antenna().variants.size(), 1u);
    EXPECT_TRUE(document().variant().empty()) << "a design opens as drawn";
    EXPECT_EQ(document().antenna().variants[0].values.size(), 1u);
    document().setVariant(document().antenna().variants[0].id);
    EXPECT_EQ(parameter("end_height_m"), 9.0);
    EXPECT_EQ(document().antenna().typed.at("end_height_m"), "9 m");
}

TEST_F(VariantsTest, AreComparedNamedMergedAndRemoved)
{
    show("shape");
    pressV();
    document().setParameter("end_height_m", 9.0, {});
    click("viewVariants");
    ASSERT_TRUE(waitFor([&] { return desk().comparison() && desk().comparison()->size() == 2 && desk().comparison()->back().spread; }));
    EXPECT_TRUE(pageSentence().contains(QStringLiteral("wire"))) << pageSentence().toStdString();
    auto* name = find<QLineEdit>("variantName");
    name->setFocus();
    name->selectAll();
    QTest::keyClicks(name, QStringLiteral("ends higher"));
    QTest::keyClick(name, Qt::Key_Return);
    EXPECT_EQ(document().antenna().variants[0].name, "ends higher");
    auto* chart = find<VariantsChart>("variantsChart");
    EXPECT_TRUE(chart->tableText().contains(QStringLiteral("kHz"))) << chart->tableText().toStdString();
    QTest::mouseClick(chart, Qt::LeftButton, {}, chart->placeOf(0).toPoint()); // the row as drawn
    EXPECT_TRUE(document().variant().empty());
    QTest::keyClick(chart, Qt::Key_Down);
    EXPECT_FALSE(document().variant().empty());
    ASSERT_TRUE(waitFor([&] { return window().findChild<QPushButton*>(QStringLiteral("takeVariant")) != nullptr; }, 5000));
    click("takeVariant");
    EXPECT_EQ(stored().shape.parameters.at("end_height_m"), 9.0);
    EXPECT_EQ(document().antenna().variants[0].name, "as drawn before");
    document().undoStack().undo();
    EXPECT_EQ(document().antenna().variants[0].name, "ends higher");
    ASSERT_TRUE(waitFor([&] { return window().findChild<QPushButton*>(QStringLiteral("removeVariant")) != nullptr; }, 5000));
    click("removeVariant");
    EXPECT_TRUE(document().antenna().variants.empty());
}

TEST_F(VariantsTest, AreComparedAfterTheBackgroundWasLongAtWork)
{
    std::promise<void> finish;
    const auto ticket = solver().inBackground([done = finish.get_future().share()](const Watch&) {
        done.wait();
        return true;
    });
    desk().setIdle(20);
    pressV();
    document().setParameter("end_height_m", 9.0, {});
    ASSERT_TRUE(settle());
    QTest::qWait(200); // longer than the pause after which they are asked for
    EXPECT_TRUE(desk().others().empty());
    finish.set_value();
    EXPECT_TRUE(waitFor([&] { return desk().others().size() == 1; }));
}

TEST_F(VariantsTest, StandBesideOneAnotherInStripBandsAndSky)
{
    pressV();
    document().setParameter("end_height_m", 9.0, {});
    ASSERT_TRUE(settle());
    ASSERT_TRUE(waitFor([&] { return desk().others().size() == 1 && !desk().comparing(); }))
        << "they come by themselves when all is at rest";
    EXPECT_EQ(desk().others().front().name, QStringLiteral("as drawn"));
    document().undoStack().undo();
    document().undoStack().undo();
    ASSERT_TRUE(settle());
    EXPECT_TRUE(document().antenna().variants.empty());
    document().undoStack().redo();
    document().undoStack().redo();
    show("sky");
    click("skyAgainst");
    EXPECT_TRUE(waitFor([&] { return window().currentStage()->tableText().contains(QStringLiteral("as drawn")); }))
        << window().currentStage()->tableText().toStdString();
    find<QCheckBox>("compareVariants")->click();
    EXPECT_TRUE(waitFor([&] { return !window().currentStage()->tableText().contains(QStringLiteral("as drawn")); }));
}

TEST_F(VariantsTest, ThePinnedAntennaStandsInTheTable)
{
    ASSERT_TRUE(settle());
    window().togglePin();
    chooseAntenna(2);
    show("shape");
    click("viewVariants");
    ASSERT_TRUE(waitFor([&] { return desk().comparison() && desk().comparison()->size() == 2; }));
    EXPECT_TRUE(QString::fromStdString(desk().comparison()->back().name).contains(QStringLiteral("Tower V 40")));
}

TEST_F(VariantsTest, OneThatCannotBeSaysSo)
{
    show("shape");
    pressV();
    document().setParameter("end_height_m", 300.0, {});
    click("viewVariants");
    ASSERT_TRUE(waitFor([&] { return desk().comparison() && desk().comparison()->size() == 2; }));
    EXPECT_TRUE(waitFor([&] { return pageSentence().contains(QStringLiteral("cannot be")); }, 5000)) << pageSentence().toStdString();
}

TEST_F(VariantsTest, TheSpreadFollowsTheTolerancesAndIsSwitchedOff)
{
    show("shape");
    click("viewVariants");
    ASSERT_TRUE(waitFor([&] { return desk().freshSpread() != nullptr; }));
    const Id band = document().selectedBand();
    const auto width = [&] {
        const auto* b = desk().freshSpread()->band(band);
        return b && b->dip ? (*b->dip)[2] - (*b->dip)[0] : 0.0;
    };
    const double before = width();
    EXPECT_GT(before, 0.0);
    EXPECT_FALSE(find<QLabel>("spreadCauses")->text().isEmpty());
    type("tolerance cut", QStringLiteral("20 cm"));
    EXPECT_EQ(document().design().operation.tolerances.cut, 0.2);
    EXPECT_EQ(desk().freshSpread(), nullptr) << "what was is not what is";
    ASSERT_TRUE(waitFor([&] { return desk().freshSpread() != nullptr; }));
    EXPECT_GT(width(), 3.0 * before);
    show("build");
    EXPECT_TRUE(find<QPushButton>("marginFromSpread")->isVisible());
    click("marginFromSpread");
    EXPECT_GT(document().antenna().allowances.marginPercent, 1.5);
    window().toggleSpread();
    EXPECT_FALSE(desk().always());
    EXPECT_FALSE(Settings().showsSpread()) << "it stays so";
}

// An empty site said that something was being computed.
TEST_F(VariantsTest, NothingIsPromisedOnAnEmptySite)
{
    show("shape");
    click("viewVariants");
    document().setDesign({}, {});
    EXPECT_TRUE(pageSentence().contains(QStringLiteral("Add an antenna"))) << pageSentence().toStdString();
    EXPECT_TRUE(find<VariantsChart>("variantsChart")->emptyWords().contains(QStringLiteral("No antenna yet")));
    window().addVariant(); // answered in words, not by a crash
    EXPECT_FALSE(desk().freshSpread());
}

TEST_F(VariantsTest, NonsenseAsAToleranceIsAnsweredInWords)
{
    show("shape");
    click("viewVariants");
    type("tolerance height", QStringLiteral("tall"));
    EXPECT_FALSE(find<ValueEdit>("tolerance height")->complaint().isEmpty());
    type("tolerance height", QStringLiteral("-3"));
    EXPECT_FALSE(find<ValueEdit>("tolerance height")->complaint().isEmpty());
    EXPECT_EQ(document().design().operation.tolerances.height, Tolerances().height);
}

} // namespace
} // namespace vetchling::app
