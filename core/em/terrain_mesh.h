#pragma once
/// The surface of a profile in panels. On each an unknown is a polynomial through its nodes; on long ones, far from corners, that times
/// exp(-jk distance from the foot), so that they may be some wavelengths long; integrals over them are taken in strips, none longer than
/// most of one.

#include "core/em/terrain.h"

#include <array>

namespace vetchling::em {

inline constexpr int nodesPerPanel = 6;

struct TerrainPanel {
    ProfilePoint from, to;
    double length = 0.0, normalX = 0.0, normalZ = 1.0;
    std::size_t piece = 0;
    [[nodiscard]] ProfilePoint at(double t) const ///< -1..1
    {
        return {0.5 * ((1.0 - t) * from.x + (1.0 + t) * to.x), 0.5 * ((1.0 - t) * from.z + (1.0 + t) * to.z)};
    }
    /// Of a point to the part a..b of -1..1.
    [[nodiscard]] double distanceTo(ProfilePoint p, double a, double b) const;
};

/// Part a..b of a panel's -1..1; its points follow one another, nodesPerPanel of them.
struct TerrainStrip {
    std::size_t panel = 0;
    double a = -1.0, b = 1.0;
};

/// What a point takes of its panel's nodes.
using NodeShares = std::array<Complex, nodesPerPanel>;

class TerrainMesh {
public:
    /// @param lowest m over the foot, of the sources
    TerrainMesh(const TerrainProfile& profile, double frequency, double lowest);

    std::vector<TerrainSurface::Piece> pieces;
    std::vector<TerrainPanel> panels;
    std::vector<ProfilePoint> nodes; ///< of the panels one after the other
    std::vector<TerrainStrip> strips;
    std::vector<TerrainSurface::Node> points;
    std::vector<NodeShares> shares; ///< by point
    double foot = 0.0;              ///< m
    /// At a place of a panel.
    [[nodiscard]] NodeShares sharesAt(std::size_t panel, double t) const;
    /// What is left of an unknown there; it fades out at both ends.
    [[nodiscard]] double windowAt(double x) const;

private:
    void layPieces(const TerrainProfile& profile, double frequency);
    void layPiece(std::size_t piece);
    void lay(std::size_t piece, double from, double to);
    void addPanel(TerrainPanel panel);
    [[nodiscard]] double longestBeside(std::size_t corner, double away) const;

    double m_wave, m_lowest, m_first = 0.0, m_last = 0.0;
    std::vector<double> m_finest; ///< m, of panels at each piece's beginning
};

} // namespace vetchling::em
