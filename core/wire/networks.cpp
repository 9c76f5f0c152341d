#include "core/wire/networks.h"

#include <cmath>

namespace vetchling {
namespace {

constexpr double decibelsPerNeper = 8.685889638065036;
constexpr double smallestLoss = 1e-9; // Np of the whole line: keeps coth finite, far below what any line loses

Complex across(Complex a, Complex b) { return a * b / (a + b); }

Complex propagation(const LineSection& line, double frequency)
{
    const double loss = std::max(smallestLoss, line.lossPerMetre * line.length / decibelsPerNeper);
    return {loss, 2.0 * pi * frequency * line.length / (speedOfLight * line.velocityFactor)};
}

} // namespace

Complex Transformer::atLine(Complex gap, double frequency) const
{
    const Complex jw{0.0, 2.0 * pi * frequency};
    Complex z = gap / ratio;
    if (coreLoss > 0.0)
        z = across(z, coreLoss);
    if (magnetisingInductance > 0.0)
        z = across(z, jw * magnetisingInductance);
    return z + jw * leakageInductance;
}

double Transformer::efficiency(Complex gap, double frequency) const
{
    const Complex shunted = atLine(gap, frequency) - Complex{0.0, 2.0 * pi * frequency * leakageInductance}, own = gap / ratio;
    return shunted.real() != 0.0 ? own.real() * std::norm(shunted / own) / shunted.real() : 1.0;
}

std::array<Complex, 2> LineSection::impedances(double frequency) const
{
    const Complex gl = propagation(*this, frequency), s = std::sinh(gl);
    return {characteristicImpedance * std::cosh(gl) / s, (crossed ? -1.0 : 1.0) * characteristicImpedance / s};
}

Complex LineSection::stubImpedance(double frequency) const
{
    const Complex gl = propagation(*this, frequency);
    return characteristicImpedance * (end == LineEnd::Short ? std::tanh(gl) : 1.0 / std::tanh(gl));
}

} // namespace vetchling
