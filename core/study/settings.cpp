#include "core/study/settings.h"

#include "core/tune/joint.h"

#include <algorithm>
#include <cmath>

namespace vetchling::study {
namespace {

constexpr double farOutOfReach = 1.6; // times the reach, by rule: nobody would solve that

/// Without the stops of a telescope, to learn what a band would ask for.
shapes::AntennaShape unlimited(const shapes::AntennaShape& shape)
{
    const shapes::Family& family = shapes::familyOf(shape);
    shapes::AntennaShape next = shape;
    if (const shapes::ParameterSpec* s = family.spec(shape, "shortest_m"))
        next.parameters["shortest_m"] = s->lowest;
    if (const shapes::ParameterSpec* s = family.spec(shape, "longest_m"))
        next.parameters["longest_m"] = s->highest;
    return next;
}

bool canBe(const Subject& subject, const std::string& key, double value)
{
    return shapes::buildOver(shapes::familyOf(subject.shape).levered(subject.shape, key, value), subject.ground, subject.configuration).ok();
}

/// The end of the reach between a value that can be set and one that cannot.
double reachBetween(const Subject& subject, const std::string& key, double can, double cannot)
{
    for (int i = 0; i < 40; ++i) {
        const double middle = 0.5 * (can + cannot);
        (canBe(subject, key, middle) ? can : cannot) = middle;
    }
    return can;
}

double middleOf(const WantedBand& wanted)
{
    double from = 0.0, to = 0.0;
    for (const Segment& s : wanted.segments)
        if (s.wish != Wish::No) {
            from = from > 0.0 ? std::min(from, s.from) : s.from;
            to = std::max(to, s.to);
        }
    return to > from ? 0.5 * (from + to) : wanted.band.centre();
}

class Setter {
public:
    Setter(Library& library, const Question& question, const SettingLevers& levers, const Watch& watch)
        : m_library(library), m_question(question), m_levers(levers), m_watch(watch), m_quiet(watch.with({})),
          m_family(shapes::familyOf(question.subject.shape))
    {
    }

    SettingChart chart()
    {
        SettingChart out;
        out.levers = m_levers;
        findReach(out);
        for (std::size_t i = 0; i < m_question.bands.size() && !m_watch.stopped(); ++i) {
            out.rows.push_back(row(m_question.bands[i], out));
            m_watch.report(double(i + 1) / double(m_question.bands.size()));
        }
        return out;
    }

private:
    void findReach(SettingChart& out) const
    {
        const shapes::ParameterSpec* spec = m_family.spec(m_question.subject.shape, m_levers.coarse);
        const double present = m_family.value(m_question.subject.shape, m_levers.coarse);
        if (!m_family.spec(m_question.subject.shape, "longest_m") || !canBe(m_question.subject, m_levers.coarse, present))
            return;
        out.shortest = reachBetween(m_question.subject, m_levers.coarse, present, spec->lowest);
        out.longest = reachBetween(m_question.subject, m_levers.coarse, present, spec->highest);
    }

    SettingRow row(const WantedBand& wanted, const SettingChart& chart)
    {
        SettingRow out;
        out.band = wanted.id;
        out.frequency = middleOf(wanted);
        Subject subject = m_question.subject;
        subject.shape = unlimited(subject.shape);
        const double rule = ruleFor(subject.shape, out.frequency);
        out.values[m_levers.coarse] = rule;
        for (const std::string& key : m_levers.fine)
            out.values[key] = m_family.value(subject.shape, key);
        const bool far = chart.longest > 0.0 && (rule > farOutOfReach * chart.longest || rule < chart.shortest / farOutOfReach);
        if (!far)
            solve(subject, wanted, out);
        const double value = out.values[m_levers.coarse];
        if (chart.longest > 0.0)
            out.beyond = value > chart.longest ? value - chart.longest : value < chart.shortest ? value - chart.shortest : 0.0;
        out.reached = out.solved && isReached(out);
        return out;
    }

    bool isReached(const SettingRow& row) const
    {
        Subject set = m_question.subject;
        for (const auto& [key, value] : row.values)
            set.shape = m_family.levered(set.shape, key, value);
        return shapes::buildOver(set.shape, set.ground, set.configuration).ok();
    }

    double ruleFor(const shapes::AntennaShape& shape, double frequency) const
    {
        for (shapes::TunedLength t : m_family.tuned(shape))
            if (t.parameter == m_levers.coarse) {
                t.frequency = frequency;
                return m_family.rules(shape, t).front().value;
            }
        return m_family.value(shape, m_levers.coarse);
    }

    /// The coarse lever first; where the match is not good enough then, the fine ones together with it.
    void solve(Subject& subject, const WantedBand& wanted, SettingRow& out)
    {
        constexpr double goodEnough = 1.5; // SWR
        TuneOptions options;
        options.goal = m_question.goal;
        options.reference = m_question.reference;
        options.configuration = subject.configuration;
        const auto tuned = tune(subject.shape, subject.ground, m_levers.coarse, out.frequency, m_library.tables(), options, m_quiet);
        if (!tuned) {
            constexpr double ofUse = 3.0; // SWR
            subject.shape = m_family.levered(subject.shape, m_levers.coarse, out.values[m_levers.coarse]);
            out.impedance = HUGE_VAL;
            if (canBe(m_question.subject, m_levers.coarse, out.values[m_levers.coarse]))
                refine(subject, out);
            out.solved = swr(out.impedance, m_question.reference) <= ofUse;
            if (!out.solved)
                return;
        } else {
            out.solved = true;
            out.values[m_levers.coarse] = subject.shape.parameters[m_levers.coarse] = tuned->value;
            out.impedance = tuned->impedance;
        }
        const bool inReach = canBe(m_question.subject, m_levers.coarse, out.values[m_levers.coarse]);
        if (tuned && inReach && swr(out.impedance, m_question.reference) > goodEnough && !m_levers.fine.empty())
            refine(subject, out);
        out.slope = slopeOf(subject, out, options);
        Question asked = m_question;
        asked.subject = subject;
        asked.bands = {wanted};
        asked.requested = wanted.id;
        asked.subject.shape.designFrequency = out.frequency;
        if (const auto curve = curveOf(m_library, asked, m_quiet))
            out.coverage = (*curve)->bands.front();
    }

