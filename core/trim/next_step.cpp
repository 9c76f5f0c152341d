#include "core/trim/next_step.h"

#include "core/design/unread.h"
#include "core/root.h"
#include "core/study/answers.h"
#include "core/trim/fold.h"

#include <algorithm>
#include <cmath>

namespace vetchling {
namespace {

using shapes::LeverKind;

constexpr double readingNoise = 6e-4; // of the frequency: how well a dip is read
constexpr double mostOff = 5e-3;      // of the target, that a finished dip may be off
constexpr double strange = 0.12;      // of the frequency, between a dip and its model
constexpr double overshoot = 2.1;     // standard deviations kept between a cut's prediction and the mark
constexpr double margin = 0.9;        // of the tolerance, that a cut may come to
constexpr double sameHeight = 0.05;   // m
constexpr double mostTurned = 25.0;   // degrees, that the last bit may ask of an angle
constexpr double mostSloped = 0.35;   // of an angle that is told as a distance
constexpr double mostPart = 0.15;     // and of any other lever

const char* const ownBand = "own";

/// The match over a range, judged by 2:1.
study::Question questionOver(const study::Subject& subject, double from, double to)
{
    study::Question q;
    q.subject = subject;
    q.limit = 2.0;
    WantedBand own;
    own.band = {ownBand, from, to};
    own.wish = Wish::Must;
    own.id = ownBand;
    q.bands = {own};
    return q;
}

class Trimmer {
public:
    Trimmer(study::Library& library, const TrimQuestion& asked, const Watch& watch)
        : m_library(library), m_asked(asked), m_watch(watch), m_quiet(watch.with({})), m_log(asReadByOne(asked.antenna.trim.measurements))
    {
    }

    Result<TrimOutcome> run()
    {
        m_out.tasks = trimTasks(m_asked.antenna);
        if (m_out.tasks.empty() || (m_asked.task && *m_asked.task >= m_out.tasks.size()))
            return Fault{"", coreText("core", "this antenna has no length that is trimmed")};
        const std::size_t count = m_out.tasks.size();
        std::optional<TrimNext> told;
        for (m_out.working = 0; m_out.working < count; ++m_out.working) {
            Result<TrimNext> next = nextOf(m_out.working);
            if (!next)
                return next.faults();
            m_out.states.push_back(next->step);
            const bool done = next->step == TrimStep::Done;
            if (m_asked.task ? m_out.working == *m_asked.task : !told || !done)
                told = std::move(*next);
            if (!done)
                break;
        }
        m_out.states.resize(count, TrimStep::Measure); // the others wait
        if (!told) {
            Result<TrimNext> next = nextOf(*m_asked.task);
            if (!next)
                return next.faults();
            told = afterInner(std::move(*next));
        }
        m_out.next = std::move(*told);
        return m_out;
    }

private:
    Result<DipFacts> dipOf(const shapes::AntennaShape& shape, const TrimTask& task) const
    {
        study::Subject subject = m_asked.subject;
        subject.shape = shape;
        subject.configuration = task.configuration;
        return dipNear(m_library, subject, task.target, m_quiet);
    }

    [[nodiscard]] double parameter(const shapes::AntennaShape& shape, const TrimTask& task) const
    {
        return shapes::familyOf(shape).value(shape, task.lever.parameter);
    }

    Result<DipFacts> dipWith(const shapes::AntennaShape& shape, const TrimTask& task, double value) const
    {
        return dipOf(shapes::familyOf(shape).levered(shape, task.lever.parameter, value), task);
    }

    /// Metres that a measurement was taken higher than the antenna is to hang.
    [[nodiscard]] double higher(const Measurement& m) const { return m.height && m_height > 0.0 ? *m.height - m_height : 0.0; }

    Result<std::vector<DipReading>> readingsOf(std::size_t task)
    {
        std::vector<DipReading> readings;
        m_last = m_log.size();
        for (std::size_t i = 0; i < m_log.size(); ++i) {
            m_watch.report(0.6 * double(i + 1) / double(m_log.size() + 1));
            if (taskOf(m_out.tasks, m_log[i]) != task || !(m_log[i].dip > 0.0))
                continue;
            const auto model = dipOf(raised(asLogged(m_asked.antenna, i + 1), higher(m_log[i])), m_out.tasks[task]);
            if (!model)
                return model.faults();
            readings.push_back({m_log[i].dip, model->dip, readingNoise * m_log[i].dip});
            m_last = i;
        }
        forgetBeforeJumps(readings);
        return readings;
    }

