#pragma once
/// Plain multiples of a lowest resonance: what is reckoned before anything is solved.

#include "core/bands/bands.h"
#include "core/shapes/family.h"

namespace vetchling {

/// The multiples n f, n = 1, 2, 3 ... or 1, 3, 5 ..., that lie in a band; both edges belong to it.
std::vector<int> multiplesIn(const Band& band, double fundamental, shapes::Multiples which = shapes::Multiples::All);

/// The lowest resonance that a rule of thumb reckons for a length, Hz: lengths go as one over the frequency, through the rule's value at
/// the design frequency. 0 where the parameter is no length that the family has a rule for.
double ruleFundamental(const shapes::AntennaShape& shape, const std::string& parameter, double value);

} // namespace vetchling
