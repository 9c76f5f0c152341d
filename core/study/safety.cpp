#include "core/study/safety.h"

#include "core/em/solver.h"

#include <algorithm>
#include <cmath>

namespace vetchling::study {
namespace {

void findVolts(SafetyBand& band, const em::Solution& solution, const shapes::BuiltAntenna& built)
{
    const auto volts = em::voltageRibbon(solution, ribbonPieces);
    double most = 0.0;
    for (std::size_t e = 0; e < volts.size(); ++e)
        for (std::size_t k = 0; k < volts[e].size(); ++k)
            if (volts[e][k] > most) {
                most = volts[e][k];
                band.voltsAt = solution.mesh->elements[e].at(2.0 * double(k) / ribbonPieces - 1.0);
            }
    band.voltsAtOneWatt = most / std::sqrt(std::max(solution.inputPower, 1e-300));
    double nearest = HUGE_VAL;
    for (const shapes::Handle& h : built.handles)
        if (const double away = distance(h.at, band.voltsAt); away < nearest)
            nearest = away, band.voltsName = h.name;
}

} // namespace

Result<SafetyBasis> safetyBasisOf(Library& library, const Question& asked, const Watch& watch,
                                  const std::function<void(const SafetyBasis&)>& publish)
{
    const Watch quiet = watch.with({});
    Question question = asked;
    question.before.reset();
    std::erase_if(question.bands, [](const WantedBand& w) { return w.wish == Wish::No; });
    const auto curves = curvesOf(library, question, quiet);
    if (!curves)
        return curves.faults();
    SafetyBasis out;
    const std::vector<BandChoice> best = bestByBand(*curves);
    for (std::size_t i = 0; i < best.size(); ++i) {
        if (!best[i].coverage.solved())
            continue;
        SafetyBand band{question.bands[i].id, question.bands[i].band.name, question.bands[i].band.centre(), best[i].configuration};
        const shapes::BuiltAntenna& built = *(*curves)[band.configuration]->built;
        const auto solution = em::solve(std::make_shared<const WireModel>(built.model), band.frequency, library.tables(), {}, quiet);
        if (!solution)
            return solution.faults();
        findVolts(band, *solution, built);
        const auto scan = ExposureScan::of(*solution, library.tables(), quiet);
        if (!scan)
            return scan.faults();
        band.scan = std::make_shared<const ExposureScan>(*scan);
        out.bands.push_back(std::move(band));
        watch.report(double(out.bands.size()) / double(curves->front()->bands.size()));
        if (publish)
            publish(out);
    }
    return unlessStopped(watch, std::move(out));
}

std::vector<KeepRow> keepRows(const SafetyBasis& basis, const LimitSet& limit, double power, double share)
{
    std::vector<KeepRow> rows;
    for (const SafetyBand& band : basis.bands) {
        const LimitRange* range = limit.range(band.frequency);
        if (!range)
            continue;
        const double averaged = limit.averagingMinutes > 0.0 ? power * share : power;
        rows.push_back({band.band, band.name, band.frequency, averaged, band.voltsAtOneWatt * std::sqrt(power),
                        band.scan->keepAway(*range, averaged)});
    }
    return rows;
}

} // namespace vetchling::study
