#pragma once
/// Cubic interpolation in tables of even steps.

#include <array>

namespace vetchling::em {

inline constexpr int stencil = 4;

/// Lagrange's weights of nodes -1, 0, 1, 2. @param u from 0 to 1 away from a table's edges
inline std::array<double, stencil> lagrangeWeights(double u)
{
    const double a = u + 1.0, b = u, c = u - 1.0, d = u - 2.0;
    return {-b * c * d / 6.0, a * c * d / 2.0, -a * b * d / 2.0, a * b * c / 6.0};
}

} // namespace vetchling::em
