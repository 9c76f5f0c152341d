#pragma once
/// A place on the earth as one writes it.

#include "core/result.h"
#include "core/site/site.h"

namespace vetchling {

/// "54.123, -3.21", "54.123 N 3.21 W" (a decimal comma where numbers are parted by a space or semicolon), or a grid locator of 4, 6 or 8
/// characters, whose middle it is (fields of 20 by 10 degrees, squares of 2 by 1, subsquares of 5 by 2.5 minutes, tenths of them).
/// Faults: what is none of these; not on the earth.
Result<GeoPlace> readPlace(const std::string& text);
/// Of 6 characters.
std::string locatorOf(const GeoPlace& place);
/// Straight on over the ground, some kilometres at most. @param bearing degrees @param distance m
GeoPlace movedOnEarth(const GeoPlace& from, double bearing, double distance);

} // namespace vetchling
