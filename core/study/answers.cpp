#include "core/study/answers.h"

#include "core/em/sensitivity.h"
#include "core/study/far_ground.h"
#include "core/study/neighbours.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

namespace vetchling::study {
namespace {

constexpr double fundamentalFrom = 0.75, fundamentalTo = 1.3; // of the design frequency
constexpr double leverStep = 0.005;                           // relative change that measures a lever's slope

constexpr double usualReference = 50.0; // ohm, that judgements of bands count from

/// What the line sees, as if its reference were the usual one.
ImpedanceAt scaledToUsual(const Curve& curve)
{
    return [&curve, scale = usualReference / curve.question.reference](double f) { return scale * curve.atLine(f); };
}

/// The same where the SWR is told.
ImpedanceAt scaledSeen(const Curve& curve)
{
    return [&curve, scale = usualReference / curve.question.reference](double f) { return scale * curve.seen(f); };
}

void judge(Curve& curve)
{
    const ImpedanceAt atLine = scaledToUsual(curve);
    const double f = frequencyOf(curve.question.subject.shape, curve.question.subject.configuration);
    const double low = fundamentalFrom * f, high = fundamentalTo * f;
    curve.fundamental = nearestDip(atLine, f, low, high).value_or(f);
    for (const Resonance& r : resonances(atLine, low, high))
        if (!curve.resonance || std::abs(r.frequency - curve.fundamental) < std::abs(curve.resonance->frequency - curve.fundamental))
            curve.resonance = r;
    if (curve.resonance)
        curve.resonance->resistance *= curve.question.reference / usualReference;
}

Coverage judged(const Curve& curve, const WantedBand& wanted, BandPlace place)
{
    const Band& band = wanted.band;
    if (place == BandPlace::OnRequest)
        return notSolved(band, Verdict::OnRequest);
    if ((place == BandPlace::Far && !curve.complete) || !curve.covers(band.centre()))
        return notSolved(band, Verdict::Pending);
    const double scale = curve.question.reference / usualReference;
    Coverage out = coverage(scaledSeen(curve), wanted, curve.question.limit, curve.fundamental);
    out.impedance *= scale;
    if (out.resonance)
        out.resonance->resistance *= scale;
    return out;
}

/// The port's solution as fed through the transformer.
em::Solution fromLine(em::Solution solution, const std::optional<Transformer>& transformer)
{
    if (!transformer)
        return solution;
    const TwoPort chain = transformer->at(solution.frequency);
    const double passed = chain.efficiency(solution.impedance), atPort = solution.inputPower;
    const Complex atLine = chain.towardsRadio(solution.impedance);
    const double passedOn = std::abs(chain.slope(solution.impedance) * solution.impedance / atLine);
    solution.impedanceErrorPercent *= passedOn;
    solution.gapErrorPercent *= passedOn;
    solution.impedance = atLine;
    if (passed > 0.0)
        solution.inputPower = atPort / passed;
    solution.transformerPower = solution.inputPower - atPort;
    return solution;
}

WireExtent extentOf(const WireModel& model)
{
    WireExtent extent{model.totalLength(), 0.0};
    for (const Wire& wire : model.wires)
        extent.longest = std::max(extent.longest, wire.length());
    return extent;
}

double passedShare(const shapes::BuiltAntenna& built, const em::Solution& atPort)
{
    return built.transformer ? built.transformer->at(atPort.frequency).efficiency(atPort.impedance) : 1.0;
}

Spot spotFrom(const PortSpot& port, const shapes::BuiltAntenna& built, const Id& band)
{
    const double passed = 10.0 * std::log10(std::max(passedShare(built, port.solution), 1e-30));
    Spot out{band,
             fromLine(port.solution, built.transformer),
             nullptr,
             port.strongest + passed,
             port.strongestElevation,
             port.strongestAzimuth,
             port.straightUp + passed,
             port.lobeWidth,
             built.transformer.has_value()};
    out.field = built.transformer ? std::make_shared<const em::FarField>(port.field->fedWith(out.solution.inputPower)) : port.field;
    return out;
}

em::PowerLedger ledgerFrom(const em::PowerLedger& port, double passed)
{
    return {port.sky * passed, port.soil * passed, port.wire * passed, port.loads * passed, port.lines * passed, 1.0 - passed};
}

/// The extremes of what the ground could be (ITU-R P.368 classes).
struct NamedGround {
    const char* name;
    Ground ground;
};
const NamedGround otherGrounds[] = {{coreText("core", "sea water"), {GroundKind::Real, 70.0, 5.0}},
                                    {coreText("core", "dry ground"), {GroundKind::Real, 7.0, 0.0003}}};

class DetailMaker {
public:
    DetailMaker(Library& library, const Curve& curve, const Watch& watch)
        : m_library(library), m_curve(curve), m_watch(watch), m_quiet(watch.with({})), m_subject(curve.question.subject),
          m_family(shapes::familyOf(m_subject.shape)), m_study(library.study(curve.built->model, curve.built->portReference))
    {
    }

