#include "cli/spread_commands.h"

#include "cli/chosen.h"
#include "cli/json_output.h"
#include "cli/kept_tables.h"
#include "cli/output.h"
#include "core/files/design_file.h"
#include "core/study/comparison.h"
#include "core/study/neighbours.h"

#include <CLI/CLI.hpp>
#include <fmt/format.h>

#include <cmath>

namespace vetchling::cli {
namespace {

struct SpreadRequest {
    Request chosen;
    std::optional<double> height, cut, unequal, jacket, conductivity, permittivity;
};

Tolerances tolerancesOf(const SpreadRequest& request, Tolerances t)
{
    t.height = request.height.value_or(t.height);
    t.cut = request.cut.value_or(t.cut);
    t.unequal = request.unequal.value_or(t.unequal);
    t.jacket = request.jacket.value_or(t.jacket);
    t.soilConductivity = request.conductivity.value_or(t.soilConductivity);
    t.soilPermittivity = request.permittivity.value_or(t.soilPermittivity);
    return t;
}

Json pointsJson(const std::optional<study::Points>& points) { return points ? Json(*points) : Json(nullptr); }

int spreadCommand(const SpreadRequest& request)
{
    const Result<Chosen> chosen = chosenAntenna(request.chosen);
    if (!chosen)
        return report(chosen.faults());
    study::Library library;
    const KeptTables kept(library.tables());
    study::SpreadQuestion asked = study::spreadQuestionOf(chosen->design, chosen->antenna);
    asked.tolerances = tolerancesOf(request, asked.tolerances);
    if (request.conductivity || request.permittivity)
        asked.soil.dry = asked.soil.wet = std::nullopt;
    const auto spread = study::spreadOf(library, asked, terminalWatch());
    if (!spread)
        return report(spread.faults());
    const auto configurations = shapes::familyOf(chosen->antenna.shape).configurations(chosen->antenna.shape);
    Json bands = Json::array(), causes = Json::array();
    for (const study::BandSpread& b : spread->bands) {
        Json row{{"band", findBand(chosen->design, b.band)->band.name}};
        row["dip_Hz"] = pointsJson(b.dip);
        row["lowest_swr"] = b.solved ? Json(b.lowestSwr) : Json(nullptr);
        row["gain_dBi"] = pointsJson(b.gain);
        if (configurations.size() > 1)
            row["configuration"] = configurations[b.configuration].name;
        for (const study::SpreadShift& s : b.shifts)
            row["causes"].push_back({{"what", study::nameOf(s.what)}, {"shift_Hz", s.shift}});
        bands.push_back(std::move(row));
    }
    const study::BandSpread* own = spread->band(bandFor(chosen->design, chosen->antenna.shape.designFrequency));
    for (const study::SpreadShift& s : own ? own->shifts : std::vector<study::SpreadShift>())
        causes.push_back({{"what", study::nameOf(s.what)}, {"shift_Hz", s.shift}});
    print({{"bands", bands}, {"causes", causes}, {"cut_margin_percent", own ? Json(study::cutMargin(*own)) : Json(nullptr)}});
    return exitGood;
}

int compareCommand(const Request& request)
{
    const Result<Design> design = openDesign(request.design);
    if (!design)
        return report(design.faults());
    const Result<std::size_t> place = chosenPlace(request, *design);
    if (!place)
        return report(place.faults());
    study::Library library;
    const KeptTables kept(library.tables());
    const study::ComparisonQuestion asked = study::comparisonOf(*design, design->antennas[*place], "as drawn");
    Json rows = Json::array();
    for (std::size_t i = 0; i < asked.antennas.size(); ++i) {
        const Result<study::Compared> compared = study::comparedOf(library, asked, i, terminalWatch());
        if (!compared)
            return report(compared.faults());
        const study::Compared& c = *compared;
        Json row{{"name", c.name},
                 {"wire_m", c.wire},
                 {"longest_piece_m", c.longestPiece},
                 {"bands_served", c.tally.served},
                 {"bands_partly", c.tally.partly}};
        row["fault"] = c.fault.empty() ? Json(nullptr) : Json(c.fault.english());
        row["bands"] = Json::array();
        for (const WantedBand& w : asked.operation.bands)
            if (const auto band = c.bands.find(w.id); band != c.bands.end())
                row["bands"].push_back({{"band", w.band.name},
                                        {"lowest_swr", band->second.lowestSwr},
                                        {"served", servedWord(band->second.service.service)},
                                        {"width_Hz", band->second.width},
                                        {"gain_dBi", band->second.gain},
                                        {"straight_up_dBi", band->second.straightUp},
                                        {"efficiency", 1.0 - band->second.lost}});
        rows.push_back(std::move(row));
    }
    print({{"variants", rows}});
    return exitGood;
}

int neighboursCommand(const Request& request)
{
    const Result<Chosen> chosen = chosenAntenna(request);
    if (!chosen)
        return report(chosen.faults());
    study::Library library;
    const KeptTables kept(library.tables());
    const Id band = bandFor(chosen->design, shapes::frequencyOf(chosen->antenna.shape, chosen->subject.configuration));
    const auto effects =
        study::neighbourEffects(library, chosen->design, chosen->antenna, band, chosen->subject.configuration, terminalWatch());
    if (!effects)
        return report(effects.faults());
    Json rows = Json::array();
    for (const study::NeighbourEffect& e : *effects)
        rows.push_back({{"what", e.what.name},
                        {"shift_Hz", e.shift},
                        {"change_ohm", {e.change.real(), e.change.imag()}},
                        {"matters", e.matters()},
                        {"fault", e.fault.empty() ? Json(nullptr) : Json(e.fault.english())}});
    print({{"band", findBand(chosen->design, band)->band.name}, {"neighbours", rows}});
    return exitGood;
}

} // namespace

void addSpreadCommands(CLI::App& app, int& status)
{
    auto spread = std::make_shared<SpreadRequest>();
    CLI::App* command = app.add_subcommand("spread", "how far dips and SWR may lie from what is computed");
    command->add_option("design", spread->chosen.design, "design file (.vetchling)")->required();
    command->add_option("--antenna", spread->chosen.antenna, "name or id of the antenna; the first one if left out");
    command->add_option("--variant", spread->chosen.variant, "name or id of its variant; the antenna as drawn if left out");
    command->add_option("--height", spread->height, "m either side, two standard deviations; the design's if left out")
        ->check(CLI::NonNegativeNumber);
    command->add_option("--cut", spread->cut, "m either side, every cut alike")->check(CLI::NonNegativeNumber);
    command->add_option("--unequal", spread->unequal, "m that one side is longer by")->check(CLI::NonNegativeNumber);
    command->add_option("--jacket", spread->jacket, "m of the jacket's thickness")->check(CLI::NonNegativeNumber);
    command->add_option("--conductivity-factor", spread->conductivity, "of the soil either side, in place of its class's seasons")
        ->check(CLI::Range(1.0, 1000.0));
    command->add_option("--permittivity-factor", spread->permittivity, "of the soil either side, in place of its class's seasons")
        ->check(CLI::Range(1.0, 100.0));
    command->callback([spread, &status] { status = spreadCommand(*spread); });
    auto request = std::make_shared<Request>();
    addAntennaCommand(app, request, status, "compare", "an antenna and its variants side by side", compareCommand);
    addAntennaCommand(app, request, status, "neighbours", "what each mast, antenna and coax nearby does to an antenna", neighboursCommand);
}

} // namespace vetchling::cli
