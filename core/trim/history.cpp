#include "core/trim/history.h"

#include "core/trim/sense.h"

#include <algorithm>
#include <chrono>
#include <cmath>
#include <cstdio>
#include <set>

namespace vetchling {
namespace {

constexpr double driftWorthTelling = 0.0015; // of a dip, that it wandered
constexpr double explains = 0.6;             // of the drift, that wet and dry make
constexpr double levelHeights = 0.05;        // m
constexpr double longestAgo = 60.0 * 365.25; // days

/// kHz, for differences.
Measure kilohertz(double f) { return {std::round(f / 100.0) / 10.0}; }

double mean(const std::vector<double>& values)
{
    double sum = 0.0;
    for (double v : values)
        sum += v;
    return sum / double(values.size());
}

/// Hz that two dips differ without saying anything, whoever asks.
double worthTelling(double dip) { return driftWorthTelling * dip; }

bool wet(SoilState s) { return s == SoilState::Wet || s == SoilState::Damp; }
bool dry(SoilState s) { return s == SoilState::Dry || s == SoilState::Frozen; }

} // namespace

std::optional<double> dayOf(const std::string& iso)
{
    int year = 0, month = 0, day = 0, hour = 0, minute = 0;
    const int read = std::sscanf(iso.c_str(), "%4d-%2d-%2dT%2d:%2d", &year, &month, &day, &hour, &minute);
    const std::chrono::year_month_day date{std::chrono::year(year), std::chrono::month(unsigned(month)), std::chrono::day(unsigned(day))};
    if (read < 3 || !date.ok() || hour < 0 || hour > 23 || minute < 0 || minute > 59)
        return std::nullopt;
    return double(std::chrono::sys_days(date).time_since_epoch().count()) + (read == 5 ? (hour + minute / 60.0) / 24.0 : 0.5);
}

bool possibleDate(const std::string& when, const std::string& now)
{
    const std::optional<double> day = dayOf(when), today = dayOf(now);
    return day && today && *day < *today + 1.0 && *day > *today - longestAgo;
}

std::vector<DipSeries> dipSeriesOf(const Antenna& antenna)
{
    const auto tasks = trimTasks(antenna);
    std::vector<DipSeries> all;
    for (std::size_t t = 0; t < tasks.size(); ++t) {
        DipSeries series{t, tasks[t].target, {}};
        for (const Measurement& m : asReadByOne(antenna.trim.measurements)) {
            const bool own = taskOf(tasks, m) == t;
            if (m.cutSinceLast != 0.0 && (own || tasks[taskOf(tasks, m)].configuration <= tasks[t].configuration))
                for (DipPoint& p : series.points)
                    p.afterLastCut = false;
            if (const auto day = dayOf(m.when); own && day && m.dip > 0.0)
                series.points.push_back({m.id, *day, m.dip, m.soil, true});
        }
        std::stable_sort(series.points.begin(), series.points.end(), [](const DipPoint& a, const DipPoint& b) { return a.day < b.day; });
        if (!series.points.empty())
            all.push_back(std::move(series));
    }
    return all;
}

std::optional<Drift> driftOf(const Antenna& antenna, const DipSeries& series)
{
    std::vector<DipPoint> settled;
    for (const DipPoint& p : series.points)
        if (p.afterLastCut)
            settled.push_back(p);
    if (settled.size() < 2)
        return std::nullopt;
    Drift drift;
    drift.change = settled.back().dip - settled.front().dip;
    drift.within = worthTelling(settled.front().dip);
    drift.days = settled.back().day - settled.front().day;
    const auto tasks = trimTasks(antenna);
    const double length = shapes::familyOf(antenna.shape).value(asLogged(antenna), tasks[series.task].lever.parameter);
    drift.stretch = -length * drift.change / settled.front().dip;
    std::vector<double> wetOnes, dryOnes;
    for (const DipPoint& p : settled) {
        if (wet(p.soil))
            wetOnes.push_back(p.dip);
        if (dry(p.soil))
            dryOnes.push_back(p.dip);
    }
    if (!wetOnes.empty() && !dryOnes.empty()) {
        drift.wetLessDry = mean(wetOnes) - mean(dryOnes);
        const bool turned = wet(settled.back().soil) != wet(settled.front().soil);
        const double season = (wet(settled.back().soil) ? 1.0 : -1.0) * *drift.wetLessDry;
        drift.seasonal = turned && season * drift.change > 0.0 && std::abs(season) > explains * std::abs(drift.change);
    }
    return drift;
}

Text driftWords(const Drift& d)
{
    const Measure change = kilohertz(std::abs(d.change)), days{std::round(d.days)},
                  stretch{std::abs(d.stretch), units::Quantity::SmallLength};
    if (d.stayed())
        return {coreText("core", "In %1 days the dip stayed where it was, within %2 kHz."), days, kilohertz(d.within)};
    if (d.seasonal)
        return {
            coreText("core", "In %1 days the dip moved by %2 kHz: the soil's wet and dry do as much. Measure again when it is as it was."),
            days, change};
    if (d.change < 0.0)
        return {
            coreText("core", "In %1 days the dip fell by %2 kHz: %3 of stretch in each piece would do that. Look at wire, knots and sag."),
            days, change, stretch};
    return {
        coreText(
            "core",
            "In %1 days the dip rose by %2 kHz: as if each piece were %3 shorter. Wire does not shrink: look at height, soil and joints."),
        days, change, stretch};
}

std::vector<Text> comparedWords(const Antenna& antenna, const Measurement& a, const Measurement& b)
{
    std::vector<Text> words;
    const auto tasks = trimTasks(antenna);
    if (tasks.empty())
        return words;
    const std::size_t task = taskOf(tasks, a);
    if (taskOf(tasks, b) != task)
        return {coreText("core", "These are two different bands or settings: they say nothing of one another.")};
    const auto height = [](const Measurement& m) { return m.height.value_or(-1.0); };
    if (a.height && b.height && std::abs(*a.height - *b.height) > levelHeights)
        words.push_back({coreText("core", "Not at the same height (%1 and %2): part of the difference is that."),
                         Measure{height(a), units::Quantity::Length}, Measure{height(b), units::Quantity::Length}});
    else if (a.height.has_value() != b.height.has_value())
        words.push_back(coreText("core", "For one of them the height was not noted: take care."));
    if (a.soil != b.soil && a.soil != SoilState::NotNoted && b.soil != SoilState::NotNoted)
        words.push_back({coreText("core", "The soil was %1, and then %2."), std::string(soilStateWords[std::size_t(a.soil)]),
                         std::string(soilStateWords[std::size_t(b.soil)])});
    const double change = b.dip - a.dip;
    if (std::abs(change) <= worthTelling(a.dip))
        words.push_back({coreText("core", "The dip is where it was, within %1 kHz."), kilohertz(worthTelling(a.dip))});
    else
        words.push_back(change > 0.0 ? Text(coreText("core", "The dip went up by %1 kHz."), kilohertz(change))
                                     : Text(coreText("core", "The dip went down by %1 kHz."), kilohertz(-change)));
    if (a.dipSwr > 0.0 && b.dipSwr > 0.0)
        words.push_back({coreText("core", "SWR there %1, and then %2."), Measure{a.dipSwr}, Measure{b.dipSwr}});
    double cut = 0.0;
    bool between = false;
    for (const Measurement& m : antenna.trim.measurements) {
        if (between && taskOf(tasks, m) == task)
            cut += m.cutSinceLast;
        between |= m.id == a.id;
        if (m.id == b.id)
            break;
    }
    if (cut != 0.0)
        words.push_back({coreText("core", "%1 were taken off between them: %2 kHz for each centimetre."),
                         Measure{cut, units::Quantity::SmallLength}, kilohertz(std::abs(change / cut) * 0.01)});
    return words;
}

std::vector<PlaceMemory> placesOf(const Antenna& antenna)
{
    std::vector<PlaceMemory> all;
    std::set<std::string> seen;
    const auto tasks = trimTasks(antenna);
    const auto& log = antenna.trim.measurements;
    for (std::size_t i = log.size(); i-- > 0;) {
        if (log[i].place.empty() || !seen.insert(log[i].place).second)
            continue;
        PlaceMemory memory{log[i].place, log[i].when, {}, log[i].dip, log[i].dipSwr};
        const shapes::AntennaShape then = asLogged(antenna, i + 1);
        for (const TrimTask& t : tasks)
            memory.settings.emplace_back(t.lever.name, shapes::familyOf(then).value(then, t.lever.parameter));
        all.push_back(std::move(memory));
    }
    return all;
}

} // namespace vetchling
