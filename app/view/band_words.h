#pragma once
/// Sentences about a band: what is, what it means, what to do.

#include "app/document/solve_service.h"
#include "core/study/operating.h"
#include "core/units/units.h"

#include <QString>

namespace vetchling::app {

/// @param cure as cureSentence gives it; empty if there is none
QString bandSentence(const Coverage& coverage, double limit, const QString& cure);
/// "28.5 cm off each side would bring it in at 1.30, but 30 m would be lost". @param design names the bands
QString cureSentence(const study::Cure& cure, const shapes::Lever& lever, const Design& design);
/// "With your 10 m of coax 15 m reads 1.7; with a counterpoise of 2 m 2.8." Empty where it matters to no band.
QString returnSentence(const study::ReturnEffect& effect, units::System system);
/// Why a band is not for this wire, in a line.
QString reasonSentence(const Coverage& coverage);
/// How far a dip lies from its plain multiple, and what most of that comes from.
QString shiftSentence(const study::HarmonicShift& shift);
/// What a band is of use for, against its reference vertical, in words by size.
QString useSentence(const study::BandUse& use, const QString& band, double power);
/// How much a difference of gain is, as one hears it.
QString audibleWords(double decibels);
/// "links closed", "1 link closed"; after its frequency where it is no matter of links.
QString configurationWords(const std::vector<shapes::Configuration>& all, std::size_t which);
/// Resonance and match told apart, for the bands that matter.
QString resonanceSentence(const study::Curve& curve, const Id& selectedBand);

/// "2 of 6 served, 1 in part".
QString tallyWords(const Tally& tally);
/// What a band gets behind the chain in use, and why not more: "Served, 0.8 dB lost." Empty where it is not solved.
QString serviceSentence(const BandService& service, const Operation& operation);

} // namespace vetchling::app
