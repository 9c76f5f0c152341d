#include "core/files/wire_file.h"

#include "core/files/profile_json.h"

#include <fmt/format.h>

#include <cmath>
#include <map>

namespace vetchling::files {
namespace {

constexpr int wireFileVersion = 1;
constexpr std::size_t mostFrequencies = 100000, mostDirections = 1000000;

Ground readGround(const JsonNode& root)
{
    Ground ground;
    const auto node = root.object("ground");
    if (!node)
        return ground;
    const std::string kind = node->text("kind");
    if (kind == "real") {
        ground.kind = GroundKind::Real;
        ground.relativePermittivity = node->number("relative_permittivity", 1.0);
        ground.conductivity = node->number("conductivity_S_per_m");
        ground.pairFrequency = node->number("pair_frequency_Hz", 0.0, true);
    } else if (kind == "perfect")
        ground.kind = GroundKind::Perfect;
    else if (kind != "free-space" && !kind.empty())
        node->faultAt("kind", "is '" + kind + "'; write free-space, perfect or real");
    return ground;
}

Wire readWire(const JsonNode& node)
{
    Wire wire;
    wire.id = node.text("id");
    for (const JsonNode& point : node.items("points_m"))
        if (const std::vector<double> p = point.ownNumbers(3); p.size() == 3)
            wire.points.push_back({p[0], p[1], p[2]});
    wire.radius = node.number("radius_m");
    wire.endRadius = node.optionalNumber("end_radius_m");
    wire.conductivity = node.optionalNumber("conductivity_S_per_m");
    wire.relativePermeability = node.number("relative_permeability", 1.0, true);
    wire.wall = node.number("wall_m", 0.0, true);
    if (const auto coating = node.object("coating", true))
        wire.coating = Coating{coating->number("thickness_m"), coating->number("conductivity_S_per_m"),
                               coating->number("relative_permeability", 1.0, true)};
    if (const auto jacket = node.object("insulation", true))
        wire.insulation = Insulation{jacket->number("outer_radius_m"), jacket->number("relative_permittivity"),
                                     jacket->number("loss_tangent", 0.0, true)};
    return wire;
}

using WireNames = std::map<std::string, std::size_t>;

WireNames readWires(const JsonNode& root, WireModel& model)
{
    WireNames names;
    for (const JsonNode& node : root.items("wires")) {
        model.wires.push_back(readWire(node));
        const std::string& id = model.wires.back().id;
        if (!id.empty() && !names.emplace(id, model.wires.size() - 1).second)
            node.faultAt("id", "'" + id + "' is already the name of another wire; give each its own");
    }
    if (root.has("wires") && root.json()["wires"].is_array() && model.wires.empty())
        root.faultAt("wires", "there is no wire; add one with two or more points");
    return names;
}

/// Index of the wire a feed or load names.
std::size_t wireOf(const JsonNode& node, const WireNames& names)
{
    const std::string id = node.text("wire");
    const auto found = names.find(id);
    if (found != names.end())
        return found->second;
    if (!id.empty())
        node.faultAt("wire", "there is no wire '" + id + "'; use the id of one of the wires");
    return 0;
}

void readFeeds(const JsonNode& root, const WireNames& names, WireModel& model)
{
    for (const JsonNode& node : root.items("feeds")) {
        Feed feed{wireOf(node, names), node.number("at_m"), {1.0, 0.0}};
        if (node.has("voltage_V"))
            if (const std::vector<double> v = node.numbers("voltage_V", 2); v.size() == 2)
                feed.voltage = {v[0], v[1]};
        if (const auto t = node.object("transformer", true))
            feed.transformer = Transformer{t->number("ratio", 1.0),
                                           t->number("leakage_H", 0.0, true),
                                           t->number("magnetising_H", 0.0, true),
                                           t->number("core_loss_ohm", 0.0, true),
                                           {},
                                           t->number("capacitance_F", 0.0, true)};
        model.feeds.push_back(feed);
    }
}

void readLoads(const JsonNode& root, const WireNames& names, WireModel& model)
{
    for (const JsonNode& node : root.items("loads", true)) {
        Load load;
        load.wire = wireOf(node, names);
        load.at = node.number("at_m");
        const std::string kind = node.text("kind", "series", true);
        if (kind == "parallel")
            load.kind = LoadKind::Parallel;
        else if (kind != "series")
            node.faultAt("kind", "is '" + kind + "'; write series or parallel");
        load.resistance = node.number("resistance_ohm", 0.0, true);
        load.inductance = node.number("inductance_H", 0.0, true);
        load.capacitance = node.number("capacitance_F", 0.0, true);
        load.q = node.number("q", 0.0, true);
        load.selfResonance = node.number("self_resonance_Hz", 0.0, true);
        load.size = {node.number("length_m", 0.0, true), node.number("diameter_m", 0.0, true), node.number("wire_diameter_m", 0.0, true)};
        model.loads.push_back(load);
    }
}

void readLines(const JsonNode& root, const WireNames& names, WireModel& model)
{
    for (const JsonNode& node : root.items("lines", true)) {
        LineSection line;
        if (const auto from = node.object("from"))
            line.fromWire = wireOf(*from, names), line.fromAt = from->number("at_m");
        const std::string end = node.text("end", "joined", true);
        if (end == "short" || end == "open")
            line.end = end == "short" ? LineEnd::Short : LineEnd::Open;
        else if (end != "joined")
            node.faultAt("end", "is '" + end + "'; write joined, short or open");
        else if (const auto to = node.object("to"))
            line.toWire = wireOf(*to, names), line.toAt = to->number("at_m");
        line.characteristicImpedance = node.number("impedance_ohm");
        line.length = node.number("length_m");
        line.velocityFactor = node.number("velocity_factor", 1.0, true);
        line.lossPerMetre = node.number("loss_dB_per_m", 0.0, true);
        line.crossed = node.flag("crossed", false);
        line.k1 = node.number("k1_dB_per_100m", 0.0, true);
        line.k2 = node.number("k2_dB_per_100m", 0.0, true);
        model.lines.push_back(line);
    }
}

Json lineJson(const WireModel& model, const LineSection& l)
{
    const auto place = [&](std::size_t wire, double at) { return Json{{"wire", model.wires[wire].id}, {"at_m", at}}; };
    Json line{{"from", place(l.fromWire, l.fromAt)},
              {"impedance_ohm", l.characteristicImpedance},
              {"length_m", l.length},
              {"velocity_factor", l.velocityFactor},
              {"loss_dB_per_m", l.lossPerMetre}};
    if (l.end == LineEnd::Joined)
        line["to"] = place(l.toWire, l.toAt);
    else
        line["end"] = l.end == LineEnd::Short ? "short" : "open";
    if (l.k1 != 0.0 || l.k2 != 0.0)
        line["k1_dB_per_100m"] = l.k1, line["k2_dB_per_100m"] = l.k2;
    if (l.crossed)
        line["crossed"] = true;
    return line;
}

void readFrequencies(const JsonNode& root, WireCase& wires, Faults& faults)
{
    wires.frequencies = root.numbers("frequencies_Hz");
    if (wires.frequencies.empty() && root.has("frequencies_Hz") && root.json()["frequencies_Hz"].empty())
        root.faultAt("frequencies_Hz", "is empty; give one frequency or more");
    if (wires.frequencies.size() > mostFrequencies)
        root.faultAt("frequencies_Hz", fmt::format("holds more than {} frequencies; use a sweep", mostFrequencies));
    for (std::size_t i = 0; i < wires.frequencies.size() && faults.size() < 100; ++i)
        for (Fault& fault : findFrequencyFaults(wires.frequencies[i], fmt::format("frequencies_Hz[{}]", i)))
            faults.push_back(std::move(fault));
}

double turnBetween(double from, double to) { return to - from - 360.0 * std::floor((to - from) / 360.0); }

/// Ground along some azimuths, each up to 5 degrees to either side or to the middle between it and the next; beyond, mixed with what is
/// beside it where the file says so.
void readTerrain(const JsonNode& root, WireModel& model)
{
    constexpr double within = 5.0; // degrees
    const std::vector<JsonNode> items = root.items("terrain", true);
    if (!items.empty() && model.ground.kind != GroundKind::Real)
        root.faultAt("terrain", "needs a ground of the kind real");
    std::vector<double> azimuths;
    for (const JsonNode& item : items)
        azimuths.push_back(item.number("azimuth_deg"));
    for (std::size_t i = 0; i < items.size(); ++i) {
        double before = items[i].number("within_deg", within, true), after = before;
        const double mixedBelow = items[i].number("mixed_below_deg", 0.0, true), mixedAbove = items[i].number("mixed_above_deg", 0.0, true);
        if (!(before >= 0.0 && before <= 180.0))
            items[i].faultAt("within_deg", "must be from 0 to 180");
        for (const auto& [key, value] : {std::pair("mixed_below_deg", mixedBelow), std::pair("mixed_above_deg", mixedAbove)})
            if (!(value >= 0.0 && value <= 180.0))
                items[i].faultAt(key, "must be from 0 to 180");
        for (std::size_t k = 0; k < items.size(); ++k)
            if (k != i && !items[i].has("within_deg")) {
                before = std::min(before, 0.5 * turnBetween(azimuths[k], azimuths[i]));
                after = std::min(after, 0.5 * turnBetween(azimuths[i], azimuths[k]));
            }
        const TerrainProfile profile = readProfile(items[i]);
        for (const Fault& f : findFaults(profile))
            items[i].faultAt(f.path, f.message);
        model.beyond.push_back({radians(azimuths[i] - before),
                                radians(before + after),
                                radians(mixedBelow),
                                radians(mixedAbove),
                                profile.corners,
                                {profile.soils.begin(), profile.soils.end()}});
    }
}

Json terrainJson(const WireModel& model, const FarSector& sector)
{
    Json out{{"azimuth_deg", degrees(sector.from + 0.5 * sector.width)}, {"within_deg", degrees(0.5 * sector.width)}};
    if (sector.fadeBefore > 0.0 || sector.fadeAfter > 0.0)
        out["mixed_below_deg"] = degrees(sector.fadeBefore), out["mixed_above_deg"] = degrees(sector.fadeAfter);
    const TerrainProfile profile = sector.over(model.ground);
    out["profile"] = out["soils"] = Json::array();
    for (const ProfilePoint& p : profile.corners)
        out["profile"].push_back({{"x_m", p.x}, {"z_m", p.z}});
    for (const Ground& soil : profile.soils) {
        out["soils"].push_back({{"relative_permittivity", soil.relativePermittivity}, {"conductivity_S_per_m", soil.conductivity}});
        if (soil.pairFrequency > 0.0)
            out["soils"].back()["pair_frequency_Hz"] = soil.pairFrequency;
    }
    return out;
}

PatternRequest readPattern(const JsonNode& root)
{
    PatternRequest pattern;
    const auto node = root.object("pattern", true);
    if (!node)
        return pattern;
    pattern.elevations = node->numbers("elevations_deg");
    pattern.azimuths = node->numbers("azimuths_deg");
    if (pattern.elevations.size() * pattern.azimuths.size() > mostDirections)
        node->fault(fmt::format("asks for more than {} directions; use a coarser grid", mostDirections));
    for (std::size_t i = 0; i < pattern.elevations.size(); ++i)
        if (std::abs(pattern.elevations[i]) > 90.0)
            node->faultAt(fmt::format("elevations_deg[{}]", i), "is beyond 90 degrees; elevations are counted from the horizon");
    return pattern;
}

void checkWireHead(const JsonNode& root)
{
    const std::string format = root.text("format");
    if (!format.empty() && format != "vetchling-wires")
        root.faultAt("format", "is '" + format + "'; a wire file says vetchling-wires");
    const double version = root.number("version");
    if (root.has("version") && root.json()["version"].is_number() && version != wireFileVersion)
        root.faultAt("version", fmt::format("is {}; this program reads version {}", version, wireFileVersion));
}

Json point(Vec3 p) { return Json::array({p.x, p.y, p.z}); }

Json wireJson(const Wire& wire)
{
    Json out{{"id", wire.id}, {"points_m", Json::array()}, {"radius_m", wire.radius}};
    for (Vec3 p : wire.points)
        out["points_m"].push_back(point(p));
    if (wire.endRadius)
        out["end_radius_m"] = *wire.endRadius;
    if (wire.conductivity)
        out["conductivity_S_per_m"] = *wire.conductivity;
    if (wire.relativePermeability != 1.0)
        out["relative_permeability"] = wire.relativePermeability;
    if (wire.wall != 0.0)
        out["wall_m"] = wire.wall;
    if (wire.coating)
        out["coating"] = {{"thickness_m", wire.coating->thickness},
                          {"conductivity_S_per_m", wire.coating->conductivity},
                          {"relative_permeability", wire.coating->relativePermeability}};
    if (wire.insulation)
        out["insulation"] = {{"outer_radius_m", wire.insulation->outerRadius},
                             {"relative_permittivity", wire.insulation->relativePermittivity},
                             {"loss_tangent", wire.insulation->lossTangent}};
    return out;
}

Json groundJson(const Ground& ground)
{
    if (ground.kind == GroundKind::Real) {
        Json real{{"kind", "real"}, {"relative_permittivity", ground.relativePermittivity}, {"conductivity_S_per_m", ground.conductivity}};
        if (ground.pairFrequency > 0.0)
            real["pair_frequency_Hz"] = ground.pairFrequency;
        return real;
    }
    return {{"kind", ground.kind == GroundKind::Perfect ? "perfect" : "free-space"}};
}

double rounded(double value, double step) { return std::round(value / step) * step; }

} // namespace

Result<WireCase> parseWireFile(const std::string& text)
{
    const Result<Json> json = parseJson(text);
    if (!json)
        return json.faults();
    Faults faults;
    const JsonNode root(*json, "", faults);
    if (!json->is_object())
        return Fault{"", "a wire file is one object in braces"};
    checkWireHead(root);
    WireCase wires;
    wires.model.ground = readGround(root);
    const WireNames names = readWires(root, wires.model);
    readFeeds(root, names, wires.model);
    readLoads(root, names, wires.model);
    readLines(root, names, wires.model);
    readTerrain(root, wires.model);
    readFrequencies(root, wires, faults);
    wires.pattern = readPattern(root);
    if (faults.empty())
        faults = findFaults(wires.model);
    if (!faults.empty())
        return faults;
    return wires;
}

Result<WireCase> readWireFile(const std::string& path)
{
    const Result<std::string> text = readTextFile(path);
    if (!text)
        return text.faults();
    return parseWireFile(*text);
}

std::string writeWireFile(const WireCase& wires)
{
    Json out{{"format", "vetchling-wires"}, {"version", wireFileVersion}, {"ground", groundJson(wires.model.ground)}};
    out["wires"] = Json::array();
    for (const Wire& wire : wires.model.wires)
        out["wires"].push_back(wireJson(wire));
    out["feeds"] = Json::array();
    for (const Feed& f : wires.model.feeds) {
        out["feeds"].push_back(
            {{"wire", wires.model.wires[f.wire].id}, {"at_m", f.at}, {"voltage_V", {f.voltage.real(), f.voltage.imag()}}});
        if (const auto& t = f.transformer)
            out["feeds"].back()["transformer"] = {{"ratio", t->ratio},
                                                  {"leakage_H", t->leakageInductance},
                                                  {"magnetising_H", t->magnetisingInductance},
                                                  {"core_loss_ohm", t->coreLoss},
                                                  {"capacitance_F", t->capacitance}};
    }
    out["loads"] = Json::array();
    for (const Load& l : wires.model.loads) {
        Json load{{"wire", wires.model.wires[l.wire].id}, {"at_m", l.at}};
        if (l.kind == LoadKind::Parallel)
            load["kind"] = "parallel";
        load.update(Json{{"resistance_ohm", l.resistance}, {"inductance_H", l.inductance}, {"capacitance_F", l.capacitance}});
        if (l.q > 0.0)
            load["q"] = l.q;
        if (l.selfResonance > 0.0)
            load["self_resonance_Hz"] = l.selfResonance;
        if (!l.size.inPoint())
            load.update(Json{{"length_m", l.size.length}, {"diameter_m", l.size.diameter}, {"wire_diameter_m", l.size.wireDiameter}});
        out["loads"].push_back(load);
    }
    for (const LineSection& l : wires.model.lines)
        out["lines"].push_back(lineJson(wires.model, l));
    for (const FarSector& sector : wires.model.beyond)
        out["terrain"].push_back(terrainJson(wires.model, sector));
    out["frequencies_Hz"] = wires.frequencies;
    out["pattern"] = {{"elevations_deg", wires.pattern.elevations}, {"azimuths_deg", wires.pattern.azimuths}};
    return out.dump(1) + "\n";
}

namespace {

Json gainJson(const std::vector<std::vector<double>>& grid)
{
    Json gain = Json::array();
    for (const auto& row : grid) {
        gain.push_back(Json::array());
        for (double g : row)
            gain.back().push_back(rounded(g, 1e-4));
    }
    return gain;
}

} // namespace

std::string writeResultFile(const std::vector<CaseResult>& results)
{
    Json out{{"format", "vetchling-result"}, {"version", 1}, {"results", Json::array()}};
    for (const CaseResult& r : results) {
        const Complex z = r.solution.impedance;
        const double s = swr(z);
        out["results"].push_back({{"frequency_Hz", r.solution.frequency},
                                  {"impedance_ohm", {z.real(), z.imag()}},
                                  {"impedance_error_percent", rounded(r.solution.impedanceErrorPercent, 1e-4)},
                                  {"swr_50", std::isfinite(s) ? Json(s) : Json(nullptr)},
                                  {"efficiency", r.ledger.sky},
                                  {"losses", {{"wire", r.ledger.wire}, {"loads", r.ledger.loads}, {"ground", r.ledger.soil}}},
                                  {"gain_dBi", gainJson(r.gain)},
                                  {"unknowns", r.solution.mesh->unknowns}});
        if (!r.flat.empty())
            out["results"].back()["pattern_flat"] = gainJson(r.flat);
        if (!r.perfect.empty())
            out["results"].back()["gain_elsewhere"] = {{"without_near_ground_loss_dBi", gainJson(r.withoutNearLoss)},
                                                       {"perfect_ground_dBi", gainJson(r.perfect)}};
        Json& losses = out["results"].back()["losses"]; // shares of what few models have are named where they are
        if (!r.solution.model->lines.empty())
            losses["lines"] = r.ledger.lines;
        if (r.solution.transformerPower != 0.0)
            losses["transformer"] = r.ledger.transformer;
    }
    return out.dump(1) + "\n";
}

} // namespace vetchling::files
