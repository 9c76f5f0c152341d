#pragma once
/// Lengths, frequencies and wire sizes as people write them. Values are SI; what was typed is kept by the caller.

#include "core/result.h"
#include "core/units/text.h"

#include <functional>
#include <map>
#include <string>

namespace vetchling::units {

/// What an expression may refer to: `=lambda/4*0.97` is in metres.
struct Context {
    double designFrequency = 0.0; ///< Hz; 0: lambda is unknown
    System system = System::Metric;
    bool bareIsSi = false; ///< a number without a unit is in m, Hz, H ... whatever the system, as on the command line
    /// Hz of the centre of a band by its name, "20 m"; 0 if there is none. Without it no band is known.
    std::function<double(const std::string& name)> bandCentre = {};
    std::map<std::string, double> lengths = {}; ///< m by name, `=side/2+20 cm`
};

/// Whether a length may be called so in expressions: letters and digits, and no word that means something else there.
bool isFreeName(const std::string& name);

/// Reads "10.16 m", "33ft 4 1/2in", "40' 6", "14.1", "7080 kHz", "14 AWG", "#14", "2.5 mm2", "60 deg", "9 uH", "100 pF", "=lambda/2*0.97";
/// where a frequency is asked, "20 m" too, for the centre of that band. Returns SI: m, Hz, m of diameter for WireSize, degrees for Angle,
/// W, H, and plain numbers as they are (percent too). A number without a unit is in the unit that format() shows: m or ft, cm or in, mm or
/// in for a wire, MHz. So is an expression of such numbers alone, "=2*10"; `lambda`, `m`, `cm`, `mm`, `ft` and `in` in it are lengths, and
/// `f` is the design frequency in MHz.
Result<double> parse(const std::string& text, Quantity quantity, const Context& context = {});
/// What was typed with the unit it was meant in, so that it keeps its meaning in the other system: "33" in feet is "33 ft".
std::string withUnit(const std::string& typed, Quantity quantity, const Context& context = {});

/// "9.87 m" or, as a tape shows it, "32 ft 4 9/16 in"; whole inches for less than two decimals.
std::string formatLength(double metres, System system = System::Metric, int decimals = 2);
/// "4.5 cm" or "1 3/4 in".
std::string formatSmall(double metres, System system = System::Metric);
/// "7.080 MHz".
std::string formatFrequency(double hertz, int decimals = 3);
/// A value with its unit as an input field shows it.
std::string format(double value, Quantity quantity, System system = System::Metric);

/// Diameter of a gauge, m: 0.127 mm * 92^((36-n)/39) (ASTM B258).
double gaugeDiameter(double gauge);

} // namespace vetchling::units
