#include "core/trim/trim.h"

#include <algorithm>
#include <cmath>

namespace vetchling {
namespace {

constexpr double priorWeight = 0.05; // m of cut that the model's own slope is worth
constexpr double unlikely = 0.035;   // of a frequency: farther from the model than antennas are

} // namespace

double correctedSlope(const TrimLog& log, double modelSlope)
{
    double weight = priorWeight, sum = priorWeight * modelSlope;
    for (std::size_t i = 1; i < log.measurements.size(); ++i) {
        const Measurement &before = log.measurements[i - 1], &after = log.measurements[i];
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

std::optional<double> unlikelyDip(const TrimLog& log, const Measurement& next, double modelDip, double modelSlope)
{
    const bool first = log.measurements.empty();
    const double before = first ? modelDip : log.measurements.back().dip;
    if (!(before > 0.0))
        return std::nullopt;
    const double shift = first ? 0.0 : correctedSlope(log, modelSlope) * next.cutSinceLast;
    const double allowed = (first ? 1.0 : 0.5) * unlikely * before + std::abs(shift);
    return std::abs(next.dip - before - shift) > allowed ? std::optional(before + shift) : std::nullopt;
}

} // namespace vetchling
