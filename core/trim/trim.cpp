#include "core/trim/trim.h"

#include <algorithm>
#include <cmath>

namespace vetchling {
namespace {

constexpr double priorWeight = 0.05;   // m of cut that the model's own slope is worth
constexpr double strange = 0.035;      // of a frequency: farther from the model than antennas are
constexpr double farthestShift = 0.12; // of the dip, tried for an SWR pair

double misfit(const SwrPair& pair, const ImpedanceAt& model, double shift)
{
    const double low = swr(model(pair.lowFrequency / (1.0 + shift))), high = swr(model(pair.highFrequency / (1.0 + shift)));
    const auto off = [](double computed, double read) { return std::log(std::min(computed, 50.0) / std::min(read, 50.0)); };
    return std::hypot(off(low, pair.lowSwr), off(high, pair.highSwr));
}

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
    const double allowed = (first ? 1.0 : 0.5) * strange * before + std::abs(shift);
    return std::abs(next.dip - before - shift) > allowed ? std::optional(before + shift) : std::nullopt;
}

Result<double> dipFromPair(const SwrPair& pair, const ImpedanceAt& model, double modelDip)
{
    if (!(pair.lowFrequency > 0.0 && pair.highFrequency > pair.lowFrequency))
        return Fault{"", coreText("core", "give two different frequencies, the lower one first")};
    if (!(pair.lowSwr >= 1.0 && pair.highSwr >= 1.0 && std::isfinite(pair.lowSwr + pair.highSwr)))
        return Fault{"", coreText("core", "an SWR is 1 or more")};
    constexpr int steps = 960;
    double best = HUGE_VAL, bestShift = 0.0;
    for (int i = 0; i <= steps; ++i) {
        const double shift = farthestShift * (2.0 * i / steps - 1.0), m = misfit(pair, model, shift);
        if (m < best)
            best = m, bestShift = shift;
    }
    if (best > 0.35)
        return Fault{
            "",
            {coreText("core", "these readings do not fit this antenna anywhere within %1; check the band, the feed line and the meter"),
             Measure{100.0 * farthestShift, units::Quantity::Percent}}};
    return modelDip * (1.0 + bestShift);
}

} // namespace vetchling
