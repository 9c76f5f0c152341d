#pragma once
/// A wire of even weight between two supports of one height: exact catenary, no stretch, no wind.
/// y = a cosh(x/a), a = H/(w g): sag = a (cosh(s/2a) - 1), tension at the ends H + w g sag, wire 2 a sinh(s/2a).

#include "core/result.h"

namespace vetchling {

inline constexpr double gravity = 9.80665; ///< m/s^2

struct Span {
    double span = 0.0;         ///< m between the supports
    double massPerMetre = 0.0; ///< kg/m
};

struct Hanging {
    double sag = 0.0;        ///< m, in the middle
    double horizontal = 0.0; ///< N, also the tension in the middle
    double end = 0.0;        ///< N at the supports
    double wire = 0.0;       ///< m of wire
};

/// Faults: lengths or masses that are none, by member.
Result<Hanging> hangingWithSag(const Span& span, double sag);
/// The taut one of the two ways to hang under a tension at the ends. Faults: also one that does not carry the wire.
Result<Hanging> hangingWithTension(const Span& span, double endTension);

} // namespace vetchling
