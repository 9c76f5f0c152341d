#pragma once
/// What uneven ground does to the waves that an antenna sends out: the response to a plane wave from a direction at places over it.
///
/// By reciprocity the far field of a current is the field that a plane wave from there has at its place. The ground is uniform across the
/// bearing, piecewise straight, each piece with its own soil, flat to infinity at both ends; then the problem is plane, and horizontal
/// (Ey) and vertical (Hy) polarisation part. Soils count by their surface impedance (Senior & Volakis 1995, ch. 2): right for pieces that
/// are large against the depth of penetration, wrong by up to some decibels for banks and walls smaller than a quarter wavelength.
/// Trees, houses and what the ground does beside the bearing are not in it.
///
/// Method: one boundary integral equation with the source at the antenna, u/2 - int u dG/dn' + int G du/dn' = u_in, du/dn = jk b u, with
/// G = -(j/4) H0(2)(k r), on panels with Gauss nodes, whose densities fade at both ends (window: Bruno et al. 2016); then all elevations
/// by inner products with what a flat ground leaves over (compensation theorem: Monteath 1951). The impedance that a soil has for grazing
/// and for steep waves differs by some per cent: both are solved. Accuracy: 0.3 dB against independent solutions
/// (tests/core/terrain_test.cpp) down to 15 dB under the maximum, above 1 degree.

#include "core/result.h"
#include "core/wire/wire_model.h"
#include "core/work/watch.h"

#include <vector>

namespace vetchling::em {

/// Field of a unit current over what it is in free space straight above the foot, for a wave of one elevation; phase against the foot.
struct TerrainResponse {
    Complex across;   ///< of a level current across the bearing: exp(jkh sin e) + Rh exp(-jkh sin e) over flat ground
    Complex along;    ///< of a level current towards the wave: sin e (exp(..) - Rv exp(-..))
    Complex vertical; ///< of a current upwards: cos e (exp(..) + Rv exp(-..))
};
/// The same over flat ground. @param height m
TerrainResponse flatResponse(const Ground& ground, double frequency, double height, double elevation);

enum class Side { Along, Against }; ///< the bearing

/// A surface and the fields on it of sources at some heights above the foot.
struct TerrainSurface {
    /// Straight, of one soil.
    struct Piece {
        ProfilePoint from, to;
        Complex permittivity;
    };
    struct Node {
        double x, z, normalX, normalZ, weight, window; ///< weight of the quadrature, m
        std::size_t piece;
    };
    std::vector<Piece> pieces;
    std::vector<Node> nodes;
    std::vector<double> heights;         ///< m above the foot
    double foot = 0.0, waveNumber = 0.0; ///< m, rad/m
    /// By height and node.
    struct Fields {
        std::vector<std::vector<Complex>> across, along, vertical;
    };
    /// With the soils' impedance for waves that graze them, and for steep ones: between them, fields go by the square of the sine.
    Fields grazing, steep;
    static constexpr double steepSquare = 0.6; ///< square of the sine of that angle

    /// Of a piece, over that of air. @param cosine of the angle at which the wave comes in
    [[nodiscard]] Complex impedance(std::size_t piece, bool isVertical, double cosine) const;
};

/// Solved for one frequency and some heights of currents.
class TerrainField {
public:
    explicit TerrainField(TerrainSurface surface) : m_surface(std::move(surface)) {}
    /// @param heights m above the foot, above 0
    /// Faults: those of the profile; stopped.
    static Result<TerrainField> solve(const TerrainProfile& profile, double frequency, const std::vector<double>& heights,
                                      const Watch& watch = {});
    /// At every height. @param elevation rad, above 0
    [[nodiscard]] std::vector<TerrainResponse> responses(Side side, double elevation) const;
    [[nodiscard]] const std::vector<double>& heights() const { return m_surface.heights; }
    [[nodiscard]] std::size_t unknowns() const { return m_surface.nodes.size(); }

private:
    TerrainSurface m_surface;
};

} // namespace vetchling::em
