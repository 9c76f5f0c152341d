#include "core/em/near_pair.h"

#include "core/em/gauss.h"

#include <array>
#include <cmath>
#include <vector>

namespace vetchling::em {
namespace {

constexpr int innerNodes = 7;              // Gauss nodes for the smooth rest of the inner integral
constexpr int gradedNodes = 13;            // a graded piece of the outer integral: its polynomial alone has degree 20 to 24
constexpr double closeInHalfLengths = 3.0; // nearer than this the inner integral needs its closed form
constexpr int pairTerms = largestDegree + 1;

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

/// Legendre polynomial coefficients in powers of v, row j.
constexpr std::array<std::array<double, 6>, 6> legendrePowers{{{1, 0, 0, 0, 0, 0},
                                                               {0, 1, 0, 0, 0, 0},
                                                               {-0.5, 0, 1.5, 0, 0, 0},
                                                               {0, -1.5, 0, 2.5, 0, 0},
                                                               {0.375, 0, -3.75, 0, 4.375, 0},
                                                               {0, 1.875, 0, -8.75, 0, 7.875}}};

/// int v^n / R dv and int v^n R dv over v = -1..1 with R = half * sqrt((v-v0)^2 + d2), for n = 0..degree.
struct StaticMoments {
    std::array<double, pairTerms> inverse{}, direct{};

    StaticMoments(double v0, double d2, double half, int degree)
    {
        std::array<double, pairTerms + 2> k{}; // int w^n / sqrt(w^2+d2) dw, w = v - v0
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

/// Integrals of P_i P_j R^(n-1) for n = 0..powers-1.
class NearPair {
public:
    /// @param out powers x (degree+1) x (degree+1), added to
    /// @param jacket outer radius of a jacket: then only its change of the static potential is integrated; 0 for the kernel
    NearPair(const Element& m, const Element& n, int degree, int powers, double* out, double jacket = 0.0)
        : m_observer(m), m_source(n), m_degree(degree), m_powers(powers), m_out(out), m_jacket(jacket), m_half(0.5 * n.length),
          m_self(&m == &n), m_touching(touching(m, n)), m_inner(powers)
    {
    }

    void integrate()
    {
        std::array<double, 4> edge;
        const int count = breakpoints(edge);
        for (int i = 1; i < count; ++i)
            gradedPiece(edge[i - 1], edge[i]);
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

    void gradedPiece(double from, double to)
    {
        const GaussRule& rule = gaussRule(gradedNodes);
        for (int i = 0; i < gradedNodes; ++i) {          // u = from..to, crowded at both ends; more for touching elements,
            const double x = 0.5 * (1.0 + rule.node[i]); // whose integrand has a logarithm there, than for one with itself
            const double y = m_self ? x * x * (3.0 - 2.0 * x) : x * x * x * (10.0 - 15.0 * x + 6.0 * x * x);
            const double slope = m_self ? 6.0 * x * (1.0 - x) : 30.0 * x * x * (1.0 - x) * (1.0 - x);
            observe(from + (to - from) * y, 0.5 * rule.weight[i] * slope * (to - from));
        }
    }

    void observe(double u, double weight)
    {
        for (auto& row : m_inner)
            row.fill(0.0);
        innerIntegral(m_observer.at(u), m_observer.radiusAt(u));
        double p[pairTerms];
        legendre(u, m_degree, p);
        double* out = m_out;
        for (const auto& row : m_inner)
            for (int i = 0; i <= m_degree; ++i)
                for (int j = 0; j <= m_degree; ++j)
                    *out++ += weight * p[i] * row[j];
    }

    void innerIntegral(Vec3 r, double radius)
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
                addJacket(v0, axis2, radius2, m_jacket / thicker);
            return;
        }
        const bool close = round || beyond * beyond + d2 < closeInHalfLengths * closeInHalfLengths;
        if (round) {
            for (int i = 0; i < RingRule::nodes; ++i)
                addStatic(v0, axis2 + ring().square[i] * radius2, ring().weight[i]);
        } else if (close)
            addStatic(v0, d2, 1.0);
        addByNodes(v0, d2, close);
    }

    /// All powers but those that addStatic has integrated.
    void addByNodes(double v0, double d2, bool close)
    {
        const InnerRule& rule = innerRule();
        for (int i = 0; i < innerNodes; ++i) {
            const double w = rule.node[i] - v0, R = m_half * std::sqrt(w * w + d2);
            double power = rule.weight[i] / R;
            for (int n = 0; n < m_powers; ++n, power *= R)
                if (!close || (n != 0 && n != 2))
                    for (int j = 0; j <= m_degree; ++j)
                        m_inner[n][j] += rule.polynomial[i][j] * power;
        }
    }

    struct InnerRule {
        std::array<double, innerNodes> node, weight;
        std::array<std::array<double, pairTerms>, innerNodes> polynomial;

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
    void addJacket(double v0, double axis2, double radius2, double ratio)
    {
        const double gap2 = (ratio - 1.0) * (ratio - 1.0) * radius2;
        for (int i = 0; i < RingRule::nodes; ++i) {
            const double square = ring().square[i] * radius2;
            const StaticMoments at(v0, axis2 + square, m_half, m_degree), outside(v0, axis2 + gap2 + ratio * square, m_half, m_degree);
            for (int j = 0; j <= m_degree; ++j)
                for (int n = j; n >= 0; n -= 2)
                    m_inner[0][j] += ring().weight[i] * legendrePowers[j][n] * (at.inverse[n] - outside.inverse[n]);
        }
    }

    /// 1/R and R in closed form.
    void addStatic(double v0, double d2, double weight)
    {
        const StaticMoments fixed(v0, d2, m_half, m_degree);
        for (int j = 0; j <= m_degree; ++j)
            for (int n = j; n >= 0; n -= 2) {
                m_inner[0][j] += weight * legendrePowers[j][n] * fixed.inverse[n];
                m_inner[2][j] += weight * legendrePowers[j][n] * fixed.direct[n];
            }
    }

    const Element& m_observer;
    const Element& m_source;
    int m_degree, m_powers;
    double* m_out;
    double m_jacket, m_half;
    bool m_self, m_touching;
    std::vector<std::array<double, pairTerms>> m_inner; ///< by power: the inner integral times P_j
};

} // namespace

void addNearPowers(const Element& observer, const Element& source, int degree, int powers, double* out)
{
    NearPair(observer, source, degree, powers, out).integrate();
}

void addJacketPotential(const Element& observer, const Element& source, int degree, double outerRadius, double* out)
{
    NearPair(observer, source, degree, 1, out, outerRadius).integrate();
}

} // namespace vetchling::em
