#include "tests/validation/trim_builder.h"

#include "core/tune/tune.h"

#include <cmath>

namespace vetchling::testing {
namespace {

constexpr int mostVisits = 10;

struct Hidden {
    shapes::AntennaShape shape;
    Ground soil;
};

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

Hidden asBuilt(const Antenna& plan, const std::string& parameter, const Ground& soil, std::mt19937& random)
{
    Hidden hidden{raised(plan.shape, normal(random, 0.25)), soil};
    hidden.soil.relativePermittivity = std::max(3.0, soil.relativePermittivity * std::exp(normal(random, 0.25)));
    hidden.soil.conductivity = soil.conductivity * std::exp(normal(random, 0.4));
    double& length = hidden.shape.parameters[parameter];
    length *= 1.0 + even(random, 0.005, 0.03) + normal(random, 0.004);
    return hidden;
}

} // namespace

const std::vector<std::string>& trimmedFamilies()
{
    static const std::vector<std::string> all{"dipole", "vertical", "end-fed", "delta-loop", "loaded-dipole", "whip"};
    return all;
}

TrimRun trimOne(const std::string& family, std::mt19937& random, study::Library& library, bool ratioRule)
{
    const Ground believed{GroundKind::Real, 13.0, 0.005};
    Antenna plan = planned(family, random, believed, library);
    const TrimTask task = trimTasks(plan).front();
    Hidden hidden = asBuilt(plan, task.lever.parameter, believed, random);
    TrimRun run;
    run.family = family;
    double cut = 0.0;
    for (int visit = 0; visit < mostVisits; ++visit) {
        study::Subject subject;
        subject.shape = hidden.shape;
        subject.ground = hidden.soil;
        const auto truth = dipNear(library, subject, task.target);
        if (!truth)
            return run;
        Measurement m;
        m.dip = truth->dip * (1.0 + normal(random, 4e-4));
        m.parameter = task.lever.parameter;
        m.cutSinceLast = cut;
        plan.trim.measurements.push_back(m);
        ++run.measurements;
        run.off = truth->dip - task.target;
        const double allowed = std::min(5e-3 * task.target, truth->width > 0.0 ? 0.25 * truth->width : 5e-3 * task.target);
        run.passedMark |= visit > 0 && cut > 0.0 && run.off > allowed + 8e-4 * task.target;
        double change = 0.0;
        if (ratioRule) {
            const double length = shapes::familyOf(hidden.shape).value(asLogged(plan), task.lever.parameter);
            if (std::abs(m.dip - task.target) <= allowed) {
                run.finished = true;
                return run;
            }
            change = std::round(90.0 * length * (m.dip / task.target - 1.0)) / 100.0;
            change = change == 0.0 ? std::copysign(0.01, m.dip - task.target) : change;
        } else {
            TrimQuestion asked;
            asked.subject.shape = plan.shape;
            asked.subject.ground = believed;
            asked.antenna = plan;
            const auto outcome = trimNext(library, asked);
            if (!outcome || outcome->next.step == TrimStep::Done) {
                run.finished = outcome.ok();
                return run;
            }
            change = outcome->next.change;
        }
        if (change == 0.0)
            return run;
        hidden.shape.parameters[task.lever.parameter] += change;
        cut = -change;
        ++run.cuts;
    }
    return run;
}

} // namespace vetchling::testing
