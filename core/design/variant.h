#pragma once
/// Another way to build an antenna: what differs from the one as drawn, under a name. What is not told follows the antenna.

#include "core/shapes/family.h"

#include <map>
#include <optional>
#include <string>

namespace vetchling {

/// What the user typed for a parameter, kept beside the SI value.
using TypedTexts = std::map<std::string, std::string>;

struct Variant {
    Id id;
    std::string name, note;
    std::string family;                    ///< empty: the antenna's; else all parameters are here
    std::optional<double> designFrequency; ///< Hz
    shapes::Parameters values;             ///< that differ
    TypedTexts typed;                      ///< of those
    std::optional<shapes::WireChoice> wire;
    std::optional<std::map<std::string, shapes::WireChoice>> partWires;
    KeptFields kept;
    friend bool operator==(const Variant&, const Variant&) = default;
};

/// An antenna's shape, changed to a variant's.
shapes::AntennaShape shapeOf(const shapes::AntennaShape& drawn, const Variant& variant);
/// Keeps in a variant what a shape has other than the drawn one. @param typed for the shape's parameters
void keepDifferences(Variant& variant, const shapes::AntennaShape& drawn, const shapes::AntennaShape& shape, const TypedTexts& typed);

} // namespace vetchling
