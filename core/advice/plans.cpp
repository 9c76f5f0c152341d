#include "core/advice/plans.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numeric>

namespace vetchling::advice {
namespace {

using shapes::AntennaShape;
using shapes::Family;

constexpr std::size_t severalFrom = 2; // bands

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
AntennaShape shapeOf(const Plan& plan, const Design& design)
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

/// Bands that it is cut for, those at its multiples, and all where it is cut for none in particular.
void bound(Plan& plan, const Design& design, const AdviceWish& wish, const ScoreRules& rules, const Weighed& wanted)
{
    const Family& family = *plan.family;
    AntennaShape shape = shapeOf(plan, design);
    double lowest = plan.frequency;
    for (const shapes::TunedLength& t : family.tuned(shape))
        lowest = std::min(lowest, t.frequency);
    const bool any = wish.tuner == TunerWish::AtFeed || family.isForAnyBand();
    for (const WantedBand& w : wanted.bands)
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
    plan.effort = effortOf(rules, least);
}

} // namespace

double wishOfReach(const Weighed& wanted, const std::vector<bool>& reach, const std::vector<double>& besides)
{
    std::vector<double> most;
    for (std::size_t i = 0; i < reach.size(); ++i)
        most.push_back(reach[i] ? 1.0 : i < besides.size() ? besides[i] : 0.0);
    return wishOf(wanted.weights, most);
}

/// Each family for each band, or for runs of neighbouring bands and all that must be: those for what weighs most come first.
std::vector<Plan> plansFor(const Design& design, const AdviceWish& wish, const ScoreRules& rules)
{
    const Weighed wanted = weighed(design, rules);
    std::vector<Plan> all;
    const auto& bands = wanted.bands;
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
        bound(plan, design, wish, rules, wanted);
        all.push_back(std::move(plan));
    };
    for (const Family* family : shapes::families()) {
        if (!family->isForSites())
            continue;
        const double any = bands.front().band.centre();
        if (!isForSeveral(*family, any)) {
            for (std::size_t i = 0; i < bands.size(); ++i)
                add(*family, {i});
            continue;
        }
        const std::size_t most = std::size_t(mostBandsOf(*family, any));
        for (const auto& run : several)
            if (run.size() <= most && family->suits(bands[run.front()].band.centre(), bands[run.back()].band.centre()))
                add(*family, run);
    }
    std::stable_sort(all.begin(), all.end(), [&](const Plan& a, const Plan& b) {
        return wishOfReach(wanted, a.reach) - a.effort > wishOfReach(wanted, b.reach) - b.effort;
    });
    return all;
}

std::vector<Tried> placesOf(const Plan& plan, const Bench& bench)
{
    Design design = bench.design;
    if (plan.count > 0)
        std::erase_if(design.operation.bands,
                      [&](const WantedBand& w) { return std::find(plan.bands.begin(), plan.bands.end(), w.id) == plan.bands.end(); });
    const Weighed wanted = weighed(bench.design, bench.rules);
    std::vector<Tried> all;
    for (Proposal& p : proposalsOf(judgeOf(bench, PlaceOptions().room), design, *plan.family, plan.frequency, plan.count)) {
        Tried t;
        const std::string names = bandsInName(wanted, plan.bands);
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

/// Told, not looked into.
Tried byRule(const Plan& plan, const Weighed& wanted)
{
    Tried t;
    t.key = plan.family->id() + " by rule " + bandsInName(wanted, plan.bands);
    t.bandsFor = plan.bands;
    t.antenna.shape.family = plan.family->id();
    t.antenna.name = plan.family->title() + " " + bandsInName(wanted, plan.bands);
    t.bound = wishOfReach(wanted, plan.reach);
    t.reason = {coreText("core", "not looked into: by rule it brings %1 of the wish at most, too little to come among the first"),
                fmt::format("{:.0f} %", 100.0 * t.bound)};
    return t;
}

} // namespace vetchling::advice
