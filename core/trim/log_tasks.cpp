#include "core/trim/log_tasks.h"

#include "core/shapes/section_cuts.h"
#include "core/trim/history.h"
#include "core/trim/trim.h"
#include "core/units/units.h"
#include "core/workshop/tape.h"

#include <algorithm>
#include <cmath>

namespace vetchling {
namespace {

/// The goals that were typed: of each piece, and one for the nearest of those that have none.
void takeTargets(std::vector<TrimTask>& tasks, const TrimLog& log)
{
    TrimTask* nearest = nullptr;
    for (TrimTask& task : tasks) {
        task.frequency = task.target;
        if (const auto own = log.targets.find(task.lever.parameter); own != log.targets.end() && own->second > 0.0)
            task.target = own->second;
        else if (!nearest || std::abs(task.target - log.target) < std::abs(nearest->target - log.target))
            nearest = &task;
    }
    if (nearest && log.target > 0.0)
        nearest->target = log.target;
}

const Ground someSoil{GroundKind::Real, 13.0, 0.005}; // wires stand on it; lengths do not hang on which

/// What the bench knows of a row: its pieces' mean length beyond what radiates by plan.
struct Longer {
    double length = 0.0; ///< m
    CutFrom from = CutFrom::CutList;
};

Longer longerThanPlan(const CutRow& row, const Workshop& workshop)
{
    Longer out;
    double sum = 0.0;
    int measured = 0, done = 0;
    for (const std::string& key : pieceKeys(row)) {
        const auto state = workshop.pieces.find(key);
        if (state == workshop.pieces.end())
            continue;
        done += state->second.done ? 1 : 0;
        if (state->second.measured)
            sum += *state->second.measured - row.radiating - row.ends, ++measured;
    }
    out.length = measured > 0 ? sum / measured : row.margin;
    out.from = measured > 0 ? CutFrom::Measured : done == row.pieces ? CutFrom::Ticked : CutFrom::CutList;
    return out;
}

/// An outer section is cut when the inner ones are finished: as the bench says when it is measured for the first time.
void cutLater(Antenna& antenna, const std::vector<TrimTask>& tasks, std::size_t place)
{
    TrimLog& log = antenna.trim;
    const bool settled = log.cutFrom == CutFrom::NotKnown || log.cutFrom == CutFrom::Typed || log.measurements.empty();
    if (settled || lastOf(antenna, place))
        return;
    AsCut now = asCutOf(antenna);
    log.asCut[tasks[place].lever.parameter] = now.longer[tasks[place].lever.parameter];
    log.cutFrom = now.from;
}

} // namespace

std::vector<TrimTask> trimTasks(const Antenna& antenna)
{
    const shapes::AntennaShape& shape = antenna.shape;
    const shapes::Family& family = shapes::familyOf(shape);
    const std::vector<shapes::Lever> levers = family.levers(shape);
    const std::vector<shapes::Configuration> configurations = family.configurations(shape);
    std::vector<TrimTask> tasks;
    const std::vector<shapes::TunedLength> tuned = family.tuned(shape);
    if (tuned.size() == 1 && !levers.empty()) // what is trimmed need not be what was tuned: coils are wound once, ends are cut
        tasks.push_back({levers.front(), tuned.front().frequency, tuned.front().configuration, {}});
    for (const shapes::TunedLength& t : tasks.empty() ? tuned : std::vector<shapes::TunedLength>()) {
        const auto lever = std::find_if(levers.begin(), levers.end(), [&](const shapes::Lever& l) { return l.parameter == t.parameter; });
        if (lever != levers.end())
            tasks.push_back({*lever, t.frequency, t.configuration,
                             configurations.size() > 1 && t.configuration < configurations.size() ? configurations[t.configuration].name
                                                                                                  : std::string()});
    }
    if (tasks.empty() && !levers.empty())
        tasks.push_back({levers.front(), shape.designFrequency, 0, {}});
    if (configurations.size() == 1)
        std::stable_sort(tasks.begin(), tasks.end(), [](const TrimTask& a, const TrimTask& b) { return a.target < b.target; });
    takeTargets(tasks, antenna.trim);
    return tasks;
}

std::string nameOfTask(const Design& design, const TrimTask& task)
{
    for (const WantedBand& w : design.operation.bands)
        if (task.frequency >= w.band.from && task.frequency <= w.band.to)
            return w.band.name;
    return task.configurationName.empty() ? units::formatFrequency(task.frequency) : task.configurationName;
}

std::size_t taskOf(const std::vector<TrimTask>& tasks, const Measurement& m)
{
    std::size_t best = 0;
    double nearest = HUGE_VAL;
    for (std::size_t i = 0; i < tasks.size(); ++i) {
        if (m.configuration && *m.configuration != tasks[i].configuration)
            continue;
        if (!m.parameter.empty() && m.parameter == tasks[i].lever.parameter)
            return i;
        if (const double off = std::abs(m.dip / tasks[i].target - 1.0); off < nearest)
            nearest = off, best = i;
    }
    return best;
}

std::string cutParameter(const Antenna& antenna, const Measurement& measurement)
{
    if (!measurement.parameter.empty())
        return measurement.parameter;
    const std::vector<TrimTask> tasks = trimTasks(antenna);
    return tasks.empty() ? std::string() : tasks[taskOf(tasks, measurement)].lever.parameter;
}

std::vector<shapes::Lever> cutPieces(const Antenna& antenna, std::size_t task)
{
    const shapes::Family& family = shapes::familyOf(antenna.shape);
    const std::vector<TrimTask> tasks = trimTasks(antenna);
    std::vector<shapes::Lever> out;
    if (task < tasks.size())
        out.push_back(tasks[task].lever);
    const auto known = [&](const std::string& key) {
        return std::any_of(out.begin(), out.end(), [&](const shapes::Lever& l) { return l.parameter == key; }) ||
               std::any_of(tasks.begin(), tasks.end(), [&](const TrimTask& t) { return t.lever.parameter == key; });
    };
    for (const shapes::Lever& lever : family.levers(antenna.shape))
        if (const shapes::ParameterSpec* spec = family.spec(antenna.shape, lever.parameter);
            spec && spec->quantity == units::Quantity::Length && lever.side == shapes::LeverSide::OpenEnd &&
            (out.empty() || lever.kind == out.front().kind) && !known(lever.parameter))
            out.push_back(lever);
    return out;
}

std::map<std::string, double> takenByLog(const Antenna& antenna, std::size_t entries)
{
    std::map<std::string, double> taken;
    for (const auto& [key, longer] : antenna.trim.asCut)
        taken[key] = -longer;
    const auto& log = antenna.trim.measurements;
    for (std::size_t i = 0; i < std::min(entries, log.size()); ++i)
        if (log[i].cutSinceLast != 0.0)
            if (const std::string key = cutParameter(antenna, log[i]); !key.empty())
                taken[key] += log[i].cutSinceLast;
    return taken;
}

shapes::AntennaShape asLogged(const Antenna& antenna, std::size_t entries)
{
    shapes::AntennaShape shape = antenna.shape;
    const shapes::Family& family = shapes::familyOf(shape);
    for (const auto& [key, taken] : takenByLog(antenna, entries))
        shape = family.levered(shape, key, family.value(shape, key) - taken);
    return shape;
}

AsCut asCutOf(const Antenna& antenna)
{
    AsCut out;
    const auto built = shapes::buildOver(antenna.shape, someSoil);
    if (!built)
        return out;
    const std::vector<CutRow> rows = cutList(built->sections, antenna.allowances);
    for (const shapes::SectionCut& cut : shapes::sectionCuts(antenna.shape, *built)) {
        double longer = 0.0;
        CutFrom from = CutFrom::Typed; // more than any row knows
        for (std::size_t i = 0; i < rows.size(); ++i)
            if (cut.rates[i] != 0.0) {
                const Longer piece = longerThanPlan(rows[i], antenna.workshop);
                longer += rows[i].pieces * piece.length;
                from = std::min(from, piece.from);
            }
        if (std::abs(longer) < 1e-6)
            continue;
        out.longer[cut.lever.parameter] = longer / cut.all;
        out.from = out.from == CutFrom::NotKnown ? from : std::min(out.from, from);
    }
    return out;
}

Antenna withLogBegun(const Antenna& antenna)
{
    if (!antenna.trim.measurements.empty() || antenna.trim.cutFrom != CutFrom::NotKnown)
        return antenna;
    AsCut first = asCutOf(antenna);
    Antenna begun = antenna;
    begun.trim.asCut = std::move(first.longer);
    begun.trim.cutFrom = first.from;
    return shapes::buildOver(asLogged(begun), someSoil) ? begun : antenna; // what cannot hang so much longer was not hung so
}

void addMeasurement(Antenna& antenna, Measurement measurement)
{
    antenna = withLogBegun(antenna);
    const std::vector<TrimTask> tasks = trimTasks(antenna);
    if (!tasks.empty()) {
        const std::size_t place = taskOf(tasks, measurement);
        const TrimTask& task = tasks[place];
        if (measurement.parameter.empty())
            measurement.parameter = task.lever.parameter;
        if (!measurement.configuration && !task.configurationName.empty())
            measurement.configuration = task.configuration;
        cutLater(antenna, tasks, place);
    }
    antenna.trim.measurements.push_back(std::move(measurement));
}

void removeMeasurement(Antenna& antenna, const Id& id)
{
    std::erase_if(antenna.trim.measurements, [&](const Measurement& m) { return m.id == id; });
    if (antenna.trim.measurements.empty() && antenna.trim.cutFrom != CutFrom::Typed) {
        antenna.trim.asCut.clear();
        antenna.trim.cutFrom = CutFrom::NotKnown;
    }
}

void setTarget(Antenna& antenna, std::size_t place, double hertz)
{
    const std::vector<TrimTask> tasks = trimTasks(antenna);
    TrimLog& log = antenna.trim;
    if (tasks.size() < 2 || place >= tasks.size()) {
        log.targets.clear();
        log.target = hertz;
        return;
    }
    if (log.target > 0.0) // it was of one of them
        for (const TrimTask& task : tasks)
            if (task.target == log.target)
                log.targets[task.lever.parameter] = log.target;
    log.target = 0.0;
    log.targets[tasks[place].lever.parameter] = hertz;
}

void setAsCut(Antenna& antenna, std::size_t place, double longer)
{
    const std::vector<TrimTask> tasks = trimTasks(antenna);
    if (place >= tasks.size())
        return;
    antenna = withLogBegun(antenna);
    antenna.trim.asCut[tasks[place].lever.parameter] = longer;
    antenna.trim.cutFrom = CutFrom::Typed;
}

std::vector<std::size_t> entriesOf(const Antenna& antenna, std::size_t task)
{
    const std::vector<TrimTask> tasks = trimTasks(antenna);
    std::vector<std::size_t> out;
    for (std::size_t i = 0; i < antenna.trim.measurements.size(); ++i)
        if (!tasks.empty() && taskOf(tasks, antenna.trim.measurements[i]) == task)
            out.push_back(i);
    return out;
}

const Measurement* lastOf(const Antenna& antenna, std::size_t task)
{
    const std::vector<std::size_t> own = entriesOf(antenna, task);
    return own.empty() ? nullptr : &antenna.trim.measurements[own.back()];
}

std::vector<DoubtfulEntry> doubtfulEntries(const Antenna& antenna, const std::string& now)
{
    std::vector<DoubtfulEntry> out;
    Antenna before = antenna;
    before.trim.measurements.clear();
    for (std::size_t i = 0; i < antenna.trim.measurements.size(); ++i) {
        const Measurement& m = antenna.trim.measurements[i];
        if (const auto expected = unlikelyDip(before, m, 0.0, 0.0))
            out.push_back({i, *expected});
        else if (!m.when.empty() && !possibleDate(m.when, now))
            out.push_back({i, 0.0});
        before.trim.measurements.push_back(m);
    }
    return out;
}

} // namespace vetchling
