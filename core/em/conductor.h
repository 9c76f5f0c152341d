#pragma once
/// Skin effect: what a round conductor itself adds to the impedance per metre.

#include "core/wire/wire_model.h"

namespace vetchling::em {

/// Internal impedance of a solid round conductor, ohm/m: k J0(ka)/(2 pi a sigma J1(ka)), k^2 = -j w mu sigma
/// (Ramo, Whinnery & Van Duzer 1994, eq. 4.5-10).
Complex internalImpedance(double frequency, double radius, double conductivity, double relativePermeability);

/// The same of a wire with its wall and coating, at a place where it has that radius. The wire must have a conductivity.
/// In each layer the admittance Y = H/E at the radius r follows
///   dY/dr = sigma - Y/r - j w mu Y^2  (from curl E = -jw mu H and curl H = sigma E),
/// from 0 at the bore of a tube or the solid core's value, outward, which is the stable way.
/// No field in the bore; displacement current in the metal neglected.
Complex internalImpedance(const Wire& wire, double radius, double frequency);

} // namespace vetchling::em
