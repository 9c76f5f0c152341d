#include "core/wire/terrain_profile.h"

#include <cmath>

namespace vetchling {

double TerrainProfile::heightAt(double x) const
{
    if (corners.empty())
        return 0.0;
    if (x <= corners.front().x)
        return corners.front().z;
    for (std::size_t i = 1; i < corners.size(); ++i)
        if (const ProfilePoint& a = corners[i - 1], &b = corners[i]; x <= b.x)
            return a.z + (b.z - a.z) * (b.x > a.x ? (x - a.x) / (b.x - a.x) : 1.0);
    return corners.back().z;
}

const Ground& TerrainProfile::soilAt(double x) const
{
    std::size_t i = 0;
    while (i < corners.size() && x > corners[i].x)
        ++i;
    return soils[i];
}

Faults findFaults(const TerrainProfile& profile)
{
    constexpr double farthest = 2e5, highest = 1e4; // m
    constexpr std::size_t most = 2000;
    Faults faults;
    if (profile.soils.size() != profile.corners.size() + 1)
        faults.push_back({"soils", coreText("core", "there must be one soil more than the profile has corners")});
    if (profile.corners.size() > most)
        faults.push_back({"profile", {coreText("core", "at most %1 corners"), std::to_string(most)}});
    for (std::size_t i = 0; i < profile.corners.size() && faults.empty(); ++i) {
        const ProfilePoint& p = profile.corners[i];
        const std::string path = "profile[" + std::to_string(i) + "]";
        if (!(std::abs(p.x) <= farthest) || !(std::abs(p.z) <= highest))
            faults.push_back({path, coreText("core", "farther than 200 km or higher than 10 km")});
        else if (i > 0 && (p.x < profile.corners[i - 1].x || p == profile.corners[i - 1]))
            faults.push_back({path, coreText("core", "the distances must rise from corner to corner")});
    }
    for (std::size_t i = 0; i < profile.soils.size(); ++i)
        if (const Ground& g = profile.soils[i];
            g.kind == GroundKind::Real &&
            (!(g.relativePermittivity >= 1.0 && g.relativePermittivity <= 1e3) || !(g.conductivity >= 0.0 && g.conductivity <= 1e4)))
            faults.push_back(
                {"soils[" + std::to_string(i) + "]", coreText("core", "permittivity from 1 to 1000, conductivity from 0 to 10000 S/m")});
    return faults;
}

} // namespace vetchling
