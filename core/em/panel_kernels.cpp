#include "core/em/panel_kernels.h"

#include "core/em/gauss.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <tuple>

namespace vetchling::em {
namespace {

constexpr double nearStrip = 1.0; // lengths of a strip
constexpr int ownPoints = 16;

/// For integrals of ln|t - node| times what is smooth, over a panel's -1..1, by point; what is smooth is taken as the polynomial through
/// the points (product integration).
struct LogRule {
    std::array<double, ownPoints> weight{}, log{};
    explicit LogRule(double node)
    {
        const GaussRule &points = gaussRule(ownPoints), &fine = gaussRule(24);
        for (int q = 0; q < ownPoints; ++q)
            log[q] = std::log(std::abs(points.node[q] - node));
        for (const double end : {-1.0, 1.0}) {
            double from = 1.0; // of the way from the node to the end
            for (int level = 0; level < 40; ++level, from *= 0.5)
                for (std::size_t i = 0; i < fine.node.size(); ++i) {
                    const double t = node + (end - node) * from * (0.75 + 0.25 * fine.node[i]);
                    add(points, t, std::abs(end - node) * from * 0.25 * fine.weight[i] * std::log(std::abs(t - node)));
                }
        }
    }

private:
    void add(const GaussRule& points, double t, double share)
    {
        for (int q = 0; q < ownPoints; ++q) {
            double polynomial = 1.0;
            for (int j = 0; j < ownPoints; ++j)
                if (j != q)
                    polynomial *= (t - points.node[j]) / (points.node[q] - points.node[j]);
            weight[q] += share * polynomial;
        }
    }
};

const LogRule& logRule(std::size_t node)
{
    static const std::vector<LogRule> all = [] {
        std::vector<LogRule> rules;
        for (double t : gaussRule(nodesPerPanel).node)
            rules.emplace_back(t);
        return rules;
    }();
    return all[node];
}

} // namespace

void PanelKernels::Seen::add(ProfilePoint target, ProfilePoint source, const TerrainPanel& panel, double k)
{
    constexpr double least = 1e-20; // m2
    const double dx = target.x - source.x, dz = target.z - source.z, r = std::sqrt(std::max(dx * dx + dz * dz, least));
    x.push_back(k * r);
    along.push_back((dx * panel.normalX + dz * panel.normalZ) / r);
}

/// -(j/4)(re + j im) = im/4 - j re/4.
std::pair<Complex, Complex> PanelKernels::Seen::kernel(std::size_t i, double weight, double k) const
{
    const double flat = 0.25 * weight, slope = flat * k * along[i];
    return {Complex{flat * hankel.im0[i], -flat * hankel.re0[i]}, Complex{slope * hankel.im1[i], -slope * hankel.re1[i]}};
}

/// The nodes of a long panel do where its own wave and the way to the target change together by little.
PanelKernels::Way PanelKernels::wayTo(const TerrainPanel& panel, ProfilePoint target, double away) const
{
    constexpr double farEnough = 0.6, mostTurn = 2.0; // lengths; rad
    if (panel.turn == 0.0 || away < farEnough * panel.length)
        return Way::Strips;
    const auto phase = [&](double t) {
        const ProfilePoint p = panel.at(t);
        return m_k * std::hypot(p.x - target.x, p.z - target.z) + t * panel.turn;
    };
    const double first = phase(-1.0), middle = phase(0.0), last = phase(1.0);
    return std::max({first, middle, last}) - std::min({first, middle, last}) < mostTurn ? Way::Nodes : Way::Strips;
}

void PanelKernels::seeAll(ProfilePoint target, PanelRange sources, Row& row) const
{
    row.far.clear(), row.ways.clear(), row.isNear.clear();
    for (std::size_t p = sources.first; p < sources.last; ++p) {
        const TerrainPanel& panel = m_mesh.panels[p];
        const double away = panel.distanceTo(target, -1.0, 1.0);
        row.ways.push_back(wayTo(panel, target, away));
        if (row.ways.back() == Way::Nodes) {
            for (std::size_t i = p * nodesPerPanel; i < (p + 1) * nodesPerPanel; ++i)
                row.far.add(target, m_mesh.nodes[i], panel, m_k);
            continue;
        }
        for (const TerrainStrip& strip : m_mesh.strips[p]) {
            const double length = 0.5 * (strip.b - strip.a) * panel.length;
            row.isNear.push_back(away < nearStrip * length && panel.distanceTo(target, strip.a, strip.b) < nearStrip * length);
            if (!row.isNear.back())
                for (ProfilePoint q : strip.points)
                    row.far.add(target, q, panel, m_k);
        }
    }
    row.far.hankel.fill(row.far.x);
}

void PanelKernels::fillRow(std::size_t target, PanelRange sources, Row& row, Complex* single, Complex* twin, std::size_t stride) const
{
    const ProfilePoint place = m_mesh.nodes[target];
    const std::size_t own = m_mesh.panels[target / nodesPerPanel].piece;
    seeAll(place, sources, row);
    std::size_t point = 0, number = 0;
    for (std::size_t p = sources.first; p < sources.last; ++p) {
        NodeShares g{}, slope{};
        const bool isPlain = m_mesh.strips[p].size() == 1;
        const bool isOwn = p == target / nodesPerPanel && isPlain;
        if (row.ways[p - sources.first] == Way::Nodes) {
            for (int i = 0; i < nodesPerPanel; ++i)
                std::tie(g[i], slope[i]) = row.far.kernel(point++, m_mesh.weights[p * nodesPerPanel + i], m_k);
        } else
            for (const TerrainStrip& strip : m_mesh.strips[p]) {
                if (row.isNear[number++]) {
                    if (isOwn)
                        addOwn(target, row.near, g);
                    else
                        addNear(place, p, strip, row.near, g, slope);
                    continue;
                }
                for (int i = 0; i < nodesPerPanel; ++i) {
                    const auto [one, other] = row.far.kernel(point++, strip.weights[i], m_k);
                    if (isPlain) {
                        g[i] += one, slope[i] += other;
                        continue;
                    }
                    for (int j = 0; j < nodesPerPanel; ++j)
                        g[j] += one * strip.shares[i][j], slope[j] += other * strip.shares[i][j];
                }
            }
        for (int i = 0; i < nodesPerPanel; ++i) {
            const std::size_t column = (p - sources.first) * nodesPerPanel + i;
            single[column * stride] = g[i];
            twin[column * stride] = m_mesh.panels[p].piece == own ? 0.0 : slope[i]; // in line
        }
    }
}

/// H0(2) = J0 - j Y0, where Y0 less (2/pi) ln x J0 is smooth.
void PanelKernels::addOwn(std::size_t target, Seen& seen, NodeShares& single) const
{
    const std::size_t number = target / nodesPerPanel;
    const TerrainPanel& panel = m_mesh.panels[number];
    const GaussRule& points = gaussRule(ownPoints);
    const LogRule& logs = logRule(target % nodesPerPanel);
    seen.clear();
    for (double t : points.node)
        seen.add(m_mesh.nodes[target], panel.at(t), panel, m_k);
    seen.hankel.fill(seen.x);
    for (int q = 0; q < ownPoints; ++q) {
        const double weight = points.weight[q], j0 = seen.hankel.re0[q], y0 = -seen.hankel.im0[q];
        const double out = weight * y0 + 2.0 / pi * (logs.weight[q] - weight * logs.log[q]) * j0;
        const Complex value = -0.125 * panel.length * m_mesh.windowAt(panel.at(points.node[q]).x) * Complex{out, weight * j0};
        const auto polynomials = polynomialsAt(points.node[q]);
        for (int j = 0; j < nodesPerPanel; ++j)
            single[j] += value * polynomials[j];
    }
}

/// Halved until no part is much longer than it is away.
void PanelKernels::addNear(ProfilePoint target, std::size_t number, const TerrainStrip& strip, Seen& seen, NodeShares& single,
                           NodeShares& twin) const
{
    constexpr int order = 8;
    constexpr double closest = 1e-3, nearest = 0.7; // of -1..1; lengths
    const TerrainPanel& panel = m_mesh.panels[number];
    std::vector<std::pair<double, double>> open{{strip.a, strip.b}};
    std::vector<double> place, weight;
    const GaussRule& rule = gaussRule(order);
    seen.clear();
    while (!open.empty()) {
        const auto [a, b] = open.back();
        open.pop_back();
        if (b - a > closest && panel.distanceTo(target, a, b) < nearest * 0.5 * (b - a) * panel.length) {
            open.emplace_back(a, 0.5 * (a + b));
            open.emplace_back(0.5 * (a + b), b);
            continue;
        }
        for (int i = 0; i < order; ++i) {
            place.push_back(0.5 * (a + b) + 0.5 * (b - a) * rule.node[i]);
            weight.push_back(0.25 * (b - a) * panel.length * rule.weight[i]);
            seen.add(target, panel.at(place.back()), panel, m_k);
        }
    }
    seen.hankel.fill(seen.x);
    for (std::size_t i = 0; i < place.size(); ++i) {
        const auto [g, slope] = seen.kernel(i, weight[i] * m_mesh.windowAt(panel.at(place[i]).x), m_k);
        const NodeShares shares = m_mesh.sharesAt(number, place[i]);
        for (int j = 0; j < nodesPerPanel; ++j)
            single[j] += g * shares[j], twin[j] += slope * shares[j];
    }
}

void PanelKernels::fill(PanelRange targets, PanelRange sources, Block& out) const
{
    const std::size_t rows = targets.nodes();
    out.single.resize(rows * sources.nodes());
    out.twin.resize(rows * sources.nodes());
    Row row;
    for (std::size_t i = 0; i < rows; ++i)
        fillRow(targets.firstNode() + i, sources, row, out.single.data() + i, out.twin.data() + i, rows);
}

} // namespace vetchling::em
