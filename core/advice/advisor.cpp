#include "core/advice/advisor.h"

#include "core/study/neighbours.h"

#include <fmt/format.h>
#include <tbb/parallel_for.h>

#include <algorithm>
#include <cmath>
#include <numeric>
#include <set>

namespace vetchling::advice {
namespace {

using shapes::AntennaShape;
using shapes::Family;

constexpr std::size_t chunk = 8;             // that are tried side by side
constexpr std::size_t finalists = 10;        // that are told exactly
constexpr std::size_t mostExact = 36;        // antennas that are solved exactly
constexpr std::size_t mostTogether = 16;     // combinations of a size
constexpr std::size_t mostAttempts = 64;     // to hang one beside another
constexpr std::size_t severalFrom = 2;       // bands
constexpr double ofNoUse = 0.05, ofUse = 0.5; // of a band

/// What hangs on no wire of one's own, or needs what no site has.
bool isOffered(const Family& family) { return family.id() != "free" && family.id() != "mobile-whip"; }

/// Whether a family is made for such bands together: a coil and a tail add one an octave below.
bool suits(const Family& family, double low, double high)
{
    constexpr double least = 1.6, most = 2.4;
    return family.id() != "end-fed-tail" || (high > least * low && high < most * low);
}

/// It is cut for no band in particular.
bool isForNone(const Family& family)
{
    const std::string id = family.id();
    return id == "doublet" || id == "terminated-wire" || id == "non-resonant-vertical" || id == "long-v";
}

bool isForSeveral(const Family& family, double frequency)
{
    const AntennaShape shape = family.standardShape(frequency);
    const auto tuned = family.tuned(shape);
    return std::any_of(tuned.begin(), tuned.end(), [&](const shapes::TunedLength& t) { return t.frequency != tuned.front().frequency; });
}
bool goesDown(const Family& family, double frequency)
{
    const auto tuned = family.tuned(family.standardShape(frequency));
    return std::any_of(tuned.begin(), tuned.end(), [&](const shapes::TunedLength& t) { return t.frequency < frequency; });
}
/// Most bands of a family that has a number of them; 2 of one that has two.
int mostBandsOf(const Family& family, double frequency)
{
    const AntennaShape shape = family.standardShape(frequency);
    for (const char* key : {"band_count", "pair_count"})
        if (const shapes::ParameterSpec* spec = family.spec(shape, key))
            return int(std::lround(spec->highest));
    return 2;
}

std::string shortName(const std::string& band)
{
    const std::size_t blank = band.find(" m");
    return blank != std::string::npos && blank + 2 == band.size() ? band.substr(0, blank) : band;
}

std::string bandsInName(const Weighed& wanted, const std::vector<Id>& bands)
{
    std::string out;
    for (const WantedBand& w : wanted.bands)
        if (std::find(bands.begin(), bands.end(), w.id) != bands.end())
            out += (out.empty() ? "" : "/") + shortName(w.band.name);
    return out;
}

/// By rule, before it hangs anywhere. Of several bands: those of the plan alone.
template <class Plan> AntennaShape shapeOf(const Plan& plan, const Design& design)
{
    AntennaShape shape = plan.family->standardShape(plan.frequency);
    if (plan.count == 0)
        return shape;
    takeCount(shape, plan.count);
    std::vector<WantedBand> bands;
    for (const WantedBand& w : design.operation.bands)
        if (std::find(plan.bands.begin(), plan.bands.end(), w.id) != plan.bands.end())
            bands.push_back(w);
    takeBands(shape, bands, [](const std::string&) { return true; });
    return shape;
}

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
        planAll();
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

/// Each family for each band, or for runs of neighbouring bands and all that must be: those for what weighs most come first.
void Advisor::planAll()
{
    const auto& bands = m_weighed.bands;
    std::vector<std::vector<std::size_t>> several;
    for (std::size_t first = 0; first < bands.size(); ++first)
        for (std::size_t last = first + 1; last < bands.size(); ++last) {
            std::vector<std::size_t> run(last - first + 1);
            std::iota(run.begin(), run.end(), first);
            several.push_back(std::move(run));
        }
    std::vector<std::size_t> must;
    for (std::size_t i = 0; i < bands.size(); ++i)
        if (bands[i].wish == Wish::Must)
            must.push_back(i);
    for (std::size_t i = 0; i < bands.size() && !must.empty(); ++i) {
        std::vector<std::size_t> more = must;
        if (bands[i].wish != Wish::Must)
            more.insert(std::lower_bound(more.begin(), more.end(), i), i);
        if (more.size() >= severalFrom && std::find(several.begin(), several.end(), more) == several.end())
            several.push_back(more);
    }
    const auto add = [&](const Family& family, const std::vector<std::size_t>& which) {
        Plan plan;
        plan.family = &family;
        for (std::size_t i : which)
            plan.bands.push_back(bands[i].id);
        const double low = bands[which.front()].band.centre(), high = bands[which.back()].band.centre();
        plan.frequency = which.size() > 1 && goesDown(family, high) ? high : low;
        plan.count = which.size() > 1 ? int(which.size()) : 0;
        boundOf(plan);
        m_plans.push_back(std::move(plan));
    };
    for (const Family* family : shapes::families()) {
        if (!isOffered(*family))
            continue;
        const double any = bands.front().band.centre();
        if (!isForSeveral(*family, any)) {
            for (std::size_t i = 0; i < bands.size(); ++i)
                add(*family, {i});
            continue;
        }
        const std::size_t most = std::size_t(mostBandsOf(*family, any));
        for (const auto& run : several)
            if (run.size() <= most && suits(*family, bands[run.front()].band.centre(), bands[run.back()].band.centre()))
                add(*family, run);
    }
    std::stable_sort(m_plans.begin(), m_plans.end(), [&](const Plan& a, const Plan& b) {
        return wishOfReach(a.reach, nullptr) - a.effort > wishOfReach(b.reach, nullptr) - b.effort;
    });
}

/// Bands that it is cut for, those at its multiples, and all where it is cut for none in particular.
void Advisor::boundOf(Plan& plan) const
{
    const Family& family = *plan.family;
    AntennaShape shape = shapeOf(plan, m_design);
    double lowest = plan.frequency;
    for (const shapes::TunedLength& t : family.tuned(shape))
        lowest = std::min(lowest, t.frequency);
    const bool any = m_wish.tuner == TunerWish::AtFeed || isForNone(family);
    for (const WantedBand& w : m_weighed.bands)
        plan.reach.push_back(any || std::find(plan.bands.begin(), plan.bands.end(), w.id) != plan.bands.end() ||
                             isNearMultiple(family, w.band.centre() / lowest));
    Takes least;
    if (const auto built = shapes::buildOver(shape, {})) {
        least.coils = int(built->coils.size());
        least.traps = int(built->traps.size());
        least.links = int(built->links.size());
        for (const shapes::WireSection& section : built->sections)
            least.wire += 0.8 * section.pieces * section.length; // radials may turn out shorter
    }
    plan.effort = effortOf(m_rules, least);
}

double Advisor::wishOfReach(const std::vector<bool>& reach, const Answer* beside) const
{
    std::vector<double> most;
    for (std::size_t i = 0; i < reach.size(); ++i)
        most.push_back(reach[i] ? 1.0 : beside ? beside->bands[i].worth : 0.0);
    return wishOf(m_weighed.weights, most);
}

bool Advisor::mayMatter(const Plan& plan, const std::vector<Answer>& first) const
{
    if (first.size() < finalists)
        return true;
    const double least = first[finalists - 1].score;
    if (wishOfReach(plan.reach, nullptr) - plan.effort >= least)
        return true;
    Takes further;
    further.furtherAntennas = 1;
    const double one = effortOf(m_rules, further);
    return m_wish.antennas > 1 && !hasLike(plan) && std::any_of(first.begin(), first.end(), [&](const Answer& a) {
               return wishOfReach(plan.reach, &a) - a.effort - plan.effort - one >= least;
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

std::vector<Tried> Advisor::placesOf(const Plan& plan, const Bench& bench) const
{
    Design design = bench.design;
    if (plan.count > 0)
        std::erase_if(design.operation.bands,
                      [&](const WantedBand& w) { return std::find(plan.bands.begin(), plan.bands.end(), w.id) == plan.bands.end(); });
    std::vector<Tried> all;
    for (Proposal& p : proposalsOf(judgeOf(bench, PlaceOptions().room), design, *plan.family, plan.frequency, plan.count)) {
        Tried t;
        const std::string names = bandsInName(m_weighed, plan.bands);
        t.key = p.id + " " + names;
        t.bandsFor = plan.bands;
        p.antenna.name = p.title + " " + names;
        t.place = p.place;
        t.reason = p.place.fault;
        t.proposal = std::move(p);
        t.antenna = t.proposal.antenna;
        all.push_back(std::move(t));
    }
    return all;
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

/// Told, not looked into.
Tried Advisor::byRule(const Plan& plan) const
{
    Tried t;
    t.key = plan.family->id() + " by rule " + bandsInName(m_weighed, plan.bands);
    t.bandsFor = plan.bands;
    t.antenna.shape.family = plan.family->id();
    t.antenna.name = plan.family->title() + " " + bandsInName(m_weighed, plan.bands);
    t.bound = wishOfReach(plan.reach, nullptr);
    t.reason = {coreText("core", "not looked into: by rule it brings %1 of the wish at most, too little to come among the first"),
                fmt::format("{:.0f} %", 100.0 * t.bound)};
    return t;
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
    return all;
}

} // namespace

/// The antenna as it is where it fits beside others, else hung anew; nothing where there is no place.
std::optional<Tried> Advisor::beside(const std::vector<std::string>& hung, const std::string& key, const Watch& watch) const
{
    Design design = m_design;
    std::string besides;
    for (const std::string& other : hung) {
        hangUp(design, *m_tried.at(other));
        besides += " beside " + other;
    }
    const Bench here = bench(design);
    const Tried& alone = *m_tried.at(key);
    if (const Place place = judgeOf(here, 1.0).judge(alone.antenna.shape); place.allowed() && place.poles.size() == alone.place.poles.size())
        return alone;
    const auto plan = std::find_if(m_plans.begin(), m_plans.end(), [&](const Plan& p) {
        return p.family->id() == alone.antenna.shape.family && p.bands == alone.bandsFor;
    });
    if (plan == m_plans.end())
        return std::nullopt;
    for (Tried& t : placesOf(*plan, here)) {
        if (!t.reason.empty() || watch.stopped())
            continue;
        auto tried = tryOut(here, t, watch);
        if (!tried || !tried->usable())
            continue;
        Tried moved = std::move(tried).value();
        moved.key += besides;
        return moved;
    }
    return std::nullopt;
}

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

Faults Advisor::combine(const Watch& watch, const Better&)
{
    while (m_combined < std::size_t(std::max(1, m_wish.antennas))) {
        if (Faults faults = extend(m_combined, m_combined + 1, watch); !faults.empty())
            return faults;
        ++m_combined;
    }
    return {};
}

/// Bounded by the best of each band of both; the most promising are hung.
Faults Advisor::extend(std::size_t from, std::size_t to, const Watch& watch)
{
    const std::vector<Answer> all = best(m_answers.size(), true);
    std::vector<const Answer*> bases, singles;
    for (const Answer& a : all) {
        if (a.antennas.size() == from && (from == 1 || bases.size() < mostTogether / 2))
            bases.push_back(&a);
        if (a.antennas.size() == 1)
            singles.push_back(&a);
    }
    struct Together {
        const Answer *base, *more;
        double bound;
    };
    std::vector<Together> candidates;
    for (std::size_t i = 0; i < bases.size(); ++i)
        for (std::size_t j = from == 1 ? i + 1 : 0; j < singles.size(); ++j) {
            double sum = 0.0, weights = 0.0;
            for (std::size_t b = 0; b < m_weighed.weights.size(); ++b) {
                sum += m_weighed.weights[b] * std::max(bases[i]->bands[b].worth, singles[j]->bands[b].worth);
                weights += m_weighed.weights[b];
            }
            Takes takes = bases[i]->takes;
            takes += singles[j]->takes;
            takes.furtherAntennas = int(from);
            const double bound = sum / weights - effortOf(m_rules, takes);
            if (bound > std::max(bases[i]->score, singles[j]->score))
                candidates.push_back({bases[i], singles[j], bound});
        }
    std::stable_sort(candidates.begin(), candidates.end(), [](const Together& a, const Together& b) { return a.bound > b.bound; });
    std::size_t found = 0;
    for (std::size_t first = 0; first < std::min(candidates.size(), mostAttempts) && found < mostTogether; first += chunk) {
        const std::size_t last = std::min(first + chunk, candidates.size());
        std::vector<std::optional<Tried>> hung(last - first);
        const auto keysOf = [&](std::size_t i) {
            std::vector<std::string> keys;
            for (const TriedPointer& t : candidates[i].base->antennas)
                keys.push_back(t->key);
            return keys;
        };
        tbb::parallel_for(first, last, [&](std::size_t i) {
            if (!watch.stopped())
                hung[i - first] = beside(keysOf(i), candidates[i].more->antennas.front()->key, watch);
        });
        if (watch.stopped())
            return {stoppedFault()};
        for (std::size_t i = first; i < last; ++i)
            if (std::optional<Tried>& t = hung[i - first]) {
                std::vector<std::string> keys = keysOf(i);
                keys.push_back(t->key);
                m_tried.try_emplace(t->key, std::make_shared<const Tried>(*t));
                addAnswer(std::move(keys));
                ++found;
            }
        tell(0.6 + 0.05 * double(to - 1));
    }
    return {};
}

/// As the studies solve them, and in other seasons.
Faults Advisor::solveFinalists(const std::vector<std::string>& keys, const Watch& watch)
{
    std::vector<std::optional<Tried>> solved(keys.size());
    std::vector<Faults> faults(keys.size());
    tbb::parallel_for(std::size_t(0), keys.size(), [&](std::size_t i) {
        const Bench here = bench(m_design);
        auto exact = exactly(here, m_design, *m_tried.at(keys[i]), watch);
        if (exact)
            exact = inSeasons(here, std::move(exact).value(), watch);
        if (exact)
            solved[i] = std::move(exact).value();
        else
            faults[i] = exact.faults();
    });
    if (watch.stopped())
        return {stoppedFault()};
    for (std::size_t i = 0; i < keys.size(); ++i)
        if (solved[i])
            m_tried[keys[i]] = std::make_shared<const Tried>(std::move(*solved[i]));
        else {
            Tried failed = *m_tried.at(keys[i]);
            failed.reason = faults[i].front().message;
            m_tried[keys[i]] = std::make_shared<const Tried>(std::move(failed));
            std::erase_if(m_answers, [&](const auto& answer) { return std::find(answer.begin(), answer.end(), keys[i]) != answer.end(); });
        }
    return {};
}

std::size_t Advisor::exactOnes() const
{
    return std::size_t(std::count_if(m_tried.begin(), m_tried.end(), [](const auto& t) { return t.second->depth == Depth::Exact; }));
}

void Advisor::tell(double done) const
{
    if (m_progress)
        m_progress->report(done);
}

Faults Advisor::finish(const Watch& watch, const Better& better)
{
    for (TriedPointer& kept : m_kept)
        if (kept->depth != Depth::Exact) {
            auto exact = exactly(bench(m_design), m_design, *kept, watch);
            if (exact)
                exact = inSeasons(bench(m_design), std::move(exact).value(), watch);
            if (!exact)
                return exact.faults();
            kept = std::make_shared<const Tried>(std::move(exact).value());
        }
    const auto isExact = [](const Tried& t) { return t.depth == Depth::Exact; };
    while (exactOnes() < mostExact) {
        std::vector<std::string> open;
        for (const Answer& a : best(finalists, true))
            for (const TriedPointer& t : a.antennas)
                if (!isExact(*t) && open.size() < chunk && std::find(open.begin(), open.end(), t->key) == open.end())
                    open.push_back(t->key);
        if (open.empty())
            break;
        if (Faults faults = solveFinalists(open, watch); !faults.empty())
            return faults;
        tell(0.7 + 0.2 * std::min(1.0, double(exactOnes()) / double(mostExact)));
        if (better)
            better(told(false));
    }
    dropUnhangable();
    const std::vector<Answer> last = best(finalists, true);
    std::vector<std::vector<double>> moved(last.size());
    tbb::parallel_for(std::size_t(0), last.size(), [&](std::size_t i) { moved[i] = influenceOf(last[i], watch); });
    if (watch.stopped())
        return {stoppedFault()};
    for (std::size_t i = 0; i < last.size(); ++i)
        m_influence[last[i].key()] = std::move(moved[i]);
    return {};
}

/// Lengths have changed since they were hung: what has no room any more beside the others is no answer.
void Advisor::dropUnhangable()
{
    for (bool dropped = true; dropped;) {
        dropped = false;
        for (const Answer& a : best(finalists, true)) {
            Design design = m_design;
            bool hangs = true;
            for (const TriedPointer& t : a.antennas) {
                hangs = hangs && judgeOf(bench(design), 1.0).judge(t->antenna.shape).allowed();
                hangUp(design, *t);
            }
            if (!hangs) {
                const auto is = [&](const std::vector<std::string>& keys) { return answerOf(keys).key() == a.key(); };
                std::erase_if(m_answers, is);
                dropped = true;
            }
        }
    }
}

/// Hz that what hangs beside it moves each antenna's dip by, most.
std::vector<double> Advisor::influenceOf(const Answer& answer, const Watch& watch) const
{
    Design design = m_design;
    std::vector<double> moved;
    for (const Id& id : hangUp(design, answer)) {
        const Antenna& antenna = *findAntenna(design, id);
        const auto effects = neighbourEffects(m_library, design, antenna, bandFor(design, antenna.shape.designFrequency), 0, watch,
                                              study::Neighbourhood::Kind::Antenna);
        double most = 0.0;
        if (effects)
            for (const study::NeighbourEffect& e : *effects)
                if (std::abs(e.shift) > std::abs(most))
                    most = e.shift;
        moved.push_back(most);
    }
    return moved;
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
            out->tried.push_back(std::make_shared<const Tried>(byRule(plan)));
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
