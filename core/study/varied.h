#pragma once
/// What a map varies of an antenna: one of its parameters, or how high its supports are.

#include "core/study/study.h"

#include <optional>
#include <string>
#include <utility>
#include <vector>

namespace vetchling::study {

/// The height of all supports together, told as that of the antenna's highest wire; or of one, told as its own, with its id behind the key.
inline constexpr const char *allSupports = "height_m", *oneSupport = "support_height_m:";
/// Whether a dimension is a height that a gain can be told against: of supports, or of an antenna's middle.
bool isHeight(const std::string& vary);

/// The bearing of what turns on its mast.
inline constexpr const char* turning = "bearing_deg";
/// Whether an antenna is turned by its mast.
bool turns(const Antenna& antenna);
/// Whether it stands free of houses, fence, line and other dangers of its site there.
bool standsFree(const Design& design, const Subject& subject);

/// What can be varied: its words, limits and present value.
struct Varied {
    shapes::ParameterSpec spec;
    double present = 0.0; ///< SI
    Text label;           ///< in words, with a support's name in it
};
/// Nothing for a name that is neither a parameter nor a height of this antenna.
std::optional<Varied> variedOf(const Design& design, const Antenna& antenna, const std::string& vary);
/// The heights that an antenna has on its site: all supports together, and each that holds something of it where there are several.
std::vector<std::string> heightsOf(const Design& design, const Antenna& antenna);
/// The antenna with a dimension at another value: a lever pulled, or hung higher; the ends of a raised middle stay in the lines to what
/// holds them.
shapes::AntennaShape variedTo(const Design& design, const Antenna& antenna, const std::string& vary, double value);
/// The same on its site at each of some values, the supports with it where it is they that are raised.
std::vector<Subject> subjectsVariedTo(const Design& design, const Antenna& antenna, const std::string& vary,
                                      const std::vector<double>& values);
/// The usual range of a dimension: two thirds to one and a half of the present value; of supports to where half a wave is seen.
std::pair<double, double> usualRange(const Design& design, const Antenna& antenna, const std::string& vary);

} // namespace vetchling::study
