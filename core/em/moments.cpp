#include "core/em/moments.h"

#include "core/em/cos_sin.h"
#include "core/em/gauss.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace vetchling::em {
namespace {

constexpr double nearRatio = 0.9;          // pairs closer than this times the longer element are near
constexpr int innerNodes = 7;              // Gauss nodes for the smooth rest of the inner integral
constexpr int gradedNodes = 13;            // a graded piece of the outer integral: its polynomial alone has degree 20 to 24
constexpr double closeInHalfLengths = 3.0; // nearer than this the inner integral needs its closed form
constexpr double ringReach = 8.0;          // radii; beyond, the mean squared distance on the surface serves to 2e-4
constexpr double shortRatio = 0.25;        // of length to distance, below which few nodes do
constexpr int terms = largestDegree + 1;

/// What counts of the squared radius of a pair whose axes are this far apart where it matters: all on one axis, nothing two
/// radii apart, where the mean potential over a circle of a line outside it is that of the axes.
double radiusShare(double offAxis2, double radius) { return std::max(0.0, 1.0 - offAxis2 / (4.0 * radius * radius)); }

/// Mean over the angle p between two points of a tube's surface, 2 a sin(p/2) apart: p = pi x^2 takes out the logarithm at
/// small distance. The factor makes the mean of the logarithm exact, that of the distance right to 0.06 %.
struct RingRule {
    static constexpr int nodes = 6;
    std::array<double, nodes> square{}, weight{}; ///< squared distance in squared radii

    RingRule()
    {
        const GaussRule& rule = gaussRule(nodes);
        double meanLog = 0.0;
        for (int i = 0; i < nodes; ++i) {
            const double x = 0.5 * (1.0 + rule.node[i]), apart = 2.0 * std::sin(0.5 * pi * x * x);
            square[i] = apart * apart;
            weight[i] = rule.weight[i] * x;
            meanLog += weight[i] * std::log(apart);
        }
        for (double& s : square)
            s *= std::exp(-2.0 * meanLog);
    }
};

constexpr double meanSquare = 2.0; // of the distance between two points of a circle, in squared radii

/// Legendre polynomial coefficients in powers of v, row j.
constexpr std::array<std::array<double, 6>, 6> legendrePowers{{{1, 0, 0, 0, 0, 0},
                                                               {0, 1, 0, 0, 0, 0},
                                                               {-0.5, 0, 1.5, 0, 0, 0},
                                                               {0, -1.5, 0, 2.5, 0, 0},
                                                               {0.375, 0, -3.75, 0, 4.375, 0},
                                                               {0, 1.875, 0, -8.75, 0, 7.875}}};

/// int v^n / R dv and int v^n R dv over v = -1..1 with R = half * sqrt((v-v0)^2 + d2), for n = 0..degree.
struct StaticMoments {
    std::array<double, terms> inverse{}, direct{};

    StaticMoments(double v0, double d2, double half, int degree)
    {
        std::array<double, terms + 2> k{}; // int w^n / sqrt(w^2+d2) dw, w = v - v0
        const double lower = -1.0 - v0, upper = 1.0 - v0;
        const double rl = std::sqrt(lower * lower + d2), ru = std::sqrt(upper * upper + d2);
        k[0] = logDifference(lower, upper, rl, ru, d2);
        k[1] = ru - rl;
        double pl = lower, pu = upper;
        for (int n = 2; n <= degree + 2; ++n) {
            k[n] = (pu * ru - pl * rl - (n - 1) * d2 * k[n - 2]) / n;
            pl *= lower;
            pu *= upper;
        }
        for (int n = 0; n <= degree; ++n) { // v^n = sum C(n,m) v0^(n-m) w^m
            double binomial = 1.0, power = 1.0, sumInverse = 0.0, sumDirect = 0.0;
            for (int m = n; m >= 0; --m) {
                sumInverse += binomial * power * k[m];
                sumDirect += binomial * power * (k[m + 2] + d2 * k[m]);
                binomial = binomial * m / (n - m + 1);
                power *= v0;
            }
            inverse[n] = sumInverse / half;
            direct[n] = sumDirect * half;
        }
    }