    Result<DetailPointer> run()
    {
        for (Faults (DetailMaker::*part)() : {&DetailMaker::spots, &DetailMaker::losses, &DetailMaker::lengths, &DetailMaker::causes,
                                              &DetailMaker::levers, &DetailMaker::moves, &DetailMaker::cures}) {
            if (Faults faults = (this->*part)(); !faults.empty())
                return faults;
            if (m_watch.stopped())
                return stoppedFault();
        }
        m_watch.report(1.0);
        return DetailPointer(m_out);
    }

private:
    Faults spots()
    {
        const auto& bands = m_curve.question.bands;
        for (std::size_t i = 0; i < bands.size(); ++i) {
            const bool requested = bands[i].id == m_curve.question.requested;
            if (!m_curve.bands[i].solved() || (bands[i].wish == Wish::No && !requested))
                continue;
            const auto port = m_study->spot(spotFrequency(m_curve.bands[i], m_curve.question.limit), m_quiet);
            if (!port)
                return port.faults();
            if (requested)
                m_out->selected = m_out->spots.size();
            m_out->spots.push_back(spotFrom(**port, *m_curve.built, bands[i].id));
            m_out->spots.back().resonanceError = resonanceError(m_out->spots.back().solution);
            m_watch.report(0.5 * double(i + 1) / double(bands.size()));
        }
        return {};
    }

    Faults losses()
    {
        if (!m_out->spot())
            return {};
        const double frequency = m_out->spot()->solution.frequency;
        const auto ledger = m_study->ledger(frequency, m_quiet);
        if (!ledger)
            return ledger.faults();
        const double passed = passedShare(*m_curve.built, (*m_study->spot(frequency, m_quiet))->solution);
        m_out->ledger = ledgerFrom(**ledger, passed);
        currents(m_out->spot()->solution);
        for (const NamedGround& other : otherGrounds) {
            WireModel model = m_curve.built->model;
            model.ground = other.ground;
            const auto there = m_library.study(model, m_curve.built->portReference)->spot(frequency, m_quiet);
            if (!there)
                return there.faults();
            m_out->otherGrounds.push_back({other.name, spotFrom(**there, *m_curve.built, {}).field});
        }
        const auto elsewhere =
            gainElsewhere(std::make_shared<const WireModel>(m_curve.built->atLine()), frequency, m_library.tables(), {}, m_quiet);
        if (elsewhere.stopped())
            return elsewhere.faults();
        if (elsewhere) // what cannot be solved over perfect ground is only not told
            m_out->elsewhere = *elsewhere;
        m_out->strongestHere = m_out->spot()->strongest;
        m_watch.report(0.7);
        return {};
    }

    void currents(const em::Solution& solution)
    {
        m_out->ribbon = em::currentRibbon(solution, ribbonPieces);
        m_out->voltage = em::voltageRibbon(solution, ribbonPieces);
        double strongest = 0.0;
        for (const auto& element : m_out->voltage)
            strongest = std::max(strongest, *std::max_element(element.begin(), element.end()));
        for (auto& element : m_out->voltage)
            for (double& volts : element)
                volts = strongest > 0.0 ? volts / strongest : 0.0;
        if (solution.inputPower > 0.0)
            m_out->strongestVoltsAtOneWatt = strongest / std::sqrt(solution.inputPower);
        const Wire& wire = solution.model->wires.front();
        if (solution.inputPower > 0.0)
            m_out->endVoltsAtOneWatt =
                em::endVoltage(em::strongestCurrent(solution, 0) / std::sqrt(solution.inputPower), wire.length(), wire.radius);
    }

