#pragma once
/// What would mend the place of an antenna: a pole where an end is not held, or another place; each judged again before it is offered.

#include "core/advice/findings.h"

namespace vetchling::advice {

/// Findings of its place (placeFindings and crossingFindings) with their cures, where there are any that leave nothing worse. Solves
/// nothing; takes up to some tenths of a second.
void addPlaceCures(std::vector<Finding>& findings, const Design& design, const Antenna& antenna);

/// What is told of a place on a design, as the pages do.
std::vector<Finding> placedFindings(const Design& design, const Antenna& antenna);

} // namespace vetchling::advice
