#include "core/advice/tried.h"

#include "core/advice/feed_findings.h"
#include "core/advice/place_cures.h"
#include "core/site/standing.h"
#include "core/study/configurations.h"
#include "core/study/spread.h"

#include <algorithm>
#include <cmath>
#include <tuple>

namespace vetchling::advice {
namespace {

using shapes::AntennaShape;
using shapes::Family;

/// The design without bands that nobody wants: what is asked where only the wish matters.
Design wantedOnly(const Design& design)
{
    Design out = design;
    out.antennas.clear();
    std::erase_if(out.operation.bands, [](const WantedBand& w) { return w.wish == Wish::No; });
    return out;
}

std::size_t ownParts(const Antenna& antenna) { return wholeChain(antenna).size() - chainParts(antenna).size(); }

double metresOf(const shapes::BuiltAntenna& built)
{
    double metres = 0.0;
    for (const shapes::WireSection& s : built.sections)
        metres += s.pieces * s.length;
    return metres;
}

/// What keeps an antenna from what the wish allows; empty: nothing.
Text barredBy(const AdviceWish& wish, const AntennaShape& shape, const shapes::BuiltAntenna& built, const Place& place)
{
    constexpr double onTheGround = 0.1, reach = 2.5; // m
    const Family& family = shapes::familyOf(shape);
    const double metres = metresOf(built);
    if (wish.wire > 0.0 && metres > wish.wire)
        return {coreText("core", "takes %1 of wire, and %2 are at hand"), Measure{metres, units::Quantity::Length},
                Measure{wish.wire, units::Quantity::Length}};
    const int coils = int(built.coils.size() + built.traps.size());
    if (wish.coilsMost >= 0 && coils > wish.coilsMost)
        return {coreText("core", "takes %1 coils or traps"), std::to_string(coils)};
    const auto radials = [&](const char* key) { return family.spec(shape, key) && family.value(shape, key) > 0.5; };
    if (!wish.radials && radials("radial_count"))
        return coreText("core", "it needs radials");
    const bool telescopes = family.spec(shape, "section_count");
    const bool tubes =
        std::any_of(built.sections.begin(), built.sections.end(), [](const shapes::WireSection& s) { return s.diameter > 0.0; });
    if (wish.portable && tubes && !telescopes)
        return coreText("core", "its tubes go into no bag");
    if (wish.portable && !place.poles.empty())
        return coreText("core", "it needs a pole that nobody carries");
    if (wish.walkable)
        for (const Wire& w : built.model.wires)
            for (Vec3 p : w.points)
                if (p.z < reach && (p.z > onTheGround || w.points.size() > 1))
                    return coreText("core", "something of it lies or hangs where people walk");
    return {};
}

/// A ratio, or none, that brings more of the wish than now; the chain as it would be.
std::vector<ChainPart> bestRatio(const Bench& bench, const Weighed& wanted, const study::FeedBasis& basis,
                                 const std::vector<ChainPart>& parts, std::size_t own)
{
    constexpr double worthwhile = 0.01; // of the wish: what brings no more is left as is customary
    const auto bringing = [&](const std::vector<study::ChoiceCell>& cells) {
        double sum = 0.0, all = 0.0;
        for (std::size_t i = 0; i < wanted.bands.size(); ++i) {
            all += wanted.weights[i];
            for (const study::ChoiceCell& c : cells)
                if (c.band == wanted.bands[i].id)
                    sum += wanted.weights[i] * worthOf(bench.rules, c.service.share, c.service.shareWithTuner, 0.0);
        }
        return all > 0.0 ? sum / all : 0.0;
    };
    const auto rows = study::transformersCompared(basis, parts, own, servedRule(bench.design.operation));
    const auto now = std::find_if(rows.begin(), rows.end(), [](const study::ChoiceRow& r) { return r.now; });
    double best = now == rows.end() ? 0.0 : bringing(now->cells);
    std::vector<ChainPart> chosen = parts;
    for (const study::ChoiceRow& row : rows)
        if (const double brings = bringing(row.cells); brings > best + worthwhile) {
            best = brings;
            chosen = row.parts;
        }
    return chosen;
}

void settle(const Bench& bench, Antenna& antenna, const std::vector<ChainPart>& behind)
{
    ownChain(antenna).parts = behind;
    settleTuners(ownChain(antenna).parts);
    settleFeed(antenna, bench.design.site);
}

/// Shares from the bands study, gains from the feed study.
struct Solved {
    study::FeedBasis basis;
    std::vector<BandFigure> bands;
    study::FeedReport report;
    std::vector<std::pair<Id, std::size_t>> in; ///< configuration that serves a band
};

Result<Solved> solvedOn(const Bench& bench, study::References& references, const study::FeedQuestion& feed,
                        const std::vector<study::CurvePointer>& curves, const Antenna& antenna, study::Care care, const Watch& watch)
{
    const Operation& operation = bench.design.operation;
    auto basis = feedBasisOn(bench.library, references, feed, curves, watch, care);
    if (!basis)
        return basis.faults();
    Solved out{std::move(basis).value(), {}, {}, {}};
    out.report = feedReport(out.basis, wholeChain(antenna), ownParts(antenna), operation.power, servedRule(operation));
    const study::ServiceTerms terms = study::termsOf(operation, antenna);
    for (const WantedBand& band : feed.question.bands) {
        BandFigure figure{.band = band.id};
        const auto best = study::bestFor(curves, band.id);
        const study::FeedRow* row = out.report.row(band.id);
        if (row && best) {
            const study::Curve& curve = *curves[*best];
            const auto place = std::size_t(curve.band(band.id) - curve.bands.data());
            figure.solved = true;
            figure.share = curve.bands[place].shareUnderLimit;
            figure.shareWithTuner = serviceOf(curve, place, terms).shareWithTuner;
            figure.net = row->net;
            figure.against = row->net - row->reference;
            out.in.emplace_back(band.id, *best);
        }
        out.bands.push_back(figure);
    }
    return out;
}

/// By rule: what is cut for the configuration, and its multiples. Of what has one configuration all.
std::vector<WantedBand> bandsIn(const AntennaShape& shape, std::size_t configuration, const std::vector<WantedBand>& bands)
{
    const Family& family = shapes::familyOf(shape);
    if (family.configurations(shape).size() < 2)
        return bands;
    std::vector<WantedBand> some;
    for (const WantedBand& w : bands)
        if (isNearMultiple(family, w.band.centre() / shapes::frequencyOf(shape, configuration)))
            some.push_back(w);
    return some;
}

/// @param in where each band is best, if that is known
Result<Solved> solveCoarsely(const Bench& bench, study::References& references, const Antenna& antenna, const Ground* ground,
                             const Watch& watch, const std::vector<std::pair<Id, std::size_t>>* in = nullptr)
{
    const Design wanted = wantedOnly(bench.design);
    study::FeedQuestion feed = study::feedQuestionOf(wanted, antenna);
    if (feed.against.kind == Against::Kind::Antenna || feed.against.kind == Against::Kind::Pinned)
        feed.against = {}; // which needs that antenna solved each time
    if (ground)
        feed.question.subject.ground = *ground;
    std::vector<study::CurvePointer> curves;
    const std::size_t count = shapes::familyOf(antenna.shape).configurations(antenna.shape).size();
    for (std::size_t c = 0; c < count; ++c) {
        study::Question question = feed.question;
        question.subject.configuration = c;
        if (in)
            std::erase_if(question.bands,
                          [&](const WantedBand& w) { return std::find(in->begin(), in->end(), std::pair(w.id, c)) == in->end(); });
        else
            question.bands = bandsIn(antenna.shape, c, question.bands);
        const auto curve = curveOf(bench.library, question, watch, study::Reach::Wished, study::Care::Coarse);
        if (!curve)
            return curve.faults();
        curves.push_back(*curve);
    }
    return solvedOn(bench, references, feed, curves, antenna, study::Care::Coarse, watch);
}

/// Every height a part lower or higher.
AntennaShape atOtherHeights(AntennaShape shape, double times)
{
    const Family& family = shapes::familyOf(shape);
    for (const shapes::ParameterSpec& spec : family.specs(shape))
        if (spec.key.ends_with("height_m"))
            shape.parameters[spec.key] = std::clamp(times * family.value(shape, spec.key), spec.lowest, spec.highest);
    return shape;
}

Takes takesOf(const Design& hung, const Antenna& antenna, const shapes::BuiltAntenna& built, const Place& place,
              const study::FeedReport& report)
{
    Takes out;
    out.wire = metresOf(built);
    out.newPoles = int(place.poles.size()) + (ownMastOf(hung.site, built.model).height > 0.0 ? 1 : 0);
    out.coils = int(built.coils.size());
    out.traps = int(built.traps.size());
    out.links = int(built.links.size());
    for (const ChainPart& p : report.parts)
        if (p.kind == part::tuner && std::lround(partValue(p, "place")) == part::atAntenna)
            ++out.tunersAtFeed;
    for (const Finding& f : placedFindings(hung, antenna))
        out.cautions += f.open();
    for (const Finding& f : feedFindings(hung, antenna, report))
        out.cautions += f.open() && f.code != std::string("line");
    return out;
}

} // namespace

bool isNearMultiple(const Family& family, double times)
{
    constexpr double apart = 0.12; // of a multiple, that a band may lie beside it and still be tuned
    const bool odd = family.multiples() == shapes::Multiples::Odd;
    const double nearest = odd ? 2.0 * std::max(0.0, std::round(0.5 * (times - 1.0))) + 1.0 : std::max(1.0, std::round(times));
    return std::abs(times - nearest) <= apart * nearest;
}

Weighed weighed(const Design& design, const ScoreRules& rules)
{
    Weighed out;
    for (const WantedBand& w : design.operation.bands)
        if (w.wish != Wish::No) {
            out.bands.push_back(w);
            out.weights.push_back(weightOf(rules, w.wish, w.id == design.operation.favourite));
        }
    return out;
}

std::vector<double> worthsOf(const ScoreRules& rules, const std::vector<BandFigure>& bands)
{
    std::vector<double> worths;
    for (const BandFigure& b : bands)
        worths.push_back(b.solved ? worthOf(rules, b.share, b.shareWithTuner, b.against) : 0.0);
    return worths;
}

Id hangUp(Design& design, const Tried& tried)
{
    putUp(design, tried.place.poles);
    Antenna antenna = tried.antenna;
    antenna.id = newId();
    antenna.name = freeName(antenna.name, antennaNames(design));
    for (FeedChain& chain : antenna.feed.chains)
        for (ChainPart& p : chain.parts)
            if (p.id.empty())
                p.id = newId();
    design.antennas.push_back(antenna);
    return antenna.id;
}

namespace {

/// What cannot be tuned says why.
Text tuneIn(const Bench& bench, Antenna& antenna, const Ground& ground, TuneOptions options, const Watch& watch)
{
    options.goal = antenna.tuneForLowestSwr ? shapes::TuneGoal::LowestSwr : shapes::TuneGoal::Resonance;
    const auto tuned = tuneAll(antenna.shape, ground, bench.library.tables(), options, watch);
    if (!tuned)
        return tuned.faults().front().message;
    for (const TunedValue& v : tuned->lengths)
        antenna.shape.parameters[v.length.parameter] = v.value;
    return {};
}

/// One candidate on its way from a place to figures.
class Trial {
public:
    Trial(const Bench& bench, Tried candidate, const Watch& watch)
        : m_bench(bench), m_wanted(weighed(bench.design, bench.rules)), m_ground(bench.design.site.soil.ground()),
          m_tried(std::move(candidate)), m_watch(watch)
    {
    }

