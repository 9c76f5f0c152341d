#pragma once
/// A wire of even weight between two supports: exact catenary, no stretch, no wind.
/// y = a cosh(x/a), a = H/(w g): sag = a (cosh(s/2a) - 1), tension at the ends H + w g sag, wire 2 a sinh(s/2a).
/// Supports of two heights and a load in the middle: the same curve between other places (Irvine, Cable Structures 1981, ch. 1).

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
    double end = 0.0;        ///< N at the supports, the higher one where they differ
    double wire = 0.0;       ///< m of wire
    double low = 0.0;        ///< N at the lower support
    double below = 0.0;      ///< m that the lowest point hangs below the lower support
};

/// Faults: lengths or masses that are none, by member.
Result<Hanging> hangingWithSag(const Span& span, double sag);
/// Under a level pull. Sag is the greatest distance below the line between the supports. A load hangs in the middle of the span.
/// @param rise m between the supports @param load kg. With both, the load's part of sag and pull is a taut string's. Faults: as above; a
/// pull, rise or load that is none.
Result<Hanging> hangingWithPull(const Span& span, double horizontal, double rise = 0.0, double load = 0.0);
/// The taut one of the two ways to hang under a tension at the ends. Faults: also one that does not carry the wire.
Result<Hanging> hangingWithTension(const Span& span, double endTension);

} // namespace vetchling
