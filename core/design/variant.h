#pragma once
/// Another way to build an antenna: what differs from the one as drawn, under a name. What is not told follows the antenna.

#include "core/shapes/family.h"
#include "core/site/site.h"

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
    std::optional<std::optional<Soil>> soil; ///< another one under it than under the antenna; null inside: the site's
    KeptFields kept;
    friend bool operator==(const Variant&, const Variant&) = default;
};

/// An antenna's shape, changed to a variant's.
shapes::AntennaShape shapeOf(const shapes::AntennaShape& drawn, const Variant& variant);
} // namespace vetchling