    Faults lengths()
    {
        TuneOptions options;
        options.goal = m_curve.question.goal;
        options.reference = m_curve.question.reference;
        const Subject& s = m_subject;
        for (const shapes::TunedLength& t : m_family.tuned(s.shape))
            m_out->lengths.push_back({t, m_family.rules(s.shape, t).front().value, {}, {}});
        if (m_out->lengths.size() == 1) {
            Length& only = m_out->lengths.front();
            const auto tuned = tune(s.shape, s.ground, only.what.parameter, only.what.frequency, m_library.tables(), options, m_quiet);
            if (tuned)
                only.solved = tuned->value;
            else
                only.fault = tuned.faults().front().message;
            return {};
        }
        const auto tuned = tuneAll(s.shape, s.ground, m_library.tables(), options, m_quiet);
        for (std::size_t i = 0; i < m_out->lengths.size(); ++i)
            if (tuned)
                m_out->lengths[i].solved = tuned->lengths[i].value;
            else
                m_out->lengths[i].fault = tuned.faults().front().message;
        return {};
    }

    Faults causes()
    {
        m_out->explained = std::min(lengthAskedFor(m_curve.question), m_out->lengths.empty() ? 0 : m_out->lengths.size() - 1);
        if (m_out->lengths.empty() || !m_out->lengths[m_out->explained].solved)
            return {};
        Subject all = m_subject; // with every length as solved
        for (const Length& l : m_out->lengths)
            if (l.solved)
                all.shape.parameters[l.what.parameter] = *l.solved;
        const Length& asked = m_out->lengths[m_out->explained];
        const auto causes = lengthCauses(all, asked.what, *asked.solved, m_curve.question.goal, m_library.tables(), m_quiet);
        if (!causes)
            return causes.faults();
        m_out->causes = *causes;
        return {};
    }

    Faults levers()
    {
        const auto all = m_family.levers(m_subject.shape);
        if (all.empty())
            return {};
        const auto& lever = all[std::min(m_subject.configuration, all.size() - 1)]; // each configuration has its own
        m_out->levers.push_back({lever, slope(lever)});
        return {};
    }

    /// The dips of the kept state, and where they are now.
    Faults moves()
    {
        if (!m_curve.question.before)
            return {};
        Question then = m_curve.question;
        then.subject.shape = *m_curve.question.before;
        then.before.reset();
        const Result<CurvePointer> curve = curveOf(m_library, then, m_quiet, Reach::Near);
        if (!curve)
            return {};
        constexpr double aside = 0.07; // of the frequency
        for (const shapes::TunedLength& t : m_family.tuned(then.subject.shape)) {
            const auto dip = [&](const Curve& c) {
                return nearestDip([&](double f) { return c.atLine(f); }, t.frequency, (1.0 - aside) * t.frequency,
                                  (1.0 + aside) * t.frequency);
            };
            const std::optional<double> from = dip(**curve), to = dip(m_curve);
            if (from && to)
                m_out->moves.push_back({*from, *to});
        }
        return {};
    }

    Faults cures()
    {
        if (m_out->levers.empty() || !(std::abs(m_out->levers.front().perUnit) > 0.0))
            return {};
        for (std::size_t i = 0; i < m_curve.bands.size(); ++i)
            if (m_curve.question.bands[i].wish != Wish::No && m_curve.bands[i].nearbyDip)
                cure(m_curve.question.bands[i].id, m_curve.bands[i]);
        return {};
    }

    [[nodiscard]] double resonanceError(const em::Solution& solution) const
    {
        constexpr double aside = 2e-3; // of the frequency
        const double f = solution.frequency;
        const double slope =
            std::abs(m_curve.atLine((1.0 + aside) * f).imag() - m_curve.atLine((1.0 - aside) * f).imag()) / (2.0 * aside * f);
        const bool near = std::abs(solution.impedance.imag()) <= solution.impedance.real();
        return near && slope > 0.0 ? 0.01 * solution.impedanceErrorPercent * std::abs(solution.impedance) / slope : 0.0;
    }

