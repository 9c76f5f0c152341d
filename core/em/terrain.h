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
/// G = -(j/4) H0(2)(k r), on panels with Gauss nodes, whose densities fade at both ends (window: Bruno et al. 2016), solved in blocks
/// outwards from the antenna, each with the next one (Hufford 1952 with what comes back); then all elevations by inner products with what a
/// flat ground leaves over (compensation theorem: Monteath 1951). The impedance that a soil has for grazing and for steep waves differs by
/// some per cent: near the antenna both are solved. Accuracy: 0.3 dB against independent solutions (tests/core/terrain_test.cpp) down to
/// 15 dB under the maximum, above 1 degree.

#include "core/result.h"
#include "core/wire/wire_model.h"
#include "core/work/watch.h"

#include <cstdint>
#include <memory>
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

inline constexpr int nodesPerPanel = 6;

/// Straight part of a surface. An unknown on it is a polynomial through its nodes times exp(-j turn t), t = -1..1 from end to end: on long
/// panels, far from corners, the wave that comes from the foot.
struct TerrainPanel {
    ProfilePoint from, to;
    double length = 0.0, normalX = 0.0, normalZ = 1.0;
    std::size_t piece = 0;
    double turn = 0.0; ///< rad over half of it
    [[nodiscard]] ProfilePoint at(double t) const
    {
        return {0.5 * ((1.0 - t) * from.x + (1.0 + t) * to.x), 0.5 * ((1.0 - t) * from.z + (1.0 + t) * to.z)};
    }
    /// Of a point to the part a..b of -1..1.
    [[nodiscard]] double distanceTo(ProfilePoint p, double a, double b) const;
};

/// A surface and the fields on it of sources at some heights above the foot.
struct TerrainSurface {
    /// Straight, of one soil.
    struct Piece {
        ProfilePoint from, to;
        Complex permittivity;
    };
    std::vector<Piece> pieces;
    std::vector<TerrainPanel> panels;
    std::vector<double> heights;         ///< m above the foot
    double foot = 0.0, waveNumber = 0.0; ///< m, rad/m
    /// By height and node of the panels, faded at both ends; of many lines they are kept, so they are short numbers.
    struct Fields {
        using Column = std::vector<std::complex<float>>;
        std::vector<Column> across, along, vertical;
    };
    /// With the soils' impedance for waves that graze them, and for steep ones: between them, fields go by the square of the sine.
    Fields grazing, steep;
    static constexpr double steepSquare = 0.6; ///< square of the sine of that angle
};

/// Of a soil, over that of air. @param cosine of the angle at which the wave comes in
Complex surfaceImpedance(Complex permittivity, bool isVertical, double cosine);

/// Without fields yet. @param profile without faults @param heights as for TerrainField::solve
TerrainSurface surfaceOf(const TerrainProfile& profile, double frequency, const std::vector<double>& heights);

inline constexpr std::int32_t terrainVersion = 1; ///< another one: fields kept by an earlier program are not this one's

/// Solved for one frequency and some heights of currents.
class TerrainField {
public:
    explicit TerrainField(TerrainSurface surface);
    /// @param heights m above the foot, above 0
    /// Faults: those of the profile; stopped.
    static Result<TerrainField> solve(const TerrainProfile& profile, double frequency, const std::vector<double>& heights,
                                      const Watch& watch = {});
    /// The same at a frequency beside its own: the fields' envelopes, which change slowly, with that one's phases.
    /// @param profile that was solved @param frequency Hz
    [[nodiscard]] TerrainField retuned(const TerrainProfile& profile, double frequency) const;
    /// At every height. @param elevation rad, above 0
    [[nodiscard]] std::vector<TerrainResponse> responses(Side side, double elevation) const;
    [[nodiscard]] const std::vector<double>& heights() const { return m_surface->heights; }
    /// As it was solved.
    [[nodiscard]] const TerrainSurface& surface() const { return *m_surface; }
    [[nodiscard]] std::size_t unknowns() const { return m_surface->panels.size() * nodesPerPanel; }

private:
    std::shared_ptr<const TerrainSurface> m_surface;
    double m_waveNumber;                   ///< rad/m
    std::vector<Complex> m_permittivities; ///< by piece
    std::vector<Complex> m_waves;          ///< by node, what a panel's wave is there; of the fields, too, away from their own frequency
    std::size_t m_steepFrom, m_steepTo;    ///< nodes at which steep fields are others
    void takeWaves();
};

} // namespace vetchling::em
