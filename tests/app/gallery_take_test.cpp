/// What is taken from the gallery, and when: tuned, on Side, about to be named; its card in words that are all there.
#include "tests/app/first_hour.h"
#include "tests/app/ink.h"

#include "core/tune/tune.h"

namespace vetchling::app {
namespace {

class GalleryTakeTest : public FirstHour {
protected:
    const GalleryDesk& desk() { return window().gallery().desk(); }
    bool taken()
    {
        return waitedFor([this] { return !window().galleryOpen(); }, 60000);
    }
};

// A card pressed while the gallery was still tuning gave the antenna with its rule's lengths.
TEST_F(GalleryTakeTest, ACardPressedWhileItIsTunedIsTuned)
{
    action("actionAdd");
    const auto last = std::find_if(desk().entries().rbegin(), desk().entries().rend(),
                                   [](const auto& e) { return e.proposal.antenna.shape.family == "dipole" && !e.done(); });
    ASSERT_NE(last, desk().entries().rend());
    ASSERT_FALSE(last->done());
    const Antenna byRule = last->proposal.antenna;
    QTest::mouseClick(find<GalleryCard>(("proposal " + last->proposal.id).c_str()), Qt::LeftButton);
    ASSERT_TRUE(taken());
    em::GroundTableCache tables;
    const auto tuned = tuneAll(byRule.shape, document().design().site.soil.ground(), tables);
    ASSERT_TRUE(tuned);
    EXPECT_NEAR(parameter("leg_m"), tuned->lengths.front().value, 1e-6);
    EXPECT_GT(std::abs(parameter("leg_m") - byRule.shape.parameters.at("leg_m")), 1e-3);
}

TEST_F(GalleryTakeTest, EscapeLeavesWhatWasPressed)
{
    action("actionAdd");
    const std::size_t before = document().design().antennas.size();
    const auto& last = *std::find_if(desk().entries().rbegin(), desk().entries().rend(), [](const auto& e) { return !e.done(); });
    QTest::mouseClick(find<GalleryCard>(("proposal " + last.proposal.id).c_str()), Qt::LeftButton);
    QTest::keyClick(&window().gallery(), Qt::Key_Escape);
    EXPECT_FALSE(window().galleryOpen());
    ASSERT_TRUE(settle());
    EXPECT_EQ(document().design().antennas.size(), before);
}

TEST_F(GalleryTakeTest, ANewOneIsOnSideAndItsNameIsAboutToBeTyped)
{
    activate();
    show("shape");
    click("view1");
    action("actionAdd");
    takeProposal("delta-loop");
    EXPECT_TRUE(find<QToolButton>("view0")->isChecked());
    auto* name = find<QLineEdit>("antennaName");
    EXPECT_TRUE(name->hasFocus());
    EXPECT_EQ(name->selectedText(), name->text());
    QTest::keyClicks(name, QStringLiteral("Skywire pvr")); // the last three are keys of the window elsewhere
    QTest::keyClick(name, Qt::Key_Return);
    EXPECT_EQ(document().antenna().name, "Skywire pvr");
}

// Linked for 60 m and what lies below, where 60 m was the lowest wanted band.
TEST_F(GalleryTakeTest, LinksTakeTheWantedBandsToo)
{
    Design design = window().emptyDesign();
    for (WantedBand& w : design.operation.bands)
        w.wish = w.band.name == "60 m" || w.band.name == "40 m" ? Wish::Must : Wish::No;
    const auto band = [&](const char* name) {
        return std::find_if(design.operation.bands.begin(), design.operation.bands.end(),
                            [&](const WantedBand& w) { return w.band.name == name; })
            ->band.centre();
    };
    for (const advice::Proposal& p : advice::proposals(design, band("60 m"))) {
        if (p.antenna.shape.family != "linked-dipole")
            continue;
        EXPECT_EQ(p.antenna.shape.designFrequency, band("40 m")) << p.id;
        EXPECT_EQ(shapes::frequencyOf(p.antenna.shape, 1), band("60 m")) << p.id;
    }
}

TEST_F(GalleryTakeTest, CardsTellTheirFiguresInFull)
{
    for (const auto system : {units::System::Metric, units::System::Imperial}) {
        document().edit({}, {}, [&](Design& d) { d.operation.system = system; });
        action("actionAdd");
        ASSERT_TRUE(waitedFor([this] { return desk().unanswered() == 0; }, 240000));
        for (const GalleryDesk::Entry& entry : desk().entries()) {
            if (!entry.answer)
                continue;
            auto* card = find<GalleryCard>(("proposal " + entry.proposal.id).c_str());
            Ink ink(card->size());
            card->render(&ink, QPoint(), QRegion(), QWidget::DrawChildren);
            EXPECT_FALSE(ink.texts().isEmpty());
            for (const QString& text : ink.texts())
                EXPECT_FALSE(text.contains(QChar(0x2026))) << entry.proposal.id << ": " << text.toStdString();
            EXPECT_TRUE(ink.wordsOnWords().isEmpty()) << entry.proposal.id << ": " << ink.wordsOnWords().join(u'|').toStdString();
        }
        QTest::keyClick(&window().gallery(), Qt::Key_Escape);
    }
}

} // namespace
} // namespace vetchling::app
