#include "core/advice/advisor.h"
#include "core/study/neighbours.h"

#include <tbb/parallel_for.h>

#include <algorithm>
#include <cmath>

namespace vetchling::advice {
namespace {

constexpr std::size_t mostExact = 60;    // antennas that are solved exactly
constexpr std::size_t mostTogether = 16; // combinations of a size
constexpr std::size_t mostAttempts = 64; // to hang one beside another

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
    if (const Place place = judgeOf(here, 1.0).judge(alone.antenna.shape);
        place.allowed() && place.poles.size() == alone.place.poles.size())
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

} // namespace vetchling::advice
