#include "tests/validation/trim_builder.h"

#include "core/tune/tune.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace vetchling::testing {
namespace {

constexpr int mostVisits = 10;

double normal(std::mt19937& random, double sigma) { return std::normal_distribution<double>(0.0, sigma)(random); }
double even(std::mt19937& random, double low, double high) { return std::uniform_real_distribution<double>(low, high)(random); }

/// A plan that a careful designer would have: tuned over the soil that is believed in.
Antenna planned(const std::string& family, std::mt19937& random, const Ground& soil, study::Library& library)
{
    const double bands[] = {3.65e6, 7.1e6, 10.12e6, 14.2e6, 18.1e6, 21.2e6, 28.5e6};
    Antenna a;
    a.name = family;
    a.shape = shapes::findFamily(family)->standardShape(bands[std::size_t(even(random, 0.0, 6.999))]);
    if (const auto tuned = tuneAll(a.shape, soil, library.tables()))
        for (const TunedValue& v : tuned->lengths)
            a.shape.parameters[v.length.parameter] = v.value;
    return a;
}

/// Every length some percent too long, as tape and ends make it; the soil is not what was believed.
HeldAntenna hung(const Antenna& plan, const Ground& soil, std::mt19937& random)
{
    std::vector<shapes::BuiltAntenna> drawn;
    const std::size_t configurations = shapes::familyOf(plan.shape).configurations(plan.shape).size();
    for (std::size_t i = 0; i < configurations; ++i)
        drawn.push_back(*shapes::buildOver(plan.shape, soil, i));
    HeldAntenna held(std::move(drawn));
    if (held.hangs())
        held.raise(normal(random, 0.25));
    for (const TrimTask& task : trimTasks(plan)) {
        const double length = shapes::familyOf(plan.shape).value(plan.shape, task.lever.parameter),
                     longer = length * (even(random, 0.005, 0.03) + normal(random, 0.004));
        held.take(*gripOf(plan.name, task.lever.parameter), task.lever.kind == shapes::LeverKind::Tap ? 0.0 : -longer);
    }
    return held;
}

/// Nine tenths of what the ratio of two frequencies asks for, to a centimetre; nothing where it is near enough.
double byRatio(double length, double dip, double target, double allowed)
{
    if (std::abs(dip - target) <= allowed)
        return 0.0;
    const double change = std::round(90.0 * length * (dip / target - 1.0)) / 100.0;
    return change == 0.0 ? std::copysign(0.01, dip - target) : change;
}

} // namespace

const std::vector<std::string>& trimmedFamilies()
{
    static const std::vector<std::string> all{"dipole", "vertical", "end-fed", "delta-loop", "loaded-dipole", "whip"};
    return all;
}

std::vector<std::string> heldFamilies()
{
    std::vector<std::string> all;
    for (const shapes::Family* family : shapes::families()) {
        Antenna plan;
        plan.shape = family->standardShape(14.15e6);
        const auto tasks = trimTasks(plan);
        if (!tasks.empty() &&
            std::all_of(tasks.begin(), tasks.end(), [&](const TrimTask& t) { return gripOf(family->id(), t.lever.parameter); }))
            all.push_back(family->id());
    }
    return all;
}

TrimRun trimOne(const std::string& family, std::mt19937& random, study::Library& library, bool ratioRule)
{
    const Ground believed{GroundKind::Real, 13.0, 0.005};
    Antenna plan = planned(family, random, believed, library);
    plan.allowances.marginPercent = 0.0; // he knows no margin: what is too long is nobody's plan
    const std::vector<TrimTask> tasks = trimTasks(plan);
    HeldAntenna held = hung(plan, believed, random);
    Ground soil = believed;
    soil.relativePermittivity = std::max(3.0, soil.relativePermittivity * std::exp(normal(random, 0.25)));
    soil.conductivity *= std::exp(normal(random, 0.4));
    TrimRun run;
    run.family = family;
    std::map<std::size_t, double> ends; // Hz that each is off
    std::size_t task = 0;
    double cut = 0.0;
    for (int visit = 0; visit < mostVisits * int(tasks.size()); ++visit) {
        const TrimTask& now = tasks[task];
        const auto truth = held.dip(library, soil, now.configuration, now.target);
        if (!truth) {
            run.dip = false;
            return run;
        }
        Measurement m;
        m.dip = truth->frequency * (1.0 + normal(random, 4e-4));
        m.parameter = now.lever.parameter;
        m.configuration = now.configuration;
        m.cutSinceLast = cut;
        addMeasurement(plan, m);
        ++run.measurements;
        ends[task] = truth->frequency - now.target;
        const double allowed = std::min(5e-3 * now.target, truth->width > 0.0 ? 0.25 * truth->width : 5e-3 * now.target);
        run.passedMark |= cut > 0.0 && ends[task] > allowed + 8e-4 * now.target;
        double change = 0.0;
        if (ratioRule) {
            change = byRatio(shapes::familyOf(plan.shape).value(asLogged(plan), now.lever.parameter), m.dip, now.target, allowed);
            run.finished = change == 0.0;
        } else {
            TrimQuestion asked;
            asked.subject.shape = plan.shape;
            asked.subject.ground = believed;
            asked.antenna = plan;
            const auto outcome = trimNext(library, asked);
            run.finished = outcome && outcome->next.step == TrimStep::Done;
            if (!outcome || outcome->next.step == TrimStep::Check)
                break;
            change = outcome->next.change;
            task = outcome->next.task;
        }
        if (run.finished)
            break;
        cut = -change;
        if (change != 0.0)
            held.take(*gripOf(family, tasks[task].lever.parameter), cut), ++run.cuts;
    }
    for (const auto& [place, off] : ends)
        if (std::abs(off) >= std::abs(run.off))
            run.off = off, run.lever = tasks[place].lever.parameter;
    return run;
}

} // namespace vetchling::testing
