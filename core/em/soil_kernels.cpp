#include "core/em/soil_kernels.h"

#include "core/em/sommerfeld_path.h"

namespace vetchling::em {
namespace {

/// The spectral kernels of one x, those of one medium less their images.
struct Spectrum {
    Complex eps, x, n0, n1, de, dh, image;

    Spectrum(Complex permittivity, Complex place, Complex above)
        : eps(permittivity), x(place), n0(above), n1(std::sqrt(x * x - eps)), de(n1 + eps * n0), dh(n0 + n1), image((eps - 1.0) / (eps + 1.0))
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

} // namespace

SoilKernelsAt soilKernels(Complex permittivity, double r, double h, const SoilKernelsWanted& wanted)
{
    SoilKernelsAt sum;
    sum.across.resize(wanted.depths.size());
    const bool air = wanted.air || !wanted.depths.empty();
    SommerfeldPath path(permittivity, r, h, !wanted.soil && wanted.depths.empty(),
                        [&](Complex x, Complex nu0, const BesselPair& bessel, Complex, Complex weight) {
                            const Spectrum at(permittivity, x, nu0);
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
                        });
    path.integrate();
    return sum;
}

} // namespace vetchling::em
