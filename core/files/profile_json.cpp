#include "core/files/profile_json.h"

#include "core/files/data.h"
#include "core/files/data_folder.h"

#include <algorithm>
#include <cmath>

namespace vetchling::files {

TerrainProfile readProfile(const JsonNode& node)
{
    TerrainProfile profile;
    for (const JsonNode& corner : node.items("profile"))
        profile.corners.push_back({corner.number("x_m"), corner.number("z_m")});
    for (const JsonNode& soil : node.items("soils"))
        profile.soils.push_back({GroundKind::Real, soil.number("relative_permittivity", 1.0), soil.number("conductivity_S_per_m"),
                                 soil.number("pair_frequency_Hz", 0.0, true)});
    return profile;
}

namespace {

using Point = GroundProfile::Point;

/// Of the program's data.
Point::Kind kindOf(const JsonNode& node, const std::string& id)
{
    static const Result<std::vector<Soil>> soils = readSoils(findDataFolder() + "/soils.json");
    if (!soils) {
        node.faultAt("soil", soils.faults().front().message);
        return {};
    }
    const auto soil = std::find_if(soils->begin(), soils->end(), [&](const Soil& s) { return s.id == id; });
    if (soil == soils->end()) {
        node.faultAt("soil", {coreText("core", "there is no soil %1 in the data; give its figures"), id});
        return {};
    }
    return {id, {soil->relativePermittivity, soil->conductivity}, soil->pairFrequency};
}

Point::Kind ownKind(const JsonNode& node)
{
    Point::Kind kind{"",
                     {node.number("relative_permittivity", 13.0), node.number("conductivity_S_per_m", 0.005)},
                     node.number("pair_frequency_Hz", 0.0, true)};
    if (!(kind.figures.relativePermittivity >= 1.0 && kind.figures.relativePermittivity <= 200.0))
        node.faultAt("relative_permittivity", "must be from 1 to 200");
    if (!(kind.figures.conductivity >= 0.0 && kind.figures.conductivity <= 100.0))
        node.faultAt("conductivity_S_per_m", "must be from 0 to 100 S/m");
    return kind;
}

Point readPoint(const JsonNode& node)
{
    Point p{node.number("distance_m"), node.number("height_m", 0.0, true)};
    if (node.has("soil") && node.json()["soil"].is_string())
        p.soil = kindOf(node, node.text("soil"));
    else if (const auto own = node.object("soil", true))
        p.soil = ownKind(*own);
    p.kept = node.rest();
    return p;
}

} // namespace

GroundProfile readGroundProfile(const JsonNode& node)
{
    constexpr double farthest = 1e5, highest = 1e4; // m
    constexpr std::size_t most = 1000;
    GroundProfile out{node.text("name", "", true), node.number("bearing_deg"), {}, node.text("id", "", true), {}};
    for (const JsonNode& item : node.items("points"))
        out.points.push_back(readPoint(item));
    if (out.points.size() > most)
        node.faultAt("points", {coreText("core", "at most %1 points"), std::to_string(most)});
    for (std::size_t i = 0; i < out.points.size() && i < most; ++i) {
        const Point& p = out.points[i];
        const std::string path = "points[" + std::to_string(i) + "]";
        if (!(p.distance >= 0.0 && p.distance <= farthest) || (i > 0 && p.distance < out.points[i - 1].distance))
            node.faultAt(path + ".distance_m", coreText("core", "must be 0 to 100 km, and not before the point before it"));
        if (!(std::abs(p.height) <= highest))
            node.faultAt(path + ".height_m", coreText("core", "must be within 10 km"));
        if (i > 0 && p.distance == out.points[i - 1].distance && p.height == out.points[i - 1].height)
            node.faultAt(path, coreText("core", "stands where the point before it stands"));
    }
    out.kept = node.rest();
    return out;
}

GeoPlace readGeoPlace(const JsonNode& node)
{
    const GeoPlace place{node.number("latitude_deg"), node.number("longitude_deg")};
    if (!(std::abs(place.latitude) <= 90.0))
        node.faultAt("latitude_deg", coreText("core", "must be within 90 degrees"));
    if (!(std::abs(place.longitude) <= 180.0))
        node.faultAt("longitude_deg", coreText("core", "must be within 180 degrees"));
    return place;
}

Json groundProfileJson(const GroundProfile& profile)
{
    Json out{{"id", profile.id}, {"name", profile.name}, {"bearing_deg", profile.bearing}, {"points", Json::array()}};
    for (const Point& p : profile.points) {
        Json point{{"distance_m", p.distance}, {"height_m", p.height}};
        if (p.soil && !p.soil->id.empty())
            point["soil"] = p.soil->id;
        else if (p.soil) {
            point["soil"] = {{"relative_permittivity", p.soil->figures.relativePermittivity},
                             {"conductivity_S_per_m", p.soil->figures.conductivity}};
            if (p.soil->pairFrequency > 0.0)
                point["soil"]["pair_frequency_Hz"] = p.soil->pairFrequency;
        }
        addKept(point, p.kept);
        out["points"].push_back(std::move(point));
    }
    addKept(out, profile.kept);
    return out;
}

} // namespace vetchling::files