    void refine(Subject& subject, SettingRow& out)
    {
        JointAim aim;
        aim.kind = JointAim::Kind::LowestSwr;
        aim.reference = m_question.reference;
        aim.at = {{out.frequency, 1.0, subject.configuration}};
        std::vector<JointLever> levers{{m_levers.coarse}};
        for (const std::string& key : m_levers.fine)
            levers.push_back({key});
        JointOptions options;
        options.mostTries = 36;
        const auto joint = tuneJointly(subject.shape, subject.ground, levers, aim, m_library.tables(), options, m_quiet);
        if (!joint || swr(joint->impedance.front(), m_question.reference) >= swr(out.impedance, m_question.reference))
            return;
        for (std::size_t i = 0; i < levers.size(); ++i)
            out.values[levers[i].parameter] = subject.shape.parameters[levers[i].parameter] = joint->values[i];
        out.impedance = joint->impedance.front();
    }

    double slopeOf(const Subject& subject, const SettingRow& row, TuneOptions options) const
    {
        constexpr double aside = 0.004, resonant = 0.005; // of the frequency; of the impedance
        options.startFromPresent = true;
        options.goal = shapes::TuneGoal::Resonance;
        const double higher = row.frequency * (1.0 + aside);
        double value = row.values.at(m_levers.coarse);
        if (m_question.goal != shapes::TuneGoal::Resonance || std::abs(row.impedance.imag()) > resonant * std::abs(row.impedance)) {
            const auto here = tune(subject.shape, subject.ground, m_levers.coarse, row.frequency, m_library.tables(), options, m_quiet);
            if (!here)
                return 0.0;
            value = here->value;
        }
        const auto there = tune(subject.shape, subject.ground, m_levers.coarse, higher, m_library.tables(), options, m_quiet);
        return there && there->value != value ? (higher - row.frequency) / (there->value - value) : 0.0;
    }

    Library& m_library;
    const Question& m_question;
    const SettingLevers& m_levers;
    const Watch& m_watch;
    const Watch m_quiet; ///< for what is only a part of the whole
    const shapes::Family& m_family;
};

/// Which links are closed for which band.
Result<SettingChart> linkChart(Library& library, const Question& question, const Watch& watch)
{
    const auto curves = curvesOf(library, question, watch);
    if (!curves)
        return curves.faults();
    SettingChart out;
    const std::vector<BandChoice> best = bestByBand(*curves);
    for (std::size_t i = 0; i < best.size(); ++i) {
        SettingRow row;
        row.band = question.bands[i].id;
        row.coverage = best[i].coverage;
        row.configuration = best[i].configuration;
        row.solved = row.coverage.solved();
        row.reached = row.solved && row.coverage.lowestSwr <= question.limit;
        row.frequency = row.reached ? row.coverage.at : question.bands[i].band.centre();
        row.impedance = row.coverage.impedance;
        out.rows.push_back(std::move(row));
    }
    return out;
}

} // namespace

std::optional<SettingLevers> settingLevers(const shapes::AntennaShape& shape)
{
    const shapes::Family& family = shapes::familyOf(shape);
    const auto tuned = family.tuned(shape);
    SettingLevers out;
    for (const shapes::Lever& lever : family.levers(shape)) {
        const bool isTuned =
            std::any_of(tuned.begin(), tuned.end(), [&](const shapes::TunedLength& t) { return t.parameter == lever.parameter; });
        if (out.coarse.empty() && lever.kind != shapes::LeverKind::Cut && isTuned)
            out.coarse = lever.parameter;
        else if (lever.kind == shapes::LeverKind::Angle && family.value(shape, lever.parameter) != 0.0)
            out.fine.push_back(lever.parameter);
    }
    if (!out.coarse.empty())
        return out;
    if (family.configurations(shape).size() > 1)
        return SettingLevers{};
    return std::nullopt;
}

std::optional<SectionsOut> sectionsOut(const shapes::AntennaShape& shape, const std::string& parameter, double value)
{
    const shapes::Family& family = shapes::familyOf(shape);
    const auto levers = settingLevers(shape);
    if (!levers || levers->coarse != parameter || !family.spec(shape, "section_count"))
        return std::nullopt;
    const double section = family.value(shape, "longest_m") / family.value(shape, "section_count");
    const double whip = value - (family.spec(shape, "mount_m") ? family.value(shape, "mount_m") : 0.0);
    const int whole = std::max(0, int(std::floor(whip / section + 1e-9)));
    return SectionsOut{whole, whip - whole * section};
}

Result<SettingChart> settingsOf(Library& library, const Question& question, const Watch& watch)
{
    const std::optional<SettingLevers> levers = settingLevers(question.subject.shape);
    if (!levers)
        return Fault{"",
                     {coreText("core", "nothing on %1 can be set from band to band: its lengths are cut"),
                      shapes::familyOf(question.subject.shape).title()}};
    if (levers->coarse.empty())
        return linkChart(library, question, watch);
    return unlessStopped(watch, Setter(library, question, *levers, watch).chart());
}

} // namespace vetchling::study
