#pragma once
/// How much line goes from the feedpoint to the radio: as Feed has it, else as the way to the entry is long.

#include "core/design/design.h"

namespace vetchling {

struct FeedLine {
    double coax = 0.0, open = 0.0; ///< m
    double way = 0.0;              ///< m, from the feedpoint down to the ground and along the route to the entry
};
FeedLine feedLineOf(const Antenna& antenna, Vec3 feedPoint, const Site& site);

} // namespace vetchling
