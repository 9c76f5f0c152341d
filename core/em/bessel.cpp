#include "core/em/bessel.h"

#include <array>

namespace vetchling::em {
namespace {

constexpr double seriesLimit = 12.0; // below it the series loses at most 5 digits, above it 12 asymptotic terms give 1e-10
constexpr double eulerGamma = 0.57721566490153286;
constexpr int asymptoticTerms = 13;

struct AsymptoticCoefficients {
    std::array<double, asymptoticTerms> a0{}, a1{};
    AsymptoticCoefficients()
    {
        a0[0] = a1[0] = 1.0;
        for (int k = 1; k < asymptoticTerms; ++k) { // A&S 9.2.9-10: a_k(nu) = a_(k-1) (4 nu^2 - (2k-1)^2)/(8k)
            const double odd = (2.0 * k - 1.0) * (2.0 * k - 1.0);
            a0[k] = a0[k - 1] * (0.0 - odd) / (8.0 * k);
            a1[k] = a1[k - 1] * (4.0 - odd) / (8.0 * k);
        }
    }
};

/// H(1) without its factor exp(jz) sqrt(2/(pi z)); with sign = -1 that of H(2).
BesselPair asymptoticSums(Complex z, double sign)
{
    static const AsymptoticCoefficients c;
    const Complex step = Complex{0.0, sign} / z;
    Complex s0 = c.a0[asymptoticTerms - 1], s1 = c.a1[asymptoticTerms - 1];
    for (int k = asymptoticTerms - 2; k >= 0; --k) {
        s0 = s0 * step + c.a0[k];
        s1 = s1 * step + c.a1[k];
    }
    return {s0, s1};
}

BesselPair asymptoticFirst(Complex z)
{
    const BesselPair sums = asymptoticSums(z, 1.0);
    const Complex front = std::sqrt(2.0 / (pi * z)) * std::exp(imaginaryUnit * (z - pi / 4.0));
    return {front * sums.order0, front * sums.order1 * Complex{0.0, -1.0}};
}

BesselPair asymptoticSecond(Complex z)
{
    const BesselPair sums = asymptoticSums(z, -1.0);
    const Complex front = std::sqrt(2.0 / (pi * z)) * std::exp(-imaginaryUnit * (z - pi / 4.0));
    return {front * sums.order0, front * sums.order1 * Complex{0.0, 1.0}};
}

BesselPair seriesJ(Complex z)
{
    const Complex q = -0.25 * z * z;
    Complex term0 = 1.0, term1 = 1.0, sum0 = 1.0, sum1 = 1.0;
    for (int k = 1; k < 60; ++k) {
        term0 *= q / double(k * k);
        term1 *= q / double(k * (k + 1));
        sum0 += term0;
        sum1 += term1;
        if (std::norm(term0) < 1e-34 * std::norm(sum0) && std::norm(term1) < 1e-34 * std::norm(sum1))
            break;
    }
    return {sum0, 0.5 * z * sum1};
}

/// Y0 and Y1 beside J0 and J1 (A&S 9.1.11, 9.1.13).
BesselPair seriesY(Complex z, const BesselPair& j)
{
    const Complex q = -0.25 * z * z, logHalf = std::log(0.5 * z);
    Complex term0 = 1.0, term1 = 1.0, sum0 = 0.0, sum1 = 1.0 - 2.0 * eulerGamma;
    double harmonic = 0.0;
    for (int k = 1; k < 60; ++k) {
        term0 *= q / double(k * k);
        term1 *= q / double(k * (k + 1));
        harmonic += 1.0 / k;
        sum0 -= harmonic * term0;
        sum1 += (2.0 * (harmonic - eulerGamma) + 1.0 / (k + 1)) * term1;
        if (std::norm(term0) < 1e-36 && std::norm(term1) < 1e-36)
            break;
    }
    const Complex y0 = (2.0 / pi) * ((logHalf + eulerGamma) * j.order0 + sum0);
    const Complex y1 = -2.0 / (pi * z) + (2.0 / pi) * logHalf * j.order1 - (0.5 / pi) * z * sum1;
    return {y0, y1};
}

} // namespace

BesselPair besselJ(Complex z)
{
    if (std::norm(z) < seriesLimit * seriesLimit)
        return seriesJ(z);
    const BesselPair h1 = asymptoticFirst(z), h2 = asymptoticSecond(z);
    return {0.5 * (h1.order0 + h2.order0), 0.5 * (h1.order1 + h2.order1)};
}

BesselPair hankelFirst(Complex z)
{
    if (std::norm(z) >= seriesLimit * seriesLimit)
        return asymptoticFirst(z);
    const BesselPair j = seriesJ(z), y = seriesY(z, j);
    return {j.order0 + imaginaryUnit * y.order0, j.order1 + imaginaryUnit * y.order1};
}

BesselPair hankelSecond(Complex z)
{
    const BesselPair h = hankelFirst(std::conj(z));
    return {std::conj(h.order0), std::conj(h.order1)};
}

Complex besselRatio(Complex z)
{
    if (std::norm(z) < seriesLimit * seriesLimit) {
        const BesselPair j = seriesJ(z);
        return j.order1 / j.order0;
    }
    if (z.imag() > -20.0) {
        const BesselPair j = besselJ(z);
        return j.order1 / j.order0;
    }
    const BesselPair sums = asymptoticSums(z, 1.0); // exp(jz) grows, exp(-jz) is gone
    return Complex{0.0, -1.0} * sums.order1 / sums.order0;
}

} // namespace vetchling::em
