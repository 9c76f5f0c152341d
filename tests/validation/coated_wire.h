#pragma once
/// How much slower than light a wave runs along a wire in a jacket: by the exact mode, and as the solver has it.

#include "core/em/solver.h"

namespace vetchling::testing {

struct CoatedWire {
    double radius, thickness; ///< m
    double permittivity;      ///< relative, of the jacket
};

/// beta/k of the axially symmetric surface wave on an infinite perfect conductor with a jacket (Goubau 1950, J. Appl. Phys. 21,
/// 1119): Ez and Hphi continuous at the jacket, J and Y inside, K outside.
double surfaceWaveSlowness(const CoatedWire& wire, double frequency);

/// The same from the nodes of the standing current on a long wire of that many wavelengths in free space, fed near one end.
double slownessOnALongWire(const CoatedWire& wire, double frequency, double wavelengths);

} // namespace vetchling::testing
