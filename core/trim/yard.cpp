#include "core/trim/yard.h"

#include "core/line/parts.h"
#include "core/study/answers.h"
#include "core/trim/measure_card.h"
#include "core/trim/readings.h"

#include <algorithm>
#include <cmath>

namespace vetchling {
namespace {

constexpr double sweptEitherSide = 0.055; // of the mark
constexpr int sweptPoints = 81;
constexpr double goodSwr = 2.0;
constexpr double coaxLength = 18.0;             // m
constexpr double usualK1 = 1.2, lossyK1 = 14.0; // dB in 100 m at 1 MHz
constexpr double meterStep = 0.1;               // of an SWR, that a meter's scale shows
constexpr double channelsApart = 0.018;         // of the mark
constexpr double handSeen = 0.025;              // of an SWR, that a hand has to change
constexpr double knownLoad = 83.0;              // ohm
const Ground believed{GroundKind::Real, 13.0, 0.005};

Measure frequency(double f) { return {f, units::Quantity::Frequency}; }
Measure plain(double v) { return {v, units::Quantity::Plain}; }
Measure metres(double m) { return {std::abs(m), units::Quantity::SmallLength}; }

double rounded(double swr, double step) { return std::round(swr / step) * step; }

std::vector<double> rangeRound(double mark, double step)
{
    return sweptFrequencies((1.0 - sweptEitherSide) * mark, (1.0 + sweptEitherSide) * mark, sweptPoints, step);
}

/// A calibration whose open was touched.
Result<Calibration> touched(const InstrumentFaults& faults, const std::vector<double>& frequencies, std::mt19937& random)
{
    const auto read = [&](Standard which, double capacitance) {
        std::vector<Complex> g;
        for (double f : frequencies) {
            const Complex y = imaginaryUnit * 2.0 * pi * f * capacitance * 50.0 + (capacitance > 0.0 ? 0.25 : 0.0);
            g.push_back(which == Standard::Open ? (1.0 - y) / (1.0 + y) : reflectionOf(which, {}, f));
        }
        return rawSweepOf(faults, frequencies, g, random);
    };
    return Calibration::from(read(Standard::Open, 120e-12), read(Standard::Short, 0.0), read(Standard::Load, 0.0));
}

ChainPart coaxOf(double k1) { return {{}, "line", {}, {{"length_m", coaxLength}, {"k1_dB_per_100m", k1}}, {}, {}, {}}; }

HiddenFaults hiddenBy(YardFault fault, std::mt19937& random)
{
    HiddenFaults hidden = everydayFaults(random);
    switch (fault) {
    case YardFault::WetSoil:
        hidden.permittivity = 3.0;
        hidden.conductivity = 8.0;
        break;
    case YardFault::HungLow: hidden.higher = -4.5; break;
    case YardFault::BadCrimp: hidden.joint = 55.0; break;
    case YardFault::WrongTurns: hidden.coils = 0.86; break;
    default: break;
    }
    return hidden;
}

} // namespace

Yard::Yard(YardLevel level, Antenna plan, YardFault fault, unsigned seed)
    : m_level(std::move(level)), m_plan(std::move(plan)), m_tasks(trimTasks(m_plan)), m_fault(fault), m_random(seed)
{
    m_built.plan.shape = m_plan.shape;
    m_built.plan.ground = believed;
    m_built.faults = hiddenBy(fault, m_random);
    m_coax = coaxOf(fault == YardFault::LossyCoax ? lossyK1 : usualK1);
    note(YardAct::Start, m_level.story);
}

Result<Yard> Yard::open(study::Library& library, const YardLevel& level, unsigned seed, const Watch& watch)
{
    std::mt19937 random(seed);
    Antenna plan;
    plan.name = level.title.english();
    plan.shape = shapes::findFamily(level.family)->standardShape(level.frequency);
    for (const auto& [key, value] : level.parameters)
        plan.shape.parameters[key] = value;
    const auto tuned = tuneAll(plan.shape, believed, library.tables(), {}, watch);
    if (!tuned)
        return tuned.faults();
    for (const TunedValue& v : tuned->lengths)
        plan.shape.parameters[v.length.parameter] = v.value;
    const YardFault fault = level.suspects[std::uniform_int_distribution<std::size_t>(0, level.suspects.size() - 1)(random)];
    Yard yard(level, plan, fault, seed + 1);
    if (const auto built = shapes::buildOver(subjectOf(yard.m_built, {}).shape, believed); !built)
        return built.faults();
    yard.look();
    if (Faults faults = yard.drawPlan(library, watch); !faults.empty())
        return faults;
    return yard;
}

/// Through a good coax, by a good instrument.
Faults Yard::drawPlan(study::Library& library, const Watch& watch)
{
    const ChainPart coax = coaxOf(usualK1);
    for (const TrimTask& task : m_tasks) {
        AsBuilt plan{m_built.plan, {}};
        plan.plan.configuration = task.configuration;
        const auto frequencies = rangeRound(task.target, m_instrument.step);
        const auto impedances = impedancesOf(library, plan, {}, frequencies, watch);
        if (!impedances)
            return impedances.faults();
        MeasuredSweep sweep;
        for (std::size_t i = 0; i < frequencies.size(); ++i) {
            const Complex z = kindOf(coax).at(coax, frequencies[i]).towardsRadio((*impedances)[i]);
            sweep.points.push_back({frequencies[i], z, measuredSwr(z, 50.0)});
        }
        m_planned.push_back(std::move(sweep));
    }
    return {};
}

Faults Yard::mayAct(std::size_t task) const
{
    if (m_verdict)
        return {{"", coreText("core", "this one is finished; start it again, or take the next level")}};
    if (task >= m_tasks.size())
        return {{"", coreText("core", "there is no such piece here")}};
    return {};
}

void Yard::note(YardAct act, Text words)
{
    m_seconds += yardSeconds(act);
    m_notes.push_back({act, m_seconds, std::move(words)});
}

double Yard::shortened(std::size_t task) const
{
    const auto change = task < m_tasks.size() ? m_handling.changes.find(m_tasks[task].lever.parameter) : m_handling.changes.end();
    return change == m_handling.changes.end() ? 0.0 : -change->second;
}

/// What a passer-by sees: the plan, and what was done since.
void Yard::look()
{
    m_hanging.clear();
    for (const TrimTask& task : m_tasks) {
        const auto built = shapes::buildOver(subjectOf({m_built.plan, {}}, m_handling).shape, believed, task.configuration);
        m_hanging.push_back(built ? std::make_shared<const shapes::BuiltAntenna>(*built) : nullptr);
    }
}

AsBuilt Yard::builtFor(std::size_t task) const
{
    AsBuilt built = m_built;
    built.plan.configuration = m_tasks[task].configuration;
    return built;
}

/// As the instrument shows what hangs at the far end of the coax.
MeasuredSweep Yard::shown(const std::vector<double>& frequencies, const std::vector<Complex>& impedances)
{
    const double shaky = m_built.faults.joint * 0.35 * std::normal_distribution<double>()(m_random);
    std::vector<Complex> reflections;
    for (std::size_t i = 0; i < frequencies.size(); ++i) {
        const Complex z = kindOf(m_coax).at(m_coax, frequencies[i]).towardsRadio(impedances[i] + shaky);
        reflections.push_back((z - 50.0) / (z + 50.0));
    }
    if (m_fault == YardFault::BadCalibration)
        if (const auto calibration = touched(m_instrument, frequencies, m_random))
            if (const auto sweep = calibration->correct(rawSweepOf(m_instrument, frequencies, reflections, m_random)))
                return *sweep;
    MeasuredSweep sweep;
    for (std::size_t i = 0; i < frequencies.size(); ++i) {
        const Complex g = reflections[i] + m_instrument.noise * Complex(std::normal_distribution<double>()(m_random), 0.0);
        sweep.points.push_back({frequencies[i], reflectingImpedance(g, 50.0), measuredSwrOf(g)});
    }
    return sweep;
}

void Yard::logIt(std::size_t task, double dip, double swr)
{
    bool first = true;
    for (auto& [changed, amount] : m_sinceMeasured) {
        if (amount == 0.0)
            continue;
        Measurement m;
        m.dip = dip;
        m.dipSwr = swr;
        m.configuration = m_tasks[task].configuration;
        m.parameter = m_tasks[changed].lever.parameter;
        m.cutSinceLast = amount;
        m_plan.trim.measurements.push_back(m);
        amount = 0.0;
        first = false;
    }
    if (!first)
        return;
    Measurement m;
    m.dip = dip;
    m.dipSwr = swr;
    m.configuration = m_tasks[task].configuration;
    m.parameter = m_tasks[task].lever.parameter;
    m_plan.trim.measurements.push_back(m);
}

Faults Yard::measure(study::Library& library, std::size_t task, const Watch& watch)
{
    if (Faults faults = mayAct(task); !faults.empty())
        return faults;
    const double mark = m_tasks[task].target;
    const auto frequencies = rangeRound(mark, m_instrument.step);
    const auto impedances = impedancesOf(library, builtFor(task), m_handling, frequencies, watch);
    if (!impedances)
        return impedances.faults();
    const MeasuredSweep sweep = shown(frequencies, *impedances);
    if (m_lowered)
        ++m_hoists;
    m_lowered = false;
    m_sweep = sweep;
    const auto dip = sweep.dip();
    const auto at = [&](double f) {
        const auto nearest =
            std::min_element(sweep.points.begin(), sweep.points.end(), [&](const MeasuredPoint& a, const MeasuredPoint& b) {
                return std::abs(a.frequency - f) < std::abs(b.frequency - f);
            });
        return std::max(1.0, rounded(nearest->swr, meterStep));
    };
    if (m_level.meterOnly) {
        m_sweep.reset();
        m_channels.clear();
        for (double part : {-channelsApart, 0.0, channelsApart})
            m_channels.emplace_back((1.0 + part) * mark, at((1.0 + part) * mark));
        note(YardAct::Sweep, {coreText("core", "meter: low channel %1, middle %2, high %3"), plain(m_channels[0].second),
                              plain(m_channels[1].second), plain(m_channels[2].second)});
    } else if (dip->atEdge) {
        note(YardAct::Sweep,
             {coreText("core", "sweep: no dip between %1 and %2"), frequency(frequencies.front()), frequency(frequencies.back())});
    } else {
        note(YardAct::Sweep, {coreText("core", "sweep: dip %1, SWR %2"), frequency(dip->frequency), plain(rounded(dip->swr, 0.01))});
    }
    logIt(task, dip->frequency, m_level.meterOnly ? 0.0 : dip->swr);
    return {};
}

Faults Yard::ohmmeter()
{
    if (Faults faults = mayAct(0); !faults.empty())
        return faults;
    const auto built = shapes::buildOver(m_plan.shape, believed);
    if (built && joinedForDirectCurrent(*built))
        note(YardAct::Ohmmeter, m_built.faults.joint > 0.0 ? Text(coreText("core", "ohmmeter: %1 ohm, and it jumps when the plug is moved"),
                                                                  plain(m_built.faults.joint))
                                                           : Text(coreText("core", "ohmmeter: nearly a short, as it should be")));
    else
        note(YardAct::Ohmmeter, coreText("core", "ohmmeter: open, as it should be"));
    return {};
}

Faults Yard::hand(study::Library& library, std::size_t task, const Watch& watch)
{
    if (Faults faults = mayAct(task); !faults.empty())
        return faults;
    const double mark = m_tasks[task].target;
    Handling near = m_handling;
    near.handNear = true;
    const std::vector<double> there{mark, 1.001 * mark};
    const auto without = impedancesOf(library, builtFor(task), m_handling, there, watch),
               with = impedancesOf(library, builtFor(task), near, there, watch);
    if (!without || !with)
        return without ? with.faults() : without.faults();
    const double before = measuredSwr(without->front(), 50.0), after = measuredSwr(with->front(), 50.0);
    note(YardAct::Hand, std::abs(after / before - 1.0) < handSeen
                            ? Text(coreText("core", "a hand near an end: the SWR on the mark hardly moves"))
                        : after < before ? Text(coreText("core", "a hand near an end: the SWR on the mark falls, so it is too short"))
                                         : Text(coreText("core", "a hand near an end: the SWR on the mark rises, so it is not too short")));
    return {};
}

Faults Yard::load()
{
    if (Faults faults = mayAct(0); !faults.empty())
        return faults;
    const double mark = m_tasks.front().target;
    const std::vector<double> frequencies = sweptFrequencies(0.98 * mark, 1.02 * mark, 21, m_instrument.step);
    double loaded = knownLoad / 50.0;
    if (m_fault == YardFault::BadCalibration)
        if (const auto calibration = touched(m_instrument, frequencies, m_random)) {
            const std::vector<Complex> known(frequencies.size(), (knownLoad - 50.0) / (knownLoad + 50.0));
            if (const auto sweep = calibration->correct(rawSweepOf(m_instrument, frequencies, known, m_random)))
                loaded = sweep->points[sweep->points.size() / 2].swr;
        }
    const double openAtTop = measuredSwrOf(kindOf(m_coax).at(m_coax, mark).efficiency(50.0));
    note(YardAct::Load, {coreText("core", "a resistor on the plug that is %1:1 reads %2; the coax alone, open at its top, reads %3"),
                         plain(rounded(knownLoad / 50.0, 0.01)), plain(rounded(loaded, 0.01)), plain(rounded(openAtTop, meterStep))});
    return {};
}

Faults Yard::change(std::size_t task, double amount, bool fold)
{
    if (Faults faults = mayAct(task); !faults.empty())
        return faults;
    if (!(std::abs(amount) >= 1e-3 && std::abs(amount) < 100.0))
        return {{"", coreText("core", "say by how much, such as 5 cm")}};
    if (fold && m_folded[task] + amount < -1e-9)
        return {{"", coreText("core", "there is no more folded back there")}};
    Handling then = m_handling;
    const std::string& key = m_tasks[task].lever.parameter;
    then.changes[key] -= amount;
    const study::Subject subject = subjectOf(m_built, then);
    if (const auto built = shapes::buildOver(subject.shape, believed); !built)
        return {{"", coreText("core", "what is left would not hang as it does: take less")}};
    if (amount < 0.0 && !fold) // what had been cut before is lost
        m_joined += std::min(-amount, std::max(0.0, m_cut[task])) * m_tasks[task].lever.pieces;
    m_handling = then;
    look();
    m_sinceMeasured[task] += amount;
    m_lowered = true;
    (fold ? m_folded : m_cut)[task] += amount;
    const Text piece = m_tasks[task].lever.name;
    note(fold ? YardAct::Fold : YardAct::Cut, amount < 0.0 ? (fold ? Text(coreText("core", "let out %1, %2"), metres(amount), piece)
                                                                   : Text(coreText("core", "joined on %1, %2"), metres(amount), piece))
                                              : fold       ? Text(coreText("core", "folded %1, %2"), metres(amount), piece)
                                                           : Text(coreText("core", "cut %1, %2"), metres(amount), piece));
    return {};
}

Faults Yard::hoistTo(double higher)
{
    if (Faults faults = mayAct(0); !faults.empty())
        return faults;
    if (!(std::abs(higher) <= 6.0))
        return {{"", coreText("core", "the masts here allow 6 m up or down")}};
    Handling then = m_handling;
    then.higher = higher;
    if (const auto built = shapes::buildOver(subjectOf(m_built, then).shape, believed); !built)
        return {{"", coreText("core", "it cannot hang there")}};
    m_handling = then;
    look();
    m_lowered = true;
    note(YardAct::Height, std::abs(higher) < 1e-6 ? Text(coreText("core", "hung where the plan has it"))
                          : higher > 0.0 ? Text(coreText("core", "hung %1 higher than before"), Measure{higher, units::Quantity::Length})
                                         : Text(coreText("core", "hung %1 lower than before"), Measure{-higher, units::Quantity::Length}));
    return {};
}

Faults Yard::hint(study::Library& library, const Watch& watch)
{
    if (Faults faults = mayAct(0); !faults.empty())
        return faults;
    const auto say = [&] {
        switch (m_fault) {
        case YardFault::LossyCoax:
            return Text(coreText("core", "the old hand: far off the dip nearly all should come back. Does it? Look at the coax alone."));
        case YardFault::BadCalibration:
            return Text(coreText("core", "the old hand: put something you know on the plug before you believe anything."));
        case YardFault::BadCrimp: return Text(coreText("core", "the old hand: sweep twice without touching anything. Twice the same?"));
        case YardFault::HungLow:
        case YardFault::WetSoil:
            return Text(coreText("core", "the old hand: the width and the least SWR are the ground's. Hoist it and see how they change."));
        case YardFault::WrongTurns:
            return Text(
                coreText("core", "the old hand: how much of the tips would that take? More than a tape forgets? Then it is the coil."));
        case YardFault::TooLong: break;
        }
        TrimQuestion asked;
        asked.subject = m_built.plan;
        asked.antenna = m_plan;
        const auto next = trimNext(library, asked, watch);
        return next ? next->next.words : Text(coreText("core", "the old hand: measure it first"));
    };
    const Text words = say();
    if (watch.stopped())
        return {stoppedFault()};
    ++m_hoists;
    note(YardAct::Hint, words);
    return {};
}

/// @param mended a joint that was found is crimped anew
Result<double> Yard::swrOn(study::Library& library, std::size_t task, double mark, bool mended, const Watch& watch) const
{
    AsBuilt built = builtFor(task);
    if (mended)
        built.faults.joint = 0.0;
    const auto z = impedancesOf(library, built, m_handling, {mark, 1.001 * mark}, watch);
    return z ? Result<double>(measuredSwr(z->front(), 50.0)) : z.faults();
}

/// m of wire, all pieces, that were cut beyond where the dip was near enough to its mark.
Result<double> Yard::cutTooFar(study::Library& library, std::size_t place, const Watch& watch) const
{
    const TrimTask& task = m_tasks[place];
    const auto cut = m_cut.find(place);
    if (cut == m_cut.end() || !(cut->second > 0.0))
        return 0.0;
    const study::Subject now = subjectOf(builtFor(place), m_handling);
    study::Subject shorter = now;
    constexpr double step = 0.01;
    const shapes::Family& family = shapes::familyOf(now.shape);
    shorter.shape = family.levered(now.shape, task.lever.parameter, family.value(now.shape, task.lever.parameter) - step);
    const auto dip = dipNear(library, now, task.target, watch), then = dipNear(library, shorter, task.target, watch);
    if (!dip || !then)
        return dip ? then.faults() : dip.faults();
    const double beyond = dip->dip - task.target - toleranceAt(task.target, dip->width);
    if (!(beyond > 0.0) || !(then->dip > dip->dip))
        return 0.0;
    return std::min(cut->second, beyond * step / (then->dip - dip->dip)) * task.lever.pieces;
}

YardDone Yard::done() const
{
    YardDone out;
    bool swept = false;
    for (const YardNote& n : m_notes) {
        out.cut |= n.act == YardAct::Cut;
        out.folded |= n.act == YardAct::Fold;
        out.hoisted |= n.act == YardAct::Height;
        out.loaded |= n.act == YardAct::Load;
        out.sweptTwice |= swept && n.act == YardAct::Sweep;
        swept = n.act == YardAct::Sweep || (swept && n.act != YardAct::Cut && n.act != YardAct::Fold && n.act != YardAct::Height);
    }
    return out;
}

Faults Yard::finish(study::Library& library, YardFault guess, const Watch& watch)
{
    if (Faults faults = mayAct(0); !faults.empty())
        return faults;
    YardVerdict v;
    v.right = guess == m_fault;
    v.hoists = m_hoists;
    v.wasted = m_joined;
    std::vector<std::pair<std::size_t, double>> marks;
    for (std::size_t i = 0; i < m_tasks.size(); ++i) {
        marks.emplace_back(i, m_tasks[i].target);
        const auto wasted = cutTooFar(library, i, watch);
        if (!wasted)
            return wasted.faults();
        v.wasted += *wasted;
    }
    for (double mark : m_level.also)
        marks.emplace_back(0, mark);
    for (const auto& [task, mark] : marks) {
        const auto swr = swrOn(library, task, mark, v.right, watch);
        if (!swr)
            return swr.faults();
        ++v.bands;
        v.bandsUnder += *swr < goodSwr;
        if (*swr >= goodSwr)
            v.missing.push_back({coreText("core", "At %1 the SWR is %2."), frequency(mark), plain(rounded(*swr, 0.01))});
    }
    if (v.hoists > m_level.hoists)
        v.missing.push_back({coreText("core", "%1 hoists, and %2 were allowed."), plain(v.hoists), plain(m_level.hoists)});
    if (v.wasted > m_level.spare)
        v.missing.push_back({coreText("core", "%1 of wire wasted, and %2 were to spare."), metres(v.wasted), metres(m_level.spare)});
    v.passed = v.right && v.missing.empty();
    if (watch.stopped())
        return {stoppedFault()};
    v.explained = yardExplanation(m_fault, done());
    m_verdict = v;
    note(YardAct::Verdict,
         {v.right ? coreText("core", "it was %1: found") : coreText("core", "it was %1: not found"), yardFaultName(m_fault)});
    return {};
}

} // namespace vetchling
