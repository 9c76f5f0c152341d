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

/// "loss_dB" and the range it may have.
void addLossSpecs(std::vector<PartSpec>& specs, double standard);
PartSpec qSpec(std::string key, std::string label, double standard);
PartSpec ohmSpec(std::string key, std::string label, double standard, double lowest, double highest, std::string help = {});
PartSpec metreSpec(std::string key, std::string label, double standard, std::string help = {});
PartSpec velocitySpec(std::string key, std::string label, double standard);

} // namespace vetchling
