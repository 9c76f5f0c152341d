#pragma once
/// What goes between an antenna and the radio where nobody chose anything yet: a choke, and coax as long as its way.

#include "core/design/design.h"
#include "core/line/line_types.h"

namespace vetchling::advice {

enum class TunerWish { None, InRadio, AtFeed };

/// The first 50 ohm coax of the list that loses less than a decibel over a length at a frequency, else the least lossy one; null where
/// the list has none.
const LineType* usualCoax(const std::vector<LineType>& types, double length, double frequency);

/// Coax as long as the way from the feedpoint to where it comes in, in half metres; after a line of the antenna's own, what is left of it.
/// Nothing where nothing is left.
std::optional<ChainPart> usualLine(const Design& design, const Antenna& antenna, Vec3 feedPoint, const std::vector<LineType>& types);

/// Everything behind the shape's own parts: a tuner at the feed, a choke, the coax, or a tuner in the radio. Where the return current has
/// the coax's outside, the choke sits a twentieth of the wave along it.
std::vector<ChainPart> usualChain(const Design& design, const Antenna& antenna, Vec3 feedPoint, const std::vector<LineType>& types,
                                  TunerWish tuner);

} // namespace vetchling::advice
