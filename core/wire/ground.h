#pragma once
/// What lies under the wires.

#include "core/physics.h"
#include "core/result.h"

namespace vetchling {

enum class GroundKind { FreeSpace, Perfect, Real };

struct Ground {
    GroundKind kind = GroundKind::FreeSpace;
    double relativePermittivity = 1.0; ///< of real soil, 1 or more
    double conductivity = 0.0;         ///< of real soil, S/m
    double pairFrequency = 0.0;        ///< Hz at which the two hold, elsewhere by soil_model.h; 0: at every frequency

    /// The same soil with the figures that it has at a frequency, for every one.
    [[nodiscard]] Ground at(double frequency) const;
    /// Complex relative permittivity er - j sigma/(w eps0). @param frequency Hz
    [[nodiscard]] Complex complexPermittivity(double frequency) const;
    friend bool operator==(const Ground&, const Ground&) = default;
};

/// What speaks against following a soil's pair over frequency; empty where it is not.
Faults findPairFaults(const Ground& ground);

} // namespace vetchling
