#include "core/tune/joint.h"

#include "core/em/far_field.h"

#include <nlopt.hpp>

#include <algorithm>
#include <cmath>
#include <optional>

namespace vetchling {
namespace {

constexpr double jointReach = 1.0 / 3.0; // search this far either side of the start, unless told otherwise
constexpr double firstStep = 0.04;       // of the way between the limits
constexpr double jointTolerance = 5e-5;  // of that, relative
constexpr double impossible = 1e3;       // cost of what cannot be built
constexpr double matched = 1e-6;         // |reflection|^2 that needs no further search
constexpr std::size_t mostLevers = 6;

class JointTuner {
public:
    JointTuner(const shapes::AntennaShape& shape, const Ground& ground, const std::vector<JointLever>& levers, const JointAim& aim,
               em::GroundTableCache& tables, const JointOptions& options, const Watch& watch)
        : m_shape(shape), m_ground(ground), m_levers(levers), m_aim(aim), m_tables(tables), m_options(options), m_watch(watch)
    {
    }

    Result<JointOutcome> run()
    {
        if (Faults faults = takeLimits(); !faults.empty())
            return faults;
        if (!costOf(m_start))
            return m_faults;
        std::vector<double> parts = partsOf(m_start); // a coil in henry and a leg in metres weigh alike
        nlopt::opt search(nlopt::LN_SBPLX, unsigned(parts.size()));
        search.set_lower_bounds(0.0);
        search.set_upper_bounds(1.0);
        search.set_initial_step(firstStep);
        search.set_xtol_rel(jointTolerance);
        search.set_maxeval(std::min(m_options.mostTries, m_options.mostSolves / int(m_aim.at.size())));
        if (m_aim.kind != JointAim::Kind::Gain)
            search.set_stopval(matched);
        search.set_min_objective(&JointTuner::objective, this);
        m_search = &search;
        double least = 0.0;
        try {
            search.optimize(parts, least);
        } catch (const nlopt::forced_stop&) {
            return stoppedFault();
        } catch (const nlopt::roundoff_limited&) {
        }
        return outcomeAt(valuesOf(parts));
    }

private:
    /// Of the way from the lowest to the highest value.
    std::vector<double> partsOf(const std::vector<double>& values) const
    {
        std::vector<double> parts;
        for (std::size_t i = 0; i < values.size(); ++i)
            parts.push_back((values[i] - m_lowest[i]) / (m_highest[i] - m_lowest[i]));
        return parts;
    }
    std::vector<double> valuesOf(const std::vector<double>& parts) const
    {
        std::vector<double> values;
        for (std::size_t i = 0; i < parts.size(); ++i)
            values.push_back(m_lowest[i] + parts[i] * (m_highest[i] - m_lowest[i]));
        return values;
    }

    Faults takeLimits()
    {
        if (m_levers.empty() || m_levers.size() > mostLevers || m_aim.at.empty())
            return {{"vary", coreText("core", "name one to six dimensions to vary, and a frequency")}};
        const shapes::Family& family = shapes::familyOf(m_shape);
        for (const JointLever& lever : m_levers) {
            const shapes::ParameterSpec* spec = family.spec(m_shape, lever.parameter);
            if (!spec || !spec->choices.empty() || spec->quantity == units::Quantity::Frequency)
                return {{lever.parameter, {coreText("core", "is not a dimension of this antenna (%1) that can be tuned"), family.title()}}};
            const double start = family.value(m_shape, lever.parameter);
            const bool own = lever.lowest != 0.0 || lever.highest != 0.0;
            const double reach = jointReach * std::abs(start);
            m_lowest.push_back(std::max(spec->lowest, own ? lever.lowest : start - reach));
            m_highest.push_back(std::min(spec->highest, own ? lever.highest : start + reach));
            if (!(m_lowest.back() < m_highest.back()))
                return {{lever.parameter, coreText("core", "has no room between its limits; give it a first value or wider ones")}};
            m_start.push_back(std::clamp(start, m_lowest.back(), m_highest.back()));
        }
        return {};
    }

