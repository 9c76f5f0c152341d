#include "core/em/soil_kernels.h"

#include "core/em/sommerfeld_path.h"

namespace vetchling::em {
namespace {

/// The spectral kernels of one x, those of one medium less their images.
struct SoilSpectrum {
    Complex eps, x, n0, n1, de, dh, image;

    SoilSpectrum(Complex permittivity, Complex place, Complex above)
        : eps(permittivity), x(place), n0(above), n1(principalRoot(x * x - eps)), de(n1 + eps * n0), dh(n0 + n1),
          image((eps - 1.0) / (eps + 1.0))
    {
    }

    [[nodiscard]] Complex mixed() const { return 2.0 * (1.0 - eps) * x / (de * dh); }

    /// (n^2+x^2)/(De Dh) - 1/(1+eps) for n of either side: its terms of order x^2 and x are taken out by hand.
    [[nodiscard]] Complex steep(Complex n, Complex lessTheOther) const
    {
        return ((1.0 + eps) * n * lessTheOther + 2.0 * eps) / ((1.0 + eps) * de * dh);
    }

    [[nodiscard]] SoilKernels inAir() const
    {
        const Complex step = (eps - 1.0) / (n0 * dh * dh);
        return {2.0 * image / (n0 * de * dh), step, 2.0 * (eps - 1.0) / n0 * steep(n0, (eps - 1.0) / dh) - step, mixed()};
    }

    [[nodiscard]] SoilKernels inSoil() const
    {
        const Complex step = (eps - 1.0) / (n1 * dh * dh);
        return {-2.0 * eps * image / (n1 * de * dh), -step, step - 2.0 * (eps - 1.0) / n1 * steep(n1, (1.0 - eps) / dh), mixed()};
    }

    /// Whole, over exp(-n0 h), h the whole vertical distance.
    [[nodiscard]] SoilKernels across(double depth) const
    {
        const Complex down = 2.0 * std::exp((eps - 1.0) / dh * depth), vector = down / dh; // exp((n0-n1) d)
        return {down / de, vector, vector, 0.5 * mixed() * down};
    }
};

SoilKernels weighted(const SoilKernels& k, Complex zero, Complex one)
{
    return {k.scalar * zero, k.horizontal * zero, k.vertical * zero, k.mixed * one};
}

/// int_0^1 f(c) dc over c = sqrt(1-x^2), for f that goes through a phase.
template <class Function> Complex overAngles(double phase, const Function& f)
{
    constexpr int nodes = 16;
    constexpr double phaseOfPanel = 8.0;
    const GaussRule& rule = gaussRule(nodes);
    const int panels = 2 + int(phase / phaseOfPanel);
    Complex sum = 0.0;
    for (int p = 0; p < panels; ++p)
        for (int i = 0; i < nodes; ++i)
            sum += 0.5 * rule.weight[i] / panels * f((p + 0.5 * (1.0 + rule.node[i])) / panels);
    return sum;
}

} // namespace

SoilKernelsAt soilKernels(Complex permittivity, double r, double h, const SoilKernelsWanted& wanted)
{
    SoilKernelsAt sum;
    sum.across.resize(wanted.depths.size());
    const bool air = wanted.air || !wanted.depths.empty();
    SommerfeldPath path(
        permittivity, r, h, !wanted.soil && wanted.depths.empty(),
        [&](Complex x, Complex nu0, const BesselPair& bessel, Complex, Complex weight) {
            const SoilSpectrum at(permittivity, x, nu0);
            const Complex zero = weight * x * bessel.order0, one = weight * x * bessel.order1;
            const Complex above = air ? std::exp(-nu0 * h) : Complex{};
            if (wanted.air)
                sum.air += weighted(at.inAir(), above * zero, above * one);
            for (std::size_t d = 0; d < wanted.depths.size(); ++d)
                sum.across[d] += weighted(at.across(wanted.depths[d]), above * zero, above * one);
            if (wanted.soil) {
                const Complex below = std::exp(-at.n1 * h);
                sum.soil += weighted(at.inSoil(), below * zero, below * one);
            }
        },
        TablePrecision{});
    path.integrate();
    return sum;
}

SoilKernels soilLossKernels(Complex permittivity, double r, double h)
{
    SoilKernels sum{};
    SommerfeldPath path(permittivity, r, h, true, [&](Complex x, Complex nu0, const BesselPair& bessel, Complex, Complex weight) {
        const Complex common = weight * x * std::exp(-nu0 * h);
        sum += weighted(SoilSpectrum(permittivity, x, nu0).inAir(), common * bessel.order0, common * bessel.order1);
    });
    path.integrateEvanescent();
    const double image = ((permittivity - 1.0) / (permittivity + 1.0)).imag();
    // the real part of the propagating waves of exp(-jkR)/R
    const double far = -overAngles(r + h, [&](double c) { return besselJ(r * std::sqrt(1.0 - c * c)).order0 * std::sin(c * h); }).real();
    return {sum.scalar.imag() + image * far, sum.horizontal.imag(), sum.vertical.imag() - 2.0 * image * far, sum.mixed.imag()};
}

Complex propagatingScalar(Complex permittivity, double r, double h)
{
    return overAngles(r + h, [&](double c) { // x dx = -c dc
        const Complex n0{0.0, c}, n1 = std::sqrt(1.0 - c * c - permittivity);
        return 2.0 * c / (n1 + permittivity * n0) * besselJ(r * std::sqrt(1.0 - c * c)).order0 * std::exp(-n0 * h);
    });
}

} // namespace vetchling::em
