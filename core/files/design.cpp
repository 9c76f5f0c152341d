#include "core/files/design.h"

#include "core/files/metal.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cstdio>
#include <filesystem>
#include <fstream>
#include <set>

namespace vetchling::files {
namespace {

constexpr std::array<const char*, 5> supportKinds{"tower", "pole", "tree", "wall", "roof"};
constexpr std::array<const char*, 2> tuneGoals{"resonance", "lowest swr"};
constexpr std::array<const char*, 3> wishes{"no", "nice", "must"};

/// Index of a word in a list; a fault and 0 if it is none of them.
template <std::size_t N> std::size_t wordOf(const JsonNode& node, const char* key, const std::array<const char*, N>& words)
{
    const std::string text = node.text(key, words[0], true);
    for (std::size_t i = 0; i < N; ++i)
        if (text == words[i])
            return i;
    node.faultAt(key, "'" + text + "' is not known here; see docs/file-format.md");
    return 0;
}

std::string unknownOf(const Json& object, const std::set<std::string>& known)
{
    Json rest = Json::object();
    for (const auto& [key, value] : object.items())
        if (!known.count(key))
            rest[key] = value;
    return rest.empty() ? "" : rest.dump();
}

void addUnknown(Json& object, const std::string& fields)
{
    if (!fields.empty())
        object.update(Json::parse(fields, nullptr, false));
}

// ---- site

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

Site readSite(const JsonNode& node)
{
    Site site;
    site.name = node.text("name", "My site", true);
    if (const auto soil = node.object("soil"))
        site.soil = {soil->text("id", "", true), soil->text("name", "", true), soil->text("source", "", true),
                     soil->number("relative_permittivity", 13.0), soil->number("conductivity_S_per_m", 0.005)};
    site.boundary = readOutline(node, "boundary_m", true);
    site.wallHeight = node.number("wall_height_m", 0.0, true);
    for (const JsonNode& s : node.items("supports", true))
        site.supports.push_back({s.text("name"), SupportKind(wordOf(s, "kind", supportKinds)), readPlanPoint(s, "at_m"),
                                 s.number("height_m"), s.flag("metal", false)});
    for (const JsonNode& b : node.items("buildings", true))
        site.buildings.push_back(
            {b.text("name"), readOutline(b, "outline_m", false), b.number("eaves_m", 2.5, true), b.number("ridge_m", 4.0, true)});
    for (const JsonNode& w : node.items("waters", true))
        site.waters.push_back({w.text("name"), readOutline(w, "outline_m", false)});
    if (const auto line = node.object("power_line", true))
        site.powerLine = PowerLine{readPlanPoint(*line, "from_m"), readPlanPoint(*line, "to_m"), line->number("height_m", 8.0, true)};
    if (node.has("feed_entry_m"))
        site.feedEntry = readPlanPoint(node, "feed_entry_m");
    return site;
}

Json soilJson(const Soil& soil)
{
    return {{"id", soil.id},
            {"name", soil.name},
            {"source", soil.source},
            {"relative_permittivity", soil.relativePermittivity},
            {"conductivity_S_per_m", soil.conductivity}};
}

Json siteJson(const Site& site)
{
    Json out{
        {"name", site.name}, {"soil", soilJson(site.soil)}, {"boundary_m", outlineJson(site.boundary)}, {"wall_height_m", site.wallHeight}};
    out["supports"] = Json::array();
    for (const Support& s : site.supports)
        out["supports"].push_back({{"name", s.name},
                                   {"kind", supportKinds[std::size_t(s.kind)]},
                                   {"at_m", planPoint(s.at)},
                                   {"height_m", s.height},
                                   {"metal", s.metal}});
    out["buildings"] = Json::array();
    for (const Building& b : site.buildings)
        out["buildings"].push_back({{"name", b.name}, {"outline_m", outlineJson(b.outline)}, {"eaves_m", b.eaves}, {"ridge_m", b.ridge}});
    out["waters"] = Json::array();
    for (const Water& w : site.waters)
        out["waters"].push_back({{"name", w.name}, {"outline_m", outlineJson(w.outline)}});
    if (site.powerLine)
        out["power_line"] = {
            {"from_m", planPoint(site.powerLine->from)}, {"to_m", planPoint(site.powerLine->to)}, {"height_m", site.powerLine->height}};
    out["feed_entry_m"] = planPoint(site.feedEntry);
    return out;
}

// ---- operation

Operation readOperation(const JsonNode& node)
{
    Operation op;
    op.bandPlan = node.text("band_plan", op.bandPlan, true);
    for (const JsonNode& b : node.items("bands", true)) {
        WantedBand wanted{{b.text("name"), b.number("from_Hz"), b.number("to_Hz")}, Wish(wordOf(b, "wish", wishes))};
        if (!(wanted.band.from > 0.0 && wanted.band.to > wanted.band.from && wanted.band.to < 3e9))
            b.fault("the band's upper edge must be above its lower edge");
        op.bands.push_back(wanted);
    }
    op.swrLimit = node.number("swr_limit", 2.0, true);
    op.power = node.number("power_W", 100.0, true);
    op.system = node.text("units", "metric", true) == "imperial" ? units::System::Imperial : units::System::Metric;
    if (!(op.swrLimit > 1.0 && op.swrLimit <= 20.0))
        node.faultAt("swr_limit", "must be above 1 and at most 20");
    if (!(op.power > 0.0 && op.power <= 1e5))
        node.faultAt("power_W", "must be above 0 and at most 100 kW");
    return op;
}

Json operationJson(const Operation& op)
{
    Json out{{"band_plan", op.bandPlan},
             {"bands", Json::array()},
             {"swr_limit", op.swrLimit},
             {"power_W", op.power},
             {"units", op.system == units::System::Imperial ? "imperial" : "metric"}};
    for (const WantedBand& w : op.bands)
        out["bands"].push_back(
            {{"name", w.band.name}, {"from_Hz", w.band.from}, {"to_Hz", w.band.to}, {"wish", wishes[std::size_t(w.wish)]}});
    return out;
}

// ---- antennas

shapes::WireChoice readWireChoice(const JsonNode& node)
{
    const shapes::WireChoice d;
    return {node.text("conductor", d.conductor, true),
            readMetal(node),
            node.number("diameter_m", d.diameter, true),
            node.number("jacket_m", 0.0, true),
            node.number("jacket_relative_permittivity", 3.0, true),
            node.number("jacket_loss_tangent", 0.0, true)};
}

Json wireChoiceJson(const shapes::WireChoice& w)
{
    Json out{{"conductor", w.conductor},
             {"conductivity_S_per_m", w.metal.conductivity},
             {"relative_permeability", w.metal.relativePermeability},
             {"diameter_m", w.diameter},
             {"jacket_m", w.jacket},
             {"jacket_relative_permittivity", w.jacketPermittivity},
             {"jacket_loss_tangent", w.jacketLossTangent}};
    if (w.metal.coating)
        out["coating"] = coatingJson(w.metal);
    return out;
}

Allowances readAllowances(const JsonNode& node)
{
    const Allowances d;
    return {node.number("centre_m", d.centre, true), node.number("fold_m", d.fold, true), node.number("coil_tail_m", d.coilTail, true),
            node.number("joint_tail_m", d.jointTail, true), node.number("margin_percent", d.marginPercent, true)};
}

Json allowancesJson(const Allowances& a)
{
    return {{"centre_m", a.centre},
            {"fold_m", a.fold},
            {"coil_tail_m", a.coilTail},
            {"joint_tail_m", a.jointTail},
            {"margin_percent", a.marginPercent}};
}

TrimLog readTrim(const JsonNode& node)
{
    TrimLog log;
    log.target = node.number("target_Hz", 0.0, true);
    for (const JsonNode& m : node.items("measurements", true)) {
        log.measurements.push_back({m.text("when", "", true), m.text("remark", "", true), m.number("cut_each_end_m", 0.0, true),
                                    m.flag("folded", false), m.number("dip_Hz"), m.number("dip_swr", 0.0, true)});
        for (const Fault& fault : findMeasurementFaults(log.measurements.back()))
            m.fault(fault.message);
    }
    return log;
}

Json trimJson(const TrimLog& log)
{
    Json out{{"target_Hz", log.target}, {"measurements", Json::array()}};
    for (const Measurement& m : log.measurements)
        out["measurements"].push_back({{"when", m.when},
                                       {"remark", m.remark},
                                       {"cut_each_end_m", m.cutSinceLast},
                                       {"folded", m.folded},
                                       {"dip_Hz", m.dip},
                                       {"dip_swr", m.dipSwr}});
    return out;
}

Antenna readAntenna(const JsonNode& node)
{
    static const std::set<std::string> known{
        "name", "family", "design_frequency_Hz", "parameters", "typed", "wire", "allowances", "trim", "tune_for", "notes"};
    Antenna a;
    a.name = node.text("name");
    a.shape.family = node.text("family");
    if (!a.shape.family.empty() && !shapes::findFamily(a.shape.family))
        node.faultAt("family", "'" + a.shape.family + "' is not a family this program knows; a newer version may");
    a.shape.designFrequency = node.number("design_frequency_Hz", 7.1e6);
    if (node.has("design_frequency_Hz"))
        for (const Fault& fault : findFrequencyFaults(a.shape.designFrequency, ""))
            node.faultAt("design_frequency_Hz", fault.message);
    if (const auto parameters = node.object("parameters"))
        for (const auto& [key, value] : parameters->json().items())
            a.shape.parameters[key] = parameters->number(key);
    if (const auto typed = node.object("typed", true))
        for (const auto& [key, value] : typed->json().items())
            a.typed[key] = typed->text(key);
    if (const auto wire = node.object("wire", true))
        a.shape.wire = readWireChoice(*wire);
    if (const auto allowances = node.object("allowances", true))
        a.allowances = readAllowances(*allowances);
    if (const auto trim = node.object("trim", true))
        a.trim = readTrim(*trim);
    a.tuneForLowestSwr = wordOf(node, "tune_for", tuneGoals) == 1;
    a.notes = node.text("notes", "", true);
    a.unknownFields = node.json().is_object() ? unknownOf(node.json(), known) : "";
    return a;
}

Json antennaJson(const Antenna& a)
{
    Json out{{"name", a.name},
             {"family", a.shape.family},
             {"design_frequency_Hz", a.shape.designFrequency},
             {"parameters", Json::object()},
             {"typed", Json::object()}};
    for (const auto& [key, value] : a.shape.parameters)
        out["parameters"][key] = value;
    for (const auto& [key, value] : a.typed)
        out["typed"][key] = value;
    out["wire"] = wireChoiceJson(a.shape.wire);
    out["allowances"] = allowancesJson(a.allowances);
    out["trim"] = trimJson(a.trim);
    out["tune_for"] = tuneGoals[a.tuneForLowestSwr ? 1 : 0];
    out["notes"] = a.notes;
    addUnknown(out, a.unknownFields);
    return out;
}

void checkHead(const JsonNode& root)
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
    static const std::set<std::string> known{"format", "version", "site", "operation", "antennas"};
    const Result<Json> json = parseJson(text);
    if (!json)
        return json.faults();
    if (!json->is_object())
        return Fault{"", "a design is one object in braces"};
    Faults faults;
    const JsonNode root(*json, "", faults);
    checkHead(root);
    Design design;
    if (const auto site = root.object("site"))
        design.site = readSite(*site);
    if (const auto operation = root.object("operation", true))
        design.operation = readOperation(*operation);
    for (const JsonNode& a : root.items("antennas"))
        design.antennas.push_back(readAntenna(a));
    design.unknownFields = unknownOf(*json, known);
    if (!faults.empty())
        return faults;
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
    addUnknown(out, design.unknownFields);
    return out.dump(1, ' ', false, Json::error_handler_t::replace) + "\n";
}

Faults saveDesign(const Design& design, const std::string& path)
{
    namespace fs = std::filesystem;
    const std::string temporary = path + ".part";
    {
        std::ofstream file(temporary, std::ios::binary | std::ios::trunc);
        file << writeDesign(design);
        file.flush();
        if (!file) {
            std::error_code ignored;
            fs::remove(temporary, ignored);
            return {{path, "cannot be written; check the folder, its permissions and the free space"}};
        }
    }
    std::error_code error;
    fs::rename(temporary, path, error);
    if (!error)
        return {};
    std::error_code ignored;
    fs::remove(temporary, ignored);
    return {{path, "cannot be replaced (" + error.message() + ")"}};
}

} // namespace vetchling::files
