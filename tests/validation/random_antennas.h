#pragma once
/// Random but sensible antennas of every shape in the field, for tests that ask what holds for all of them.

#include "core/wire/wire_model.h"

#include <string>

namespace vetchling::testing {

struct RandomAntenna {
    std::string kind;
    WireModel model; ///< without faults
    double frequency = 0.0;
};

/// The same antenna for the same seed, on every machine.
RandomAntenna randomAntenna(unsigned seed);

/// With wires in the soil or through its surface: radials, rods, loops, lost wires, some of them in jackets.
RandomAntenna randomBuried(unsigned seed);

/// Any numbers at all, most of them wrong somewhere: the checks must say so or the solver must answer.
WireModel wildModel(unsigned seed);

} // namespace vetchling::testing
