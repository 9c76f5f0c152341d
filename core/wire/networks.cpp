#include "core/wire/networks.h"

#include <cmath>

namespace vetchling {
namespace {

constexpr double decibelsPerNeper = 8.685889638065036;
constexpr double smallestLoss = 1e-9; // Np of the whole line: keeps coth finite, far below what any line loses

Complex propagation(const LineSection& line, double frequency)
{
    const double loss = std::max(smallestLoss, line.lossPerMetre * line.length / decibelsPerNeper);
    return {loss, 2.0 * pi * frequency * line.length / (speedOfLight * line.velocityFactor)};
}

} // namespace

Complex Transformer::atLine(Complex gap, double frequency) const
{
    const Complex z = gap / ratio;
    return z / (1.0 + z * shunt(frequency)) + Complex{0.0, 2.0 * pi * frequency * leakageInductance};
}

Complex Transformer::slope(Complex gap, double frequency) const
{
    const Complex divided = 1.0 + gap / ratio * shunt(frequency);
    return 1.0 / (ratio * divided * divided);
}

Complex Transformer::shunt(double frequency) const
{
    Complex y = coreLoss > 0.0 ? 1.0 / coreLoss : 0.0;
    if (magnetisingInductance > 0.0)
        y += 1.0 / Complex{0.0, 2.0 * pi * frequency * magnetisingInductance};
    return y;
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
