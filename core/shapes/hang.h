#pragma once
/// Handles of an antenna and the supports of its site.

#include "core/shapes/family.h"
#include "core/site/site.h"

namespace vetchling::shapes {

/// What moving a handle came to.
struct Hung {
    AntennaShape shape;
    const Support* support = nullptr; ///< what it was tied to; null for a free place
};

/// A new antenna hung by a handle: ends that are level with the centre come down from it as far as its legs allow.
AntennaShape newlyHung(const AntennaShape& shape, std::size_t handle, const Hook& hook);

/// The point of the wire next to an end; nothing if the place is no end (within 5 cm).
std::optional<Vec3> besideEnd(const BuiltAntenna& built, Vec3 end);

/// Brings a handle to a place in plan, and ties it to the nearest support within reach (m) of that place; see Family::hung. An end opposite
/// that a support holds stays there. The shape as it was where the moved one could not be built.
Hung hangAt(const Site& site, const AntennaShape& shape, std::size_t handle, PlanPoint at, double reach);

/// The support a handle is tied to exactly, at its place or by a rope in the wire's line; null if none.
const Support* tiedTo(const Site& site, const BuiltAntenna& antenna, std::size_t handle);

/// The shape after a support was moved, raised or lowered: what was tied to it exactly, at its place or by a rope in the wire's line,
/// follows; the rest stays. The shape as it was where it could not be built then.
/// @param before the site the shape hung on @param after the support as it is now, under the same id
AntennaShape carried(const Site& before, const Support& after, const AntennaShape& shape);

/// The shape after a value was typed that has to do with corners (Family::shapesCorners): new ones lie on the wire as it was, and the end
/// that a support held is tied to it again. As typed for any other value, and where it could not be built.
AntennaShape cornered(const Site& site, const AntennaShape& before, const std::string& key, const AntennaShape& typed);

/// m of wire that fit as an antenna's first wire hangs: its last stretch as far as the support that holds its end, else as far as the
/// boundary in its direction; nothing where neither bounds it.
std::optional<double> roomForWire(const Site& site, const BuiltAntenna& antenna);

} // namespace vetchling::shapes
