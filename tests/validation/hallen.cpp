#include "tests/validation/hallen.h"

#include <lapacke.h>

#include <cmath>
#include <vector>

namespace vetchling::testing {
namespace {

constexpr double k = 2.0 * pi;

/// Mean of exp(-jkR)/R around a tube: the static part is an elliptic integral.
Complex exactKernel(double z, double radius)
{
    const double longest2 = z * z + 4.0 * radius * radius;
    constexpr int turns = 24;
    Complex wave = 0.0;
    for (int i = 0; i < turns; ++i) {
        const double s = std::sin(0.5 * pi * (i + 0.5) / turns), r = std::hypot(z, 2.0 * radius * s);
        wave += (std::exp(Complex{0.0, -k * r}) - 1.0) / r;
    }
    const double modulus = 2.0 * radius / std::sqrt(longest2);
    return 2.0 / (pi * std::sqrt(longest2)) * std::comp_ellint_1(modulus) + wave / double(turns);
}

/// exactKernel without its logarithm at z = 0.
Complex smoothKernel(double z, double radius)
{
    if (z == 0.0) { // comp_ellint_1 tends to ln(8 radius/|z|)
        constexpr double beside = 1e-7;
        return exactKernel(beside * radius, radius) + std::log(beside * radius) / (pi * radius);
    }
    return exactKernel(z, radius) + std::log(std::abs(z)) / (pi * radius);
}

/// Integral of sin k|z - s| over the gap, divided by its length.
double drive(double z, double gap)
{
    const double a = std::abs(z) - 0.5 * gap, b = std::abs(z) + 0.5 * gap;
    return a > 0.0 ? (std::cos(k * a) - std::cos(k * b)) / (k * gap) : (2.0 - std::cos(k * a) - std::cos(k * b)) / (k * gap);
}

} // namespace

Complex hallenImpedance(double length, double radius, double gap, int nodes)
{
    const double half = 0.5 * length;
    const int n = nodes, size = n + 1; // the last unknown is the amplitude of the free wave cos(kz)
    // I(z) dz = half f(t) dt with z = half cos t; f is a cosine series, on which the logarithm acts by numbers:
    // integral over 0..pi of ln|cos t - cos u| cos(mu) du = -pi/m cos(mt), or -pi ln 2 for m = 0.
    std::vector<double> place(n), sums(2 * n + 1); // sums[d]: of cos(m d pi/n)/m
    for (int i = 0; i < n; ++i)
        place[i] = half * std::cos(pi * (i + 0.5) / n);
    for (int d = 0; d <= 2 * n; ++d)
        for (int m = 1; m < n; ++m)
            sums[d] += std::cos(pi / n * (long(m) * d % (2 * n))) / m;
    std::vector<Complex> matrix(std::size_t(size) * size), rhs(size);
    const auto at = [&](int row, int column) -> Complex& { return matrix[std::size_t(column) * size + row]; };
    for (int j = 0; j < n; ++j)
        for (int i = 0; i < n; ++i) {
            const double logarithm = pi * std::log(0.5 * half) - pi * (sums[std::abs(i - j)] + sums[i + j + 1]);
            at(i, j) = half / n * (pi * smoothKernel(place[i] - place[j], radius) - logarithm / (pi * radius));
        }
    const auto cosine = [&](int i, int m) { return std::cos(m * pi * (i + 0.5) / n); };
    for (int i = 0; i < n; ++i) {
        at(i, n) = -std::cos(k * place[i]);
        rhs[i] = Complex{0.0, -1.0 / 60.0} * drive(place[i], gap);
        at(n, i) = 1.0 / n; // f at t = 0: no current at the end
        for (int m = 1; m < n; ++m)
            at(n, i) += 2.0 / n * cosine(i, m);
    }
    std::vector<lapack_int> pivots(size);
    LAPACKE_zgesv(LAPACK_COL_MAJOR, size, 1, reinterpret_cast<lapack_complex_double*>(matrix.data()), size, pivots.data(),
                  reinterpret_cast<lapack_complex_double*>(rhs.data()), size);
    const double edge = std::acos(0.5 * gap / half); // the gap's mean current, term by term
    Complex current = 0.0;
    for (int i = 0; i < n; ++i) {
        double part = (pi - 2.0 * edge) / n;
        for (int m = 1; m < n; ++m)
            part += 2.0 / n * cosine(i, m) * (std::sin(m * (pi - edge)) - std::sin(m * edge)) / m;
        current += rhs[i] * part;
    }
    return gap / (half * current);
}

} // namespace vetchling::testing
