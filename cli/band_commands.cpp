#include "cli/band_commands.h"

#include "cli/chosen.h"
#include "cli/json_output.h"
#include "cli/kept_tables.h"
#include "cli/output.h"
#include "cli/typed.h"
#include "core/bands/free_lengths.h"
#include "core/study/configurations.h"
#include "core/study/map_run.h"
#include "core/study/service.h"
#include "core/study/settings.h"
#include "core/study/sky.h"

#include <CLI/CLI.hpp>
#include <fmt/format.h>

#include <cmath>
#include <memory>

namespace vetchling::cli {
namespace {

/// JSON has no infinity: null where there is no finite figure.
Json figure(double value) { return std::isfinite(value) ? Json(value) : Json(nullptr); }

const std::string& nameOf(const Design& design, const Id& band) { return findBand(design, band)->band.name; }

void printBandCsv(const Coverage& c, const BandService& service)
{
    if (!c.solved())
        fmt::print("{},{:.0f},{:.0f},,,,,,,,,,,\n", c.band.name, c.band.from, c.band.to);
    else
        fmt::print("{},{:.0f},{:.0f},{:.3f},{:.0f},{:.2f},{:.2f},{:.3f},{:.3f},{:.3f},{:.3f},{:.3f},{:.3f},{}\n", c.band.name, c.band.from,
                   c.band.to, c.lowestSwr, c.at, c.impedance.real(), c.impedance.imag(), c.shareUnderLimit, c.lowEdgeSwr, c.highEdgeSwr,
                   c.harmonic, service.shareWithTuner, service.total(), servedWord(service.service));
}

Json bandJson(const study::BandChoice& row, const BandService& service, const std::vector<shapes::Configuration>& configurations)
{
    const Coverage& c = row.coverage;
    if (!c.solved())
        return {{"band", c.band.name}, {"lowest_swr", nullptr}, {"solved", false}};
    Json json = {{"band", c.band.name},
                 {"lowest_swr", figure(c.lowestSwr)},
                 {"at_Hz", c.at},
                 {"impedance_ohm", {c.impedance.real(), c.impedance.imag()}},
                 {"share_under_limit", c.shareUnderLimit},
                 {"edge_swr", {figure(c.lowEdgeSwr), figure(c.highEdgeSwr)}},
                 {"multiple", c.harmonic}};
    addService(json, service);
    if (configurations.size() > 1)
        json["configuration"] = configurations[row.configuration].name;
    for (const SegmentCoverage& s : c.segments)
        json["segments"].push_back(
            {{"name", s.segment.name}, {"lowest_swr", figure(s.lowestSwr)}, {"at_Hz", s.at}, {"share_under_limit", s.shareUnderLimit}});
    return json;
}

struct BandRows {
    std::vector<study::BandChoice> choices;
    std::vector<BandService> services;
};

/// The rows of one configuration, or of each band's best one where none is named.
Result<BandRows> bandRows(const Request& request, const Chosen& chosen)
{
    study::Library library;
    const KeptTables kept(library.tables());
    const study::Question question = study::questionOf(chosen.design, chosen.antenna, {}, chosen.subject.configuration);
    const study::ServiceTerms terms = study::termsOf(chosen.design.operation, chosen.antenna);
    if (request.configuration.empty()) {
        const auto curves = study::curvesOf(library, question, terminalWatch());
        if (!curves)
            return curves.faults();
        const std::vector<study::BandChoice> choices = study::bestByBand(*curves);
        return BandRows{choices, study::servicesOf(*curves, choices, terms)};
    }
    const auto curve = study::curveOf(library, question, terminalWatch());
    if (!curve)
        return curve.faults();
    BandRows rows;
    rows.choices = study::bestByBand({*curve});
    rows.services = study::servicesOf({*curve}, rows.choices, terms);
    for (study::BandChoice& row : rows.choices)
        row.configuration = chosen.subject.configuration;
    return rows;
}

void noteLeftOut(const std::string& band)
{
    fmt::print(stderr,
               "note: {} is left out: nobody wants it and it is far from the design frequency, or the wire is longer than "
               "{:.0f} wavelengths there\n",
               band, study::longestInWaves);
}

int bandsCommand(const Request& request)
{
    const Result<Chosen> chosen = chosenAntenna(request);
    if (!chosen)
        return report(chosen.faults());
    const auto rows = bandRows(request, *chosen);
    if (!rows)
        return report(rows.faults());
    if (request.csv)
        fmt::print("band,from_Hz,to_Hz,lowest_swr,at_Hz,r_ohm,x_ohm,share_under_limit,low_edge_swr,high_edge_swr,multiple,share_with_tuner,"
                   "loss_dB,served\n");
    const auto configurations = shapes::familyOf(chosen->antenna.shape).configurations(chosen->antenna.shape);
    Json out = Json::array();
    for (std::size_t i = 0; i < rows->choices.size(); ++i) {
        const study::BandChoice& row = rows->choices[i];
        if (!row.coverage.solved())
            noteLeftOut(row.coverage.band.name);
        if (request.csv)
            printBandCsv(row.coverage, rows->services[i]);
        else
            out.push_back(bandJson(row, rows->services[i], configurations));
    }
    if (!request.csv)
        print(out);
    return exitGood;
}

struct MapRequest {
    Request chosen;
    std::string vary;
    std::string from, to; ///< with or without a unit; empty: as usual
    int count = 60;
    double elevation = 0.0, bearing = -1.0; ///< degrees; the design's where they are not given
    bool csv = false, allBands = false;
};

Json mapJson(const study::LengthMap& map, const Design& design)
{
    const auto& bands = map.question.question.bands;
    Json out{{"format", "vetchling-map"}, {"version", 1}, {"vary", map.question.vary}};
    out["elevation_deg"] = degrees(map.question.aim.elevation);
    out["bearing_deg"] = map.question.aim.azimuth ? Json(study::bearingOf(*map.question.aim.azimuth)) : Json(nullptr);
    for (const char* key : {"values", "bands", "solved", "lowest_swr", "share_under_limit", "gain_dBi", "gain_up_dBi", "resistance_ohm",
                            "by_multiples", "score", "served"})
        out[key] = Json::array();
    for (const WantedBand& w : bands)
        out["bands"].push_back(w.band.name);
    for (const study::MapColumn& column : map.columns) {
        Json solvedThere = Json::array(), swr = Json::array(), share = Json::array(), gain = Json::array(), up = Json::array(),
             resistance = Json::array(), multiples = Json::array(), served = Json::array();
        for (std::size_t i = 0; i < bands.size(); ++i) {
            const study::MapCell* cell = column.cells.empty() ? nullptr : &column.cells[i];
            const bool solved = cell && cell->solved;
            solvedThere.push_back(solved);
            swr.push_back(solved ? figure(cell->lowestSwr) : Json(nullptr));
            share.push_back(solved ? Json(cell->share) : Json(nullptr));
            gain.push_back(solved ? figure(cell->gain) : Json(nullptr));
            up.push_back(solved ? figure(cell->up) : Json(nullptr));
            resistance.push_back(solved ? figure(cell->resistance) : Json(nullptr));
            multiples.push_back(cell && cell->multiple);
            served.push_back(solved ? Json(servedWord(cell->service.service)) : Json(nullptr));
        }
        out["values"].push_back(column.value);
        out["solved"].push_back(solvedThere);
        out["lowest_swr"].push_back(swr);
        out["share_under_limit"].push_back(share);
        out["gain_dBi"].push_back(gain);
        out["gain_up_dBi"].push_back(up);
        out["resistance_ohm"].push_back(resistance);
        out["by_multiples"].push_back(multiples);
        out["served"].push_back(served);
        out["score"].push_back(column.cells.empty() ? Json(nullptr) : Json(column.score));
    }
    const auto valueAt = [&](const std::optional<std::size_t>& place) { return place ? Json(map.columns[*place].value) : Json(nullptr); };
    out["favourite"] = map.question.favourite.empty() ? Json(nullptr) : Json(nameOf(design, map.question.favourite));
    out["best_all_round"] = valueAt(map.bestAllRound);
    out["best_favourite"] = valueAt(map.bestFavourite);
    if (study::isHeight(map.question.vary)) {
        out["half_wave_m"] = out["enough_m"] = Json::array();
        for (std::size_t i = 0; i < bands.size(); ++i) {
            const auto enough = map.enoughHeight(i);
            out["half_wave_m"].push_back(0.5 * wavelength(bands[i].band.centre()));
            out["enough_m"].push_back(enough ? Json(*enough) : Json(nullptr));
        }
    }
    out["lobe_ceiling"] = map.lobeCeiling ? Json(*map.lobeCeiling) : Json(nullptr);
    return out;
}

void printMapCsv(const study::LengthMap& map)
{
    fmt::print("{},band,lowest_swr,share_under_limit,gain_dBi,by_multiples,score\n", map.question.vary);
    for (const study::MapColumn& column : map.columns)
        for (std::size_t i = 0; i < column.cells.size(); ++i) {
            const study::MapCell& cell = column.cells[i];
            const std::string& band = map.question.question.bands[i].band.name;
            if (cell.solved)
                fmt::print("{:.6g},{},{:.4g},{:.4f},{:.3f},{},{:.4f}\n", column.value, band, cell.lowestSwr, cell.share, cell.gain,
                           cell.multiple ? 1 : 0, column.score);
            else
                fmt::print("{:.6g},{},,,,{},{:.4f}\n", column.value, band, cell.multiple ? 1 : 0, column.score);
        }
}

/// Of a dimension, SI where no unit is written; 0 for nothing.
Result<double> valueOf(const std::string& text, const std::string& vary, const shapes::AntennaShape& shape)
{
    if (text.empty())
        return 0.0;
    const shapes::Family& family = shapes::familyOf(shape);
    const auto tuned = family.tuned(shape);
    const shapes::ParameterSpec* spec = family.spec(shape, vary.empty() && !tuned.empty() ? tuned.front().parameter : vary);
    return units::parse(text, spec ? spec->quantity : units::Quantity::Length, {shape.designFrequency, units::System::Metric, true});
}

int mapCommand(const MapRequest& request)
{
    if (Faults faults = findAimFaults(request.elevation, request.bearing); !faults.empty())
        return report(faults);
    Result<Chosen> chosen = chosenAntenna(request.chosen);
    if (!chosen)
        return report(chosen.faults());
    Design design = chosen->design;
    if (request.elevation > 0.0)
        design.operation.aimElevation = request.elevation;
    if (request.bearing >= 0.0)
        design.operation.aimBearing = request.bearing;
    const Result<double> from = valueOf(request.from, request.vary, chosen->antenna.shape),
                         to = valueOf(request.to, request.vary, chosen->antenna.shape);
    if (!from || !to)
        return report({{from ? "--to" : "--from", (from ? to : from).faults().front().message}});
    auto question = study::mapQuestionOf(design, chosen->antenna, request.vary, *from, *to, request.count);
    if (!question)
        return report(question.faults());
    const auto tables = std::make_shared<em::GroundTableCache>();
    const KeptTables kept(*tables);
    const auto& bands = question->question.bands;
    if (!request.allBands && std::all_of(bands.begin(), bands.end(), [](const WantedBand& w) { return w.wish == Wish::No; }))
        fmt::print(stderr, "note: no band is wished for, so none is solved; --all-bands solves all\n");
    work::Queue queue;
    study::MapRun run(
        tables, [&](work::Queue::Work work) { return queue.batch(std::move(work)); }, *question, {},
        request.allBands ? study::Reach::All : study::Reach::Wished);
    const Watch watch = terminalWatch();
    run.wait(queue, watch);
    if (watch.stopped())
        return report({stoppedFault()});
    const auto map = run.map();
    for (const study::MapColumn& column : map->columns)
        if (!column.fault.empty())
            fmt::print(stderr, "note: {} = {:.6g}: {}\n", map->question.vary, column.value, column.fault.english());
    if (!map->bestAllRound && map->progress() >= 1.0 && map->columns.front().cells.empty())
        return report({{map->question.vary, map->columns.front().fault}});
    if (request.csv)
        printMapCsv(*map);
    else
        print(mapJson(*map, design));
    return exitGood;
}

struct LengthsRequest {
    std::vector<std::string> bands;
    std::string velocity = "0.95:1", measure = "half-wave";
    FreeLengthOptions options;
    bool csv = false;
};

/// "7e6:7.2e6", two numbers with a colon between them.
bool readPair(const std::string& text, double& from, double& to)
{
    const auto colon = text.find(':');
    if (colon == std::string::npos)
        return false;
    const auto number = [](const std::string& part, double& value) {
        const Result<double> read = units::parse(part, units::Quantity::Frequency, {0.0, units::System::Metric, true});
        if (read)
            value = *read;
        return read.ok();
    };
    return number(text.substr(0, colon), from) && number(text.substr(colon + 1), to);
}

int lengthsCommand(LengthsRequest request)
{
    std::vector<Band> bands;
    for (const std::string& text : request.bands) {
        Band band{text, 0.0, 0.0};
        if (!readPair(text, band.from, band.to))
            return report({{"--band " + text, "write the lower and the upper edge in Hz, such as 7e6:7.2e6"}});
        bands.push_back(band);
    }
    if (!readPair(request.velocity, request.options.lowestVelocity, request.options.highestVelocity))
        return report({{"--velocity-factor " + request.velocity, "write the lowest and the highest one, such as 0.95:1"}});
    request.options.measure = request.measure == "multiple" ? DistanceMeasure::Multiple : DistanceMeasure::HalfWave;
    const auto intervals = freeLengths(bands, request.options);
    if (!intervals)
        return report(intervals.faults());
    if (request.csv)
        fmt::print("from_m,to_m,best_m,distance_percent\n");
    Json all = Json::array();
    for (const FreeInterval& i : *intervals)
        if (request.csv)
            fmt::print("{:.9f},{:.9f},{:.9f},{:.9f}\n", i.from, i.to, i.best, i.distancePercent);
        else
            all.push_back({{"from_m", i.from}, {"to_m", i.to}, {"best_m", i.best}, {"distance_percent", i.distancePercent}});
    if (!request.csv)
        print({{"intervals", all}});
    return exitGood;
}

Json settingJson(const study::SettingRow& row, const Design& design, const std::vector<shapes::Configuration>& configurations)
{
    Json json{{"band", nameOf(design, row.band)}, {"frequency_Hz", row.frequency}, {"values", Json::object()}};
    for (const auto& [key, value] : row.values)
        json["values"][key] = value;
    if (configurations.size() > 1)
        json["configuration"] = configurations[row.configuration].name;
    json["slope_Hz_per_m"] = row.slope != 0.0 ? Json(row.slope) : Json(nullptr);
    json["reached"] = row.reached;
    json["beyond"] = row.beyond;
    json["solved"] = row.solved;
    json["impedance_ohm"] = row.solved ? Json{row.impedance.real(), row.impedance.imag()} : Json(nullptr);
    json["share_under_limit"] = row.solved && row.coverage.solved() ? Json(row.coverage.shareUnderLimit) : Json(nullptr);
    return json;
}

int settingsCommand(const Request& request)
{
    const Result<Chosen> chosen = chosenAntenna(request);
    if (!chosen)
        return report(chosen.faults());
    study::Library library;
    const KeptTables kept(library.tables());
    const auto chart =
        study::settingsOf(library, study::questionOf(chosen->design, chosen->antenna, {}, chosen->subject.configuration), terminalWatch());
    if (!chart)
        return report(chart.faults());
    const auto configurations = shapes::familyOf(chosen->antenna.shape).configurations(chosen->antenna.shape);
    if (request.csv) {
        fmt::print("band,frequency_Hz,configuration");
        for (const auto& [key, value] : chart->rows.empty() ? shapes::Parameters() : chart->rows.front().values)
            fmt::print(",{}", key);
        fmt::print(",slope_Hz_per_m,reached\n");
        for (const study::SettingRow& row : chart->rows) {
            fmt::print("{},{:.0f},{}", nameOf(chosen->design, row.band), row.frequency, configurations[row.configuration].name);
            for (const auto& [key, value] : row.values)
                fmt::print(",{:.6g}", value);
            fmt::print(",{:.6g},{}\n", row.slope, row.reached ? 1 : 0);
        }
        return exitGood;
    }
    Json rows = Json::array();
    for (const study::SettingRow& row : chart->rows)
        rows.push_back(settingJson(row, chosen->design, configurations));
    print({{"rows", rows}});
    return exitGood;
}

void addMapCommand(CLI::App& app, int& status)
{
    auto request = std::make_shared<MapRequest>();
    CLI::App* map = app.add_subcommand("harmonics", "every band for a range of lengths, solved, and which length serves best");
    map->add_option("design", request->chosen.design, "design file (.vetchling)")->required();
    map->add_option("--antenna", request->chosen.antenna, "name or id of the antenna; the first one if left out");
    map->add_option("--vary", request->vary, "dimension; the first tuned length if left out");
    map->add_option("--from", request->from, "lowest value, SI; two thirds of the present one if left out");
    map->add_option("--to", request->to, "highest value, SI; half as much again as the present one if left out");
    map->add_option("--count", request->count, "how many values");
    map->add_option("--elevation", request->elevation, "degrees above the horizon, for the gain; the design's if left out");
    map->add_option("--bearing", request->bearing, "degrees; the design's if left out, or where the gain is highest");
    map->add_flag("--all-bands", request->allBands, "bands that nobody wishes for are solved too");
    map->add_flag("--csv", request->csv, "CSV instead of JSON");
    map->callback([request, &status] { status = mapCommand(*request); });
}

void addLengthsCommand(CLI::App& app, int& status)
{
    auto request = std::make_shared<LengthsRequest>();
    CLI::App* lengths = app.add_subcommand("lengths", "lengths of wire that are no multiple of half a wave on any band, by rule");
    lengths->add_option("--band", request->bands, "lower and upper edge, Hz, as 7e6:7.2e6; as many as wanted")->required();
    lengths->add_option("--velocity-factor", request->velocity, "lowest and highest one on the wire, as 0.95:1");
    lengths->add_option("--margin", request->options.marginPercent, "percent of a half wave, or of the multiple");
    lengths->add_option("--measure", request->measure, "what the margin is a part of")->check(CLI::IsMember({"half-wave", "multiple"}));
    quantityOption(lengths, "--from", request->options.from, units::Quantity::Length, "shortest wire, m or with a unit");
    quantityOption(lengths, "--to", request->options.to, units::Quantity::Length, "longest wire, m or with a unit");
    lengths->add_flag("--csv", request->csv, "CSV instead of JSON");
    lengths->callback([request, &status] { status = lengthsCommand(*request); });
}

} // namespace

void addBandCommands(CLI::App& app, int& status)
{
    auto request = std::make_shared<Request>();
    const auto withDesign = [&](const char* name, const char* help, int (*run)(const Request&)) {
        return addAntennaCommand(app, request, status, name, help, run);
    };
    for (CLI::App* command : {withDesign("bands", "how well each band of the design is covered", bandsCommand),
                              withDesign("settings", "how an antenna that can be set is set for each band", settingsCommand)})
        command->add_flag("--csv", request->csv, "CSV instead of JSON");
    addMapCommand(app, status);
    addLengthsCommand(app, status);
}

} // namespace vetchling::cli
