#pragma once
/// Integrals of a panel's polynomials times a wave that runs over it (Filon 1928).

#include "core/em/terrain.h"

#include <array>

namespace vetchling::em {

/// What a point, or a wave, takes of its panel's nodes.
using NodeShares = std::array<Complex, nodesPerPanel>;

/// Lagrange polynomials of the Gauss nodes at t.
std::array<double, nodesPerPanel> polynomialsAt(double t);

/// Of each polynomial times exp(j turn t) over -1..1; within 1e-6. @param turn rad, within 28. Thread-safe.
NodeShares waveIntegrals(double turn);

} // namespace vetchling::em
