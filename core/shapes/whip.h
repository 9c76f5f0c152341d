#pragma once
/// Telescopic whips: between a shortest and a longest length, thinner towards the tip.

#include "core/shapes/specs.h"

namespace vetchling::shapes {

/// "shortest_m", "longest_m", "section_count", "whip_diameter_m" and "tip_percent".
void addTelescope(std::vector<ParameterSpec>& all);
/// A new antenna's whip reaches from a quarter of its length to half as much again; @param length key of the length along the whip.
void settleTelescope(AntennaShape& shape, const std::string& length);
/// Faults where the whip cannot be set to that length. @param key what to change @param length m, of the whip alone
Faults telescopeFaults(const Family& family, const AntennaShape& shape, const std::string& key, double length);
/// The whip from its foot to its tip, in the metal of a part.
Wire taperedWhip(const Family& family, const AntennaShape& shape, const std::string& part, std::string id, Vec3 foot, Vec3 tip);

} // namespace vetchling::shapes
