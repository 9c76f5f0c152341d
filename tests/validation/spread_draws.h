#pragma once
/// A V over five soils with everything off at once, solved: what the spread is held against.

#include "core/study/spread.h"

#include <vector>

namespace vetchling::testing {

/// From sea to very dry.
const std::vector<Soil>& fiveSoils();
/// A V for 40 m of jacketed wire over a soil, with wide tolerances.
study::SpreadQuestion vOverSoil(const Soil& soil);

struct DrawnAntenna {
    double dip = 0.0, lowestSwr = 0.0; ///< Hz; in the band
};
/// Solved with every part off as said.
DrawnAntenna solvedOff(study::Library& library, const study::SpreadQuestion& asked, const study::Parts& parts);
/// So many draws from the tolerances that fill each cause's normal spread evenly, each in a random order of its own (Latin hypercube:
/// McKay, Beckman & Conover 1979), so that few tell much. @param seed of the orders
std::vector<DrawnAntenna> evenDraws(study::Library& library, const study::SpreadQuestion& asked, std::size_t count, unsigned seed);
/// The value below which a part of them lies.
double pointOf(std::vector<double> values, double part);

} // namespace vetchling::testing
