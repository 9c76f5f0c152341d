#pragma once
/// The best antenna, or two, for a site by trying everything: every family for every set of wanted bands on every support and pair of
/// supports, nothing left out by rule, every two of them hung together. What the advisor finds is held against it.

#include "core/advice/tried.h"

#include <string>
#include <vector>

namespace vetchling::testing {

struct Best {
    double score = 0.0;
    std::vector<std::string> antennas; ///< by name
    std::size_t tried = 0;
};

/// One antenna or two, a tuner in the radio, no new poles.
Best bestByBruteForce(const Design& design, const std::vector<LineType>& lines);

} // namespace vetchling::testing