    /// A dip that went elsewhere than any change explains tells of something new, a joint, a fold let out: what was read before counts
    /// little.
    static void forgetBeforeJumps(std::vector<DipReading>& readings)
    {
        constexpr double explained = 0.25; // of what the model says a change does
        for (std::size_t i = 0; i + 1 < readings.size(); ++i) {
            const DipReading &old = readings[i], &last = readings.back();
            const double jump = std::abs(old.measured - old.modelled - last.measured + last.modelled);
            if (jump > explained * std::abs(old.modelled - last.modelled) + 6.0 * last.noise)
                readings[i].noise = 2.0 * jump;
        }
    }

    Result<TrimNext> nextOf(std::size_t place)
    {
        const TrimTask& task = m_out.tasks[place];
        TrimNext next;
        next.task = place;
        next.target = next.aim = task.target;
        study::Subject drawn = m_asked.subject;
        drawn.configuration = task.configuration;
        if (const auto built = m_library.study(drawn))
            m_height = heightOf(*built->built);
        const shapes::AntennaShape now = asLogged(m_asked.antenna);
        const auto facts = dipOf(now, task);
        if (!facts)
            return facts.faults();
        next.modelDip = facts->dip;
        next.width = facts->width;
        next.tolerance = toleranceAt(task.target, facts->width);
        if (const auto slope = slopeAt(now, task, facts->dip))
            next.modelSlope = *slope;
        const auto readings = readingsOf(place);
        if (!readings)
            return readings.faults();
        next.learned.reference = facts->dip;
        next.slope = next.modelSlope;
        if (!m_asked.unread.empty())
            return notAllRead(next);
        if (readings->empty())
            return measure(next, task);
        if (Faults faults = lookAtLast(next, place); !faults.empty())
            return faults;
        next.learned = estimateDip(*readings);
        next.slope = next.learned.factor * next.modelSlope;
        next.predicted = next.learned.at(facts->dip);
        next.sure = next.learned.sure(facts->dip);
        if (std::abs(readings->back().measured / readings->back().modelled - 1.0) > strange || next.modelSlope == 0.0)
            return check(next, task);
        const Measurement& last = m_log[m_last];
        if (std::abs(higher(last)) > sameHeight)
            next.aim = task.target + readings->back().modelled - facts->dip;
        if (changedSince(place))
            return measure(next, task);
        Result<TrimNext> decided = decide(next, task, now);
        return decided ? unlessDoubted(std::move(*decided)) : decided;
    }

    /// Signs of the last measurement, against the model as drawn over the range that was swept.
    Faults lookAtLast(TrimNext& next, std::size_t place) const
    {
        const std::vector<Measurement>& log = m_asked.antenna.trim.measurements;
        const std::vector<std::size_t> entries = entriesOf(m_asked.antenna, place);
        if (entries.empty())
            return {};
        const auto& sweep = log[entries.back()].sweep;
        study::CurvePointer curve;
        if (sweep.size() > 1 && sweep.back().first > sweep.front().first) {
            constexpr double aside = 0.08; // of the frequency, for a curve that is moved onto the measured dip
            study::Subject drawn = m_asked.subject;
            drawn.configuration = m_out.tasks[place].configuration;
            const study::Question q = questionOver(drawn, (1.0 - aside) * sweep.front().first, (1.0 + aside) * sweep.back().first);
            const auto known = study::curveOf(m_library, q, m_quiet);
            if (!known)
                return known.faults();
            curve = *known;
        }
        next.sense = senseOfLast(log, entries, [&](double f) { return curve ? swr(curve->atLine(f), m_asked.reference) : NAN; });
        return {};
    }

