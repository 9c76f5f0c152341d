#include "core/em/bessel.h"

#include <cmath>
#include <gtest/gtest.h>

namespace vetchling::em {
namespace {

constexpr double measured = 1e-10; // the header's claim

class BesselOnAxis : public ::testing::TestWithParam<double> {};

// The standard library's real functions are an independent implementation.
TEST_P(BesselOnAxis, AgreesWithStandardLibrary)
{
    const double x = GetParam();
    const BesselPair j = besselJ({x, 0.0});
    EXPECT_NEAR(j.order0.real(), std::cyl_bessel_j(0.0, x), measured);
    EXPECT_NEAR(j.order1.real(), std::cyl_bessel_j(1.0, x), measured);
    if (x > 0.0) {
        const BesselPair h = hankelFirst({x, 0.0});
        const double tolerance = measured * (1.0 + 1.0 / x);
        EXPECT_NEAR(h.order0.imag(), std::cyl_neumann(0.0, x), tolerance);
        EXPECT_NEAR(h.order1.imag(), std::cyl_neumann(1.0, x), tolerance);
    }
}

INSTANTIATE_TEST_SUITE_P(Reals, BesselOnAxis,
                         ::testing::Values(0.0, 1e-4, 0.1, 1.0, 2.4048, 5.0, 8.3, 11.999, 12.0, 12.001, 20.0, 75.0, 400.0));

class BesselInPlane : public ::testing::TestWithParam<Complex> {};

// J0 H1(1)' relation: J1 H0 - J0 H1 = 2j/(pi z) (A&S 9.1.16 in Hankel form), which ties both functions together.
TEST_P(BesselInPlane, WronskianHolds)
{
    const Complex z = GetParam();
    const BesselPair j = besselJ(z), h = hankelFirst(z);
    const Complex wronskian = j.order1 * h.order0 - j.order0 * h.order1, expected = Complex{0.0, 2.0} / (pi * z);
    EXPECT_LT(std::abs(wronskian - expected) / std::abs(expected), 1e-6)
        << z; // J grows as exp(Im z), H falls as exp(-Im z): at 11j rounding alone leaves 4e-7
}

TEST_P(BesselInPlane, SecondKindIsMirrored)
{
    const Complex z = GetParam();
    const BesselPair first = hankelFirst(z), second = hankelSecond(std::conj(z));
    EXPECT_EQ(second.order0, std::conj(first.order0));
    EXPECT_EQ(second.order1, std::conj(first.order1));
}

INSTANTIATE_TEST_SUITE_P(Upper, BesselInPlane,
                         ::testing::Values(Complex{2.0, 0.5}, Complex{2.0, 6.0}, Complex{2.0, 11.0}, Complex{5.0, 3.0}, Complex{9.0, 7.0},
                                           Complex{13.0, 0.1}, Complex{3.0, 14.0}, Complex{40.0, 2.0}));

// I0(x) = J0(jx): the series on the imaginary axis against the modified function.
TEST(Bessel, ImaginaryArgumentGivesModifiedFunctions)
{
    for (double x : {0.3, 2.0, 7.0}) {
        const BesselPair j = besselJ({0.0, x});
        EXPECT_NEAR(j.order0.real() / std::cyl_bessel_i(0.0, x), 1.0, 1e-12);
        EXPECT_NEAR(j.order1.imag() / std::cyl_bessel_i(1.0, x), 1.0, 1e-12);
    }
}

// Hankel functions decay upwards: K0(x) = (pi j/2) H0(1)(jx).
TEST(Bessel, HankelOnImaginaryAxisIsMacdonaldFunction)
{
    for (double x : {0.5, 3.0, 13.0}) {
        const Complex k0 = Complex{0.0, 0.5 * pi} * hankelFirst({1e-14, x}).order0;
        const double exact = std::cyl_bessel_k(0.0, x);
        const bool series = x < 12.0; // sums of terms as large as exp(x); beyond, the asymptotic form knows all digits of the result
        EXPECT_NEAR(k0.real(), exact, series ? 1e-10 * std::exp(x) : 1e-8 * exact) << x;
    }
}

// Deep in a good conductor J1/J0 tends to -j (the skin effect's limit); near zero to z/2.
TEST(Bessel, RatioHasBothLimits)
{
    EXPECT_LT(std::abs(besselRatio({400.0, -400.0}) - Complex{0.0, -1.0}), 2e-3);
    EXPECT_LT(std::abs(besselRatio({1e-3, -1e-3}) - Complex{5e-4, -5e-4}), 1e-9);
    EXPECT_TRUE(std::isfinite(std::abs(besselRatio({1e5, -1e5}))));
}

TEST(Bessel, RatioIsContinuousWhereTheMethodChanges)
{
    for (const Complex z : {Complex{8.4852, -8.4853}, Complex{20.0, -20.0}}) {
        const Complex below = besselRatio(z * 0.9999), above = besselRatio(z * 1.0001);
        EXPECT_LT(std::abs(above - below), 1e-5);
    }
}

} // namespace
} // namespace vetchling::em
