#include "core/advice/score.h"

#include <algorithm>
#include <numeric>

namespace vetchling::advice {

double weightOf(const ScoreRules& rules, Wish wish, bool favourite)
{
    const double weight = wish == Wish::Must ? rules.must : wish == Wish::Nice ? rules.nice : 0.0;
    return favourite ? rules.favourite * weight : weight;
}

double worthOf(const ScoreRules& rules, double share, double shareWithTuner, double against)
{
    const double usable = share + rules.withTuner * std::max(0.0, shareWithTuner - share);
    const double heard = std::clamp(0.5 + against / rules.heardRange, 0.0, 1.0);
    return usable * (rules.matchPart + (1.0 - rules.matchPart) * heard);
}

double wishOf(const std::vector<double>& weights, const std::vector<double>& worths)
{
    const double all = std::accumulate(weights.begin(), weights.end(), 0.0);
    double sum = 0.0; // what is not known of a band is worth nothing
    for (std::size_t i = 0; i < weights.size() && i < worths.size(); ++i)
        sum += weights[i] * worths[i];
    return all > 0.0 ? sum / all : 0.0;
}

double wishWithSeasons(const ScoreRules& rules, double wish, const std::vector<double>& seasons)
{
    if (seasons.empty())
        return wish;
    return (1.0 - rules.worstPart) * wish + rules.worstPart * *std::min_element(seasons.begin(), seasons.end());
}

Takes& Takes::operator+=(const Takes& other)
{
    wire += other.wire;
    furtherAntennas += other.furtherAntennas, newPoles += other.newPoles, tunersAtFeed += other.tunersAtFeed;
    coils += other.coils, traps += other.traps, links += other.links, cautions += other.cautions;
    return *this;
}

double effortOf(const ScoreRules& rules, const Takes& takes)
{
    return rules.wireCosts * std::min(1.0, takes.wire / rules.wire) +
           rules.thingCosts * (takes.furtherAntennas + takes.newPoles + takes.tunersAtFeed) +
           rules.partCosts * (takes.coils + takes.traps + takes.links + takes.cautions);
}

double scoreOf(double wish, double effort) { return std::max(0.0, wish - effort); }

std::vector<std::size_t> rankingOf(const ScoreRules& rules, const std::vector<Ranked>& all)
{
    std::vector<std::size_t> order(all.size());
    std::iota(order.begin(), order.end(), std::size_t(0));
    std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) { return all[a].score > all[b].score; });
    // "the same" is no order: from the best down, each takes those that are the same as it is before what is worse
    for (std::size_t first = 0; first < order.size();) {
        std::size_t last = first + 1;
        while (last < order.size() && all[order[first]].score - all[order[last]].score <= rules.same)
            ++last;
        std::stable_sort(order.begin() + long(first), order.begin() + long(last),
                         [&](std::size_t a, std::size_t b) { return all[a].wire < all[b].wire; });
        first = last;
    }
    return order;
}

} // namespace vetchling::advice
