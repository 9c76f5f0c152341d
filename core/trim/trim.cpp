#include "core/trim/trim.h"

#include <algorithm>
#include <cmath>

namespace vetchling {
namespace {

constexpr double priorWeight = 0.05; // m of cut that the model's own slope is worth
constexpr double unlikely = 0.035;   // of a frequency: farther from the model than antennas are
constexpr double farFromGoal = 0.12; // and from a goal that is all that is known
constexpr double wrongBy = 1.7;      // of the expected

} // namespace

double correctedSlope(const std::vector<Measurement>& log, double modelSlope)
{
    double weight = priorWeight, sum = priorWeight * modelSlope;
    for (std::size_t i = 1; i < log.size(); ++i) {
        const Measurement &before = log[i - 1], &after = log[i];
        const double cut = after.cutSinceLast;
        if (std::abs(cut) < 1e-4)
            continue;
        const double measured = (after.dip - before.dip) / cut;
        if (measured < 0.3 * modelSlope || measured > 3.0 * modelSlope)
            continue; // a misread dip or an unlogged change, not this antenna's slope
        sum += std::abs(cut) * measured;
        weight += std::abs(cut);
    }
    return sum / weight;
}

std::optional<double> unlikelyDip(const Antenna& antenna, const Measurement& next, double modelDip, double modelSlope)
{
    const std::vector<TrimTask> tasks = trimTasks(antenna);
    if (tasks.empty())
        return std::nullopt;
    const TrimTask& task = tasks[taskOf(tasks, next)];
    std::vector<Measurement> own;
    for (const Measurement& m : antenna.trim.measurements)
        if (&tasks[taskOf(tasks, m)] == &task)
            own.push_back(m);
    const bool first = own.empty();
    const double before = !first ? own.back().dip : modelDip > 0.0 ? modelDip : task.target;
    if (!(before > 0.0))
        return std::nullopt;
    if (modelSlope == 0.0)
        if (const double length = shapes::familyOf(antenna.shape).value(antenna.shape, task.lever.parameter); length > 0.0)
            modelSlope = before / length;
    const double shift = first ? 0.0 : correctedSlope(own, modelSlope) * next.cutSinceLast;
    const double part = first ? (modelDip > 0.0 ? unlikely : farFromGoal) : 0.5 * unlikely;
    return std::abs(next.dip - before - shift) > part * before + std::abs(shift) ? std::optional(before + shift) : std::nullopt;
}

bool cannotBe(double dip, double expected) { return dip > wrongBy * expected || dip < expected / wrongBy; }

} // namespace vetchling
