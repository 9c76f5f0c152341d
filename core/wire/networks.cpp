#include "core/wire/networks.h"

#include <cmath>

namespace vetchling {
namespace {

constexpr double decibelsPerNeper = 8.685889638065036;
constexpr double smallestLoss = 1e-9; // Np of the whole line: keeps coth finite, far below what any line loses

Complex propagation(const LineSection& line, double frequency)
{
    const double megahertz = frequency / 1e6;
    const double perMetre = line.lossPerMetre + (line.k1 * std::sqrt(megahertz) + line.k2 * megahertz) / 100.0;
    const double loss = std::max(smallestLoss, perMetre * line.length / decibelsPerNeper);
    return {loss, 2.0 * pi * frequency * line.length / (speedOfLight * line.velocityFactor)};
}

} // namespace

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
