#pragma once
/// What the interaction of two elements is put together from: the local current functions (mesh.h), and their blocks of the system.

#include "core/em/gauss.h"
#include "core/em/moments.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace vetchling::em {

inline constexpr int mostFunctions = largestDegree + 1;
inline constexpr int mostSamples = largestDegree + 2;

/// The local current functions, each two Legendre polynomials, and their slopes d/dv, each one.
struct LocalFunctions {
    std::vector<LegendreSum> current, slope;

    explicit LocalFunctions(int degree) : current(degree + 1), slope(degree + 1)
    {
        for (int end : {0, 1}) {
            current[end].add(0, 0.5);
            current[end].add(1, end == 0 ? -0.5 : 0.5);
            slope[end].add(0, end == 0 ? -0.5 : 0.5);
        }
        for (int k = 2; k <= degree; ++k) {
            current[k].add(k, 1.0 / (4 * k - 2));
            current[k].add(k - 2, -1.0 / (4 * k - 2));
            slope[k].add(k - 1, 0.5);
        }
    }
};

struct Block {
    Complex value[mostFunctions][mostFunctions]{};

    /// Adds vector * int int f_i f_j K + scalar * int int f_i' f_j' K from the kernel's moments.
    void add(const Moments& moments, const LocalFunctions& local, int degree, Complex vector, Complex scalar)
    {
        add(moments, moments, local, degree, vector, scalar);
    }

    /// The same of moments that are weighted already, first the functions' and then their slopes' sums.
    void add(const Moments& ofCurrents, const Moments& ofCharges, const LocalFunctions& local, int degree, Complex vector = 1.0,
             Complex scalar = 1.0)
    {
        for (int i = 0; i <= degree; ++i) {
            const LegendreSum &f = local.current[i], &slope = local.slope[i];
            const Complex* charges = ofCharges.value[slope.index[0]];
            const Complex upper = vector * f.factor[0], lower = vector * f.factor[1], ofSlope = scalar * slope.factor[0];
            Complex row[mostFunctions];
            for (int q = 0; q <= degree; ++q)
                row[q] = upper * ofCurrents.value[f.index[0]][q] + lower * ofCurrents.value[f.index[1]][q];
            for (int j = 0; j <= degree; ++j) {
                const LegendreSum &g = local.current[j], &change = local.slope[j];
                value[i][j] +=
                    g.factor[0] * row[g.index[0]] + g.factor[1] * row[g.index[1]] + change.factor[0] * (ofSlope * charges[change.index[0]]);
            }
        }
    }

    void add(const Block& other, int degree)
    {
        for (int i = 0; i <= degree; ++i)
            for (int j = 0; j <= degree; ++j)
                value[i][j] += other.value[i][j];
    }

    void addTransposed(const Block& other, int degree)
    {
        for (int i = 0; i <= degree; ++i)
            for (int j = 0; j <= degree; ++j)
                value[i][j] += other.value[j][i];
    }

    /// Of an element with itself: reciprocity holds to quadrature accuracy; make it exact.
    void makeSymmetric(int degree)
    {
        for (int i = 0; i <= degree; ++i)
            for (int j = 0; j < i; ++j)
                value[i][j] = value[j][i] = 0.5 * (value[i][j] + value[j][i]);
    }
};

/// Values of the current functions and their slopes at the nodes of a rule, times its weights.
struct Sampled {
    int nodes = 0;
    std::array<double, mostSamples> node{};
    std::array<std::array<double, mostFunctions>, mostSamples> function{}, slope{};

    Sampled(int count, int degree) : nodes(count)
    {
        const GaussRule& rule = gaussRule(count);
        for (int a = 0; a < count; ++a) {
            node[a] = rule.node[a];
            localCurrents(node[a], degree, function[a].data());
            localSlopes(node[a], degree, slope[a].data());
            for (int i = 0; i <= degree; ++i)
                function[a][i] *= rule.weight[a], slope[a][i] *= rule.weight[a];
        }
    }
};

/// Where only the polynomials count, and where the field changes along the element too.
inline Sampled fewSamples(int degree) { return {(degree + 3) / 2, degree}; }
inline Sampled manySamples(int degree) { return {degree + 2, degree}; }

/// What a pair shares of the factors: jw mu0/(4 pi) and 1/(jw eps0 4 pi), ohm m^2 and ohm m^-2 over a length each.
inline Complex vectorFront(double waveNumber) { return {0.0, waveImpedance * waveNumber / (4.0 * pi)}; }
inline Complex scalarFront(double waveNumber) { return {0.0, -waveImpedance / (waveNumber * 4.0 * pi)}; }

/// A rule over two elements that come close, called as visit(u, v, weight): inner points through v = v0 + d sinh t about where `seen`, the
/// second or its mirror image, comes closest, which flattens 1/R; outer graded to the first one's ends.
template <class Visit> void gradedPoints(const Element& m, const Element& seen, const Visit& visit)
{
    constexpr int outerNodes = 8;
    const GaussRule& outer = gaussRule(outerNodes);
    for (int a = 0; a < outerNodes; ++a) {
        const double x = outer.node[a], u = 0.5 * x * (3.0 - x * x), slope = 1.5 * (1.0 - x * x);
        const Vec3 away = m.at(u) - seen.centre();
        const double half = 0.5 * seen.length, v0 = dot(away, seen.tangent) / half;
        const double d = std::max(1e-9, std::sqrt(std::max(0.0, dot(away, away) / (half * half) - v0 * v0)));
        const double low = std::asinh((-1.0 - v0) / d), high = std::asinh((1.0 - v0) / d);
        const GaussRule& inner = gaussRule(std::min(24, 6 + int(1.2 * (high - low))));
        for (std::size_t b = 0; b < inner.node.size(); ++b) {
            const double t = 0.5 * (low + high) + 0.5 * (high - low) * inner.node[b];
            const double weight = 0.5 * (high - low) * inner.weight[b] * d * std::cosh(t);
            visit(u, std::clamp(v0 + d * std::sinh(t), -1.0, 1.0), outer.weight[a] * slope * weight);
        }
    }
}

} // namespace vetchling::em
