/// What any right solver must obey, whatever its method: textbook figures, limits, symmetries, convergence.
#include "core/em/solver.h"

#include "tests/core/helpers.h"

namespace vetchling::em {
namespace {

using namespace vetchling::testing;

constexpr double solverHz = 14.2e6;

// ---- figures a practitioner checks in the first minute

// Half a wave exactly, thin: 73 + j42 ohm (King 1956, Theory of Linear Antennas). The finite radius of 1e-5 wavelengths
// and the end effect leave a few ohms.
TEST(Textbook, HalfWaveDipoleInFreeSpace)
{
    const double half = 0.5 * wavelength(solverHz);
    const Complex z = solved(dipole(half, 0, freeSpace, 2e-6), solverHz).impedance;
    EXPECT_NEAR(z.real(), 73.1, 4.0);
    EXPECT_NEAR(z.imag(), 42.5, 4.0);
}

// As the wire gets thinner its impedance at half a wave tends to 73.13 + j42.54 ohm, slowly, as 1/ln(l/a).
TEST(Textbook, HalfWaveDipoleTendsToTheThinLimit)
{
    const double half = 0.5 * wavelength(solverHz);
    double before = HUGE_VAL;
    for (double radius : {1e-2, 1e-3, 1e-5, 1e-7}) {
        const double off = std::abs(solved(dipole(half, 0, freeSpace, radius), solverHz).impedance - Complex{73.13, 42.54});
        EXPECT_LT(off, before) << radius;
        before = off;
    }
    EXPECT_LT(before, 3.5);
}

TEST(Textbook, DipoleIsResonantAFewPercentShort)
{
    const double half = 0.5 * wavelength(solverHz);
    EXPECT_GT(solved(dipole(0.98 * half, 0), solverHz).impedance.imag(), 0.0);
    EXPECT_LT(solved(dipole(0.95 * half, 0), solverHz).impedance.imag(), 0.0);
}

TEST(Textbook, QuarterWaveOnPerfectGround)
{
    const double quarter = 0.25 * wavelength(solverHz);
    const Solution s = solved(fedWire({{0, 0, 0}, {0, 0, 0.966 * quarter}}, 0.0, perfectGround), solverHz);
    EXPECT_NEAR(s.impedance.real(), 36.0, 1.5);
    EXPECT_NEAR(FarField(s).gain(radians(0.5), 0.0), 5.16, 0.05); // 5.15 dBi for a quarter wave
}

// Gain of a half-wave dipole 2.15 dBi, of a short one 1.76 dBi.
TEST(Textbook, DipoleGains)
{
    EXPECT_NEAR(FarField(solved(dipole(0.5 * wavelength(solverHz), 0), solverHz)).gain(0.0, 0.5 * pi), 2.15, 0.02);
    EXPECT_NEAR(FarField(solved(dipole(0.02 * wavelength(solverHz), 0, freeSpace, 1e-4), solverHz)).gain(0.0, 0.5 * pi), 1.76, 0.01);
}

TEST(Textbook, FoldedDipoleHasFourTimesTheResistance)
{
    const double length = 0.46 * wavelength(solverHz);
    const WireModel folded =
        fedWire({{0, -0.5 * length, 0}, {0, 0.5 * length, 0}, {0.03, 0.5 * length, 0}, {0.03, -0.5 * length, 0}, {0, -0.5 * length, 0}},
                0.5 * length);
    const double thickness = std::sqrt(1e-3 * 0.03); // the pair acts as one wire of the mean geometric radius
    const Complex plain =
        solved(fedWire({{0, -0.5 * length, 0}, {0, 0.5 * length, 0}}, 0.5 * length, freeSpace, thickness), solverHz).impedance;
    // Antenna mode 4 Z beside two shorted stubs in series (Balanis, Antenna Theory, eq. 9-23): the stubs take no power.
    const Complex admittance = 1.0 / solved(folded, solverHz).impedance;
    EXPECT_NEAR(admittance.real() / (1.0 / (4.0 * plain)).real(), 1.0, 0.04);
}

TEST(Textbook, FullWaveLoop)
{
    const double side = 1.06 * wavelength(solverHz) / 4.0;
    const Solution s = solved(fedWire({{0, 0, 0}, {side, 0, 0}, {side, 0, side}, {0, 0, side}, {0, 0, 0}}, 0.5 * side), solverHz);
    EXPECT_GT(s.impedance.real(), 100.0);
    EXPECT_LT(s.impedance.real(), 145.0);
    EXPECT_NEAR(FarField(s).gain(0.0, 0.5 * pi) - 2.15, 1.0, 0.25); // about 1 dB over a dipole
}

TEST(Textbook, DipoleHalfAWaveOverAverageSoil)
{
    const Solution s = solved(dipole(0.48 * wavelength(solverHz), 0.5 * wavelength(solverHz), averageSoil), solverHz);
    const FarField field(s);
    double best = -300.0, at = 0.0;
    for (int e = 1; e <= 90; ++e)
        if (const double g = field.gain(radians(e), 0.5 * pi); g > best)
            best = g, at = e;
    EXPECT_GT(best, 6.8);
    EXPECT_LT(best, 8.2);
    EXPECT_NEAR(at, 28.0, 5.0);
    EXPECT_LT(field.gain(0.5 * pi, 0.0), best - 8.0); // a null overhead
}

TEST(Textbook, LowDipoleFiresStraightUp)
{
    const FarField field(solved(dipole(0.48 * wavelength(solverHz), 0.12 * wavelength(solverHz), averageSoil), solverHz));
    const double up = field.gain(0.5 * pi, 0.0);
    for (int e = 5; e < 90; e += 5)
        EXPECT_LT(field.gain(radians(e), 0.5 * pi), up + 0.01);
}

TEST(Textbook, SaltWaterLiftsAVerticalAtLowAngles)
{
    const auto low = [&](const Ground& ground) {
        WireModel model = fedWire({{0, 0, 0.2}, {0, 0, 5.2}}, 0.0, ground);
        for (double b : {0.0, 90.0, 180.0, 270.0})
            model.wires.push_back(
                wire("r" + std::to_string(int(b)), {{0, 0, 0.2}, {5 * std::cos(radians(b)), 5 * std::sin(radians(b)), 0.2}}));
        return FarField(solved(model, solverHz)).gain(radians(5.0), 0.0);
    };
    EXPECT_GT(low({GroundKind::Real, 81.0, 5.0}) - low(averageSoil), 5.0);
}

// The grid's shortcut gives what the directions give one by one, over every ground.
// Currents round a tube send J0(k a) of what they would send from its axis, squarely to it.
TEST(FarField, OfAThickTubeIsThatOfCurrentsOnItsSurface)
{
    const double l = wavelength(solverHz), radius = 0.02 * l, k = 2.0 * pi / l;
    WireModel model = fedWire({{0, 0, -0.1 * l}, {0, 0, 0.1 * l}}, 0.1 * l, freeSpace, radius);
    const Solution s = solved(model, solverHz);
    Complex moment = 0.0;
    constexpr int steps = 4000;
    for (int i = 0; i < steps; ++i)
        moment += s.currentAt(0, 0.2 * l * (i + 0.5) / steps) * (0.2 * l / steps);
    const double density = waveImpedance * k * k * std::norm(moment * std::cyl_bessel_j(0, k * radius)) / (32.0 * pi * pi);
    EXPECT_NEAR(FarField(s).gain(0.0, 0.3), 10.0 * std::log10(4.0 * pi * density / s.inputPower), 1e-4);
}

TEST(FarFieldGrid, AgreesWithSingleDirections)
{
    for (const Ground& ground : {freeSpace, perfectGround, averageSoil}) {
        const FarField field(solved(fedWire({{0, 0, 1}, {4, 2, 7}, {9, -1, 4}}, 3.0, ground), solverHz));
        const std::vector<double> elevations{0.01, 0.4, 1.1, 0.5 * pi}, azimuths{0.0, 0.7, 2.5, 5.9};
        const auto grid = field.gainGrid(elevations, azimuths);
        for (std::size_t e = 0; e < 4; ++e)
            for (std::size_t a = 0; a < 4; ++a)
                EXPECT_NEAR(grid[e][a], field.gain(elevations[e], azimuths[a]), 1e-9);
    }
}

// ---- limits

TEST(Limits, SoilOfAirIsFreeSpace)
{
    const Complex air = solved(fedWire({{-5, 0, 2}, {0, 0, 4}, {5, 0, 2}}, 5.0, {GroundKind::Real, 1.0 + 1e-7, 0.0}), solverHz).impedance;
    const Complex none = solved(fedWire({{-5, 0, 2}, {0, 0, 4}, {5, 0, 2}}, 5.0), solverHz).impedance;
    EXPECT_LT(relative(air, none), 1e-4);
}

TEST(Limits, SoilOfExactlyAirIsFreeSpace)
{
    const Complex air = solved(dipole(10, 3, {GroundKind::Real, 1.0, 0.0}), solverHz).impedance;
    EXPECT_LT(relative(air, solved(dipole(10, 3), solverHz).impedance), 1e-12);
}

TEST(Limits, SoilOfMetalIsPerfectGround)
{
    for (double height : {1.0, 5.0}) {
        const Complex metal = solved(dipole(10, height, {GroundKind::Real, 1.0, 1e7}), solverHz).impedance;
        EXPECT_LT(relative(metal, solved(dipole(10, height, perfectGround), solverHz).impedance), 2e-4) << height;
    }
}

TEST(Limits, SlopingWireOverMetalToo)
{
    const std::vector<Vec3> points{{0, 0, 1}, {4, 2, 7}};
    const Complex metal = solved(fedWire(points, 3.0, {GroundKind::Real, 1.0, 1e7}), solverHz).impedance;
    EXPECT_LT(relative(metal, solved(fedWire(points, 3.0, perfectGround), solverHz).impedance), 3e-4);
}

TEST(Limits, HighAboveSoilIsNearlyFreeSpace)
{
    const Complex high = solved(dipole(10.2, 200.0, averageSoil), solverHz).impedance, none = solved(dipole(10.2, 0), solverHz).impedance;
    EXPECT_LT(relative(high, none), 0.02);
}

TEST(Limits, GoodCopperHardlyMatters)
{
    WireModel copper = dipole(10.2, 0);
    copper.wires[0].conductivity = 5.8e7;
    const Complex lossy = solved(copper, solverHz).impedance, perfect = solved(dipole(10.2, 0), solverHz).impedance;
    EXPECT_GT(lossy.real(), perfect.real());
    EXPECT_LT(relative(lossy, perfect), 0.02);
}

// ---- image theory

// A vertical over perfect ground has half the impedance of the dipole it makes with its image.
TEST(ImageTheory, MonopoleIsHalfADipole)
{
    const Complex monopole = solved(fedWire({{0, 0, 0}, {0, 0, 5}}, 0.0, perfectGround), solverHz).impedance;
    const Complex whole = solved(fedWire({{0, 0, -5}, {0, 0, 5}}, 5.0), solverHz).impedance;
    EXPECT_LT(relative(2.0 * monopole, whole), 1e-6);
}

// A horizontal dipole over perfect ground and its image built as a second, opposed dipole give the same current.
TEST(ImageTheory, HorizontalDipoleAndItsBuiltImage)
{
    const Complex ground = solved(dipole(10, 3, perfectGround), solverHz).impedance;
    WireModel pair = dipole(10, 3);
    pair.wires.push_back(wire("image", {{-5, 0, -3}, {5, 0, -3}}));
    pair.feeds.push_back({1, 5.0, -1.0});
    EXPECT_LT(relative(solved(pair, solverHz).impedance, ground), 1e-6);
}

// ---- symmetry

/// Current at feed 1 when feed 0 is driven.
Complex transfer(WireModel model, std::size_t driven, std::size_t observed, GroundTableCache& tables)
{
    for (std::size_t i = 0; i < model.feeds.size(); ++i)
        model.feeds[i].voltage = i == driven ? 1.0 : 0.0;
    return solved(model, solverHz, tables).feedCurrents[observed];
}

// Reciprocity of a horizontal against a sloping and a vertical wire over soil.
TEST(Reciprocity, BetweenWiresOfDifferentDirection)
{
    WireModel model = dipole(9, 2, averageSoil);
    model.wires.push_back(wire("vertical", {{1, 8, 0.5}, {1, 8, 6}}));
    model.wires.push_back(wire("sloping", {{-6, 4, 1}, {-2, 7, 5}}));
    model.feeds.push_back({1, 2.0, 0.0});
    model.feeds.push_back({2, 3.0, 0.0});
    GroundTableCache tables;
    for (auto [a, b] : {std::pair(0, 1), std::pair(0, 2), std::pair(1, 2)}) {
        const Complex forward = transfer(model, std::size_t(a), std::size_t(b), tables),
                      backward = transfer(model, std::size_t(b), std::size_t(a), tables);
        EXPECT_LT(relative(forward, backward), 1e-9);
        EXPECT_GT(std::abs(forward), 1e-6);
    }
}

TEST(Symmetry, TurningAboutTheVerticalChangesNothing)
{
    const auto turned = [&](double angle) {
        const double c = std::cos(angle), s = std::sin(angle);
        return solved(fedWire({{-5 * c, -5 * s, 2}, {0, 0, 4}, {5 * c, 5 * s, 3}}, 5.0, averageSoil), solverHz).impedance;
    };
    for (double angle : {0.3, 1.2, 2.7})
        EXPECT_LT(relative(turned(angle), turned(0.0)), 1e-6);
}

TEST(Symmetry, DirectionOfTheWireChangesNothing)
{
    const Complex forward = solved(fedWire({{0, 0, 1}, {3, 0, 4}, {9, 0, 5}}, 2.0, averageSoil), solverHz).impedance;
    const double length = std::hypot(3, 3) + std::hypot(6, 1);
    const Complex backward = solved(fedWire({{9, 0, 5}, {3, 0, 4}, {0, 0, 1}}, length - 2.0, averageSoil), solverHz).impedance;
    EXPECT_LT(relative(forward, backward), 1e-6);
}

TEST(Symmetry, ImpedanceDoesNotDependOnTheVoltage)
{
    WireModel model = dipole(10, 5, averageSoil);
    const Complex one = solved(model, solverHz).impedance;
    model.feeds[0].voltage = {0.0, -70.0};
    EXPECT_LT(relative(solved(model, solverHz).impedance, one), 1e-12);
}

// All lengths ten times smaller at ten times the frequency: a perfect wire in free space is the same antenna.
TEST(Symmetry, ScalesWithTheWavelength)
{
    const Complex large = solved(dipole(10, 0, freeSpace, 1e-2), solverHz).impedance,
                  small = solved(dipole(1, 0, freeSpace, 1e-3), 10 * solverHz).impedance;
    EXPECT_LT(relative(small, large), 1e-9);
}

// ---- smoothness

// A straight wire turned from lying to standing: horizontal, sloping and vertical parts of the soil's field all take part.
TEST(Smoothness, SlopingWireTurnedThroughNinetyDegrees)
{
    GroundTableCache tables;
    std::vector<Complex> z;
    for (int degree = 0; degree <= 90; degree += 3) {
        const double c = 5 * std::cos(radians(degree)), s = 5 * std::sin(radians(degree));
        z.push_back(solved(fedWire({{-c, 0, 6 - s}, {c, 0, 6 + s}}, 5.0, averageSoil), solverHz, tables).impedance);
    }
    for (std::size_t i = 2; i + 1 < z.size(); ++i) { // third differences of a smooth curve are small
        const Complex third = z[i + 1] - 3.0 * z[i] + 3.0 * z[i - 1] - z[i - 2];
        EXPECT_LT(std::abs(third), 0.03) << 3 * i;
    }
    EXPECT_GT(std::abs(z.front() - z.back()), 1.0);
}

TEST(Smoothness, HeightFromCentimetresToWavelengths)
{
    GroundTableCache tables;
    Complex before;
    for (double height = 0.02; height < 40.0; height *= 1.06) {
        const Complex here = solved(dipole(9.8, height, averageSoil), solverHz, tables).impedance;
        if (before != Complex{}) {
            EXPECT_LT(std::abs(here - before), 0.085 * std::abs(before)) << height;
        }
        before = here;
    }
}

TEST(Smoothness, FrequencyAndSoil)
{
    Complex before;
    for (double sigma = 1e-4; sigma < 1.0; sigma *= 1.1) {
        const Complex here = solved(dipole(9.8, 2.0, {GroundKind::Real, 13.0, sigma}), solverHz).impedance;
        if (before != Complex{}) {
            EXPECT_LT(std::abs(here - before), 0.03 * std::abs(before)) << sigma;
        }
        before = here;
    }
}

// A square loop standing upright: horizontal and vertical sides must fit each other's field forms.
TEST(Smoothness, UprightLoopLoweredToTheSoil)
{
    GroundTableCache tables;
    Complex before;
    for (double base = 4.0; base > 0.05; base *= 0.9) {
        const Complex here =
            solved(fedWire({{0, 0, base}, {5, 0, base}, {5, 0, base + 5}, {0, 0, base + 5}, {0, 0, base}}, 2.5, averageSoil), solverHz,
                   tables)
                .impedance;
        EXPECT_GT(here.real(), 10.0);
        if (before != Complex{}) {
            EXPECT_LT(std::abs(here - before), 0.1 * std::abs(before)) << base;
        }
        before = here;
    }
}

// ---- convergence

// With a feed of fixed width and the exact kernel even a thick tube settles, where a thin-wire kernel wanders.
TEST(Convergence, ThickTubesSettleToo)
{
    for (double radius : {1e-3, 5e-3, 2e-2}) {
        const double l = wavelength(solverHz);
        std::vector<Complex> z;
        for (double fineness : {1.0, 4.0, 16.0, 64.0}) {
            SolveOptions options;
            options.mesh.fineness = fineness;
            z.push_back(solved(dipole(0.47 * l, 0, freeSpace, radius * l), solverHz, options).impedance);
        }
        EXPECT_LT(relative(z[2], z[3]), 4e-3) << radius;
        EXPECT_LT(relative(z[1], z[2]), 8e-3) << radius;
        EXPECT_LT(relative(z[0], z[3]), 2.5e-2) << radius;
    }
}

// The thicker the tube, the shorter it resonates and the flatter its reactance (King 1956, ch. II).
TEST(Convergence, ThickTubesResonateShorterAndBroader)
{
    const double l = wavelength(solverHz);
    double before = 1.0, slopeBefore = 1e9;
    for (double radius : {1e-5, 1e-4, 1e-3, 5e-3}) {
        const auto x = [&](double length) { return solved(dipole(length * l, 0, freeSpace, radius * l), solverHz).impedance.imag(); };
        const double slope = (x(0.48) - x(0.46)) / 0.02, resonant = 0.47 - x(0.47) / slope;
        EXPECT_LT(resonant, before);
        EXPECT_LT(slope, slopeBefore);
        before = resonant, slopeBefore = slope;
    }
}

TEST(Convergence, MeshIsRefinedUntilTheWantedErrorIsMet)
{
    const WireModel model = dipole(0.9 * wavelength(solverHz), 4.0, averageSoil, 0.02);
    GroundTableCache tables;
    const Solution first = solved(model, solverHz, tables);
    const auto byMesh = [](const Solution& s) { return s.impedanceErrorPercent - s.gapErrorPercent; };
    ASSERT_GT(byMesh(first), 0.5);
    SolveOptions options;
    options.wantedErrorPercent = 0.5 * byMesh(first);
    const Solution refined = solved(model, solverHz, tables, options);
    EXPECT_LT(byMesh(refined), byMesh(first));
    EXPECT_GT(refined.mesh->unknowns, first.mesh->unknowns);
}

TEST(Convergence, ImpedanceSettlesAsTheMeshIsRefined)
{
    const WireModel model = fedWire({{-7, 0, 3}, {0, 0, 8}, {7, 0, 3}}, std::hypot(7, 5), averageSoil);
    GroundTableCache tables;
    SolveOptions fine;
    fine.mesh.degree = 5;
    fine.mesh.elementsPerWavelength = 12.0;
    const Complex settled = solved(model, solverHz, tables, fine).impedance;
    double coarse = 0.0;
    for (int degree : {2, 3, 4}) {
        SolveOptions options;
        options.mesh.degree = degree;
        const double off = relative(solved(model, solverHz, tables, options).impedance, settled);
        if (degree == 2)
            coarse = off;
        else
            EXPECT_LT(off, coarse);
        EXPECT_LT(off, degree == 2 ? 0.02 : 0.01);
    }
}

TEST(Convergence, ManyElementsDoNotMakeItWander)
{
    std::vector<Complex> z;
    for (double density : {10.0, 30.0, 80.0, 200.0}) {
        SolveOptions options;
        options.mesh.elementsPerWavelength = density;
        z.push_back(solved(dipole(10.2, 0), solverHz, options).impedance);
    }
    for (std::size_t i = 1; i < z.size(); ++i)
        EXPECT_LT(relative(z[i], z[0]), 0.003);
}

TEST(Convergence, ErrorEstimateCoversTheTrueError)
{
    const WireModel models[] = {dipole(10.2, 5, averageSoil), dipole(15.0, 2, averageSoil),
                                fedWire({{0, 0, 2}, {0, 0, 7}, {5, 0, 7}}, 2.0, averageSoil)};
    SolveOptions fine;
    fine.mesh.degree = 5;
    fine.mesh.elementsPerWavelength = 15.0;
    for (const WireModel& model : models) {
        GroundTableCache tables;
        const Solution s = solved(model, solverHz, tables);
        EXPECT_LT(100.0 * relative(s.impedance, solved(model, solverHz, tables, fine).impedance), s.impedanceErrorPercent + 0.05);
        EXPECT_LT(s.impedanceErrorPercent, 2.0);
    }
}

} // namespace
} // namespace vetchling::em