    /// asinh(upper/d) - asinh(lower/d) without loss of digits on either side.
    static double logDifference(double lower, double upper, double rl, double ru, double d2)
    {
        if (lower >= 0.0)
            return std::log((upper + ru) / (lower + rl));
        if (upper <= 0.0)
            return std::log((rl - lower) / (ru - upper));
        return std::log((upper + ru) * (rl - lower) / d2);
    }
};

bool touching(const Element& m, const Element& n)
{
    return std::min({distance(m.start, n.start), distance(m.start, n.end), distance(m.end, n.start), distance(m.end, n.end)}) <
           2.0 * jointTolerance;
}

class NearPair {
public:
    /// @param jacket outer radius of a jacket: then only its change of the static potential is integrated; 0 for the kernel
    NearPair(const Element& m, const Element& n, double k, int degree, double jacket = 0.0)
        : m_observer(m), m_source(n), m_k(k), m_degree(degree), m_jacket(jacket), m_half(0.5 * n.length), m_self(&m == &n),
          m_touching(touching(m, n))
    {
    }

    void integrate(Moments& out)
    {
        std::array<double, 4> edge;
        const int count = breakpoints(edge);
        for (int i = 1; i < count; ++i)
            gradedPiece(edge[i - 1], edge[i], out);
    }

private:
    /// Ends of the observer and the source's ends projected on it: there the inner integral changes fast.
    int breakpoints(std::array<double, 4>& edge) const
    {
        int count = 0;
        edge[count++] = -1.0;
        for (Vec3 p : {m_source.start, m_source.end}) {
            const double u = 2.0 * dot(p - m_observer.centre(), m_observer.tangent) / m_observer.length;
            const double off = distance(p, m_observer.at(std::clamp(u, -1.0, 1.0)));
            if (std::abs(u) < 0.999 && off < 0.5 * m_observer.length)
                edge[count++] = u;
        }
        if (count == 3 && edge[2] < edge[1])
            std::swap(edge[1], edge[2]);
        edge[count++] = 1.0;
        return count;
    }

    void gradedPiece(double from, double to, Moments& out)
    {
        const GaussRule& rule = gaussRule(gradedNodes);
        for (int i = 0; i < gradedNodes; ++i) {          // u = from..to, crowded at both ends; more for touching elements,
            const double x = 0.5 * (1.0 + rule.node[i]); // whose integrand has a logarithm there, than for one with itself
            const double y = m_self ? x * x * (3.0 - 2.0 * x) : x * x * x * (10.0 - 15.0 * x + 6.0 * x * x);
            const double slope = m_self ? 6.0 * x * (1.0 - x) : 30.0 * x * x * (1.0 - x) * (1.0 - x);
            observe(from + (to - from) * y, 0.5 * rule.weight[i] * slope * (to - from), out);
        }
    }

    void observe(double u, double weight, Moments& out)
    {
        std::array<Complex, terms> inner{};
        innerIntegral(m_observer.at(u), m_observer.radiusAt(u), inner);
        double p[terms];
        legendre(u, m_degree, p);
        for (int i = 0; i <= m_degree; ++i)
            for (int j = 0; j <= m_degree; ++j)
                out.value[i][j] += weight * p[i] * inner[j];
    }

