#pragma once
/// Moments of the thin-wire kernel between two straight elements:
///   M(i,j) = int int P_i(u) P_j(v) exp(-jkR)/R du dv,  u, v = -1..1,  R^2 = |r(u)-r'(v)|^2 + a^2
/// with Legendre polynomials up to the degree. Vector and scalar potential of polynomial currents both follow from M.
///
/// The radius a is the larger of the two where the elements touch or are the same (King 1956: surface against axis)
/// and goes to zero as the axes move two radii apart: the mean over a circle of the static potential of a line outside
/// it is that of the axes.
/// Near pairs: 1/R and R are integrated in closed form over v, the smooth rest by Gauss; the outer integral is graded
/// towards both ends. Far pairs: Gauss in both. Accuracy: 5e-5 relative, measured in tests/core/moments_test.cpp.

#include "core/em/mesh.h"

namespace vetchling::em {

struct Moments {
    Complex value[largestDegree + 1][largestDegree + 1];
};

/// @param observer i side; @param source j side; @param waveNumber rad/m; degree 1..largestDegree
void kernelMoments(const Element& observer, const Element& source, double waveNumber, int degree, Moments& out);

/// Legendre polynomials P_0..P_degree at x.
void legendre(double x, int degree, double* out);

} // namespace vetchling::em
