#include "core/advice/advisor.h"

#include <tbb/parallel_for.h>

#include <algorithm>
#include <cmath>

namespace vetchling::advice {
namespace {

constexpr double oneMore = 1.0, polesTried[] = {6.0, 9.0, 12.0}, usualPole = 9.0; // m
constexpr std::size_t looked = 4;        // of the best answers, whose antennas are hung anew
constexpr std::size_t furtherPlans = 12; // that could bring most by rule

/// What is told of a change: a band that comes in, else the one that gains most.
Text bringsWords(const Answer& before, const Answer& after, const Weighed& wanted)
{
    constexpr double poor = 0.3, good = 0.5, tenth = 0.1; // worth; dB
    std::size_t most = 0;
    double gained = -HUGE_VAL;
    for (std::size_t i = 0; i < wanted.bands.size(); ++i) {
        const bool was = i < before.bands.size() && before.bands[i].figure.solved;
        if (after.bands[i].worth > good && (!was || before.bands[i].worth < poor))
            return {coreText("core", "brings %1 in"), wanted.bands[i].band.name};
        if (was && before.bands[i].worth > poor)
            if (const double more = after.bands[i].figure.against - before.bands[i].figure.against; more > gained) {
                gained = more;
                most = i;
            }
    }
    if (gained > tenth)
        return {coreText("core", "gains %1 on %2"), Measure{0.1 * std::round(10.0 * gained), units::Quantity::Decibel},
                wanted.bands[most].band.name};
    return coreText("core", "serves the wish better");
}

PlanPoint middleOf(const Site& site)
{
    if (site.boundary.size() < 3)
        return {site.feedEntry.x + 5.0, site.feedEntry.y};
    const PlanPoint corner = cornerOf(site.boundary), extent = extentOf(site.boundary);
    return {corner.x + 0.5 * extent.x, corner.y + 0.5 * extent.y};
}

} // namespace

/// Each by itself: a metre under each support of the best answer, a pole, a tuner.
std::vector<Advisor::Asked> Advisor::changes() const
{
    std::vector<Asked> all;
    const std::vector<Answer> first = best(1, true);
    std::vector<Id> used;
    if (!first.empty())
        for (const TriedPointer& t : first.front().antennas)
            for (const Id& id : t->place.supports)
                if (std::find(used.begin(), used.end(), id) == used.end())
                    used.push_back(id);
    for (const Id& id : used) {
        Asked asked{Help::Kind::Higher, {}, m_design, m_wish};
        changeSupport(asked.design, id, [&](Support& s) {
            s.height += oneMore;
            asked.what = {coreText("core", "1 m more under the %1"), s.name};
        });
        all.push_back(std::move(asked));
    }
    if (m_design.site.supports.empty())
        for (const double height : polesTried) {
            Asked asked{
                Help::Kind::Pole, {coreText("core", "a first pole of %1"), Measure{height, units::Quantity::Length}}, m_design, m_wish};
            Support pole;
            pole.id = newId();
            pole.name = coreText("core", "pole");
            pole.at = middleOf(m_design.site);
            pole.height = height;
            asked.design.site.supports.push_back(pole);
            all.push_back(std::move(asked));
        }
    else if (m_wish.pole < usualPole && !m_wish.portable) {
        Asked asked{Help::Kind::Pole,
                    {coreText("core", "one more pole of up to %1"), Measure{usualPole, units::Quantity::Length}},
                    m_design,
                    m_wish};
        asked.wish.pole = usualPole;
        all.push_back(std::move(asked));
    }
    if (m_wish.tuner != TunerWish::AtFeed) {
        const bool none = m_wish.tuner == TunerWish::None;
        Asked asked{Help::Kind::Tuner, none ? coreText("core", "a tuner in the radio") : coreText("core", "a tuner at the feed"), m_design,
                    m_wish};
        asked.wish.tuner = none ? TunerWish::InRadio : TunerWish::AtFeed;
        all.push_back(std::move(asked));
    }
    return all;
}

/// Of the plans of the best answers, and of the most promising others where something new comes in.
std::optional<Answer> Advisor::quickBest(const Asked& asked, const Watch& watch) const
{
    Advisor other(m_library.sharedTables(), asked.design, asked.wish, m_rules, m_lines);
    other.m_plans = plansFor(other.m_design, other.m_wish, m_rules);
    std::vector<std::pair<std::string, std::vector<Id>>> wanted;
    for (const Answer& a : best(looked, true))
        for (const TriedPointer& t : a.antennas)
            wanted.emplace_back(t->antenna.shape.family, t->bandsFor);
    std::size_t more = asked.kind == Help::Kind::Higher ? 0 : furtherPlans; // where something new comes in
    std::erase_if(other.m_plans, [&](const Plan& plan) {
        if (std::find(wanted.begin(), wanted.end(), std::pair(plan.family->id(), plan.bands)) != wanted.end())
            return false;
        return more == 0 || more-- == 0;
    });
    if (!other.keepKept(watch).empty() || !other.tryAll(watch, {}).empty() || !other.combine(watch, {}).empty() || watch.stopped())
        return std::nullopt;
    std::vector<Answer> found = other.best(1, true);
    return found.empty() ? std::nullopt : std::optional(std::move(found.front()));
}

/// Giving up the band that keeps the others back most.
std::optional<Help> Advisor::withoutOneBand() const
{
    const std::vector<Answer> first = best(1, true);
    if (first.empty() || m_weighed.bands.size() < 2)
        return std::nullopt;
    std::optional<Help> out;
    for (std::size_t b = 0; b < m_weighed.bands.size(); ++b) {
        Weighed fewer = m_weighed;
        fewer.weights[b] = 0.0;
        double score = 0.0;
        for (const auto& keys : m_answers) {
            const Answer a = answerOf(keys);
            std::vector<double> worths;
            for (const AnswerBand& band : a.bands)
                worths.push_back(band.worth);
            score = std::max(score, scoreOf(wishOf(fewer.weights, worths), a.effort));
        }
        if (!out || score > out->score)
            out = Help{Help::Kind::FewerBands,
                       {coreText("core", "giving up %1"), m_weighed.bands[b].band.name},
                       coreText("core", "leaves more for the others"),
                       score,
                       score - first.front().score};
    }
    return out;
}

Faults Advisor::lookForHelp(const Watch& watch, const Better&)
{
    constexpr std::size_t told = 3;
    constexpr double worthTelling = 0.005; // of the score
    if (m_helped)
        return {};
    tell(0.92);
    std::vector<Asked> all = changes();
    all.insert(all.begin(), Asked{Help::Kind::Higher, {}, m_design, m_wish}); // as it is, as coarsely
    std::vector<std::optional<Answer>> found(all.size());
    tbb::parallel_for(std::size_t(0), all.size(), [&](std::size_t i) { found[i] = quickBest(all[i], watch); });
    if (watch.stopped())
        return {stoppedFault()};
    const Answer now = found.front() ? *found.front() : Answer{};
    const std::vector<Answer> first = best(1, true);
    const double score = first.empty() ? 0.0 : first.front().score;
    std::vector<Help> help;
    for (std::size_t i = 1; i < all.size(); ++i)
        if (found[i] && found[i]->score > now.score + worthTelling)
            help.push_back({all[i].kind, all[i].what, bringsWords(now, *found[i], m_weighed), score + found[i]->score - now.score,
                            found[i]->score - now.score});
    if (const auto fewer = withoutOneBand(); fewer && fewer->more > worthTelling)
        help.push_back(*fewer);
    std::stable_sort(help.begin(), help.end(), [](const Help& a, const Help& b) { return a.more > b.more; });
    if (help.size() > told && !m_design.site.supports.empty())
        help.resize(told);
    m_help = std::move(help);
    m_helped = true;
    return {};
}

} // namespace vetchling::advice
