#include "cli/trim_commands.h"

#include "cli/chosen.h"
#include "cli/output.h"
#include "cli/typed.h"
#include "core/files/design_file.h"
#include "core/files/measured_file.h"
#include "core/trim/next_step.h"
#include "core/trim/sense.h"

#include <CLI/CLI.hpp>
#include <fmt/chrono.h>
#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <ctime>
#include <memory>

namespace vetchling::cli {
namespace {

using Json = nlohmann::ordered_json;
using units::Quantity;

struct LogRequest {
    Request chosen;
    std::string dip, swr, parameter, cut, height, remark, file;
    bool folded = false;
};

std::string now()
{
    const std::time_t seconds = std::time(nullptr);
    return fmt::format("{:%Y-%m-%dT%H:%M}", fmt::localtime(seconds));
}

/// The entry as it is said, with its faults by option.
Result<Measurement> measurementOf(const LogRequest& request, const Antenna& antenna)
{
    Faults faults;
    Measurement m;
    m.when = now();
    if (request.file.empty() == request.dip.empty())
        return Fault{"log", "give either --dip, or --file with a sweep"};
    if (!request.file.empty()) {
        const auto sweep = files::readMeasured(request.file);
        if (!sweep) {
            Faults wrong = sweep.faults();
            wrong.front().path = request.file + (wrong.front().path.empty() ? "" : " " + wrong.front().path);
            return wrong;
        }
        takeSweep(*sweep, m);
    } else {
        m.dip = number(request.dip, "--dip", Quantity::Frequency, faults);
        m.dipSwr = number(request.swr, "--swr", Quantity::Plain, faults);
    }
    m.cutSinceLast = number(request.cut, "--cut", Quantity::Length, faults);
    if (!request.height.empty())
        m.height = number(request.height, "--height", Quantity::Length, faults);
    m.parameter = request.parameter;
    m.folded = request.folded;
    m.remark = request.remark;
    if (!m.parameter.empty() && !shapes::familyOf(antenna.shape).spec(antenna.shape, m.parameter))
        faults.push_back({"--parameter", "the antenna has no dimension '" + m.parameter + "'"});
    if (!request.chosen.configuration.empty()) {
        const Result<std::size_t> configuration = chosenConfiguration(request.chosen, antenna.shape);
        if (!configuration)
            return configuration.faults();
        m.configuration = *configuration;
    }
    for (Fault fault : findMeasurementFaults(m)) {
        fault.path = fault.path == "dipSwr" ? "--swr" : fault.path == "cutSinceLast" ? "--cut" : "--" + fault.path;
        faults.push_back(fault);
    }
    if (!faults.empty())
        return faults;
    return m;
}

int logCommand(const LogRequest& request)
{
    Result<Design> read = files::readDesign(request.chosen.design);
    if (!read)
        return report(read.faults());
    Design design = *read;
    const Result<std::size_t> place = chosenPlace(request.chosen, design);
    if (!place)
        return report(place.faults());
    Antenna& antenna = design.antennas[*place];
    Result<Measurement> m = measurementOf(request, antenna);
    if (!m)
        return report(m.faults());
    Measurement entry = *m;
    const auto tasks = trimTasks(antenna);
    if (entry.cutSinceLast != 0.0 && entry.parameter.empty() && !tasks.empty())
        entry.parameter = tasks[taskOf(tasks, entry)].lever.parameter;
    antenna.trim.measurements.push_back(entry);
    nameNewThings(design);
    if (const auto built = shapes::buildOver(asLogged(antenna), design.site.soil.ground()); !built)
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
                             {"order", order}})
                           .dump(1));
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
    entry->add_flag("--folded", log->folded, "folded back, not cut");
    entry->add_option("--height", log->height, "m, of the highest wire when it was measured");
    entry->add_option("--remark", log->remark, "weather, soil, instrument");
    entry->add_option("-o,--output", log->chosen.output, "design file to write")->required();
    entry->callback([log, &status] { status = logCommand(*log); });

    auto request = std::make_shared<Request>();
    addAntennaCommand(app, request, status, "trim", "what to do next to a finished antenna, from its log", trimCommand);
}

} // namespace vetchling::cli
