#include "core/tune/tune.h"

#include "core/em/sensitivity.h"

#include <boost/math/tools/minima.hpp>
#include <fmt/format.h>

#include <cmath>
#include <optional>

namespace vetchling {
namespace {

constexpr double goodEnough = 2e-3;    // sin(arg Z): X below 0.2 % of |Z|
constexpr double stepTolerance = 1e-5; // relative change of the parameter
constexpr double widest = 1.0 / 3.0;   // search this far either side of the start

class Tuner {
public:
    Tuner(const shapes::AntennaShape& shape, const Ground& ground, const std::string& key, double frequency, em::GroundTableCache& tables,
          const TuneOptions& options, const Watch& watch)
        : m_shape(shape), m_ground(ground), m_key(key), m_frequency(frequency), m_tables(tables), m_options(options), m_watch(watch)
    {
    }

    Result<TuneOutcome> run()
    {
        const shapes::Family* family = shapes::findFamily(m_shape.family);
        if (!family)
            return Fault{"family", "there is no family '" + m_shape.family + "'"};
        const shapes::ParameterSpec* spec = family->spec(m_key);
        if (!spec || !spec->choices.empty() || m_key == "x_m" || m_key == "y_m")
            return Fault{m_key, "is not a parameter of a " + family->title() + " that can be tuned"};
        m_lowest = spec->lowest;
        m_highest = spec->highest;
        m_start = family->value(m_shape, m_key);
        m_outcome.ruleValue = m_start;
        if (m_key == family->tunedParameter()) {
            m_outcome.ruleValue = family->rules(m_shape, m_frequency).front().value;
            m_start = m_outcome.ruleValue;
        }
        m_start = std::clamp(m_start, m_lowest, m_highest);
        if (m_start == 0.0)
            return Fault{m_key, "is zero; a search needs a first value to start from"};
        return m_options.goal == TuneGoal::Resonance ? resonance() : lowestSwr();
    }

private:
    struct Point {
        double value, phase;
    };

    std::optional<Complex> impedanceAt(double value)
    {
        m_shape.parameters[m_key] = value;
        const Result<shapes::BuiltAntenna> built = shapes::buildOver(m_shape, m_ground);
        if (!built) {
            m_faults = built.faults();
            return std::nullopt;
        }
        const Result<em::Solution> solution =
            em::solve(std::make_shared<const WireModel>(built->model), m_frequency, m_tables, m_options.solve, m_watch);
        ++m_outcome.solves;
        m_watch.report(std::min(0.95, double(m_outcome.solves) / m_options.mostSolves));
        if (!solution) {
            m_faults = solution.faults();
            return std::nullopt;
        }
        m_last = *solution;
        return solution->impedance;
    }

    std::optional<Point> pointAt(double value)
    {
        const std::optional<Complex> z = impedanceAt(value);
        if (!z)
            return std::nullopt;
        m_outcome.value = value;
        m_outcome.impedance = *z;
        return Point{value, z->imag() / std::abs(*z)};
    }

    /// Where the sensitivity of the last solution says that the phase is zero; a small step where it says nothing.
    double newtonStep(const Point& from)
    {
        constexpr double probe = 1e-3, usual = -0.03, longest = 0.12; // relative
        shapes::AntennaShape changed = m_shape;
        changed.parameters[m_key] = from.value * (1.0 + probe);
        const auto built = shapes::buildOver(changed, m_ground);
        if (!built || !m_last)
            return from.value * (1.0 + usual);
        const Result<Complex> dz = em::impedanceChange(*m_last, *m_last->model, built->model, m_tables, m_watch);
        if (!dz)
            return from.value * (1.0 + usual);
        const Complex z = m_last->impedance + *dz;
        const double slope = (z.imag() / std::abs(z) - from.phase) / probe;
        const double step = slope != 0.0 ? -1.02 * from.phase / slope : usual; // a little beyond, so as to bracket the root
        return from.value * (1.0 + std::clamp(step, -longest, longest));
    }

