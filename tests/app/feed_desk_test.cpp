/// The desk behind the Feed page: what is solved, what follows at once, and every edit of a chain by itself.
#include "app/document/antenna_models.h"
#include "app/document/feed_desk.h"
#include "core/files/chain_file.h"
#include "tests/app/app_fixture.h"

namespace vetchling::app {
namespace {

class FeedDeskTest : public WindowTest {
protected:
    void SetUp() override
    {
        WindowTest::SetUp();
        m_types = *files::readLineTypes(VETCHLING_SOURCE_DATA "/lines.json");
        m_models = std::make_unique<AntennaModels>(document(), window().shed());
        m_desk = std::make_unique<FeedDesk>(document(), *m_models, solver(), m_types);
        // two bands are enough
        document().edit(QStringLiteral("bands"), {}, [](Design& d) {
            for (WantedBand& w : d.operation.bands)
                w.wish = w.band.name == "40 m" ? Wish::Must : w.band.name == "30 m" ? Wish::Nice : Wish::No;
        });
    }
    void TearDown() override
    {
        m_desk.reset();
        m_models.reset();
        WindowTest::TearDown();
    }
    const std::vector<study::ChoiceRow>& choices(FeedDesk::Choice choice)
    {
        desk().wantChoices(choice);
        return desk().choices(choice);
    }
    FeedDesk& desk() { return *m_desk; }
    bool solved()
    {
        desk().wantBasis();
        return waitedFor([&] { return desk().fresh(); }, 60000);
    }
    const std::vector<ChainPart>& parts() { return chainParts(document().antenna()); }
    double lossOn(int row) { return desk().report()->rows.at(std::size_t(row)).state.totalLoss(); }

