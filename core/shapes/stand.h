#pragma once
/// What a vertical stands on: its base and the radials under it.

#include "core/shapes/specs.h"

namespace vetchling::shapes {

/// Base and radial ends, length, number, anchors and depth of radials, a ground rod, and the place; a family adds its own.
/// @param base m above ground, of the feed @param count of radials
std::vector<ParameterSpec> standParameters(double base = 2.0, double count = 4.0);
Vec3 baseOf(const Family& family, const AntennaShape& shape);
/// A wire from the base up, fed at its foot: wire 0, to be followed by the radials.
BuiltAntenna standing(Wire radiator, Vec3 base);
/// Adds the radials, and a ground rod if there is one, joined at the base or dug in under it, with the first one's handle, dimension and
/// section. Faults: radials that cannot lie so.
Faults addRadials(const Family& family, const AntennaShape& shape, BuiltAntenna& out);
/// One radial from the base: straight to its end's height, or down to an anchor just above the soil and then along it.
/// @param anchor m from the foot; 0: none @param endHeight m, without an anchor
Result<std::vector<Vec3>> radialPath(Vec3 base, double length, double bearing, double endHeight, double anchor);
/// The customary rules of a quarter wave.
std::vector<RuleOfThumb> quarterWaveRules(double frequency);
/// Cutting the radiator's end, and the radials' slope.
std::vector<Lever> standLevers(const std::string& radiator);
std::vector<Part> standParts();

} // namespace vetchling::shapes
