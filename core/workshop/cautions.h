#pragma once
/// What can hurt somebody who builds, carries, raises and uses an antenna, where it applies to this one; and the order of putting it up.

#include "core/workshop/build_facts.h"

#include <vector>

namespace vetchling {

/// At the bench: what is sawn, drilled, bent and soldered for it.
std::vector<Caution> benchCautions(const Antenna& antenna, const shapes::BuiltAntenna& built);
/// All that apply where it stands and is used, dangers to life first; those of the bench are by themselves. The distances to keep from its
/// fields are another matter (study/safety.h).
/// @param facts null where they are not worked out yet
std::vector<Caution> cautionsOf(const Design& design, const Antenna& antenna, const shapes::BuiltAntenna& built, const BuildFacts* facts);

/// Steps of putting it up where it stands: on a vehicle, on a tripod in the field, on a mast that turns, as wires between supports.
std::vector<Text> puttingUp(const Antenna& antenna, const shapes::BuiltAntenna& built, const RiggingReport& rigging, const Site& site);

/// Cards for the bench that this antenna asks for: a joint to jacketed wire, rods in one another, a connector in a thick wall.
std::vector<BenchCard> benchCards(const Antenna& antenna, const shapes::BuiltAntenna& built);

} // namespace vetchling
