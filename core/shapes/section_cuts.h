#pragma once
/// Which sections of wire each lever cuts: told by building the antenna a little longer.

#include "core/shapes/family.h"

#include <vector>

namespace vetchling::shapes {

/// A lever that cuts all pieces of some sections alike.
struct SectionCut {
    Lever lever;
    std::vector<double> rates; ///< by section, m that each of its pieces is longer for one more SI of the parameter; 0: not cut by it
    double all = 0.0;          ///< of all pieces together
};

/// Levers of the kind Cut, in the family's order; one that cuts what another cuts already, a tip alone, is left out. Empty where the
/// antenna cannot be built. @param built the shape's
std::vector<SectionCut> sectionCuts(const AntennaShape& shape, const BuiltAntenna& built);

} // namespace vetchling::shapes
