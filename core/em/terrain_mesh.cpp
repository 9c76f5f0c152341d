#include "core/em/terrain_mesh.h"

#include "core/em/gauss.h"

#include <algorithm>
#include <cmath>

namespace vetchling::em {
namespace {

constexpr double longestStrip = 0.9;  // wavelengths
constexpr double longestPanel = 4.0;  // wavelengths
constexpr double waveGrowth = 0.05;   // of the distance from sources: near them the little that comes back counts at steep angles
constexpr double longestFading = 1.0; // wavelengths
constexpr double growth = 0.3;        // of the distance from corners and sources
constexpr double coarserFrom = 10.0, finestFar = 0.2; // wavelengths: corners far off are seen less sharply
constexpr double fullWindow = 1.0, fading = 4.0;      // wavelengths beyond the outermost corners

double distance(ProfilePoint a, ProfilePoint b) { return std::sqrt((a.x - b.x) * (a.x - b.x) + (a.z - b.z) * (a.z - b.z)); }

/// Wavelengths of the panels at a corner: fields there are the less smooth the sharper it is.
double finestAt(const TerrainSurface::Piece& before, const TerrainSurface::Piece& after)
{
    constexpr double finest = 0.04, sharp = 1.0, alike = 0.02; // rad; of the permittivity
    const double turn = std::abs(std::atan2(after.to.z - after.from.z, after.to.x - after.from.x) -
                                 std::atan2(before.to.z - before.from.z, before.to.x - before.from.x));
    if (std::abs(after.permittivity - before.permittivity) > alike * std::abs(before.permittivity))
        return finest;
    return std::clamp(finest * std::pow(sharp / std::max(turn, 1e-6), 2), finest, longestPanel);
}

} // namespace

double fadeOut(double t) { return t <= 0.0 ? 1.0 : t >= 1.0 ? 0.0 : std::exp(2.0 * std::exp(-1.0 / t) / (t - 1.0)); }

double TerrainPanel::distanceTo(ProfilePoint p, double a, double b) const
{
    const double dx = to.x - from.x, dz = to.z - from.z;
    const double t = 2.0 * ((p.x - from.x) * dx + (p.z - from.z) * dz) / (length * length) - 1.0;
    return distance(p, at(std::clamp(t, a, b)));
}

TerrainMesh::TerrainMesh(const TerrainProfile& profile, double frequency, double lowest)
    : foot(profile.heightAt(0.0)), m_wave(wavelength(frequency)), m_lowest(lowest)
{
    layPieces(profile, frequency);
    for (std::size_t p = 0; p < pieces.size(); ++p)
        layPiece(p);
}

void TerrainMesh::layPieces(const TerrainProfile& profile, double frequency)
{
    std::vector<ProfilePoint> all = profile.corners;
    std::vector<Ground> soils = profile.soils;
    while (all.size() > 1 && all[all.size() - 2].z == all.back().z && soils[soils.size() - 2] == soils.back())
        all.pop_back(), soils.pop_back(); // level to infinity from where it begins to be
    while (all.size() > 1 && all[0].z == all[1].z && soils[0] == soils[1])
        all.erase(all.begin()), soils.erase(soils.begin());
    if (all.empty())
        all.push_back({0.0, 0.0});
    const double beyond = (fullWindow + fading) * m_wave;
    m_first = std::min(all.front().x, 0.0) - beyond, m_last = std::max(all.back().x, 0.0) + beyond;
    all.insert(all.begin(), {m_first, all.front().z});
    all.push_back({m_last, all.back().z});
    for (std::size_t i = 1; i < all.size(); ++i)
        pieces.push_back({all[i - 1], all[i], soils[std::min(i - 1, soils.size() - 1)].complexPermittivity(frequency)});
    m_finest.assign(pieces.size() + 1, HUGE_VAL); // nothing is special at the far ends
    for (std::size_t i = 1; i < pieces.size(); ++i) {
        const double finest = finestAt(pieces[i - 1], pieces[i]), away = std::abs(all[i].x) / m_wave;
        m_finest[i] = m_wave * std::min(std::max(finest, finestFar), finest * std::max(1.0, away / coarserFrom));
    }
}

double TerrainMesh::longestBeside(std::size_t corner, double away) const
{
    if (std::isinf(m_finest[corner]))
        return HUGE_VAL;
    constexpr double gentle = 0.1; // wavelengths: little comes back from there
    return std::max({m_finest[corner], std::min(away, longestStrip * m_wave), (m_finest[corner] > gentle * m_wave ? 1.0 : growth) * away});
}

void TerrainMesh::layPiece(std::size_t piece)
{
    const double length = distance(pieces[piece].from, pieces[piece].to);
    const int equal = std::max(1, int(std::ceil(length / (longestPanel * m_wave))));
    for (int i = 0; i < equal; ++i)
        lay(piece, double(i) / equal, double(i + 1) / equal);
}

/// Parts from..to of a piece, halved towards corners and under the sources.
void TerrainMesh::lay(std::size_t piece, double from, double to)
{
    const TerrainSurface::Piece& p = pieces[piece];
    const auto at = [&](double t) { return ProfilePoint{p.from.x + t * (p.to.x - p.from.x), p.from.z + t * (p.to.z - p.from.z)}; };
    TerrainPanel panel{at(from), at(to), 0.0, 0.0, 1.0, piece};
    panel.length = distance(panel.from, panel.to);
    const double whole = distance(p.from, p.to), under = panel.distanceTo({0.0, foot}, -1.0, 1.0);
    const double source =
        std::max({m_lowest, std::min(under, longestStrip * m_wave), std::min(growth * under, std::max(m_wave, waveGrowth * under))});
    const bool fades = windowAt(panel.from.x) < 1.0 || windowAt(panel.to.x) < 1.0; // too fast for a long polynomial
    const double most = std::min({(fades ? longestFading : longestPanel) * m_wave, longestBeside(piece, from * whole),
                                  longestBeside(piece + 1, (1.0 - to) * whole), source});
    if (panel.length > 1.001 * most) {
        lay(piece, from, 0.5 * (from + to));
        lay(piece, 0.5 * (from + to), to);
        return;
    }
    panel.normalX = -(panel.to.z - panel.from.z) / panel.length;
    panel.normalZ = (panel.to.x - panel.from.x) / panel.length;
    addPanel(panel);
}

void TerrainMesh::addPanel(TerrainPanel panel)
{
    const int count = std::max(1, int(std::ceil(panel.length / (1.001 * longestStrip * m_wave))));
    const auto away = [&](ProfilePoint p) { return std::hypot(p.x, p.z - foot); };
    if (count > 1) // short ones hold waves of both directions
        panel.turn = pi / m_wave * (away(panel.to) - away(panel.from));
    panels.push_back(panel);
    const GaussRule& rule = gaussRule(nodesPerPanel);
    NodeShares& wave = waves.emplace_back();
    for (int i = 0; i < nodesPerPanel; ++i)
        wave[i] = std::polar(1.0, panel.turn * rule.node[i]);
    std::vector<TerrainStrip>& parts = strips.emplace_back();
    for (int s = 0; s < count; ++s) {
        TerrainStrip& strip = parts.emplace_back();
        strip.a = -1.0 + 2.0 * s / count, strip.b = -1.0 + 2.0 * (s + 1) / count;
        for (int i = 0; i < nodesPerPanel; ++i) {
            const double t = 0.5 * (strip.a + strip.b) + 0.5 * (strip.b - strip.a) * rule.node[i];
            strip.points[i] = panel.at(t);
            strip.shares[i] = sharesAt(panels.size() - 1, t);
            strip.weights[i] = 0.5 * panel.length * rule.weight[i] / count * windowAt(strip.points[i].x);
        }
    }
    for (int i = 0; i < nodesPerPanel; ++i) {
        nodes.push_back(panel.at(rule.node[i]));
        weights.push_back(0.5 * panel.length * rule.weight[i] * windowAt(nodes.back().x));
    }
}

NodeShares TerrainMesh::sharesAt(std::size_t panel, double t) const
{
    const auto polynomials = polynomialsAt(t);
    NodeShares out;
    if (panels[panel].turn == 0.0) {
        std::copy(polynomials.begin(), polynomials.end(), out.begin());
        return out;
    }
    const Complex here = std::polar(1.0, -panels[panel].turn * t);
    for (int i = 0; i < nodesPerPanel; ++i)
        out[i] = polynomials[i] * (here * waves[panel][i]);
    return out;
}

double TerrainMesh::windowAt(double x) const
{
    const double length = fading * m_wave;
    if (x > m_first + length && x < m_last - length)
        return 1.0;
    return fadeOut((m_first + length - x) / length) * fadeOut((x - m_last + length) / length);
}

} // namespace vetchling::em
