#include "core/units/units.h"

#include <fmt/format.h>

#include <cmath>

namespace vetchling::units {
namespace {

constexpr double metresAnInch = 0.0254, inchesAFoot = 12.0;
constexpr int sixteenths = 16; // ticks an inch on a tape

/// "4 9/16 in" as a tape with so many ticks an inch shows it; decimals where that would show nothing.
std::string tapeInches(double inches, int parts)
{
    const int ticks = int(std::lround(inches * parts));
    if (ticks == 0 && inches > 0.0)
        return fmt::format("{:.2g} in", inches);
    int bottom = parts, top = ticks % parts;
    for (; top > 0 && top % 2 == 0; top /= 2)
        bottom /= 2;
    const int whole = ticks / parts;
    if (top == 0)
        return fmt::format("{} in", whole);
    return whole > 0 ? fmt::format("{} {}/{} in", whole, top, bottom) : fmt::format("{}/{} in", top, bottom);
}

std::string feetAndInches(double metres, int parts)
{
    const double inches = std::round(std::abs(metres) / metresAnInch * parts) / parts;
    const double feet = std::floor(inches / inchesAFoot), rest = inches - inchesAFoot * feet;
    const std::string sign = metres < 0.0 ? "-" : "";
    if (feet < 1.0)
        return sign + tapeInches(std::abs(metres) / metresAnInch, parts);
    return rest > 0.0 ? fmt::format("{}{:.0f} ft {}", sign, feet, tapeInches(rest, parts)) : fmt::format("{}{:.0f} ft", sign, feet);
}

/// To so many digits that count, as people read a figure.
double toDigits(double value, int digits)
{
    if (value == 0.0 || !std::isfinite(value))
        return value;
    const double scale = std::pow(10.0, digits - 1 - std::floor(std::log10(std::abs(value))));
    return std::round(value * scale) / scale;
}

/// Parts of a decibel that are told: tenths, hundredths of less than one.
double partsOfDecibel(double value) { return std::abs(value) < 1.0 ? 100.0 : 10.0; }

} // namespace

std::string formatLength(double metres, System system, int decimals)
{
    constexpr double longest = 300.0; // m that anybody measures to parts of an inch
    if (system == System::Metric)
        return fmt::format("{:.{}f} m", metres, decimals);
    if (system == System::DecimalFeet)
        return fmt::format("{:.{}f} ft", metres / metresAnInch / inchesAFoot, std::abs(metres) > longest ? 0 : decimals);
    return feetAndInches(metres, decimals < 2 || std::abs(metres) > longest ? 1 : sixteenths);
}

std::string formatSmall(double metres, System system)
{
    if (system == System::Metric)
        return fmt::format("{:.1f} cm", metres * 100.0);
    if (system == System::DecimalFeet)
        return fmt::format("{:.3f} ft", metres / metresAnInch / inchesAFoot);
    return (metres < 0.0 ? "-" : "") + tapeInches(std::abs(metres) / metresAnInch, sixteenths);
}

std::string formatFrequency(double hertz, int decimals) { return fmt::format("{:.{}f} MHz", hertz / 1e6, decimals); }

std::string format(double value, Quantity quantity, System system)
{
    switch (quantity) {
    case Quantity::Length: return formatLength(value, system);
    case Quantity::SmallLength: return formatSmall(value, system);
    case Quantity::Frequency: return formatFrequency(value);
    case Quantity::WireSize:
        return system == System::Metric ? fmt::format("{:.2f} mm", value * 1e3) : fmt::format("{:.3f} in", value / metresAnInch);
    case Quantity::Angle: return fmt::format("{:.0f}°", value);
    case Quantity::Power: return fmt::format("{:.8g} W", toDigits(value, 4));
    case Quantity::Capacitance: return fmt::format("{:.0f} pF", value * 1e12);
    case Quantity::Inductance: return fmt::format("{:.2f} µH", value * 1e6);
    case Quantity::Percent: return fmt::format("{:.8g} %", toDigits(value, 3));
    case Quantity::Resistance: return fmt::format("{:.8g} Ω", toDigits(value, 4));
    case Quantity::Decibel: return fmt::format("{:.8g} dB", std::round(value * partsOfDecibel(value)) / partsOfDecibel(value) + 0.0);
    case Quantity::Plain: break;
    }
    return fmt::format("{:g}", value);
}

} // namespace vetchling::units
