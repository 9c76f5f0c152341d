#pragma once
/// Slips of the hand in a typed length: half or twice it, feet for metres, swapped digits of a rule's constant.

#include "core/shapes/family.h"

#include <optional>

namespace vetchling {

/// A question about a length that stands in one of these ratios to what is solved, or that is a rule with two neighbouring digits of
/// its constant swapped; nothing for any other length.
/// @param typed m @param solved m, what it should be by the solver or else by the rule; 0: unknown
std::optional<Text> slipQuestion(double typed, double solved, const std::vector<shapes::RuleOfThumb>& rules);

} // namespace vetchling
