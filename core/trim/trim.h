#pragma once
/// Measured dips: whether they can be believed, and how the cuts answered.

#include "core/trim/log_tasks.h"

#include <optional>

namespace vetchling {

/// Where the next dip of its piece should lie by the model and the cuts made so far, where a measurement is so far from it that it is more
/// likely a slip: 3.5 % for the first, half of that and what the cut may do otherwise for the others. Nothing if it can be believed.
/// @param next the measurement in question @param modelDip Hz, 0: unknown, the goal stands for it, with 12 % @param modelSlope Hz that a
/// metre cut brings; 0: unknown, by the length
std::optional<double> unlikelyDip(const Antenna& antenna, const Measurement& next, double modelDip, double modelSlope);
/// Whether it can be of that antenna at all: half or twice what was expected is another one's, or a wrong unit.
bool cannotBe(double dip, double expected);
/// The model's slope corrected by what the cuts made so far did: each cut pulls towards its own result, in proportion
/// to its length, against a prior worth 5 cm for the model. A fold counts as a cut.
double correctedSlope(const std::vector<Measurement>& log, double modelSlope);

} // namespace vetchling
