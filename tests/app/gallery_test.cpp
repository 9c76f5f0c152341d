/// The gallery behind +: every family from its card, found, tuned, taken, changed, undone, saved and opened again.
#include "tests/app/first_hour.h"

#include "app/stages/gallery/gallery.h"
#include "core/files/design_file.h"

#include <set>

namespace vetchling::app {
namespace {

class GalleryTest : public FirstHour {
protected:
    const std::vector<GalleryDesk::Entry>& entries() { return window().gallery().desk().entries(); }
    bool filled()
    {
        return QTest::qWaitFor([this] { return window().gallery().desk().unanswered() == 0; }, 120000);
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
    action("actionAdd");
    std::set<std::string> families;
    for (const auto& entry : entries())
        families.insert(entry.proposal.antenna.shape.family);
    EXPECT_EQ(families.size(), shapes::families().size());
    ASSERT_TRUE(filled());
    em::GroundTableCache tables;
    for (const auto& entry : entries()) {
        if (!entry.proposal.fault.empty())
            continue;
        ASSERT_TRUE(entry.answer) << entry.proposal.id << ": " << entry.fault.english();
        EXPECT_EQ(entry.answer->antenna.shape.parameters.at(entry.answer->what.parameter), entry.answer->value) << entry.proposal.id;
        EXPECT_EQ(entry.answer->wished.size(), 6u);
    }
    const auto* dipole = window().gallery().desk().find("dipole");
    ASSERT_TRUE(dipole && dipole->answer);
    EXPECT_FALSE(dipole->answer->under.empty());
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
    EXPECT_EQ(window().gallery().desk().find("vertical")->proposal.ties, study::Ties::NoSupport);
}

// What is longer than the supports are apart says so, and is not offered as if it fitted.
TEST_F(GalleryTest, SaysWhatDoesNotFitAndByHowMuch)
{
    action("actionAdd");
    type("galleryFrequency", QStringLiteral("1.85"));
    const auto* flat = window().gallery().desk().find("dipole between");
    ASSERT_TRUE(flat);
    EXPECT_NE(flat->proposal.fault.english().find("apart"), std::string::npos);
    auto* card = find<GalleryCard>("proposal dipole between");
    EXPECT_TRUE(card->toolTip().contains(QStringLiteral("does not fit")));
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
    EXPECT_FALSE(window().galleryOpen());
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
    for (const shapes::Family* family : shapes::families()) {
        SCOPED_TRACE(family->id());
        action("actionAdd");
        type("galleryFrequency", QStringLiteral("14.2"));
        const auto entry = std::find_if(entries().begin(), entries().end(), [&](const auto& e) {
            return e.proposal.antenna.shape.family == family->id() && e.proposal.fault.empty();
        });
        ASSERT_NE(entry, entries().end());
        takeProposal(entry->proposal.id.c_str());
        const shapes::AntennaShape taken = document().antenna().shape;
        EXPECT_EQ(taken.family, family->id());
        auto* scene = find<Scene>("shapeScene");
        scene->grab();
        const auto& handles = m_window->stage(QStringLiteral("shape")) ? shapes::buildOver(taken, {})->handles : std::vector<shapes::Handle>();
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

// The links of a linked dipole are chosen beside the title; every view follows.
TEST_F(GalleryTest, LinksAreOpenedAndClosed)
{
    action("actionAdd");
    type("galleryFrequency", QStringLiteral("7.1"));
    takeProposal("linked-dipole");
    ASSERT_TRUE(settle());
    ASSERT_EQ(document().configuration(), 0u);
    const double inner = solver().curve()->fundamental;
    auto* outer = m_window->stage(QStringLiteral("shape"))->page()->findChild<QToolButton*>(QStringLiteral("configuration2"));
    ASSERT_TRUE(outer);
    QTest::mouseClick(outer, Qt::LeftButton);
    EXPECT_EQ(document().configuration(), 1u);
    ASSERT_TRUE(settle());
    EXPECT_NEAR(solver().curve()->fundamental / inner, 0.706, 0.02);
    EXPECT_EQ(solver().detail()->lengths[solver().detail()->explained].what.parameter, "leg_2_m");
    chooseAntenna(1);
    EXPECT_FALSE(m_window->stage(QStringLiteral("shape"))->page()->findChild<QWidget*>(QStringLiteral("configurationBar"))->isVisible());
}

} // namespace
} // namespace vetchling::app
