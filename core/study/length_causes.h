#pragma once
/// Why a solved length is not the rule's: each cause by a solve without it, taken away one after the other.

#include "core/study/study.h"
#include "core/tune/tune.h"

#include <optional>
#include <vector>

namespace vetchling::study {

struct LengthCause {
    enum class What { Transformer, Jacket, HeightAndSoil, Bends, Thickness, Rule };
    What what;
    double share = 0.0; ///< what it adds to the length, as a part of it; below zero it shortens
};

/// What is matched and not resonant, as an end-fed wire, keeps its transformer throughout.
/// The causes multiply to solved over rule: the product of all (1 + share) is that ratio. Only those that apply are listed; the last is
/// what the rule's constant itself leaves open, for a straight thin bare wire in free space. Empty where the rule is no constant over the
/// frequency, or a step could not be solved.
/// @param solved value of the tuned length on this site @param goal it was tuned for
Result<std::vector<LengthCause>> lengthCauses(const Subject& subject, const shapes::TunedLength& length, double solved,
                                              shapes::TuneGoal goal, em::GroundTableCache& tables, const Watch& watch = {});

} // namespace vetchling::study
