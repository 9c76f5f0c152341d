#pragma once
/// Pairs of elements so close that the kernel's singularity is felt: the integrals behind moments.h, which says what they are.

#include "core/em/mesh.h"

#include <algorithm>

namespace vetchling::em {

inline constexpr double ringReach = 8.0;  ///< radii; beyond, the mean squared distance on the surface serves to 2e-4
inline constexpr double meanSquare = 2.0; ///< of the distance between two points of a circle, in squared radii

/// What counts of the squared radius of a pair whose axes are this far apart where it matters: all on one axis, nothing two
/// radii apart, where the mean potential over a circle of a line outside it is that of the axes.
inline double radiusShare(double offAxis2, double radius) { return std::max(0.0, 1.0 - offAxis2 / (4.0 * radius * radius)); }

/// Adds int int P_i P_j R^(n-1) du dv for n = 0..powers-1 to out[n][i][j], i and j to the degree. R is that of the kernel, in closed
/// form for n = 0 and 2.
/// @param observer the shorter of the two; i side @param powers 3 or more
void addNearPowers(const Element& observer, const Element& source, int degree, int powers, double* out);

/// Adds what a jacket of that outer radius takes of the static potential to out[i][j] (jacketMoments in moments.h).
void addJacketPotential(const Element& observer, const Element& source, int degree, double outerRadius, double* out);

} // namespace vetchling::em
