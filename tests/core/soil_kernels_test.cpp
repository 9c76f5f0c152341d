#include "core/em/soil_kernels.h"

#include "core/em/gauss.h"
#include "core/em/soil_table.h"

#include <cmath>
#include <gtest/gtest.h>
#include <random>

namespace vetchling::em {
namespace {

double largest(const SoilKernels& k)
{
    return std::max({std::abs(k.scalar), std::abs(k.horizontal), std::abs(k.vertical), std::abs(k.mixed)});
}

double difference(const SoilKernels& a, const SoilKernels& b)
{
    return largest({a.scalar - b.scalar, a.horizontal - b.horizontal, a.vertical - b.vertical, a.mixed - b.mixed}) / largest(b);
}

/// The kernels as the header writes them, less their images, along the real axis where the height lets them decay.
SoilKernelsAt bruteForce(Complex eps, double r, double h, double depth)
{
    SoilKernelsAt sum;
    sum.across.resize(1);
    const Complex kq = (eps - 1.0) / (eps + 1.0);
    const auto add = [&](double x, Complex n0, Complex dx) {
        const Complex n1 = std::sqrt(Complex(x * x) - eps), de = n1 + eps * n0, dh = n0 + n1, mixed = 2.0 * (1.0 - eps) * x / (de * dh);
        const double j0 = std::cyl_bessel_j(0.0, x * r), j1 = std::cyl_bessel_j(1.0, x * r);
        const auto weighted = [&](Complex exponent, Complex scalar, Complex horizontal, Complex vertical) {
            const Complex e = std::exp(-exponent) * dx * x;
            return SoilKernels{scalar * j0 * e, horizontal * j0 * e, vertical * j0 * e, mixed * j1 * e};
        };
        sum.air += weighted(n0 * h, 2.0 / de - (1.0 - kq) / n0, 2.0 / dh - 1.0 / n0,
                            (-(n0 - n1) / dh + 2.0 * (eps - 1.0) * (n0 * n0 + x * x) / (de * dh) - 2.0 * kq) / n0);
        sum.soil += weighted(n1 * h, 2.0 / de - (1.0 + kq) / (eps * n1), 2.0 / dh - 1.0 / n1,
                             ((n0 - n1) / dh + 2.0 * (1.0 - eps) * (n1 * n1 + x * x) / (de * dh) + 2.0 * kq) / n1);
        sum.across[0] += weighted(n0 * (h - depth) + n1 * depth, 2.0 / de, 2.0 / dh, 2.0 / dh);
    };
    const auto integrate = [&](double from, double to, int panels, auto f) {
        const GaussRule& rule = gaussRule(20);
        for (int p = 0; p < panels; ++p)
            for (std::size_t i = 0; i < rule.node.size(); ++i) {
                const double half = 0.5 * (to - from) / panels;
                f(from + half * (2 * p + 1 + rule.node[i]), half * rule.weight[i]);
            }
    };
    integrate(0.0, 0.5 * pi, 60, [&](double a, double w) { add(std::sin(a), Complex{0.0, std::cos(a)}, w * std::cos(a)); });
    integrate(0.0, std::acosh(1.0 + 40.0 / h + std::abs(std::sqrt(eps))), 500,
              [&](double b, double w) { add(std::cosh(b), std::sinh(b), w * std::sinh(b)); });
    return sum;
}

struct Place {
    Complex eps;
    double r, h;
};

class Kernels : public ::testing::TestWithParam<Place> {};

TEST_P(Kernels, PathAgreesWithBruteForce)
{
    const auto& [eps, r, h] = GetParam();
    const double depth = 0.4 * h;
    const SoilKernelsAt path = soilKernels(eps, r, h, {true, true, {depth}}), brute = bruteForce(eps, r, h, depth);
    EXPECT_LT(difference(path.air, brute.air), 2e-5);
    EXPECT_LT(difference(path.across[0], brute.across[0]), 2e-5);
    EXPECT_LT(difference(path.soil, brute.soil), 1e-4);
}

INSTANTIATE_TEST_SUITE_P(Soils, Kernels,
                         ::testing::Values(Place{{13, -12.7}, 0.02, 0.05}, Place{{13, -12.7}, 0.3, 0.5}, Place{{13, -12.7}, 2.0, 0.5},
                                           Place{{13, -12.7}, 6.0, 0.3}, Place{{5, -2.5}, 0.3, 0.05}, Place{{5, -2.5}, 6.0, 3.0},
                                           Place{{30, -400}, 0.02, 0.05}, Place{{30, -400}, 2.0, 0.5}, Place{{4, -0.05}, 2.0, 3.0},
                                           Place{{4, -0.05}, 0.02, 0.5}));

// V_i is continuous across the surface, seen from either side: no charge stays at a node there. With the direct wave and its image in the
// air, and the same in the soil, all four combinations have one scalar potential at the surface.
TEST(KernelContinuity, OfTheScalarPotentialAtTheSurface)
{
    const Complex eps{15, -20}, kq = (eps - 1.0) / (eps + 1.0), n = std::sqrt(eps);
    for (double r : {0.01, 0.3, 2.0})
        for (double h : {0.02, 0.7}) {
            const double distance = std::hypot(r, h);
            const Complex air = std::polar(1.0 / distance, -distance), soil = std::exp(-imaginaryUnit * n * distance) / distance;
            const SoilKernelsAt at = soilKernels(eps, r, h, {true, true, {0.0, h}});
            const Complex fromAir = at.air.scalar + (1.0 - kq) * air, fromSoil = at.soil.scalar + (1.0 + kq) / eps * soil;
            EXPECT_LT(std::abs(at.across[0].scalar - fromAir), 3e-5 * std::abs(fromAir)) << r << ' ' << h;
            EXPECT_LT(std::abs(at.across[1].scalar - fromSoil), 3e-5 * std::abs(fromSoil)) << r << ' ' << h;
        }
}

// Soil like air: nothing is reflected, and across lies free space.
TEST(KernelLimits, NoSoil)
{
    const SoilKernelsAt at = soilKernels(1.0, 0.4, 0.3, {true, true, {0.1}});
    const Complex wave = std::polar(1.0 / 0.5, -0.5);
    EXPECT_LT(largest(at.air) + largest(at.soil), 1e-9);
    EXPECT_LT(std::abs(at.across[0].scalar - wave) + std::abs(at.across[0].vertical - wave) + std::abs(at.across[0].mixed), 1e-5);
}

// What propagates and what dies out are the whole, taken along different ways.
TEST(KernelParts, EvanescentAndPropagatingWavesAddUp)
{
    const Complex eps{13, -12.7};
    for (double r : {0.1, 1.0, 4.0}) {
        const double h = 0.3, distance = std::hypot(r, h);
        const SoilKernels whole = soilKernels(eps, r, h, {true, false, {}}).air, loss = soilLossKernels(eps, r, h);
        const Complex kq = (eps - 1.0) / (eps + 1.0), wave = std::polar(1.0 / distance, -distance);
        // the propagating part of 2/De - 1/n0, whose 1/n0 is -j int J0 exp(-jch) dc
        Complex air = 0.0;
        const GaussRule& rule = gaussRule(40);
        for (std::size_t i = 0; i < rule.node.size(); ++i) {
            const double c = 0.5 * (1.0 + rule.node[i]);
            air += 0.5 * rule.weight[i] * -imaginaryUnit * std::cyl_bessel_j(0.0, r * std::sqrt(1.0 - c * c)) * std::polar(1.0, -c * h);
        }
        const double all = (whole.scalar - kq * wave).imag(), propagating = (propagatingScalar(eps, r, h) - air).imag();
        const double evanescent = loss.scalar.real() - kq.imag() * wave.real();
        EXPECT_NEAR(evanescent + propagating, all, 2e-5) << r;
    }
}

struct Soil {
    double permittivity, conductivity, frequency, deepest, tolerance;
};

class Table : public ::testing::TestWithParam<Soil> {};

// Interpolated kernels against integrated ones, at random places, of the direct wave's 1/R.
TEST_P(Table, KeepsTheKernels)
{
    const Soil& soil = GetParam();
    const Ground ground{GroundKind::Real, soil.permittivity, soil.conductivity};
    SoilTable table(ground, soil.frequency, soil.deepest);
    ASSERT_TRUE(table.cover({12.0, true, true, 0.0, 12.0, 0.0, soil.deepest}));
    const double k = waveNumber(soil.frequency);
    const Complex eps = table.permittivity();
    std::mt19937 random(7);
    const auto uniform = [&](double a, double b) { return std::uniform_real_distribution<>(a, b)(random); };
    for (int i = 0; i < 300; ++i) {
        const double distance = std::exp(uniform(std::log(2e-3), std::log(12.0))), t = uniform(0.0, 1.0), elevation = 0.5 * pi * t * t;
        const double rho = distance * std::cos(elevation), h = distance * std::sin(elevation),
                     depth = std::min(soil.deepest, h) * uniform(0.0, 1.0);
        const SoilKernelsAt at = soilKernels(eps, k * rho, k * h, {true, true, {k * depth}});
        const auto off = [&](const SoilKernels& a, const SoilKernels& b) {
            const SoilKernels d{a.scalar - k * b.scalar, a.horizontal - k * b.horizontal, a.vertical - k * b.vertical,
                                a.mixed - k * b.mixed};
            return largest(d) * distance;
        };
        EXPECT_LT(off(table.inAir(rho, h), at.air), soil.tolerance) << rho << ' ' << h;
        if (h <= 2.0 * soil.deepest) {
            EXPECT_LT(off(table.inSoil(rho, h), at.soil), 2.0 * soil.tolerance) << rho << ' ' << h;
        }
        if (h - depth <= 12.0) {
            EXPECT_LT(off(table.across(rho, h - depth, depth), at.across[0]), soil.tolerance) << rho << ' ' << h << ' ' << depth;
        }
    }
}

INSTANTIATE_TEST_SUITE_P(Soils, Table,
                         ::testing::Values(Soil{13, 0.005, 1.8e6, 0.1, 1e-3}, Soil{13, 0.005, 7e6, 2.0, 1e-3},
                                           Soil{5, 0.001, 7e6, 0.2, 1e-3}, Soil{20, 0.03, 7e6, 0.2, 2e-3}, Soil{81, 5, 7e6, 0.2, 1e-3},
                                           Soil{13, 0.005, 28e6, 0.2, 2e-3}));

} // namespace
} // namespace vetchling::em
