#include "core/tune/tune.h"

#include "core/em/sensitivity.h"
#include "core/tune/joint.h"

#include <algorithm>
#include <boost/math/tools/minima.hpp>
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
        const shapes::Family& family = shapes::familyOf(m_shape);
        const shapes::ParameterSpec* spec = family.spec(m_shape, m_key);
        if (!spec || !spec->choices.empty() || spec->quantity == units::Quantity::Frequency || m_key == "x_m" || m_key == "y_m")
            return Fault{m_key, {coreText("core", "is not a dimension of this antenna (%1) that can be tuned"), family.title()}};
        m_quantity = spec->quantity;
        m_anyZero = family.usualGoal() != shapes::TuneGoal::Resonance;
        m_lowest = spec->lowest;
        m_highest = spec->highest;
        m_start = family.value(m_shape, m_key);
        m_outcome.ruleValue = m_start;
        for (shapes::TunedLength length : family.tuned(m_shape))
            if (length.parameter == m_key) {
                length.frequency = m_frequency;
                m_outcome.ruleValue = family.rules(m_shape, length).front().value;
                if (!m_options.startFromPresent)
                    m_start = m_outcome.ruleValue;
            }
        m_start = std::clamp(m_start, m_lowest, m_highest);
        if (m_start == 0.0)
            return Fault{m_key, coreText("core", "the dimension is zero; a search needs a first value to start from")};
        return m_options.goal == shapes::TuneGoal::Resonance ? resonance() : lowestSwr();
    }