    Tried run()
    {
        m_tried.antenna = m_tried.proposal.antenna;
        m_tried.place = m_tried.proposal.place;
        for (auto step : {&Trial::chain, &Trial::tune, &Trial::keep, &Trial::chain, &Trial::judge, &Trial::solve})
            if (m_tried.reason = (this->*step)(); !m_tried.reason.empty())
                return std::move(m_tried);
        takeBetterRatio();
        if (m_bench.wish.tuner == TunerWish::AtFeed)
            takeTunerAtFeed();
        m_tried.bands = m_solved->bands;
        m_tried.takes = takes(m_tried.antenna, m_solved->report);
        m_tried.built = std::make_shared<const shapes::BuiltAntenna>(m_built);
        m_tried.depth = Depth::Coarse;
        return std::move(m_tried);
    }

private:
    Antenna& antenna() { return m_tried.antenna; }

    Text build()
    {
        auto built = shapes::buildOver(antenna().shape, m_ground);
        if (!built)
            return built.faults().front().message;
        m_built = std::move(built).value();
        return {};
    }

    Text chain()
    {
        if (Text why = build(); !why.empty())
            return why;
        settle(m_bench, antenna(), usualChain(m_bench.design, antenna(), m_built.feedPoint, m_bench.lines, plainTuner()));
        return build();
    }
    TunerWish plainTuner() const { return m_bench.wish.tuner == TunerWish::None ? TunerWish::None : TunerWish::InRadio; }