    double within(double value) const
    {
        const double reach = widest * std::abs(m_start); // the start may be below zero
        return std::clamp(value, std::max(m_lowest, m_start - reach), std::min(m_highest, m_start + reach));
    }

    Result<TuneOutcome> resonance()
    {
        std::optional<Point> a = pointAt(m_start);
        if (!a)
            return m_faults;
        if (std::abs(a->phase) < goodEnough)
            return m_outcome;
        std::optional<Point> b = pointAt(within(newtonStep(*a)));
        if (!b)
            return m_faults;
        double stride = 0.04;
        while (a->phase * b->phase > 0.0) { // walk the way the phase falls until it changes sign
            if (std::abs(b->phase) < goodEnough)
                return m_outcome;
            const bool closer = std::abs(b->phase) < std::abs(a->phase);
            const Point from = closer ? *b : *a;
            const double direction = closer == (b->value > a->value) ? 1.0 : -1.0;
            const double secant = from.phase * (b->value - a->value) / (a->phase - b->phase);
            const double step = closer && std::abs(secant) < 3.0 * stride * m_start ? 1.15 * secant : direction * stride * m_start;
            const double next = within(from.value + step);
            if (next == from.value || m_outcome.solves >= m_options.mostSolves)
                return Fault{m_key, fmt::format("no resonance at {:.3f} MHz within a third of {}; change the other dimensions first",
                                                m_frequency / 1e6, units::format(m_start, quantity()))};
            const std::optional<Point> c = pointAt(next);
            if (!c)
                return m_faults;
            a = from;
            b = c;
            stride *= 1.5;
        }
        return falsePosition(*a, *b);
    }

    Result<TuneOutcome> falsePosition(Point a, Point b)
    {
        double fa = a.phase, fb = b.phase;
        while (m_outcome.solves < m_options.mostSolves) {
            const double next = (a.value * fb - b.value * fa) / (fb - fa);
            const std::optional<Point> c = pointAt(next);
            if (!c)
                return m_faults;
            if (std::abs(c->phase) < goodEnough || std::abs(b.value - a.value) < stepTolerance * m_start)
                return m_outcome;
            if (c->phase * fb < 0.0) {
                a = b;
                fa = fb;
            } else {
                fa *= 0.5; // Illinois
            }
            b = *c;
            fb = c->phase;
        }
        return Fault{m_key, "the search did not settle; start from a length nearer to resonance"};
    }

    Result<TuneOutcome> lowestSwr()
    {
        const auto cost = [&](double value) {
            const std::optional<Complex> z = impedanceAt(value);
            if (!z)
                return 1.0;
            return std::abs((*z - m_options.reference) / (*z + m_options.reference));
        };
        std::uintmax_t iterations = std::uintmax_t(std::max(4, m_options.mostSolves + 4));
        const auto best = boost::math::tools::brent_find_minima(cost, within(m_start - 0.15 * std::abs(m_start)), within(m_start + 0.15 * std::abs(m_start)), 12, iterations);
        m_faults.clear();
        if (!pointAt(best.first))
            return m_faults;
        return m_outcome;
    }

    units::Quantity quantity() const { return shapes::findFamily(m_shape.family)->spec(m_key)->quantity; }

    shapes::AntennaShape m_shape;
    const Ground& m_ground;
    std::string m_key;
    double m_frequency;
    em::GroundTableCache& m_tables;
    const TuneOptions& m_options;
    const Watch& m_watch;
    double m_start = 0.0, m_lowest = 0.0, m_highest = 0.0;
    TuneOutcome m_outcome;
    std::optional<em::Solution> m_last;
    Faults m_faults;
};

} // namespace

Result<TuneOutcome> tune(const shapes::AntennaShape& shape, const Ground& ground, const std::string& key, double frequency,
                         em::GroundTableCache& tables, const TuneOptions& options, const Watch& watch)
{
    if (Faults faults = findFrequencyFaults(frequency, "frequency"); !faults.empty())
        return faults;
    return Tuner(shape, ground, key, frequency, tables, options, watch).run();
}

} // namespace vetchling
