#include "core/files/measured_file.h"

#include "core/files/json_reader.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <limits>
#include <sstream>

namespace vetchling::files {
namespace {

constexpr double mostHertz = 1e15;

std::string lower(std::string text)
{
    std::transform(text.begin(), text.end(), text.begin(), [](unsigned char c) { return char(std::tolower(c)); });
    return text;
}

std::vector<std::string> lines(const std::string& text)
{
    std::vector<std::string> all;
    std::istringstream in(text);
    for (std::string line; std::getline(in, line);) {
        if (!line.empty() && line.back() == '\r')
            line.pop_back();
        all.push_back(line);
    }
    return all;
}

std::vector<std::string> words(const std::string& line)
{
    std::istringstream in(line);
    std::vector<std::string> all;
    for (std::string word; in >> word;)
        all.push_back(word);
    return all;
}

/// A number in the C locale, whatever the user's is.
std::optional<double> numberIn(std::string text)
{
    const std::size_t from = text.find_first_not_of(" \t\"+"), to = text.find_last_not_of(" \t\"");
    if (from == std::string::npos || to < from)
        return std::nullopt;
    text = text.substr(from, to - from + 1);
    double value = 0.0;
    const auto [end, fault] = std::from_chars(text.data(), text.data() + text.size(), value);
    return fault == std::errc() && end == text.data() + text.size() && std::isfinite(value) ? std::optional(value) : std::nullopt;
}

Fault at(std::size_t line, Text message) { return {"line " + std::to_string(line + 1), std::move(message)}; }

/// An instrument sweeps upwards or downwards; neither is one that goes to and fro.
class Order {
public:
    /// A fault where this point does not go on as those before it.
    std::optional<Fault> add(const MeasuredSweep& sweep, double frequency, std::size_t line)
    {
        if (sweep.points.empty())
            return std::nullopt;
        const double step = frequency - sweep.points.back().frequency;
        if (sweep.points.size() == 1)
            m_falling = step < 0.0;
        if (step == 0.0 || (step < 0.0) != m_falling)
            return at(line, coreText("core", "the frequencies do not go on rising, or falling, from line to line"));
        return std::nullopt;
    }
    /// @return rising
    [[nodiscard]] MeasuredSweep risen(MeasuredSweep sweep) const
    {
        if (m_falling)
            std::reverse(sweep.points.begin(), sweep.points.end());
        return sweep;
    }

private:
    bool m_falling = false;
};

/// Numbers that are none after all: a reflection of 1e300, a frequency beyond all.
std::optional<Fault> unusable(const MeasuredPoint& p, std::size_t line)
{
    const bool good = p.frequency < mostHertz && !std::isnan(p.swr) && p.swr > 0.0 &&
                      (!p.impedance || (std::isfinite(p.impedance->real()) && std::isfinite(p.impedance->imag())));
    return good ? std::nullopt : std::optional(at(line, coreText("core", "what stands there cannot have been measured")));
}

/// What stands behind '#', or what holds where nothing does.
struct Options {
    double hertz = 1e9;
    char parameter = 's';
    std::string form = "ma";
    double reference = 50.0;
    bool second = false; ///< version 2: Z and Y are in ohm and siemens
};

std::optional<Fault> takeOptions(Options& o, const std::string& line, std::size_t place)
{
    const std::vector<std::string> all = words(lower(line.substr(line.find('#') + 1)));
    for (std::size_t i = 0; i < all.size(); ++i) {
        const std::string& w = all[i];
        if (w == "hz" || w == "khz" || w == "mhz" || w == "ghz")
            o.hertz = w == "hz" ? 1.0 : w == "khz" ? 1e3 : w == "mhz" ? 1e6 : 1e9;
        else if (w == "s" || w == "z" || w == "y")
            o.parameter = w[0];
        else if (w == "ma" || w == "db" || w == "ri")
            o.form = w;
        else if (w == "r" && i + 1 < all.size() && numberIn(all[i + 1]).value_or(0.0) > 0.0)
            o.reference = *numberIn(all[++i]);
        else
            return at(place, {coreText("core", "'%1' is not known in the line of options of a file of one port"), w});
    }
    return std::nullopt;
}

Complex pairOf(const Options& o, double a, double b)
{
    if (o.form == "ri")
        return {a, b};
    const double size = o.form == "db" ? std::pow(10.0, a / 20.0) : a;
    constexpr double none = std::numeric_limits<double>::quiet_NaN();
    return size >= 0.0 ? std::polar(size, b * pi / 180.0) : Complex{none, none}; // below nothing: not a measurement
}

Complex impedanceBy(const Options& o, Complex value)
{
    if (o.parameter == 's')
        return reflectingImpedance(value, o.reference);
    const double norm = o.second ? 1.0 : o.reference;
    return o.parameter == 'z' ? value * norm : norm / value;
}

std::vector<std::string> cells(const std::string& line, char separator)
{
    std::vector<std::string> all(1);
    bool quoted = false;
    for (char c : line) {
        if (c == '"')
            quoted = !quoted;
        else if (c == separator && !quoted)
            all.emplace_back();
        else
            all.back() += c;
    }
    return all;
}

std::optional<double> cellNumber(std::string text, bool decimalComma)
{
    if (decimalComma)
        std::replace(text.begin(), text.end(), ',', '.');
    return numberIn(text);
}

bool has(const std::string& heading, std::initializer_list<const char*> any)
{
    return std::any_of(any.begin(), any.end(), [&](const char* word) { return heading.find(word) != std::string::npos; });
}

Column columnOf(std::string heading)
{
    heading = lower(heading);
    const std::size_t from = heading.find_first_not_of(" \t"), to = heading.find_last_not_of(" \t");
    heading = from == std::string::npos ? "" : heading.substr(from, to - from + 1);
    if (has(heading, {"freq", "hz"}))
        return Column::Frequency;
    if (has(heading, {"swr", "vswr"}))
        return Column::Swr;
    if (has(heading, {"return", "rl", "s11 db", "db"}))
        return Column::ReturnLoss;
    if (has(heading, {"s11 re", "re(", "real", "gamma_re"}))
        return Column::GammaReal;
    if (has(heading, {"s11 im", "im(", "imag", "gamma_im"}))
        return Column::GammaImaginary;
    if (heading == "z" || has(heading, {"|z|", "magnitude", "impedance"}))
        return Column::Magnitude;
    if (heading == "r" || has(heading, {"resist", "r_ohm", "r (", "r [", "rs"}))
        return Column::Resistance;
    if (heading == "x" || has(heading, {"react", "x_ohm", "x (", "x [", "xs"}))
        return Column::Reactance;
    return Column::Unknown;
}

double hertzOf(const std::string& heading, double first)
{
    const std::string h = lower(heading);
    if (has(h, {"ghz"}))
        return 1e9;
    if (has(h, {"mhz"}))
        return 1e6;
    if (has(h, {"khz"}))
        return 1e3;
    if (has(h, {"hz"}))
        return 1.0;
    return first > 1e5 ? 1.0 : first > 3e3 ? 1e3 : 1e6; // as people write short-wave frequencies
}

} // namespace

Result<MeasuredSweep> parseTouchstone(const std::string& text)
{
    Options options;
    MeasuredSweep sweep;
    Order order;
    bool data = true;
    constexpr std::size_t onePortColumns = 3, twoPortColumns = 9, noiseColumns = 5;
    int ports = 0; // not known yet
    const std::vector<std::string> all = lines(text);
    for (std::size_t i = 0; i < all.size(); ++i) {
        const std::string line = all[i].substr(0, all[i].find('!'));
        const std::vector<std::string> parts = words(line);
        if (parts.empty())
            continue;
        if (parts[0][0] == '#') {
            if (const auto fault = takeOptions(options, line, i))
                return *fault;
            continue;
        }
        if (parts[0][0] == '[') {
            const std::string key = lower(line);
            options.second = true;
            if (key.find("[number of ports]") != std::string::npos && parts.back() != "1" && parts.back() != "2")
                return at(i, coreText("core", "a file of one port or two is wanted, and this one has more"));
            if (key.find("[reference]") != std::string::npos)
                options.reference = numberIn(parts.back()).value_or(options.reference);
            data = key.find("[network data]") != std::string::npos || (data && key.find("[end]") == std::string::npos);
            continue;
        }
        if (!data)
            continue;
        if (parts.size() == noiseColumns && ports == 2)
            break; // what noise it adds, after the ports
        if (ports == 0)
            ports = parts.size() == onePortColumns ? 1 : parts.size() == twoPortColumns ? 2 : 0;
        if (ports == 0 || parts.size() != (ports == 1 ? onePortColumns : twoPortColumns))
            return at(i, coreText("core", "a line of a file of one port has a frequency and two numbers, one of two ports eight"));
        if (ports == 2 && options.parameter != 's')
            return at(i, coreText("core", "of two ports only reflections (S) tell what one of them sees"));
        const auto f = numberIn(parts[0]), a = numberIn(parts[1]), b = numberIn(parts[2]);
        if (!f || !a || !b || !(*f > 0.0))
            return at(i, coreText("core", "these are no three numbers, the frequency above 0"));
        const double frequency = *f * options.hertz;
        if (const auto fault = order.add(sweep, frequency, i))
            return *fault;
        const Complex told = pairOf(options, *a, *b);
        constexpr double mostBack = 1.2; // a little over 1 is noise
        if (options.parameter == 's' && std::abs(told) > mostBack)
            return at(
                i, coreText("core", "more comes back there than went out: another form than the line of options says, or no reflection"));
        const Complex z = impedanceBy(options, told);
        sweep.points.push_back({frequency, z, measuredSwr(z, options.reference)});
        if (const auto fault = unusable(sweep.points.back(), i))
            return *fault;
    }
    if (sweep.points.empty())
        return Fault{"", coreText("core", "there is no measurement in that file")};
    sweep.reference = options.reference;
    return order.risen(std::move(sweep));
}

CsvLayout guessCsv(const std::string& text)
{
    CsvLayout layout;
    const std::vector<std::string> all = lines(text);
    const auto count = [&](char c) { return std::count(text.begin(), text.end(), c); };
    layout.separator = count(';') > 0 ? ';' : count('\t') > 0 ? '\t' : ',';
    layout.decimalComma = layout.separator != ',' && count(',') > 0 && count('.') == 0;
    std::size_t row = 0;
    const auto numeric = [&](const std::string& line) {
        const auto parts = cells(line, layout.separator);
        return parts.size() >= 2 && cellNumber(parts[0], layout.decimalComma) && cellNumber(parts[1], layout.decimalComma);
    };
    while (row < all.size() && !numeric(all[row]))
        ++row;
    layout.firstRow = row;
    if (row == all.size())
        return layout;
    const auto numbers = cells(all[row], layout.separator);
    const auto headings = row > 0 ? cells(all[row - 1], layout.separator) : std::vector<std::string>();
    for (std::size_t i = 0; i < numbers.size(); ++i)
        layout.columns.push_back(i < headings.size() ? columnOf(headings[i]) : Column::Unknown);
    if (std::find(layout.columns.begin(), layout.columns.end(), Column::Frequency) == layout.columns.end())
        layout.columns[0] = Column::Frequency;
    if (headings.empty() && numbers.size() == 2)
        layout.columns[1] = Column::Swr;
    if (headings.empty() && numbers.size() == 3)
        layout.columns[1] = Column::Resistance, layout.columns[2] = Column::Reactance;
    const std::size_t place =
        std::size_t(std::find(layout.columns.begin(), layout.columns.end(), Column::Frequency) - layout.columns.begin());
    layout.hertz = hertzOf(place < headings.size() ? headings[place] : "", cellNumber(numbers[place], layout.decimalComma).value_or(0.0));
    return layout;
}

std::size_t firstRowOf(const std::string& text, const CsvLayout& layout)
{
    const std::vector<std::string> all = lines(text);
    const std::size_t place =
        std::size_t(std::find(layout.columns.begin(), layout.columns.end(), Column::Frequency) - layout.columns.begin());
    std::size_t row = 0;
    for (; row < all.size(); ++row)
        if (const auto parts = cells(all[row], layout.separator); place < parts.size() && cellNumber(parts[place], layout.decimalComma))
            break;
    return row;
}

Result<MeasuredSweep> parseCsv(const std::string& text, const CsvLayout& layout)
{
    MeasuredSweep sweep;
    Order order;
    const std::vector<std::string> all = lines(text);
    for (std::size_t row = layout.firstRow; row < all.size(); ++row) {
        if (all[row].find_first_not_of(" \t") == std::string::npos)
            continue;
        const std::vector<std::string> parts = cells(all[row], layout.separator);
        const auto value = [&](Column wanted) -> std::optional<double> {
            for (std::size_t i = 0; i < layout.columns.size() && i < parts.size(); ++i)
                if (layout.columns[i] == wanted)
                    return cellNumber(parts[i], layout.decimalComma);
            return std::nullopt;
        };
        const auto f = value(Column::Frequency), swr = value(Column::Swr), r = value(Column::Resistance), x = value(Column::Reactance),
                   loss = value(Column::ReturnLoss), re = value(Column::GammaReal), im = value(Column::GammaImaginary);
        if (!f || !(*f > 0.0))
            return at(row, coreText("core", "no frequency is in this line; say which column has it"));
        MeasuredPoint point{*f * layout.hertz, std::nullopt, 0.0};
        if (r && x)
            point.impedance = Complex{*r, *x};
        else if (re && im)
            point.impedance = reflectingImpedance({*re, *im}, sweep.reference);
        if (point.impedance)
            point.swr = measuredSwr(*point.impedance, sweep.reference);
        else if (loss && *loss != 0.0)
            point.swr = (1.0 + std::pow(10.0, -std::abs(*loss) / 20.0)) / (1.0 - std::pow(10.0, -std::abs(*loss) / 20.0));
        if (swr)
            point.swr = *swr;
        if (point.swr == 0.0)
            return at(row, coreText("core", "neither SWR, R and X, nor a reflection is in this line; say which columns have them"));
        if (const auto fault = order.add(sweep, point.frequency, row))
            return *fault;
        if (const auto fault = unusable(point, row))
            return *fault;
        sweep.points.push_back(point);
    }
    if (sweep.points.empty())
        return Fault{"", coreText("core", "there is no measurement in that file")};
    return order.risen(std::move(sweep));
}

bool isTouchstone(const std::string& path)
{
    const std::string ending = lower(path.size() > 4 ? path.substr(path.size() - 4) : "");
    return ending == ".s1p" || ending == ".s2p";
}

Result<MeasuredSweep> readMeasured(const std::string& path)
{
    const Result<std::string> text = readTextFile(path);
    if (!text)
        return text.faults();
    return isTouchstone(path) ? parseTouchstone(*text) : parseCsv(*text, guessCsv(*text));
}

} // namespace vetchling::files
