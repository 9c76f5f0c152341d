#pragma once
/// A wire folded back on itself is not quite a cut: its end is shorter and thicker, and what is thicker ends later.
///
/// Two wires side by side of radius a, their axes d apart and at one potential, charge like one of radius sqrt(a d) (King 1956, "The Theory
/// of Linear Antennas", on parallel conductors). The end of that thickness is solved beside one of the wire's own, both cut into the same
/// elements, so that what is left between them is the fold.

#include "core/study/study.h"

namespace vetchling {

/// What a fold does of what a cut of the same length does: 1 for none, less for a thick or short wire. Nothing where no end of a wire is
/// open there, where the conductor is no wire that could be folded, or where it cannot be solved. Faults: stopped.
/// @param uncut, cut the antenna before and after, alike but for the pieces that are shortened by `length`, m each
/// @param dip Hz of the SWR, of the cut one, near which it is looked for @param rise Hz that the cut moves the dip
Result<std::optional<double>> foldOverCut(study::Library& library, const study::Subject& uncut, const study::Subject& cut, double length,
                                          double dip, double rise, const Watch& watch = {});

} // namespace vetchling
