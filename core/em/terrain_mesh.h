#pragma once
/// The surface of a profile in panels, some wavelengths long where only the wave from the foot runs over them. Where a place sees more than
/// that wave, integrals over long ones are taken in strips, none longer than most of a wavelength.

#include "core/em/panel_waves.h"

#include <array>
#include <vector>

namespace vetchling::em {

/// Part a..b of a panel's -1..1, with points for its integrals.
struct TerrainStrip {
    double a = -1.0, b = 1.0;
    std::array<ProfilePoint, nodesPerPanel> points;
    std::array<double, nodesPerPanel> weights{}; ///< m, with the window
    std::array<NodeShares, nodesPerPanel> shares;
};

/// From 1 to 0 over 0..1, with all its derivatives.
double fadeOut(double t);

class TerrainMesh {
public:
    /// @param lowest m over the foot, of the sources
    TerrainMesh(const TerrainProfile& profile, double frequency, double lowest);

    std::vector<TerrainSurface::Piece> pieces;
    std::vector<TerrainPanel> panels;
    std::vector<ProfilePoint> nodes;               ///< of the panels one after the other
    std::vector<double> weights;                   ///< m, of the nodes, with the window
    std::vector<std::vector<TerrainStrip>> strips; ///< by panel; of a short one, itself
    std::vector<NodeShares> waves;                 ///< of a long panel, exp(j turn t) of its nodes
    double foot = 0.0;                             ///< m
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
