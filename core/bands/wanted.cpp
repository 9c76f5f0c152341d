#include "core/bands/wanted.h"

#include <fmt/format.h>

#include <algorithm>

namespace vetchling {
namespace {

constexpr double ownRange = 0.01; // either side

void sortByFrequency(std::vector<WantedBand>& bands)
{
    std::sort(bands.begin(), bands.end(), [](const WantedBand& a, const WantedBand& b) { return a.band.from < b.band.from; });
}

bool holds(const Band& band, double frequency) { return frequency >= band.from && frequency <= band.to; }

std::vector<Segment> segmentsOf(const BandPlan& plan, const std::string& band)
{
    const auto found = plan.segments.find(band);
    return found == plan.segments.end() ? std::vector<Segment>() : found->second;
}

/// New edges and segments; wishes stay, and so do segments that no plan has.
void take(WantedBand& known, const Band& band, std::vector<Segment> segments)
{
    for (const Segment& old : known.segments) {
        const auto same = std::find_if(segments.begin(), segments.end(), [&](const Segment& s) { return s.name == old.name; });
        if (same != segments.end())
            same->wish = old.wish;
        else if (old.wish != Wish::No && old.from >= band.from && old.to <= band.to)
            segments.push_back(old);
    }
    std::sort(segments.begin(), segments.end(), [](const Segment& a, const Segment& b) { return a.from < b.from; });
    known.band = band;
    known.segments = std::move(segments);
}

} // namespace

void putIn(const BandPlan& plan, std::vector<WantedBand>& bands)
{
    for (const Band& b : plan.bands) {
        const auto known = std::find_if(bands.begin(), bands.end(), [&](const WantedBand& w) { return w.band.name == b.name; });
        if (known != bands.end())
            take(*known, b, segmentsOf(plan, b.name));
        else
            bands.push_back({b, Wish::No, {}, {}, segmentsOf(plan, b.name)});
    }
    sortByFrequency(bands);
}

void wishFor(std::vector<WantedBand>& bands, double frequency, Wish wish, const BandPlan* plan)
{
    const auto held = std::find_if(bands.begin(), bands.end(), [&](const WantedBand& w) { return holds(w.band, frequency); });
    if (held != bands.end()) {
        held->wish = std::max(held->wish, wish);
        return;
    }
    if (plan)
        for (const Band& b : plan->bands)
            if (holds(b, frequency) && !overlapsAny(bands, b.from, b.to)) {
                bands.push_back({b, wish, {}, {}, segmentsOf(*plan, b.name)});
                sortByFrequency(bands);
                return;
            }
    addRange(bands, (1.0 - ownRange) * frequency, (1.0 + ownRange) * frequency, wish);
}

void wishByConditions(std::vector<WantedBand>& bands, Conditions conditions)
{
    constexpr double shortWave = 30e6;
    struct Open {
        double from, to;
    };
    const Open open = conditions == Conditions::DayHighSun     ? Open{9e6, shortWave}
                      : conditions == Conditions::DayLowSun    ? Open{6.9e6, 18.5e6}
                      : conditions == Conditions::NightHighSun ? Open{1.7e6, 14.5e6}
                                                               : Open{1.7e6, 7.5e6};
    int musts = 2;
    for (auto w = bands.rbegin(); w != bands.rend(); ++w) {
        if (w->band.from > shortWave)
            continue;
        const bool isOpen = w->band.from >= open.from && w->band.to <= open.to;
        w->wish = !isOpen ? Wish::No : musts-- > 0 ? Wish::Must : Wish::Nice;
    }
}

bool addSegment(std::vector<WantedBand>& bands, const std::string& name, double from, double to, Wish wish)
{
    for (WantedBand& w : bands) {
        if (!(from >= w.band.from && to <= w.band.to && to > from))
            continue;
        w.segments.push_back({name, from, to, wish});
        std::sort(w.segments.begin(), w.segments.end(), [](const Segment& a, const Segment& b) { return a.from < b.from; });
        w.wish = std::max(w.wish, wish);
        return true;
    }
    return false;
}

bool overlapsAny(const std::vector<WantedBand>& bands, double from, double to)
{
    return std::any_of(bands.begin(), bands.end(), [&](const WantedBand& w) { return from < w.band.to && to > w.band.from; });
}

void takeOut(const BandPlan& plan, std::vector<WantedBand>& bands)
{
    std::erase_if(bands, [&](const WantedBand& w) {
        return w.wish == Wish::No &&
               std::any_of(plan.bands.begin(), plan.bands.end(), [&](const Band& b) { return b.name == w.band.name; });
    });
}

void addRange(std::vector<WantedBand>& bands, double from, double to, Wish wish, const std::string& name)
{
    bands.push_back({{!name.empty() ? name : fmt::format("{:.5g} MHz", 0.5e-6 * (from + to)), from, to}, wish, {}, {}, {}});
    sortByFrequency(bands);
}

double centreOf(const std::vector<WantedBand>& bands, const std::string& name)
{
    const auto named = std::find_if(bands.begin(), bands.end(), [&](const WantedBand& w) { return w.band.name == name; });
    return named == bands.end() ? 0.0 : named->band.centre();
}

double proposedFrequency(const std::vector<WantedBand>& bands)
{
    double nice = 0.0, must = 0.0;
    for (const WantedBand& w : bands) {
        if (w.wish == Wish::Must && must == 0.0)
            must = w.band.centre();
        if (w.wish == Wish::Nice && nice == 0.0)
            nice = w.band.centre();
    }
    constexpr double usual = 7.1e6;
    return must > 0.0 ? must : nice > 0.0 ? nice : usual;
}

} // namespace vetchling