private:
    struct Point {
        double value, phase;
    };
    /// Two points with a zero between them.
    struct Bracket {
        Point a, b;
    };

    /// A longer antenna is the more inductive where it is resonant; through a parallel resonance, of thousands of ohm, the phase falls.
    /// What is matched by a transformer or a stub may be meant there.
    [[nodiscard]] bool isMeant(double phaseRises) const { return m_anyZero || phaseRises > 0.0; }
    [[nodiscard]] bool isMeant(const Bracket& between) const
    {
        return isMeant((between.b.phase - between.a.phase) * (between.b.value - between.a.value));
    }

    std::optional<Complex> impedanceAt(double value)
    {
        m_shape.parameters[m_key] = value;
        const Result<shapes::BuiltAntenna> built = shapes::buildOver(m_shape, m_ground, m_options.configuration);
        if (!built) {
            m_faults = built.faults();
            return std::nullopt;
        }
        const Result<em::Solution> solution =
            em::solve(std::make_shared<const WireModel>(built->atLine()), m_frequency, m_tables, m_options.solve, m_watch);
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

    /// What the phase changes by for a relative change of the value, by the sensitivity of the last solution; nothing where it says none.
    std::optional<double> slopeAt(const Point& point)
    {
        constexpr double probe = 1e-3; // relative
        shapes::AntennaShape changed = m_shape;
        changed.parameters[m_key] = point.value * (1.0 + probe);
        const auto built = shapes::buildOver(changed, m_ground, m_options.configuration);
        if (!built || !m_last)
            return std::nullopt;
        const Result<Complex> dz = em::impedanceChange(*m_last, *m_last->model, built->atLine(), m_tables, m_watch);
        if (!dz)
            return std::nullopt;
        const Complex z = m_last->impedance + *dz;
        const double slope = (z.imag() / std::abs(z) - point.phase) / probe;
        return slope != 0.0 ? std::optional(slope) : std::nullopt;
    }

    /// Where that says that the phase is zero; a small step where it says nothing, or that the next zero is a parallel resonance.
    double newtonStep(const Point& from)
    {
        constexpr double usual = -0.03, longest = 0.12; // relative
        const std::optional<double> slope = slopeAt(from);
        const double step = slope ? -1.02 * from.phase / *slope : usual; // a little beyond, so as to bracket the root
        return from.value * (1.0 + std::clamp(step, -longest, longest));
    }

    double within(double value) const
    {
        const double reach = widest * std::abs(m_start); // the start may be below zero
        return std::clamp(value, std::max(m_lowest, m_start - reach), std::min(m_highest, m_start + reach));
    }

    Result<TuneOutcome> resonance()
    {
        const std::optional<Point> start = pointAt(m_start);
        if (!start)
            return m_faults;
        const bool there = std::abs(start->phase) < goodEnough;
        if (there && isMeant(slopeAt(*start).value_or(1.0) * (start->value < 0.0 ? -1.0 : 1.0)))
            return m_outcome;
        std::optional<Bracket> bracket = there ? std::nullopt : walk(*start);
        if ((!bracket || !isMeant(*bracket)) && m_faults.empty())
            bracket = scan(*start); // far from resonance the phase hardly says which way to go
        if (!m_faults.empty())
            return m_faults;
        if (!bracket)
            return Fault{m_key,
                         {coreText("core", "no resonance at %1 within a third of %2; change the other dimensions first"),
                          Measure{m_frequency, units::Quantity::Frequency}, Measure{m_start, m_quantity}}};
        if (std::abs(bracket->b.phase) < goodEnough)
            return m_outcome;
        return falsePosition(bracket->a, bracket->b);
    }

    /// Walks the way the phase falls until it changes its sign. The last point solved is b.
    std::optional<Bracket> walk(Point a)
    {
        std::optional<Point> b = pointAt(within(newtonStep(a)));
        double stride = 0.04;
        while (b && a.phase * b->phase > 0.0 && std::abs(b->phase) >= goodEnough) {
            const bool closer = std::abs(b->phase) < std::abs(a.phase);
            const Point from = closer ? *b : a;
            const double direction = closer == (b->value > a.value) ? 1.0 : -1.0;
            const double secant = from.phase * (b->value - a.value) / (a.phase - b->phase);
            const double step = closer && std::abs(secant) < 3.0 * stride * m_start ? 1.15 * secant : direction * stride * m_start;
            const double next = within(from.value + step);
            if (next == from.value || m_outcome.solves >= m_options.mostSolves)
                return std::nullopt;
            a = from;
            b = pointAt(next);
            stride *= 1.5;
        }
        return b ? std::optional(Bracket{a, *b}) : std::nullopt;
    }

    /// Looks further and further out on both sides of the start.
    std::optional<Bracket> scan(Point start)
    {
        constexpr double pitch = 0.065; // of the start
        Point lower = start, upper = start;
        for (int i = 1; i * pitch < widest + pitch; ++i)
            for (Point* side : {&upper, &lower}) {
                const double next = within(start.value + (side == &upper ? 1.0 : -1.0) * i * pitch * std::abs(m_start));
                if (next == side->value)
                    continue;
                const std::optional<Point> p = pointAt(next);
                if (!p)
                    return std::nullopt;
                const Bracket between{*side, *p};
                if (p->phase * side->phase <= 0.0 && isMeant(between))
                    return between;
                *side = *p;
            }
        return std::nullopt;
    }

    Result<TuneOutcome> falsePosition(Point a, Point b)
    {
        double fa = a.phase, fb = b.phase;
        const int mostSolves = m_outcome.solves + m_options.mostSolves;
        while (m_outcome.solves < mostSolves) {
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
        return Fault{m_key, coreText("core", "the search did not settle; start from a length nearer to resonance")};
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
        const auto best = boost::math::tools::brent_find_minima(cost, within(m_start - m_options.reach * std::abs(m_start)),
                                                                within(m_start + m_options.reach * std::abs(m_start)), 12, iterations);
        m_faults.clear();
        if (!pointAt(best.first))
            return m_faults;
        return m_outcome;
    }

    shapes::AntennaShape m_shape;
    const Ground& m_ground;
    std::string m_key;
    double m_frequency;
    em::GroundTableCache& m_tables;
    const TuneOptions& m_options;
    const Watch& m_watch;
    units::Quantity m_quantity = units::Quantity::Length;
    double m_start = 0.0, m_lowest = 0.0, m_highest = 0.0;
    TuneOutcome m_outcome;
    std::optional<em::Solution> m_last;
    bool m_anyZero = false;
    Faults m_faults;
};

} // namespace

Result<TuneOutcome> tune(const shapes::AntennaShape& shape, const Ground& ground, const std::string& key, double frequency,
                         em::GroundTableCache& tables, const TuneOptions& options, const Watch& watch)
{
    if (Faults faults = findFrequencyFaults(frequency, "frequency"); !faults.empty())
        return faults;
    return unlessStopped(watch, Tuner(shape, ground, key, frequency, tables, options, watch).run());
}