    /// By a measurement that cannot be what it is taken for nothing is cut.
    static TrimNext unlessDoubted(TrimNext next)
    {
        const auto doubt = std::find_if(next.sense.begin(), next.sense.end(), [](const SenseRow& row) { return row.stops(); });
        if (doubt == next.sense.end())
            return next;
        TrimNext first = next;
        first.step = TrimStep::Check;
        first.change = first.fold = 0.0;
        first.other.reset();
        first.predicted = next.learned.at(next.modelDip);
        first.sure = next.learned.sure(next.modelDip);
        first.words = checkFirst(doubt->sign);
        first.behind = std::make_shared<const TrimNext>(std::move(next));
        return first;
    }

    /// Something was taken off after the last measurement of this task that moves its dip.
    [[nodiscard]] bool changedSince(std::size_t task) const
    {
        for (std::size_t i = m_last + 1; i < m_log.size(); ++i)
            if (m_log[i].cutSinceLast != 0.0 && m_out.tasks[taskOf(m_out.tasks, m_log[i])].configuration <= m_out.tasks[task].configuration)
                return true;
        return false;
    }

    [[nodiscard]] std::optional<double> slopeAt(const shapes::AntennaShape& now, const TrimTask& task, double dip) const
    {
        const double value = parameter(now, task), step = value != 0.0 ? 0.01 * std::abs(value) : 1e-4;
        const auto other = dipWith(now, task, value - step);
        return other ? std::optional((dip - other->dip) / step) : std::nullopt;
    }

    /// Links: what is cut inside moves what lies outside, and never the other way.
    [[nodiscard]] TrimNext afterInner(TrimNext next) const
    {
        const TrimTask &inner = m_out.tasks[m_out.working], &own = m_out.tasks[next.task];
        if (inner.configuration == own.configuration)
            return next;
        next.waitsFor = m_out.working;
        next.behind.reset(); // no length of an outer one before the inner one is finished, believed or not
        if (next.step == TrimStep::Measure || next.step == TrimStep::Check)
            return next;
        next.step = TrimStep::Check;
        next.change = next.fold = 0.0;
        next.other.reset();
        next.predicted = next.learned.at(next.modelDip);
        next.sure = next.learned.sure(next.modelDip);
        next.words = {coreText("core", "First finish %1, %2: what is cut there moves this one."), inner.configurationName,
                      inner.lever.name};
        return next;
    }

    TrimNext measure(TrimNext next, const TrimTask& task) const
    {
        next.step = TrimStep::Measure;
        const Measure aim{next.aim, units::Quantity::Frequency};
        next.words = task.configurationName.empty() ? Text(coreText("core", "Hoist it and measure the dip near %1."), aim)
                                                    : Text(coreText("core", "With the links for %2, hoist it and measure the dip near %1."),
                                                           aim, task.configurationName);
        return next;
    }

    /// Nobody knows what was cut.
    [[nodiscard]] TrimNext notAllRead(TrimNext next) const
    {
        next.step = TrimStep::Check;
        next.words = coreText("core", "Do not cut yet: not all of this antenna could be read.");
        return next;
    }

    static TrimNext check(TrimNext next, const TrimTask&)
    {
        next.step = TrimStep::Check;
        next.words = {
            coreText("core", "The dip is %1 kHz away from the model's %2: before anything is cut, check links, joints, the length on the "
                             "tape, and that the sweep was of this antenna."),
            Measure{std::round(std::abs(next.predicted - next.modelDip) / 1e3)}, Measure{next.modelDip, units::Quantity::Frequency}};
        return next;
    }

    Result<TrimNext> decide(TrimNext next, const TrimTask& task, const shapes::AntennaShape& now) const
    {
        const double off = task.target - next.predicted;
        if (std::abs(off) <= next.tolerance) {
            next.step = TrimStep::Done;
            next.words = {coreText("core", "Done: the dip lies at %1, near enough to %2. Leave it alone."),
                          Measure{next.predicted, units::Quantity::Frequency}, Measure{task.target, units::Quantity::Frequency}};
            return next;
        }
        const bool reversible = task.lever.kind != LeverKind::Cut;
        const bool shorten = off > 0.0; // a cut raises the dip
        double wanted = task.target;
        if (!reversible && shorten)
            wanted = std::min(task.target, furthest(next));
        const auto value = valueFor(next, task, now, next.learned.modelled(wanted));
        if (!value)
            return value.faults();
        const double here = parameter(now, task);
        next.change = rounded(*value - here, task, next, reversible);
        const auto then = dipWith(now, task, here + next.change);
        if (!then)
            return then.faults();
        next.predicted = next.learned.at(then->dip);
        next.sure = next.learned.sure(then->dip);
        next.step = reversible ? TrimStep::Slide : next.change < 0.0 ? TrimStep::Cut : TrimStep::Lengthen;
        next.words = words(next, task);
        next.other = otherLever(next, task, now);
        if (next.step == TrimStep::Cut && task.lever.side == shapes::LeverSide::OpenEnd)
            next.fold = foldFor(next, task, now, then->dip);
        return next;
    }

