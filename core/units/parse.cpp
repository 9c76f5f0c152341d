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
#include <vector>

namespace vetchling::units {
namespace {

constexpr double foot = 0.3048, inch = 0.0254;

using UnitTable = std::map<std::string, double>;

const UnitTable& unitsOf(Quantity quantity)
{
    static const UnitTable length{{"m", 1.0},    {"metre", 1.0}, {"metres", 1.0}, {"meter", 1.0},  {"meters", 1.0}, {"cm", 0.01},
                                  {"mm", 0.001}, {"km", 1000.0}, {"ft", foot},    {"'", foot},     {"feet", foot},  {"foot", foot},
                                  {"in", inch},  {"\"", inch},   {"inch", inch},  {"inches", inch}};
    static const UnitTable frequency{{"mhz", 1e6}, {"khz", 1e3}, {"hz", 1.0}, {"ghz", 1e9}, {"k", 1e3}};
    static const UnitTable angle{{"deg", 1.0}, {"°", 1.0}, {"degrees", 1.0}};
    static const UnitTable power{{"w", 1.0}, {"watt", 1.0}, {"watts", 1.0}, {"kw", 1000.0}, {"mw", 0.001}};
    static const UnitTable inductance{{"uh", 1e-6}, {"µh", 1e-6}, {"μh", 1e-6}, {"nh", 1e-9}, {"mh", 1e-3}, {"h", 1.0}};
    static const UnitTable capacitance{{"pf", 1e-12}, {"nf", 1e-9}, {"uf", 1e-6}, {"µf", 1e-6}, {"μf", 1e-6}, {"f", 1.0}};
    static const UnitTable percent{{"%", 1.0}};
    static const UnitTable resistance{{"ohm", 1.0}, {"ohms", 1.0}, {"Ω", 1.0},  {"ω", 1.0},
                                      {"k", 1e3},   {"kohm", 1e3}, {"kω", 1e3}, {"r", 1.0}};
    static const UnitTable decibel{{"db", 1.0}};
    static const UnitTable plain;
    switch (quantity) {
    case Quantity::Length:
    case Quantity::SmallLength:
    case Quantity::WireSize: return length;
    case Quantity::Frequency: return frequency;
    case Quantity::Angle: return angle;
    case Quantity::Power: return power;
    case Quantity::Inductance: return inductance;
    case Quantity::Capacitance: return capacitance;
    case Quantity::Percent: return percent;
    case Quantity::Resistance: return resistance;
    case Quantity::Decibel: return decibel;
    case Quantity::Plain: break;
    }
    return plain;
}

bool isLength(Quantity quantity)
{
    return quantity == Quantity::Length || quantity == Quantity::SmallLength || quantity == Quantity::WireSize;
}

/// A unit and what it is in SI.
struct Unit {
    std::string name;
    double factor = 1.0;
};

/// What a number without a unit means.
Unit unwritten(Quantity quantity, const Context& context)
{
    const bool metric = context.system == System::Metric;
    switch (quantity) {
    case Quantity::Length: return context.bareIsSi || metric ? Unit{"m", 1.0} : Unit{"ft", foot};
    case Quantity::SmallLength:
        return context.bareIsSi                        ? Unit{"m", 1.0}
               : metric                                ? Unit{"cm", 0.01}
               : context.system == System::DecimalFeet ? Unit{"ft", foot}
                                                       : Unit{"in", inch};
    case Quantity::WireSize: return context.bareIsSi ? Unit{"m", 1.0} : metric ? Unit{"mm", 0.001} : Unit{"in", inch};
    case Quantity::Frequency: return context.bareIsSi ? Unit{"Hz", 1.0} : Unit{"MHz", 1e6};
    case Quantity::Inductance: return context.bareIsSi ? Unit{"H", 1.0} : Unit{"uH", 1e-6};
    case Quantity::Capacitance: return context.bareIsSi ? Unit{"F", 1.0} : Unit{"pF", 1e-12};
    default: return {};
    }
}

std::string example(Quantity quantity)
{
    switch (quantity) {
    case Quantity::Length: return coreText("core", "write a length such as 10.16 m, 33ft 4in or =lambda/4*0.97");
    case Quantity::SmallLength: return coreText("core", "write a length such as 5 cm or 2 in");
    case Quantity::WireSize: return coreText("core", "write a wire size such as 1.6 mm, 2.5 mm2 or 14 AWG");
    case Quantity::Frequency: return coreText("core", "write a frequency such as 14.1, 7080 kHz or a band, 20 m");
    case Quantity::Angle: return coreText("core", "write an angle in degrees such as 60");
    case Quantity::Power: return coreText("core", "write a power such as 100 W");
    case Quantity::Inductance: return coreText("core", "write an inductance such as 9 uH");
    case Quantity::Capacitance: return coreText("core", "write a capacitance such as 100 pF");
    case Quantity::Percent: return coreText("core", "write a percentage such as 1.4");
    case Quantity::Resistance: return coreText("core", "write a resistance such as 50 or 2.4 k");
    case Quantity::Decibel: return coreText("core", "write a loss such as 0.3 dB");
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

bool isDigit(char c) { return std::isdigit(static_cast<unsigned char>(c)) != 0; }
bool isSpace(char c) { return std::isspace(static_cast<unsigned char>(c)) != 0; }
bool isLetter(char c) { return std::isalpha(static_cast<unsigned char>(c)) != 0; }

Fault notUnderstood(const std::string& text, Quantity quantity)
{
    return {"", {coreText("core", "'%1' is not understood; %2"), text, example(quantity)}};
}

/// Signs that keyboards and tape measures have, in the plain ones.
std::string plainSigns(std::string text)
{
    static const std::pair<const char*, const char*> signs[] = {{"−", "-"},    {"′", "'"},    {"’", "'"},    {"″", "\""},    {"”", "\""},
                                                                {"''", "\""},  {"½", " 1/2"}, {"¼", " 1/4"}, {"¾", " 3/4"},  {"⅛", " 1/8"},
                                                                {"⅜", " 3/8"}, {"⅝", " 5/8"}, {"⅞", " 7/8"}, {"\u00a0", " "}};
    for (const auto& [from, to] : signs)
        for (std::size_t at; (at = text.find(from)) != std::string::npos;)
            text.replace(at, std::string(from).size(), to);
    return trimmed(text);
}

/// Commas as people write them: "1,005 ft" groups thousands, "10,16 m" and "2,5 mm2" are decimals.
std::string withPoints(std::string text)
{
    const auto digitAt = [&](std::size_t i) { return i < text.size() && isDigit(text[i]); };
    for (std::size_t at = text.find(','); at != std::string::npos; at = text.find(',', at)) {
        const bool three = at > 0 && digitAt(at - 1) && digitAt(at + 1) && digitAt(at + 2) && digitAt(at + 3) && !digitAt(at + 4);
        const std::size_t unit = std::min(text.find_first_not_of(' ', at + 4), text.size());
        const bool feet = three && (text.compare(unit, 2, "ft") == 0 || text.compare(unit, 1, "'") == 0 ||
                                    text.compare(unit, 4, "feet") == 0 || text.compare(unit, 4, "foot") == 0);
        feet ? text.erase(at, 1) : text.replace(at, 1, ".");
    }
    return text;
}

/// "2 ft", "3lambda" and "(2+3) ft" with their multiplication written out.
std::string withProducts(const std::string& expression)
{
    std::string out;
    for (std::size_t i = 0; i < expression.size();) {
        if (!isLetter(expression[i])) {
            out += expression[i++];
            continue;
        }
        std::size_t end = i;
        while (end < expression.size() && (isLetter(expression[end]) || isDigit(expression[end])))
            ++end;
        const std::string word = expression.substr(i, end - i);
        const std::size_t before = out.find_last_not_of(' ');
        const bool exponent = (word[0] == 'e' || word[0] == 'E') && i > 0 && isDigit(expression[i - 1]);
        if (before != std::string::npos && (isDigit(out[before]) || out[before] == ')' || out[before] == '.') && !exponent)
            out += '*';
        out += word;
        i = end;
    }
    return out;
}

constexpr std::pair<const char*, double> unitWords[] = {{"m", 1.0},     {"cm", 0.01}, {"mm", 0.001}, {"ft", foot},
                                                        {"feet", foot}, {"in", inch}, {"inch", inch}};

/// An expression with every length in it taken `scale` times as long.
double evaluated(const std::string& expression, const Context& context, double scale)
{
    mu::Parser parser;
    parser.SetArgSep(';');
    if (context.designFrequency > 0.0) {
        parser.DefineConst("lambda", scale * wavelength(context.designFrequency));
        parser.DefineConst("f", context.designFrequency / 1e6);
    }
    for (const auto& [name, value] : unitWords)
        parser.DefineConst(name, scale * value);
    for (const auto& [name, value] : context.lengths)
        parser.DefineConst(name, scale * value);
    parser.SetExpr(expression);
    return parser.Eval();
}

/// "=lambda/4*0.97" is in metres by itself, "=2*10" in the unit that a bare number has; "=lambda+1" is neither.
Result<double> parseExpression(const std::string& text, Quantity quantity, const Context& context)
{
    try {
        const std::string expression = withProducts(text.substr(1));
        const double value = evaluated(expression, context, 1.0);
        if (!std::isfinite(value))
            return Fault{"", {coreText("core", "'%1' has no finite value; %2"), text, example(quantity)}};
        if (!isLength(quantity))
            return value * unwritten(quantity, context).factor;
        constexpr double stretch = 2.0, close = 1e-9;
        const double stretched = evaluated(expression, context, stretch);
        if (std::abs(stretched - value) <= close * std::abs(value))
            return value * unwritten(quantity, context).factor;
        if (std::abs(stretched - stretch * value) <= close * std::abs(value))
            return value;
        return Fault{"",
                     {coreText("core", "'%1' mixes lengths with bare numbers; give each number its unit, such as =lambda/4-20 cm"), text}};
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

struct Piece {
    double number;
    std::string unit;
};

/// Reads a row of numbers with units, one after the other.
class PieceReader {
public:
    explicit PieceReader(const std::string& text) : m_text(text) {}

    /// "33ft 4 1/2in" -> {33, ft}, {4.5, in}; empty if it is no such row.
    std::vector<Piece> all()
    {
        std::vector<Piece> out;
        for (skipSpace(); m_at < m_text.size(); skipSpace()) {
            const std::optional<double> value = amount();
            if (!value)
                return {};
            skipSpace();
            const std::size_t start = m_at;
            while (m_at < m_text.size() && !isSpace(m_text[m_at]) && !isDigit(m_text[m_at]) && m_text[m_at] != '.' && m_text[m_at] != '-')
                ++m_at;
            out.push_back({*value, m_text.substr(start, m_at - start)});
        }
        return out;
    }

private:
    void skipSpace()
    {
        while (m_at < m_text.size() && isSpace(m_text[m_at]))
            ++m_at;
    }

    std::optional<double> number()
    {
        std::size_t used = 0;
        const std::optional<double> value = leadingNumber(m_text.substr(m_at), used);
        m_at += used;
        return value;
    }

    /// "4", "1/2" or "4 1/2".
    std::optional<double> amount()
    {
        std::optional<double> value = number();
        if (!value)
            return value;
        if (takeSlash())
            return over(*value);
        const std::size_t before = m_at;
        skipSpace();
        if (m_at < m_text.size() && isDigit(m_text[m_at]) && std::floor(*value) == *value)
            if (const std::optional<double> top = number(); top && takeSlash())
                if (const std::optional<double> part = over(*top))
                    return *value + std::copysign(*part, std::signbit(*value) ? -1.0 : 1.0);
        m_at = before;
        return value;
    }

    bool takeSlash()
    {
        const bool there = m_at < m_text.size() && m_text[m_at] == '/';
        m_at += there;
        return there;
    }

    std::optional<double> over(double top)
    {
        const std::optional<double> bottom = number();
        return bottom && *bottom > 0.0 ? std::optional<double>(top / *bottom) : std::nullopt;
    }

    const std::string& m_text;
    std::size_t m_at = 0;
};

/// "40' 6" is six inches.
void fillInches(std::vector<Piece>& pieces)
{
    const UnitTable& table = unitsOf(Quantity::Length);
    if (pieces.size() != 2 || !pieces[1].unit.empty())
        return;
    if (const auto unit = table.find(lower(pieces[0].unit)); unit != table.end() && unit->second == foot)
        pieces[1].unit = "in";
}

/// What a special way of writing comes to, where the text is written so.
struct Special {
    bool applies = false;
    Result<double> value = 0.0;
};

/// "14 AWG", "#14" and "2.5 mm2".
Special parseWireSize(const std::string& text, const Context& context)
{
    const std::string t = lower(text);
    const auto number = [&](std::size_t from, std::size_t to) -> double {
        std::size_t used = 0;
        const std::optional<double> value = leadingNumber(t.substr(from, to - from), used);
        return value && trimmed(t.substr(from + used, to - from - used)).empty() ? *value : NAN;
    };
    const auto gauge = [&](double g) -> Special {
        if (g >= -3.0 && g <= 50.0)
            return {true, gaugeDiameter(g)};
        return {true, notUnderstood(text, Quantity::WireSize)};
    };
    if (t.front() == '#')
        return gauge(number(1, t.size()));
    if (const auto at = t.find("awg"); at != std::string::npos)
        return at == 0 ? gauge(number(3, t.size())) : gauge(number(0, at));
    for (const char* square : {"mm2", "mm²", "mm^2"})
        if (const auto at = t.find(square); at != std::string::npos) {
            const double area = number(0, at);
            if (area > 0.0)
                return {true, 2.0 * std::sqrt(area * 1e-6 / pi)};
            return {true, notUnderstood(text, Quantity::WireSize)};
        }
    constexpr double pipe = 4.0; // in: a bare number that big was meant as a gauge
    if (const double bare = number(0, t.size()); bare >= pipe && !context.bareIsSi && context.system != System::Metric)
        return {true,
                Fault{"", {coreText("core", "'%1' would be inches, a pipe; write #%1 for the gauge, or %1 in if it is a pipe"), text}}};
    return {};
}

/// "20 m" where a frequency is asked: the centre of the band of that name.
Special parseBand(const std::string& text, const std::vector<Piece>& pieces, const Context& context)
{
    if (pieces.size() != 1)
        return {};
    const auto unit = unitsOf(Quantity::Length).find(lower(pieces[0].unit));
    if (unit == unitsOf(Quantity::Length).end())
        return {};
    const std::string name = fmt::format("{:g} {}", pieces[0].number, unit->second == 1.0 ? "m" : lower(pieces[0].unit));
    if (const double centre = context.bandCentre ? context.bandCentre(name) : 0.0; centre > 0.0)
        return {true, centre};
    return {true, Fault{"", {coreText("core", "no band here is called '%1'; write a frequency such as 14.1"), text}}};
}

} // namespace

Result<double> parse(const std::string& written, Quantity quantity, const Context& context)
{
    const std::string text = withPoints(plainSigns(trimmed(written)));
    if (text.empty())
        return Fault{"", {coreText("core", "nothing is written here; %1"), example(quantity)}};
    if (text.front() == '=')
        return parseExpression(text, quantity, context);
    if (quantity == Quantity::WireSize)
        if (Special size = parseWireSize(text, context); size.applies)
            return std::move(size.value);
    std::vector<Piece> all = PieceReader(text).all();
    if (quantity == Quantity::Frequency)
        if (Special band = parseBand(text, all, context); band.applies)
            return std::move(band.value);
    if (isLength(quantity))
        fillInches(all);
    if (all.empty() || all.size() > 2)
        return notUnderstood(written, quantity);
    double sum = 0.0;
    for (std::size_t i = 0; i < all.size(); ++i) {
        double factor = unwritten(quantity, context).factor;
        if (!all[i].unit.empty()) {
            const UnitTable& table = unitsOf(quantity);
            const auto found = table.find(lower(all[i].unit));
            if (found == table.end())
                return notUnderstood(written, quantity);
            factor = found->second;
        } else if (all.size() > 1) {
            return notUnderstood(written, quantity);
        }
        sum += std::copysign(all[i].number, i > 0 && std::signbit(all[0].number) ? -1.0 : all[i].number) * factor;
    }
    if (!std::isfinite(sum))
        return notUnderstood(written, quantity);
    return sum;
}

std::string withUnit(const std::string& written, Quantity quantity, const Context& context)
{
    const std::string text = trimmed(written), unit = unwritten(quantity, context).name;
    const Result<double> here = parse(text, quantity, context);
    if (unit.empty() || !here)
        return text;
    Context other = context; // where a bare number means something else
    other.bareIsSi = false;
    other.system = context.system == System::Metric && !context.bareIsSi ? System::Imperial : System::Metric;
    const bool bare =
        unwritten(quantity, other).name != unit && parse(text, quantity, other).ok() && *parse(text, quantity, other) != *here;
    if (!bare)
        return text;
    return text.front() == '=' ? fmt::format("=({}) {}", text.substr(1), unit) : fmt::format("{} {}", text, unit);
}

double gaugeDiameter(double gauge) { return 0.127e-3 * std::pow(92.0, (36.0 - gauge) / 39.0); }

bool isFreeName(const std::string& name)
{
    const auto plain = [](char c) { return isLetter(c) || isDigit(c); };
    if (name.empty() || !isLetter(name[0]) || !std::all_of(name.begin(), name.end(), plain) || name == "lambda" || name == "f" ||
        name == "e")
        return false;
    if (std::any_of(std::begin(unitWords), std::end(unitWords), [&](const auto& unit) { return name == unit.first; }))
        return false;
    const mu::funmap_type functions = mu::Parser().GetFunDef();
    return functions.find(name) == functions.end();
}

} // namespace vetchling::units
