#pragma once
/// Sentences about a band: what is, what it means, what to do.

#include "app/document/solve_service.h"
#include "core/units/units.h"

#include <QString>

namespace vetchling::app {

/// @param cure as cureSentence gives it; empty if there is none
QString bandSentence(const Coverage& coverage, double limit, const QString& cure);
/// "28.5 cm off each side would bring it in at 1.30, but 30 m would be lost". @param design names the bands
QString cureSentence(const study::Cure& cure, const shapes::Lever& lever, const Design& design);
/// Resonance and match told apart, for the bands that matter.
QString resonanceSentence(const study::Curve& curve, const Id& selectedBand);

} // namespace vetchling::app
