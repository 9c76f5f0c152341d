#include "core/files/design_parts.h"

namespace vetchling::files {
namespace {

constexpr std::array<const char*, 5> supportKinds{"tower", "pole", "tree", "wall", "roof"};

PlanPoint readPlanPoint(const JsonNode& node, const char* key)
{
    const std::vector<double> p = node.numbers(key, 2);
    return p.size() == 2 ? PlanPoint{p[0], p[1]} : PlanPoint{};
}

Outline readOutline(const JsonNode& node, const char* key, bool optional)
{
    Outline outline;
    for (const JsonNode& item : node.items(key, optional))
        if (const std::vector<double> p = item.ownNumbers(2); p.size() == 2)
            outline.push_back({p[0], p[1]});
    return outline;
}

Json planPoint(PlanPoint p) { return Json::array({p.x, p.y}); }

Json outlineJson(const Outline& outline)
{
    Json out = Json::array();
    for (PlanPoint p : outline)
        out.push_back(planPoint(p));
    return out;
}

Soil readSoil(const JsonNode& node)
{
    Soil soil{node.text("id", "", true), node.text("name", "", true), node.text("source", "", true),
              node.number("relative_permittivity", 13.0), node.number("conductivity_S_per_m", 0.005)};
    soil.kept = node.rest();
    return soil;
}

Support readSupport(const JsonNode& node)
{
    Support s{node.text("name"),           SupportKind(wordOf(node, "kind", supportKinds)),
              readPlanPoint(node, "at_m"), node.number("height_m"),
              node.flag("metal", false),   node.text("id", "", true)};
    s.kept = node.rest();
    return s;
}

Building readBuilding(const JsonNode& node)
{
    Building b{node.text("name"), readOutline(node, "outline_m", false), node.number("eaves_m", 2.5, true),
               node.number("ridge_m", 4.0, true), node.text("id", "", true)};
    b.kept = node.rest();
    return b;
}

Water readWater(const JsonNode& node)
{
    Water w{node.text("name"), readOutline(node, "outline_m", false), node.text("id", "", true)};
    w.kept = node.rest();
    return w;
}

PowerLine readPowerLine(const JsonNode& node)
{
    PowerLine line{readPlanPoint(node, "from_m"), readPlanPoint(node, "to_m"), node.number("height_m", 8.0, true)};
    line.kept = node.rest();
    return line;
}

Json soilJson(const Soil& soil)
{
    return withKept({{"id", soil.id},
                     {"name", soil.name},
                     {"source", soil.source},
                     {"relative_permittivity", soil.relativePermittivity},
                     {"conductivity_S_per_m", soil.conductivity}},
                    soil.kept);
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

Site readSite(const JsonNode& node)
{
    Site site;
    site.name = node.text("name", "My site", true);
    if (const auto soil = node.object("soil"))
        site.soil = readSoil(*soil);
    site.boundary = readOutline(node, "boundary_m", true);
    site.wallHeight = node.number("wall_height_m", 0.0, true);
    for (const JsonNode& s : node.items("supports", true))
        site.supports.push_back(readSupport(s));
    for (const JsonNode& b : node.items("buildings", true))
        site.buildings.push_back(readBuilding(b));
    for (const JsonNode& w : node.items("waters", true))
        site.waters.push_back(readWater(w));
    if (const auto line = node.object("power_line", true))
        site.powerLine = readPowerLine(*line);
    if (node.has("feed_entry_m"))
        site.feedEntry = readPlanPoint(node, "feed_entry_m");
    site.kept = node.rest();
    return site;
}

Json siteJson(const Site& site)
{
    Json out{
        {"name", site.name}, {"soil", soilJson(site.soil)}, {"boundary_m", outlineJson(site.boundary)}, {"wall_height_m", site.wallHeight}};
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
    addKept(out, site.kept);
    return out;
}

} // namespace vetchling::files
