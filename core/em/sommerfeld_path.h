#pragma once
/// The way of a Sommerfeld integral over x = lambda/k0 from 0 to infinity, at one pair of distances: over the branch points in the
/// upper half plane, then on where J alone decays, as its two Hankel functions up and down (Michalski 1998) or straight on.
/// The integrand is whatever the visitor adds at a node; all integrals of one place share their Bessel functions.

#include "core/em/bessel.h"
#include "core/em/gauss.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace vetchling::em {

inline constexpr int panelNodes = 10;     ///< Gauss nodes a panel; a singularity one panel length away then costs 1e-9
inline constexpr double panelPhase = 4.0; ///< largest phase change over a panel, rad

/// 1e-9 of the largest integral.
struct FullPrecision {
    static constexpr int nodes = panelNodes;
    static constexpr double phase = panelPhase, reach = 0.8;                                ///< of a panel to the nearest singularity
    static constexpr double decay = 27.0;                                                   ///< the tail ends where exp(-t) is 2e-12
    static constexpr std::array<double, 7> tailEdges{0.0, 0.8, 2.2, 4.5, 8.5, 15.0, decay}; ///< of t
};

/// 1e-6, for tables that are interpolated to less.
struct TablePrecision {
    static constexpr int nodes = 8;
    static constexpr double phase = 5.0, reach = 1.0;
    static constexpr double decay = 15.0;
    static constexpr std::array<double, 5> tailEdges{0.0, 1.2, 3.8, 8.0, decay};
};

/// The root with a real part of zero or more; the library's own takes care of cases that a path never meets.
inline Complex principalRoot(Complex z)
{
    const double size = std::sqrt(std::norm(z)), large = std::sqrt(0.5 * (size + std::abs(z.real())));
    if (large == 0.0)
        return 0.0;
    const double small = 0.5 * z.imag() / large;
    return z.real() >= 0.0 ? Complex{large, small} : Complex{std::abs(small), std::copysign(large, z.imag())};
}

