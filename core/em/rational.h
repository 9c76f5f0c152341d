#pragma once
/// Rational interpolation in barycentric form by the AAA algorithm
/// (Nakatsukasa, Sete & Trefethen 2018, SIAM J. Sci. Comput. 40, A1494, sec. 3-4).

#include "core/physics.h"

#include <vector>

namespace vetchling::em {

class RationalFit {
public:
    RationalFit() = default;
    /// Fits values at real points (any order, distinct) until the largest misfit is below `tolerance` (absolute) or half
    /// of the points are support points.
    RationalFit(const std::vector<double>& points, const std::vector<Complex>& values, double tolerance);

    [[nodiscard]] Complex at(double x) const;
    [[nodiscard]] bool empty() const { return m_support.empty(); }
    [[nodiscard]] std::size_t supportCount() const { return m_support.size(); }

private:
    std::vector<double> m_support;
    std::vector<Complex> m_value, m_weight;
};

} // namespace vetchling::em
