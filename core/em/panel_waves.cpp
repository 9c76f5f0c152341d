#include "core/em/panel_waves.h"

#include "core/em/gauss.h"

#include <algorithm>
#include <cmath>
#include <vector>

namespace vetchling::em {
namespace {

constexpr double tableStep = 0.125, tableEnd = 28.0;

/// One over what each polynomial's factors are at its own node.
std::array<double, nodesPerPanel> scales()
{
    const std::vector<double>& node = gaussRule(nodesPerPanel).node;
    std::array<double, nodesPerPanel> out{};
    for (int i = 0; i < nodesPerPanel; ++i) {
        out[i] = 1.0;
        for (int j = 0; j < nodesPerPanel; ++j)
            if (j != i)
                out[i] /= node[i] - node[j];
    }
    return out;
}

NodeShares integrated(double turn)
{
    const GaussRule& rule = gaussRule(48);
    NodeShares out{};
    for (std::size_t q = 0; q < rule.node.size(); ++q) {
        const auto polynomials = polynomialsAt(rule.node[q]);
        const Complex wave = std::polar(rule.weight[q], turn * rule.node[q]);
        for (int i = 0; i < nodesPerPanel; ++i)
            out[i] += wave * polynomials[i];
    }
    return out;
}

/// From one step below 0 to two beyond the end.
std::vector<NodeShares> waveTable()
{
    std::vector<NodeShares> all;
    for (int i = -1; i <= int(tableEnd / tableStep) + 3; ++i)
        all.push_back(integrated(i * tableStep));
    return all;
}

} // namespace

std::array<double, nodesPerPanel> polynomialsAt(double t)
{
    static const std::array<double, nodesPerPanel> scale = scales();
    const std::vector<double>& node = gaussRule(nodesPerPanel).node;
    std::array<double, nodesPerPanel> out = scale;
    double before = 1.0, after = 1.0;
    for (int i = 0; i < nodesPerPanel; ++i) {
        const int j = nodesPerPanel - 1 - i;
        out[i] *= before, out[j] *= after;
        before *= t - node[i], after *= t - node[j];
    }
    return out;
}

NodeShares waveIntegrals(double turn)
{
    static const std::vector<NodeShares> table = waveTable();
    const double place = std::min(std::abs(turn), tableEnd) / tableStep, first = std::floor(place), t = place - first;
    const NodeShares* p = table.data() + std::size_t(first);
    const double w0 = -t * (t - 1.0) * (t - 2.0) / 6.0, w1 = 0.5 * (t + 1.0) * (t - 1.0) * (t - 2.0), w2 = -0.5 * (t + 1.0) * t * (t - 2.0),
                 w3 = (t + 1.0) * t * (t - 1.0) / 6.0;
    NodeShares out;
    for (int i = 0; i < nodesPerPanel; ++i) {
        const Complex value = w0 * p[0][i] + w1 * p[1][i] + w2 * p[2][i] + w3 * p[3][i];
        out[i] = turn < 0.0 ? std::conj(value) : value;
    }
    return out;
}

} // namespace vetchling::em
