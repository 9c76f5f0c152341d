#pragma once
/// Lengths, frequencies and wire sizes as people write them. Values are SI; what was typed is kept by the caller.

#include "core/result.h"
#include "core/units/text.h"

#include <string>

namespace vetchling::units {

/// What an expression may refer to: `=lambda/4*0.97` is in metres.
struct Context {
    double designFrequency = 0.0; ///< Hz; 0: lambda is unknown
    System system = System::Metric;
    bool bareIsSi = false; ///< a number without a unit is in m, Hz, H ... whatever the system, as on the command line
};

/// Reads "10.16 m", "33ft 4in", "14.1", "7080 kHz", "14 AWG", "2.5 mm2", "60 deg", "9 uH", "=lambda/2*0.97".
/// Returns SI: m, Hz, m of diameter for WireSize, degrees for Angle, W, H, and plain numbers as they are (percent too).
/// Without a unit a length is in m or ft, a small length in cm or in, a wire size in mm, a frequency in MHz.
Result<double> parse(const std::string& text, Quantity quantity, const Context& context = {});

/// "9.87 m" or "32 ft 4.6 in"; "4.5 cm" below a tenth of a metre where small is asked for.
std::string formatLength(double metres, System system = System::Metric, int decimals = 2);
/// "4.5 cm" or "1.8 in".
std::string formatSmall(double metres, System system = System::Metric);
/// "7.080 MHz".
std::string formatFrequency(double hertz, int decimals = 3);
/// A value with its unit as an input field shows it.
std::string format(double value, Quantity quantity, System system = System::Metric);

/// Diameter of a gauge, m: 0.127 mm * 92^((36-n)/39) (ASTM B258).
double gaugeDiameter(double gauge);

} // namespace vetchling::units
