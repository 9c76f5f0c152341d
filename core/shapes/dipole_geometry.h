#pragma once
/// What all dipoles share: a centre, two legs, and the heights they hang between.

#include "core/shapes/family.h"

namespace vetchling::shapes {

struct DipoleGeometry {
    Vec3 centre, endA, endB;
    double leg = 0.0; ///< m
};

std::vector<ParameterSpec> dipoleParameters(double leg, double apex, double ends);
/// Centre and ends from the parameters; a fault if the ends would hang lower than the wire is long.
Result<DipoleGeometry> dipoleGeometry(const Family& family, const AntennaShape& shape);
/// One wire from end to end, fed in the middle, with handles, dimensions and insulators; sections are the family's.
BuiltAntenna dipoleFrame(const DipoleGeometry& geometry, const AntennaShape& shape);
/// A constant in ft MHz over the frequency, `part` of it being the tuned parameter.
RuleOfThumb feetRule(std::string name, std::string assumption, double feetMegahertz, double part, double frequency);

} // namespace vetchling::shapes
