#pragma once
/// Sentences about a band: what is, what it means, what to do.

#include "app/document/results.h"

#include <QString>

namespace vetchling::app {

/// @param lengthWords how the length is called, "a side"; @param trimSlope Hz a metre, 0: unknown
QString bandSentence(const Coverage& coverage, double limit, const QString& lengthWords, double trimSlope, units::System system);
/// Resonance and match told apart, for the bands that matter.
QString resonanceSentence(const CurveResult& curve, int selectedBand);

} // namespace vetchling::app
