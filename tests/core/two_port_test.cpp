#include "core/line/transformer.h"

#include <gtest/gtest.h>

namespace vetchling {
namespace {

const Complex load{42.0, -180.0};

double relativeTo(Complex a, Complex b) { return std::abs(a - b) / std::abs(b); }

TEST(TwoPort, QuarterWaveTurnsTheLoadOver)
{
    const TwoPort line = TwoPort::line(75.0, {0.0, 0.5 * pi});
    EXPECT_LT(relativeTo(line.towardsRadio(load), 75.0 * 75.0 / load), 1e-12);
    EXPECT_NEAR(line.efficiency(load), 1.0, 1e-12);
}

TEST(TwoPort, HalfWaveShowsTheLoadItself) { EXPECT_LT(relativeTo(TwoPort::line(75.0, {0.0, pi}).towardsRadio(load), load), 1e-12); }

TEST(TwoPort, MatchedLineLosesItsLossAndIsStillMatched)
{
    const TwoPort line = TwoPort::line(50.0, {1.0 / 8.685889638065036, 1.3}); // one decibel
    EXPECT_LT(relativeTo(line.towardsRadio(50.0), 50.0), 1e-12);
    EXPECT_NEAR(-10.0 * std::log10(line.efficiency(50.0)), 1.0, 1e-12);
    EXPECT_LT(line.efficiency(load), line.efficiency(50.0)); // standing waves cost
}

TEST(TwoPort, JoinedPartsActOneAfterTheOther)
{
    const TwoPort near = TwoPort::series({3.0, 20.0}), far = TwoPort::shunt({0.002, 0.001});
    const TwoPort both = near.then(far);
    EXPECT_LT(relativeTo(both.towardsRadio(load), near.towardsRadio(far.towardsRadio(load))), 1e-12);
    EXPECT_NEAR(both.efficiency(load), near.efficiency(far.towardsRadio(load)) * far.efficiency(load), 1e-12);
    EXPECT_LT(relativeTo(both.slope(load), near.slope(far.towardsRadio(load)) * far.slope(load)), 1e-12);
}

TEST(TwoPort, PassivePartsAreReciprocal)
{
    const Transformer t{49.0, 2e-7, 3e-6, 400.0};
    for (const TwoPort& p : {TwoPort::line({48.0, -1.0}, {0.1, 2.0}), TwoPort::series({1, 2}), TwoPort::idealTransformer(9.0), t.at(7e6)})
        EXPECT_LT(std::abs(p.a * p.d - p.b * p.c - 1.0), 1e-12);
}

// The leakage and a capacitor of C = L / R^2 are half a low-pass section: with x = wL/R the line sees R (1 + x^2) / (1 + j x^3), so that
// what was off by x is off by x^2.
TEST(Transformers, ACapacitorTakesOutTheLeakage)
{
    constexpr double r = 50.0, leakage = 0.2e-6;
    Transformer plain, compensated;
    plain.ratio = compensated.ratio = 49.0;
    plain.leakageInductance = compensated.leakageInductance = leakage;
    compensated.capacitance = leakage / (r * r);
    for (double f : {7.1e6, 14.2e6}) {
        const double x = 2.0 * pi * f * leakage / r;
        const Complex expected = r * (1.0 + x * x) / Complex(1.0, x * x * x);
        EXPECT_LT(relativeTo(compensated.atLine(49.0 * r, f), expected), 1e-9) << f;
        EXPECT_LT(swr(compensated.atLine(49.0 * r, f)) - 1.0, 0.6 * (swr(plain.atLine(49.0 * r, f)) - 1.0)) << f;
    }
    const Complex open = compensated.atLine(1e12, 7.1e6); // the capacitor alone
    EXPECT_NEAR(open.imag(), -1.0 / (2.0 * pi * 7.1e6 * compensated.capacitance), 1.0);
}

} // namespace
} // namespace vetchling
