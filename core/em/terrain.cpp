#include "core/em/terrain.h"

#include "core/em/gauss.h"
#include "core/em/panel_waves.h"

#include <algorithm>
#include <cmath>

namespace vetchling::em {
namespace {

/// Fresnel's coefficient of an impedance, relative to that of air.
Complex reflected(Complex impedance, double sine) { return (sine - impedance) / (sine + impedance); }

} // namespace

Complex surfaceImpedance(Complex permittivity, bool isVertical, double cosine)
{
    const Complex across = std::sqrt(permittivity - cosine * cosine);
    return isVertical ? across / permittivity : across;
}

TerrainResponse flatResponse(const Ground& ground, double frequency, double height, double elevation)
{
    const double s = std::sin(elevation), c = std::cos(elevation);
    const Complex up = std::polar(1.0, waveNumber(frequency) * height * s), down = std::conj(up);
    const Complex permittivity = ground.complexPermittivity(frequency);
    const Complex te = reflected(surfaceImpedance(permittivity, false, c), s), tm = reflected(surfaceImpedance(permittivity, true, c), s);
    return {up + te * down, s * (up - tm * down), c * (up + tm * down)};
}

TerrainField::TerrainField(TerrainSurface surface)
    : m_surface(std::make_shared<const TerrainSurface>(std::move(surface))), m_waveNumber(m_surface->waveNumber)
{
    for (const TerrainSurface::Piece& p : m_surface->pieces)
        m_permittivities.push_back(p.permittivity);
    const auto& grazing = m_surface->grazing.across;
    const auto& steep = m_surface->steep.across;
    const auto isSame = [&](std::size_t i) { return steep.empty() || grazing.front()[i] == steep.front()[i]; };
    m_steepFrom = 0, m_steepTo = unknowns();
    while (m_steepFrom < m_steepTo && isSame(m_steepFrom))
        ++m_steepFrom;
    while (m_steepTo > m_steepFrom && isSame(m_steepTo - 1))
        --m_steepTo;
    takeWaves();
}

void TerrainField::takeWaves()
{
    const std::vector<double>& node = gaussRule(nodesPerPanel).node;
    const double slower = m_surface->waveNumber - m_waveNumber, faster = m_waveNumber / m_surface->waveNumber;
    m_waves.clear();
    for (const TerrainPanel& panel : m_surface->panels)
        for (double t : node) {
            const ProfilePoint p = panel.at(t);
            m_waves.push_back(std::polar(1.0, faster * panel.turn * t + slower * std::hypot(p.x, p.z - m_surface->foot)));
        }
}

namespace {

/// Of the angle to each piece at which the direct wave comes in, grazing where it does not.
std::vector<double> localCosines(const std::vector<TerrainSurface::Piece>& pieces, Side side, double elevation)
{
    const double way = side == Side::Along ? 1.0 : -1.0, slope = std::tan(elevation);
    std::vector<double> cosines;
    for (const TerrainSurface::Piece& p : pieces) {
        const double dx = p.to.x - p.from.x, dz = p.to.z - p.from.z, length = std::hypot(dx, dz);
        const double sine = (-dz * way * std::cos(elevation) + dx * std::sin(elevation)) / length;
        const ProfilePoint middle{0.5 * (p.from.x + p.to.x), 0.5 * (p.from.z + p.to.z)};
        const bool hidden = std::any_of(pieces.begin(), pieces.end(), [&](const TerrainSurface::Piece& q) {
            for (ProfilePoint corner : {q.from, q.to})
                if (const double away = way * (corner.x - middle.x); away > 0.0 && corner.z - middle.z > away * slope + 1e-6)
                    return true;
            return false;
        });
        cosines.push_back(hidden || sine <= 0.0 ? 1.0 : std::sqrt(std::max(0.0, 1.0 - sine * sine)));
    }
    return cosines;
}

} // namespace

std::vector<TerrainResponse> TerrainField::responses(Side side, double elevation) const
{
    const TerrainSurface& surface = *m_surface;
    const double k = m_waveNumber, faster = k / surface.waveNumber, way = side == Side::Along ? 1.0 : -1.0, s = std::sin(elevation),
                 c = std::cos(elevation);
    const std::size_t end = side == Side::Along ? surface.pieces.size() - 1 : 0;
    const double level = (side == Side::Along ? surface.pieces[end].to.z : surface.pieces[end].from.z) - surface.foot;
    const Complex te = reflected(surfaceImpedance(m_permittivities[end], false, c), s),
                  tm = reflected(surfaceImpedance(m_permittivities[end], true, c), s);
    const Complex turn = std::polar(1.0, 2.0 * k * level * s);
    const std::vector<double> cosines = localCosines(surface.pieces, side, elevation);
    std::vector<std::pair<Complex, Complex>> impedances;
    for (std::size_t p = 0; p < surface.pieces.size(); ++p)
        impedances.emplace_back(surfaceImpedance(m_permittivities[p], false, cosines[p]),
                                surfaceImpedance(m_permittivities[p], true, cosines[p]));

    // what the flat ground of the far end leaves over on the surface, for both polarisations
    const std::size_t count = surface.panels.size() * nodesPerPanel;
    std::vector<Complex> left(count), leftVertical(count);
    for (std::size_t p = 0; p < surface.panels.size(); ++p) {
        const TerrainPanel& n = surface.panels[p];
        const ProfilePoint middle = n.at(0.0);
        const double turned = n.turn * faster, forward = 0.5 * k * way * c * (n.to.x - n.from.x),
                     rising = 0.5 * k * s * (n.to.z - n.from.z);
        const NodeShares upwards = waveIntegrals(forward + rising - turned), downwards = waveIntegrals(forward - rising - turned);
        const Complex front = 0.5 * imaginaryUnit * k * n.length * std::polar(1.0, k * way * middle.x * c);
        const Complex up = front * std::polar(1.0, k * (middle.z - surface.foot) * s),
                      down = front * turn * std::polar(1.0, -k * (middle.z - surface.foot) * s);
        const double rises = way * c * n.normalX + s * n.normalZ, falls = way * c * n.normalX - s * n.normalZ;
        const auto [across, vertical] = impedances[n.piece];
        const Complex acrossUp = (rises - across) * up, acrossDown = (falls - across) * te * down, verticalUp = (rises - vertical) * up,
                      verticalDown = (falls - vertical) * tm * down;
        for (int i = 0; i < nodesPerPanel; ++i) {
            const std::size_t at = p * nodesPerPanel + i;
            left[at] = m_waves[at] * (acrossUp * upwards[i] + acrossDown * downwards[i]);
            leftVertical[at] = m_waves[at] * (verticalUp * upwards[i] + verticalDown * downwards[i]);
        }
    }
    const double steepness = s * s / TerrainSurface::steepSquare;
    const auto over = [&](const TerrainSurface::Fields::Column& grazing, const TerrainSurface::Fields::Column& steep,
                          const std::vector<Complex>& rest) {
        Complex one = 0.0, more = 0.0;
        for (std::size_t i = 0; i < rest.size(); ++i)
            one += Complex(grazing[i]) * rest[i];
        for (std::size_t i = m_steepFrom; i < m_steepTo; ++i)
            more += Complex(steep[i] - grazing[i]) * rest[i];
        return one + steepness * more;
    };
    const TerrainSurface::Fields &grazing = surface.grazing, &steep = surface.steep;
    std::vector<TerrainResponse> all;
    for (std::size_t h = 0; h < surface.heights.size(); ++h) {
        const Complex up = std::polar(1.0, k * surface.heights[h] * s), down = turn * std::conj(up);
        TerrainResponse r{up + te * down, s * (up - tm * down), c * (up + tm * down)};
        r.across += over(grazing.across[h], steep.across[h], left);
        r.along += over(grazing.along[h], steep.along[h], leftVertical) / (imaginaryUnit * k);
        r.vertical += over(grazing.vertical[h], steep.vertical[h], leftVertical) / (imaginaryUnit * k * way);
        all.push_back(r);
    }
    return all;
}

} // namespace vetchling::em