    /// The same antenna with its first lever changed, judged on the wished bands; null if it cannot be.
    CurvePointer changedBy(double change)
    {
        Question question = m_curve.question;
        std::erase_if(question.bands, [](const WantedBand& w) { return w.wish == Wish::No; });
        question.requested.clear();
        const std::string& key = m_out->levers.front().lever.parameter;
        question.subject.shape = m_family.levered(m_subject.shape, key, m_family.value(m_subject.shape, key) + change);
        const Result<CurvePointer> curve = curveOf(m_library, question, m_quiet, Reach::Near);
        return curve ? *curve : nullptr;
    }

    /// Where a dip lies near a band on a curve.
    static std::optional<double> dipNear(const Curve& curve, const Band& band)
    {
        constexpr double aside = 0.1;
        return nearestDip([&](double f) { return curve.atLine(f); }, band.centre(), (1.0 - aside) * band.from, (1.0 + aside) * band.to);
    }

    /// Secant steps of the lever until the dip stands in the middle of the band.
    void cure(const Id& id, const Coverage& coverage)
    {
        constexpr int steps = 4;
        constexpr double largest = 0.25, goodEnough = 0.15; // of the lever's value; of the band's width
        const double value = m_family.value(m_subject.shape, m_out->levers.front().lever.parameter), target = coverage.band.centre();
        double before = 0.0, dipBefore = *coverage.nearbyDip;
        double slope = m_out->levers.front().perUnit * std::max(1.0, std::round(coverage.harmonic));
        for (int i = 0; i < steps; ++i) {
            const double change = before + (target - dipBefore) / slope;
            if (!(std::abs(change) < largest * value))
                return;
            const CurvePointer curve = changedBy(change);
            const std::optional<double> dip = curve ? dipNear(*curve, coverage.band) : std::nullopt;
            if (!dip)
                return;
            if (std::abs(*dip - target) < goodEnough * (coverage.band.to - coverage.band.from)) {
                tell(id, change, *curve);
                return;
            }
            if (change == before || *dip == dipBefore)
                return;
            slope = (*dip - dipBefore) / (change - before);
            before = change;
            dipBefore = *dip;
        }
    }

    void tell(const Id& id, double change, const Curve& then)
    {
        Cure cure{id, change, then.band(id)->lowestSwr, {}, {}};
        const double limit = m_curve.question.limit;
        for (const WantedBand& w : then.question.bands) {
            const Coverage *was = m_curve.band(w.id), *is = then.band(w.id);
            if (w.id == id || !was || !is || !was->solved() || !is->solved())
                continue;
            if (was->lowestSwr <= limit && is->lowestSwr > limit)
                cure.lost.push_back(w.id);
            if (was->lowestSwr > limit && is->lowestSwr <= limit)
                cure.gained.push_back(w.id);
        }
        m_out->cures.push_back(std::move(cure));
    }

    /// Sensitivity of the dip to a lever, from the phase's slopes: df/dL = -(dphi/dL)/(dphi/df) at resonance.
    double slope(const shapes::Lever& lever)
    {
        const double f = m_curve.resonance ? m_curve.resonance->frequency : m_curve.fundamental;
        const double value = m_family.value(m_subject.shape, lever.parameter);
        Subject after = m_subject;
        after.shape = m_family.levered(m_subject.shape, lever.parameter, value * (1.0 - leverStep));
        const auto built = m_library.study(after);
        if (!built || value == 0.0)
            return 0.0;
        const auto model = std::make_shared<const WireModel>(m_curve.built->atLine());
        const double df = 0.002 * f;
        const auto here = em::solve(model, f, m_library.tables(), {}, m_quiet);
        const auto higher = em::solve(model, f + df, m_library.tables(), {}, m_quiet);
        if (!here || !higher)
            return 0.0;
        const auto change = em::impedanceChange(*here, *model, built->built->atLine(), m_library.tables(), m_quiet);
        if (!change)
            return 0.0;
        const auto phase = [](Complex z) { return z.imag() / std::abs(z); };
        const double byFrequency = (phase(higher->impedance) - phase(here->impedance)) / df;
        const double byLever = (phase(here->impedance + *change) - phase(here->impedance)) / (-value * leverStep);
        return -byLever / byFrequency;
    }

