#pragma once
/// The wire model: what the field solver reads. Polylines with radius and material, feeds, loads, ground.
/// All SI: metres, ohms, henries, farads, siemens per metre. z = 0 is the ground plane.

#include "core/line/transformer.h"
#include "core/physics.h"
#include "core/result.h"
#include "core/wire/ground.h"
#include "core/wire/networks.h"
#include "core/wire/terrain_profile.h"
#include "core/wire/vec3.h"

#include <cstddef>
#include <optional>
#include <string>
#include <vector>

namespace vetchling {

/// Points closer than this are one joint, m.
inline constexpr double jointTolerance = 1e-6;

struct Insulation {
    double outerRadius = 0.0; ///< m, larger than the wire's
    double relativePermittivity = 1.0;
    double lossTangent = 0.0;
};

/// Another metal on the outside of a conductor: cladding, plating, zinc.
struct Coating {
    double thickness = 0.0; ///< m, inside the wire's radius
    double conductivity = 5.8e7;
    double relativePermeability = 1.0;
    friend bool operator==(const Coating&, const Coating&) = default;
};

struct Wire {
    std::string id;
    std::vector<Vec3> points;           ///< two or more, along the wire
    double radius = 0.0;                ///< m, at the first point
    std::optional<double> endRadius;    ///< m, at the last point of a tapered wire; linear between
    std::optional<double> conductivity; ///< S/m; none: perfect conductor
    double relativePermeability = 1.0;
    double wall = 0.0; ///< m, of a tube; 0: solid
    std::optional<Coating> coating;
    std::optional<Insulation> insulation;

    [[nodiscard]] double length() const;
    /// Radius at a distance along the wire, m.
    [[nodiscard]] double radiusAt(double along) const;
    /// Point at a distance along the wire.
    [[nodiscard]] Vec3 pointAt(double along) const;
};

/// A voltage step in the wire, positive along the wire's direction.
struct Feed {
    std::size_t wire = 0; ///< index into WireModel::wires
    double at = 0.0;      ///< m from the wire's first point
    Complex voltage{1.0, 0.0};
    std::optional<Transformer> transformer; ///< the impedance is then told at its line side
};

enum class LoadKind { Series, Parallel };

/// What a coil takes of its wire: its middle is where the load is. The current goes round as it goes along and the charges sit on the
/// turns, so that its own capacitance and its self-resonance follow (em/coil_blocks.h).
struct CoilSize {
    double length = 0.0;       ///< m along the wire; 0: the coil is in a point
    double diameter = 0.0;     ///< m, from centre to centre of the wire it is wound of
    double wireDiameter = 0.0; ///< m, of that wire; 0: turns so close that they are a tube
    [[nodiscard]] bool inPoint() const { return length <= 0.0; }
    friend bool operator==(const CoilSize&, const CoilSize&) = default;
};

/// R, L and C at one point of a wire. A zero capacitance means no capacitor; q > 0 gives the coil a resistance wL/q.
struct Load {
    std::size_t wire = 0;
    double at = 0.0;
    LoadKind kind = LoadKind::Series;
    double resistance = 0.0;  ///< ohm
    double inductance = 0.0;  ///< H
    double capacitance = 0.0; ///< F
    double q = 0.0;
    double selfResonance = 0.0; ///< Hz, of the coil of a series load: its own capacitance lies across it; 0: none
    CoilSize size;              ///< of a series load that is nothing but a coil, or of a coil with nothing but a capacitor across it

    /// Where it begins and ends, m along the wire.
    [[nodiscard]] double from() const { return at - 0.5 * size.length; }
    [[nodiscard]] double to() const { return at + 0.5 * size.length; }
    /// Impedance in ohm, of a coil that has a size as if its current were even. Parallel: the coil (with its q) beside the capacitor (and
    /// beside the resistance if not zero).
    [[nodiscard]] Complex impedance(double frequency) const;
    /// What a capacitor across a coil makes of the coil's impedance, as a factor; 1 of a coil alone.
    [[nodiscard]] Complex acrossCoil(double frequency) const;
    friend bool operator==(const Load&, const Load&) = default;
};

/// What the ground comes to be farther off, in a sector of azimuths; it reflects far waves and leaves the currents alone.
struct FarSector {
    double from = 0.0, width = 0.0;           ///< rad, mathematical azimuth, counterclockwise
    double fadeBefore = 0.0, fadeAfter = 0.0; ///< rad, before `from` and after the end, over which it gives way to what is beside it
    std::vector<ProfilePoint> corners;        ///< from under the wires outwards, and behind them
    std::vector<std::optional<Ground>> soils; ///< before, between and after the corners; none: that under the wires
    /// Of the power that goes to an azimuth: 1 in it, 0 beyond where it fades.
    [[nodiscard]] double shareAt(double azimuth) const;
    /// The same ground for an antenna that stands elsewhere along the bearing. @param by m outwards
    [[nodiscard]] FarSector movedBy(double by) const;
    /// The same line of ground, looked along the other way.
    [[nodiscard]] FarSector turned() const;
    [[nodiscard]] TerrainProfile over(const Ground& own) const;
    friend bool operator==(const FarSector&, const FarSector&) = default;
};
/// Another ground beyond a shore, as high as here. @param distance m in plan from the wires to its near edge, 0 or more
FarSector shoreSector(double from, double width, double distance, const Ground& ground);

struct WireModel {
    Ground ground;
    std::vector<Wire> wires;
    std::vector<Feed> feeds;
    std::vector<Load> loads;
    std::vector<LineSection> lines;
    std::vector<FarSector> beyond = {}; ///< of an azimuth each takes its share of what those before have left

    [[nodiscard]] double totalLength() const;
    /// Lowest point of any wire, m.
    [[nodiscard]] double lowestPoint() const;
};

/// Everything that would make the solver's answer wrong or meaningless, each with its place and cure.
/// Empty: the model can be solved. Paths are those of the wire file.
inline constexpr std::size_t mostPieces = 12000; ///< straight ones: each is an unknown at least, and 2.3 GB of matrix are enough

/// Alone "wires" where there are more than mostPieces: nothing else is looked at then.
[[nodiscard]] Faults findFaults(const WireModel& model);
/// A frequency outside 10 kHz .. 3 GHz, or not a number; empty if it is fine.
[[nodiscard]] Faults findFrequencyFaults(double frequency, const std::string& path);

} // namespace vetchling
