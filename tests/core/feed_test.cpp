/// Chains of an antenna: in the design, in its file, and what is said of them.
#include "core/design/feed.h"
#include "core/files/chain_file.h"
#include "core/study/feed_choices.h"
#include "core/study/reflection.h"
#include "tests/core/demo.h"
#include "tests/core/feed_fixture.h"

#include <gtest/gtest.h>

#include <cmath>

namespace vetchling {
namespace {

using testing::Demo;
using testing::Worked;

Antenna endFed()
{
    Antenna a = newAntenna(*shapes::findFamily("end-fed"), 7.1e6);
    a.id = "a";
    return a;
}

Design designWith(const Antenna& a)
{
    Design d;
    d.antennas = {a};
    nameThings(d);
    settleFeeds(d);
    return d;
}

// ---- the design

TEST(FeedChains, AreMadeMovedAndTakenApart)
{
    Antenna a = endFed();
    EXPECT_EQ(usedChain(a), nullptr);
    EXPECT_TRUE(chainParts(a).empty());
    ownChain(a).parts = {newPart(part::choke), newPart(part::line), newPart(part::tuner)};
    const Id choke = chainParts(a)[0].id, line = chainParts(a)[1].id, tuner = chainParts(a)[2].id;
    EXPECT_TRUE(movePart(a, choke, 2));
    EXPECT_EQ(chainParts(a)[0].id, line);
    EXPECT_EQ(chainParts(a)[1].id, tuner);
    EXPECT_EQ(chainParts(a)[2].id, choke);
    EXPECT_FALSE(movePart(a, choke, 1));
    EXPECT_FALSE(movePart(a, "nobody", 1));
    EXPECT_TRUE(movePart(a, choke, -1));
    EXPECT_EQ(chainParts(a)[1].id, choke);
    EXPECT_EQ(findPart(a, tuner)->kind, part::tuner);
    EXPECT_EQ(findPart(a, "nobody"), nullptr);
}

TEST(FeedChains, AnotherOneTakesTheShapesTransformerAlong)
{
    Antenna a = endFed();
    a.shape.parameters["transformer_ratio"] = 49.0;
    ownChain(a).parts = {newPart(part::line)};
    const Id first = usedChain(a)->id, second = addChain(a, "with 64");
    EXPECT_EQ(usedChain(a)->id, second);
    EXPECT_NE(chainParts(a)[0].id, a.feed.chains[0].parts[0].id);
    a.shape.parameters["transformer_ratio"] = 64.0;
    EXPECT_TRUE(useChain(a, first));
    EXPECT_EQ(a.shape.parameters.at("transformer_ratio"), 49.0);
    EXPECT_TRUE(useChain(a, second));
    EXPECT_EQ(a.shape.parameters.at("transformer_ratio"), 64.0);
    EXPECT_FALSE(useChain(a, "nobody"));
    EXPECT_TRUE(removeChain(a, second));
    EXPECT_EQ(usedChain(a)->id, first);
    EXPECT_EQ(a.shape.parameters.at("transformer_ratio"), 49.0);
    EXPECT_TRUE(removeChain(a, first));
    EXPECT_EQ(usedChain(a), nullptr);
}

TEST(FeedChains, WhatStandsAtTheFeedpointGoesIntoTheShape)
{
    Antenna a = newAntenna(*shapes::findFamily("dipole"), 7.1e6);
    ChainPart transformer = newPart(part::transformer);
    transformer.values["ratio"] = 4.0;
    ownChain(a).parts = {transformer, newPart(part::choke), newPart(part::line), newPart(part::choke)};
    settleFeed(a, {});
    EXPECT_EQ(a.shape.feedpoint.size(), 2u);
    const auto built = shapes::buildOver(a.shape, Ground{});
    ASSERT_TRUE(built.ok());
    ASSERT_TRUE(built->transformer);
    EXPECT_LT(std::abs(built->atLine({200.0, 40.0}, 7.1e6) - Complex(50.0, 10.0)), 1e-9);
    ownChain(a).parts.clear();
    settleFeed(a, {});
    EXPECT_FALSE(shapes::buildOver(a.shape, Ground{})->transformer);
}

// ---- the file

TEST(FeedChains, SurviveTheFile)
{
    Antenna a = endFed();
    ChainPart line = newPart(part::line), lump = newPart(part::lump), network = newPart(part::network);
    line.values = {{"impedance_ohm", 450.0}, {"impedance_imag_ohm", -0.4}, {"length_m", 12.0}, {"balanced", 1.0}};
    lump.lossTable = {{3.5e6, 0.8}, {7e6, 0.5}};
    lump.basis = Basis::Measured;
    lump.kept = R"({"note":"by hand"})";
    network.values = {{"shunt_side", 1.0}, {"shunt_F", 1e-10}, {"series_H", 1e-6}};
    ownChain(a).parts = {network, line, lump, {"x", "of tomorrow", "", {}, {}, Basis::Assumed, R"({"colour":3})"}};
    addChain(a, "the other");
    Design d = designWith(a);
    d.operation.against = {Against::Kind::Antenna, "a", 0.0};
    d.operation.aimSector = 40.0;
    const std::string text = files::writeDesign(d);
    const auto again = files::parseDesign(text);
    ASSERT_TRUE(again.ok()) << again.firstFault();
    EXPECT_EQ(again->antennas[0].feed, d.antennas[0].feed);
    EXPECT_EQ(again->operation, d.operation);
    EXPECT_EQ(files::writeDesign(*again), text);
    EXPECT_NE(text.find("\"balanced\": \"open-wire line\""), std::string::npos); // words, not numbers
}

// Before there were chains, a design told its transformer by the shape's parameters alone.
TEST(FeedChains, AnOldFileOpensWithTheChainThatMeansTheSame)
{
    Antenna a = endFed();
    a.shape.parameters["transformer_ratio"] = 49.0;
    a.shape.parameters["transformer_loss_percent"] = 12.0;
    const Design d = designWith(a);
    const std::string text = files::writeDesign(d);
    EXPECT_EQ(text.find("\"feed\""), std::string::npos);
    const auto old = files::parseDesign(text);
    ASSERT_TRUE(old.ok());
    const auto chain = wholeChain(old->antennas[0]);
    ASSERT_EQ(chain.size(), 1u);
    EXPECT_EQ(chain[0].kind, part::transformer);
    EXPECT_NEAR(chain[0].values.at("core_ohm"), 50.0 * 0.88 / 0.12, 1e-9);
    // into 50 ohm on the line's side it loses just that
    const ChainState s = chainAt(chain, 49.0 * 50.0, 7.1e6);
    EXPECT_NEAR(s.efficiency(), 0.88, 1e-9);
}

TEST(FeedChains, AWrongFileSaysWhere)
{
    const auto faultOf = [](const std::string& parts, const std::string& load = "[50,0]") {
        const auto chain = files::parseChain(R"({"format":"vetchling-chain","version":1,"frequency_Hz":7.1e6,"load_ohm":)" + load +
                                             R"(,"parts":)" + parts + "}");
        return chain.ok() ? std::string() : chain.firstFault();
    };
    EXPECT_EQ(faultOf("[]"), "");
    EXPECT_EQ(faultOf(R"([{"kind":"transformr"}])").rfind("parts[0].kind: ", 0), 0u);
    EXPECT_EQ(faultOf(R"([{"kind":"choke"},{"kind":"line","length_m":-3}])").rfind("parts[1].length_m: ", 0), 0u);
    EXPECT_EQ(faultOf(R"([{"kind":"tuner","place":"in the garden"}])").rfind("parts[0].place: ", 0), 0u);
    EXPECT_EQ(faultOf("[]", "[0,20]").rfind("load_ohm: ", 0), 0u);
    EXPECT_EQ(faultOf("[]", "[50]").rfind("load_ohm", 0), 0u);
    EXPECT_EQ(faultOf(R"([{"kind":"line","velocity_factor":1.4}])").rfind("parts[0].velocity_factor: ", 0), 0u);
    EXPECT_FALSE(files::parseChain("[1]").ok());
    EXPECT_FALSE(files::parseChain("{").ok());
}

TEST(FeedChains, TheTableOfLinesHasItsSourcesAndOrderOfLoss)
{
    const auto types = files::readLineTypes(VETCHLING_DATA "/lines.json");
    ASSERT_TRUE(types.ok()) << types.firstFault();
    EXPECT_GE(types->size(), 8u);
    for (const LineType& t : *types) {
        EXPECT_FALSE(t.source.empty()) << t.id;
        EXPECT_EQ(t.balanced, t.impedance > 200.0) << t.id;
    }
    const auto loss = [&](const std::string& id) {
        for (const LineType& t : *types)
            if (t.id == id)
                return t.k1 * std::sqrt(14.0) + t.k2 * 14.0;
        return std::nan("");
    };
    EXPECT_GT(loss("coax-50-thin"), loss("coax-50-medium"));
    EXPECT_GT(loss("coax-50-medium"), loss("coax-50-thick"));
    EXPECT_GT(loss("coax-50-thick"), loss("window-450"));
}

TEST(FeedChains, EveryAntennaOfTheDemoHasOne)
{
    const Demo demo;
    for (const Antenna& a : demo.design.antennas) {
        ASSERT_NE(usedChain(a), nullptr) << a.name;
        EXPECT_FALSE(chainParts(a).empty()) << a.name;
        for (const ChainPart& p : wholeChain(a))
            EXPECT_TRUE(findPartFaults(p).empty()) << a.name << p.kind;
    }
}

// ---- what is said of them

TEST(FeedReport, NetIsGainLessEveryLoss)
{
    const Worked w("Wall end-fed 40");
    const study::FeedReport report = study::feedReport(w.basis, w.parts, w.own, 100.0);
    ASSERT_EQ(report.rows.size(), 6u);
    const study::FeedRow* worst = nullptr;
    double mostLost = 0.0;
    for (const study::FeedRow& row : report.rows) {
        double sum = 0.0, lost = 0.0;
        for (const Joint& j : row.state.joints) {
            sum += j.loss;
            lost += j.lost();
        }
        EXPECT_NEAR(row.net, row.band.gain - sum, 1e-9);
        EXPECT_NEAR(lost + row.state.efficiency(), 1.0, 1e-12);
        const double back = std::pow((swr(row.state.impedance()) - 1.0) / (swr(row.state.impedance()) + 1.0), 2);
        const double taken = (1.0 - back) * (back > 1.0 / 9.0 ? 1.0 / 9.0 / back : 1.0); // folding back from SWR 2
        EXPECT_NEAR(row.power, 100.0 * taken, 0.5) << row.band.name;                     // of the curve, as Bands tells it
        EXPECT_NEAR(row.intoAntenna(), 100.0 * taken * std::pow(10.0, -0.1 * sum), 0.5);
        const bool ofUse = row.service.service != Service::No; // of those the one that loses most
        if (ofUse && 1.0 - taken * row.state.efficiency() > mostLost)
            worst = &row, mostLost = 1.0 - taken * row.state.efficiency();
        // the vertical loses what its own SWR makes of the same coax: at least the line's matched loss less a hair
        ChainPart line = w.parts[2];
        ASSERT_EQ(line.kind, part::line);
        const double matched = chainAt({line}, 50.0, row.band.frequency).totalLoss();
        const double ofVertical = row.band.against.gain - row.reference;
        EXPECT_GT(ofVertical, 0.95 * matched);
        EXPECT_LT(ofVertical, 1.5 * matched);
        EXPECT_TRUE(row.band.against.sameLine);
    }
    EXPECT_EQ(report.worst(), worst);
    EXPECT_NE(report.row(w.band("60 m")), nullptr);
    EXPECT_EQ(report.row("nobody"), nullptr);
}

TEST(FeedReport, ItsGainIsTheFieldsOwn)
{
    const Worked w("Tower V 60/40");
    const Antenna& a = w.demo.antenna("Tower V 60/40");
    const study::FeedBand& forty = w.basis.bands[1];
    EXPECT_EQ(forty.name, "40 m");
    study::Question q = study::questionOf(w.demo.design, a, {}, forty.configuration);
    const auto built = shapes::buildOver(q.subject.shape, q.subject.ground, forty.configuration);
    em::GroundTableCache tables;
    const auto solution = em::solve(std::make_shared<const WireModel>(built->model), forty.frequency, tables);
    ASSERT_TRUE(solution.ok());
    EXPECT_LT(std::abs(solution->impedance - forty.port), 0.01 * std::abs(forty.port));
    EXPECT_NEAR(em::FarField(*solution).gain(radians(20.0), forty.azimuth), forty.gain, 0.1);
}

TEST(FeedReport, ASectorIsTheMeanOfItsPower)
{
    Demo demo;
    demo.design.operation.aimBearing = 0.0;
    const Antenna& a = demo.antenna("Tower V 60/40");
    study::Library library;
    study::References references;
    const auto gainOf = [&](double sector) {
        demo.design.operation.aimSector = sector;
        return study::feedBasisOf(library, references, study::feedQuestionOf(demo.design, a))->bands[1].gain;
    };
    const double towards = gainOf(0.0), narrow = gainOf(8.0), all = gainOf(360.0);
    EXPECT_NEAR(narrow, towards, 0.05);
    // all round: the same whatever the bearing
    demo.design.operation.aimBearing = 77.0;
    EXPECT_NEAR(gainOf(360.0), all, 0.02);
}

TEST(FeedReport, OtherReferencesAreWhatTheySay)
{
    const Worked dipole("Tower V 60/40", {Against::Kind::Dipole, {}, 0.0}), own("Tower V 60/40", {Against::Kind::Own, {}, 2.5});
    EXPECT_EQ(own.basis.bands[0].against.gain, 2.5);
    EXPECT_FALSE(own.basis.bands[0].against.sameLine);
    for (const study::FeedBand& b : dipole.basis.bands) {
        EXPECT_LT(swr(b.against.port, 70.0), 2.2) << b.name; // resonant over this soil
        EXPECT_GT(b.against.gain, -6.0) << b.name;
    }
    Demo demo;
    const Antenna& v = demo.antenna("Tower V 60/40");
    const Worked other("Wall end-fed 40", {Against::Kind::Antenna, v.id, 0.0});
    const study::FeedReport report = study::feedReport(other.basis, other.parts, other.own, 100.0);
    const Worked itself("Tower V 60/40");
    const study::FeedReport ofItself = study::feedReport(itself.basis, itself.parts, itself.own, 100.0);
    for (std::size_t i = 0; i < report.rows.size(); ++i)
        EXPECT_NEAR(report.rows[i].reference, ofItself.rows[i].net, 1e-6);
    // one that is not there is the vertical
    const Worked gone("Tower V 60/40", {Against::Kind::Antenna, "nobody", 0.0});
    EXPECT_EQ(gone.basis.against.kind, Against::Kind::Vertical);
}

TEST(FeedReport, AGuessIsARangeAndSaysWhetherItDecides)
{
    Worked w("Tower V 60/40");
    ChainPart lump = newPart(part::lump);
    lump.values = {{"loss_dB", 1.5}, {"loss_from_dB", 0.5}, {"loss_to_dB", 3.0}};
    std::vector<ChainPart> parts = w.parts;
    parts.insert(parts.begin(), lump);
    const study::FeedReport report = study::feedReport(w.basis, parts, 0, 100.0);
    for (const study::FeedRow& row : report.rows) {
        EXPECT_NEAR(row.netAtMost - row.net, 1.0, 1e-9);
        EXPECT_NEAR(row.net - row.netAtLeast, 1.5, 1e-9);
        EXPECT_EQ(row.undecided(),
                  row.netAtLeast - row.service.mismatch < row.reference && row.netAtMost - row.service.mismatch > row.reference);
    }
    const study::FeedReport sure = study::feedReport(w.basis, w.parts, 0, 100.0);
    EXPECT_EQ(sure.rows[0].netAtLeast, sure.rows[0].netAtMost);
}

bool warns(const study::FeedReport& report, study::FeedCaution::Kind kind)
{
    return std::any_of(report.cautions.begin(), report.cautions.end(), [&](const study::FeedCaution& c) { return c.kind == kind; });
}

TEST(FeedReport, BadChainsAreFound)
{
    using Kind = study::FeedCaution::Kind;
    const Worked v("Tower V 60/40");
    const ChainPart coax = v.parts[1], tuner = v.parts[2];
    const auto reportOf = [&](std::vector<ChainPart> parts) { return study::feedReport(v.basis, parts, 0, 100.0); };
    const study::FeedReport usual = reportOf(v.parts);
    EXPECT_TRUE(warns(usual, Kind::TunerRefuses)); // on the bands it is not for
    EXPECT_TRUE(warns(usual, Kind::LineSwr));
    EXPECT_FALSE(warns(usual, Kind::NoChoke));
    EXPECT_TRUE(warns(reportOf({coax, tuner}), Kind::NoChoke));
    ChainPart high = newPart(part::transformer);
    high.values["ratio"] = 49.0;
    EXPECT_TRUE(warns(reportOf({high, coax}), Kind::LowImpedance)); // 49:1 at 50 ohm
    ChainPart open = newPart(part::line);
    open.values["balanced"] = 1.0;
    EXPECT_TRUE(warns(reportOf({open, coax}), Kind::BalanceBroken));
    EXPECT_TRUE(warns(reportOf({open}), Kind::BalanceBroken));
    EXPECT_FALSE(warns(reportOf({open, tuner}), Kind::BalanceBroken));
    ChainPart small = newPart(part::choke);
    small.values = {{"loss_dB", 0.5}, {"rating_W", 3.0}};
    EXPECT_TRUE(warns(reportOf({small, coax}), Kind::Heat));
    EXPECT_FALSE(warns(study::feedReport(v.basis, {small, coax}, 0, 10.0), Kind::Heat));
    const Worked endFed("Wall end-fed 40");
    EXPECT_TRUE(warns(study::feedReport(endFed.basis, endFed.parts, endFed.own, 100.0), Kind::Volts));
}

TEST(SeenAtTheRadio, IsBehindTheChain)
{
    const Demo demo;
    const Antenna& a = demo.antenna("Tower V 60/40");
    study::Library library;
    study::Question q = study::questionOf(demo.design, a);
    const auto feedpoint = study::curveOf(library, q);
    const auto& parts = chainParts(a);
    q.towardsRadio.assign(parts.begin() + long(feedpointParts(parts)), parts.end());
    EXPECT_EQ(q.towardsRadio.size(), 2u);
    const auto radio = study::curveOf(library, q);
    for (double f : {7.02e6, 7.1e6, 7.19e6}) {
        EXPECT_LT(std::abs((*radio)->seen(f) - atSocket(q.towardsRadio, (*feedpoint)->atLine(f), f)), 1e-9);
        EXPECT_EQ((*radio)->atLine(f), (*feedpoint)->atLine(f));
        EXPECT_NEAR((*radio)->swrAt(f), swr((*radio)->seen(f)), 1e-12);
        EXPECT_LT((*radio)->swrAt(f), (*feedpoint)->swrAt(f) + 0.1); // a lossy line flatters
    }
    EXPECT_EQ((*radio)->fundamental, (*feedpoint)->fundamental);
}

} // namespace
} // namespace vetchling
