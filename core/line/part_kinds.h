#pragma once
/// The kinds, each with one static instance, and what their specs have in common. Only for .cpp files of core/line.

#include "core/line/parts.h"

namespace vetchling {

const PartKind& transformerKind();
const PartKind& chokeKind();
const PartKind& lineKind();
const PartKind& sectionKind();
const PartKind& stubKind();
const PartKind& networkKind();
const PartKind& tunerKind();
const PartKind& attenuatorKind();
const PartKind& meterKind();
const PartKind& lumpKind();

/// "loss_dB", and at least and at most that: dB that are lost, 0 to 60. @param standard dB
void addLossSpecs(std::vector<PartSpec>& specs, double standard);
/// Specs of one figure each, none below 0: reactance over resistance, 5 to 1e5; ohm; m, up to 10 km; speed over that of light, 0.1 to 1.
/// @param label, help marked for translation
PartSpec qSpec(std::string key, std::string label, double standard);
PartSpec ohmSpec(std::string key, std::string label, double standard, double lowest, double highest, std::string help = {});
PartSpec metreSpec(std::string key, std::string label, double standard, std::string help = {});
PartSpec velocitySpec(std::string key, std::string label, double standard);
/// What a line loses in its conductors and in its insulation ("k1_dB_per_100m", "k2_dB_per_100m").
PartSpec conductorLossSpec();
PartSpec insulationLossSpec();

} // namespace vetchling
