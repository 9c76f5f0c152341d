#include "core/files/design_parts.h"
#include "core/files/profile_json.h"

namespace vetchling::files {
namespace {

constexpr std::array<const char*, 5> supportKinds{"tower", "pole", "tree", "wall", "roof"};

PlanPoint readPlanPoint(const JsonNode& node, const char* key)
{
    const std::vector<double> p = node.numbers(key, 2);
    return p.size() == 2 ? PlanPoint{p[0], p[1]} : PlanPoint{};
}

/// All its corners or none.
Outline readCorners(const JsonNode& list)
{
    Outline outline;
    for (const JsonNode& item : list.ownItems())
        if (const std::vector<double> p = item.ownNumbers(2); p.size() == 2)
            outline.push_back({p[0], p[1]});
    return outline;
}

Outline readOutline(const JsonNode& node, const char* key)
{
    Outline outline;
    if (!node.has(key))
        node.faultAt(key, "is missing; give a list");
    else
        outline = readCorners(node.at(key));
    return outline;
}

std::optional<SoilFigures> readFigures(const JsonNode& node, const char* key)
{
    return node.partAt(key, [](const JsonNode& figures) {
        return SoilFigures{figures.number("relative_permittivity", 13.0), figures.number("conductivity_S_per_m", 0.005)};
    });
}

Json figuresJson(const SoilFigures& f)
{
    return {{"relative_permittivity", f.relativePermittivity}, {"conductivity_S_per_m", f.conductivity}};
}

FarGround readFarGround(const JsonNode& node)
{
    FarGround g{node.text("name", "ground", true),
                node.number("from_bearing_deg"),
                node.number("to_bearing_deg"),
                node.number("distance_m"),
                node.number("relative_permittivity", 70.0, true),
                node.number("conductivity_S_per_m", 5.0, true),
                node.text("id", "", true),
                {}};
    if (!(g.distance >= 0.0))
        node.faultAt("distance_m", "must be 0 or more");
    if (!(g.relativePermittivity >= 1.0 && g.relativePermittivity <= 200.0))
        node.faultAt("relative_permittivity", "must be from 1 to 200");
    if (!(g.conductivity >= 0.0 && g.conductivity <= 100.0))
        node.faultAt("conductivity_S_per_m", "must be from 0 to 100 S/m");
    g.kept = node.rest();
    return g;
}

Json farGroundJson(const FarGround& g)
{
    return withKept({{"id", g.id},
                     {"name", g.name},
                     {"from_bearing_deg", g.fromBearing},
                     {"to_bearing_deg", g.toBearing},
                     {"distance_m", g.distance},
                     {"relative_permittivity", g.relativePermittivity},
                     {"conductivity_S_per_m", g.conductivity}},
                    g.kept);
}

Json planPoint(PlanPoint p) { return Json::array({p.x, p.y}); }

Json outlineJson(const Outline& outline)
{
    Json out = Json::array();
    for (PlanPoint p : outline)
        out.push_back(planPoint(p));
    return out;
}

Support readSupport(const JsonNode& node)
{
    Support s{node.text("name", "support", true), SupportKind(wordOf(node, "kind", supportKinds)),
              readPlanPoint(node, "at_m"),        node.number("height_m"),
              node.flag("metal", false),          node.text("id", "", true)};
    s.kept = node.rest();
    return s;
}

Building readBuilding(const JsonNode& node)
{
    Building b{node.text("name", "building", true), readOutline(node, "outline_m"), node.number("eaves_m", 2.5, true),
               node.number("ridge_m", 4.0, true), node.text("id", "", true)};
    b.kept = node.rest();
    return b;
}

Water readWater(const JsonNode& node)
{
    Water w{node.text("name", "water", true), readOutline(node, "outline_m"), node.text("id", "", true)};
    w.kept = node.rest();
    return w;
}

PowerLine readPowerLine(const JsonNode& node)
{
    PowerLine line{readPlanPoint(node, "from_m"), readPlanPoint(node, "to_m"), node.number("height_m", 8.0, true)};
    line.kept = node.rest();
    return line;
}

Json supportJson(const Support& s)
{
    return withKept({{"id", s.id},
                     {"name", s.name},
                     {"kind", supportKinds[std::size_t(s.kind)]},
                     {"at_m", planPoint(s.at)},
                     {"height_m", s.height},
                     {"metal", s.metal}},
                    s.kept);
}

Json buildingJson(const Building& b)
{
    return withKept({{"id", b.id}, {"name", b.name}, {"outline_m", outlineJson(b.outline)}, {"eaves_m", b.eaves}, {"ridge_m", b.ridge}},
                    b.kept);
}

Json powerLineJson(const PowerLine& line)
{
    return withKept({{"from_m", planPoint(line.from)}, {"to_m", planPoint(line.to)}, {"height_m", line.height}}, line.kept);
}

} // namespace

void readSeasons(const JsonNode& node, Soil& soil)
{
    soil.dry = readFigures(node, "dry");
    soil.wet = readFigures(node, "wet");
}

std::vector<std::string> readTexts(const JsonNode& node, const char* key)
{
    std::vector<std::string> texts;
    for (const JsonNode& item : node.items(key, true))
        if (item.json().is_string())
            texts.push_back(item.json().get<std::string>());
        else
            item.standsIn("must be a text in quotes");
    return texts;
}

Json textsJson(const std::vector<std::string>& texts)
{
    Json out = Json::array();
    for (const std::string& text : texts)
        out.push_back(text);
    return out;
}

Soil readSoil(const JsonNode& node)
{
    Soil soil{node.text("id", "", true), node.text("name", "", true), node.text("source", "", true),
              node.number("relative_permittivity", 13.0), node.number("conductivity_S_per_m", 0.005)};
    soil.pairFrequency = node.number("pair_frequency_Hz", 0.0, true);
    for (const Fault& fault : findPairFaults(soil.ground()))
        node.faultAt("pair_frequency_Hz", fault.message);
    readSeasons(node, soil);
    soil.kept = node.rest();
    return soil;
}

Json soilJson(const Soil& soil)
{
    Json out{{"id", soil.id},
             {"name", soil.name},
             {"source", soil.source},
             {"relative_permittivity", soil.relativePermittivity},
             {"conductivity_S_per_m", soil.conductivity}};
    if (soil.pairFrequency > 0.0)
        out["pair_frequency_Hz"] = soil.pairFrequency;
    if (soil.dry)
        out["dry"] = figuresJson(*soil.dry);
    if (soil.wet)
        out["wet"] = figuresJson(*soil.wet);
    return withKept(std::move(out), soil.kept);
}

Site readSite(const JsonNode& node)
{
    Site site;
    site.name = node.text("name", "My site", true);
    if (!node.has("soil"))
        node.standsIn("soil", "is missing; the average one is used");
    site.soil = node.partAt("soil", readSoil).value_or(site.soil);
    site.boundary = node.valueAt("boundary_m", readCorners).value_or(Outline());
    site.wallHeight = node.number("wall_height_m", 0.0, true);
    site.boundaryMayBeCrossed = node.flag("boundary_may_be_crossed", false);
    site.supports = node.parts("supports", readSupport);
    site.buildings = node.parts("buildings", readBuilding);
    site.waters = node.parts("waters", readWater);
    site.powerLine = node.partAt("power_line", readPowerLine);
    site.powerLineUnread = node.has("power_line") && !site.powerLine;
    if (const auto entry = node.numbers("feed_entry_m", 2, true); entry.size() == 2)
        site.feedEntry = {entry[0], entry[1]};
    site.coaxRoute = node.valueAt("coax_route_m", readCorners).value_or(Outline());
    site.farGrounds = node.parts("far_grounds", readFarGround);
    site.profiles = node.parts("profiles", readGroundProfile);
    site.countsAsFlat = node.flag("counts_as_flat", false);
    site.place = node.partAt("place", readGeoPlace);
    site.notes = node.text("notes", "", true);
    site.pictures = readTexts(node, "pictures");
    site.kept = node.rest();
    return site;
}

Json siteJson(const Site& site)
{
    Json out{
        {"name", site.name}, {"soil", soilJson(site.soil)}, {"boundary_m", outlineJson(site.boundary)}, {"wall_height_m", site.wallHeight}};
    if (site.boundaryMayBeCrossed)
        out["boundary_may_be_crossed"] = true;
    out["supports"] = Json::array();
    for (const Support& s : site.supports)
        out["supports"].push_back(supportJson(s));
    out["buildings"] = Json::array();
    for (const Building& b : site.buildings)
        out["buildings"].push_back(buildingJson(b));
    out["waters"] = Json::array();
    for (const Water& w : site.waters)
        out["waters"].push_back(withKept({{"id", w.id}, {"name", w.name}, {"outline_m", outlineJson(w.outline)}}, w.kept));
    if (site.powerLine)
        out["power_line"] = powerLineJson(*site.powerLine);
    out["feed_entry_m"] = planPoint(site.feedEntry);
    if (!site.coaxRoute.empty())
        out["coax_route_m"] = outlineJson(site.coaxRoute);
    for (const FarGround& g : site.farGrounds)
        out["far_grounds"].push_back(farGroundJson(g));
    for (const GroundProfile& p : site.profiles)
        out["profiles"].push_back(groundProfileJson(p));
    if (site.countsAsFlat)
        out["counts_as_flat"] = true;
    if (site.place)
        out["place"] = {{"latitude_deg", site.place->latitude}, {"longitude_deg", site.place->longitude}};
    if (!site.notes.empty())
        out["notes"] = site.notes;
    if (!site.pictures.empty())
        out["pictures"] = textsJson(site.pictures);
    addKept(out, site.kept);
    return out;
}

} // namespace vetchling::files
