#pragma once
/// Measured dips: whether they can be believed, and how the cuts answered.

#include "core/design/measurement.h"

#include <optional>

namespace vetchling {

/// Where the next dip should lie by the model and the cuts made so far, where a measurement is so far from it that it is more likely a
/// slip: 3.5 % for the first, half of that and what the cut may do otherwise for the others. Nothing if it can be believed.
/// @param next the measurement in question @param modelDip Hz, 0: unknown
std::optional<double> unlikelyDip(const TrimLog& log, const Measurement& next, double modelDip, double modelSlope);

/// The model's slope corrected by what the cuts made so far did: each cut pulls towards its own result, in proportion
/// to its length, against a prior worth 5 cm for the model. A fold counts as a cut.
double correctedSlope(const TrimLog& log, double modelSlope);

} // namespace vetchling
