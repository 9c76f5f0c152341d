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

namespace {

/// Whether a mast may stand there, and some steps beside it.
bool isFirm(const TerrainProfile& line, double x)
{
    constexpr double beside = 4.0, steepest = 0.35, water = 1.0; // m, of the rise, S/m
    for (double at : {x - beside, x, x + beside})
        if (line.soilAt(at).conductivity > water)
            return false;
    return std::abs(line.heightAt(x + beside) - line.heightAt(x - beside)) < 2.0 * beside * steepest;
}

} // namespace

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

Result<std::optional<em::FarField>> fieldHigher(em::GroundTableCache& tables, const em::Solution& fromLine, const Watch& watch)
{
    constexpr double onGround = 0.3; // m
    if (fromLine.model->lowestPoint() < onGround)
        return std::optional<em::FarField>();
    WireModel model = *fromLine.model;
    for (Wire& wire : model.wires)
        for (Vec3& v : wire.points)
            v.z += PlaceGain::raisedBy;
    const auto solution = em::solve(std::make_shared<const WireModel>(std::move(model)), fromLine.frequency, tables, {}, watch);
    if (!solution)
        return solution.faults();
    const double passed = (fromLine.inputPower - fromLine.transformerPower) / fromLine.inputPower;
    return std::optional(em::FarField(*solution).fedWith(solution->inputPower / std::max(passed, 1e-9)));
}

Result<std::vector<PlaceGain>> gainsByPlace(const em::FarField& field, const std::optional<em::FarField>& higher, const Site& site,
                                            const PlaceQuery& query, const Watch& watch,
                                            const std::function<void(const std::vector<PlaceGain>&)>& soFar)
{
    std::vector<PlaceGain> all;
    const std::optional<FarSector> ground = groundTowards(site, query.bearing);
    const double azimuth = azimuthOf(query.bearing), elevation = radians(query.elevation);
    const TerrainProfile line = ground ? ground->over(site.soil.ground()) : TerrainProfile();
    for (int i = -query.steps; i <= query.steps && ground && !watch.stopped(); ++i) {
        PlaceGain one{query.reach * i / query.steps, 0.0, isFirm(line, query.reach * i / query.steps), std::nullopt};
        FarSector there = ground->movedBy(one.away);
        there.from = azimuth - 0.01, there.width = 0.02; // whatever is beside it
        one.gain = field.over({there}).gain(elevation, azimuth);
        if (higher)
            one.higher = higher->over({there}).gain(elevation, azimuth);
        all.push_back(one);
        watch.report(double(all.size()) / (2.0 * query.steps + 1.0));
        if (soFar)
            soFar(all);
    }
    return unlessStopped(watch, std::move(all));
}

} // namespace vetchling::study