    /// How much to fold for what the cut does: a little more, since a fold is thicker.
    [[nodiscard]] double foldFor(const TrimNext& next, const TrimTask& task, const shapes::AntennaShape& now, double dip) const
    {
        const auto subjectWith = [&](double change) {
            study::Subject subject = m_asked.subject;
            subject.shape = shapes::familyOf(now).levered(now, task.lever.parameter, parameter(now, task) + change);
            subject.configuration = task.configuration;
            return subject;
        };
        const auto ratio =
            foldOverCut(m_library, subjectWith(0.0), subjectWith(next.change), -next.change, dip, dip - next.modelDip, m_quiet);
        return ratio && *ratio ? -next.change / **ratio : 0.0;
    }

    /// A second lever that brings the dip to its goal by a small change and can be set back.
    [[nodiscard]] std::optional<OtherLever> otherLever(const TrimNext& next, const TrimTask& task, const shapes::AntennaShape& now) const
    {
        const shapes::Family& family = shapes::familyOf(now);
        for (const shapes::Lever& lever : family.levers(now)) {
            const shapes::ParameterSpec* spec = family.spec(now, lever.parameter);
            if (lever.parameter == task.lever.parameter || lever.kind == LeverKind::Cut || !spec)
                continue;
            TrimTask fine = task;
            fine.lever = lever;
            const double here = parameter(now, fine);
            const double most = spec->quantity == units::Quantity::Angle
                                    ? mostTurned
                                    : (lever.kind == LeverKind::Angle ? mostSloped : mostPart) * std::abs(here);
            const auto slope = slopeAt(now, fine, next.modelDip);
            if (!slope || *slope == 0.0)
                continue;
            const auto value = valueFor(slopedBy(next, *slope), fine, now, next.learned.modelled(task.target));
            if (!value || std::abs(*value - here) > most || *value < spec->lowest || *value > spec->highest)
                continue;
            const double change = lever.kind == LeverKind::Tap ? *value - here : rounded(*value - here, fine, slopedBy(next, *slope), true);
            if (const auto then = dipWith(now, fine, here + change);
                then && std::abs(next.learned.at(then->dip) - task.target) <= next.tolerance)
                return OtherLever{lever, change, next.learned.at(then->dip)};
        }
        return std::nullopt;
    }

    static TrimNext slopedBy(TrimNext next, double slope)
    {
        next.modelSlope = slope;
        next.slope = next.learned.factor * slope;
        return next;
    }

    /// The highest dip that a cut may be predicted to reach, so that hardly one in fifty passes the mark by more than it may be off.
    [[nodiscard]] double furthest(const TrimNext& next) const
    {
        const auto dares = [&](double dip) {
            return dip + overshoot * next.learned.sure(next.learned.modelled(dip)) <= next.target + margin * next.tolerance;
        };
        return lastWhere(dares, next.predicted, next.target, 40);
    }

    /// The parameter for a dip of the model, by secants.
    Result<double> valueFor(const TrimNext& next, const TrimTask& task, const shapes::AntennaShape& now, double dip) const
    {
        double x0 = parameter(now, task), y0 = next.modelDip, slope = next.modelSlope;
        for (int i = 0; i < 3; ++i) {
            const double x1 = x0 + (dip - y0) / slope;
            const auto there = dipWith(now, task, x1);
            if (!there)
                return i == 0 ? Result<double>(there.faults()) : Result<double>(x0);
            if (std::abs(there->dip - dip) < 1e-4 * dip || x1 == x0)
                return x1;
            if (const double secant = (there->dip - y0) / (x1 - x0); secant * slope > 0.0)
                slope = secant;
            x0 = x1;
            y0 = there->dip;
        }
        return x0;
    }

