#include "core/advice/advisor.h"

#include <fmt/format.h>
#include <tbb/parallel_for.h>

#include <algorithm>
#include <cmath>
#include <numeric>
#include <set>

namespace vetchling::advice {
namespace {

using shapes::Family;

constexpr double ofNoUse = 0.05, ofUse = 0.5; // of a band

std::vector<double> bestOf(const std::vector<const Tried*>& all, const ScoreRules& rules, std::size_t bands)
{
    std::vector<double> best(bands, 0.0);
    for (const Tried* t : all) {
        const std::vector<double> worths = worthsOf(rules, t->bands);
        for (std::size_t i = 0; i < bands && i < worths.size(); ++i)
            best[i] = std::max(best[i], worths[i]);
    }
    return best;
}

} // namespace

Advisor::Advisor(const std::shared_ptr<em::GroundTableCache>& tables, Design design, AdviceWish wish, ScoreRules rules,
                 std::vector<LineType> lines)
    : m_library(tables, 48), m_design(std::move(design)), m_wish(std::move(wish)), m_rules(rules), m_lines(std::move(lines)),
      m_weighed(weighed(m_design, m_rules))
{
}

Bench Advisor::bench(const Design& design) const { return {m_library, m_references, design, m_wish, m_rules, m_lines}; }

Result<AdvicePointer> Advisor::run(const Watch& watch, const Better& better)
{
    if (m_weighed.bands.empty())
        return Fault{"", coreText("core", "no band is wanted: say on Bands which are, then an antenna can be looked for")};
    const std::lock_guard lock(m_running);
    const Watch quiet = watch.with({}); // what is a part of it tells no progress of its own
    m_progress = &watch;
    if (m_plans.empty())
        m_plans = plansFor(m_design, m_wish, m_rules);
    if (Faults faults = keepKept(quiet); !faults.empty())
        return faults;
    for (const auto step : {&Advisor::tryAll, &Advisor::combine, &Advisor::finish, &Advisor::lookForHelp}) {
        if (Faults faults = (this->*step)(quiet, better); !faults.empty())
            return faults;
        if (watch.stopped())
            return stoppedFault();
        if (better)
            better(told(false));
    }
    m_progress = nullptr;
    return unlessStopped(watch, told(true));
}

bool Advisor::mayMatter(const Plan& plan, const std::vector<Answer>& first) const
{
    if (first.size() < finalists)
        return true;
    const double least = first[finalists - 1].score;
    if (wishOfReach(m_weighed, plan.reach) - plan.effort >= least)
        return true;
    Takes further;
    further.furtherAntennas = 1;
    const double one = effortOf(m_rules, further);
    return m_wish.antennas > 1 && !hasLike(plan) && std::any_of(first.begin(), first.end(), [&](const Answer& a) {
               std::vector<double> besides;
               for (const AnswerBand& b : a.bands)
                   besides.push_back(b.worth);
               return wishOfReach(m_weighed, plan.reach, besides) - a.effort - plan.effort - one >= least;
           });
}

/// Whether one for the same bands is known that leaves next to nothing to win beside others.
bool Advisor::hasLike(const Plan& plan) const
{
    constexpr double nothing = 0.01; // of the score
    for (const auto& [key, tried] : m_tried) {
        if (!tried->usable() || tried->bandsFor != plan.bands)
            continue;
        std::vector<double> worths = worthsOf(m_rules, tried->bands), most = worths;
        for (std::size_t i = 0; i < most.size(); ++i)
            if (plan.reach[i])
                most[i] = 1.0;
        const double more = wishOf(m_weighed.weights, most) - wishOf(m_weighed.weights, worths);
        if (more + effortOf(m_rules, tried->takes) - plan.effort < nothing)
            return true;
    }
    return false;
}

Faults Advisor::keepKept(const Watch& watch)
{
    if (!m_kept.empty())
        return {};
    std::vector<TriedPointer> kept;
    for (const Id& id : m_wish.kept)
        if (const Antenna* antenna = findAntenna(m_design, id)) {
            auto t = asItHangs(bench(m_design), *antenna, watch);
            if (!t)
                return t.faults();
            kept.push_back(std::make_shared<const Tried>(std::move(t).value()));
        }
    m_kept = std::move(kept);
    return {};
}

/// The most promising first; what may matter. Then, of each family that has no place yet, what is smallest.
Faults Advisor::tryAll(const Watch& watch, const Better& better)
{
    constexpr std::size_t looked = 24; // answers that another antenna may hang beside
    std::set<const Family*> seen;
    for (const Plan& plan : m_plans)
        if (plan.done && !plan.pruned)
            seen.insert(plan.family);
    for (std::size_t next = 0; next < m_plans.size();) {
        const std::vector<Answer> first = best(looked, true);
        std::vector<std::size_t> now;
        for (; next < m_plans.size() && now.size() < chunk; ++next) {
            Plan& plan = m_plans[next];
            if (plan.done)
                continue;
            plan.pruned = !seen.insert(plan.family).second && !mayMatter(plan, first);
            plan.done = plan.pruned;
            if (!plan.pruned)
                now.push_back(next);
        }
        if (Faults faults = tryPlans(now, watch); !faults.empty())
            return faults;
        tell(0.6 * double(next) / double(m_plans.size()));
        if (better)
            better(told(false));
    }
    return tryPlans(smallestOfThoseWithout(), watch);
}

std::vector<std::size_t> Advisor::smallestOfThoseWithout()
{
    std::map<const Family*, std::size_t> smallest;
    std::set<const Family*> placed;
    for (std::size_t i = 0; i < m_plans.size(); ++i) {
        const auto known = smallest.emplace(m_plans[i].family, i).first;
        if (m_plans[i].bands.size() < m_plans[known->second].bands.size() || m_plans[i].frequency > m_plans[known->second].frequency)
            known->second = i;
    }
    for (const auto& [key, tried] : m_tried)
        if (tried->usable())
            placed.insert(&shapes::familyOf(tried->antenna.shape));
    std::vector<std::size_t> out;
    for (const auto& [family, i] : smallest)
        if (!placed.contains(family) && m_plans[i].pruned) {
            m_plans[i].done = m_plans[i].pruned = false;
            out.push_back(i);
        }
    std::sort(out.begin(), out.end());
    return out;
}

Faults Advisor::tryPlans(const std::vector<std::size_t>& now, const Watch& watch)
{
    std::vector<std::vector<Tried>> found(now.size());
    tbb::parallel_for(std::size_t(0), now.size(), [&](std::size_t i) {
        const Bench here = bench(m_design);
        for (Tried& t : placesOf(m_plans[now[i]], here)) {
            if (watch.stopped())
                return;
            if (t.reason.empty())
                if (auto tried = tryOut(here, t, watch))
                    t = std::move(tried).value();
            found[i].push_back(std::move(t));
        }
    });
    if (watch.stopped())
        return {stoppedFault()};
    for (std::size_t i = 0; i < now.size(); ++i) {
        m_plans[now[i]].done = true;
        for (Tried& t : found[i])
            take(std::move(t));
    }
    return {};
}

void Advisor::take(Tried tried)
{
    if (tried.usable())
        addAnswer({tried.key});
    const std::string key = tried.key;
    if (m_tried.emplace(key, std::make_shared<const Tried>(std::move(tried))).second)
        m_order.push_back(key);
}

void Advisor::addAnswer(std::vector<std::string> keys)
{
    if (std::find(m_answers.begin(), m_answers.end(), keys) == m_answers.end())
        m_answers.push_back(std::move(keys));
}

Answer Advisor::answerOf(const std::vector<std::string>& keys) const
{
    Answer out;
    std::vector<const Tried*> members;
    for (const std::string& key : keys) {
        out.antennas.push_back(m_tried.at(key));
        out.takes += out.antennas.back()->takes;
    }
    for (const TriedPointer& t : out.antennas)
        members.push_back(t.get());
    for (const TriedPointer& t : m_kept)
        members.push_back(t.get());
    out.takes.furtherAntennas = std::max(0, int(keys.size()) - 1);
    const std::size_t count = m_weighed.bands.size();
    out.bands.resize(count);
    std::vector<std::vector<double>> worths;
    for (const Tried* t : members)
        worths.push_back(worthsOf(m_rules, t->bands));
    for (std::size_t b = 0; b < count; ++b) {
        AnswerBand& band = out.bands[b];
        for (std::size_t m = 0; m < members.size(); ++m)
            if (m == 0 || worths[m][b] > band.worth) {
                band.figure = members[m]->bands[b];
                band.worth = worths[m][b];
                band.antenna = worths[m][b] > 0.0 ? std::optional(m) : std::nullopt;
            }
        band.figure.band = m_weighed.bands[b].id;
    }
    const double plain = wishOf(m_weighed.weights, bestOf(members, m_rules, count));
    const bool known = std::all_of(members.begin(), members.end(), [](const Tried* t) { return !t->seasonWorths.front().empty(); });
    std::vector<double> then;
    for (std::size_t s = 0; s < seasons && known; ++s) {
        std::vector<double> best(count, 0.0);
        for (const Tried* t : members)
            for (std::size_t b = 0; b < count; ++b)
                best[b] = std::max(best[b], t->seasonWorths[s][b]);
        then.push_back(wishOf(m_weighed.weights, best));
    }
    out.wish = wishWithSeasons(m_rules, plain, then);
    out.worst = then.empty() ? plain : *std::min_element(then.begin(), then.end());
    out.exact = known && std::all_of(members.begin(), members.end(), [](const Tried* t) { return t->depth == Depth::Exact; });
    out.effort = effortOf(m_rules, out.takes);
    out.score = scoreOf(out.wish, out.effort);
    return out;
}

namespace {

/// Best first. @return places in the list
std::vector<std::size_t> ranked(const ScoreRules& rules, const std::vector<Answer>& answers)
{
    std::vector<Ranked> all;
    for (const Answer& a : answers)
        all.push_back({a.score, a.takes.wire});
    return rankingOf(rules, all);
}

/// What a family for some bands is once: its best place.
std::string sameAntenna(const Tried& t)
{
    std::string out = t.antenna.shape.family;
    for (const Id& id : t.bandsFor)
        out += " " + id;
    return out;
}

/// Hz that one moves the other by, most, where that is worth a word; 0 else.
double worstInfluence(const Answer& answer)
{
    constexpr double worthAWord = 0.003; // of the frequency
    double most = 0.0;
    for (std::size_t i = 0; i < answer.influence.size(); ++i)
        if (const double moved = std::abs(answer.influence[i]); moved > worthAWord * answer.antennas[i]->antenna.shape.designFrequency)
            most = std::max(most, moved);
    return most;
}

std::vector<Text> givenUp(const Answer& answer, const Weighed& wanted, const Design& design)
{
    std::vector<Id> none, helped;
    for (std::size_t i = 0; i < answer.bands.size(); ++i) {
        const BandFigure& f = answer.bands[i].figure;
        if (!f.solved || f.shareWithTuner < ofNoUse)
            none.push_back(wanted.bands[i].id);
        else if (f.share < ofUse && f.shareWithTuner >= ofUse)
            helped.push_back(wanted.bands[i].id);
    }
    std::vector<Text> all;
    if (!none.empty())
        all.push_back({coreText("core", "no %1"), bandNames(design, none)});
    if (!helped.empty())
        all.push_back({coreText("core", "tuner on %1"), bandNames(design, helped)});
    if (answer.takes.tunersAtFeed > 0)
        all.push_back(coreText("core", "a tuner outdoors"));
    if (answer.takes.links > 0)
        all.push_back(answer.takes.links == 1 ? Text(coreText("core", "a link to open by hand"))
                                              : Text(coreText("core", "%1 links to open by hand"), std::to_string(answer.takes.links)));
    if (answer.antennas.size() > 1)
        all.push_back({coreText("core", "%1 coaxes"), std::to_string(answer.antennas.size())});
    if (answer.takes.newPoles > 0)
        all.push_back(answer.takes.newPoles == 1 ? Text(coreText("core", "a new pole"))
                                                 : Text(coreText("core", "%1 new poles"), std::to_string(answer.takes.newPoles)));
    if (const double moved = worstInfluence(answer); moved > 0.0)
        all.push_back(
            {coreText("core", "what hangs beside moves a dip by %1"), Measure{1e3 * std::round(moved / 1e3), units::Quantity::Frequency}});
    return all;
}

} // namespace

/// @param once of answers with the same antennas in other places the best alone
std::vector<Answer> Advisor::best(std::size_t count, bool once) const
{
    std::vector<Answer> all;
    for (const auto& keys : m_answers)
        all.push_back(answerOf(keys));
    std::vector<Answer> out;
    std::vector<std::string> seen;
    for (std::size_t i : ranked(m_rules, all)) {
        if (out.size() >= count)
            break;
        std::vector<std::string> same;
        for (const TriedPointer& t : all[i].antennas)
            same.push_back(sameAntenna(*t));
        std::sort(same.begin(), same.end());
        std::string name = fmt::format("{}", fmt::join(same, " + "));
        if (once && std::find(seen.begin(), seen.end(), name) != seen.end())
            continue;
        seen.push_back(std::move(name));
        out.push_back(std::move(all[i]));
    }
    return out;
}

AdvicePointer Advisor::told(bool complete) const
{
    auto out = std::make_shared<Advice>();
    out->complete = complete;
    out->kept = m_kept;
    out->rules = m_rules;
    for (const std::string& key : m_order)
        out->tried.push_back(m_tried.at(key));
    for (const Plan& plan : m_plans)
        if (plan.pruned)
            out->tried.push_back(std::make_shared<const Tried>(byRule(plan, m_weighed)));
    out->places = m_plans.size();
    out->help = m_help;
    for (Answer& a : best(finalists, true)) {
        if (complete && !a.exact)
            continue;
        if (const auto known = m_influence.find(a.key()); known != m_influence.end())
            a.influence = known->second;
        a.givesUp = givenUp(a, m_weighed, m_design);
        out->answers.push_back(std::move(a));
    }
    for (const Family* family : shapes::families()) {
        const Tried* nearest = nullptr;
        bool can = false;
        for (const TriedPointer& pointer : out->tried)
            if (const Tried& t = *pointer; t.antenna.shape.family == family->id()) {
                can = can || t.usable();
                if (!t.byRule() && (!nearest || t.place.against < nearest->place.against))
                    nearest = &t;
            }
        if (nearest && !can)
            out->notPossible.push_back({family->id(), family->title(), nearest->reason});
    }
    out->rows = rowsOf(*out, m_design);
    return out;
}

} // namespace vetchling::advice