    Text tune()
    {
        antenna().tuneForLowestSwr = shapes::familyOf(antenna().shape).usualGoal() == shapes::TuneGoal::LowestSwr;
        TuneOptions options;
        options.solve.mesh.degree = 3; // as coarse curves are; finalists are tuned again
        options.solve.mesh.fineness = 0.2;
        options.settled = 1e-3;
        return tuneIn(m_bench, antenna(), m_ground, options, m_watch);
    }

    Text keep()
    {
        m_tried.place = keptInPlace(judgeOf(m_bench, 1.0), m_tried.proposal, antenna().shape);
        if (!m_tried.place.allowed())
            return m_tried.place.fault;
        antenna().shape = m_tried.place.shape; // its feed as it was: another place of it comes with another chain
        return {};
    }

    Text judge()
    {
        Text bar = barredBy(m_bench.wish, antenna().shape, m_built, m_tried.place);
        m_tried.barred = !bar.empty();
        return bar;
    }

    Text solve()
    {
        auto solved = solveCoarsely(m_bench, m_bench.references.now, antenna(), nullptr, m_watch);
        if (!solved)
            return solved.faults().front().message;
        m_solved = std::move(solved).value();
        return {};
    }

    void takeBetterRatio()
    {
        Antenna other = antenna();
        const std::size_t own = ownParts(other);
        const std::vector<ChainPart> parts = wholeChain(other), better = bestRatio(m_bench, m_wanted, m_solved->basis, parts, own);
        if (better == parts)
            return;
        takeChain(other, better, own);
        settleFeed(other, m_bench.design.site);
        if (auto again = solveCoarsely(m_bench, m_bench.references.now, other, nullptr, m_watch)) {
            antenna() = other;
            m_solved = std::move(again).value();
        }
    }

