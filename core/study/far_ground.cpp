#include "core/study/far_ground.h"

#include "core/physics.h"
#include "core/study/sky.h"

#include <algorithm>
#include <cmath>

namespace vetchling::study {
namespace {

constexpr double within = 5.0, neighbours = 30.0; // degrees

double turn(double from, double to) { return to - from - 360.0 * std::floor((to - from) / 360.0); }

/// A piece of ground from a distance outwards.
struct Step {
    double distance, height;
    std::optional<Ground> soil; ///< from here on
};

std::vector<Step> stepsOf(const GroundProfile& profile)
{
    std::vector<Step> all;
    if (profile.points.empty() || profile.points.front().distance > 0.0)
        all.push_back({0.0, 0.0, std::nullopt});
    for (const GroundProfile::Point& p : profile.points) {
        std::optional<Ground> soil = all.empty() ? std::nullopt : all.back().soil;
        if (p.soil)
            soil = Ground{GroundKind::Real, p.soil->figures.relativePermittivity, p.soil->figures.conductivity, p.soil->pairFrequency};
        all.push_back({p.distance, p.height, soil});
    }
    return all;
}

const GroundProfile* opposite(const Site& site, const GroundProfile& profile)
{
    const auto away = [&](const GroundProfile& p) { return std::abs(turn(profile.bearing, p.bearing) - 180.0); };
    const auto nearest = std::min_element(site.profiles.begin(), site.profiles.end(),
                                          [&](const GroundProfile& a, const GroundProfile& b) { return away(a) < away(b); });
    return nearest != site.profiles.end() && away(*nearest) <= within ? &*nearest : nullptr;
}

FarSector sectorOf(const Site& site, const GroundProfile& profile)
{
    double before = HUGE_VAL, after = HUGE_VAL;
    for (const GroundProfile& other : site.profiles)
        if (&other != &profile && other.bearing != profile.bearing) {
            before = std::min(before, turn(other.bearing, profile.bearing));
            after = std::min(after, turn(profile.bearing, other.bearing));
        }
    const bool mixedBefore = before <= neighbours, mixedAfter = after <= neighbours;
    FarSector sector;
    sector.from = radians(90.0 - profile.bearing - (mixedAfter ? 0.0 : within)); // bearings turn the other way
    sector.width = radians((mixedBefore ? 0.0 : within) + (mixedAfter ? 0.0 : within));
    sector.fadeBefore = mixedAfter ? radians(after) : 0.0;
    sector.fadeAfter = mixedBefore ? radians(before) : 0.0;
    std::vector<Step> steps = stepsOf(profile);
    if (const GroundProfile* behind = opposite(site, profile)) {
        const std::vector<Step> back = stepsOf(*behind);
        for (auto s = back.rbegin(); s != back.rend(); ++s) {
            sector.soils.push_back(s->soil);
            if (s->distance > 0.0)
                sector.corners.push_back({-s->distance, s->height});
        }
    } else {
        sector.soils.push_back(steps.front().soil);
    }
    for (const Step& s : steps) {
        sector.corners.push_back({s.distance, s.height});
        sector.soils.push_back(s.soil);
    }
    return sector;
}

} // namespace

std::vector<FarSector> sectorsOf(const Site& site)
{
    std::vector<FarSector> all;
    if (site.countsAsFlat)
        return all;
    for (const GroundProfile& p : site.profiles)
        all.push_back(sectorOf(site, p));
    for (const FarGround& g : site.farGrounds) {
        const double over = g.toBearing - g.fromBearing, width = over >= 360.0 ? 360.0 : turn(g.fromBearing, g.toBearing);
        all.push_back(shoreSector(radians(90.0 - g.toBearing), radians(width), g.distance, g.ground()));
    }
    return all;
}

std::optional<FarSector> groundTowards(const Site& site, double bearing)
{
    std::optional<FarSector> best;
    double most = 0.0;
    for (FarSector& s : sectorsOf(site))
        if (const double share = s.shareAt(azimuthOf(bearing)); share > most + 1e-9) {
            most = share;
            best = std::move(s);
        }
    return best;
}

Result<std::vector<PlaceGain>> gainsByPlace(const em::FarField& field, const Site& site, const PlaceQuery& query, const Watch& watch,
                                            const std::function<void(const std::vector<PlaceGain>&)>& soFar)
{
    std::vector<PlaceGain> all;
    const std::optional<FarSector> ground = groundTowards(site, query.bearing);
    const double azimuth = azimuthOf(query.bearing), elevation = radians(query.elevation);
    for (int i = -query.steps; i <= query.steps && ground && !watch.stopped(); ++i) {
        PlaceGain one{query.reach * i / query.steps, 0.0, std::nullopt};
        FarSector there = ground->movedBy(one.away);
        there.from = azimuth - 0.01, there.width = 0.02; // whatever is beside it
        const em::FarField moved = field.over({there});
        one.gain = moved.gain(elevation, azimuth);
        if (field.hangsFree())
            one.higher = moved.raisedBy(PlaceGain::raisedBy).gain(elevation, azimuth);
        all.push_back(one);
        watch.report(double(all.size()) / (2.0 * query.steps + 1.0));
        if (soFar)
            soFar(all);
    }
    return unlessStopped(watch, std::move(all));
}

} // namespace vetchling::study