/// @tparam Node called as node(x, nu0, bessel functions of order 0 and 1, their argument, weight); nu0 = sqrt(x^2-1)
template <class Node, class Precision = FullPrecision> class SommerfeldPath {
public:
    /// @param r k0 times the horizontal, @param h the vertical distance
    /// @param fadesInAir whether the integrand falls off as exp(-nu0 h) before the soil's branch point is reached
    SommerfeldPath(Complex permittivity, double r, double h, bool fadesInAir, Node node, Precision = {})
        : m_permittivity(permittivity), m_r(r), m_h(h), m_node(std::move(node))
    {
        const double refraction = std::sqrt(permittivity).real();
        m_singular = {Complex{1.0, 0.0}, std::sqrt(permittivity / (permittivity + 1.0)), std::sqrt(permittivity)};
        m_height = std::min(1.0, 2.0 / std::max(r, 1e-9));
        m_separated = h < separationRatio * r;
        m_end = m_separated ? separatedEnd(refraction) : std::max(1.25 * refraction + 1.0, 2.0);
        const double faded = 2.0 + 1.2 * tailDecay / std::max(h, 1e-12);
        m_complete = fadesInAir && !m_separated && faded < 0.8 * refraction; // all is gone before the branch point of a good conductor
        if (m_complete)
            m_end = faded;
    }

    void integrate()
    {
        const double foot = std::min(0.5, m_height);
        const Complex rise{foot, m_height}, fall{m_end - foot, m_height};
        line(0.0, rise);
        line(rise, fall);
        line(fall, m_end);
        tail();
    }

    /// Only from x = 1, along the real axis.
    void integrateEvanescent()
    {
        evanescentLine(std::sqrt(m_end * m_end - 1.0));
        tail();
    }

private:
    static constexpr double shortestPanel = 1e-6;
    static constexpr double tailDecay = Precision::decay;
    static constexpr double separationRatio = 2; // above h = 2 r the plain exponential decays fast enough
    /// Where J may be split into H(1) and H(2): past all branch points, or, for soil that conducts well, where the
    /// downward path ends before the cut of nu1, the hyperbola Re x Im x = Im(eps)/2.
    double separatedEnd(double refraction) const
    {
        const double early = std::max(2.0, 2.0 / m_r);
        const bool clearOfCut = early * tailDecay / m_r < 0.4 * std::abs(m_permittivity.imag());
        return clearOfCut ? early : std::max(early, 1.25 * refraction + 0.75);
    }

    double panelLength(Complex x) const
    {
        double length = Precision::phase / std::max(m_r + m_h, 1e-12);
        for (Complex s : m_singular)
            length = std::min(length, std::max(Precision::reach * std::abs(x - s), shortestPanel));
        return length;
    }

    void tail()
    {
        if (m_complete)
            return;
        if (m_separated)
            hankelTails();
        else
            line(m_end, m_end + tailDecay / m_h);
    }

    /// From x = 1 along the real axis with t = nu0 as variable, in which the integrand is smooth at the start.
    void evanescentLine(double end)
    {
        const Complex eps = m_permittivity;
        const std::array<Complex, 2> singular{std::sqrt(eps - 1.0), Complex{0.0, -1.0} / std::sqrt(eps + 1.0)};
        const GaussRule& rule = gaussRule(Precision::nodes);
        if (const double faded = 1.2 * tailDecay / std::max(m_h, 1e-12); faded < end) { // nothing is left beyond
            end = faded;
            m_complete = true;
        }
        for (double t = 0.0; t < end;) {
            double step = Precision::phase / std::max(m_r + m_h, 1e-12);
            for (Complex s : singular)
                step = std::min(step, std::max(Precision::reach * std::abs(t - s), 1e-4));
            step = std::min(std::min(step, std::max(0.5, t)), end - t);
            for (int i = 0; i < Precision::nodes; ++i) {
                const double nu0 = t + 0.5 * (1.0 + rule.node[i]) * step, x = std::sqrt(1.0 + nu0 * nu0);
                const double weight = 0.5 * rule.weight[i] * step * nu0 / x; // dx = t dt/x
                m_node(Complex(x), Complex(nu0), besselJ(x * m_r), Complex(x * m_r), Complex(weight));
            }
            t += step;
        }
    }

    void line(Complex from, Complex to)
    {
        const double total = std::abs(to - from);
        const Complex direction = (to - from) / total;
        double done = 0.0;
        while (done < total) {
            double step = panelLength(from + done * direction);
            if (done + 1.3 * step > total)
                step = total - done;
            panel(from + done * direction, step * direction);
            done += step;
        }
    }

    void panel(Complex start, Complex span)
    {
        const GaussRule& rule = gaussRule(Precision::nodes);
        for (int i = 0; i < Precision::nodes; ++i) {
            const Complex x = start + 0.5 * (1.0 + rule.node[i]) * span;
            const Complex nu0 = principalRoot(x * x - 1.0);
            const Complex argument = x * m_r;
            m_node(x, nu0, besselJ(argument), argument, 0.5 * rule.weight[i] * span);
        }
    }

    void hankelTails()
    {
        constexpr auto& edges = Precision::tailEdges;
        const GaussRule& rule = gaussRule(Precision::nodes);
        for (std::size_t p = 1; p < edges.size(); ++p)
            for (int i = 0; i < Precision::nodes; ++i) {
                const double half = 0.5 * (edges[p] - edges[p - 1]);
                const double t = edges[p - 1] + half * (1.0 + rule.node[i]);
                tailNode(t, half * rule.weight[i]);
            }
    }

    void tailNode(double t, double weight)
    {
        const Complex up{m_end, t / m_r}, down{m_end, -t / m_r};
        const Complex nuUp = principalRoot(up * up - 1.0), nuDown = principalRoot(down * down - 1.0);
        const Complex step = 0.5 * weight / m_r * imaginaryUnit;
        const BesselPair first = hankelFirst(up * m_r);
        const BesselPair second{std::conj(first.order0), std::conj(first.order1)};
        m_node(up, nuUp, first, up * m_r, step);
        m_node(down, nuDown, second, down * m_r, -step);
    }

    Complex m_permittivity;
    double m_r, m_h, m_height, m_end;
    bool m_separated, m_complete;
    std::array<Complex, 3> m_singular;
    Node m_node;
};

} // namespace vetchling::em
