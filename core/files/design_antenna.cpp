#include "core/files/design_parts.h"

#include "core/files/metal.h"

#include <algorithm>
#include <cmath>

namespace vetchling::files {
namespace {

constexpr std::array<const char*, 2> tuneGoals{"resonance", "lowest swr"};
constexpr std::array<const char*, 4> compromises{"map", "shift", "finder", "joint"};
constexpr std::array<const char*, 2> neighbourFeeds{"open", "terminated"};

shapes::WireChoice readWireChoice(const JsonNode& node)
{
    const shapes::WireChoice d;
    shapes::WireChoice wire{node.text("conductor", d.conductor, true),
                            readMetal(node),
                            node.number("diameter_m", d.diameter, true),
                            node.number("jacket_m", 0.0, true),
                            node.number("jacket_relative_permittivity", 3.0, true),
                            node.number("jacket_loss_tangent", 0.0, true),
                            {}};
    wire.kept = node.rest();
    return wire;
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
    addKept(out, w.kept);
    return out;
}

Allowances readAllowances(const JsonNode& node)
{
    const Allowances d;
    Allowances a{node.number("centre_m", d.centre, true),
                 node.number("fold_m", d.fold, true),
                 node.number("coil_tail_m", d.coilTail, true),
                 node.number("joint_tail_m", d.jointTail, true),
                 node.number("link_tail_m", d.linkTail, true),
                 node.number("pigtail_m", d.pigtail, true),
                 node.number("mount_m", d.mount, true),
                 node.number("margin_percent", d.marginPercent, true),
                 {}};
    a.kept = node.rest();
    return a;
}

Json allowancesJson(const Allowances& a)
{
    return withKept({{"centre_m", a.centre},
                     {"fold_m", a.fold},
                     {"coil_tail_m", a.coilTail},
                     {"joint_tail_m", a.jointTail},
                     {"link_tail_m", a.linkTail},
                     {"pigtail_m", a.pigtail},
                     {"mount_m", a.mount},
                     {"margin_percent", a.marginPercent}},
                    a.kept);
}

template <class Pair> std::vector<Pair> readPairs(const JsonNode& node, const char* key)
{
    std::vector<Pair> out;
    for (const JsonNode& point : node.items(key, true))
        if (const std::vector<double> pair = point.ownNumbers(2); pair.size() == 2)
            out.emplace_back(pair[0], pair[1]);
    return out;
}

Measurement readMeasurement(const JsonNode& node)
{
    Measurement m{node.text("when", "", true),
                  node.text("remark", "", true),
                  node.number("cut_each_end_m", 0.0, true),
                  node.flag("folded", false),
                  node.number("dip_Hz"),
                  node.number("dip_swr", 0.0, true),
                  node.text("id", "", true),
                  {}};
    m.parameter = node.text("parameter", "", true);
    if (const auto configuration = node.optionalNumber("configuration")) {
        if (*configuration < 1.0 || *configuration > 1000.0)
            node.faultAt("configuration", "counts from 1, the innermost");
        else
            m.configuration = std::size_t(*configuration) - 1;
    }
    m.height = node.optionalNumber("height_m");
    m.instrument = node.text("instrument", "", true);
    m.sweep = readPairs<std::pair<double, double>>(node, "sweep");
    m.impedance = readPairs<Complex>(node, "impedance_ohm");
    if (!m.impedance.empty() && m.impedance.size() != m.sweep.size()) {
        node.standsIn("impedance_ohm", "has not as many points as the sweep");
        m.impedance = {};
    }
    m.coax = node.number("coax_m", 0.0, true);
    m.place = node.text("place", "", true);
    m.weather = node.text("weather", "", true);
    m.soil = SoilState(wordOf(node, "soil", soilStateWords));
    m.pictures = readTexts(node, "pictures");
    m.kept = node.rest();
    for (const Fault& fault : findMeasurementFaults(m))
        node.fault(fault.message);
    return m;
}

AirReport readReport(const JsonNode& node)
{
    AirReport r{node.text("id", "", true),
                node.text("when", "", true),
                node.number("frequency_Hz"),
                node.number("distance_m", 0.0, true),
                node.optionalNumber("bearing_deg"),
                node.number("power_W", 0.0, true),
                node.text("report", "", true),
                node.text("remark", "", true),
                {}};
    r.solarFlux = node.optionalNumber("solar_flux");
    r.kIndex = node.optionalNumber("k_index");
    const std::string fading = node.text("fading", "", true);
    const auto known = std::find(fadingWords.begin(), fadingWords.end(), fading);
    if (known == fadingWords.end())
        node.fault(coreText("core", "fading is none, slow, fast or deep"));
    else
        r.fading = Fading(known - fadingWords.begin());
    r.kept = node.rest();
    for (const Fault& fault : findReportFaults(r))
        node.fault(fault.message);
    return r;
}

Json reportJson(const AirReport& r)
{
    Json one{{"id", r.id}, {"when", r.when}, {"frequency_Hz", r.frequency}, {"distance_m", r.distance}, {"report", r.report}};
    if (r.bearing)
        one["bearing_deg"] = *r.bearing;
    if (r.power > 0.0)
        one["power_W"] = r.power;
    if (!r.remark.empty())
        one["remark"] = r.remark;
    if (r.solarFlux)
        one["solar_flux"] = *r.solarFlux;
    if (r.kIndex)
        one["k_index"] = *r.kIndex;
    if (r.fading != Fading::NotNoted)
        one["fading"] = fadingWords[std::size_t(r.fading)];
    return withKept(std::move(one), r.kept);
}

std::map<std::string, double> readNumbers(const JsonNode& node, const char* key)
{
    std::map<std::string, double> out;
    if (const auto numbers = node.object(key, true))
        for (const auto& [name, unused] : numbers->json().items())
            out[name] = numbers->number(name);
    return out;
}

TrimLog readTrim(const JsonNode& node)
{
    TrimLog log;
    log.target = node.number("target_Hz", 0.0, true);
    log.targets = readNumbers(node, "targets_Hz");
    log.asCut = readNumbers(node, "as_cut_longer_m");
    log.cutFrom = CutFrom(wordOf(node, "as_cut_from", cutFromWords));
    log.measurements = node.parts("measurements", readMeasurement);
    log.reports = node.parts("reports", readReport);
    log.kept = node.rest();
    return log;
}

/// Points that are no numbers are none.
void addSweep(Json& out, const Measurement& m)
{
    const bool withImpedance = m.impedance.size() == m.sweep.size();
    for (std::size_t i = 0; i < m.sweep.size(); ++i) {
        const Complex z = withImpedance ? m.impedance[i] : Complex();
        if (!std::isfinite(m.sweep[i].first) || !std::isfinite(m.sweep[i].second) || !std::isfinite(z.real()) || !std::isfinite(z.imag()))
            continue;
        out["sweep"].push_back({m.sweep[i].first, m.sweep[i].second});
        if (withImpedance)
            out["impedance_ohm"].push_back({z.real(), z.imag()});
    }
}

/// Only what was noted.
Json measurementJson(const Measurement& m)
{
    Json one{{"id", m.id},         {"when", m.when},  {"remark", m.remark}, {"cut_each_end_m", m.cutSinceLast},
             {"folded", m.folded}, {"dip_Hz", m.dip}, {"dip_swr", m.dipSwr}};
    if (!m.parameter.empty())
        one["parameter"] = m.parameter;
    if (m.configuration)
        one["configuration"] = *m.configuration + 1;
    if (m.height)
        one["height_m"] = *m.height;
    if (!m.instrument.empty())
        one["instrument"] = m.instrument;
    addSweep(one, m);
    if (m.coax > 0.0)
        one["coax_m"] = m.coax;
    if (!m.place.empty())
        one["place"] = m.place;
    if (!m.weather.empty())
        one["weather"] = m.weather;
    if (m.soil != SoilState::NotNoted)
        one["soil"] = soilStateWords[std::size_t(m.soil)];
    if (!m.pictures.empty())
        one["pictures"] = textsJson(m.pictures);
    return withKept(std::move(one), m.kept);
}

Json trimJson(const TrimLog& log)
{
    Json out{{"target_Hz", log.target}, {"measurements", Json::array()}};
    if (!log.targets.empty())
        out["targets_Hz"] = log.targets;
    if (!log.asCut.empty())
        out["as_cut_longer_m"] = log.asCut;
    if (log.cutFrom != CutFrom::NotKnown)
        out["as_cut_from"] = cutFromWords[std::size_t(log.cutFrom)];
    for (const Measurement& m : log.measurements)
        out["measurements"].push_back(measurementJson(m));
    for (const AirReport& r : log.reports)
        out["reports"].push_back(reportJson(r));
    addKept(out, log.kept);
    return out;
}

/// Numbers by key. What is no number is a fault where this program knows the parameter, else it is kept.
KeptFields readParameters(const JsonNode& node, shapes::AntennaShape& shape)
{
    Json kept = Json::object();
    for (const auto& [key, value] : node.json().items())
        if (value.is_number() || shapes::familyOf(shape).spec(shape, key))
            shape.parameters[key] = node.number(key);
        else
            kept[key] = value;
    return kept.empty() ? "" : kept.dump();
}

/// Files from before the feed line's shield had a length of its own: the counterpoise's was it, 20 cm above the ground.
void asItWasMeant(shapes::AntennaShape& shape)
{
    auto& values = shape.parameters;
    if (!shapes::familyOf(shape).spec(shape, "shield_m") || values.contains("shield_m"))
        return;
    values.try_emplace("return_kind", 0.0);
    values["shield_m"] = values["return_kind"] >= 0.5 ? shapes::familyOf(shape).value(shape, "counterpoise_m") : 0.0;
    if (values["return_kind"] >= 0.5)
        values["shield_height_m"] = 0.2;
}

KeptFields readTyped(const JsonNode& node, TypedTexts& typed)
{
    Json kept = Json::object();
    for (const auto& [key, value] : node.json().items())
        if (value.is_string())
            typed[key] = value.get<std::string>();
        else
            kept[key] = value;
    return kept.empty() ? "" : kept.dump();
}

void readDesignFrequency(const JsonNode& node, shapes::AntennaShape& shape)
{
    shape.designFrequency = node.number("design_frequency_Hz", 7.1e6);
    if (node.has("design_frequency_Hz"))
        for (const Fault& fault : findFrequencyFaults(shape.designFrequency, ""))
            node.faultAt("design_frequency_Hz", fault.message);
}

/// Wires of parts by name.
std::map<std::string, shapes::WireChoice> readPartWires(const JsonNode& wires)
{
    std::map<std::string, shapes::WireChoice> out;
    for (const auto& [part, unused] : wires.json().items())
        if (const auto wire = wires.object(part))
            out[part] = readWireChoice(*wire);
    return out;
}

/// Family, frequency, parameters and wires, which an antenna and its copies have alike.
struct ReadShape {
    shapes::AntennaShape shape;
    TypedTexts typed;
    KeptFields keptParameters, keptTyped;
};

ReadShape readShape(const JsonNode& node)
{
    ReadShape out;
    out.shape.family = node.text("family");
    readDesignFrequency(node, out.shape);
    if (const auto parameters = node.object("parameters")) {
        out.keptParameters = readParameters(*parameters, out.shape);
        asItWasMeant(out.shape);
    }
    if (const auto typed = node.object("typed", true))
        out.keptTyped = readTyped(*typed, out.typed);
    if (const auto wire = node.object("wire", true))
        out.shape.wire = readWireChoice(*wire);
    if (const auto wires = node.object("wires", true))
        out.shape.partWires = readPartWires(*wires);
    return out;
}

void addShape(Json& out, const shapes::AntennaShape& shape, const TypedTexts& typed, const KeptFields& keptParameters,
              const KeptFields& keptTyped)
{
    out["family"] = shape.family;
    out["design_frequency_Hz"] = shape.designFrequency;
    out["parameters"] = Json::object();
    for (const auto& [key, value] : shape.parameters)
        out["parameters"][key] = value;
    addKept(out["parameters"], keptParameters);
    out["typed"] = Json::object();
    for (const auto& [key, value] : typed)
        out["typed"][key] = value;
    addKept(out["typed"], keptTyped);
    out["wire"] = wireChoiceJson(shape.wire);
    for (const auto& [part, wire] : shape.partWires)
        out["wires"][part] = wireChoiceJson(wire);
}

StoredCopy readCopy(const JsonNode& node)
{
    StoredCopy copy{node.text("id", "", true), node.text("name", "copy", true), node.text("when", "", true), {}, {}, {}, {}, {}};
    ReadShape read = readShape(node);
    copy.shape = std::move(read.shape);
    copy.typed = std::move(read.typed);
    copy.keptParameters = std::move(read.keptParameters);
    copy.keptTyped = std::move(read.keptTyped);
    copy.kept = node.rest();
    return copy;
}

Json copyJson(const StoredCopy& copy)
{
    Json out{{"id", copy.id}, {"name", copy.name}, {"when", copy.when}};
    addShape(out, copy.shape, copy.typed, copy.keptParameters, copy.keptTyped);
    addKept(out, copy.kept);
    return out;
}

/// @param drawn the antenna's own shape, whose parameters are known here
Variant readVariant(const JsonNode& node, const shapes::AntennaShape& drawn)
{
    Variant v;
    v.id = node.text("id", "", true);
    v.name = node.text("name", "variant", true);
    v.note = node.text("note", "", true);
    v.family = node.text("family", "", true);
    shapes::AntennaShape shape = drawn;
    if (!v.family.empty()) {
        shape.family = v.family;
        shape.parameters.clear();
    }
    if (node.has("design_frequency_Hz")) {
        readDesignFrequency(node, shape);
        v.designFrequency = shape.designFrequency;
    }
    v.values = readNumbers(node, "parameters");
    if (const auto typed = node.object("typed", true))
        for (const auto& [key, unused] : typed->json().items())
            v.typed[key] = typed->text(key);
    if (const auto wire = node.object("wire", true))
        v.wire = readWireChoice(*wire);
    if (const auto wires = node.object("wires", true))
        v.partWires = readPartWires(*wires);
    if (const auto soil = node.object("soil", true))
        v.soil = readSoil(*soil);
    else if (node.flag("on_site_soil", false))
        v.soil = std::optional<Soil>();
    v.kept = node.rest();
    return v;
}

Json variantJson(const Variant& v)
{
    Json out{{"id", v.id}, {"name", v.name}, {"note", v.note}};
    if (!v.family.empty())
        out["family"] = v.family;
    if (v.designFrequency)
        out["design_frequency_Hz"] = *v.designFrequency;
    out["parameters"] = Json::object();
    for (const auto& [key, value] : v.values)
        out["parameters"][key] = value;
    for (const auto& [key, text] : v.typed)
        out["typed"][key] = text;
    if (v.wire)
        out["wire"] = wireChoiceJson(*v.wire);
    if (v.partWires) {
        out["wires"] = Json::object();
        for (const auto& [part, wire] : *v.partWires)
            out["wires"][part] = wireChoiceJson(wire);
    }
    if (v.soil && *v.soil)
        out["soil"] = soilJson(**v.soil);
    else if (v.soil)
        out["on_site_soil"] = true;
    return withKept(std::move(out), v.kept);
}

Winding readWinding(const JsonNode& node)
{
    const Winding d;
    const Winding w{node.number("former_m", d.former, true), node.number("wire_m", d.wire, true), node.number("jacket_m", d.jacket, true),
                    node.number("gap_m", d.gap, true), node.number("spare_turns", d.spare, true)};
    if (!(w.former > 0.0 && w.wire > 0.0 && w.jacket >= 0.0 && w.gap >= 0.0 && w.spare >= 0.0))
        node.fault("a winding has a former and a wire of some thickness, and nothing below 0");
    return w;
}

Json windingJson(const Winding& w)
{
    return {{"former_m", w.former}, {"wire_m", w.wire}, {"jacket_m", w.jacket}, {"gap_m", w.gap}, {"spare_turns", w.spare}};
}

Surroundings readSurroundings(const JsonNode& node)
{
    Surroundings s;
    s.metal = node.flag("metal", false);
    s.coax = node.flag("coax", false);
    if (const auto antennas = node.object("antennas", true))
        for (const auto& [id, unused] : antennas->json().items())
            s.antennas[id] = Surroundings::Feed(wordOf(*antennas, id.c_str(), neighbourFeeds));
    return s;
}

Json surroundingsJson(const Surroundings& s)
{
    Json out{{"metal", s.metal}, {"coax", s.coax}, {"antennas", Json::object()}};
    for (const auto& [id, feed] : s.antennas)
        out["antennas"][id] = neighbourFeeds[std::size_t(feed)];
    return out;
}

NamedLength readNamedLength(const JsonNode& node)
{
    NamedLength length{node.text("name"), node.number("length_m"), node.text("typed", "", true), {}};
    length.kept = node.rest();
    return length;
}

} // namespace

Antenna readAntenna(const JsonNode& node)
{
    Antenna a;
    a.id = node.text("id", "", true);
    a.name = node.text("name", "antenna", true);
    ReadShape read = readShape(node);
    a.shape = std::move(read.shape);
    a.typed = std::move(read.typed);
    a.keptParameters = std::move(read.keptParameters);
    a.keptTyped = std::move(read.keptTyped);
    if (const auto allowances = node.object("allowances", true))
        a.allowances = readAllowances(*allowances);
    if (const auto trim = node.object("trim", true))
        a.trim = readTrim(*trim);
    a.tuneForLowestSwr = wordOf(node, "tune_for", tuneGoals) == 1;
    a.notes = node.text("notes", "", true);
    a.named = node.parts("named_lengths", readNamedLength);
    a.copies = node.parts("copies", readCopy);
    a.variants = node.parts("variants", [&](const JsonNode& variant) { return readVariant(variant, a.shape); });
    if (const auto compromise = node.object("compromise", true))
        a.compromise = Compromise{Compromise::From(wordOf(*compromise, "from", compromises)), readNumbers(*compromise, "lengths")};
    if (const auto soil = node.object("soil", true))
        a.soil = readSoil(*soil);
    if (const auto surroundings = node.object("surroundings", true))
        a.surroundings = readSurroundings(*surroundings);
    a.winding = node.partAt("winding", readWinding).value_or(a.winding);
    if (const auto workshop = node.object("workshop", true))
        a.workshop = readWorkshop(*workshop);
    if (const auto feed = node.object("feed", true))
        a.feed = readFeed(*feed);
    a.pictures = readTexts(node, "pictures");
    a.kept = node.rest();
    return a;
}

Json antennaJson(const Antenna& a)
{
    Json out{{"id", a.id}, {"name", a.name}};
    addShape(out, a.shape, a.typed, a.keptParameters, a.keptTyped);
    out["allowances"] = allowancesJson(a.allowances);
    out["trim"] = trimJson(a.trim);
    out["tune_for"] = tuneGoals[a.tuneForLowestSwr ? 1 : 0];
    out["notes"] = a.notes;
    for (const NamedLength& n : a.named)
        out["named_lengths"].push_back(withKept({{"name", n.name}, {"length_m", n.length}, {"typed", n.typed}}, n.kept));
    for (const StoredCopy& copy : a.copies)
        out["copies"].push_back(copyJson(copy));
    for (const Variant& variant : a.variants)
        out["variants"].push_back(variantJson(variant));
    if (a.compromise)
        out["compromise"] = {{"from", compromises[std::size_t(a.compromise->from)]}, {"lengths", a.compromise->lengths}};
    if (a.soil)
        out["soil"] = soilJson(*a.soil);
    if (a.surroundings != Surroundings())
        out["surroundings"] = surroundingsJson(a.surroundings);
    if (a.winding != Winding())
        out["winding"] = windingJson(a.winding);
    if (a.workshop != Workshop())
        out["workshop"] = workshopJson(a.workshop);
    if (a.feed != FeedChains())
        out["feed"] = feedJson(a.feed);
    if (!a.pictures.empty())
        out["pictures"] = textsJson(a.pictures);
    addKept(out, a.kept);
    return out;
}

} // namespace vetchling::files