    void innerIntegral(Vec3 r, double radius, std::array<Complex, terms>& inner)
    {
        const Vec3 away = r - m_source.centre();
        const double along = dot(away, m_source.tangent);
        const double offAxis2 = std::max(0.0, dot(away, away) - along * along);
        const double v0 = along / m_half, thicker = std::max(radius, m_source.radiusAt(std::clamp(v0, -1.0, 1.0)));
        const double radius2 = (m_touching ? 1.0 : radiusShare(offAxis2, thicker)) * thicker * thicker / (m_half * m_half);
        const double axis2 = offAxis2 / (m_half * m_half), d2 = axis2 + meanSquare * radius2;
        const double beyond = std::max(0.0, std::abs(v0) - 1.0);
        const double felt = ringReach * std::max(1.0, m_jacket / thicker); // so near that the tube's section is felt
        const bool round = beyond * beyond < felt * felt * radius2;
        if (m_jacket > 0.0) {
            if (round)
                addJacket(v0, axis2, radius2, m_jacket / thicker, inner);
            return;
        }
        const bool close = round || beyond * beyond + d2 < closeInHalfLengths * closeInHalfLengths;
        if (round) {
            for (int i = 0; i < RingRule::nodes; ++i)
                addStatic(v0, axis2 + ring().square[i] * radius2, ring().weight[i], inner);
        } else if (close)
            addStatic(v0, d2, 1.0, inner);
        const InnerRule& rule = innerRule();
        for (int i = 0; i < innerNodes; ++i) {
            const double w = rule.node[i] - v0, R = m_half * std::sqrt(w * w + d2);
            const Complex rest = rule.weight[i] * (close ? smoothRest(R) : Complex{std::cos(m_k * R) / R, -std::sin(m_k * R) / R});
            for (int j = 0; j <= m_degree; ++j)
                inner[j] += rule.polynomial[i][j] * rest;
        }
    }

    struct InnerRule {
        std::array<double, innerNodes> node, weight;
        std::array<std::array<double, terms>, innerNodes> polynomial;

        InnerRule()
        {
            const GaussRule& rule = gaussRule(innerNodes);
            for (int i = 0; i < innerNodes; ++i) {
                node[i] = rule.node[i], weight[i] = rule.weight[i];
                legendre(node[i], largestDegree, polynomial[i].data());
            }
        }
    };

    static const InnerRule& innerRule()
    {
        static const InnerRule rule;
        return rule;
    }

    static const RingRule& ring()
    {
        static const RingRule rule;
        return rule;
    }

    /// Potential at the conductor less that at the jacket's surface, `ratio` times as far from the axis.
    void addJacket(double v0, double axis2, double radius2, double ratio, std::array<Complex, terms>& inner) const
    {
        const double gap2 = (ratio - 1.0) * (ratio - 1.0) * radius2;
        for (int i = 0; i < RingRule::nodes; ++i) {
            const double square = ring().square[i] * radius2;
            const StaticMoments at(v0, axis2 + square, m_half, m_degree), outside(v0, axis2 + gap2 + ratio * square, m_half, m_degree);
            for (int j = 0; j <= m_degree; ++j)
                for (int n = j; n >= 0; n -= 2)
                    inner[j] += ring().weight[i] * legendrePowers[j][n] * (at.inverse[n] - outside.inverse[n]);
        }
    }

    void addStatic(double v0, double d2, double weight, std::array<Complex, terms>& inner) const
    {
        const StaticMoments fixed(v0, d2, m_half, m_degree);
        for (int j = 0; j <= m_degree; ++j)
            for (int n = j; n >= 0; n -= 2)
                inner[j] += weight * legendrePowers[j][n] * (fixed.inverse[n] - 0.5 * m_k * m_k * fixed.direct[n]);
    }

    /// (exp(-jkR) - 1)/R + k^2 R/2, by its series where the difference would lose digits.
    Complex smoothRest(double distance) const
    {
        const double x = m_k * distance;
        if (x < 0.05)
            return m_k * Complex{x * x * x / 24.0, -1.0 + x * x / 6.0 * (1.0 - 0.05 * x * x)};
        return Complex{(std::cos(x) - 1.0) / distance + 0.5 * m_k * x, -std::sin(x) / distance};
    }

