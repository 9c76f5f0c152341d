/// Lengths that were chosen for several bands, and what Tune would do to them.
#include "app/widgets/value_edit.h"
#include "tests/app/app_fixture.h"

namespace vetchling::app {
namespace {

class TuneUndoesTest : public WindowTest {
protected:
    QLabel* undone() { return find<QLabel>("tuneUndoes"); }
};

TEST_F(TuneUndoesTest, IsSaidBesideTheButtonAndGoneOnceDone)
{
    show("shape");
    ASSERT_TRUE(settle());
    EXPECT_FALSE(undone()->isVisible());
    const std::string key = document().family().tuned(document().antenna().shape).front().parameter;
    document().setLever(key, parameter(key.c_str()) * 1.03, false, Compromise::From::Map);
    ASSERT_TRUE(settle());
    ASSERT_TRUE(undone()->isVisible());
    EXPECT_TRUE(undone()->text().contains(QStringLiteral("from the map"))) << undone()->text().toStdString();
    const double compromise = parameter(key.c_str());
    click("tuneButton");
    ASSERT_TRUE(settle());
    EXPECT_FALSE(undone()->isVisible());
    document().undoStack().undo();
    ASSERT_TRUE(settle());
    EXPECT_EQ(parameter(key.c_str()), compromise);
    EXPECT_TRUE(undone()->isVisible()) << "what was undone holds again";
    document().setParameter(key, compromise * 0.99, {});
    ASSERT_TRUE(settle());
    EXPECT_FALSE(undone()->isVisible()) << "a length of one's own is no compromise";
}

TEST_F(TuneUndoesTest, TheMapsChoiceIsOne)
{
    show("bands");
    window().stage(QStringLiteral("bands"))->showView(QStringLiteral("map"));
    ASSERT_TRUE(waitedFor([this] { return find<QPushButton>("takeBest")->isVisible(); }, 60000));
    click("takeBest");
    EXPECT_TRUE(compromiseOf(document().antenna()));
}

} // namespace
} // namespace vetchling::app
