#pragma once
/// Hankel functions of the second kind of many positive real arguments at once.
/// Method: power series below x = 3 (Abramowitz & Stegun 1964, 9.1.10-13), above it the amplitudes of A&S 9.2.6 as series in 3/x, 20/x.
/// Accuracy: absolute 1e-9 relative to the size of the function, measured in tests/core/bessel_test.cpp.

#include <vector>

namespace vetchling::em {

/// H0(2) = re0 + j im0, H1(2) = re1 + j im1, by argument.
struct HankelRow {
    std::vector<double> re0, im0, re1, im1;
    /// @param x above 0
    void fill(const std::vector<double>& x);

private:
    void fillNear(const std::vector<double>& x, std::size_t from, std::size_t to);
    std::vector<double> m_cosine, m_sine;
};

} // namespace vetchling::em
