#pragma once
/// What of a model stands by itself: on a mast of its own beneath it, or as a tube that reaches out from one.

#include "core/site/site.h"

namespace vetchling {

inline constexpr double heldFrom = 3.0;     ///< m: what is lower stands on a stake or a box
inline constexpr double highestMast = 10.0; ///< m that a mast stands by itself; what is higher is a pole that is put up with its guys
inline constexpr double longestTube = 7.0;  ///< m that a tube reaches out from where it is held
inline constexpr double longestWhip = 6.0;  ///< m that a telescope does
inline constexpr double tubeRadius = 2e-3;  ///< m: what is thicker holds itself

/// A mast that stands where no support does.
struct OwnMast {
    double height = 0.0; ///< m, 0: none is needed
    Vec3 top;
};
/// Under the top of an upright, or under the feed of tubes: the highest one. A top that hangs in wires held on both sides has none.
OwnMast ownMastOf(const Site& site, const WireModel& model);

/// m in plan that tubes reach out from where they are fed, where that is farther than tubes of their thickness hold themselves; else 0.
double tubesReachTooFar(const WireModel& model);

} // namespace vetchling
