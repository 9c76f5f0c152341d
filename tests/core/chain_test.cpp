/// Chains of parts: against figures computed with hyperbolic functions in an independent program, limits, and power balance.
#include "core/design/feed.h"
#include "core/line/chain.h"
#include "core/line/line_types.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <random>

namespace vetchling {
namespace {

ChainPart partOf(const char* kind, std::map<std::string, double> values)
{
    ChainPart part;
    part.id = kind;
    part.kind = kind;
    part.values = std::move(values);
    return part;
}

ChainPart lineOf(double z, double zImaginary, double velocity, double k1, double k2, double length)
{
    return partOf(part::line, {{"impedance_ohm", z},
                               {"impedance_imag_ohm", zImaginary},
                               {"velocity_factor", velocity},
                               {"k1_dB_per_100m", k1},
                               {"k2_dB_per_100m", k2},
                               {"length_m", length}});
}

/// Exact input impedance and loss of lines with invented constants (hyperbolic functions, 10 digits).
struct LineFigure {
    const char* name;
    double z, zImaginary, velocity, k1, k2, megahertz, length;
    Complex load, in;
    double loss;
};
const LineFigure lineFigures[] = {
    {"medium coax", 50, 0, 0.66, 0.6, 0.003, 7.1, 20, {100, 0}, {27.17090304, -7.347315164}, 0.398614321},
    {"thin coax", 50, 0, 0.66, 1.3, 0.004, 21.2, 15, {3500, -1200}, {14.57936356, -59.99318901}, 9.677687361},
    {"75 ohm", 75, 0, 0.66, 0.62, 0.0025, 3.65, 13.5, {36, 12}, {138.6995535, -42.81898378}, 0.2087646679},
    {"ladder, complex", 450.0002096, -0.3998674108, 0.91, 0.07, 0.0008, 14.2, 20, {4200, 900}, {744.2208172, -1539.015791}, 0.2549697579},
    {"twin", 300, 0, 0.82, 0.19, 0.003, 7.1, 12, {60, 300}, {32.7756608, -50.46054695}, 0.3118750303},
    {"near open", 50, 0, 0.66, 0.6, 0.003, 7.1, 6.96, {1e6, 0}, {0.6515372684, -0.07898662404}, 24.16071918},
    {"short ladder", 450, 0, 0.91, 0.07, 0.0008, 1.85, 0.25, {15, -600}, {14.61827798, -586.875066}, 0.01006427067},
    {"open wires", 600, 0, 0.97, 0.035, 0.0001, 10.12, 14.37, {10000, 0}, {9699.852509, -84.58220635}, 0.1330008759}};

TEST(Chain, LinesAreExact)
{
    for (const LineFigure& l : lineFigures) {
        const ChainState s = chainAt({lineOf(l.z, l.zImaginary, l.velocity, l.k1, l.k2, l.length)}, l.load, l.megahertz * 1e6);
        EXPECT_LT(std::abs(s.impedance() - l.in), 1e-7 * std::abs(l.in)) << l.name;
        EXPECT_NEAR(s.totalLoss(), l.loss, 1e-7) << l.name;
    }
}

/// A whole chain with all four networks of its tuner: value of shunt and series element in F or H, and loss, from the same source.
TEST(Chain, AWholeChainWithItsTunerIsExact)
{
    const std::vector<ChainPart> parts{partOf(part::transformer, {{"ratio", 4}, {"loss_dB", 0.3}}), partOf(part::choke, {{"loss_dB", 0.1}}),
                                       lineOf(50, 0, 0.66, 0.6, 0.003, 25), lineOf(50, 0, 0.85, 0.38, 0.0015, 3), partOf(part::tuner, {})};
    const ChainState s = chainAt(parts, {210, 95}, 7.1e6);
    const Complex behind[] = {{52.5, 23.75}, {52.5, 23.75}, {34.64085035, 8.574009822}, {47.63649623, 20.33899423}, {50, 0}};
    const double lost[] = {0.3, 0.1, 0.4449655055, 0.03341738817, 0.0009270381897};
    for (std::size_t i = 0; i < parts.size(); ++i) {
        EXPECT_LT(std::abs(s.joints[i].impedance - behind[i]), 1e-6) << i;
        EXPECT_NEAR(s.joints[i].loss, lost[i], 1e-8) << i;
    }
    EXPECT_NEAR(s.totalLoss(), 0.8793099318, 1e-8);
    EXPECT_NEAR(s.efficiency(), 0.8167121318, 1e-8);
    struct {
        bool shuntAtLoad, shuntCoil, seriesCoil;
        double shunt, series, loss;
    } const expected[] = {{false, false, false, 99.86066686e-12, 2304.753163e-12, 0.0009270381897},
                          {true, false, false, 28.33168411e-12, 1260.386556e-12, 0.0009270381897},
                          {false, true, false, 4.977570514e-6, 721.1359977e-12, 0.007940738726},
                          {true, false, true, 312.7554165e-12, 0.4010660341e-6, 0.01207878963}};
    ASSERT_EQ(s.joints.back().solutions.size(), 4u);
    for (const auto& e : expected) {
        const auto& all = s.joints.back().solutions;
        const auto found = std::find_if(all.begin(), all.end(), [&](const NetworkSolution& n) {
            return n.shuntAtLoad == e.shuntAtLoad && n.shunt.inductor == e.shuntCoil && n.series.inductor == e.seriesCoil;
        });
        ASSERT_NE(found, all.end());
        EXPECT_NEAR(found->shunt.value / e.shunt, 1.0, 1e-7);
        EXPECT_NEAR(found->series.value / e.series, 1.0, 1e-7);
        EXPECT_NEAR(found->loss, e.loss, 1e-8);
    }
}

TEST(Chain, AHardLoadIsTunedByHighImpedanceTwin)
{
    const std::vector<ChainPart> parts{partOf(part::transformer, {{"ratio", 4}, {"loss_dB", 0.3}}), partOf(part::choke, {{"loss_dB", 0.1}}),
                                       lineOf(300, 0, 0.82, 0.19, 0.003, 9), lineOf(50, 0, 0.85, 0.38, 0.0015, 15),
                                       partOf(part::tuner, {})};
    const ChainState s = chainAt(parts, {75, 310}, 28.5e6);
    EXPECT_NEAR(s.totalLoss(), 4.03470688, 1e-7);
    EXPECT_NEAR(100.0 * s.efficiency(), 39.49383542, 1e-6);
    const double losses[] = {0.1800021794, 0.1800021794, 0.2460663922, 0.2554237916};
    ASSERT_EQ(s.joints.back().solutions.size(), 4u);
    for (std::size_t i = 0; i < 4; ++i)
        EXPECT_NEAR(s.joints.back().solutions[i].loss, losses[i], 1e-8);
}

// Two networks of two elements of one kind lose the same to the last digits, and which of them is first must not hang on those.
TEST(Chain, EqualNetworksHaveTheirOrder)
{
    std::mt19937 dice(3);
    std::uniform_real_distribution<double> ohms(30.0, 48.0), reactance(20.0, 60.0);
    int pairs = 0;
    for (int round = 0; round < 100; ++round) {
        const auto all = networksFor({ohms(dice), reactance(dice)}, 50.0, 7.1e6, 150.0, 2000.0);
        for (std::size_t i = 1; i < all.size(); ++i)
            if (std::abs(all[i].loss - all[i - 1].loss) < 1e-10) {
                EXPECT_FALSE(all[i - 1].shuntAtLoad);
                EXPECT_TRUE(all[i].shuntAtLoad);
                ++pairs;
            }
    }
    EXPECT_GT(pairs, 10);
}

/// Element with series resistance |X|/Q.
Complex elementOf(const Reactance& r, double frequency, double inductorQ, double capacitorQ)
{
    const double w = 2.0 * pi * frequency;
    return r.inductor ? Complex{w * r.value / inductorQ, w * r.value} : Complex{1.0 / (w * r.value * capacitorQ), -1.0 / (w * r.value)};
}

// Every network that is offered, put together from its elements, makes the wanted resistance and loses what it says.
TEST(Chain, NetworksDoWhatTheySay)
{
    std::mt19937 dice(7);
    std::uniform_real_distribution<double> decades(-0.5, 3.5), reactance(-2000.0, 2000.0), q(20.0, 400.0);
    int seen = 0;
    for (int round = 0; round < 300; ++round) {
        const Complex load{std::pow(10.0, decades(dice)), reactance(dice)};
        const double coilQ = q(dice), capacitorQ = 10.0 * q(dice), f = 7.1e6;
        for (const NetworkSolution& n : networksFor(load, 50.0, f, coilQ, capacitorQ)) {
            const Complex shunt = elementOf(n.shunt, f, coilQ, capacitorQ), series = elementOf(n.series, f, coilQ, capacitorQ);
            const TwoPort across = TwoPort::shunt(1.0 / shunt), path = TwoPort::series(series);
            const TwoPort whole = n.shuntAtLoad ? path.then(across) : across.then(path);
            EXPECT_LT(std::abs(whole.towardsRadio(load) - 50.0), 1e-6) << load;
            EXPECT_NEAR(-10.0 * std::log10(whole.efficiency(load)), n.loss, 1e-6 + 1e-6 * n.loss) << load;
            ++seen;
        }
    }
    EXPECT_GT(seen, 600); // two ways at least for nearly every load
    EXPECT_TRUE(networksFor({-3.0, 20.0}, 50.0, 7e6, 100, 1000).empty());
    EXPECT_TRUE(networksFor({0.0, 20.0}, 50.0, 7e6, 100, 1000).empty());
}

TEST(Chain, ATunerHasARangeAndElementsOfSomeSize)
{
    ChainPart tuner = partOf(part::tuner, {{"range_swr", 3.0}});
    const ChainState far = chainAt({tuner}, {10, 200}, 7.1e6);
    ASSERT_TRUE(far.refusal());
    EXPECT_EQ(far.impedance(), Complex(10, 200));
    EXPECT_EQ(far.totalLoss(), 0.0);
    EXPECT_FALSE(chainAt({tuner}, {70, 20}, 7.1e6).refusal());
    tuner.values["range_swr"] = 0.0;
    EXPECT_FALSE(chainAt({tuner}, {10, 200}, 7.1e6).refusal());
    tuner.values["most_H"] = 1e-8;
    tuner.values["most_F"] = 1e-11;
    EXPECT_TRUE(chainAt({tuner}, {10, 200}, 7.1e6).refusal());
    // what is matched needs no tuning
    EXPECT_FALSE(chainAt({partOf(part::tuner, {})}, {50, 0}, 7.1e6).refusal());
    // a measured loss goes before the computed one
    ChainPart measured = partOf(part::tuner, {{"loss_dB", 0.7}});
    EXPECT_NEAR(chainAt({measured}, {20, 30}, 7.1e6).totalLoss(), 0.7, 1e-12);
}

TEST(Chain, PowerAndVoltageBelongTogetherAtEveryJoint)
{
    const std::vector<ChainPart> parts{
        partOf(part::transformer, {{"ratio", 9}, {"core_ohm", 600}, {"magnetising_H", 8e-6}, {"leakage_H", 1e-7}}),
        partOf(part::network, {{"shunt_F", 2e-10}, {"series_H", 8e-7}}),
        lineOf(50, 0, 0.66, 1.2, 0.004, 17),
        partOf(part::attenuator, {{"loss_dB", 1}}),
        partOf(part::meter, {{"loss_dB", 0.2}}),
        partOf(part::tuner, {{"place", part::indoors}})};
    const ChainState s = chainAt(parts, {380, -420}, 10.12e6);
    double lost = 0.0;
    for (const Joint& j : s.joints) {
        lost += j.lost();
        // P = |I|^2 R / 2, and V = I Z, both peak
        EXPECT_NEAR(0.5 * j.amperes * j.amperes * j.impedance.real(), j.share, 1e-9);
        EXPECT_NEAR(j.volts, j.amperes * std::abs(j.impedance), 1e-9);
        EXPECT_GE(j.mostVolts, j.volts);
        EXPECT_GE(j.loss, 0.0);
    }
    EXPECT_NEAR(lost + s.efficiency(), 1.0, 1e-12);
    EXPECT_NEAR(0.5 * s.portAmperes * s.portAmperes * 380.0, s.efficiency(), 1e-12);
}

// Along a lossless line with SWR s the voltage reaches sqrt(2 P Z0 s).
TEST(Chain, TheHighestVoltageOnALineIsThatOfItsStandingWave)
{
    const ChainState s = chainAt({lineOf(50, 0, 0.66, 0, 0, 30)}, {500, 0}, 14.2e6);
    EXPECT_NEAR(s.joints[0].mostVolts, std::sqrt(2.0 * 50.0 * 10.0), 0.05);
    const ChainState low = chainAt({lineOf(50, 0, 0.66, 0, 0, 30)}, {5, 0}, 14.2e6); // its load is a minimum: the most lies along it
    EXPECT_NEAR(low.joints[0].mostVolts, std::sqrt(2.0 * 50.0 * 10.0), 0.2);
}

TEST(Chain, APlainLossLeavesTheImpedanceAndAnAttenuatorDoesNot)
{
    const Complex load{120, 40};
    const ChainState plain = chainAt({partOf(part::lump, {{"loss_dB", 1.5}})}, load, 7e6);
    EXPECT_LT(std::abs(plain.impedance() - load), 1e-10);
    EXPECT_NEAR(plain.totalLoss(), 1.5, 1e-12);
    // an attenuator takes its loss twice off what comes back
    const ChainState pad = chainAt({partOf(part::attenuator, {{"loss_dB", 3.0}})}, load, 7e6);
    const double before = std::abs(reflection(load, 50.0)), after = std::abs(reflection(pad.impedance(), 50.0));
    EXPECT_NEAR(-20.0 * std::log10(after / before), 6.0, 1e-6);
}

TEST(Chain, ALossTableIsReadBetweenItsPoints)
{
    ChainPart t = partOf(part::transformer, {{"ratio", 49}});
    t.lossTable = {{3.5e6, 0.8}, {7e6, 0.4}, {28e6, 0.6}};
    EXPECT_NEAR(chainAt({t}, {2450, 0}, 7e6).totalLoss(), 0.4, 1e-12);
    EXPECT_NEAR(chainAt({t}, {2450, 0}, 5.25e6).totalLoss(), 0.6, 1e-12);
    EXPECT_NEAR(chainAt({t}, {2450, 0}, 1e6).totalLoss(), 0.8, 1e-12);
    EXPECT_NEAR(chainAt({t}, {2450, 0}, 50e6).totalLoss(), 0.6, 1e-12);
    t.lossTable = {{7e6, 0.4}, {3.5e6, 0.8}};
    EXPECT_FALSE(findPartFaults(t).empty());
}

// What an older design says of its transformer is a resistance across the line's side: 50 (1 - l)/l ohm, no plain loss.
TEST(Chain, TheShapesOwnFeedIsTheSameAsItsParts)
{
    const double lost = 0.12;
    const Transformer t{49.0, 2e-7, 9e-6, 50.0 * (1.0 - lost) / lost, OwnLine{450.0, 3.0, 0.91, 0.07}, 1e-10};
    const auto parts = ownParts(t);
    ASSERT_EQ(parts.size(), 2u);
    for (double f : {3.65e6, 14.2e6, 28.5e6})
        for (const Complex load : {Complex{2300, -400}, Complex{60, 10}}) {
            const ChainState s = chainAt(parts, load, f);
            EXPECT_LT(std::abs(s.impedance() - t.atLine(load, f)), 1e-8 * std::abs(s.impedance()));
            EXPECT_NEAR(s.efficiency(), t.at(f).efficiency(load), 1e-12);
        }
    EXPECT_TRUE(ownParts(std::nullopt).empty());
}

TEST(Chain, FixedPartsAtTheFeedpointAreOneWithTheTransformer)
{
    const std::vector<ChainPart> parts{partOf(part::choke, {{"loss_dB", 0.1}}), partOf(part::stub, {{"length_m", 0.9}}),
                                       partOf(part::section, {{"length_1_m", 1.7}, {"length_2_m", 0.6}}), lineOf(50, 0, 0.66, 1, 0, 10),
                                       partOf(part::choke, {})};
    EXPECT_EQ(feedpointParts(parts), 3u); // what comes behind a line is no part of the feedpoint
    EXPECT_EQ(feedpointParts({}), 0u);
    Transformer t;
    t.ratio = 4.0;
    t.behind = {parts.begin(), parts.begin() + 3};
    std::vector<ChainPart> whole = ownParts(t);
    whole.insert(whole.end(), t.behind.begin(), t.behind.end());
    const Complex load{190, -60};
    const ChainState s = chainAt(whole, load, 14.2e6);
    EXPECT_LT(std::abs(s.impedance() - t.atLine(load, 14.2e6)), 1e-9);
    EXPECT_NEAR(s.efficiency(), t.at(14.2e6).efficiency(load), 1e-12);
}

TEST(Chain, ATunerInTheRadioIsBehindItsSocket)
{
    ChainPart tuner = partOf(part::tuner, {});
    EXPECT_EQ(atSocket({tuner}, {20, 30}, 7e6), Complex(20, 30));
    tuner.values["place"] = part::indoors;
    EXPECT_EQ(atSocket({tuner}, {20, 30}, 7e6), Complex(50, 0));
}

TEST(Chain, TheWayThroughALineEndsWhereTheLineEnds)
{
    const ChainPart line = lineOf(50, 0, 0.66, 0.6, 0.003, 18);
    const Complex load{69, 53};
    const auto way = wayThrough(line, load, 7.156e6, 50.0);
    ASSERT_GT(way.size(), 20u);
    EXPECT_LT(std::abs(way.front() - reflection(load, 50.0)), 1e-12);
    EXPECT_LT(std::abs(way.back() - reflection(chainAt({line}, load, 7.156e6).impedance(), 50.0)), 1e-12);
    for (std::size_t i = 1; i < way.size(); ++i) // a lossy line winds inwards
        EXPECT_LT(std::abs(way[i]), std::abs(way[i - 1]));
    EXPECT_EQ(wayThrough(partOf(part::transformer, {{"ratio", 4}}), load, 7e6, 50.0).size(), 2u);
}

TEST(Chain, AGuessIsTriedAtBothEnds)
{
    const std::vector<ChainPart> parts{partOf(part::lump, {{"loss_dB", 1.5}, {"loss_from_dB", 0.5}, {"loss_to_dB", 3.0}}),
                                       lineOf(50, 0, 0.66, 0.6, 0, 20)};
    EXPECT_TRUE(isGuess(parts));
    EXPECT_FALSE(isGuess({parts[1]}));
    const double line = chainAt({parts[1]}, 50.0, 7e6).totalLoss();
    EXPECT_NEAR(chainAt(guessed(parts, Guess::Least), 50.0, 7e6).totalLoss(), 0.5 + line, 1e-12);
    EXPECT_NEAR(chainAt(guessed(parts, Guess::Told), 50.0, 7e6).totalLoss(), 1.5 + line, 1e-12);
    EXPECT_NEAR(chainAt(guessed(parts, Guess::Most), 50.0, 7e6).totalLoss(), 3.0 + line, 1e-12);
}

TEST(Chain, AChokeChokesBestAtItsResonance)
{
    const ChainPart choke = partOf(part::choke, {{"choking_ohm", 3000}, {"choking_H", 60e-6}, {"choking_F", 3e-12}});
    const double resonance = 1.0 / (2.0 * pi * std::sqrt(60e-6 * 3e-12));
    EXPECT_NEAR(std::abs(*chokingImpedance(choke, resonance)), 3000.0, 1e-6);
    EXPECT_GT(chokingImpedance(choke, 0.5 * resonance)->imag(), 0.0);
    EXPECT_LT(chokingImpedance(choke, 2.0 * resonance)->imag(), 0.0);
    EXPECT_FALSE(chokingImpedance(partOf(part::choke, {{"choking_ohm", 0}}), 7e6));
}

TEST(Chain, StubsShowWhatTheirEndMakesOfThem)
{
    const double f = 14.2e6, quarter = 0.66 * wavelength(f) / 4.0;
    const auto admittance = [&](double shorted, double length) {
        return partOf(part::stub, {{"shorted", shorted}, {"length_m", length}, {"k1_dB_per_100m", 0}, {"k2_dB_per_100m", 0}});
    };
    // a quarter wave with its end shorted is not there, an eighth shows +j Z0, an open eighth -j Z0
    EXPECT_LT(std::abs(chainAt({admittance(1, quarter)}, 70.0, f).impedance() - 70.0), 1e-6);
    const Complex across = 1.0 / (1.0 / Complex(70.0) + 1.0 / Complex(0.0, 50.0));
    EXPECT_LT(std::abs(chainAt({admittance(1, 0.5 * quarter)}, 70.0, f).impedance() - across), 1e-6);
    EXPECT_LT(std::abs(chainAt({admittance(0, 0.5 * quarter)}, 70.0, f).impedance() - std::conj(across)), 1e-6);
    EXPECT_FALSE(findPartFaults(admittance(1, 0.0)).empty());
}

TEST(Chain, EveryKindHasItsSpecsInOrder)
{
    for (const PartKind* kind : partKinds()) {
        EXPECT_EQ(findPartKind(kind->id()), kind);
        EXPECT_FALSE(kind->name().empty());
        EXPECT_FALSE(kind->help().empty());
        ChainPart part = partOf(kind->id().c_str(), {});
        EXPECT_TRUE(findPartFaults(part).empty()) << kind->id();
        for (const PartSpec& s : kind->specs()) {
            EXPECT_LE(s.lowest, s.standard) << s.key;
            EXPECT_GE(s.highest, s.standard) << s.key;
            part.values = {{s.key, s.highest + 1.0 + std::abs(s.highest)}};
            EXPECT_FALSE(findPartFaults(part).empty()) << s.key;
        }
    }
    ChainPart unknown = partOf("of tomorrow", {{"x", 3}});
    EXPECT_EQ(chainAt({unknown}, {30, 5}, 7e6).impedance(), Complex(30, 5));
}

TEST(Chain, ATypeGivesALineItsValuesAndLeavesItsLength)
{
    ChainPart line = lineOf(50, -0.3, 0.66, 1, 1, 12.5);
    takeType(line, {"twin", "twin", "", true, 300, 0.82, 0.19, 0.003, 0.8});
    EXPECT_EQ(line.type, "twin");
    EXPECT_EQ(partValue(line, "impedance_ohm"), 300.0);
    EXPECT_EQ(partValue(line, "impedance_imag_ohm"), 0.0);
    EXPECT_EQ(partValue(line, "length_m"), 12.5);
    EXPECT_EQ(partValue(line, "balanced"), 1.0);
}

TEST(Chain, TheShortWayIsTheLongOnes)
{
    ChainPart transformer = newPart(part::transformer), line = newPart(part::line), tuner = newPart(part::tuner);
    transformer.values = {{"ratio", 9.0}, {"core_ohm", 800.0}};
    tuner.values["range_swr"] = 5.0;
    for (const Complex load : {Complex(450.0, 60.0), Complex(12.0, -300.0)})
        for (double f : {3.6e6, 28.5e6}) {
            const std::vector<ChainPart> parts{transformer, line, tuner};
            const ChainState state = chainAt(parts, load, f);
            const Through through = throughChain(parts, load, f);
            EXPECT_LT(std::abs(through.impedance - state.impedance()), 1e-9);
            EXPECT_NEAR(through.loss, state.totalLoss(), 1e-12);
        }
    EXPECT_EQ(throughChain({}, 50.0, 7e6).loss, 0.0);
}

} // namespace
} // namespace vetchling
