#include "core/em/moments.h"

#include "core/em/gauss.h"
#include "tests/long_form.h"

#include <boost/math/quadrature/gauss_kronrod.hpp>
#include <cmath>
#include <gtest/gtest.h>

namespace vetchling::em {
namespace {

Element element(Vec3 start, Vec3 end, double radius = 1e-3)
{
    Element e;
    e.start = start;
    e.end = end;
    e.length = distance(start, end);
    e.tangent = unit(end - start);
    e.radius = radius;
    return e;
}

/// Adaptive quadrature in both variables, the inner one split where the kernel is sharpest.
Complex bruteMoment(const Element& m, const Element& n, double k, int i, int j, double radius2)
{
    using boost::math::quadrature::gauss_kronrod;
    const GaussRule& section = gaussRule(10);
    const auto inner = [&](double u) {
        const Vec3 r = m.at(u);
        const double v0 = std::clamp(2.0 * dot(r - n.centre(), n.tangent) / n.length, -1.0, 1.0);
        const double offAxis = norm(r - n.at(2.0 * dot(r - n.centre(), n.tangent) / n.length)); // the radius fades over two radii
        const bool touching = std::min({distance(m.start, n.start), distance(m.start, n.end), distance(m.end, n.start),
                                        distance(m.end, n.end)}) < jointTolerance; // where the whole radius counts
        const double section2 = radius2 > 0.0 ? std::max(0.0, radius2 - (touching ? 0.0 : 0.25 * offAxis * offAxis)) : 0.0;
        const auto kernel = [&](double v) -> Complex {
            const Vec3 d = r - n.at(v);
            if (section2 == 0.0)
                return std::legendre(unsigned(j), v) * std::exp(Complex{0.0, -k * norm(d)}) / norm(d);
            Complex kernel = 0.0; // mean over the tube's section; p = pi x^3 takes out the logarithm
            for (std::size_t q = 0; q < section.node.size(); ++q) {
                const double x = 0.5 * (1.0 + section.node[q]), apart = 2.0 * std::sin(0.5 * pi * x * x * x);
                const double R = std::sqrt(dot(d, d) + section2 * apart * apart);
                kernel += 1.5 * section.weight[q] * x * x * std::exp(Complex{0.0, -k * R}) / R;
            }
            return std::legendre(unsigned(j), v) * kernel;
        };
        Complex sum = 0.0;
        for (auto [a, b] : {std::pair(-1.0, v0), std::pair(v0, 1.0)})
            if (b - a > 1e-12)
                sum += gauss_kronrod<double, 31>::integrate(kernel, a, b, 10, 1e-6);
        return std::legendre(unsigned(i), u) * sum;
    };
    Complex sum = 0.0;
    for (auto [a, b] : {std::pair(-1.0, -0.99), std::pair(-0.99, 0.99), std::pair(0.99, 1.0)})
        sum += gauss_kronrod<double, 31>::integrate(inner, a, b, 5, 1e-6);
    return sum;
}

void expectMoments(const Element& m, const Element& n, double k, double radius2, double tolerance)
{
    constexpr int degree = 3;
    Moments moments;
    kernelMoments(m, n, k, degree, moments);
    const double scale = std::abs(bruteMoment(m, n, k, 0, 0, radius2));
    std::size_t number = 0;
    for (int i : {0, 1, 3})
        for (int j : {0, 3})
            if (testing::tried(number++, 5)) { // of lowest and of highest degree
                EXPECT_LT(std::abs(moments.value[i][j] - bruteMoment(m, n, k, i, j, radius2)) / scale, tolerance) << i << j;
            }
}

constexpr double k = 0.3; // wavelength 21 m
constexpr double a2 = 1e-6;

TEST(Moments, OfAnElementWithItself)
{
    const Element e = element({0, 0, 0}, {2, 0, 0});
    expectMoments(e, e, k, a2, 5e-5);
}

TEST(Moments, OfNeighboursOnAStraightWire) { expectMoments(element({0, 0, 0}, {2, 0, 0}), element({2, 0, 0}, {5, 0, 0}), k, a2, 5e-5); }

TEST(Moments, OfNeighboursOfVeryDifferentLength)
{
    expectMoments(element({0, 0, 0}, {0.02, 0, 0}), element({0.02, 0, 0}, {4, 0, 0}), k, a2, 2e-5);
}

TEST(Moments, OfALongElementBesideAShortOneFarAlong)
{
    expectMoments(element({0, 0, 0}, {4, 0, 0}), element({6.5, 0, 0}, {6.52, 0, 0}), k, 0.0, 2e-5);
}

TEST(Moments, AtARightAngle) { expectMoments(element({0, 0, 0}, {2, 0, 0}), element({2, 0, 0}, {2, 3, 0}), k, a2, 5e-5); }

TEST(Moments, AtAnAcuteAngle)
{
    const double angle = radians(10.0);
    expectMoments(element({0, 0, 0}, {2, 0, 0}), element({2, 0, 0}, {2 - 2 * std::cos(angle), 2 * std::sin(angle), 0}), k, a2, 2e-4);
}

// Pieces of a tube as short as its radius.
TEST(Moments, OfShortPiecesOfAThickTube)
{
    const Element e = element({0, 0, 0}, {0.1, 0, 0}, 0.1);
    expectMoments(e, e, k, 0.01, 1e-3);
    expectMoments(e, element({0.1, 0, 0}, {0.3, 0, 0}, 0.1), k, 0.01, 1e-3);
    expectMoments(e, element({0.4, 0, 0}, {0.5, 0, 0}, 0.1), k, 0.01, 1e-3);
}

// Parallel wires ten radii apart: the axes' distance alone counts, the radius no longer does.
TEST(Moments, OfCloseParallelWires) { expectMoments(element({0, 0, 0}, {3, 0, 0}), element({0.5, 0.01, 0}, {3.5, 0.01, 0}), k, 0.0, 2e-4); }

TEST(Moments, OfADistantPair) { expectMoments(element({0, 0, 0}, {2, 0, 0}), element({3, 9, 4}, {5, 9, 5}), k, 0.0, 1e-7); }

// The choice of near or far method must not be seen.
TEST(Moments, AreContinuousWhereTheMethodChanges)
{
    const Element m = element({0, 0, 0}, {2, 0, 0});
    Moments below, above;
    kernelMoments(m, element({0, 1.7999, 0}, {2, 1.7999, 0}), k, 3, below);
    kernelMoments(m, element({0, 1.8001, 0}, {2, 1.8001, 0}), k, 3, above);
    for (int i = 0; i <= 3; ++i)
        for (int j = 0; j <= 3; ++j)
            EXPECT_LT(std::abs(below.value[i][j] - above.value[i][j]) / std::abs(below.value[0][0]), 2e-4);
}

TEST(Moments, TransposeWhenTheRolesAreSwapped)
{
    const Element m = element({0, 0, 0}, {2, 0, 0}), n = element({2, 0, 0}, {3, 1, 0.5});
    Moments forward, backward;
    kernelMoments(m, n, k, 4, forward);
    kernelMoments(n, m, k, 4, backward);
    for (int i = 0; i <= 4; ++i)
        for (int j = 0; j <= 4; ++j)
            EXPECT_LT(std::abs(forward.value[i][j] - backward.value[j][i]), 1e-12);
}

// Two axes that move apart lose the radius smoothly: no step at contact or at two radii.
TEST(Moments, RadiusFadesWithoutAStep)
{
    const Element m = element({0, 0, 0}, {1, 0, 0});
    double before = -1.0;
    for (double gap = 1e-4; gap < 6e-3; gap *= 1.05) {
        Moments moments;
        kernelMoments(m, element({0, gap, 0}, {1, gap, 0}), k, 2, moments);
        const double here = moments.value[0][0].real();
        if (before > 0.0) {
            EXPECT_LT(std::abs(here / before - 1.0), 0.02) << gap;
        }
        before = here;
    }
}

TEST(Legendre, MatchesTheStandardLibrary)
{
    double p[6];
    for (double x : {-1.0, -0.3, 0.0, 0.77, 1.0}) {
        legendre(x, 5, p);
        for (unsigned n = 0; n <= 5; ++n)
            EXPECT_NEAR(p[n], std::legendre(n, x), 1e-14);
    }
}

TEST(GaussRule, IntegratesPolynomialsExactly)
{
    for (int count : {1, 2, 5, 10, 24, 64}) {
        const GaussRule& rule = gaussRule(count);
        ASSERT_EQ(int(rule.node.size()), count);
        for (int power = 0; power <= std::min(2 * count - 1, 20); ++power) {
            double sum = 0.0;
            for (int i = 0; i < count; ++i)
                sum += rule.weight[std::size_t(i)] * std::pow(rule.node[std::size_t(i)], power);
            EXPECT_NEAR(sum, power % 2 ? 0.0 : 2.0 / (power + 1), 1e-13);
        }
        EXPECT_TRUE(std::is_sorted(rule.node.begin(), rule.node.end()));
    }
}

} // namespace
} // namespace vetchling::em
