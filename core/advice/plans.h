#pragma once
/// What there is to try: each family for each wanted band, or for several together, with what it could bring at most by rule.

#include "core/advice/tried.h"

namespace vetchling::advice {

/// A family for some of the bands.
struct Plan {
    const shapes::Family* family = nullptr;
    std::vector<Id> bands;
    double frequency = 0.0;  ///< Hz, of its design
    int count = 0;           ///< bands of what is for several; 0: it is for one
    std::vector<bool> reach; ///< wanted bands that it could be of use on by rule, in their order
    double effort = 0.0;     ///< at least, by rule
    bool done = false;
    bool pruned = false; ///< done without a look: it cannot come among the first
};

/// Those that could bring most come first.
std::vector<Plan> plansFor(const Design& design, const AdviceWish& wish, const ScoreRules& rules);

/// Of the wish, where each band in reach is served as well as can be. @param besides worths of the other bands
double wishOfReach(const Weighed& wanted, const std::vector<bool>& reach, const std::vector<double>& besides = {});

/// Where it may be put among what hangs; what may not be there says why.
std::vector<Tried> placesOf(const Plan& plan, const Bench& bench);

/// What stands in the table for a plan that was not looked into.
Tried byRule(const Plan& plan, const Weighed& wanted);

} // namespace vetchling::advice
