#include "core/trim/step_effects.h"

#include "core/study/configurations.h"

#include <algorithm>
#include <cmath>

namespace vetchling {
namespace {

constexpr double swrWorthTelling = 5.0; // SWR
constexpr double seenChange = 0.1;

} // namespace

Result<std::vector<BandEffect>> stepEffects(study::Library& library, const Design& design, const Antenna& antenna,
                                            const TrimOutcome& outcome, const Watch& watch)
{
    std::vector<BandEffect> effects;
    const TrimNext& next = outcome.next;
    if (next.change == 0.0)
        return effects;
    const TrimTask& task = outcome.tasks[next.task];
    study::Question before = study::questionOf(design, antenna);
    std::erase_if(before.bands, [&](const WantedBand& b) {
        return b.wish == Wish::No || (task.target >= 0.98 * b.band.from && task.target <= 1.02 * b.band.to);
    });
    if (before.bands.empty())
        return effects;
    before.subject.shape = asLogged(antenna);
    study::Question after = before;
    const shapes::Family& family = shapes::familyOf(antenna.shape);
    after.subject.shape =
        family.levered(before.subject.shape, task.lever.parameter, family.value(before.subject.shape, task.lever.parameter) + next.change);
    const auto was = study::curvesOf(library, before, watch, study::Reach::Near),
               then = study::curvesOf(library, after, watch, study::Reach::Near);
    if (!was || !then)
        return was ? then.faults() : was.faults();
    const auto a = study::bestByBand(*was), b = study::bestByBand(*then);
    for (std::size_t i = 0; i < a.size() && i < b.size(); ++i) {
        const double swrBefore = a[i].coverage.lowestSwr, swrAfter = b[i].coverage.lowestSwr;
        if (!(std::min(swrBefore, swrAfter) < swrWorthTelling) || !(swrBefore >= 1.0) || !(swrAfter >= 1.0))
            continue;
        effects.push_back({before.bands[i].id, before.bands[i].band.name, swrBefore, swrAfter,
                           swrBefore <= design.operation.swrLimit && swrAfter > design.operation.swrLimit});
    }
    return unlessStopped(watch, std::move(effects));
}

std::optional<double> highestAcross(const Design& design, double target, const study::Curve& curve, double dip)
{
    const WantedBand* wanted = findBand(design, bandFor(design, target));
    if (!wanted || target < wanted->band.from || target > wanted->band.to || !(curve.fundamental > 0.0) || !(dip > 0.0))
        return std::nullopt;
    constexpr int steps = 40;
    double highest = 0.0;
    for (int i = 0; i <= steps; ++i) {
        const double f = wanted->band.from + (wanted->band.to - wanted->band.from) * i / steps;
        const double swr = curve.swrAt(f * curve.fundamental / dip);
        if (std::isnan(swr))
            return std::nullopt;
        highest = std::max(highest, swr);
    }
    return highest;
}

std::vector<Text> effectWords(const std::vector<BandEffect>& effects)
{
    std::vector<Text> words;
    for (const BandEffect& e : effects) {
        if (std::abs(e.swrAfter - e.swrBefore) < seenChange)
            continue;
        const Measure was{std::round(100.0 * e.swrBefore) / 100.0}, then{std::round(100.0 * e.swrAfter) / 100.0};
        words.push_back(e.lost ? Text(coreText("core", "%1 goes past the limit: from %2 to %3."), e.name, was, then)
                               : Text(coreText("core", "%1 goes from %2 to %3."), e.name, was, then));
    }
    return words;
}

} // namespace vetchling
