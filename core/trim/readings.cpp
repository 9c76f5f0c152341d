#include "core/trim/readings.h"

#include "core/line/parts.h"
#include "core/trim/sense.h"
#include "core/units/units.h"

#include <algorithm>
#include <cmath>
#include <sstream>

namespace vetchling {
namespace {

constexpr double farthestShift = 0.12; // of the dip, tried either way
constexpr int shiftSteps = 960;
constexpr double highestRead = 50.0; // beyond that meters do not tell one SWR from another
constexpr double fits = 0.35;        // of the SWR's logarithm, all readings together

double misfit(const std::vector<SwrReading>& readings, const ImpedanceAt& model, double shift)
{
    double sum = 0.0;
    for (const SwrReading& r : readings) {
        const double computed = swr(model(r.frequency / (1.0 + shift)));
        sum += std::pow(std::log(std::min(computed, highestRead) / std::min(r.swr, highestRead)), 2);
    }
    return std::sqrt(sum);
}

std::optional<double> plain(const std::string& text)
{
    const auto value = units::parse(text, units::Quantity::Plain);
    return value ? std::optional(*value) : std::nullopt;
}

/// The rest of a line after its frequency.
Result<double> swrTyped(const std::vector<std::string>& parts, double reference)
{
    if (parts.size() == 1 && parts[0].find('/') != std::string::npos) {
        const std::size_t slash = parts[0].find('/');
        const auto forward = plain(parts[0].substr(0, slash)), back = plain(parts[0].substr(slash + 1));
        if (forward && back)
            return swrOfPowers(*forward, *back);
    } else if (parts.size() == 1) {
        if (const auto swr = plain(parts[0]))
            return *swr >= 1.0 ? Result<double>(std::min(*swr, highestSwr)) : Fault{"", coreText("core", "an SWR is 1 or more")};
    } else if (parts.size() == 2) {
        if (const auto r = plain(parts[0]), x = plain(parts[1]); r && x && *r >= 0.0)
            return measuredSwr({*r, *x}, reference);
    }
    return Fault{
        "", coreText("core", "write a frequency and an SWR (7.10 1.8), forward and reflected power (7.10 50/2), or R and X (7.10 42 30)")};
}

} // namespace

Result<double> swrOfPowers(double forward, double reflected)
{
    if (!(forward > 0.0 && reflected >= 0.0 && reflected <= forward))
        return Fault{"", coreText("core", "less comes back than goes out: forward power first, then reflected")};
    return measuredSwrOf(std::sqrt(reflected / forward));
}

Result<std::vector<SwrReading>> parseReadings(const std::string& text, double reference)
{
    std::vector<SwrReading> readings;
    Faults faults;
    std::string lines = text;
    std::replace(lines.begin(), lines.end(), ';', '\n');
    std::istringstream in(lines);
    int number = 0;
    for (std::string line; std::getline(in, line);) {
        std::istringstream words(line);
        std::vector<std::string> parts;
        for (std::string word; words >> word;)
            if (word != "MHz" && word != "W" && word != "ohm")
                parts.push_back(word);
        if (parts.empty())
            continue;
        const std::string where = "line " + std::to_string(++number);
        const auto frequency = units::parse(parts.front(), units::Quantity::Frequency);
        if (!frequency || !(*frequency >= 1e5 && *frequency <= 3e9)) {
            faults.push_back({where, coreText("core", "begin with the frequency, such as 7.10")});
            continue;
        }
        const auto swr = swrTyped({parts.begin() + 1, parts.end()}, reference);
        if (swr)
            readings.push_back({*frequency, *swr});
        else
            faults.push_back({where, swr.faults().front().message});
    }
    if (!faults.empty())
        return faults;
    std::sort(readings.begin(), readings.end(), [](const SwrReading& a, const SwrReading& b) { return a.frequency < b.frequency; });
    for (std::size_t i = 1; i < readings.size(); ++i)
        if (readings[i].frequency == readings[i - 1].frequency)
            return Fault{"", coreText("core", "one frequency stands there twice")};
    return readings;
}

Result<double> dipFromReadings(const std::vector<SwrReading>& readings, const ImpedanceAt& model, double modelDip)
{
    if (readings.size() < 2)
        return Fault{"",
                     coreText("core", "one reading cannot tell too long from too short: read a second frequency, or use the hand test")};
    double best = HUGE_VAL, bestShift = 0.0;
    for (int i = 0; i <= shiftSteps; ++i) {
        const double shift = farthestShift * (2.0 * i / shiftSteps - 1.0), m = misfit(readings, model, shift);
        if (m < best)
            best = m, bestShift = shift;
    }
    if (best > fits * std::sqrt(0.5 * double(readings.size())))
        return Fault{
            "",
            {coreText("core", "these readings do not fit this antenna anywhere within %1; check the band, the feed line and the meter"),
             Measure{100.0 * farthestShift, units::Quantity::Percent}}};
    return modelDip * (1.0 + bestShift);
}

BothReadings bothReadings(const SwrReading& reading, const ImpedanceAt& model, double modelDip)
{
    BothReadings both;
    const double here = reading.frequency / modelDip - 1.0; // the shift that puts the dip on the reading
    const auto over = [&](double shift) {
        return std::log(std::min(swr(model(reading.frequency / (1.0 + shift))), highestRead) / reading.swr);
    };
    const auto crossing = [&](double direction) -> std::optional<double> {
        double before = here;
        for (int i = 1; i <= shiftSteps; ++i) {
            const double shift = here + direction * farthestShift * i / shiftSteps;
            if (std::abs(shift) > farthestShift)
                return std::nullopt;
            const double o = over(shift);
            if (std::isnan(o))
                return std::nullopt;
            if (o >= 0.0)
                return modelDip * (1.0 + 0.5 * (shift + before));
            before = shift;
        }
        return std::nullopt;
    };
    both.ifTooLong = crossing(-1.0);
    both.ifTooShort = crossing(1.0);
    return both;
}

std::optional<double> dipByHand(const BothReadings& both, bool fell) { return fell ? both.ifTooShort : both.ifTooLong; }

void moveToFeedpoint(MeasuredSweep& sweep, const ChainPart& line)
{
    for (MeasuredPoint& p : sweep.points) {
        const TwoPort through = kindOf(line).at(line, p.frequency);
        if (p.impedance) {
            const Complex z = *p.impedance;
            p.impedance = (through.d * z - through.b) / (through.a - through.c * z);
            p.swr = measuredSwr(*p.impedance, sweep.reference);
        } else {
            const double passed = through.efficiency(sweep.reference); // power, one way, matched
            p.swr = measuredSwrOf(std::min(1.0, (p.swr - 1.0) / (p.swr + 1.0) / passed));
        }
    }
}

Result<ReadDip> dipOfReadings(const std::string& text, double reference, const ImpedanceAt& model, double modelDip)
{
    Result<std::vector<SwrReading>> readings = parseReadings(text, reference);
    if (!readings)
        return readings.faults();
    ReadDip out{std::move(readings).value(), std::nullopt, std::nullopt};
    if (out.readings.size() == 1)
        out.both = bothReadings(out.readings.front(), model, modelDip);
    if (out.readings.size() < 2)
        return out;
    const Result<double> dip = dipFromReadings(out.readings, model, modelDip);
    if (!dip)
        return dip.faults();
    out.dip = *dip;
    return out;
}

void takeSweepThrough(MeasuredSweep sweep, bool whole, double coax, const LineType* type, Measurement& measurement)
{
    if (!whole)
        for (MeasuredPoint& p : sweep.points)
            p.impedance.reset();
    measurement.coax = coax;
    if (coax > 0.0) {
        ChainPart line{{}, part::line, {}, {}, {}, {}, {}};
        if (type)
            takeType(line, *type);
        line.values["length_m"] = coax;
        moveToFeedpoint(sweep, line);
    }
    takeSweep(sweep, measurement);
}

} // namespace vetchling
