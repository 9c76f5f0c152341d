#include "core/units/units.h"

#include "core/physics.h"

#include <fmt/format.h>
#include <muParser.h>

#include <algorithm>
#include <cctype>
#include <charconv>
#include <cmath>
#include <map>
#include <optional>

namespace vetchling::units {
namespace {

constexpr double foot = 0.3048, inch = 0.0254;

using UnitTable = std::map<std::string, double>;

const UnitTable& unitsOf(Quantity quantity)
{
    static const UnitTable length{{"m", 1.0},     {"cm", 0.01},   {"mm", 0.001}, {"km", 1000.0}, {"ft", foot},   {"'", foot},
                                  {"feet", foot}, {"foot", foot}, {"in", inch},  {"\"", inch},   {"inch", inch}, {"inches", inch}};
    static const UnitTable frequency{{"mhz", 1e6}, {"khz", 1e3}, {"hz", 1.0}, {"ghz", 1e9}, {"m", 1e6}, {"k", 1e3}};
    static const UnitTable angle{{"deg", 1.0}, {"°", 1.0}, {"degrees", 1.0}};
    static const UnitTable power{{"w", 1.0}, {"kw", 1000.0}, {"mw", 0.001}};
    static const UnitTable inductance{{"uh", 1e-6}, {"µh", 1e-6}, {"μh", 1e-6}, {"nh", 1e-9}, {"mh", 1e-3}, {"h", 1.0}};
    static const UnitTable percent{{"%", 1.0}};
    static const UnitTable plain;
    switch (quantity) {
    case Quantity::Length:
    case Quantity::SmallLength:
    case Quantity::WireSize: return length;
    case Quantity::Frequency: return frequency;
    case Quantity::Angle: return angle;
    case Quantity::Power: return power;
    case Quantity::Inductance: return inductance;
    case Quantity::Percent: return percent;
    case Quantity::Plain: break;
    }
    return plain;
}

double unwritten(Quantity quantity, const Context& context)
{
    if (context.bareIsSi)
        return 1.0;
    const System system = context.system;
    switch (quantity) {
    case Quantity::Length: return system == System::Metric ? 1.0 : foot;
    case Quantity::SmallLength: return system == System::Metric ? 0.01 : inch;
    case Quantity::WireSize: return 0.001;
    case Quantity::Frequency: return 1e6;
    case Quantity::Inductance: return 1e-6;
    default: return 1.0;
    }
}

std::string example(Quantity quantity)
{
    switch (quantity) {
    case Quantity::Length: return coreText("core", "write a length such as 10.16 m, 33ft 4in or =lambda/4*0.97");
    case Quantity::SmallLength: return coreText("core", "write a length such as 5 cm or 2 in");
    case Quantity::WireSize: return coreText("core", "write a wire size such as 1.6 mm, 2.5 mm2 or 14 AWG");
    case Quantity::Frequency: return coreText("core", "write a frequency such as 14.1 or 7080 kHz");
    case Quantity::Angle: return "write an angle in degrees such as 60";
    case Quantity::Power: return coreText("core", "write a power such as 100 W");
    case Quantity::Inductance: return "write an inductance such as 9 uH";
    case Quantity::Percent: return coreText("core", "write a percentage such as 1.4");
    case Quantity::Plain: break;
    }
    return coreText("core", "write a number such as 2.5");
}

std::string lower(std::string text)
{
    std::transform(text.begin(), text.end(), text.begin(), [](unsigned char c) { return char(std::tolower(c)); });
    return text;
}

std::string trimmed(const std::string& text)
{
    const auto first = text.find_first_not_of(" \t\n\r");
    return first == std::string::npos ? "" : text.substr(first, text.find_last_not_of(" \t\n\r") - first + 1);
}

Fault notUnderstood(const std::string& text, Quantity quantity)
{
    return {"", {coreText("core", "'%1' is not understood; %2"), text, example(quantity)}};
}

Result<double> parseExpression(const std::string& text, Quantity quantity, const Context& context)
{
    try {
        mu::Parser parser;
        if (context.designFrequency > 0.0) {
            parser.DefineConst("lambda", wavelength(context.designFrequency));
            parser.DefineConst("f", context.designFrequency / 1e6);
        }
        parser.DefineConst("ft", foot);
        parser.DefineConst("inch", inch);
        parser.SetExpr(text.substr(1));
        const double value = parser.Eval();
        if (!std::isfinite(value))
            return Fault{"", {coreText("core", "'%1' has no finite value; %2"), text, example(quantity)}};
        const bool metres = quantity == Quantity::Length || quantity == Quantity::SmallLength;
        return metres ? value : value * unwritten(quantity, context);
    } catch (const mu::Parser::exception_type& e) {
        return Fault{"", {coreText("core", "'%1' cannot be worked out (%2); %3"), text, e.GetMsg(), example(quantity)}};
    }
}

/// A number at the start of a text, whatever the locale says of commas; nothing and `used` 0 if there is none.
std::optional<double> leadingNumber(const std::string& text, std::size_t& used)
{
    used = 0;
    const std::size_t first = std::min(text.find_first_not_of(" \t"), text.size());
    const std::size_t start = first < text.size() && text[first] == '+' ? first + 1 : first;
    double value = 0.0;
    const auto [end, error] = std::from_chars(text.data() + start, text.data() + text.size(), value);
    if (error != std::errc() || !std::isfinite(value))
        return std::nullopt;
    used = std::size_t(end - text.data());
    return value;
}

/// Commas as people write them: "1,005 ft" groups thousands, "10,16 m" and "2,5 mm2" are decimals.
std::string withPoints(std::string text)
{
    const auto isDigit = [&](std::size_t i) { return i < text.size() && std::isdigit(static_cast<unsigned char>(text[i])); };
    for (std::size_t at = text.find(','); at != std::string::npos; at = text.find(',', at)) {
        const bool three = at > 0 && isDigit(at - 1) && isDigit(at + 1) && isDigit(at + 2) && isDigit(at + 3) && !isDigit(at + 4);
        const std::size_t unit = std::min(text.find_first_not_of(' ', at + 4), text.size());
        const bool feet = three && (text.compare(unit, 2, "ft") == 0 || text.compare(unit, 1, "'") == 0 || text.compare(unit, 4, "feet") == 0);
        feet ? text.erase(at, 1) : text.replace(at, 1, ".");
    }
    return text;
}

struct Piece {
    double number;
    std::string unit;
};

/// "33ft 4in" -> {33, ft}, {4, in}; empty if it is not a row of numbers with units.
std::vector<Piece> pieces(const std::string& text)
{
    std::vector<Piece> out;
    std::size_t i = 0;
    while (i < text.size()) {
        std::size_t used = 0;
        Piece piece{};
        const std::optional<double> number = leadingNumber(text.substr(i), used);
        if (!number)
            return {};
        piece.number = *number;
        i += used;
        while (i < text.size() && std::isspace((unsigned char)text[i]))
            ++i;
        const std::size_t start = i;
        while (i < text.size() && !std::isspace((unsigned char)text[i]) && !std::isdigit((unsigned char)text[i]) && text[i] != '.' &&
               text[i] != '-')
            ++i;
        piece.unit = text.substr(start, i - start);
        while (i < text.size() && std::isspace((unsigned char)text[i]))
            ++i;
        out.push_back(piece);
    }
    return out;
}

/// "14 AWG" and "2.5 mm2"; nothing if it is neither.
Result<double> parseWireSize(const std::string& text)
{
    const std::string t = lower(text);
    const auto number = [&](std::size_t cut) -> double {
        std::size_t used = 0;
        const std::optional<double> value = leadingNumber(t.substr(0, cut), used);
        return value && trimmed(t.substr(used, cut - used)).empty() ? *value : NAN;
    };
    if (const auto at = t.find("awg"); at != std::string::npos) {
        const double gauge = number(at);
        if (gauge >= -3.0 && gauge <= 50.0)
            return gaugeDiameter(gauge);
        return notUnderstood(text, Quantity::WireSize);
    }
    for (const char* square : {"mm2", "mm²", "mm^2"})
        if (const auto at = t.find(square); at != std::string::npos) {
            const double area = number(at);
            if (area > 0.0)
                return 2.0 * std::sqrt(area * 1e-6 / pi);
            return notUnderstood(text, Quantity::WireSize);
        }
    return Fault{"", ""};
}

} // namespace

Result<double> parse(const std::string& written, Quantity quantity, const Context& context)
{
    std::string text = trimmed(written);
    if (text.empty())
        return Fault{"", {coreText("core", "nothing is written here; %1"), example(quantity)}};
    for (std::size_t at; (at = text.find("−")) != std::string::npos;)
        text.replace(at, std::string("−").size(), "-");
    text = withPoints(std::move(text));
    if (text.front() == '=')
        return parseExpression(text, quantity, context);
    if (quantity == Quantity::WireSize)
        if (Result<double> size = parseWireSize(text); size || !size.firstFault().empty())
            return size;
    const std::vector<Piece> all = pieces(text);
    if (all.empty() || all.size() > 2)
        return notUnderstood(written, quantity);
    double sum = 0.0;
    for (std::size_t i = 0; i < all.size(); ++i) {
        double factor = unwritten(quantity, context);
        if (!all[i].unit.empty()) {
            const UnitTable& table = unitsOf(quantity);
            const auto found = table.find(lower(all[i].unit));
            if (found == table.end())
                return notUnderstood(written, quantity);
            factor = found->second;
        } else if (all.size() > 1) {
            return notUnderstood(written, quantity);
        }
        sum += std::copysign(all[i].number, i > 0 && all[0].number < 0.0 ? -1.0 : all[i].number) * factor;
    }
    if (!std::isfinite(sum))
        return notUnderstood(written, quantity);
    return sum;
}

std::string formatLength(double metres, System system, int decimals)
{
    if (system == System::Metric)
        return fmt::format("{:.{}f} m", metres, decimals);
    const double total = std::round(std::abs(metres) / inch * 10.0) / 10.0;
    const int feet = int(total / 12.0 + 1e-9);
    const char* sign = metres < 0.0 ? "-" : "";
    return feet > 0 ? fmt::format("{}{} ft {:.1f} in", sign, feet, std::max(0.0, total - 12.0 * feet))
                    : fmt::format("{}{:.1f} in", sign, total);
}

std::string formatSmall(double metres, System system)
{
    if (system == System::Metric)
        return fmt::format("{:.1f} cm", metres * 100.0);
    return fmt::format("{:.1f} in", metres / inch);
}

std::string formatFrequency(double hertz, int decimals) { return fmt::format("{:.{}f} MHz", hertz / 1e6, decimals); }

std::string format(double value, Quantity quantity, System system)
{
    switch (quantity) {
    case Quantity::Length: return formatLength(value, system);
    case Quantity::SmallLength: return formatSmall(value, system);
    case Quantity::Frequency: return formatFrequency(value);
    case Quantity::WireSize:
        return system == System::Metric ? fmt::format("{:.2f} mm", value * 1e3) : fmt::format("{:.3f} in", value / inch);
    case Quantity::Angle: return fmt::format("{:.0f}°", value);
    case Quantity::Power: return fmt::format("{:g} W", value);
    case Quantity::Inductance: return fmt::format("{:.2f} µH", value * 1e6);
    case Quantity::Percent: return fmt::format("{:g} %", value);
    case Quantity::Plain: break;
    }
    return fmt::format("{:g}", value);
}

double gaugeDiameter(double gauge) { return 0.127e-3 * std::pow(92.0, (36.0 - gauge) / 39.0); }

} // namespace vetchling::units
