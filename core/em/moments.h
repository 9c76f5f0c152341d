#pragma once
/// Moments of the wire kernel between two straight elements:
///   M(i,j) = int int P_i(u) P_j(v) K du dv,  u, v = -1..1,  K = mean over p of exp(-jkR)/R,
///   R^2 = |r(u)-r'(v)|^2 + (2 a sin(p/2))^2,  p = 0..pi
/// with Legendre polynomials up to the degree. Vector and scalar potential of polynomial currents both follow from M.
///
/// On one axis K is the exact kernel of currents on the surface of a tube, tested on the surface (King 1956, ch. II), a
/// the larger of the two radii. It is kept between elements that touch at an angle, so that the charge at a joint has a
/// positive energy. Elsewhere the squared radius goes to zero as the axes move two radii apart: the mean over a circle of
/// the static potential of a line outside it is that of the axes.
/// exp(-jkR) is its power series in k, from a distance that is zero for near pairs; so the integrals of the powers of R
/// serve all wave numbers. Near pairs: 1/R and R are integrated in closed form over v, the other powers by Gauss; the
/// outer integral is graded towards both ends; closer than 8 radii the mean over p is a rule of six nodes. Far pairs:
/// Gauss in both, at one wave number without the series.
/// Accuracy: 5e-5 relative, measured in tests/core/moments_test.cpp.

#include "core/em/mesh.h"

namespace vetchling::em {

/// factor[0] P_index[0] + factor[1] P_index[1].
struct LegendreSum {
    int terms = 0;
    int index[2]{};
    double factor[2]{};

    void add(int p, double f) { index[terms] = p, factor[terms++] = f; }
};

struct Moments {
    Complex value[largestDegree + 1][largestDegree + 1];

    /// left^T M right.
    [[nodiscard]] Complex form(const LegendreSum& left, const LegendreSum& right) const;
};

/// The moments of one pair at all wave numbers up to a highest one:
///   M(k) = exp(-jkR0) sum over n of (-jk)^n/n! int int P_i P_j (R-R0)^n/R du dv.
class MomentSeries {
public:
    MomentSeries() = default;
    /// @param observer i side; @param source j side; @param highestWaveNumber rad/m; degree 1..largestDegree
    MomentSeries(const Element& observer, const Element& source, double highestWaveNumber, int degree);
    /// @param waveNumber at most the highest, also of a lossy medium
    void at(double waveNumber, Moments& out) const;
    void at(Complex waveNumber, Moments& out) const;

private:
    int m_degree = 0, m_powers = 0;
    double m_from = 0.0;          ///< R0, m
    std::vector<double> m_values; ///< by power, i, j
};

/// @param observer i side; @param source j side; @param waveNumber rad/m; degree 1..largestDegree
void kernelMoments(const Element& observer, const Element& source, double waveNumber, int degree, Moments& out);
void kernelMoments(const Element& observer, const Element& source, Complex waveNumber, int degree, Moments& out);

/// Whether a pair is so close that its kernel is hardly smooth over the elements.
bool comesClose(const Element& observer, const Element& source);

/// The same double integral of what a jacket takes from the static potential, but for its factor 1 - 1/er:
/// 1/R at the conductor less the mean of 1/R from the conductor's surface to the jacket's. In the long-wave limit
/// this is 2 ln(b/a) per unit length (Richmond & Newman 1976, Radio Science 11, 13); unlike that limit it vanishes for
/// charges that change within the jacket's radius, and so never turns the potential round.
/// @param outerRadius of the jacket, m
/// @return false if the pair is farther apart than eight of them: then the moments are zero
bool jacketMoments(const Element& observer, const Element& source, double outerRadius, int degree, Moments& out);

} // namespace vetchling::em