    Library& m_library;
    const Curve& m_curve;
    const Watch& m_watch;
    const Watch m_quiet; ///< for what is only a part of the whole
    const Subject& m_subject;
    const shapes::Family& m_family;
    std::shared_ptr<Study> m_study;
    std::shared_ptr<Detail> m_out = std::make_shared<Detail>();
};

} // namespace

std::size_t lengthAskedFor(const Question& question)
{
    const auto tuned = shapes::familyOf(question.subject.shape).tuned(question.subject.shape);
    const auto place = [&](const auto& fits) { return std::size_t(std::find_if(tuned.begin(), tuned.end(), fits) - tuned.begin()); };
    const auto band =
        std::find_if(question.bands.begin(), question.bands.end(), [&](const WantedBand& w) { return w.id == question.requested; });
    const std::size_t configured = place([&](const shapes::TunedLength& t) { return t.configuration == question.subject.configuration; });
    const std::size_t wanted = place([&](const shapes::TunedLength& t) {
        return band != question.bands.end() && t.configuration == question.subject.configuration && t.frequency >= band->band.from &&
               t.frequency <= band->band.to;
    });
    return wanted < tuned.size() ? wanted : configured < tuned.size() ? configured : 0;
}

Question questionOf(const Design& design, const Antenna& antenna, const Id& requested, std::size_t configuration)
{
    Question question{{antenna.shape, groundUnder(design, antenna), configuration, countedIn(design, antenna), sectorsOf(design.site)},
                      design.operation.bands,
                      design.operation.swrLimit,
                      requested,
                      antenna.tuneForLowestSwr ? shapes::TuneGoal::LowestSwr : shapes::TuneGoal::Resonance,
                      {},
                      design.operation.reference};
    const shapes::Family& family = shapes::familyOf(antenna.shape);
    const bool comparable = !antenna.copies.empty() && antenna.copies.back().shape.family == antenna.shape.family;
    if (comparable && family.layout(antenna.copies.back().shape) != family.layout(antenna.shape))
        question.before = antenna.copies.back().shape;
    return question;
}

bool Curve::covers(double frequency) const
{
    return std::any_of(parts.begin(), parts.end(), [&](const CurvePart& p) { return frequency >= p->from && frequency <= p->to; });
}

Complex Curve::atPort(double frequency) const
{
    for (const CurvePart& p : parts)
        if (frequency >= p->from && frequency <= p->to)
            return p->at(frequency);
    return {std::nan(""), std::nan("")};
}

Complex Curve::atLine(double frequency) const { return built->atLine(atPort(frequency), frequency); }

Complex Curve::seen(double frequency) const
{
    const Complex z = atLine(frequency);
    return socket && covers(frequency) ? socket->seen(z, frequency) : z;
}

double Curve::swrAt(double frequency) const { return covers(frequency) ? swr(seen(frequency), question.reference) : std::nan(""); }

std::pair<Id, Id> Curve::favoured() const
{
    constexpr double matters = 1.1;
    std::map<double, Id> bySwr;
    for (const shapes::TunedLength& t : shapes::familyOf(question.subject.shape).tuned(question.subject.shape))
        for (std::size_t i = 0; i < bands.size(); ++i)
            if (t.configuration == question.subject.configuration && bands[i].solved() && t.frequency >= bands[i].band.from &&
                t.frequency <= bands[i].band.to)
                bySwr[bands[i].lowestSwr] = question.bands[i].id;
    if (bySwr.size() < 2 || bySwr.rbegin()->first < matters * bySwr.begin()->first)
        return {};
    return {bySwr.begin()->second, bySwr.rbegin()->second};
}

int Curve::bandsWished() const
{
    return int(std::count_if(question.bands.begin(), question.bands.end(), [](const WantedBand& w) { return w.wish != Wish::No; }));
}

int Curve::solves() const
{
    int count = 0;
    for (const CurvePart& p : parts)
        count += p->solves;
    return count;
}

const Coverage* Curve::band(const Id& id) const
{
    for (std::size_t i = 0; i < bands.size(); ++i)
        if (question.bands[i].id == id)
            return &bands[i];
    return nullptr;
}

const Spot* Detail::spotOfBand(const Id& band) const
{
    const auto found = std::find_if(spots.begin(), spots.end(), [&](const Spot& s) { return s.band == band; });
    return found == spots.end() ? nullptr : &*found;
}

const Cure* Detail::cureOf(const Id& band) const
{
    const auto found = std::find_if(cures.begin(), cures.end(), [&](const Cure& c) { return c.band == band; });
    return found == cures.end() ? nullptr : &*found;
}

double Detail::trimSlope() const { return levers.empty() ? 0.0 : std::max(0.0, -levers.front().perUnit); }

double spotFrequency(const Coverage& coverage, double limit)
{
    return coverage.lowestSwr <= 3.0 * limit ? coverage.at : coverage.band.centre();
}

Result<CurvePointer> curveOf(Library& library, const Question& question, const Watch& watch, Reach reach, Care care)
{
    const Result<Studied> studied = library.study(question.subject);
    if (!studied)
        return studied.faults();
    const WindowPlan plan = planWindows(question.bands, frequencyOf(question.subject.shape, question.subject.configuration),
                                        question.requested, extentOf(studied->built->model));
    std::vector<Window> windows = plan.windows;
    if (reach != Reach::Near)
        windows.insert(windows.end(), plan.far.begin(), plan.far.end());
    if (reach == Reach::Wished)
        std::erase_if(windows, [&](const Window& window) {
            return std::none_of(question.bands.begin(), question.bands.end(),
                                [&](const WantedBand& w) { return w.wish != Wish::No && window.holds(w.band.centre()); });
        });
    auto out = std::make_shared<Curve>();
    out->question = question;
    out->built = studied->built;
    if (!question.towardsRadio.empty())
        out->socket = std::make_shared<const Socket>(question.towardsRadio);
    out->care = care;
    out->complete = reach != Reach::Near || plan.far.empty();
    for (std::size_t i = 0; i < windows.size(); ++i) {
        const Watch part = watch.with([&](double share) { watch.report((double(i) + share) / double(windows.size())); });
        const Result<CurvePart> curve = studied->study->curve(windows[i], part, care);
        if (!curve)
            return curve.faults();
        out->parts.push_back(*curve);
    }
    judge(*out);
    for (std::size_t i = 0; i < question.bands.size(); ++i)
        out->bands.push_back(judged(*out, question.bands[i], plan.bands[i]));
    return unlessStopped(watch, CurvePointer(out));
}

Result<DetailPointer> detailOf(Library& library, const Curve& curve, const Watch& watch)
{
    return unlessStopped(watch, DetailMaker(library, curve, watch).run());
}

Result<Swept> sweepOf(Library& library, const Question& question, double from, double to, const Watch& watch)
{
    if (!(from >= lowestFrequency && to > from && to <= highestFrequency))
        return Fault{"", coreText("core", "give a range from a lower to a higher frequency")};
    const Result<Studied> studied = library.study(question.subject);
    if (!studied)
        return studied.faults();
    const Result<CurvePart> curve = studied->study->curve({from, to}, watch);
    if (!curve)
        return curve.faults();
    std::set<double> points;
    const auto evenly = [&](double low, double high) {
        for (int i = 0; i < pointsABand && low < high; ++i)
            points.insert(low + (high - low) * i / (pointsABand - 1));
    };
    for (double f : (*curve)->displayFrequencies(from, to))
        points.insert(f);
    evenly(from, to);
    for (const WantedBand& w : question.bands)
        if (w.wish != Wish::No)
            evenly(std::max(from, w.band.from), std::min(to, w.band.to));
    Swept swept;
    swept.solves = (*curve)->solves;
    for (double f : points) {
        swept.frequency.push_back(f);
        swept.impedance.push_back(studied->built->atLine((*curve)->at(f), f));
    }
    return unlessStopped(watch, std::move(swept));
}

} // namespace vetchling::study