    static double objective(const std::vector<double>& parts, std::vector<double>&, void* self)
    {
        auto& tuner = *static_cast<JointTuner*>(self);
        if (tuner.m_watch.stopped())
            tuner.m_search->force_stop();
        return tuner.costOf(tuner.valuesOf(parts)).value_or(impossible);
    }

    /// Nothing where the antenna cannot be built or solved.
    std::optional<double> costOf(const std::vector<double>& values)
    {
        for (std::size_t i = 0; i < values.size(); ++i)
            m_shape.parameters[m_levers[i].parameter] = values[i];
        double sum = 0.0, weights = 0.0;
        m_impedance.clear();
        for (const JointAim::At& at : m_aim.at) {
            const std::optional<double> part = costAt(at);
            if (!part)
                return std::nullopt;
            sum += at.weight * *part;
            weights += at.weight;
        }
        m_watch.report(std::min(0.95, double(m_solves) / m_options.mostSolves));
        return weights > 0.0 ? sum / weights : sum;
    }

    std::optional<double> costAt(const JointAim::At& at)
    {
        const Result<shapes::BuiltAntenna> built = shapes::buildOver(m_shape, m_ground, at.configuration);
        if (!built) {
            m_faults = built.faults();
            return std::nullopt;
        }
        const auto solution =
            em::solve(std::make_shared<const WireModel>(built->atLine()), at.frequency, m_tables, m_options.solve, m_watch);
        ++m_solves;
        if (!solution) {
            m_faults = solution.faults();
            return std::nullopt;
        }
        const Complex z = solution->impedance;
        m_impedance.push_back(z);
        switch (m_aim.kind) {
        case JointAim::Kind::LowestSwr: return std::norm((z - m_aim.reference) / (z + m_aim.reference));
        case JointAim::Kind::Resonance: return std::pow(z.imag() / std::abs(z), 2);
        case JointAim::Kind::Resistance: return std::norm((z - m_aim.resistance) / m_aim.resistance);
        case JointAim::Kind::Gain: return -em::FarField(*solution).gain(m_aim.elevation, m_aim.azimuth);
        }
        return std::nullopt;
    }

    Result<JointOutcome> outcomeAt(const std::vector<double>& values)
    {
        const std::optional<double> cost = costOf(values);
        if (!cost)
            return m_faults;
        JointOutcome out{values, m_impedance, *cost, m_solves, false};
        if (m_aim.kind == JointAim::Kind::Gain)
            out.achieved = -*cost;
        else
            out.achieved = std::sqrt(*cost) * (m_aim.kind == JointAim::Kind::Resistance ? m_aim.resistance : 1.0);
        for (std::size_t i = 0; i < values.size(); ++i) {
            const double near = 1e-3 * (m_highest[i] - m_lowest[i]);
            out.atLimit = out.atLimit || values[i] < m_lowest[i] + near || values[i] > m_highest[i] - near;
        }
        return out;
    }

    shapes::AntennaShape m_shape;
    const Ground& m_ground;
    const std::vector<JointLever>& m_levers;
    const JointAim& m_aim;
    em::GroundTableCache& m_tables;
    const JointOptions& m_options;
    const Watch& m_watch;
    nlopt::opt* m_search = nullptr;
    std::vector<double> m_start, m_lowest, m_highest;
    std::vector<Complex> m_impedance;
    int m_solves = 0;
    Faults m_faults;
};

} // namespace

Result<JointOutcome> tuneJointly(const shapes::AntennaShape& shape, const Ground& ground, const std::vector<JointLever>& levers,
                                 const JointAim& aim, em::GroundTableCache& tables, const JointOptions& options, const Watch& watch)
{
    for (const JointAim::At& at : aim.at)
        if (Faults faults = findFrequencyFaults(at.frequency, "frequency"); !faults.empty())
            return faults;
    return unlessStopped(watch, JointTuner(shape, ground, levers, aim, tables, options, watch).run());
}

} // namespace vetchling
