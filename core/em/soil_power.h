#pragma once
/// What the soil takes from a model with wires in it, by Poynting's theorem over the soil: what the currents in it put into the fields
/// there, plus what comes down through the surface, integrated over the plane wave spectrum. Of the currents in the soil that is their
/// reaction with all fields less what their waves do in the air; of those in the air it is what comes out of propagating waves at the
/// surface and, by integrals of their own (soilLossKernels), out of the waves that die out above it.

#include "core/em/solver.h"

namespace vetchling::em {

/// @param throughSurface W, of the propagating waves: down through the surface, less what the waves of the currents in the soil give to
/// those
///        in the air
/// @return W; fails only when stopped
Result<double> soilPower(const Solution& solution, double throughSurface, GroundTableCache& tables, const Watch& watch = {});

} // namespace vetchling::em
