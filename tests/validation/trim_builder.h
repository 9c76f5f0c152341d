#pragma once
/// A simulated builder who does what the program says to an antenna that is not quite as it was planned: other soil, another height, wire
/// cut long, a dip read with some noise. What hangs there is points of wire, which share nothing with the model but where it begins.

#include "core/trim/next_step.h"
#include "tests/validation/held_antenna.h"

#include <random>
#include <string>

namespace vetchling::testing {

struct TrimRun {
    std::string family, lever; ///< lever: of the task that went worst
    int cuts = 0, measurements = 0;
    bool finished = false, passedMark = false; ///< passed: a cut went beyond the mark by more than it may be off
    bool dip = true;                           ///< there was one to be measured
    double off = 0.0;                          ///< Hz of the true dip from the target at the end, the worst
};

/// The families that builders trim most.
const std::vector<std::string>& trimmedFamilies();
/// All whose every trimmed length there is a hand for.
std::vector<std::string> heldFamilies();
/// @param ratioRule trims by the plain ratio of frequencies in place of the program's advice, 90 % of it at once
TrimRun trimOne(const std::string& family, std::mt19937& random, study::Library& library, bool ratioRule = false);

} // namespace vetchling::testing