namespace {

/// Between pairs that act on one another a parallel resonance has no reactance either, but hundreds of ohm: the one that is meant lies
/// beyond it, on a longer wire.
Result<TuneOutcome> tuneToLowResistance(shapes::AntennaShape shape, const Ground& ground, const shapes::TunedLength& length,
                                        em::GroundTableCache& tables, TuneOptions options, const Watch& watch)
{
    constexpr double tooHigh = 200.0, beyond = 0.12; // ohm; of the rule's length, more each time
    constexpr int tries = 2;
    Result<TuneOutcome> found = tune(shape, ground, length.parameter, length.frequency, tables, options, watch);
    for (int i = 0; i < tries && found && found->impedance.real() > tooHigh; ++i) {
        const int solves = found->solves;
        const double rule = found->ruleValue;
        shape.parameters[length.parameter] = (1.0 + beyond * (i + 1)) * rule;
        options.startFromPresent = true;
        found = tune(shape, ground, length.parameter, length.frequency, tables, options, watch);
        if (found) {
            TuneOutcome outcome = *found;
            outcome.solves += solves;
            outcome.ruleValue = rule;
            found = outcome;
        }
    }
    return found;
}

bool inOneConfiguration(const std::vector<shapes::TunedLength>& lengths)
{
    return lengths.size() > 1 && std::all_of(lengths.begin(), lengths.end(), [&](const shapes::TunedLength& t) {
               return t.configuration == lengths.front().configuration;
           });
}

bool atOneFrequency(const std::vector<shapes::TunedLength>& lengths)
{
    return std::all_of(lengths.begin(), lengths.end(),
                       [&](const shapes::TunedLength& t) { return t.frequency == lengths.front().frequency; });
}

/// The largest |reflection| at the lengths' frequencies.
double worstReflection(const TuneAllOutcome& outcome, double reference)
{
    double worst = 0.0;
    for (const TunedValue& v : outcome.lengths)
        worst = std::max(worst, std::abs((v.impedance - reference) / (v.impedance + reference)));
    return worst;
}

/// Lengths that match together, as a stub's and its tap's: one after the other they would follow each other to the wrong place.
Result<TuneAllOutcome> tuneTogether(const shapes::AntennaShape& shape, const Ground& ground,
                                    const std::vector<shapes::TunedLength>& lengths, em::GroundTableCache& tables,
                                    const TuneOptions& options, const Watch& watch)
{
    const shapes::Family& family = shapes::familyOf(shape);
    JointAim aim;
    aim.reference = options.reference;
    std::vector<JointLever> levers;
    std::vector<std::size_t> aimOf; // of each length
    for (const shapes::TunedLength& t : lengths) {
        levers.push_back({t.parameter});
        const auto known = std::find_if(aim.at.begin(), aim.at.end(), [&](const JointAim::At& at) {
            return at.frequency == t.frequency && at.configuration == t.configuration;
        });
        aimOf.push_back(std::size_t(known - aim.at.begin()));
        if (known == aim.at.end())
            aim.at.push_back({t.frequency, 1.0, t.configuration});
    }
    const Result<JointOutcome> best = tuneJointly(shape, ground, levers, aim, tables, {}, watch);
    if (!best)
        return best.faults();
    TuneAllOutcome out;
    out.solves = best->solves;
    for (std::size_t i = 0; i < lengths.size(); ++i)
        out.lengths.push_back({lengths[i], best->values[i], family.rules(shape, lengths[i]).front().value, best->impedance[aimOf[i]]});
    return out;
}

struct InTurn {
    TuneAllOutcome outcome;
    bool settled = false;
};

/// One after the other in the family's order, and again until none moves.
Result<InTurn> tuneInTurn(shapes::AntennaShape now, const Ground& ground, const std::vector<shapes::TunedLength>& lengths,
                          em::GroundTableCache& tables, const TuneOptions& options, const Watch& watch)
{
    const bool flat = options.goal == shapes::TuneGoal::LowestSwr;                       // a lowest SWR is
    const double settled = options.settled > 0.0 ? options.settled : flat ? 2e-3 : 1e-4; // relative change of a length in a round
    const int mostRounds = options.startFromPresent && flat ? 3 : 8;
    TuneAllOutcome out;
    TuneOptions each = options;
    for (int round = 0; round < mostRounds; ++round) {
        double moved = 0.0;
        out.lengths.clear();
        each.startFromPresent = round > 0 || options.startFromPresent;
        for (const shapes::TunedLength& t : lengths) {
            each.configuration = t.configuration;
            const Result<TuneOutcome> one = lengths.size() == 1 ? tune(now, ground, t.parameter, t.frequency, tables, each, watch)
                                                                : tuneToLowResistance(now, ground, t, tables, each, watch);
            if (!one)
                return one.faults();
            moved = std::max(moved, std::abs(one->value / now.parameters[t.parameter] - 1.0));
            now.parameters[t.parameter] = one->value;
            out.lengths.push_back({t, one->value, one->ruleValue, one->impedance});
            out.solves += one->solves;
        }
        if (lengths.size() == 1 || moved < settled)
            return InTurn{out, true};
    }
    return InTurn{out, false};
}

constexpr double goodReflection = 0.5; // an SWR of 3

/// Resonances are found in a few steps each; the lowest SWR lies near them. Nothing where they do not settle or are no match.
std::optional<TuneAllOutcome> polishedResonances(const shapes::AntennaShape& byRules, const Ground& ground,
                                                 const std::vector<shapes::TunedLength>& lengths, em::GroundTableCache& tables,
                                                 const TuneOptions& options, const Watch& watch)
{
    TuneOptions resonance = options;
    resonance.goal = shapes::TuneGoal::Resonance;
    const Result<InTurn> found = tuneInTurn(byRules, ground, lengths, tables, resonance, watch);
    if (!found || !found->settled || worstReflection(found->outcome, options.reference) > goodReflection)
        return std::nullopt;
    shapes::AntennaShape there = byRules;
    for (const TunedValue& v : found->outcome.lengths)
        there.parameters[v.length.parameter] = v.value;
    TuneOptions polish = options;
    polish.startFromPresent = true;
    polish.reach = 0.03;
    const Result<InTurn> polished = tuneInTurn(there, ground, lengths, tables, polish, watch);
    const bool better =
        polished && worstReflection(polished->outcome, options.reference) < worstReflection(found->outcome, options.reference);
    TuneAllOutcome out = better ? polished->outcome : found->outcome;
    out.solves = found->outcome.solves + (polished ? polished->outcome.solves : 0);
    return out;
}

/// From the rules' lengths, and from where one after the other led: the better of the two, and of what was there.
Result<TuneAllOutcome> bestTogether(const shapes::AntennaShape& byRules, const TuneAllOutcome& inTurn, const Ground& ground,
                                    const std::vector<shapes::TunedLength>& lengths, em::GroundTableCache& tables,
                                    const TuneOptions& options, const Watch& watch)
{
    TuneAllOutcome best = inTurn;
    shapes::AntennaShape led = byRules;
    for (const TunedValue& v : inTurn.lengths)
        led.parameters[v.length.parameter] = v.value;
    for (const shapes::AntennaShape& start : {led, byRules}) {
        const Result<TuneAllOutcome> joint = tuneTogether(start, ground, lengths, tables, options, watch);
        const int solves = best.solves + (joint ? joint->solves : 0);
        if (joint && worstReflection(*joint, options.reference) < worstReflection(best, options.reference))
            best = *joint;
        best.solves = solves;
    }
    return best;
}

} // namespace

