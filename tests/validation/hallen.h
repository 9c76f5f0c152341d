#pragma once
/// A second way to the impedance of a straight tube, which shares nothing with the solver but Maxwell.

#include "core/wire/wire_model.h"

namespace vetchling::testing {

/// Impedance in ohm of a perfectly conducting tube in free space, open at its ends, driven in the middle by a uniform field
/// over a gap: Hallen's equation (1938; King 1956, ch. II) with the exact kernel, collocated at `nodes` Chebyshev points. All
/// lengths in wavelengths. The nodes must resolve the radius: pi/2 length/nodes well below it.
Complex hallenImpedance(double length, double radius, double gap, int nodes);

} // namespace vetchling::testing
