/// Soil over frequency: the pair it was fitted to, causality, and that every part of the engine takes the same figures.
#include "core/em/far_field.h"
#include "core/em/solver.h"
#include "core/files/design_file.h"
#include "core/files/wire_file.h"
#include "core/study/study.h"
#include "core/wire/soil_model.h"
#include "tests/core/demo.h"
#include "tests/core/shape_helpers.h"

#include <gtest/gtest.h>

#include <cmath>

namespace vetchling {
namespace {

const double pairs[][3] = {{13.0, 0.005, 7.1e6}, {20.0, 0.03, 14e6}, {4.0, 0.0002, 3.6e6}, {30.0, 0.02, 10e6}, {10.0, 0.002, 1.8e6}};

TEST(SoilModel, HoldsThePairWhereItWasMeasured)
{
    for (const auto& [permittivity, conductivity, at] : pairs) {
        const SoilFiguresAt here = soilFiguresAt(permittivity, conductivity, at, at);
        EXPECT_NEAR(here.relativePermittivity, permittivity, 1e-12 * permittivity);
        EXPECT_NEAR(here.conductivity, conductivity, 1e-12);
    }
}

// e8 (1 + sqrt(s0 / (e8 s)))^2 with s = jw is analytic in the right half plane, and so causal; the two figures must be its parts.
TEST(SoilModel, IsTheCausalForm)
{
    for (const auto& [permittivity, conductivity, at] : pairs) {
        const double high = permittivityAtTheTop(permittivity, conductivity, at) * vacuumPermittivity;
        const double w = 2.0 * pi * at, x = permittivity * vacuumPermittivity / high - 1.0, still = 0.5 * x * x * w * high;
        for (double f : {2e5, 1.9e6, 7.1e6, 28.5e6, 9e7}) {
            const Complex s(0.0, 2.0 * pi * f), e = high * std::pow(1.0 + std::sqrt(still / (high * s)), 2);
            const SoilFiguresAt here = soilFiguresAt(permittivity, conductivity, at, f);
            EXPECT_NEAR(here.relativePermittivity * vacuumPermittivity, e.real(), 1e-9 * std::abs(e)) << f;
            EXPECT_NEAR(here.conductivity, -e.imag() * 2.0 * pi * f, 1e-9 * std::abs(e) * 2.0 * pi * f) << f;
        }
    }
}

// Kramers and Kronig, by numbers: the permittivity at one frequency from the loss at all others, the static conduction taken off.
TEST(SoilModel, ObeysKramersAndKronig)
{
    const double permittivity = 13.0, conductivity = 0.005, at = 7.1e6, f0 = 5e6, w0 = 2.0 * pi * f0;
    const double high = permittivityAtTheTop(permittivity, conductivity, at);
    const double x0 = permittivity / high - 1.0, still = 0.5 * x0 * x0 * 2.0 * pi * at * high * vacuumPermittivity;
    double sum = 0.0;
    constexpr int steps = 400000;
    const double low = std::log(1e-10 * w0), top = std::log(1e10 * w0), step = (top - low) / steps;
    for (int i = 0; i < steps; ++i) { // midpoints in log frequency lie evenly about the pole
        const double w = std::exp(low + (i + 0.5) * step),
                     loss = (soilFiguresAt(permittivity, conductivity, at, w / (2.0 * pi)).conductivity - still) / (w * vacuumPermittivity);
        sum += step * w * w * loss / (w * w - w0 * w0);
    }
    EXPECT_NEAR(high + 2.0 / pi * sum, soilFiguresAt(permittivity, conductivity, at, f0).relativePermittivity, 0.02);
}

TEST(SoilModel, FallsAndRisesAsSoilsDo)
{
    for (const auto& [permittivity, conductivity, at] : pairs) {
        SoilFiguresAt before = soilFiguresAt(permittivity, conductivity, at, 1e5);
        for (double f = 1.3e5; f < 1e8; f *= 1.3) {
            const SoilFiguresAt here = soilFiguresAt(permittivity, conductivity, at, f);
            EXPECT_LT(here.relativePermittivity, before.relativePermittivity);
            EXPECT_GT(here.conductivity, before.conductivity);
            before = here;
        }
        EXPECT_GT(before.relativePermittivity, permittivityAtTheTop(permittivity, conductivity, at));
    }
    const SoilFiguresAt dry = soilFiguresAt(5.0, 0.0, 7e6, 1e6);
    EXPECT_DOUBLE_EQ(dry.relativePermittivity, 5.0) << "without water nothing changes";
    EXPECT_DOUBLE_EQ(dry.conductivity, 0.0);
}

TEST(SoilModel, RefusesWhatIsNoSoil)
{
    EXPECT_TRUE(findPairFaults({GroundKind::Real, 13.0, 0.005, 0.0}).empty()) << "not asked for";
    EXPECT_TRUE(findPairFaults({GroundKind::Real, 13.0, 0.005, 7.1e6}).empty());
    for (const Ground& wrong : {Ground{GroundKind::Real, 70.0, 5.0, 7.1e6}, Ground{GroundKind::Real, 13.0, 0.005, 50.0},
                                Ground{GroundKind::Real, 13.0, 0.005, -7e6}, Ground{GroundKind::Real, 13.0, 0.2, 1.9e6}})
        EXPECT_EQ(findPairFaults(wrong).size(), 1u) << wrong.conductivity << " " << wrong.pairFrequency;
}

// Every part of the engine, tables, reflection, losses, takes the figures of its frequency: the same as if they had been typed.
TEST(SoilModel, IsTheSameAsTypingTheFiguresOfTheFrequency)
{
    shapes::AntennaShape shape = shapes::findFamily("vertical")->standardShape(7.1e6);
    const Ground followed{GroundKind::Real, 13.0, 0.005, 28.0e6};
    const Ground typed = followed.at(7.1e6);
    EXPECT_GT(typed.relativePermittivity, 15.0);
    study::Library library;
    study::Subject a, b;
    a.shape = b.shape = shape;
    a.ground = followed;
    b.ground = typed;
    const auto one = library.study(a), other = library.study(b);
    ASSERT_TRUE(one && other);
    const auto spot = one->study->spot(7.1e6), plain = other->study->spot(7.1e6);
    ASSERT_TRUE(spot && plain);
    EXPECT_LT(std::abs((*spot)->solution.impedance - (*plain)->solution.impedance), 1e-9 * std::abs((*plain)->solution.impedance));
    EXPECT_NEAR((*spot)->strongest, (*plain)->strongest, 1e-9);
    EXPECT_NEAR((*spot)->field->gain(0.3, 1.0), (*plain)->field->gain(0.3, 1.0), 1e-9);
    const auto ledger = one->study->ledger(7.1e6), same = other->study->ledger(7.1e6);
    ASSERT_TRUE(ledger && same);
    EXPECT_NEAR((*ledger)->soil, (*same)->soil, 1e-6);
    a.ground.pairFrequency = 0.0;
    const auto constant = library.study(a)->study->spot(7.1e6);
    EXPECT_GT(std::abs((*constant)->solution.impedance - (*spot)->solution.impedance), 0.2) << "and not what the pair itself would give";
}

TEST(SoilModel, IsKeptInFiles)
{
    Design design;
    design.site.soil.pairFrequency = 7.1e6;
    const auto back = files::parseDesign(files::writeDesign(design));
    ASSERT_TRUE(back.ok()) << back.firstFault();
    EXPECT_EQ(back->site.soil.pairFrequency, 7.1e6);
    design.site.soil.conductivity = 4.0;
    EXPECT_NE(testing::firstFaultOf(files::parseDesign(files::writeDesign(design))).find("water"), std::string::npos);
    const std::string wires = R"({"format":"vetchling-wires","version":1,
        "ground":{"kind":"real","relative_permittivity":13,"conductivity_S_per_m":0.005,"pair_frequency_Hz":3.6e6},
        "wires":[{"id":"a","points_m":[[0,-5,9],[0,5,9]],"radius_m":0.001}],"feeds":[{"wire":"a","at_m":5}],"frequencies_Hz":[14.1e6]})";
    const auto file = files::parseWireFile(wires);
    ASSERT_TRUE(file.ok()) << file.firstFault();
    EXPECT_EQ(file->model.ground.pairFrequency, 3.6e6);
}

} // namespace
} // namespace vetchling
