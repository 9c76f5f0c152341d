#pragma once
/// Sentences about a band: what is, what it means, what to do.

#include "app/document/solve_service.h"
#include "core/units/units.h"

#include <QString>

namespace vetchling::app {

/// @param lengthWords how the length is called, "a side"; @param trimSlope Hz a metre, 0: unknown
QString bandSentence(const Coverage& coverage, double limit, const QString& lengthWords, double trimSlope, units::System system);
/// Resonance and match told apart, for the bands that matter.
QString resonanceSentence(const study::Curve& curve, const Id& selectedBand);

} // namespace vetchling::app
