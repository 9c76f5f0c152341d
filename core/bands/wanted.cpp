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

} // namespace

void putIn(const BandPlan& plan, std::vector<WantedBand>& bands)
{
    for (const Band& b : plan.bands) {
        const auto known = std::find_if(bands.begin(), bands.end(), [&](const WantedBand& w) { return w.band.name == b.name; });
        if (known != bands.end())
            known->band = b;
        else
            bands.push_back({b, Wish::No, {}, {}});
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
                bands.push_back({b, wish, {}, {}});
                sortByFrequency(bands);
                return;
            }
    addRange(bands, (1.0 - ownRange) * frequency, (1.0 + ownRange) * frequency, wish);
}

bool overlapsAny(const std::vector<WantedBand>& bands, double from, double to)
{
    return std::any_of(bands.begin(), bands.end(), [&](const WantedBand& w) { return from < w.band.to && to > w.band.from; });
}

void addRange(std::vector<WantedBand>& bands, double from, double to, Wish wish)
{
    bands.push_back({{fmt::format("{:.5g} MHz", 0.5e-6 * (from + to)), from, to}, wish, {}, {}});
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
        if (w.wish == Wish::Must)
            must = w.band.centre();
        if (w.wish == Wish::Nice && nice == 0.0)
            nice = w.band.centre();
    }
    constexpr double usual = 7.1e6;
    return must > 0.0 ? must : nice > 0.0 ? nice : usual;
}

} // namespace vetchling
