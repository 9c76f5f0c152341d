#pragma once
/// What to do before and while measuring: what an ohmmeter shall read, the range and step of the sweep, the dip to aim for.

#include "core/trim/next_step.h"

namespace vetchling {

struct MeasureCard {
    bool direct = false;         ///< both sides of the feed are joined for direct current
    double from = 0.0, to = 0.0; ///< Hz, of the sweep
    double step = 0.0;           ///< Hz, at most
    double aim = 0.0;            ///< Hz
    std::vector<Text> steps;     ///< in their order
};

/// Whether an ohmmeter finds a way from one side of the feed to the other: a loop, or a transformer's winding.
bool joinedForDirectCurrent(const shapes::BuiltAntenna& built);
/// From 2 % below the lower to 2 % above the higher of the present dip and the goal, in tenths of the narrowest width below 2:1.
MeasureCard measureCardOf(const TrimOutcome& outcome, const shapes::BuiltAntenna& built);

} // namespace vetchling
