#include "cli/check_command.h"

#include "cli/chosen.h"
#include "cli/json_output.h"
#include "cli/kept_tables.h"
#include "cli/output.h"
#include "core/advice/left.h"
#include "core/files/chain_file.h"
#include "core/files/data_folder.h"
#include "core/files/workshop_file.h"
#include "core/trim/log_tasks.h"

#include <CLI/CLI.hpp>
#include <fmt/format.h>

#include <cmath>
#include <memory>

namespace vetchling::cli {
namespace {

Json checkOf(const Design& design, const Antenna& antenna)
{
    Json warnings = Json::array(), clearance = nullptr;
    const auto built = shapes::buildOver(antenna.shape, groundUnder(design, antenna));
    bool fits = false;
    if (!built) {
        const Fault& fault = built.faults().front();
        const bool isPlace = fault.path.find("points_m") != std::string::npos;
        warnings.push_back({{"code", isPlace ? "low" : "support"}, {"message", fault.text()}, {"at_m", nullptr}});
    } else {
        const FitReport fit = fitOnSite(design.site, built->model);
        fits = fit.fits();
        if (std::isfinite(fit.toPowerLine))
            clearance = fit.toPowerLine;
        for (const SiteWarning& w : fit.warnings)
            warnings.push_back({{"code", advice::codeOf(w.kind)}, {"message", w.message.english()}, {"at_m", {w.at.x, w.at.y, w.at.z}}});
    }
    for (const DoubtfulEntry& doubt : doubtfulEntries(antenna, localTime())) {
        const Measurement& m = antenna.trim.measurements[doubt.entry];
        const std::string what =
            doubt.expected > 0.0
                ? fmt::format(
                      "measurement {}: its dip is {:.6g} MHz where about {:.6g} was expected; look whether it was read or typed wrong",
                      doubt.entry + 1, m.dip / 1e6, doubt.expected / 1e6)
                : fmt::format("measurement {}: {} is no day that it can have been made on; mend its date", doubt.entry + 1, m.when);
        warnings.push_back({{"code", "log"}, {"message", what}, {"at_m", nullptr}});
    }
    return {{"name", antenna.name}, {"fits", fits}, {"power_line_clearance_m", clearance}, {"warnings", warnings}};
}

Result<advice::LeftData> tables()
{
    const std::string folder = files::findDataFolder();
    auto workshop = files::readWorkshopData(folder + "/workshop.json");
    if (!workshop)
        return workshop.faults();
    auto lines = files::readLineTypes(folder + "/lines.json");
    if (!lines)
        return lines.faults();
    return advice::LeftData{std::move(workshop).value(), std::move(lines).value(), localTime()};
}

Json findingJson(const advice::Finding& finding, const Design& design)
{
    const Antenna* antenna = findAntenna(design, finding.antenna);
    return {{"antenna", antenna ? antenna->name : std::string()},
            {"gravity", advice::wordOf(finding.gravity)},
            {"code", finding.code},
            {"stage", advice::idOf(finding.stage)},
            {"brief", finding.brief.english()},
            {"message", finding.message.english()},
            {"cure", finding.cure ? Json(finding.cure->label.english()) : Json(nullptr)}};
}

/// What is left to do to each antenna, then what is told of none alone.
Result<Json> findingsOf(const Design& design)
{
    const Result<advice::LeftData> data = tables();
    if (!data)
        return data.faults();
    study::Library library;
    const KeptTables kept(library.tables());
    study::References references;
    std::vector<advice::Left> lefts;
    for (const Antenna& antenna : design.antennas) {
        auto left = advice::leftOf(library, references, design, antenna, *data, {}, terminalWatch());
        if (!left)
            return left.faults();
        lefts.push_back(std::move(left).value());
    }
    Json all = Json::array();
    for (const advice::Left& left : lefts)
        for (const advice::Finding& f : left.findings)
            all.push_back(findingJson(f, design));
    for (const advice::Finding& f : advice::siteFindings(design, lefts))
        all.push_back(findingJson(f, design));
    return all;
}

int checkCommand(const Request& request)
{
    const Result<Design> design = openDesign(request.design);
    if (!design)
        return report(design.faults());
    Json all = Json::array();
    for (const Antenna& antenna : design->antennas)
        all.push_back(checkOf(*design, antenna));
    Json out{{"antennas", all}};
    if (request.all) {
        Result<Json> findings = findingsOf(*design);
        if (!findings)
            return report(findings.faults());
        out["findings"] = std::move(findings).value();
    }
    print(out);
    return exitGood;
}

} // namespace

void addCheckCommand(CLI::App& app, int& status)
{
    const auto request = std::make_shared<Request>();
    CLI::App* check = app.add_subcommand("check", "whether the antennas fit their site, and what to look at, as JSON");
    check->add_option("design", request->design, "design file (.vetchling)")->required();
    check->add_flag("--all", request->all, "everything that is left to do, with its gravity and its cure");
    check->callback([request, &status] { status = checkCommand(*request); });
}

} // namespace vetchling::cli