    void takeTunerAtFeed()
    {
        Antenna other = antenna();
        settle(m_bench, other, usualChain(m_bench.design, other, m_built.feedPoint, m_bench.lines, TunerWish::AtFeed));
        auto again = solveCoarsely(m_bench, m_bench.references.now, other, nullptr, m_watch);
        if (!again || score(other, *again) <= score(antenna(), *m_solved))
            return;
        antenna() = other;
        m_solved = std::move(again).value();
    }

    Takes takes(const Antenna& antenna, const study::FeedReport& report) const
    {
        Design hung = m_bench.design;
        putUp(hung, m_tried.place.poles);
        hung.antennas.push_back(antenna);
        return takesOf(hung, antenna, m_built, m_tried.place, report);
    }
    double score(const Antenna& antenna, const Solved& solved) const
    {
        return wishOf(m_wanted.weights, worthsOf(m_bench.rules, solved.bands)) - effortOf(m_bench.rules, takes(antenna, solved.report));
    }

    const Bench& m_bench;
    Weighed m_wanted;
    Ground m_ground;
    Tried m_tried;
    const Watch& m_watch;
    shapes::BuiltAntenna m_built;
    std::optional<Solved> m_solved;
};

} // namespace

Judge judgeOf(const Bench& bench, double room)
{
    const bool poles = bench.wish.pole > 0.0;
    return Judge(bench.design, {.supports = bench.wish.supports, .mostPole = bench.wish.pole, .mostPoles = poles ? 1u : 0u, .room = room});
}

Result<Tried> tryOut(const Bench& bench, Tried candidate, const Watch& watch)
{
    return unlessStopped(watch, Trial(bench, std::move(candidate), watch).run());
}

Result<Tried> asItHangs(const Bench& bench, const Antenna& antenna, const Watch& watch)
{
    Tried out;
    out.key = "kept " + antenna.id;
    out.antenna = antenna;
    const auto solved = solveCoarsely(bench, bench.references.now, antenna, nullptr, watch);
    if (!solved)
        return solved.faults();
    out.bands = solved->bands;
    out.depth = Depth::Coarse;
    return unlessStopped(watch, std::move(out));
}

namespace {

/// The last millimetres. Where these have no room any more, it stays as it was found, which is as good as the coarse solve.
Text tuneFinely(const Bench& bench, const Design& design, Tried& tried, const Watch& watch)
{
    TuneOptions fine;
    fine.startFromPresent = true;
    Antenna tuned = tried.antenna;
    if (Text why = tuneIn(bench, tuned, groundUnder(design, tuned), fine, watch); !why.empty())
        return why;
    if (judgeOf(bench, 1.0).judge(tuned.shape).allowed())
        tried.antenna = tuned;
    return {};
}

} // namespace

Result<Tried> exactly(const Bench& bench, const Design& design, Tried tried, const Watch& watch)
{
    if (!tried.bandsFor.empty()) // what is kept stays as it hangs
        if (Text why = tuneFinely(bench, design, tried, watch); !why.empty())
            return Fault{"", std::move(why)};
    tried.place.shape = tried.antenna.shape;
    if (auto built = shapes::buildOver(tried.antenna.shape, groundUnder(design, tried.antenna))) {
        tried.takes.wire = tried.bandsFor.empty() ? 0.0 : metresOf(*built); // what hangs already takes nothing
        tried.built = std::make_shared<const shapes::BuiltAntenna>(std::move(built).value());
    }
    const auto curves = curvesOf(bench.library, study::questionOf(design, tried.antenna), watch, study::Reach::Wished);
    if (!curves)
        return curves.faults();
    const auto solved = solvedOn(bench, bench.references.now, study::feedQuestionOf(design, tried.antenna), *curves, tried.antenna,
                                 study::Care::Usual, watch);
    if (!solved)
        return solved.faults();
    tried.bands = solved->bands;
    tried.servedIn = solved->in;
    tried.curves.clear();
    for (const auto& [band, configuration] : solved->in)
        tried.curves.emplace_back(band, (*curves)[configuration]);
    tried.depth = Depth::Exact;
    return unlessStopped(watch, std::move(tried));
}

Result<Tried> inSeasons(const Bench& bench, Tried tried, const Watch& watch)
{
    const Soil& soil = soilUnder(bench.design, tried.antenna);
    const Tolerances& tolerances = bench.design.operation.tolerances;
    const Ground dry = study::soilAt(soil, tolerances, -1.0), wet = study::soilAt(soil, tolerances, 1.0);
    Antenna lower = tried.antenna, higher = tried.antenna;
    lower.shape = atOtherHeights(lower.shape, 1.0 - bench.rules.heightOff);
    higher.shape = atOtherHeights(higher.shape, 1.0 + bench.rules.heightOff);
    const std::tuple<study::References*, const Antenna*, const Ground*> cases[seasons] = {{&bench.references.dry, &tried.antenna, &dry},
                                                                                          {&bench.references.wet, &tried.antenna, &wet},
                                                                                          {&bench.references.now, &lower, nullptr},
                                                                                          {&bench.references.now, &higher, nullptr}};
    for (std::size_t i = 0; i < seasons; ++i) {
        const auto& [references, antenna, ground] = cases[i];
        const auto solved = solveCoarsely(bench, *references, *antenna, ground, watch, &tried.servedIn);
        if (watch.stopped())
            return stoppedFault();
        tried.seasonWorths[i] = solved ? worthsOf(bench.rules, solved->bands) : worthsOf(bench.rules, tried.bands);
    }
    return tried;
}

} // namespace vetchling::advice
