#include "core/em/sommerfeld.h"

#include "core/em/gauss.h"

#include <cmath>
#include <gtest/gtest.h>

namespace vetchling::em {
namespace {

double largest(const HalfSpaceIntegrals& i) { return std::max({std::abs(i.s), std::abs(i.d), std::abs(i.x), std::abs(i.z)}); }

double difference(const HalfSpaceIntegrals& a, const HalfSpaceIntegrals& b)
{
    return std::max({std::abs(a.s - b.s), std::abs(a.d - b.d), std::abs(a.x - b.x), std::abs(a.z - b.z)}) / std::max(largest(b), 1e-30);
}

/// Brute force on the real axis where the soil is lossy and the height large enough for plain decay: x = sin a below 1
/// and x = cosh b above take out the root at 1. No contour, no Hankel functions.
HalfSpaceIntegrals bruteForce(Complex eps, double r, double h)
{
    const Complex kq = imageStrength(eps);
    HalfSpaceIntegrals sum{};
    const auto add = [&](double x, Complex nu0, Complex dx) {
        const Complex nu1 = std::sqrt(Complex{x * x, 0.0} - eps);
        const Complex rv = (eps * nu0 - nu1) / (eps * nu0 + nu1) - kq, rh = (nu0 - nu1) / (nu0 + nu1) + kq;
        const Complex e = std::exp(-nu0 * h) * dx;
        const double j0 = std::cyl_bessel_j(0.0, x * r), j1 = std::cyl_bessel_j(1.0, x * r), j2 = std::cyl_bessel_j(2.0, x * r);
        sum += {(nu0 * rv + rh / nu0) * j0 * e * x, (nu0 * rv - rh / nu0) * j2 * e * x, 2.0 * x * rv * j1 * e * x,
                2.0 * x * x * rv / nu0 * j0 * e * x};
    };
    const auto integrate = [&](double from, double to, int panels, auto f) {
        const GaussRule& rule = gaussRule(20);
        for (int p = 0; p < panels; ++p)
            for (std::size_t i = 0; i < rule.node.size(); ++i) {
                const double half = 0.5 * (to - from) / panels, t = from + half * (2 * p + 1 + rule.node[i]);
                f(t, half * rule.weight[i]);
            }
    };
    integrate(0.0, 0.5 * pi, 60, [&](double a, double w) { add(std::sin(a), Complex{0.0, std::cos(a)}, w * std::cos(a)); });
    integrate(0.0, std::acosh(1.0 + 40.0 / h), 400, [&](double b, double w) { add(std::cosh(b), std::sinh(b), w * std::sinh(b)); });
    return sum;
}

struct Point {
    Complex eps;
    double r, h;
};

class Remainder : public ::testing::TestWithParam<Point> {};

TEST_P(Remainder, ContourAgreesWithBruteForce)
{
    const auto& [eps, r, h] = GetParam();
    EXPECT_LT(difference(remainderIntegrals(eps, r, h), bruteForce(eps, r, h)), 2e-7);
}

INSTANTIATE_TEST_SUITE_P(Soils, Remainder,
                         ::testing::Values(Point{{13, -12.7}, 0.3, 0.2}, Point{{13, -12.7}, 2.0, 0.5}, Point{{13, -12.7}, 0.01, 0.4},
                                           Point{{13, -12.7}, 0.0, 0.3}, Point{{5, -2.5}, 1.0, 2.0}, Point{{5, -2.5}, 3.0, 0.7},
                                           Point{{30, -51}, 0.5, 0.5}, Point{{81, -1000}, 1.0, 0.6}, Point{{3, -0.9}, 6.0, 1.5}));

// Beyond 12 the path hangs on the branch cuts: lossy and low-loss soil, sea water, and good conductors, whose pole is near.
INSTANTIATE_TEST_SUITE_P(Far, Remainder,
                         ::testing::Values(Point{{13, -6.4}, 15.0, 2.0}, Point{{13, -6.4}, 60.0, 3.0}, Point{{13, -0.01}, 20.0, 2.0},
                                           Point{{1.5, -0.05}, 30.0, 4.0}, Point{{81, -400}, 25.0, 3.0}, Point{{49, -1}, 40.0, 2.5},
                                           Point{{51, -60}, 40.0, 2.5}));

TEST(SommerfeldIntegrals, NoJumpWhereThePathIsHungOnTheCuts)
{
    for (const Complex eps : {Complex{13, -12.7}, Complex{3, -0.01}, Complex{81, -6000}, Complex{80, -1e6}, Complex{1.1, -0.01}})
        for (double h : {0.0, 1e-3, 0.5, 6.0}) {
            const double below = 12.0 - 1e-9, above = 12.0 + 1e-9;
            EXPECT_LT(difference(remainderIntegrals(eps, below, h), remainderIntegrals(eps, above, h)), 1e-6) << eps << h;
            EXPECT_LT(difference(evanescentIntegrals(eps, below, h), evanescentIntegrals(eps, above, h)), 2e-6) << eps << h;
        }
}

// The tail changes its method at h = 2r and the contour its end; neither may be seen.
TEST(SommerfeldIntegrals, NoJumpWhereTheMethodChanges)
{
    const Complex eps{13, -12.7};
    for (double r : {1e-3, 0.1, 1.0, 8.0}) {
        const auto below = remainderIntegrals(eps, r, (2.0 - 1e-9) * r), above = remainderIntegrals(eps, r, (2.0 + 1e-9) * r);
        EXPECT_LT(difference(below, above), 1e-6) << r;
    }
}

// One millimetre to many wavelengths: the stored function k0 R exp(jk0R) F stays bounded.
TEST(SommerfeldIntegrals, BoundedFromMillimetresToManyWavelengths)
{
    for (const Complex eps : {Complex{13, -12.7}, Complex{80, -0.5}, Complex{4, -0.02}, Complex{70, -25000}})
        for (double q = 1e-5; q < 200.0; q *= 3.0)
            for (double elevation : {0.0, 0.02, 0.4, 1.2, 1.5707}) {
                const auto i = remainderIntegrals(eps, q * std::cos(elevation), q * std::sin(elevation));
                EXPECT_LT(q * largest(i), 8.0 * std::max(1.0, q * 0.2)) << eps << q << " " << elevation;
                EXPECT_TRUE(std::isfinite(largest(i)));
            }
}

// Close to the mirror point everything is static: k0 R F depends on the direction only.
TEST(SommerfeldIntegrals, StaticLimitScalesWithDistance)
{
    const Complex eps{10, -5};
    for (double elevation : {0.1, 0.8, 1.4}) {
        const double near = 1e-6, far = 1e-5;
        const auto a = remainderIntegrals(eps, near * std::cos(elevation), near * std::sin(elevation));
        const auto b = remainderIntegrals(eps, far * std::cos(elevation), far * std::sin(elevation));
        EXPECT_LT(difference(Complex{near} * a, Complex{far} * b), 2e-3);
    }
}

// On the vertical axis J1 and J2 vanish.
TEST(SommerfeldIntegrals, VanishOnTheAxisWhereSymmetryDemands)
{
    const auto i = remainderIntegrals({13, -12.7}, 0.0, 0.7);
    EXPECT_LT(std::abs(i.d), 1e-12);
    EXPECT_LT(std::abs(i.x), 1e-12);
}

// Propagating plus evanescent part is the whole; the propagating part by brute force over real directions.
TEST(SommerfeldIntegrals, EvanescentPartCompletesThePropagatingOne)
{
    const Complex eps{13, -12.7};
    const double r = 1.3, h = 0.4;
    HalfSpaceIntegrals propagating{};
    const GaussRule& rule = gaussRule(40);
    const Complex kq = imageStrength(eps);
    for (std::size_t i = 0; i < rule.node.size(); ++i) {
        const double a = 0.25 * pi * (1.0 + rule.node[i]), x = std::sin(a);
        const Complex nu0{0.0, std::cos(a)}, nu1 = std::sqrt(x * x - eps),
                                             w = 0.25 * pi * rule.weight[i] * std::cos(a) * x * std::exp(-nu0 * h);
        const Complex rv = (eps * nu0 - nu1) / (eps * nu0 + nu1) - kq, rh = (nu0 - nu1) / (nu0 + nu1) + kq;
        const double j0 = std::cyl_bessel_j(0.0, x * r), j1 = std::cyl_bessel_j(1.0, x * r), j2 = std::cyl_bessel_j(2.0, x * r);
        propagating +=
            {(nu0 * rv + rh / nu0) * j0 * w, (nu0 * rv - rh / nu0) * j2 * w, 2.0 * x * rv * j1 * w, 2.0 * x * x * rv / nu0 * j0 * w};
    }
    auto whole = evanescentIntegrals(eps, r, h);
    whole += propagating;
    EXPECT_LT(difference(whole, remainderIntegrals(eps, r, h)), 1e-7);
}

TEST(SommerfeldIntegrals, ImageStrengthHasItsLimits)
{
    EXPECT_NEAR(std::abs(imageStrength({1.0001, 0.0})), 0.0, 1e-4);
    EXPECT_NEAR(std::abs(imageStrength({1.0, -1e7}) - 1.0), 0.0, 1e-6);
}

} // namespace
} // namespace vetchling::em
