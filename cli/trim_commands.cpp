#include "cli/trim_commands.h"

#include "cli/chosen.h"
#include "cli/json_output.h"
#include "cli/kept_tables.h"
#include "cli/output.h"
#include "cli/typed.h"
#include "core/files/chain_file.h"
#include "core/files/data_folder.h"
#include "core/files/design_file.h"
#include "core/files/log_csv.h"
#include "core/files/measured_file.h"
#include "core/study/answers.h"
#include "core/trim/history.h"
#include "core/trim/next_step.h"
#include "core/trim/readings.h"
#include "core/trim/sense.h"
#include "core/trim/site_fit.h"
#include "core/trim/step_effects.h"
#include "core/trim/trim.h"

#include <CLI/CLI.hpp>
#include <fmt/format.h>

#include <algorithm>
#include <ctime>
#include <memory>

namespace vetchling::cli {
namespace {

using units::Quantity;

struct LogRequest {
    Request chosen;
    std::string dip, swr, parameter, cut, asCut, height, remark, file, readings, soil, weather, place, coax, line, instrument;
    bool folded = false, sure = false;
    std::string when;
};

/// A sweep from a file, brought to the feedpoint where coax lay between.
Faults takeFile(const LogRequest& request, double reference, Measurement& m)
{
    const auto read = files::readMeasured(request.file);
    if (!read) {
        Faults wrong = read.faults();
        wrong.front().path = request.file + (wrong.front().path.empty() ? "" : " " + wrong.front().path);
        return wrong;
    }
    const MeasuredSweep sweep = read->against(reference);
    if (const auto dip = sweep.dip(); dip && dip->atEdge)
        return {{request.file, fmt::format("the SWR is lowest at the edge of the sweep, {:.6g} MHz: the dip lies beyond; sweep on there",
                                           dip->frequency / 1e6)}};
    if (!(m.coax > 0.0)) {
        takeSweepThrough(sweep, true, 0.0, nullptr, m);
        return {};
    }
    const auto lines = files::readLineTypes(files::findDataFolder() + "/lines.json");
    if (!lines)
        return lines.faults();
    const auto type = std::find_if(lines->begin(), lines->end(), [&](const LineType& t) { return t.id == request.line; });
    if (type == lines->end())
        return {{"--line", "there is no kind of line '" + request.line + "' in the data"}};
    takeSweepThrough(sweep, true, m.coax, &*type, m);
    return {};
}

/// The dip by readings at some frequencies and the model's curve.
Faults takeReadings(const LogRequest& request, const Design& design, const Antenna& antenna, Measurement& m)
{
    const auto atOption = [](Faults wrong) {
        for (Fault& fault : wrong)
            fault.path = "--readings" + (fault.path.empty() ? "" : " " + fault.path);
        return wrong;
    };
    const auto typed = parseReadings(request.readings, design.operation.reference);
    if (!typed) // before anything is solved
        return atOption(typed.faults());
    const auto tasks = trimTasks(antenna);
    if (!m.configuration && !tasks.empty() && !typed->empty()) { // of the piece whose goal is near
        Measurement near = m;
        near.dip = typed->front().frequency;
        m.configuration = tasks[taskOf(tasks, near)].configuration;
    }
    study::Library library;
    const KeptTables kept(library.tables());
    const auto curve = study::curveOf(library, study::questionOf(design, antenna, {}, m.configuration.value_or(0)));
    if (!curve)
        return curve.faults();
    const study::CurvePointer& known = *curve;
    const auto read = dipOfReadings(
        request.readings, design.operation.reference, [&](double f) { return known->atLine(f); }, known->fundamental);
    if (!read)
        return atOption(read.faults());
    if (read->both) {
        const auto place = [](const std::optional<double>& f) {
            return f ? fmt::format("{:.4g} MHz", *f / 1e6) : std::string("nowhere near");
        };
        return {{"--readings", "one reading can mean too long (dip " + place(read->both->ifTooLong) + ") or too short (dip " +
                                   place(read->both->ifTooShort) + "): read a second frequency, or give --dip after a hand test"}};
    }
    if (!read->dip)
        return {{"--readings", "give two or more, as 'frequency SWR; frequency SWR'"}};
    m.dip = *read->dip;
    return {};
}

/// The entry as it is said, with its faults by option.
Result<Measurement> measurementOf(const LogRequest& request, const Design& design, const Antenna& antenna)
{
    Faults faults;
    Measurement m;
    m.when = request.when.empty() ? localTime() : request.when;
    if (!dayOf(m.when))
        faults.push_back({"--when", "a date is written 2026-05-31 or 2026-05-31T14:05"});
    const int ways = int(!request.file.empty()) + int(!request.dip.empty()) + int(!request.readings.empty());
    if (ways != 1)
        return Fault{"log", "give one of --dip, --readings, or --file with a sweep"};
    if (!request.chosen.configuration.empty()) {
        const Result<std::size_t> configuration = chosenConfiguration(request.chosen, antenna.shape);
        if (!configuration)
            return configuration.faults();
        m.configuration = *configuration;
    }
    m.coax = number(request.coax, "--coax", Quantity::Length, faults);
    Faults read;
    if (!request.file.empty())
        read = takeFile(request, design.operation.reference, m);
    else if (!request.readings.empty())
        read = takeReadings(request, design, antenna, m);
    else
        m.dip = number(request.dip, "--dip", Quantity::Frequency, faults);
    if (!read.empty())
        return read;
    if (!request.swr.empty())
        m.dipSwr = number(request.swr, "--swr", Quantity::Plain, faults);
    m.cutSinceLast = number(request.cut, "--cut", Quantity::Length, faults);
    if (!request.height.empty())
        m.height = number(request.height, "--height", Quantity::Length, faults);
    m.parameter = request.parameter;
    m.folded = request.folded;
    m.remark = request.remark;
    m.weather = request.weather;
    m.place = request.place;
    m.instrument = request.instrument;
    const auto soil = std::find(soilStateWords.begin(), soilStateWords.end(), request.soil);
    if (soil == soilStateWords.end())
        faults.push_back({"--soil", "dry, damp, wet or frozen"});
    else
        m.soil = SoilState(soil - soilStateWords.begin());
    if (!m.parameter.empty() && !shapes::familyOf(antenna.shape).spec(antenna.shape, m.parameter))
        faults.push_back({"--parameter", "the antenna has no dimension '" + m.parameter + "'"});
    for (Fault fault : findMeasurementFaults(m)) {
        fault.path = fault.path == "dipSwr" ? "--swr" : fault.path == "cutSinceLast" ? "--cut" : "--" + fault.path;
        faults.push_back(fault);
    }
    if (!faults.empty())
        return faults;
    return m;
}

/// What the first entry begins from: as it is said, else as bench and cut list have it, which is told.
Faults beginAsSaid(const LogRequest& request, Antenna& antenna)
{
    TrimLog& log = antenna.trim;
    const bool first = log.measurements.empty();
    if (request.asCut.empty()) {
        if (first && log.cutFrom == CutFrom::NotKnown)
            for (const auto& [key, longer] : withLogBegun(antenna).trim.asCut)
                fmt::print(stderr, "log: begins with {} {:.3f} m longer than its plan, as {}; --as-cut says otherwise\n", key, longer,
                           cutFromWords[std::size_t(withLogBegun(antenna).trim.cutFrom)]);
        return {};
    }
    Faults faults;
    const double longer = number(request.asCut, "--as-cut", Quantity::Length, faults);
    if (!first)
        faults.push_back({"--as-cut", "the log has begun already; it is said with the first entry"});
    if (!faults.empty())
        return faults;
    for (const TrimTask& task : trimTasks(antenna))
        log.asCut[task.lever.parameter] = longer;
    log.cutFrom = CutFrom::Typed;
    return {};
}

/// What is more likely a slip is asked about: what cannot be of this antenna stops, what is only unlikely is said.
Faults questions(const LogRequest& request, const Antenna& antenna, const Measurement& m)
{
    Faults faults;
    const auto expected = request.sure ? std::nullopt : unlikelyDip(antenna, m, 0.0, 0.0);
    if (expected && cannotBe(m.dip, *expected))
        faults.push_back(
            {"--dip", fmt::format("{:.6g} MHz? About {:.6g} is expected; if it was read so, say --sure", m.dip / 1e6, *expected / 1e6)});
    else if (expected)
        fmt::print(stderr, "log: about {:.6g} MHz was expected and {:.6g} is written down; look at it once more\n", *expected / 1e6,
                   m.dip / 1e6);
    if (!request.sure && !possibleDate(m.when, localTime()))
        faults.push_back({"--when", m.when + "? If it was measured then, say --sure"});
    return faults;
}

int logCommand(const LogRequest& request)
{
    Result<Design> read = openDesign(request.chosen.design);
    if (!read)
        return report(read.faults());
    Design design = *read;
    const Result<std::size_t> place = chosenPlace(request.chosen, design);
    if (!place)
        return report(place.faults());
    Antenna& antenna = design.antennas[*place];
    Result<Measurement> m = measurementOf(request, design, antenna);
    if (!m)
        return report(m.faults());
    if (Faults faults = questions(request, antenna, *m); !faults.empty())
        return report(faults);
    if (Faults faults = beginAsSaid(request, antenna); !faults.empty())
        return report(faults);
    addMeasurement(antenna, *m);
    nameNewThings(design);
    if (const auto built = shapes::buildOver(asLogged(antenna), groundUnder(design, antenna)); !built)
        return report({{"--cut", "what is left cannot hang as it is drawn: " + built.faults().front().message.english()}});
    if (Faults faults = files::saveDesign(design, request.chosen.output); !faults.empty())
        return report(faults);
    return exitGood;
}

int trimCommand(const Request& request)
{
    const Result<Chosen> chosen = chosenAntenna(request);
    if (!chosen)
        return report(chosen.faults());
    TrimQuestion question = trimQuestionOf(chosen->design, chosen->antenna);
    const auto tasks = trimTasks(chosen->antenna);
    if (!request.configuration.empty())
        for (std::size_t i = 0; i < tasks.size() && !question.task; ++i)
            if (tasks[i].configuration == chosen->subject.configuration)
                question.task = i;
    study::Library library;
    const KeptTables kept(library.tables());
    const auto outcome = trimNext(library, question, terminalWatch());
    if (!outcome)
        return report(outcome.faults());
    const TrimNext& next = outcome->next;
    const TrimTask& task = outcome->tasks[next.task];
    const bool changes =
        next.step == TrimStep::Cut || next.step == TrimStep::Slide || next.step == TrimStep::Lengthen || next.step == TrimStep::Fold;
    Json order = Json::array();
    for (std::size_t i = 0; i < outcome->tasks.size(); ++i)
        order.push_back({{"parameter", outcome->tasks[i].lever.parameter},
                         {"target_Hz", outcome->tasks[i].target},
                         {"configuration", outcome->tasks[i].configurationName},
                         {"state", stepName(outcome->states[i])}});
    Json also = Json::array();
    if (const auto effects = stepEffects(library, chosen->design, chosen->antenna, *outcome, terminalWatch()))
        for (const BandEffect& e : *effects)
            also.push_back({{"band", e.name}, {"swr_before", e.swrBefore}, {"swr_after", e.swrAfter}, {"past_limit", e.lost}});
    Json other = nullptr;
    if (next.other)
        other = {{"parameter", next.other->lever.parameter},
                 {"piece", next.other->lever.name},
                 {"change", next.other->change},
                 {"predicted_dip_Hz", next.other->predicted}};
    Json signs = Json::array();
    for (const SenseRow& row : next.sense)
        signs.push_back({{"good", row.good()}, {"stops", row.stops()}, {"words", row.words.english()}});
    Json behind = nullptr; // what would be next if the last measurement is believed
    if (next.behind)
        behind = {{"action", stepName(next.behind->step)},
                  {"change", next.behind->change != 0.0 ? Json(next.behind->change) : Json(nullptr)},
                  {"predicted_dip_Hz", next.behind->predicted},
                  {"words", next.behind->words.english()}};
    const TrimLog& begun = question.antenna.trim;
    fmt::print("{}\n", Json({{"action", stepName(next.step)},
                             {"parameter", task.lever.parameter},
                             {"change", changes ? Json(next.change) : Json(nullptr)},
                             {"piece", task.lever.name},
                             {"pieces", task.lever.pieces},
                             {"configuration", task.configurationName.empty() ? Json(nullptr) : Json(task.configurationName)},
                             {"predicted_dip_Hz", next.predicted > 0.0 ? Json(next.predicted) : Json(nullptr)},
                             {"sure_Hz", next.sure},
                             {"target_Hz", next.target},
                             {"aim_here_Hz", next.aim},
                             {"tolerance_Hz", next.tolerance},
                             {"slope_Hz_per_m", next.slope},
                             {"model_slope_Hz_per_m", next.modelSlope},
                             {"model_dip_Hz", next.modelDip},
                             {"words", next.words.english()},
                             {"signs", signs},
                             {"behind", behind},
                             {"fold_instead_m", next.fold > 0.0 ? Json(next.fold) : Json(nullptr)},
                             {"or_instead", other},
                             {"other_bands", also},
                             {"waits_for", next.waitsFor ? Json(outcome->tasks[*next.waitsFor].lever.parameter) : Json(nullptr)},
                             {"as_cut_longer_m", Json(begun.asCut)},
                             {"as_cut_from", cutFromWords[std::size_t(begun.cutFrom)]},
                             {"order", order}})
                           .dump(1));
    return exitGood;
}

Json fittedJson(const Fitted& f) { return {{"value", f.value}, {"sure", f.sure}}; }

int fitCommand(const Request& request)
{
    const Result<Chosen> chosen = chosenAntenna(request);
    if (!chosen)
        return report(chosen.faults());
    study::Library library;
    const KeptTables kept(library.tables());
    const auto fit = fitSite(library, chosen->design, chosen->antenna, terminalWatch());
    if (!fit)
        return report(fit.faults());
    Json bands = Json::array();
    for (const FitPrediction& p : fit->bands)
        bands.push_back({{"band", p.name}, {"planned_dip_Hz", p.asPlanned}, {"dip_Hz", fittedJson(p.dip)}});
    fmt::print("{}\n", Json({{"relative_permittivity", fittedJson(fit->permittivity)},
                             {"conductivity_S_per_m", fittedJson(fit->conductivity)},
                             {"higher_m", fittedJson(fit->higher)},
                             {"longer_part", fittedJson(fit->longer)},
                             {"measurements", fit->measurements},
                             {"misfit_before", fit->before},
                             {"misfit_after", fit->after},
                             {"bands", bands}})
                           .dump(1));
    if (request.output.empty())
        return exitGood;
    Design used = chosen->design;
    useFit(used, chosen->antenna.id, *fit);
    const Faults faults = files::saveDesign(used, request.output);
    return faults.empty() ? exitGood : report(faults);
}

Json driftJson(const Antenna& antenna, const DipSeries& series)
{
    Json points = Json::array();
    for (const DipPoint& p : series.points)
        points.push_back({{"day", p.day}, {"dip_Hz", p.dip}, {"soil", soilStateWords[std::size_t(p.soil)]}});
    Json out{{"target_Hz", series.target}, {"points", points}, {"drift", nullptr}};
    if (const auto drift = driftOf(antenna, series))
        out["drift"] = {{"change_Hz", drift->change},  {"days", drift->days},
                        {"stretch_m", drift->stretch}, {"wet_less_dry_Hz", drift->wetLessDry ? Json(*drift->wetLessDry) : Json(nullptr)},
                        {"seasonal", drift->seasonal}, {"words", driftWords(*drift).english()}};
    return out;
}

int historyCommand(const Request& request)
{
    const Result<Chosen> chosen = chosenAntenna(request);
    if (!chosen)
        return report(chosen.faults());
    if (request.csv) {
        fmt::print("{}", files::logCsv(chosen->antenna));
        return exitGood;
    }
    Json series = Json::array(), places = Json::array();
    for (const DipSeries& s : dipSeriesOf(chosen->antenna))
        series.push_back(driftJson(chosen->antenna, s));
    for (const PlaceMemory& p : placesOf(chosen->antenna)) {
        Json settings = Json::object();
        for (const auto& [name, value] : p.settings)
            settings[name] = value;
        places.push_back({{"place", p.place}, {"when", p.when}, {"dip_Hz", p.dip}, {"settings", settings}});
    }
    fmt::print("{}\n", Json({{"series", series}, {"places", places}, {"reports", chosen->antenna.trim.reports.size()}}).dump(1));
    return exitGood;
}

} // namespace

void addTrimCommands(CLI::App& app, int& status)
{
    auto log = std::make_shared<LogRequest>();
    CLI::App* entry = app.add_subcommand("log", "adds a measurement to an antenna's log; the plan is not changed by a cut");
    entry->add_option("design", log->chosen.design, "design file (.vetchling)")->required();
    entry->add_option("--antenna", log->chosen.antenna, "name or id of the antenna; the first one if left out");
    entry->add_option("--configuration", log->chosen.configuration, "it was measured in, by name or number, 1 the innermost");
    entry->add_option("--dip", log->dip, "Hz, where the SWR is lowest");
    entry->add_option("--file", log->file, "a sweep in place of the dip: Touchstone (.s1p) or CSV");
    entry->add_option("--swr", log->swr, "there");
    entry->add_option("--parameter", log->parameter, "that was cut; the one that is trimmed for this dip if left out");
    entry->add_option("--cut", log->cut, "m taken off each of its pieces since the last entry; negative: lengthened");
    entry->add_option(
        "--as-cut", log->asCut,
        "with the first entry: m that each piece is longer than its plan; the bench's measured lengths or the cut list if left out");
    entry->add_option("--when", log->when, "ISO 8601, local; now if left out");
    entry->add_flag("--sure", log->sure, "it was read so, unlikely as it is");
    entry->add_flag("--folded", log->folded, "folded back, not cut");
    entry->add_option("--height", log->height, "m, of the highest wire when it was measured");
    entry->add_option("--remark", log->remark, "anything else");
    entry->add_option("--readings", log->readings,
                      "in place of the dip: '7.00 2.4; 7.10 50/2; 7.20 42 30', SWR, W out and back, or R and X");
    entry->add_option("--coax", log->coax, "m of coax between instrument and feedpoint; a file's sweep is moved to the feedpoint");
    entry->add_option("--line", log->line, "kind of that coax, an id of data/lines.json")->default_val("coax-50-medium");
    entry->add_option("--soil", log->soil, "dry, damp, wet or frozen");
    entry->add_option("--weather", log->weather, "then");
    entry->add_option("--place", log->place, "of an antenna that travels");
    entry->add_option("--instrument", log->instrument, "it was read with");
    entry->add_option("-o,--output", log->chosen.output, "design file to write")->required();
    entry->callback([log, &status] { status = logCommand(*log); });

    auto request = std::make_shared<Request>();
    addAntennaCommand(app, request, status, "trim", "what to do next to a finished antenna, from its log", trimCommand);

    auto fit = std::make_shared<Request>();
    addAntennaCommand(app, fit, status, "fit", "soil, height and length that explain the log, with their uncertainty", fitCommand)
        ->add_option("-o,--output", fit->output, "writes the design with them");
    auto history = std::make_shared<Request>();
    addAntennaCommand(app, history, status, "history", "what the log tells after months: drift, places", historyCommand)
        ->add_flag("--csv", history->csv, "every entry as a table");
}

} // namespace vetchling::cli