Result<TuneAllOutcome> tuneAll(const shapes::AntennaShape& shape, const Ground& ground, em::GroundTableCache& tables,
                               const TuneOptions& options, const Watch& watch)
{
    const shapes::Family& family = shapes::familyOf(shape);
    const std::vector<shapes::TunedLength> lengths = family.tuned(shape);
    if (lengths.empty())
        return Fault{"family", family.build(shape, 0).faults().front().message};
    shapes::AntennaShape now = shape;
    for (const shapes::TunedLength& t : lengths)
        if (!options.startFromPresent)
            now.parameters[t.parameter] = family.rules(now, t).front().value;
    const bool together = options.goal == shapes::TuneGoal::LowestSwr && inOneConfiguration(lengths);
    if (together && atOneFrequency(lengths))
        return unlessStopped(watch, tuneTogether(now, ground, lengths, tables, options, watch));
    if (together && family.usualGoal() == shapes::TuneGoal::Resonance)
        if (const auto polished = polishedResonances(now, ground, lengths, tables, options, watch))
            return unlessStopped(watch, *polished);
    const Result<InTurn> inTurn = tuneInTurn(now, ground, lengths, tables, options, watch);
    if (!inTurn)
        return inTurn.faults();
    if (together && !(inTurn->settled && worstReflection(inTurn->outcome, options.reference) < goodReflection))
        return unlessStopped(watch, bestTogether(now, inTurn->outcome, ground, lengths, tables, options, watch));
    if (watch.stopped())
        return stoppedFault();
    if (!inTurn->settled)
        return Fault{lengths.front().parameter, coreText("core", "the lengths act on one another and do not settle; spread them farther")};
    return inTurn->outcome;
}

} // namespace vetchling
