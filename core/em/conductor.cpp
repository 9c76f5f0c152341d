#include "core/em/conductor.h"

#include "core/em/bessel.h"

#include <algorithm>
#include <cmath>

namespace vetchling::em {
namespace {

constexpr double deepest = 25.0; // skin depths; nothing is left below
constexpr double stepsPerSkinDepth = 16.0;

struct Metal {
    double conductivity, permeability;

    Metal(double sigma, double relative) : conductivity(sigma), permeability(vacuumPermeability * relative) {}
    [[nodiscard]] double skinDepth(double w) const { return std::sqrt(2.0 / (w * permeability * conductivity)); }
};

Complex solidAdmittance(const Metal& metal, double radius, double w)
{
    const Complex k = std::sqrt(Complex{0.0, -w * metal.permeability * metal.conductivity});
    return metal.conductivity / k * besselRatio(k * radius);
}

/// Runge-Kutta of fourth order through a layer.
Complex throughLayer(Complex inner, const Metal& metal, double from, double to, double w)
{
    const double depth = metal.skinDepth(w);
    if (to - from > deepest * depth) {
        from = to - deepest * depth;
        inner = solidAdmittance(metal, from, w);
    }
    const int steps = 8 + int(stepsPerSkinDepth * (to - from) / depth);
    const double h = (to - from) / steps;
    const auto slope = [&](double r, Complex y) { return metal.conductivity - y / r - Complex{0.0, w * metal.permeability} * y * y; };
    Complex y = inner;
    for (int i = 0; i < steps; ++i) {
        const double r = from + h * i;
        const Complex a = slope(r, y), b = slope(r + 0.5 * h, y + 0.5 * h * a), c = slope(r + 0.5 * h, y + 0.5 * h * b),
                      d = slope(r + h, y + h * c);
        y += h / 6.0 * (a + 2.0 * b + 2.0 * c + d);
    }
    return y;
}

} // namespace

Complex internalImpedance(double frequency, double radius, double conductivity, double relativePermeability)
{
    return 1.0 / (2.0 * pi * radius * solidAdmittance({conductivity, relativePermeability}, radius, 2.0 * pi * frequency));
}

Complex internalImpedance(const Wire& wire, double radius, double frequency)
{
    const double w = 2.0 * pi * frequency;
    const Metal core(*wire.conductivity, wire.relativePermeability);
    const double coreRadius = wire.coating ? radius - std::min(wire.coating->thickness, 0.999 * radius) : radius;
    const double bore = wire.wall > 0.0 ? radius - wire.wall : 0.0;
    Complex y = 0.0;
    if (bore <= 0.0)
        y = solidAdmittance(core, coreRadius, w);
    else if (bore < coreRadius)
        y = throughLayer(0.0, core, bore, coreRadius, w);
    if (wire.coating)
        y = throughLayer(y, {wire.coating->conductivity, wire.coating->relativePermeability}, std::max(coreRadius, bore), radius, w);
    return 1.0 / (2.0 * pi * radius * y);
}

} // namespace vetchling::em
