#include "cli/design_commands.h"

#include "cli/chosen.h"
#include "cli/family_commands.h"
#include "cli/json_output.h"
#include "cli/kept_tables.h"
#include "cli/output.h"
#include "cli/typed.h"
#include "core/bands/wanted.h"
#include "core/files/data.h"
#include "core/files/data_folder.h"
#include "core/files/design_file.h"
#include "core/files/wire_file.h"
#include "core/files/workshop_file.h"
#include "core/study/answers.h"
#include "core/study/study.h"
#include "core/tune/joint.h"
#include "core/workshop/build_facts.h"
#include "core/workshop/cautions.h"

#include <CLI/CLI.hpp>
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <memory>

namespace vetchling::cli {
namespace {

/// What a count or a choice brings along may be set before it.
Faults takeSettings(std::vector<std::string> settings, shapes::AntennaShape& shape)
{
    const shapes::Family& family = shapes::familyOf(shape);
    for (std::size_t before = settings.size() + 1; !settings.empty() && settings.size() < before;) {
        before = settings.size();
        std::vector<std::string> later;
        for (const std::string& setting : settings) {
            const auto equals = setting.find('=');
            const std::string key = setting.substr(0, equals);
            const shapes::ParameterSpec* spec = family.spec(shape, key);
            if (!spec || equals == std::string::npos) {
                later.push_back(setting);
                continue;
            }
            const Result<double> value =
                units::parse(setting.substr(equals + 1), spec->quantity, {shape.designFrequency, units::System::Metric, true});
            if (!value)
                return {{"--set " + key, value.faults().front().message}};
            shape.parameters[key] = *value;
        }
        settings = std::move(later);
    }
    if (!settings.empty())
        return {{"--set " + settings.front(), "write name=value with one of the names of new --list, or of a count or choice that is set"}};
    return {};
}

Result<Soil> chosenSoil(const Request& request)
{
    Soil own;
    own.name = "own soil";
    own.relativePermittivity = request.permittivity;
    own.conductivity = request.conductivity;
    if (request.soil.empty())
        return own;
    const auto soils = files::readSoils(files::findDataFolder() + "/soils.json");
    if (!soils)
        return soils.faults();
    for (const Soil& soil : *soils)
        if (soil.id == request.soil)
            return soil;
    return Fault{"--soil", "there is no soil '" + request.soil + "'; the ids are in data/soils.json"};
}

int newCommand(const Request& request)
{
    const shapes::Family* family = shapes::findFamily(request.family);
    if (!family)
        return report({{"family", "there is no family '" + request.family + "'; see new --list"}});
    const double frequency = request.frequency > 0.0 ? request.frequency : 7.1e6;
    if (Faults faults = findFrequencyFaults(frequency, "--frequency"); !faults.empty())
        return report(faults);
    const auto plans = files::readBandPlans(files::findDataFolder() + "/bands.json");
    if (!plans)
        return report(plans.faults());
    const Result<Soil> soil = chosenSoil(request);
    if (!soil)
        return report(soil.faults());
    Antenna antenna = newAntenna(*family, frequency);
    if (Faults faults = takeSettings(request.settings, antenna.shape); !faults.empty())
        return report(faults);
    if (const auto built = shapes::buildOver(antenna.shape, soil->ground()); !built)
        return report(built.faults());
    Design design;
    design.site.soil = *soil;
    design.operation.bandPlan = plans->front().id;
    putIn(plans->front(), design.operation.bands);
    wishFor(design.operation.bands, frequency, Wish::Must);
    design.antennas.push_back(antenna);
    nameThings(design);
    if (Faults faults = files::saveDesign(design, request.output); !faults.empty())
        return report(faults);
    return exitGood;
}

int wiresCommand(const Request& request)
{
    const Result<Chosen> chosen = chosenAntenna(request);
    if (!chosen)
        return report(chosen.faults());
    const double frequency = request.frequency > 0.0 ? request.frequency : chosen->antenna.shape.designFrequency;
    if (Faults faults = findFrequencyFaults(frequency, "--frequency"); !faults.empty())
        return report(faults);
    WireModel model = chosen->built.model;
    study::finish(chosen->subject, model); // as every figure of it counts what stands near and the ground farther off
    std::map<std::string, int> named;
    for (Wire& wire : model.wires) // of a file each has a name of its own
        if (const int before = named[wire.id]++; before > 0)
            wire.id += " " + std::to_string(before + 1);
    fmt::print("{}", files::writeWireFile({model, {frequency}, {{5, 10, 20, 30, 45, 60, 90}, {0, 45, 90, 135, 180, 225, 270, 315}}}));
    return exitGood;
}

TuneOptions tuneOptions(const Request& request, const Antenna& antenna)
{
    TuneOptions options;
    const bool lowestSwr = request.goal.empty() ? antenna.tuneForLowestSwr : request.goal == "swr";
    options.goal = lowestSwr ? shapes::TuneGoal::LowestSwr : shapes::TuneGoal::Resonance;
    return options;
}

/// Writes the tuned values into the design where a file is named for it.
Faults saveTuned(const Request& request, const Chosen& chosen, const std::map<std::string, double>& values)
{
    if (request.output.empty())
        return {};
    Design design = chosen.design;
    Antenna& antenna = *findAntenna(design, chosen.antenna.id);
    for (const auto& [key, value] : values) {
        antenna.shape.parameters[key] = value;
        antenna.typed.erase(key);
    }
    return files::saveDesign(design, request.output);
}

/// Says on stderr where the lowest SWR that there is is of no use.
void noteMismatch(const TuneOptions& options, const std::string& parameter, Complex atLine, double frequency, double fromRule)
{
    constexpr double ofUse = 3.0, nearEnd = 0.98;
    if (options.goal == shapes::TuneGoal::LowestSwr && std::abs(fromRule - 1.0) > nearEnd * options.reach)
        fmt::print(stderr, "note: {}: the SWR still falls at the end of the search, {:.0f} % from the rule: nothing is resonant there\n",
                   parameter, 100.0 * options.reach);
    if (const double match = swr(atLine, options.reference); options.goal == shapes::TuneGoal::LowestSwr && match > ofUse)
        fmt::print(stderr, "note: {}: the lowest SWR to be had at {:.6g} MHz is {:.3g}; change the ratio or the other dimensions\n",
                   parameter, frequency / 1e6, match);
}

int tuneOne(const Request& request, const Chosen& chosen)
{
    const double frequency =
        request.frequency > 0.0 ? request.frequency : shapes::frequencyOf(chosen.antenna.shape, chosen.subject.configuration);
    em::GroundTableCache tables;
    const KeptTables kept(tables);
    TuneOptions options = tuneOptions(request, chosen.antenna);
    options.configuration = chosen.subject.configuration;
    if (request.goal.empty())
        options.goal = shapes::TuneGoal::Resonance;
    const auto outcome =
        tune(chosen.antenna.shape, chosen.subject.ground, request.vary.front(), frequency, tables, options, terminalWatch());
    if (!outcome)
        return report(outcome.faults());
    if (Faults faults = saveTuned(request, chosen, {{request.vary.front(), outcome->value}}); !faults.empty())
        return report(faults);
    noteMismatch(options, request.vary.front(), outcome->impedance, frequency, outcome->value / outcome->ruleValue);
    print({{"vary", request.vary.front()},
           {"at_Hz", frequency},
           {"value", outcome->value},
           {"rule_of_thumb", outcome->ruleValue},
           {"impedance_ohm", pair(outcome->impedance)},
           {"solves", outcome->solves}});
    return exitGood;
}

/// Several dimensions at once, each within a third of its present value.
int tuneSeveral(const Request& request, const Chosen& chosen)
{
    JointAim aim;
    const bool resonance = request.goal == "resonance" || (request.goal.empty() && !chosen.antenna.tuneForLowestSwr);
    aim.kind = request.resistance > 0.0 ? JointAim::Kind::Resistance : resonance ? JointAim::Kind::Resonance : JointAim::Kind::LowestSwr;
    aim.resistance = request.resistance;
    const double frequency =
        request.frequency > 0.0 ? request.frequency : shapes::frequencyOf(chosen.antenna.shape, chosen.subject.configuration);
    aim.at = {{frequency, 1.0, chosen.subject.configuration}};
    std::vector<JointLever> levers;
    for (const std::string& key : request.vary)
        levers.push_back({key});
    em::GroundTableCache tables;
    const KeptTables kept(tables);
    const auto outcome = tuneJointly(chosen.antenna.shape, chosen.subject.ground, levers, aim, tables, {}, terminalWatch());
    if (!outcome)
        return report(outcome.faults());
    std::map<std::string, double> values;
    for (std::size_t i = 0; i < levers.size(); ++i)
        values[levers[i].parameter] = outcome->values[i];
    if (Faults faults = saveTuned(request, chosen, values); !faults.empty())
        return report(faults);
    print({{"values", values},
           {"at_Hz", frequency},
           {"impedance_ohm", pair(outcome->impedance.front())},
           {"at_limit", outcome->atLimit},
           {"solves", outcome->solves}});
    return exitGood;
}

int tuneCommand(const Request& request)
{
    const Result<Chosen> chosen = chosenAntenna(request);
    if (!chosen)
        return report(chosen.faults());
    if (request.vary.size() > 1 || request.resistance > 0.0)
        return tuneSeveral(request, *chosen);
    if (!request.vary.empty())
        return tuneOne(request, *chosen);
    if (request.frequency > 0.0)
        return report({{"--at", "goes with --vary; without it every length is tuned to the frequency that the design gives it"}});
    em::GroundTableCache tables;
    const KeptTables kept(tables);
    const TuneOptions options = tuneOptions(request, chosen->antenna);
    const auto outcome = tuneAll(chosen->antenna.shape, chosen->subject.ground, tables, options, terminalWatch());
    if (!outcome)
        return report(outcome.faults());
    Json values, rules, frequencies = Json::array(), impedances = Json::array();
    std::map<std::string, double> tuned;
    for (const TunedValue& v : outcome->lengths) {
        values[v.length.parameter] = tuned[v.length.parameter] = v.value;
        rules[v.length.parameter] = v.ruleValue;
        frequencies.push_back(v.length.frequency);
        impedances.push_back(pair(v.impedance));
        noteMismatch(options, v.length.parameter, v.impedance, v.length.frequency, v.value / v.ruleValue);
    }
    if (Faults faults = saveTuned(request, *chosen, tuned); !faults.empty())
        return report(faults);
    print(
        {{"values", values}, {"rule_of_thumb", rules}, {"at_Hz", frequencies}, {"impedance_ohm", impedances}, {"solves", outcome->solves}});
    return exitGood;
}

Json pieceJson(const BuildPiece& piece)
{
    const CutRow& r = piece.row;
    Json marks = Json::array();
    for (const TapeMark& mark : piece.marks)
        marks.push_back({{"mark", markName(mark.kind)}, {"at_m", mark.at}});
    return {{"cut", r.name},
            {"pieces", r.pieces},
            {"radiating_m", r.radiating},
            {"ends_m", r.ends},
            {"fold_m", r.fold},
            {"pigtail_m", r.pigtail},
            {"overlap_m", r.overlap},
            {"diameter_m", r.diameter > 0.0 ? Json(r.diameter) : Json(nullptr)},
            {"margin_m", r.margin},
            {"cut_to_m", r.cut},
            {"waits_for", piece.waitsFor.empty() ? Json(nullptr) : Json(piece.waitsFor)},
            {"marks", marks}};
}

int cutListCommand(const Request& request)
{
    const Result<Chosen> chosen = chosenAntenna(request);
    if (!chosen)
        return report(chosen.faults());
    const std::vector<CutRow> rows = cutList(chosen->built.sections, chosen->antenna.allowances);
    if (request.csv) {
        fmt::print("{}", cutListCsv(rows));
        return exitGood;
    }
    const auto data = files::readWorkshopData(files::findDataFolder() + "/workshop.json");
    if (!data)
        return report(data.faults());
    const BuildFacts facts = buildFactsOf(chosen->design, chosen->antenna, chosen->built, *data);
    Json out = Json::array(), ropes = Json::array(), parts = Json::array();
    for (const BuildPiece& piece : facts.pieces)
        out.push_back(pieceJson(piece));
    for (const RopeReport& r : facts.rigging.ropes)
        ropes.push_back({{"end", r.end}, {"to", r.support}, {"length_m", r.length}, {"angle_deg", r.angle}});
    for (const PartRow& p : facts.parts)
        parts.push_back({{"part", p.name}, {"count", p.count}, {"unit", p.unit == PartUnit::Metre ? "m" : "pieces"}});
    Json order = Json::array(), stands = nullptr, cautions = Json::array();
    for (const Text& step : facts.pack.order)
        order.push_back(step.english());
    if (const auto& s = facts.stand)
        stands = {{"height_m", s->height},    {"wind_N", s->force},
                  {"moment_Nm", s->moment},   {"feet_radius_m", s->footprint},
                  {"ballast_kg", s->ballast}, {"peg_N", s->pegPull},
                  {"guys_at_m", s->guyAt},    {"guys_out_m", s->guyOut},
                  {"guy_N", s->guyPull},      {"highest_unstaked_m", s->unstaked}};
    for (const auto& all : {facts.bench, cautionsOf(chosen->design, chosen->antenna, chosen->built, &facts)})
        for (const Caution& c : all)
            cautions.push_back({{"caution", c.heading}, {"words", c.words.english()}});
    print({{"pieces", out},
           {"wire_m", wireToBuy(rows)},
           {"ropes", ropes},
           {"parts", parts},
           {"stands", stands},
           {"put_up", order},
           {"cautions", cautions}});
    return exitGood;
}

/// What is set by hand replaces what could not be read there, even where it is the same as what stood in for it.
void forgetDamage(Design& design, const std::string& keys, const Id& antenna = {})
{
    if (design.damage)
        design.damage = withoutDamageAt(*design.damage, keys, antenna);
}

/// One name=value into the design or the antenna; a fault where it is none of the known names or not understood.
Faults setOne(const std::string& setting, Design& design, Antenna& antenna)
{
    using units::Quantity;
    const auto equals = setting.find('=');
    const std::string key = setting.substr(0, equals), text = equals == std::string::npos ? "" : setting.substr(equals + 1);
    if (key == "own_soil" && text == "site") {
        antenna.soil.reset();
        return {};
    }
    if (key == "soil" || key == "own_soil") {
        Request asked;
        asked.soil = text;
        const Result<Soil> soil = chosenSoil(asked);
        if (!soil || text.empty())
            return {{key, text.empty() ? Text("name the id of a soil in data/soils.json") : soil.faults().front().message}};
        if (key == "own_soil") {
            antenna.soil = *soil;
            return {};
        }
        design.site.soil = *soil;
        forgetDamage(design, "site.soil");
        return {};
    }
    struct Target {
        Quantity quantity;
        double* value;
    };
    const shapes::AntennaShape before = antenna.shape;
    std::map<std::string, Target> targets{{"wire.diameter_m", {Quantity::WireSize, &antenna.shape.wire.diameter}},
                                          {"wire.jacket_m", {Quantity::WireSize, &antenna.shape.wire.jacket}},
                                          {"design_frequency_Hz", {Quantity::Frequency, &antenna.shape.designFrequency}},
                                          {"swr_limit", {Quantity::Plain, &design.operation.swrLimit}},
                                          {"loss_limit_dB", {Quantity::Decibel, &design.operation.lossLimit}},
                                          {"foldback_swr", {Quantity::Plain, &design.operation.foldbackSwr}},
                                          {"power_W", {Quantity::Power, &design.operation.power}},
                                          {"soil.permittivity", {Quantity::Plain, &design.site.soil.relativePermittivity}},
                                          {"soil.conductivity", {Quantity::Plain, &design.site.soil.conductivity}},
                                          {"soil.pair_frequency_Hz", {Quantity::Frequency, &design.site.soil.pairFrequency}}};
    if (const shapes::ParameterSpec* spec = shapes::familyOf(antenna.shape).spec(antenna.shape, key)) {
        antenna.typed.erase(key);
        targets[key] = {spec->quantity, &antenna.shape.parameters[key]};
    }
    const auto target = targets.find(key);
    if (target == targets.end() || equals == std::string::npos)
        return {{setting, "write name=value with a parameter of the family, wire.diameter_m, wire.jacket_m, soil, own_soil, "
                          "soil.permittivity, soil.conductivity, "
                          "soil.pair_frequency_Hz, design_frequency_Hz, "
                          "swr_limit, loss_limit_dB, foldback_swr or power_W"}};
    const Result<double> value = units::parse(text, target->second.quantity, {antenna.shape.designFrequency, units::System::Metric, true});
    if (!value)
        return {{key, value.faults().front().message}};
    *target->second.value = *value;
    settleTyped(antenna, before, key, design);
    if (key == "swr_limit" || key == "loss_limit_dB" || key == "foldback_swr" || key == "power_W")
        forgetDamage(design, "operation." + key);
    else if (key.rfind("wire.", 0) == 0)
        forgetDamage(design, "antennas." + key, antenna.id);
    if (key.rfind("soil.", 0) == 0) {
        forgetDamage(design, "site.soil");
        makeOwn(design.site.soil, "own soil");
    }
    return {};
}

/// What could not be read again if it were written now, and was not damaged before.
Faults newFaults(const Design& design)
{
    const auto again = files::parseDesign(files::writeDesign(design));
    if (!again)
        return again.faults();
    Faults faults;
    for (const DamagedPart& part : again->damage ? again->damage->parts : std::vector<DamagedPart>())
        if (!design.damage || std::none_of(design.damage->parts.begin(), design.damage->parts.end(),
                                           [&](const DamagedPart& known) { return known.path == part.path; }))
            faults.push_back(part.fault);
    return faults;
}

int setCommand(const Request& request)
{
    Result<Design> read = openDesign(request.design);
    if (!read)
        return report(read.faults());
    Design design = *read;
    const Result<std::size_t> place = chosenPlace(request, design);
    if (!place)
        return report(place.faults());
    Antenna& antenna = design.antennas[*place];
    for (const std::string& setting : request.settings)
        if (Faults faults = setOne(setting, design, antenna); !faults.empty())
            return report(faults);
    if (Faults faults = newFaults(design); !faults.empty()) // limits of the file's own fields
        return report(faults);
    if (const auto built = shapes::buildOver(antenna.shape, groundUnder(design, antenna)); !built)
        return report(built.faults());
    if (Faults faults = files::saveDesign(design, request.output); !faults.empty())
        return report(faults);
    return exitGood;
}

void addSetCommand(CLI::App& app, const std::shared_ptr<Request>& request, int& status)
{
    CLI::App* set = app.add_subcommand("set", "changes figures of a design");
    set->add_option("design", request->design, "design file (.vetchling)")->required();
    set->add_option("settings", request->settings, "name=value, as many as wanted; without a unit in SI")->required();
    set->add_option("--antenna", request->antenna, "name or id of the antenna; the first one if left out");
    set->add_option("-o,--output", request->output, "design file to write")->required();
    set->callback([request, &status] { status = setCommand(*request); });
}

void addNewCommand(CLI::App& app, const std::shared_ptr<Request>& request, int& status)
{
    CLI::App* make = app.add_subcommand("new", "a design with one antenna");
    make->add_option("family", request->family, "family of the antenna");
    make->add_flag("--list", request->list, "families and their parameters");
    make->add_option("--set", request->settings, "name=value, as often as needed; without a unit in SI");
    quantityOption(make, "--frequency", request->frequency, units::Quantity::Frequency, "design frequency, Hz or with a unit");
    make->add_option("--soil", request->soil, "id of a soil in data/soils.json");
    make->add_option("--permittivity", request->permittivity, "relative permittivity of the soil");
    make->add_option("--conductivity", request->conductivity, "conductivity of the soil, S/m");
    make->add_option("-o,--output", request->output, "design file to write")->required(false);
    make->callback([request, &status] {
        status = request->list             ? familiesCommand()
                 : request->output.empty() ? report({{"-o", "name the file to write"}})
                                           : newCommand(*request);
    });
}

} // namespace

void addDesignCommands(CLI::App& app, int& status)
{
    auto request = std::make_shared<Request>();
    const auto withDesign = [&](const char* name, const char* help, int (*run)(const Request&)) {
        return addAntennaCommand(app, request, status, name, help, run);
    };
    addNewCommand(app, request, status);
    addSetCommand(app, request, status);
    quantityOption(withDesign("wires", "the wire file of a design at the antenna's own port, ready for solve", wiresCommand), "--frequency",
                   request->frequency, units::Quantity::Frequency, "Hz, or with a unit");
    CLI::App* tune = withDesign("tune", "all lengths of the antenna, or one dimension, brought to resonance or lowest SWR", tuneCommand);
    tune->add_option("--vary", request->vary, "dimension, or several to be tuned together; all lengths of the family if left out");
    tune->add_option("--resistance", request->resistance, "ohm at the line to be reached, with --vary");
    quantityOption(tune, "--at", request->frequency, units::Quantity::Frequency,
                   "Hz or with a unit, with --vary; the design frequency if left out");
    tune->add_option("--target", request->goal, "resonance or swr")->check(CLI::IsMember({"resonance", "swr"}));
    tune->add_option("-o,--output", request->output, "design file to write, with the tuned values");
    withDesign("cutlist", "lengths to cut, with allowances", cutListCommand)->add_flag("--csv", request->csv, "CSV instead of JSON");
}

} // namespace vetchling::cli
