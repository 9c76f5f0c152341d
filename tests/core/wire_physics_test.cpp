/// What wires, joints, loads and losses must obey: power balance, jackets, radii, Kirchhoff; and calm answers to bad input.
#include "core/em/solver.h"

#include "tests/core/helpers.h"
#include "tests/long_form.h"
#include "tests/validation/coated_wire.h"

#include <random>

namespace vetchling::em {
namespace {

using namespace vetchling::testing;

constexpr double wiresHz = 14.2e6;

// ---- power balance

class Balance : public ::testing::TestWithParam<int> {};

// Sky, soil, wire and loads, each by its own integral, add to the input: random antennas over random soils.
TEST_P(Balance, HoldsForRandomAntennas)
{
    std::mt19937 random(unsigned(GetParam()) * 7919u);
    const auto between = [&](double a, double b) { return std::uniform_real_distribution<double>(a, b)(random); };
    WireModel model;
    model.ground = {GroundKind::Real, between(3, 80), std::pow(10.0, between(-4, 0.5))};
    const double low = std::pow(10.0, between(-1.5, 1.0));
    model.wires.push_back(wire(
        "a", {{0, 0, low}, {between(3, 7), between(-3, 3), low + between(0, 4)}, {between(8, 12), between(-5, 5), low + between(0, 3)}}));
    model.wires[0].conductivity = 5.8e7;
    model.wires.push_back(wire("b", {{0, 0, low}, {between(-6, -2), between(-3, 3), low + between(0.0, 2.0)}}));
    model.feeds.push_back({0, between(0.0, 4.0), 1.0});
    Load load;
    load.at = 4.5;
    load.inductance = between(0, 5e-6);
    load.q = 150;
    model.loads.push_back(load);
    const Solution s = solved(model, between(5e6, 25e6));
    const PowerLedger ledger = ledgerOf(s);
    EXPECT_NEAR(ledger.sum(), 1.0, 0.002) << ledger.sky << " " << ledger.soil << " " << ledger.wire << " " << ledger.loads;
    for (double share : {ledger.sky, ledger.soil, ledger.wire, ledger.loads})
        EXPECT_GE(share, -1e-4);
}

INSTANTIATE_TEST_SUITE_P(Random, Balance, ::testing::Range(1, 25));

TEST(Balance, HoldsForALongWireOverSoil)
{
    WireModel model = fedWire({{0, 0, 3}, {30.0 * wavelength(wiresHz), 0, 3}}, 0.25 * wavelength(wiresHz), averageSoil);
    model.wires[0].conductivity = 5.8e7;
    const Solution s = solved(model, wiresHz);
    EXPECT_NEAR(ledgerOf(s).sum(), 1.0, 1e-3);
    EXPECT_GT(ledgerOf(s).soil, 0.5);
}

TEST(Balance, OverPerfectGroundAllGoesToTheSky)
{
    const PowerLedger ledger = ledgerOf(solved(dipole(10, 3, perfectGround), wiresHz));
    EXPECT_NEAR(ledger.sky, 1.0, 1e-5);
    EXPECT_EQ(ledger.soil, 0.0);
}

TEST(Balance, ResistorTakesItsShare)
{
    WireModel model = dipole(10.2, 0);
    Load resistor;
    resistor.at = 5.1; // at the feed itself: in series with it
    resistor.resistance = 30.0;
    const Complex bare = solved(model, wiresHz).impedance;
    model.loads.push_back(resistor);
    const Solution s = solved(model, wiresHz);
    EXPECT_LT(std::abs(s.impedance - bare - 30.0), 1e-6);
    EXPECT_NEAR(ledgerOf(s).loads, 30.0 / s.impedance.real(), 1e-9);
}

// ---- wires

// A jacket lowers the resonance by a few percent: published velocity factors of PVC-insulated wire are 0.95 to 0.98.
TEST(Insulation, ShortensByAFewPercent)
{
    const auto resonance = [&](bool jacket) {
        WireModel model = dipole(10.2, 0);
        if (jacket)
            model.wires[0].insulation = Insulation{1.8e-3, 3.0, 0.0};
        double low = 13e6, high = 15e6;
        for (int i = 0; i < 30; ++i) {
            const double middle = 0.5 * (low + high);
            (solved(model, middle).impedance.imag() < 0.0 ? low : high) = middle;
        }
        return low;
    };
    const double factor = resonance(true) / resonance(false);
    EXPECT_LT(factor, 0.985);
    EXPECT_GT(factor, 0.94);
}

// The wave along a long wire in its jacket runs as the exact surface wave does: 1 to 5 % slower than light.
TEST(Insulation, SlowsTheWaveAsTheExactModeOfACoatedWire)
{
    for (const CoatedWire& coated : {CoatedWire{1e-3, 1e-3, 3.0}, CoatedWire{1e-3, 0.5e-3, 2.3}, CoatedWire{2e-3, 4e-3, 4.0}}) {
        const double exact = surfaceWaveSlowness(coated, wiresHz), found = slownessOnALongWire(coated, wiresHz, 40.0);
        EXPECT_GT(exact, 1.01);
        EXPECT_NEAR(found, exact, 5e-4); // measured: 2.5e-4; other waves still beat with it
    }
}

TEST(Insulation, OfAirDoesNothing)
{
    WireModel model = dipole(10.2, 4, averageSoil);
    const Complex bare = solved(model, wiresHz).impedance;
    model.wires[0].insulation = Insulation{5e-3, 1.0, 0.0};
    EXPECT_LT(relative(solved(model, wiresHz).impedance, bare), 1e-12);
}

TEST(Insulation, LossyJacketTakesPower)
{
    WireModel model = dipole(10.2, 0);
    model.wires[0].insulation = Insulation{3e-3, 3.0, 0.05};
    const PowerLedger ledger = ledgerOf(solved(model, wiresHz));
    EXPECT_GT(ledger.wire, 1e-4);
    EXPECT_NEAR(ledger.sum(), 1.0, 1e-5);
}

// A thick tube is resonant shorter than a thin wire.
TEST(Radius, ThickerIsShorter)
{
    EXPECT_GT(solved(dipole(10.15, 0, freeSpace, 0.05), wiresHz).impedance.imag(),
              solved(dipole(10.15, 0, freeSpace, 0.0005), wiresHz).impedance.imag());
}

// A tapered tube must not depend on how many elements share its taper (2026-11: the radius was a staircase, X off by 20 %).
TEST(Radius, TaperDoesNotDependOnTheMesh)
{
    WireModel model;
    for (double side : {1.0, -1.0}) {
        Wire half = wire(side > 0 ? "up" : "down", {{0, 0, 1}, {0, 0, 1 + 5 * side}}, 0.012);
        half.endRadius = 0.003;
        model.wires.push_back(half);
    }
    model.feeds.push_back({0, 0.0, 1.0});
    SolveOptions many;
    many.mesh.elementsPerWavelength = 20.0;
    const Complex few = solved(model, wiresHz).impedance;
    EXPECT_LT(relative(few, solved(model, wiresHz, many).impedance), 0.004);
    for (Wire& half : model.wires)
        half.endRadius = half.radius; // no taper: the plain dipole
    EXPECT_LT(relative(solved(model, wiresHz).impedance, solved(dipole(10, 0, freeSpace, 0.012), wiresHz).impedance), 1e-3);
}

// A folded dipole with arms four radii apart: the arm that is not fed needs nodes facing the feed of the other
// (2026-11: without them the impedance jumped by 10 % between meshes).
TEST(Neighbours, FourRadiiApartSettle)
{
    const WireModel folded = fedWire({{0, -4.9, 0}, {0, 4.9, 0}, {0.004, 4.9, 0}, {0.004, -4.9, 0}, {0, -4.9, 0}}, 4.9);
    const Complex z = solved(folded, wiresHz).impedance;
    for (double density : {6.5, 8.0, 11.0, 16.0}) {
        SolveOptions options;
        options.mesh.elementsPerWavelength = density;
        EXPECT_LT(relative(solved(folded, wiresHz, options).impedance, z), 0.002) << density;
    }
}

// ---- joints, feeds, coils

// Cutting a wire in two wires that meet changes nothing.
TEST(Joints, TwoWiresThatMeetAreOneWire)
{
    const Complex one = solved(fedWire({{0, 0, 3}, {4, 0, 5}, {9, 0, 3}}, 2.0, averageSoil), wiresHz).impedance;
    WireModel two;
    two.ground = averageSoil;
    two.wires = {wire("a", {{0, 0, 3}, {4, 0, 5}}), wire("b", {{9, 0, 3}, {4, 0, 5}})};
    two.feeds.push_back({0, 2.0, 1.0});
    EXPECT_LT(relative(solved(two, wiresHz).impedance, one), 1e-8); // the second is divided from its other end
}

// Two equal radials share the current: each carries half of the radiator's.
// The narrower a V, the more its legs cancel each other: from a dipole at 180 degrees to an open line at 10.
TEST(Joints, AVRadiatesLessTheNarrowerItIs)
{
    double before = 1e9;
    for (double angle : {180.0, 120.0, 60.0, 30.0, 10.0}) {
        const double leg = 0.24 * wavelength(wiresHz), x = -leg * std::cos(radians(0.5 * angle)), y = leg * std::sin(radians(0.5 * angle));
        const Solution s = solved(fedWire({{x, -y, 0}, {0, 0, 0}, {x, y, 0}}, leg), wiresHz);
        EXPECT_LT(s.impedance.real(), before) << angle;
        EXPECT_NEAR(ledgerOf(s).sum(), 1.0, 2e-3) << angle;
        before = s.impedance.real();
    }
    EXPECT_LT(before, 2.0);
}

// A whip on a car's roof of crossed wires: near a monopole's 36 ohm, feed at a joint of five ends.
TEST(Joints, AWhipOnABodyOfWiresIsNearlyAMonopole)
{
    const double vhf = 145e6, l = wavelength(vhf), roof = 1.4;
    WireModel model;
    model.ground = averageSoil;
    for (int i = -3; i <= 3; ++i) {
        std::vector<Vec3> along, across;
        for (int j = -3; j <= 3; ++j) {
            along.push_back({0.2 * j, 0.2 * i, roof});
            across.push_back({0.2 * i, 0.2 * j, roof});
        }
        model.wires.push_back(wire("along", along, 5e-3));
        model.wires.push_back(wire("across", across, 5e-3));
    }
    model.wires.push_back(wire("whip", {{0, 0, roof}, {0, 0, roof + 0.235 * l}}, 1.5e-3));
    model.feeds.push_back({model.wires.size() - 1, 0.0, 1.0});
    const Solution s = solved(model, vhf);
    EXPECT_NEAR(s.impedance.real(), 36.0, 14.0);
    EXPECT_LT(std::abs(s.impedance.imag()), 40.0);
    EXPECT_LT(s.impedanceErrorPercent, 2.0);
    EXPECT_NEAR(ledgerOf(s).sum(), 1.0, 3e-3);
    double roofCurrents = 0.0; // out of the joint, as much as flows up the whip
    for (std::size_t w : {6u, 7u})
        roofCurrents += std::abs(s.currentAt(w, 0.6 - 1e-4) - s.currentAt(w, 0.6 + 1e-4));
    EXPECT_NEAR(roofCurrents, std::abs(s.currentAt(model.wires.size() - 1, 1e-4)), 0.02 * roofCurrents);
}

TEST(Joints, CurrentDividesBySymmetry)
{
    WireModel model;
    model.ground = averageSoil;
    model.wires = {wire("v", {{0, 0, 2}, {0, 0, 7}}), wire("r", {{0, 0, 2}, {5, 0, 2}}), wire("s", {{0, 0, 2}, {-5, 0, 2}})};
    model.feeds.push_back({0, 0.0, 1.0});
    const Solution s = solved(model, wiresHz);
    const Complex up = s.currentAt(0, 0.0), right = s.currentAt(1, 0.0), left = s.currentAt(2, 0.0);
    EXPECT_LT(relative(right, left), 1e-9);
    EXPECT_LT(std::abs(up + right + left), 1e-9 * std::abs(up)); // all counted away from the joint
}

TEST(Joints, FeedAtAJointEqualsFeedJustBesideIt)
{
    WireModel model;
    model.ground = averageSoil;
    model.wires = {wire("v", {{0, 0, 2}, {0, 0, 7}}), wire("r", {{0, 0, 2}, {5, 0, 2}}), wire("s", {{0, 0, 2}, {-5, 0, 2}})};
    model.feeds.push_back({0, 0.0, 1.0});
    const Complex at = solved(model, wiresHz).impedance;
    model.feeds[0].at = 0.05;
    EXPECT_LT(relative(solved(model, wiresHz).impedance, at), 0.03);
}

TEST(Loads, CoilLowersTheReactanceItCancels)
{
    WireModel model = dipole(6, 8, averageSoil);
    const Complex bare = solved(model, wiresHz).impedance;
    EXPECT_LT(bare.imag(), -100.0);
    for (double at : {1.5, 4.5}) {
        Load coil;
        coil.at = at;
        coil.inductance = 3e-6;
        model.loads.push_back(coil);
    }
    EXPECT_GT(solved(model, wiresHz).impedance.imag(), bare.imag() + 150.0);
}

TEST(Currents, VanishAtFreeEnds)
{
    const Solution s = solved(dipole(10, 5, averageSoil), wiresHz);
    EXPECT_LT(std::abs(s.currentAt(0, 0.0)), 1e-12);
    EXPECT_LT(std::abs(s.currentAt(0, 10.0)), 1e-12);
    EXPECT_LT(relative(s.currentAt(0, 5.0), s.feedCurrents[0]), 5e-4);
    EXPECT_LT(relative(s.currentAt(0, 2.0), s.currentAt(0, 8.0)), 1e-6);
}

// ---- robustness

TEST(Solve, StopsWhenAsked)
{
    GroundTableCache tables;
    int asked = 0;
    const Watch watch([&] { return ++asked >= 2; });
    const auto result = solve(std::make_shared<const WireModel>(dipole(10, 5, averageSoil)), wiresHz, tables, {}, watch);
    ASSERT_FALSE(result.ok());
    EXPECT_TRUE(result.stopped());
}

TEST(Solve, RefusesImpossibleFrequencies)
{
    GroundTableCache tables;
    for (double bad : {0.0, -7e6, 1e12, std::nan("")})
        EXPECT_FALSE(solve(std::make_shared<const WireModel>(dipole(10, 5)), bad, tables).ok()) << bad;
}

TEST(Solve, RefusesModelsThatDoNotFit)
{
    GroundTableCache tables;
    const auto result = solve(std::make_shared<const WireModel>(dipole(90000, 5)), 2e9, tables);
    ASSERT_FALSE(result.ok());
    EXPECT_NE(result.firstFault().find("unknowns"), std::string::npos);
}

// Ten thousand random pairs of wires are too slow here; a few hundred in every run, over all grounds.
TEST(Solve, RandomWiresGiveFiniteResultsOrWords)
{
    std::mt19937 random(20260512);
    const auto between = [&](double a, double b) { return std::uniform_real_distribution<double>(a, b)(random); };
    GroundTableCache tables(4);
    int good = 0;
    for (int n = 0; n < testing::many(90, 250); ++n) {
        WireModel model;
        model.ground = n % 3 == 0 ? freeSpace : n % 3 == 1 ? perfectGround : averageSoil;
        const int wires = 1 + n % 3;
        for (int w = 0; w < wires; ++w) {
            std::vector<Vec3> points;
            for (int p = 0; p < 2 + n % 3; ++p)
                points.push_back({between(-9, 9), between(-9, 9), between(-0.3, 9)});
            model.wires.push_back(wire("w" + std::to_string(w), points, std::pow(10.0, between(-4, -2))));
        }
        model.feeds.push_back({0, between(0.0, 3.0), 1.0});
        if (!findFaults(model).empty())
            continue;
        const auto s = solve(std::make_shared<const WireModel>(model), 14.1e6, tables);
        ASSERT_TRUE(s.ok()) << s.firstFault();
        EXPECT_TRUE(std::isfinite(std::abs(s->impedance)));
        EXPECT_GT(s->impedance.real(), 0.0);
        ++good;
    }
    EXPECT_GT(good, testing::many(20, 60));
}

// Soil that is like air: half of the power goes down, and the gain is that of free space.
TEST(SoilLikeAir, TakesHalfOfThePowerAndLeavesTheGain)
{
    const em::Solution air = solved(dipole(10, 8), 14.1e6), soil = solved(dipole(10, 8, {GroundKind::Real, 1.0, 0.0}), 14.1e6);
    const em::PowerLedger ledger = ledgerOf(soil);
    EXPECT_NEAR(ledger.sky, 0.5, 1e-4);
    EXPECT_NEAR(ledger.soil, 0.5, 1e-4);
    EXPECT_NEAR(ledger.sum(), 1.0, 1e-4);
    EXPECT_NEAR(em::FarField(soil).gain(0.5, 1.2), em::FarField(air).gain(0.5, 1.2), 1e-6);
}

} // namespace
} // namespace vetchling::em
