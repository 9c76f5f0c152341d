/// Coils: against helix integrals and ring stacks of an independent program, against Maxwell's own limits, and back from inductance to
/// turns.
#include "core/physics.h"
#include "core/workshop/coil.h"

#include "tests/long_form.h"

#include <gtest/gtest.h>

#include <cmath>

namespace vetchling {
namespace {

/// Low frequency: Neumann integral over the helix with its internal inductance; at the frequency with the current free to crowd; the factor
/// of proximity from a ring stack with the boundary half a skin depth inside. Uncertainty 0.07 and 0.25 %.
struct CoilFigure {
    double diameter, wire, pitch, turns, megahertz;  // mm
    double low, high, proximity, resistance, length; // uH, ohm, mm
};
const CoilFigure figures[] = {{15, 0.5, 0.6, 20, 14.2, 4.5992905, 4.4058224, 3.01076, 1.8400508, 12},
                              {20, 0.5, 0.55, 40, 3.65, 19.968932, 19.353326, 3.9210645, 3.354574, 22},
                              {25, 0.8, 1, 30, 7.1, 13.157238, 12.673967, 2.8117731, 1.8907927, 30},
                              {40, 1.6, 2.4, 18, 7.1, 8.1574528, 7.8136152, 2.0355551, 0.6468848, 43.2},
                              {50, 2, 4, 10, 10.12, 3.8988953, 3.7420098, 1.4883545, 0.31215174, 40},
                              {60, 2.5, 5, 16, 7.1, 8.4254929, 8.0892778, 1.573279, 0.42432996, 80},
                              {90, 4, 6, 5, 14.2, 2.7547975, 2.597878, 1.6145725, 0.17940066, 30},
                              {120, 4, 16, 3, 14.2, 1.4050183, 1.3399769, 1.0727354, 0.095420592, 48}};

Coil coilOf(const CoilFigure& f) { return {1e-3 * f.diameter, 1e-3 * f.wire, 1e-3 * f.pitch, f.turns}; }

TEST(Coil, InductanceIsRightAtBothEnds)
{
    for (const CoilFigure& f : figures) {
        const auto wound = coilFigures(coilOf(f), 1e6 * f.megahertz);
        ASSERT_TRUE(wound.ok()) << wound.firstFault();
        EXPECT_NEAR(1e6 * wound->inductance / f.low, 1.0, 0.0025) << f.diameter;
        EXPECT_NEAR(1e6 * wound->atFrequency / f.high, 1.0, 0.004) << f.diameter;
        EXPECT_NEAR(1e3 * wound->length, f.length, 1e-9);
    }
}

TEST(Coil, TheCurrentCrowdsAsItShould)
{
    for (const CoilFigure& f : figures) {
        const auto wound = coilFigures(coilOf(f), 1e6 * f.megahertz);
        EXPECT_NEAR(wound->proximity / f.proximity, 1.0, 0.01) << f.diameter;
        EXPECT_NEAR(wound->resistance / f.resistance, 1.0, 0.01) << f.diameter;
        EXPECT_NEAR(wound->q, 2.0 * pi * 1e6 * f.megahertz * wound->atFrequency / wound->resistance, 1e-6);
    }
}

// One turn is a ring: L = mu0 R (ln(8 R / a) - 2) with the current on the surface, and turns far apart do not see one another.
TEST(Coil, OneTurnIsARing)
{
    const double r = 0.05, a = 0.5e-3;
    const double ring = vacuumPermeability * r * (std::log(8.0 * r / a) - 2.0);
    const auto one = coilFigures({2.0 * r, 2.0 * a, 0.01, 1.0}, 1e9);
    EXPECT_NEAR(one->atFrequency / ring, 1.0, 0.02); // a sheet of one pitch corrected to one wire
    const auto apart = coilFigures({2.0 * r, 2.0 * a, 0.4, 2.0}, 1e9);
    EXPECT_NEAR(apart->proximity, 1.0, 0.02);
}

// A long thin coil has mu0 N^2 A / l less the share of its ends, 8 r / 3 pi l - r^2 / 2 l^2, and less what round wire leaves of each turn's
// own flux: (A + B) p / pi r with A + B = 5/4 - ln(2 p / d) + 0.336 for very many turns (Rosa).
TEST(Coil, ALongOneIsASolenoid)
{
    const double r = 0.02, p = 1e-3, d = 0.6e-3, l = 0.8;
    const auto figures = coilFigures({2.0 * r, d, p, 800.0});
    const double plain = vacuumPermeability * 800.0 * 800.0 * pi * r * r / l;
    const double ends = 8.0 * r / (3.0 * pi * l) - 0.5 * r * r / (l * l), wire = (1.25 - std::log(2.0 * p / d) + 0.336) * p / (pi * r);
    EXPECT_NEAR(figures->inductance / plain, 1.0 - ends - wire, 3e-4);
}

TEST(Coil, TurnsComeBackFromInductance)
{
    std::size_t number = 0;
    for (const CoilFigure& f : figures)
        for (const double frequency : {0.0, 1e6 * f.megahertz}) {
            if (!testing::tried(number++, 5))
                continue;
            Coil coil = coilOf(f);
            coil.turns += 0.37;
            const auto wound = coilFigures(coil, frequency);
            const auto back = coilFor(coil, frequency > 0.0 ? wound->atFrequency : wound->inductance, frequency);
            ASSERT_TRUE(back.ok()) << back.firstFault();
            EXPECT_NEAR(back->turns, coil.turns, 1e-5 * coil.turns);
        }
}

TEST(Coil, MoreTurnsHaveMoreOfEverythingWithoutAJump)
{
    double before = 0.0, step = 0.0;
    for (double turns = 33.0; turns < 41.0; turns += 0.5) { // where the stack of rings is cut short
        const auto f = coilFigures({0.03, 1e-3, 1.6e-3, turns}, 7e6);
        if (before > 0.0) {
            const double now = f->atFrequency - before;
            EXPECT_GT(now, 0.0);
            if (step > 0.0) {
                EXPECT_NEAR(now / step, 1.0, 0.03) << turns;
            }
            step = now;
        }
        before = f->atFrequency;
    }
}

TEST(Coil, WhatCannotBeWoundIsRefused)
{
    const Coil bad[] = {{0.05, 2e-3, 1.9e-3, 10},       {0.05, 0.06, 0.07, 10},  {0.05, 2e-3, 4e-3, 0.1}, {0.05, 0.0, 4e-3, 10},
                        {std::nan(""), 2e-3, 4e-3, 10}, {0.05, 2e-3, 4e-3, 1e6}, {0.05, 2e-3, 40.0, 10}};
    for (const Coil& c : bad)
        EXPECT_FALSE(coilFigures(c).ok());
    EXPECT_FALSE(coilFor({0.05, 2e-3, 4e-3, 0}, 0.0).ok());
    EXPECT_FALSE(coilFor({0.05, 2e-3, 4e-3, 0}, 1e-12).ok());
    EXPECT_FALSE(coilFor({0.005, 1e-3, 2e-3, 0}, 1.0).ok());
}

} // namespace
} // namespace vetchling
