#pragma once
/// What nobody knows exactly of an antenna that is not built yet.

#include "core/id.h"

namespace vetchling {

/// How far each thing may be off, either side; taken as two standard deviations of a normal spread.
struct Tolerances {
    double height = 0.2;           ///< m, of everything that hangs
    double cut = 0.01;             ///< m, of every tuned length alike: one tape
    double unequal = 0.01;         ///< m, that one side is longer than the other by
    double jacket = 1e-4;          ///< m, of the insulation's thickness
    double soilConductivity = 3.0; ///< factor between wet or dry and the soil as given, where its class does not say
    double soilPermittivity = 1.5; ///< the same of the permittivity
    KeptFields kept;
    friend bool operator==(const Tolerances&, const Tolerances&) = default;
};

} // namespace vetchling
