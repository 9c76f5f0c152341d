#pragma once
/// Circuit parts between points of the wire model: line sections and stubs.

#include "core/physics.h"

#include <array>
#include <cstddef>

namespace vetchling {

enum class LineEnd { Joined, Short, Open };

/// A piece of transmission line that does not radiate, in series with the wires at its two ends, or a stub at one.
struct LineSection {
    std::size_t fromWire = 0, toWire = 0; ///< indices into WireModel::wires; `to` only where joined
    double fromAt = 0.0, toAt = 0.0;      ///< m along them
    LineEnd end = LineEnd::Joined;
    double characteristicImpedance = 50.0; ///< ohm
    double length = 1.0;                   ///< m
    double velocityFactor = 1.0;
    double lossPerMetre = 0.0; ///< dB, the same at every frequency
    bool crossed = false;      ///< the far end's two conductors exchanged
    double k1 = 0.0, k2 = 0.0; ///< dB per 100 m that it loses besides: k1 sqrt(f/MHz) + k2 f/MHz

    /// Open-circuit impedances {Z11, Z12}: Zc coth(g l), Zc / sinh(g l), g = loss + j w/(c v) (Pozar 2011, table 4.2).
    /// A lossless line that is a whole number of half waves long is taken a hair longer, where both are finite.
    [[nodiscard]] std::array<Complex, 2> impedances(double frequency) const;
    /// Of a stub, ohm.
    [[nodiscard]] Complex stubImpedance(double frequency) const;
};

} // namespace vetchling
