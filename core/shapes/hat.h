#pragma once
/// Capacity hats: spokes across the end of a wire.

#include "core/shapes/specs.h"

namespace vetchling::shapes {

/// "hat_count" and "hat_m", spokes and their length. @param inWaves length of a spoke of a new antenna
void addHat(std::vector<ParameterSpec>& all, double spokes, double inWaves);
/// Spokes evenly round the end of a wire, square to it, the first one level; with the first one's handle and dimension on the first hat.
void addHatAt(const Family& family, const AntennaShape& shape, BuiltAntenna& out, Vec3 end, Vec3 along, const std::string& name);
WireSection hatSection(const Family& family, const AntennaShape& shape, int hats);
/// Length of straight wire that a hat stands for, by rule of thumb, m.
double hatReach(double spoke, double count);

} // namespace vetchling::shapes
