#include "core/bands/free_lengths.h"

#include "core/root.h"

#include <algorithm>
#include <cmath>

namespace vetchling {
namespace {

/// Half waves on the wire, from the shortest to the longest that a band and the velocity factor allow, m.
struct HalfWaves {
    double shortest, longest;
};

HalfWaves halfWavesOf(const Band& band, const FreeLengthOptions& options)
{
    return {0.5 * options.lowestVelocity * speedOfLight / band.to, 0.5 * options.highestVelocity * speedOfLight / band.from};
}

std::vector<HalfWaves> halfWavesOf(const std::vector<Band>& bands, const FreeLengthOptions& options)
{
    std::vector<HalfWaves> all;
    for (const Band& b : bands)
        all.push_back(halfWavesOf(b, options));
    return all;
}

/// How far a length lies above the multiple below it and below the one above, as parts; the first grows with the length.
struct Distances {
    double fromBelow = HUGE_VAL, fromAbove = HUGE_VAL;
};

Distances distancesOf(double length, const HalfWaves& h, DistanceMeasure measure)
{
    constexpr double rounding = 1e-12;
    Distances out;
    const double low = length / h.longest, high = length / h.shortest;
    const double below = std::floor(low * (1.0 + rounding)), above = std::max(1.0, std::ceil(high * (1.0 - rounding)));
    if (below >= 1.0)
        out.fromBelow = measure == DistanceMeasure::HalfWave ? low - below : low / below - 1.0;
    out.fromAbove = measure == DistanceMeasure::HalfWave ? above - high : 1.0 - high / above;
    if (above <= below || above - below > 1.5) // a multiple lies between
        out.fromBelow = out.fromAbove = 0.0;
    return out;
}

Distances smallest(double length, const std::vector<HalfWaves>& all, DistanceMeasure measure)
{
    Distances out;
    for (const HalfWaves& h : all) {
        const Distances d = distancesOf(length, h, measure);
        out.fromBelow = std::min(out.fromBelow, d.fromBelow);
        out.fromAbove = std::min(out.fromAbove, d.fromAbove);
    }
    return out;
}

/// What every band leaves of the range, in rising order; pieces may be single points.
std::vector<std::pair<double, double>> allowed(const std::vector<Band>& bands, const FreeLengthOptions& o)
{
    std::vector<std::pair<double, double>> forbidden; // open intervals
    for (const Band& band : bands)
        for (const HalfWaveZone& zone : halfWaveZones(band, o))
            forbidden.emplace_back(zone.from, zone.to);
    std::sort(forbidden.begin(), forbidden.end());
    std::vector<std::pair<double, double>> left;
    double at = o.from;
    for (const auto& [from, to] : forbidden) {
        if (from >= at)
            left.emplace_back(at, std::min(from, o.to));
        at = std::max(at, to);
    }
    if (at <= o.to)
        left.emplace_back(at, o.to);
    return left;
}

/// Where the distance from below, which rises, meets the one from above, which falls.
FreeInterval judged(double from, double to, const std::vector<HalfWaves>& all, DistanceMeasure measure)
{
    const auto rises = [&](double length) {
        const Distances d = smallest(length, all, measure);
        return d.fromBelow >= d.fromAbove;
    };
    const double best = rises(from) ? from : !rises(to) ? to : lastWhere([&](double length) { return !rises(length); }, from, to, 80);
    const Distances there = smallest(best, all, measure);
    return {from, to, best, 100.0 * std::min(there.fromBelow, there.fromAbove)};
}

Faults faultsOf(const std::vector<Band>& bands, const FreeLengthOptions& o)
{
    Faults faults;
    if (bands.empty())
        faults.push_back({"--band", coreText("core", "name at least one band")});
    for (const Band& b : bands)
        if (!(b.from >= lowestFrequency && b.to > b.from && b.to <= highestFrequency))
            faults.push_back({"--band", coreText("core", "a band's upper edge must be above its lower edge, between 0.1 MHz and 3 GHz")});
    if (!(o.lowestVelocity >= 0.3 && o.highestVelocity >= o.lowestVelocity && o.highestVelocity <= 1.0))
        faults.push_back({"--velocity-factor", coreText("core", "velocity factors lie between 0.3 and 1, the lower one first")});
    if (!(o.marginPercent >= 0.0 && o.marginPercent < 50.0))
        faults.push_back({"--margin", coreText("core", "a margin lies between 0 and 50 percent")});
    if (!(o.from > 0.0 && o.to > o.from && o.to <= 1e5))
        faults.push_back({"--from", coreText("core", "give a range of lengths from a shorter to a longer one")});
    return faults;
}

} // namespace

std::vector<HalfWaveZone> halfWaveZones(const Band& band, const FreeLengthOptions& options)
{
    const HalfWaves h = halfWavesOf(band, options);
    const double m = 0.01 * options.marginPercent;
    const bool byHalfWave = options.measure == DistanceMeasure::HalfWave;
    std::vector<HalfWaveZone> all;
    for (int n = 1;; ++n) {
        const HalfWaveZone zone = byHalfWave ? HalfWaveZone{n, (n - m) * h.shortest, (n + m) * h.longest}
                                             : HalfWaveZone{n, n * h.shortest * (1.0 - m), n * h.longest * (1.0 + m)};
        if (zone.from >= options.to)
            return all;
        all.push_back(zone);
    }
}

double distanceFromMultiples(double length, const std::vector<Band>& bands, const FreeLengthOptions& options)
{
    const Distances d = smallest(length, halfWavesOf(bands, options), options.measure);
    return 100.0 * std::max(0.0, std::min(d.fromBelow, d.fromAbove));
}

Result<std::vector<FreeInterval>> freeLengths(const std::vector<Band>& bands, const FreeLengthOptions& options)
{
    if (Faults faults = faultsOf(bands, options); !faults.empty())
        return faults;
    const std::vector<HalfWaves> all = halfWavesOf(bands, options);
    std::vector<FreeInterval> out;
    for (const auto& [from, to] : allowed(bands, options))
        out.push_back(judged(from, to, all, options.measure));
    std::stable_sort(out.begin(), out.end(),
                     [](const FreeInterval& a, const FreeInterval& b) { return a.distancePercent > b.distancePercent + 1e-12; });
    return out;
}

} // namespace vetchling
