#include "cli/commands.h"

#include "cli/advise_command.h"
#include "cli/band_commands.h"
#include "cli/bench_commands.h"
#include "cli/check_command.h"
#include "cli/design_commands.h"
#include "cli/family_commands.h"
#include "cli/feed_commands.h"
#include "cli/json_output.h"
#include "cli/kept_tables.h"
#include "cli/output.h"
#include "cli/spread_commands.h"
#include "cli/terrain_commands.h"
#include "cli/trim_commands.h"
#include "cli/typed.h"
#include "cli/workshop_commands.h"
#include "core/em/far_field.h"
#include "core/em/near_field.h"
#include "core/em/sensitivity.h"
#include "core/em/sweep.h"
#include "core/files/sweep_file.h"
#include "core/files/wire_file.h"
#include "core/study/told_gain.h"
#include "core/wire/range.h"

#include <CLI/CLI.hpp>
#include <fmt/format.h>

#include <algorithm>
#include <cstdio>
#include <numeric>
#include <optional>
#include <system_error>

namespace vetchling::cli {
namespace {

Result<files::CaseResult> solveOne(const std::shared_ptr<const WireModel>& model, double frequency, const files::PatternRequest& pattern,
                                   bool elsewhere, em::GroundTableCache& tables, const em::SolveOptions& options, const Watch& watch)
{
    Result<em::Solution> solution = em::solve(model, frequency, tables, options, watch);
    if (!solution)
        return solution.faults();
    const Result<em::PowerLedger> ledger = em::powerLedger(*solution, tables, watch);
    if (!ledger)
        return ledger.faults();
    const auto inRadians = [](std::vector<double> angles) {
        for (double& angle : angles)
            angle = radians(angle);
        return angles;
    };
    const em::FarField field(*solution);
    const std::vector<double> elevations = inRadians(pattern.elevations), azimuths = inRadians(pattern.azimuths);
    auto gain = field.gainGrid(elevations, azimuths);
    std::vector<std::vector<double>> flat;
    if (!model->beyond.empty())
        flat = field.over({}).gainGrid(elevations, azimuths);
    files::CaseResult out{std::move(solution).value(), *ledger, std::move(gain), std::move(flat)};
    if (!elsewhere)
        return out;
    const auto told = study::gainElsewhere(model, frequency, tables, options, watch);
    if (!told)
        return told.faults();
    if (!*told)
        return Fault{"--elsewhere", "over soil only, and where no wire touches it or runs in it: perfect ground has no inside"};
    out.withoutNearLoss = (*told)->withoutNearLoss->gainGrid(elevations, azimuths);
    out.perfect = (*told)->perfect->gainGrid(elevations, azimuths);
    return out;
}

/// How far the error moves the place where X = 0, Hz; nothing where the reactance is not small there.
std::optional<double> resonanceError(const em::Solution& solution, em::GroundTableCache& tables, const em::SolveOptions& options,
                                     const Watch& watch)
{
    constexpr double step = 2e-3; // of the frequency
    if (std::abs(solution.impedance.imag()) > solution.impedance.real())
        return std::nullopt;
    const auto beside = em::solve(solution.model, (1.0 + step) * solution.frequency, tables, options, watch);
    if (!beside)
        return std::nullopt;
    const double slope = std::abs(beside->impedance.imag() - solution.impedance.imag()) / (step * solution.frequency);
    return 0.01 * solution.impedanceErrorPercent * std::abs(solution.impedance) / slope;
}

/// Says on stderr where the wanted accuracy was not reached, and where the model leaves its range.
void noteUnsettled(const em::Solution& solution, em::GroundTableCache& tables, const em::SolveOptions& options, const Watch& watch)
{
    for (const RangeNote& note : rangeNotes(*solution.model, solution.frequency))
        fmt::print(stderr, "note: wires[{}]: {}\n", note.wire, note.message.english());
    if (!(options.wantedErrorPercent > 0.0 && solution.impedanceErrorPercent > options.wantedErrorPercent))
        return;
    const auto hertz = resonanceError(solution, tables, options, watch);
    fmt::print(stderr, "note: at {:.6g} MHz the impedance is only sure to {:.2g} %{}\n", solution.frequency / 1e6,
               solution.impedanceErrorPercent, hertz ? fmt::format(", and the resonance beside it to {:.2g} kHz", *hertz / 1e3) : "");
}

int solveCommand(const std::string& path, bool elsewhere, const em::SolveOptions& options)
{
    Result<files::WireCase> wires = files::readWireFile(path);
    if (!wires)
        return report(wires.faults());
    const Watch watch = terminalWatch();
    em::GroundTableCache tables(8);
    const KeptTables kept(tables);
    const auto model = std::make_shared<const WireModel>(wires->model);
    std::vector<files::CaseResult> results;
    for (std::size_t i = 0; i < wires->frequencies.size(); ++i) {
        Result<files::CaseResult> one = solveOne(model, wires->frequencies[i], wires->pattern, elsewhere, tables, options, watch);
        if (!one)
            return report(one.faults());
        noteUnsettled(one->solution, tables, options, watch);
        results.push_back(std::move(one).value());
        watch.report(double(i + 1) / double(wires->frequencies.size()));
    }
    fmt::print("{}", files::writeResultFile(results));
    return exitGood;
}

int sensitivityCommand(const std::string& path)
{
    Result<files::WireCase> wires = files::readWireFile(path);
    if (!wires)
        return report(wires.faults());
    const Watch watch = terminalWatch();
    em::GroundTableCache tables(8);
    const KeptTables kept(tables);
    const auto model = std::make_shared<const WireModel>(wires->model);
    Json results = Json::array();
    for (double frequency : wires->frequencies) {
        const auto solution = em::solve(model, frequency, tables, {}, watch);
        if (!solution)
            return report(solution.faults());
        const auto s = em::sensitivities(*solution, tables, watch);
        if (!s)
            return report(s.faults());
        Json ends = Json::array(), loads = Json::array();
        for (const em::EndSensitivity& end : s->ends)
            ends.push_back({{"wire", model->wires[end.wire].id}, {"end", end.atStart ? "first" : "last"}, {"per_m", pair(end.perMetre)}});
        for (Complex load : s->perLoad)
            loads.push_back(pair(load));
        results.push_back({{"frequency_Hz", frequency},
                           {"impedance_ohm", pair(solution->impedance)},
                           {"free_ends", ends},
                           {"height_per_m", pair(s->perHeight)},
                           {"radius_per_percent", pair(0.01 * s->perRadius)},
                           {"permittivity_per_percent", pair(0.01 * s->perPermittivity)},
                           {"conductivity_per_percent", pair(0.01 * s->perConductivity)},
                           {"loads_per_ohm", loads}});
    }
    fmt::print("{}\n", Json{{"format", "vetchling-sensitivities"}, {"version", 1}, {"results", results}}.dump(1));
    return exitGood;
}

/// Fields at points, scaled to a power into all feeds; those of the file's voltages if it is zero.
int fieldCommand(const std::string& path, const std::vector<std::string>& places, double power)
{
    Result<files::WireCase> wires = files::readWireFile(path);
    if (!wires)
        return report(wires.faults());
    std::vector<Vec3> points;
    for (const std::string& place : places) {
        Vec3 p;
        char after = 0;
        if (std::sscanf(place.c_str(), "%lf,%lf,%lf%c", &p.x, &p.y, &p.z, &after) != 3)
            return report({{"--at", "'" + place + "' is not a point; write X,Y,Z in metres"}});
        points.push_back(p);
    }
    const Watch watch = terminalWatch();
    em::GroundTableCache tables(8);
    const KeptTables kept(tables);
    em::SolveOptions options;
    options.wantedErrorPercent = em::usualErrorPercent;
    Json results = Json::array();
    for (double frequency : wires->frequencies) {
        const auto solution = em::solve(std::make_shared<const WireModel>(wires->model), frequency, tables, options, watch);
        if (!solution)
            return report(solution.faults());
        const em::NearField field(*solution, tables);
        const double scale = power > 0.0 ? std::sqrt(power / solution->inputPower) : 1.0;
        Json list = Json::array();
        for (Vec3 p : points) {
            const auto here = field.at(p);
            if (!here)
                return report({{fmt::format("--at {},{},{}", p.x, p.y, p.z), here.faults().front().message}});
            Json e = Json::array(), h = Json::array();
            for (int c = 0; c < 3; ++c)
                e.push_back(pair(scale * here->e[c])), h.push_back(pair(scale * here->h[c]));
            list.push_back({{"point_m", {p.x, p.y, p.z}},
                            {"e_V_per_m", e},
                            {"h_A_per_m", h},
                            {"e_rms_V_per_m", scale * here->electric()},
                            {"h_rms_A_per_m", scale * here->magnetic()}});
        }
        results.push_back({{"frequency_Hz", frequency}, {"power_W", scale * scale * solution->inputPower}, {"fields", list}});
    }
    fmt::print("{}\n", Json{{"format", "vetchling-fields"}, {"version", 1}, {"results", results}}.dump(1));
    return exitGood;
}

enum class SweepFormat { Json, Csv, Touchstone };

int sweepCommand(const std::string& path, const em::SweepOptions& options, SweepFormat format)
{
    Result<files::WireCase> wires = files::readWireFile(path);
    if (!wires)
        return report(wires.faults());
    em::GroundTableCache tables;
    const KeptTables kept(tables);
    const Result<em::ImpedanceCurve> curve = em::sweep(std::make_shared<const WireModel>(wires->model), options, tables, terminalWatch());
    if (!curve)
        return report(curve.faults());
    if (!curve->converged)
        fmt::print(stderr, "note: after {} solves the curve is still uncertain in places\n", curve->solves);
    const files::SweepTable table = files::sweepTable(*curve, options.from, options.to);
    fmt::print("{}", format == SweepFormat::Csv          ? files::sweepCsv(table)
                     : format == SweepFormat::Touchstone ? files::sweepTouchstone(table)
                                                         : files::sweepJson(table));
    return exitGood;
}

/// Letters to be put in, left out or changed between two words (Levenshtein 1966).
std::size_t lettersBetween(const std::string& a, const std::string& b)
{
    std::vector<std::size_t> row(b.size() + 1);
    std::iota(row.begin(), row.end(), std::size_t(0));
    for (std::size_t i = 0; i < a.size(); ++i) {
        std::size_t corner = row[0];
        row[0] = i + 1;
        for (std::size_t k = 0; k < b.size(); ++k) {
            const std::size_t above = row[k + 1];
            row[k + 1] = std::min({corner + (a[i] == b[k] ? 0 : 1), above + 1, row[k] + 1});
            corner = above;
        }
    }
    return row.back();
}

/// What is answered without a command: the version, and a word that is none, with the nearest. Nothing where there is a command.
std::optional<int> withoutCommand(const CLI::App& app, const std::string& first)
{
    if (first == "--version") {
        fmt::print("vetchling-cli {}\n", VETCHLING_VERSION);
        return exitGood;
    }
    if (first.empty() || first.front() == '-')
        return std::nullopt;
    std::string nearest;
    std::size_t letters = first.size();
    for (const CLI::App* command : app.get_subcommands([](const CLI::App*) { return true; })) {
        const std::size_t between = lettersBetween(first, command->get_name());
        if (between == 0)
            return std::nullopt;
        if (between < letters)
            letters = between, nearest = command->get_name();
    }
    constexpr std::size_t mostSlips = 3;
    return report({{first, nearest.empty() || letters > mostSlips ? std::string("is no command; --help lists all")
                                                                  : "is no command; did you mean '" + nearest + "'? --help lists all"}});
}

} // namespace

int run(int argc, char** argv)
{
    CLI::App app{"Vetchling on the command line: wire antennas over real ground"};
    app.require_subcommand(1);
    int status = exitGood;
    std::string path;
    em::SolveOptions options;
    options.wantedErrorPercent = em::usualErrorPercent;

    CLI::App* solve = app.add_subcommand("solve", "impedance, losses and gain of a wire file, as JSON");
    solve->add_option("case", path, "wire file")->required();
    solve->add_option("--degree", options.mesh.degree, "degree of the current on each element")->check(CLI::Range(2, em::largestDegree));
    solve->add_option("--elements-per-wavelength", options.mesh.elementsPerWavelength, "coarsest elements")->check(CLI::Range(2.0, 400.0));
    solve->add_option("--fineness", options.mesh.fineness, "shortest elements smaller by this factor")->check(CLI::Range(0.5, 50.0));
    solve->add_option("--accuracy", options.wantedErrorPercent, "percent in the impedance to refine the mesh for; 0: one mesh only")
        ->check(CLI::Range(0.0, 10.0));
    bool elsewhere = false;
    solve->add_flag("--elsewhere", elsewhere, "the pattern also without the loss in the near ground, and over perfect ground");
    solve->callback([&] { status = solveCommand(path, elsewhere, options); });

    em::SweepOptions sweepOptions;
    bool csv = false, touchstone = false;
    CLI::App* sweep = app.add_subcommand("sweep", "impedance and SWR of a wire file over a range");
    sweep->add_option("case", path, "wire file")->required();
    quantityOption(sweep, "--from", sweepOptions.from, units::Quantity::Frequency, "first frequency, Hz or with a unit")->required();
    quantityOption(sweep, "--to", sweepOptions.to, units::Quantity::Frequency, "last frequency, Hz or with a unit")->required();
    sweep->add_flag("--csv", csv, "CSV instead of JSON");
    sweep->add_flag("--touchstone", touchstone, "Touchstone instead of JSON")->excludes("--csv");
    sweep->callback([&] {
        status = sweepCommand(path, sweepOptions, csv ? SweepFormat::Csv : touchstone ? SweepFormat::Touchstone : SweepFormat::Json);
    });

    CLI::App* sensitivity = app.add_subcommand("sensitivities", "how the impedance of a wire file answers to small changes, as JSON");
    sensitivity->add_option("case", path, "wire file")->required();
    sensitivity->callback([&] { status = sensitivityCommand(path); });

    std::vector<std::string> places;
    double power = 0.0;
    CLI::App* fields = app.add_subcommand("fields", "electric and magnetic field of a wire file at points above ground, as JSON");
    fields->add_option("case", path, "wire file")->required();
    fields->add_option("--at", places, "X,Y,Z in metres; as many as wanted")->required();
    fields->add_option("--power", power, "W into the feeds; left out: the file's voltages")->check(CLI::NonNegativeNumber);
    fields->callback([&] { status = fieldCommand(path, places, power); });

    addDesignCommands(app, status);
    addCheckCommand(app, status);
    addTerrainCommands(app, status);
    addAdviseCommand(app, status);
    addBandCommands(app, status);
    addSpreadCommands(app, status);
    addFeedCommands(app, status);
    addWorkshopCommands(app, status);
    addBenchCommands(app, status);
    addTrimCommands(app, status);
    addFamilyCommands(app, status);

    if (argc > 1)
        if (const auto answered = withoutCommand(app, argv[1]))
            return *answered;
    try {
        app.parse(argc, argv);
    } catch (const CLI::CallForHelp& e) {
        return app.exit(e);
    } catch (const CLI::ParseError& e) {
        fmt::print(stderr, "{}; see --help\n", e.what());
        return exitBad;
    } catch (const std::system_error& e) { // a full disk behind stdout
        return report({{"stdout", std::string("could not be written: ") + e.what()}});
    }
    if (std::fflush(stdout) != 0 || std::ferror(stdout) != 0)
        return report({{"stdout", "could not be written; check the free space"}});
    return status;
}

} // namespace vetchling::cli