    /// To what a tape shows: 1 cm at short wave, a five-hundredth above; finer where the goal asks for it. Cuts down, the rest to the
    /// nearest.
    [[nodiscard]] double rounded(double change, const TrimTask& task, const TrimNext& next, bool reversible) const
    {
        const bool metric = m_asked.system == units::System::Metric;
        double step = task.target < 60e6 ? (metric ? 0.01 : 0.0254 / 4.0) : 0.002 * std::abs(parameter(m_asked.antenna.shape, task));
        if (task.lever.kind == LeverKind::Tap)
            return change;
        const shapes::ParameterSpec* spec = shapes::familyOf(m_asked.antenna.shape).spec(m_asked.antenna.shape, task.lever.parameter);
        if (spec && spec->quantity == units::Quantity::Angle)
            step = 1.0;
        while (step * std::abs(next.slope) > 0.6 * next.tolerance)
            step *= 0.5;
        if (!reversible && change < 0.0)
            return -std::max(step, std::floor(-change / step + 0.4) * step);
        return std::copysign(std::max(step, std::round(std::abs(change) / step) * step), change);
    }

    static Text words(const TrimNext& next, const TrimTask& task)
    {
        const Measure amount{std::abs(next.change),
                             task.lever.kind == LeverKind::Tap ? units::Quantity::Inductance : units::Quantity::SmallLength};
        switch (next.step) {
        case TrimStep::Cut: return {coreText("core", "Cut %1 from %2, hoist and measure again."), amount, task.lever.name};
        case TrimStep::Lengthen:
            return {coreText("core", "Too short: lengthen %2 by %1, or let out a fold, and measure again."), amount, task.lever.name};
        default:
            return next.change < 0.0
                       ? Text(coreText("core", "Set %2 %1 shorter or lower and measure again; it can go back."), amount, task.lever.name)
                       : Text(coreText("core", "Set %2 %1 longer or higher and measure again; it can go back."), amount, task.lever.name);
        }
    }

    study::Library& m_library;
    const TrimQuestion& m_asked;
    const Watch& m_watch;
    const Watch m_quiet;                  ///< for what is only a part of the whole
    const std::vector<Measurement> m_log; ///< as the instrument of its last entry reads
    TrimOutcome m_out;
    double m_height = 0.0;  ///< m, that the antenna is to hang at
    std::size_t m_last = 0; ///< entry of the log: the last measurement of the task
};

} // namespace

Result<DipFacts> dipNear(study::Library& library, const study::Subject& subject, double frequency, const Watch& watch)
{
    study::Subject there = subject;
    there.shape.designFrequency = frequency;
    const study::Question q = questionOver(there, (1.0 - strange) * frequency, (1.0 + strange) * frequency);
    const auto curve = study::curveOf(library, q, watch);
    if (!curve)
        return curve.faults();
    const Coverage* band = (*curve)->band(ownBand);
    const double width = band && band->wholeTo > 0.0 ? band->wholeTo - band->wholeFrom : 0.0;
    return unlessStopped(watch, DipFacts{(*curve)->fundamental, width});
}

double toleranceAt(double target, double width) { return std::min(mostOff * target, width > 0.0 ? 0.25 * width : mostOff * target); }

TrimQuestion trimQuestionOf(const Design& design, const Antenna& antenna)
{
    return {study::questionOf(design, antenna).subject,
            withLogBegun(antenna),
            {},
            design.operation.system,
            design.operation.reference,
            unreadOf(design, antenna.id)};
}

Result<TrimOutcome> trimNext(study::Library& library, const TrimQuestion& asked, const Watch& watch)
{
    return unlessStopped(watch, Trimmer(library, asked, watch).run());
}

const char* stepName(TrimStep step)
{
    constexpr const char* names[] = {"measure", "cut", "fold", "slide", "lengthen", "done", "check"};
    return names[std::size_t(step)];
}

} // namespace vetchling
