#pragma once
/// Kinds of coax and open-wire line, as a table gives them.

#include "core/line/chain_part.h"

namespace vetchling {

struct LineType {
    std::string id, name, source;
    bool balanced = false;
    double impedance = 50.0; ///< ohm
    double velocityFactor = 0.66;
    double k1 = 0.0, k2 = 0.0;  ///< dB per 100 m: k1 sqrt(f/MHz) + k2 f/MHz
    double pricePerMetre = 0.0; ///< in whatever the user counts; 0: not known
};

/// Gives a line part a type's values; length and all else stay.
void takeType(ChainPart& part, const LineType& type);

} // namespace vetchling