    std::vector<LineType> m_types;
    std::unique_ptr<AntennaModels> m_models;
    std::unique_ptr<FeedDesk> m_desk;
};

TEST_F(FeedDeskTest, EverythingFollowsAPartAtOnce)
{
    EXPECT_EQ(desk().report(), nullptr);
    ASSERT_TRUE(solved());
    ASSERT_EQ(desk().report()->rows.size(), 2u);
    EXPECT_EQ(lossOn(0), 0.0);
    const Id line = desk().addPart(part::line);
    EXPECT_TRUE(desk().fresh()) << "a line is no matter of the wires";
    const double fifteen = lossOn(0);
    EXPECT_GT(fifteen, 0.05);
    desk().setValue(line, "length_m", 45.0);
    EXPECT_GT(lossOn(0), 2.0 * fifteen);
    document().undoStack().undo();
    EXPECT_NEAR(lossOn(0), fifteen, 1e-12);
    // another wire has to be solved for, another power not
    document().edit(QStringLiteral("power"), {}, [](Design& d) { d.operation.power = 400.0; });
    EXPECT_TRUE(desk().fresh());
    EXPECT_EQ(desk().report()->power, 400.0);
    document().setParameter("leg_m", parameter("leg_m") * 0.9, {});
    EXPECT_FALSE(desk().fresh());
    ASSERT_TRUE(solved());
}

TEST_F(FeedDeskTest, ALineAloneLosesWhatItsFiguresSay)
{
    const Id line = desk().addPart(part::line), choke = desk().addPart(part::choke);
    EXPECT_FALSE(desk().matchedLoss(line)) << "the band's frequency comes with the report";
    ASSERT_TRUE(solved());
    const ChainPart& p = parts()[parts()[0].id == line ? 0 : 1];
    const double mhz = desk().report()->rows.front().band.frequency / 1e6;
    document().selectBand(desk().report()->rows.front().band.band);
    ASSERT_TRUE(desk().matchedLoss(line));
    EXPECT_NEAR(*desk().matchedLoss(line),
                (partValue(p, "k1_dB_per_100m") * std::sqrt(mhz) + partValue(p, "k2_dB_per_100m") * mhz) * partValue(p, "length_m") / 100.0,
                1e-9);
    EXPECT_FALSE(desk().matchedLoss(choke));
}

TEST_F(FeedDeskTest, PartsStandWhereTheyArePut)
{
    const Id choke = desk().addPart(part::choke), tuner = desk().addPart(part::tuner), line = desk().addPart(part::line, tuner);
    ASSERT_EQ(parts().size(), 3u);
    EXPECT_EQ(parts()[1].id, line);
    EXPECT_FALSE(parts()[1].type.empty()) << "a new line is of a type";
    desk().movePart(choke, 5);
    EXPECT_EQ(parts()[0].id, choke) << "no farther than the end";
    desk().movePart(choke, 2);
    EXPECT_EQ(parts()[2].id, choke);
    desk().removePart("nobody");
    EXPECT_EQ(parts().size(), 3u);
    desk().setBasis(line, Basis::Measured);
    EXPECT_EQ(findPart(const_cast<Antenna&>(document().antenna()), line)->basis, Basis::Measured);
    desk().setType(line, m_types.back().id);
    EXPECT_EQ(partValue(*findPart(const_cast<Antenna&>(document().antenna()), line), "impedance_ohm"), m_types.back().impedance);
    desk().setType(line, {});
    EXPECT_TRUE(findPart(const_cast<Antenna&>(document().antenna()), line)->type.empty());
    desk().setLossTable(tuner, {{3e6, 1.0}, {30e6, 0.2}});
    EXPECT_EQ(findPart(const_cast<Antenna&>(document().antenna()), tuner)->lossTable.size(), 2u);
    int steps = 0;
    while (document().undoStack().canUndo() && !parts().empty() && ++steps < 30)
        document().undoStack().undo();
    EXPECT_TRUE(parts().empty()) << "every edit is undone";
}

TEST_F(FeedDeskTest, MatchingPartsAreSizedForTheBandThatIsLookedAt)
{
    ASSERT_TRUE(settle());
    ASSERT_TRUE(solved());
    const Id network = desk().addPart(part::network);
    ASSERT_TRUE(settle());
    document().selectBand(document().design().operation.bands[2].id);
    ASSERT_TRUE(settle());
    ASSERT_TRUE(desk().size(network).empty());
    const double f = document().design().operation.bands[2].band.centre();
    const Complex port = solver().curve()->atPort(f);
    EXPECT_LT(std::abs(chainAt(wholeChain(document().antenna()), port, f).impedance() - 50.0), 0.5);
    const Id section = desk().addPart(part::section);
    desk().setValue(section, "section_ohm", 50.0);
    desk().setValue(section, "method", 2.0);
    const Faults faults = desk().size(section); // matched already
    ASSERT_FALSE(faults.empty());
    EXPECT_FALSE(faults.front().message.empty());
    EXPECT_TRUE(desk().size("nobody").empty());
}

TEST_F(FeedDeskTest, ChoicesAreTakenIntoTheChainInUse)
{
    chooseAntenna(1); // the end-fed, whose transformer belongs to its shape
    ASSERT_TRUE(solved());
    const auto& ratios = choices(FeedDesk::Choice::Transformer);
    const auto nine = std::find_if(ratios.begin(), ratios.end(), [](const study::ChoiceRow& r) { return r.ratio == 9.0; });
    ASSERT_NE(nine, ratios.end());
    desk().take(FeedDesk::Choice::Transformer, study::ChoiceRow(*nine));
    EXPECT_EQ(parameter("transformer_ratio"), 9.0) << "the shape's own takes the ratio";
    EXPECT_TRUE(parts().empty());
    EXPECT_TRUE(desk().fresh());
    document().undoStack().undo();
    desk().addPart(part::line);
    EXPECT_EQ(choices(FeedDesk::Choice::Line).size(), m_types.size() + 1);
    desk().setComparedLength(77.0);
    EXPECT_NEAR(choices(FeedDesk::Choice::Line)[1].length, 77.0, 1e-9);
    const auto line = [&](std::size_t row) { return study::ChoiceRow(choices(FeedDesk::Choice::Line)[row]); };
    const study::ChoiceRow present = line(0);
    desk().take(FeedDesk::Choice::Line, line(2));
    EXPECT_EQ(parts()[0].type, m_types[1].id);
    EXPECT_NEAR(partValue(parts()[0], "length_m"), 77.0, 1e-9);
    const int before = document().undoStack().index();
    study::ChoiceRow gone = line(2);
    gone.type = "of another shop";
    desk().take(FeedDesk::Choice::Line, gone);
    desk().take(FeedDesk::Choice::Line, line(0)); // what it has already
    desk().take(FeedDesk::Choice::Line, present); // what it had
    EXPECT_EQ(document().undoStack().index(), before);
}

TEST_F(FeedDeskTest, ChainsKeepWhatTheShapeHadWithThem)
{
    chooseAntenna(1);
    const double ratio = document().family().value(document().antenna().shape, "transformer_ratio");
    desk().addPart(part::line);
    const Id first = usedChain(document().antenna())->id;
    desk().addChain();
    const Id second = usedChain(document().antenna())->id;
    EXPECT_NE(first, second);
    document().setParameter("transformer_ratio", 64.0, {});
    desk().renameChain(second, QStringLiteral("  the other  "));
    EXPECT_EQ(usedChain(document().antenna())->name, "the other");
    desk().renameChain(second, QStringLiteral("   "));
    EXPECT_EQ(usedChain(document().antenna())->name, "the other") << "no name changes nothing";
    desk().useChain(first);
    EXPECT_EQ(parameter("transformer_ratio"), ratio);
    ASSERT_TRUE(solved());
    EXPECT_EQ(choices(FeedDesk::Choice::Chain).size(), 2u);
    desk().take(FeedDesk::Choice::Chain, study::ChoiceRow(choices(FeedDesk::Choice::Chain)[1]));
    EXPECT_EQ(parameter("transformer_ratio"), 64.0);
    const QString path = file("chains.vetchling");
    ASSERT_TRUE(document().save(path).empty());
    ASSERT_TRUE(document().open(path).empty());
    EXPECT_EQ(usedChain(*findAntenna(document().design(), document().design().antennas[1].id))->name, "the other");
}

TEST_F(FeedDeskTest, TheChokeIsMadeWhereThereIsNone)
{
    desk().placeChoke(4.321);
    ASSERT_EQ(parts().size(), 1u);
    EXPECT_EQ(parts()[0].values.at("at_m"), 4.32);
    const Id choke = parts()[0].id;
    desk().placeChoke(1.0);
    ASSERT_EQ(parts().size(), 1u);
    EXPECT_EQ(parts()[0].id, choke);
    EXPECT_EQ(document().antenna().shape.feedpoint.size(), 1u) << "it stands at the feedpoint for what flows inside";
}

TEST_F(FeedDeskTest, VariantsShareTheChains)
{
    document().addVariant(QStringLiteral("shorter"));
    desk().addPart(part::choke);
    EXPECT_EQ(parts().size(), 1u);
    const Antenna* stored = findAntenna(document().stored(), document().current());
    EXPECT_EQ(chainParts(*stored).size(), 1u) << "a chain belongs to the antenna";
    EXPECT_EQ(stored->shape.feedpoint.size(), 1u);
    document().setVariant({});
    EXPECT_EQ(document().antenna().shape.feedpoint.size(), 1u);
}

TEST_F(FeedDeskTest, APinnedDesignIsHeldAgainst)
{
    ASSERT_TRUE(settle());
    solver().pin();
    document().edit(QStringLiteral("against"), {}, [](Design& d) { d.operation.against.kind = Against::Kind::Pinned; });
    ASSERT_TRUE(solved());
    EXPECT_EQ(desk().against().kind, Against::Kind::Pinned);
    for (const study::FeedRow& row : desk().report()->rows)
        EXPECT_NEAR(row.net, row.reference, 1e-6) << "against itself it is neither ahead nor behind";
    desk().addPart(part::lump);
    EXPECT_NEAR(desk().report()->rows[0].net - desk().report()->rows[0].reference, -1.5, 1e-6);
    solver().unpin();
    ASSERT_TRUE(solved());
    EXPECT_EQ(desk().against().kind, Against::Kind::Vertical);
}

} // namespace
} // namespace vetchling::app
