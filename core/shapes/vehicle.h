#pragma once
/// A vehicle's body as a frame of wires above the soil, on its tyres: edges of roof and underside, cross members, pillars.

#include "core/shapes/specs.h"

namespace vetchling::shapes {

inline constexpr double bodyRadius = 0.02; ///< m: sheet metal as wires along its edges

/// Where a body stands and how large it is.
struct Body {
    double x = 0.0, y = 0.0, bearing = 0.0;                         ///< m, of its middle; compass degrees ahead
    double length = 4.3, width = 1.7, roof = 1.5, clearance = 0.25; ///< m

    /// @param along, across parts of its length (forwards) and width (to the right) from its middle
    [[nodiscard]] Vec3 at(double along, double across, bool top) const;
};

/// "body_length_m", "body_width_m" and "body_clearance_m", in metres of a car.
void addBodySpecs(std::vector<ParameterSpec>& all);
/// Of those and the place; a fault where the roof is too low.
Result<Body> bodyOf(const Family& family, const AntennaShape& shape, double roof, const char* roofKey);
/// Its wires, in the metal of a part. Points that may be joined: the middle of the roof, of its edges, and its corners.
void addBody(const Body& body, const WireChoice& metal, BuiltAntenna& out);

/// What stands on radials may stand on a vehicle as well: "vehicle" says where, with its size.
enum class OnVehicle { No, Roof, Rear };
void addVehicleSpecs(std::vector<ParameterSpec>& all, const AntennaShape& shape);
OnVehicle vehicleOf(const AntennaShape& shape);
/// Part of Family::layout.
std::string vehicleLayout(const AntennaShape& shape);
/// The body under a base, or behind which it stands on a bracket. @param ahead compass degrees
Faults addVehicle(const Family& family, const AntennaShape& shape, Vec3 base, double ahead, const std::string& part, BuiltAntenna& out);

} // namespace vetchling::shapes
