#include "core/study/comparison.h"

#include "core/design/variants.h"
#include "core/study/service.h"

#include <algorithm>
#include <cmath>

namespace vetchling::study {

ComparisonQuestion comparisonOf(const Design& stored, const Antenna& antenna, const std::string& drawn)
{
    ComparisonQuestion out;
    out.site = stored.site;
    out.operation = stored.operation;
    const auto add = [&](const Id& variant, const std::string& name) {
        out.antennas.push_back(asVariant(antenna, variant));
        out.antennas.back().variants.clear();
        out.variants.push_back(variant);
        out.names.push_back(name);
    };
    add({}, drawn);
    for (const Variant& v : antenna.variants)
        add(v.id, v.name);
    return out;
}

Result<Compared> comparedOf(Library& library, const ComparisonQuestion& asked, std::size_t row, const Watch& watch)
{
    const Antenna& antenna = asked.antennas[row];
    Compared out;
    out.antenna = antenna.id;
    out.variant = asked.variants[row];
    out.name = asked.names[row];
    Design design;
    design.site = asked.site;
    design.operation = asked.operation;
    Question question = questionOf(design, antenna);
    question.before.reset();
    std::erase_if(question.bands, [](const WantedBand& w) { return w.wish == Wish::No; });
    const auto curves = curvesOf(library, question, watch, Reach::Near);
    if (!curves) {
        out.fault = curves.faults().front().message;
        return unlessStopped(watch, std::move(out));
    }
    out.curves = *curves;
    out.built = curves->front()->built;
    for (const shapes::WireSection& s : out.built->sections) {
        out.wire += s.pieces * s.length;
        out.longestPiece = std::max(out.longestPiece, s.length);
    }
    const Aim aim = aimOf(asked.operation);
    const std::vector<BandChoice> best = bestByBand(*curves);
    const std::vector<BandService> services = servicesOf(*curves, best, termsOf(asked.operation, asked.antennas[row]));
    out.tally = tallyOf(services, question.bands);
    for (std::size_t i = 0; i < best.size(); ++i) {
        const Coverage& c = best[i].coverage;
        if (!c.solved())
            continue;
        const Curve& curve = *(*curves)[best[i].configuration];
        const auto solution =
            em::solve(std::make_shared<const WireModel>(curve.built->model), c.band.centre(), library.tables(), {}, watch);
        if (!solution) {
            out.fault = solution.faults().front().message;
            return unlessStopped(watch, std::move(out));
        }
        const auto& transformer = curve.built->transformer;
        const double passed = transformer ? transformer->at(c.band.centre()).efficiency(solution->impedance) : 1.0;
        const em::FarField field = em::FarField(*solution).fedWith(solution->inputPower / std::max(passed, 1e-30));
        Compared::BandFigures figures;
        figures.lowestSwr = c.lowestSwr;
        figures.width = c.wholeTo - c.wholeFrom;
        figures.gain = gainTowards(field, aim, watch);
        figures.straightUp = field.gain(0.5 * pi, 0.0);
        if (c.lowestSwr <= asked.operation.swrLimit)
            figures.dip = c.at;
        if (const auto ledger = em::powerLedger(*solution, library.tables(), watch))
            figures.lost = 1.0 - ledger->sky * passed;
        figures.service = services[i];
        out.bands[question.bands[i].id] = figures;
    }
    return unlessStopped(watch, std::move(out));
}

Faults addSpread(Library& library, const ComparisonQuestion& asked, std::size_t row, Compared& compared, const Watch& watch)
{
    Design design;
    design.site = asked.site;
    design.operation = asked.operation;
    std::erase_if(design.operation.bands, [](const WantedBand& w) { return w.wish == Wish::No; });
    const auto spread = spreadOf(library, spreadQuestionOf(design, asked.antennas[row]), watch);
    if (!spread)
        return spread.faults();
    compared.spread = std::make_shared<const Spread>(*spread);
    return {};
}

Result<std::vector<Compared>> allCompared(Library& library, const ComparisonQuestion& asked, const Watch& watch,
                                          const std::function<void(const std::vector<Compared>&)>& soFar)
{
    const Watch quiet = watch.with({});
    constexpr std::size_t mostWithSpread = 12;
    std::vector<Compared> rows;
    const auto tell = [&](double done) {
        watch.report(done);
        if (soFar)
            soFar(rows);
    };
    const double count = double(asked.antennas.size());
    for (std::size_t i = 0; i < asked.antennas.size(); ++i) {
        Result<Compared> row = comparedOf(library, asked, i, quiet);
        if (!row)
            return row.faults();
        rows.push_back(std::move(row).value());
        tell(0.3 * double(i + 1) / count);
    }
    for (std::size_t i = 0; i < rows.size() && rows.size() <= mostWithSpread; ++i) {
        addSpread(library, asked, i, rows[i], quiet); // where that cannot be solved the row stands without it
        if (watch.stopped())
            return stoppedFault();
        tell(0.3 + 0.7 * double(i + 1) / count);
    }
    return unlessStopped(watch, std::move(rows));
}

} // namespace vetchling::study
