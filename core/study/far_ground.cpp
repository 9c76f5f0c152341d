#include "core/study/far_ground.h"

#include "core/physics.h"

#include <algorithm>
#include <cmath>

namespace vetchling::study {
namespace {

constexpr double within = 5.0; // degrees

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
    double before = within, after = within;
    for (const GroundProfile& other : site.profiles)
        if (&other != &profile && other.bearing != profile.bearing) {
            before = std::min(before, 0.5 * turn(other.bearing, profile.bearing));
            after = std::min(after, 0.5 * turn(profile.bearing, other.bearing));
        }
    FarSector sector;
    sector.from = radians(90.0 - profile.bearing - after); // bearings turn the other way
    sector.width = radians(before + after);
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
    for (const GroundProfile& p : site.profiles)
        all.push_back(sectorOf(site, p));
    for (const FarGround& g : site.farGrounds) {
        const double over = g.toBearing - g.fromBearing, width = over >= 360.0 ? 360.0 : turn(g.fromBearing, g.toBearing);
        all.push_back(shoreSector(radians(90.0 - g.toBearing), radians(width), g.distance, g.ground()));
    }
    return all;
}

} // namespace vetchling::study
