#pragma once
/// Variants of the antennas of a design: chosen ones stand in their antenna's place while they are looked at and changed.

#include "core/design/design.h"

namespace vetchling {

/// Which variant of each antenna is looked at, by the antennas' ids; none: as drawn.
using ChosenVariants = std::map<Id, Id>;

/// Null if there is none of that id.
const Variant* findVariant(const Antenna& antenna, const Id& id);
Variant* findVariant(Antenna& antenna, const Id& id);

/// The antenna with the shape and the soil of a variant, all else being shared; as drawn where there is no such variant.
Antenna asVariant(const Antenna& antenna, const Id& variant);

/// The design with the chosen variants in their antennas' places.
Design shown(const Design& stored, const ChosenVariants& chosen);
/// Back again: what an edit changed on a chosen variant's shape or soil goes into the variant, all else into the antenna.
/// @param changed a changed result of `shown` @param stored what that was made of
Design stored(Design changed, const Design& stored, const ChosenVariants& chosen);

/// A new variant of a stored antenna, as it is looked at now. @param name made free among the antenna's; returns its id
Id addVariant(Antenna& antenna, const Id& from, const std::string& name);
/// The variant becomes the antenna as drawn; that one takes its place among the variants under `nameBefore`, and the others keep their
/// shapes. False if there is no such variant.
bool takeVariant(Antenna& antenna, const Id& variant, const std::string& nameBefore);

} // namespace vetchling
