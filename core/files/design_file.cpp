#include "core/files/design_file.h"

#include "core/files/design_parts.h"
#include "core/files/writer.h"

#include <fmt/format.h>

namespace vetchling::files {
namespace {

constexpr std::array<const char*, 3> wishes{"no", "nice", "must"};

Tolerances readTolerances(const JsonNode& node)
{
    const Tolerances d;
    Tolerances t{node.number("height_m", d.height, true),
                 node.number("cut_m", d.cut, true),
                 node.number("unequal_m", d.unequal, true),
                 node.number("jacket_m", d.jacket, true),
                 node.number("soil_conductivity_factor", d.soilConductivity, true),
                 node.number("soil_permittivity_factor", d.soilPermittivity, true),
                 {}};
    for (const char* key : {"height_m", "cut_m", "unequal_m", "jacket_m"})
        if (!(node.number(key, 0.0, true) >= 0.0))
            node.faultAt(key, "must be 0 or more");
    for (const char* key : {"soil_conductivity_factor", "soil_permittivity_factor"})
        if (!(node.number(key, 1.0, true) >= 1.0))
            node.faultAt(key, "must be 1 or more");
    t.kept = node.rest();
    return t;
}

Json tolerancesJson(const Tolerances& t)
{
    return withKept({{"height_m", t.height},
                     {"cut_m", t.cut},
                     {"unequal_m", t.unequal},
                     {"jacket_m", t.jacket},
                     {"soil_conductivity_factor", t.soilConductivity},
                     {"soil_permittivity_factor", t.soilPermittivity}},
                    t.kept);
}

Operation readOperation(const JsonNode& node)
{
    Operation op;
    op.bandPlan = node.text("band_plan", op.bandPlan, true);
    for (const JsonNode& b : node.items("bands", true)) {
        WantedBand wanted{
            {b.text("name"), b.number("from_Hz"), b.number("to_Hz")}, Wish(wordOf(b, "wish", wishes)), b.text("id", "", true), {}, {}};
        for (const JsonNode& s : b.items("segments", true)) {
            const Segment segment{s.text("name"), s.number("from_Hz"), s.number("to_Hz"), Wish(wordOf(s, "wish", wishes))};
            if (!(segment.from >= wanted.band.from && segment.to > segment.from && segment.to <= wanted.band.to))
                s.fault("a segment must lie inside its band, its upper edge above its lower edge");
            wanted.segments.push_back(segment);
        }
        wanted.kept = b.rest();
        if (!(wanted.band.from > 0.0 && wanted.band.to > wanted.band.from && wanted.band.to <= 3e9))
            b.fault("the band's upper edge must be above its lower edge");
        op.bands.push_back(wanted);
    }
    op.swrLimit = node.number("swr_limit", 2.0, true);
    op.reference = node.number("reference_ohm", op.reference, true);
    op.favourite = node.text("favourite", "", true);
    op.aimElevation = node.number("aim_elevation_deg", op.aimElevation, true);
    if (node.has("aim_bearing_deg"))
        op.aimBearing = node.number("aim_bearing_deg");
    op.aimSector = node.number("aim_sector_deg", 0.0, true);
    if (const auto against = node.object("against", true))
        op.against = readAgainst(*against);
    op.power = node.number("power_W", 100.0, true);
    if (const auto tolerances = node.object("tolerances", true))
        op.tolerances = readTolerances(*tolerances);
    op.system = node.text("units", "metric", true) == "imperial" ? units::System::Imperial : units::System::Metric;
    if (!(op.swrLimit > 1.0 && op.swrLimit <= 20.0))
        node.faultAt("swr_limit", "must be above 1 and at most 20");
    if (!(op.reference >= 1.0 && op.reference <= 1e4))
        node.faultAt("reference_ohm", "must be from 1 to 10000 ohm");
    if (!(op.aimElevation > 0.0 && op.aimElevation <= 90.0))
        node.faultAt("aim_elevation_deg", "must be above 0 and at most 90 degrees");
    if (!(op.aimSector >= 0.0 && op.aimSector <= 360.0))
        node.faultAt("aim_sector_deg", "must be from 0 to 360 degrees");
    if (!(op.power > 0.0 && op.power <= 1e5))
        node.faultAt("power_W", "must be above 0 and at most 100 kW");
    op.kept = node.rest();
    return op;
}

Json operationJson(const Operation& op)
{
    Json out{{"band_plan", op.bandPlan},  {"bands", Json::array()},
             {"swr_limit", op.swrLimit},  {"reference_ohm", op.reference},
             {"favourite", op.favourite}, {"aim_elevation_deg", op.aimElevation},
             {"power_W", op.power},       {"units", op.system == units::System::Imperial ? "imperial" : "metric"}};
    if (op.aimBearing)
        out["aim_bearing_deg"] = *op.aimBearing;
    if (op.aimSector > 0.0)
        out["aim_sector_deg"] = op.aimSector;
    if (op.against != Against())
        out["against"] = againstJson(op.against);
    for (const WantedBand& w : op.bands) {
        Json band{
            {"id", w.id}, {"name", w.band.name}, {"from_Hz", w.band.from}, {"to_Hz", w.band.to}, {"wish", wishes[std::size_t(w.wish)]}};
        for (const Segment& s : w.segments)
            band["segments"].push_back({{"name", s.name}, {"from_Hz", s.from}, {"to_Hz", s.to}, {"wish", wishes[std::size_t(s.wish)]}});
        out["bands"].push_back(withKept(std::move(band), w.kept));
    }
    if (op.tolerances != Tolerances())
        out["tolerances"] = tolerancesJson(op.tolerances);
    addKept(out, op.kept);
    return out;
}

void checkDesignHead(const JsonNode& root)
{
    const std::string format = root.text("format");
    if (!format.empty() && format != "vetchling-design")
        root.faultAt("format", "is '" + format + "'; a design says vetchling-design");
    const double version = root.number("version");
    if (root.has("version") && root.json()["version"].is_number() && (version < 1 || version > designVersion))
        root.faultAt("version", fmt::format("is {}; this program reads up to {}, so a newer program is needed", version, designVersion));
}

} // namespace

Result<Design> parseDesign(const std::string& text)
{
    const Result<Json> json = parseJson(text);
    if (!json)
        return json.faults();
    if (!json->is_object())
        return Fault{"", "a design is one object in braces"};
    Faults faults;
    const JsonNode root(*json, "", faults);
    checkDesignHead(root);
    Design design;
    if (const auto site = root.object("site"))
        design.site = readSite(*site);
    if (const auto operation = root.object("operation", true))
        design.operation = readOperation(*operation);
    for (const JsonNode& a : root.items("antennas"))
        design.antennas.push_back(readAntenna(a));
    design.kept = root.rest();
    if (!faults.empty())
        return faults;
    nameThings(design);
    settleFeeds(design);
    return design;
}

Result<Design> readDesign(const std::string& path)
{
    const Result<std::string> text = readTextFile(path);
    if (!text)
        return text.faults();
    return parseDesign(*text);
}

std::string writeDesign(const Design& design)
{
    Json out{{"format", "vetchling-design"},
             {"version", designVersion},
             {"site", siteJson(design.site)},
             {"operation", operationJson(design.operation)},
             {"antennas", Json::array()}};
    for (const Antenna& a : design.antennas)
        out["antennas"].push_back(antennaJson(a));
    addKept(out, design.kept);
    return out.dump(1, ' ', false, Json::error_handler_t::replace) + "\n";
}

Faults saveDesign(const Design& design, const std::string& path) { return writeWhole(path, writeDesign(design)); }

} // namespace vetchling::files
