#include "core/wire/soil_model.h"

#include "core/physics.h"

#include <cmath>

namespace vetchling {

namespace {

/// x of the pair.
double loadOf(double permittivity, double conductivity, double pairFrequency)
{
    const double tangent = conductivity / (2.0 * pi * pairFrequency * vacuumPermittivity * permittivity);
    return tangent - 1.0 + std::sqrt(1.0 + tangent * tangent);
}

} // namespace

double permittivityAtTheTop(double permittivity, double conductivity, double pairFrequency)
{
    return permittivity / (1.0 + loadOf(permittivity, conductivity, pairFrequency));
}

SoilFiguresAt soilFiguresAt(double permittivity, double conductivity, double pairFrequency, double frequency)
{
    const double there = loadOf(permittivity, conductivity, pairFrequency), high = permittivity / (1.0 + there);
    const double omega = 2.0 * pi * frequency, here = there * std::sqrt(pairFrequency / frequency);
    return {high * (1.0 + here), high * vacuumPermittivity * omega * (here + 0.5 * here * here)};
}

} // namespace vetchling