    const Element& m_observer;
    const Element& m_source;
    double m_k;
    int m_degree;
    double m_jacket, m_half;
    bool m_self, m_touching;
};

int farNodes(const Element& e, double k, double closest, int degree)
{
    const double sharpness = e.length / std::max(closest, 1e-12);
    if (sharpness < shortRatio && k * e.length < shortRatio) // the kernel is a parabola, hardly more
        return degree / 2 + 2;
    return std::min(12, degree + 2 + int(2.0 * sharpness) + int(k * e.length));
}

void farMoments(const Element& m, const Element& n, double k, int degree, double radius2, double closest, Moments& out)
{
    const GaussRule& outer = gaussRule(farNodes(m, k, closest, degree));
    const GaussRule& inner = gaussRule(farNodes(n, k, closest, degree));
    std::array<std::array<double, terms>, 16> polynomial;
    std::array<Vec3, 16> point;
    for (std::size_t b = 0; b < inner.node.size(); ++b) {
        legendre(inner.node[b], degree, polynomial[b].data());
        point[b] = n.at(inner.node[b]);
    }
    std::array<double, 16> distance, phase, cosine, sine;
    for (std::size_t a = 0; a < outer.node.size(); ++a) {
        const Vec3 r = m.at(outer.node[a]);
        std::array<Complex, terms> row{};
        for (std::size_t b = 0; b < inner.node.size(); ++b) {
            const Vec3 away = r - point[b];
            distance[b] = std::sqrt(dot(away, away) + radius2);
            phase[b] = k * distance[b];
        }
        cosSin(phase.data(), int(inner.node.size()), cosine.data(), sine.data());
        for (std::size_t b = 0; b < inner.node.size(); ++b) {
            const double w = inner.weight[b] / distance[b];
            const Complex g{w * cosine[b], -w * sine[b]};
            for (int j = 0; j <= degree; ++j)
                row[j] += polynomial[b][j] * g;
        }
        double p[terms];
        legendre(outer.node[a], degree, p);
        for (int i = 0; i <= degree; ++i)
            for (int j = 0; j <= degree; ++j)
                out.value[i][j] += outer.weight[a] * p[i] * row[j];
    }
}

Moments transposed(const Moments& in, int degree)
{
    Moments out;
    for (int i = 0; i <= degree; ++i)
        for (int j = 0; j <= degree; ++j)
            out.value[i][j] = in.value[j][i];
    return out;
}

} // namespace

Complex Moments::form(const LegendreSum& left, const LegendreSum& right) const
{
    Complex sum = 0.0;
    for (int a = 0; a < left.terms; ++a)
        for (int b = 0; b < right.terms; ++b)
            sum += left.factor[a] * right.factor[b] * value[left.index[a]][right.index[b]];
    return sum;
}

void kernelMoments(const Element& observer, const Element& source, double waveNumber, int degree, Moments& out)
{
    if (observer.length > source.length) { // the closed form over the longer element, the graded rule over the shorter
        Moments swapped;
        kernelMoments(source, observer, waveNumber, degree, swapped);
        out = transposed(swapped, degree);
        return;
    }
    out = Moments{};
    const double closest = segmentDistance(observer.start, observer.end, source.start, source.end);
    const double thicker = std::max(observer.radius, source.radius);
    const Vec3 away = observer.centre() - source.centre();
    const double along = dot(away, source.tangent), offAxis2 = std::max(0.0, dot(away, away) - along * along);
    const double radius2 = meanSquare * radiusShare(offAxis2, thicker) * thicker * thicker;
    const double near = std::max(nearRatio * std::max(observer.length, source.length), radius2 > 0.0 ? ringReach * thicker : 0.0);
    if (closest > near) {
        farMoments(observer, source, waveNumber, degree, radius2, closest, out);
    } else
        NearPair(observer, source, waveNumber, degree).integrate(out);
}

void jacketMoments(const Element& observer, const Element& source, double outerRadius, int degree, Moments& out)
{
    if (observer.length > source.length) {
        Moments swapped;
        jacketMoments(source, observer, outerRadius, degree, swapped);
        out = transposed(swapped, degree);
        return;
    }
    out = Moments{};
    if (segmentDistance(observer.start, observer.end, source.start, source.end) < ringReach * outerRadius)
        NearPair(observer, source, 0.0, degree, outerRadius).integrate(out);
}

} // namespace vetchling::em
