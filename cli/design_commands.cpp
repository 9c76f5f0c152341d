#include "cli/design_commands.h"

#include "cli/output.h"
#include "core/em/sweep.h"
#include "core/files/design.h"
#include "core/files/wire_file.h"
#include "core/tune/tune.h"

#include <CLI/CLI.hpp>
#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <memory>

namespace vetchling::cli {
namespace {

using Json = nlohmann::ordered_json;

struct Request {
    std::string design, antenna, family, vary, output, goal = "resonance";
    std::vector<std::string> settings;
    double frequency = 0.0, permittivity = 13.0, conductivity = 0.005;
    bool list = false, csv = false;
};

void print(const Json& json) { fmt::print("{}\n", json.dump(1)); }

struct Chosen {
    Design design;
    Antenna antenna;
    shapes::BuiltAntenna built;
};

/// Reads the design, picks the antenna by name (the first one without a name) and builds it over the site's soil.
Result<Chosen> chosenAntenna(const Request& request)
{
    Result<Design> design = files::readDesign(request.design);
    if (!design)
        return design.faults();
    const auto& all = design->antennas;
    if (all.empty())
        return Fault{"antennas", "the design has no antenna; add one"};
    const auto found = request.antenna.empty()
                           ? all.begin()
                           : std::find_if(all.begin(), all.end(), [&](const Antenna& a) { return a.name == request.antenna; });
    if (found == all.end())
        return Fault{"--antenna", "there is no antenna '" + request.antenna + "' in this design"};
    Result<shapes::BuiltAntenna> built = shapes::buildOver(found->shape, design->site.soil.ground());
    if (!built)
        return built.faults();
    return Chosen{*design, *found, std::move(built).value()};
}

int newCommand(const Request& request)
{
    if (request.list) {
        Json out = Json::array();
        for (const shapes::Family* family : shapes::families()) {
            Json parameters = Json::array();
            for (const shapes::ParameterSpec& s : family->parameters())
                parameters.push_back(
                    {{"name", s.key}, {"means", s.label}, {"standard", s.standard}, {"lowest", s.lowest}, {"highest", s.highest}});
            out.push_back({{"family", family->id()},
                           {"title", family->title()},
                           {"summary", family->summary()},
                           {"tuned", family->tunedParameter()},
                           {"parameters", parameters}});
        }
        print(out);
        return exitGood;
    }
    const shapes::Family* family = shapes::findFamily(request.family);
    if (!family)
        return report({{"family", "there is no family '" + request.family + "'; see new --list"}});
    const double frequency = request.frequency > 0.0 ? request.frequency : 7.1e6;
    Antenna antenna;
    antenna.name = family->title();
    antenna.shape = family->standardShape(frequency);
    for (const std::string& setting : request.settings) {
        const auto equals = setting.find('=');
        const std::string key = setting.substr(0, equals);
        const shapes::ParameterSpec* spec = family->spec(key);
        if (!spec || equals == std::string::npos)
            return report({{"--set " + setting, "write name=value with one of the names of new --list"}});
        const Result<double> value = units::parse(setting.substr(equals + 1), spec->quantity, {frequency, units::System::Metric});
        if (!value)
            return report({{"--set " + key, value.faults().front().message}});
        antenna.shape.parameters[key] = *value;
    }
    Design design;
    design.site.soil.relativePermittivity = request.permittivity;
    design.site.soil.conductivity = request.conductivity;
    if (const auto built = shapes::buildOver(antenna.shape, design.site.soil.ground()); !built)
        return report(built.faults());
    design.antennas.push_back(antenna);
    if (Faults faults = files::saveDesign(design, request.output); !faults.empty())
        return report(faults);
    return exitGood;
}

int wiresCommand(const Request& request)
{
    const Result<Chosen> chosen = chosenAntenna(request);
    if (!chosen)
        return report(chosen.faults());
    const shapes::BuiltAntenna& built = chosen->built;
    const double frequency = request.frequency > 0.0 ? request.frequency : chosen->antenna.shape.designFrequency;
    if (Faults faults = findFrequencyFaults(frequency, "--frequency"); !faults.empty())
        return report(faults);
    fmt::print("{}", files::writeWireFile({built.model, {frequency}, {{5, 10, 20, 30, 45, 60, 90}, {0, 45, 90, 135, 180, 225, 270, 315}}}));
    return exitGood;
}

int tuneCommand(const Request& request)
{
    const Result<Chosen> chosen = chosenAntenna(request);
    if (!chosen)
        return report(chosen.faults());
    const Antenna& antenna = chosen->antenna;
    const shapes::Family* family = shapes::findFamily(antenna.shape.family);
    const std::string key = request.vary.empty() ? family->tunedParameter() : request.vary;
    const double frequency = request.frequency > 0.0 ? request.frequency : antenna.shape.designFrequency;
    em::GroundTableCache tables;
    TuneOptions options;
    options.goal = request.goal == "swr" ? TuneGoal::LowestSwr : TuneGoal::Resonance;
    const auto outcome = tune(antenna.shape, chosen->design.site.soil.ground(), key, frequency, tables, options, terminalWatch());
    if (!outcome)
        return report(outcome.faults());
    print({{"vary", key},
           {"at_Hz", frequency},
           {"value", outcome->value},
           {"rule_of_thumb", outcome->ruleValue},
           {"impedance_ohm", {outcome->impedance.real(), outcome->impedance.imag()}},
           {"solves", outcome->solves}});
    return exitGood;
}

int bandsCommand(const Request& request)
{
    const Result<Chosen> chosen = chosenAntenna(request);
    if (!chosen)
        return report(chosen.faults());
    const shapes::BuiltAntenna& built = chosen->built;
    em::GroundTableCache tables;
    const auto curve = em::sweep(std::make_shared<const WireModel>(built.model), {}, tables, terminalWatch());
    if (!curve)
        return report(curve.faults());
    const auto atLine = [&](double f) { return curve->at(f); };
    const double design = chosen->antenna.shape.designFrequency;
    const double fundamental = nearestDip(atLine, design, 0.8 * design, 1.2 * design).value_or(design);
    Json out = Json::array();
    if (request.csv)
        fmt::print("band,from_Hz,to_Hz,lowest_swr,at_Hz,r_ohm,x_ohm,share_under_limit,low_edge_swr,high_edge_swr,multiple\n");
    for (const WantedBand& wanted : chosen->design.operation.bands) {
        const Coverage c = coverage(atLine, wanted.band, chosen->design.operation.swrLimit, fundamental);
        if (request.csv)
            fmt::print("{},{:.0f},{:.0f},{:.3f},{:.0f},{:.2f},{:.2f},{:.3f},{:.3f},{:.3f},{:.3f}\n", c.band.name, c.band.from, c.band.to,
                       c.lowestSwr, c.at, c.impedance.real(), c.impedance.imag(), c.shareUnderLimit, c.lowEdgeSwr, c.highEdgeSwr,
                       c.harmonic);
        else
            out.push_back({{"band", c.band.name},
                           {"lowest_swr", c.lowestSwr},
                           {"at_Hz", c.at},
                           {"impedance_ohm", {c.impedance.real(), c.impedance.imag()}},
                           {"share_under_limit", c.shareUnderLimit},
                           {"edge_swr", {c.lowEdgeSwr, c.highEdgeSwr}},
                           {"multiple", c.harmonic}});
    }
    if (!request.csv)
        print(out);
    return exitGood;
}

int cutListCommand(const Request& request)
{
    const Result<Chosen> chosen = chosenAntenna(request);
    if (!chosen)
        return report(chosen.faults());
    const shapes::BuiltAntenna& built = chosen->built;
    const std::vector<CutRow> rows = cutList(built.sections, chosen->antenna.allowances);
    if (request.csv) {
        fmt::print("{}", cutListCsv(rows));
        return exitGood;
    }
    Json out = Json::array();
    for (const CutRow& r : rows)
        out.push_back({{"cut", r.name},
                       {"pieces", r.pieces},
                       {"radiating_m", r.radiating},
                       {"ends_m", r.ends},
                       {"margin_m", r.margin},
                       {"cut_to_m", r.cut}});
    print({{"pieces", out}, {"wire_m", totalWire(rows)}});
    return exitGood;
}

} // namespace

void addDesignCommands(CLI::App& app, int& status)
{
    auto request = std::make_shared<Request>();
    const auto withDesign = [&](const char* name, const char* help, int (*run)(const Request&)) {
        CLI::App* command = app.add_subcommand(name, help);
        command->add_option("design", request->design, "design file (.vetchling)")->required();
        command->add_option("--antenna", request->antenna, "name of the antenna; the first one if left out");
        command->callback([request, &status, run] { status = run(*request); });
        return command;
    };
    CLI::App* make = app.add_subcommand("new", "a design with one antenna");
    make->add_option("family", request->family, "family of the antenna");
    make->add_flag("--list", request->list, "families and their parameters");
    make->add_option("--set", request->settings, "name=value, as often as needed");
    make->add_option("--frequency", request->frequency, "design frequency, Hz");
    make->add_option("--permittivity", request->permittivity, "relative permittivity of the soil");
    make->add_option("--conductivity", request->conductivity, "conductivity of the soil, S/m");
    make->add_option("-o,--output", request->output, "design file to write")->required(false);
    make->callback([request, &status] {
        status = !request->list && request->output.empty() ? report({{"-o", "name the file to write"}}) : newCommand(*request);
    });

    CLI::App* families = app.add_subcommand("families", "families of antennas and their parameters");
    families->callback([request, &status] {
        request->list = true;
        status = newCommand(*request);
    });

    withDesign("wires", "the wire file of a design, ready for solve", wiresCommand)->add_option("--frequency", request->frequency, "Hz");
    CLI::App* tune = withDesign("tune", "one parameter brought to resonance or lowest SWR", tuneCommand);
    tune->add_option("--vary", request->vary, "parameter; the family's length if left out");
    tune->add_option("--at", request->frequency, "Hz; the design frequency if left out");
    tune->add_option("--target", request->goal, "resonance or swr")->check(CLI::IsMember({"resonance", "swr"}));
    withDesign("bands", "how well each band of the design is covered", bandsCommand)
        ->add_flag("--csv", request->csv, "CSV instead of JSON");
    withDesign("cutlist", "lengths to cut, with allowances", cutListCommand)->add_flag("--csv", request->csv, "CSV instead of JSON");
}

} // namespace vetchling::cli
