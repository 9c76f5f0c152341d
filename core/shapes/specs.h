#pragma once
/// Short ways to say what a parameter of a family is.

#include "core/shapes/family.h"

#include <optional>

namespace vetchling::shapes {

/// SI; the standard value may instead follow the wavelength (see ParameterSpec::scaled).
struct Bounds {
    double standard = 0.0, lowest = 0.0, highest = 0.0;
};

ParameterSpec lengthSpec(std::string key, std::string label, const char* group, Bounds bounds, std::string help = {}, double inWaves = 0.0);
/// A diameter or another size as a shop tells it.
ParameterSpec sizeSpec(std::string key, std::string label, const char* group, Bounds bounds, std::string help = {}, double inWaves = 0.0);
/// A whole or plain number.
ParameterSpec numberSpec(std::string key, std::string label, const char* group, Bounds bounds, std::string help = {});
ParameterSpec percentSpec(std::string key, std::string label, const char* group, Bounds bounds, std::string help = {});
ParameterSpec angleSpec(std::string key, std::string label, const char* group, Bounds bounds, std::string help = {});
ParameterSpec capacitanceSpec(std::string key, std::string label, const char* group, Bounds bounds, std::string help = {});
ParameterSpec inductanceSpec(std::string key, std::string label, const char* group, Bounds bounds, std::string help = {});
/// @param ratio of a new antenna, to its design frequency
ParameterSpec frequencySpec(std::string key, std::string label, const char* group, double ratio, std::string help = {});
ParameterSpec choiceSpec(std::string key, std::string label, const char* group, std::vector<std::string> choices, std::string help = {});

/// The length along the wire that is tuned, from its rule.
ParameterSpec tunedLengthSpec(std::string key, std::string label);
/// "coil_q", of every coil of the antenna.
ParameterSpec coilQuality();

/// A count that a layout depends on, from the shape alone; the least one where there is none or it is out of its range.
int countOf(const AntennaShape& shape, const std::string& key, int least, int most);

/// A straight wire that climbs.
struct Climb {
    double level = 0.0, rise = 0.0; ///< m
};
/// Upright where the rise is its length as people read it, to half a centimetre; nothing for a rise beyond that.
std::optional<Climb> climbOf(double length, double rise);

} // namespace vetchling::shapes
