#include "cli/workshop_commands.h"

#include "cli/chosen.h"
#include "cli/json_output.h"
#include "cli/kept_tables.h"
#include "cli/output.h"
#include "cli/typed.h"
#include "core/files/data_folder.h"
#include "core/files/limits_file.h"
#include "core/study/safety.h"
#include "core/units/units.h"
#include "core/workshop/coil.h"
#include "core/workshop/sag.h"

#include <CLI/CLI.hpp>
#include <fmt/format.h>

#include <algorithm>
#include <memory>
#include <string>

namespace vetchling::cli {
namespace {

using units::Quantity;

/// The members of the core as the options they came from.
int reportAsOptions(Faults faults)
{
    for (Fault& f : faults)
        f.path = f.path.empty() ? f.path : "--" + f.path;
    return report(faults);
}

struct CoilRequest {
    std::string diameter, wire, pitch, turns, inductance, frequency;
};

int coilCommand(const CoilRequest& request)
{
    Faults faults;
    Coil coil;
    coil.meanDiameter = number(request.diameter, "--mean-diameter", Quantity::SmallLength, faults);
    coil.wireDiameter = number(request.wire, "--wire", Quantity::WireSize, faults);
    coil.pitch = number(request.pitch, "--pitch", Quantity::SmallLength, faults);
    coil.turns = number(request.turns, "--turns", Quantity::Plain, faults);
    const double inductance = number(request.inductance, "--inductance", Quantity::Inductance, faults);
    const double frequency = number(request.frequency, "--frequency", Quantity::Frequency, faults);
    if (request.turns.empty() == request.inductance.empty())
        faults.push_back({"coil", "give either --turns or --inductance"});
    if (!request.frequency.empty() && !(frequency > 0.0))
        faults.push_back({"--frequency", "a frequency lies above 0 Hz"});
    if (!faults.empty())
        return report(faults);
    if (!request.inductance.empty()) {
        const Result<Coil> wound = coilFor(coil, inductance, frequency);
        if (!wound)
            return reportAsOptions(wound.faults());
        coil = *wound;
    }
    const Result<CoilFigures> figures = coilFigures(coil, frequency);
    if (!figures)
        return reportAsOptions(figures.faults());
    print({{"inductance_H", frequency > 0.0 ? figures->atFrequency : figures->inductance},
           {"turns", coil.turns},
           {"length_m", figures->length},
           {"wire_m", figures->wire},
           {"resistance_ohm", figures->resistance},
           {"q", frequency > 0.0 ? Json(figures->q) : Json(nullptr)},
           {"self_resonance_Hz", figures->selfResonance},
           {"low_frequency_inductance_H", figures->inductance}});
    return exitGood;
}

struct SagRequest {
    std::string span, mass, sag, tension;
};

int sagCommand(const SagRequest& request)
{
    Faults faults;
    const Span span{number(request.span, "--span", Quantity::Length, faults),
                    number(request.mass, "--mass-per-metre", Quantity::Plain, faults)};
    const double sag = number(request.sag, "--sag", Quantity::Length, faults),
                 tension = number(request.tension, "--end-tension", Quantity::Plain, faults);
    if (request.sag.empty() == request.tension.empty())
        faults.push_back({"sag", "give either --sag or --end-tension"});
    if (!faults.empty())
        return report(faults);
    const Result<Hanging> hanging = request.sag.empty() ? hangingWithTension(span, tension) : hangingWithSag(span, sag);
    if (!hanging)
        return reportAsOptions(hanging.faults());
    print({{"sag_m", hanging->sag}, {"horizontal_N", hanging->horizontal}, {"end_N", hanging->end}, {"wire_m", hanging->wire}});
    return exitGood;
}

struct ExposureRequest {
    Request chosen;
    std::string limit;
    double power = 0.0, duty = 100.0; ///< W; percent of the time with full power
};

/// Each wished band at its centre in the configuration that serves it best, under every limit of the table that says something there.
Result<Json> exposureRows(const ExposureRequest& request, const Chosen& chosen, const std::vector<LimitSet>& limits, double power)
{
    study::Library library;
    const KeptTables kept(library.tables());
    const auto basis = study::safetyBasisOf(library, study::questionOf(chosen.design, chosen.antenna), terminalWatch());
    if (!basis)
        return basis.faults();
    Json rows = Json::array();
    for (const study::SafetyBand& band : basis->bands)
        for (const LimitSet& set : limits) {
            if (!request.limit.empty() && set.id != request.limit)
                continue;
            for (const study::KeepRow& row : study::keepRows({{band}}, set, power, request.duty / 100.0))
                rows.push_back({{"band", row.name},
                                {"frequency_Hz", row.frequency},
                                {"limit", set.id},
                                {"distance_m", row.keep.fromWires},
                                {"on_ground_m", row.keep.onGround},
                                {"bounded", row.keep.bounded},
                                {"averaged_W", row.averaged},
                                {"peak_V", row.volts}});
        }
    return rows;
}

int exposureCommand(const ExposureRequest& request)
{
    if (!(request.duty > 0.0 && request.duty <= 100.0) || request.power < 0.0)
        return report({{"exposure", "a power lies above 0 W, a duty above 0 and up to 100 percent"}});
    const auto limits = files::readLimits(files::findDataFolder() + "/limits.json");
    if (!limits)
        return report(limits.faults());
    if (!request.limit.empty() && std::none_of(limits->begin(), limits->end(), [&](const LimitSet& s) { return s.id == request.limit; }))
        return report({{"--limit", "there is no limit '" + request.limit + "' in data/limits.json"}});
    const Result<Chosen> chosen = chosenAntenna(request.chosen);
    if (!chosen)
        return report(chosen.faults());
    const double power = request.power > 0.0 ? request.power : chosen->design.operation.power;
    const Result<Json> rows = exposureRows(request, *chosen, *limits, power);
    if (!rows)
        return report(rows.faults());
    print({{"power_W", power}, {"duty_percent", request.duty}, {"rows", *rows}});
    return exitGood;
}

} // namespace

void addWorkshopCommands(CLI::App& app, int& status)
{
    auto coil = std::make_shared<CoilRequest>();
    CLI::App* winding = app.add_subcommand("coil", "a single-layer coil: inductance from turns, or turns from inductance");
    winding->add_option("--mean-diameter", coil->diameter, "m, from centre to centre of the wire")->required();
    winding->add_option("--wire", coil->wire, "m, thickness of the metal, or a gauge")->required();
    winding->add_option("--pitch", coil->pitch, "m, from turn to turn")->required();
    winding->add_option("--turns", coil->turns, "whole or not");
    winding->add_option("--inductance", coil->inductance, "H; the turns come out, not rounded");
    winding->add_option("--frequency", coil->frequency, "Hz; inductance, resistance and Q there; at low frequency if left out");
    winding->callback([coil, &status] { status = coilCommand(*coil); });

    auto exposure = std::make_shared<ExposureRequest>();
    CLI::App* keep = app.add_subcommand("exposure", "how far people have to keep from the wires, by band and limit");
    keep->add_option("design", exposure->chosen.design, "design file (.vetchling)")->required();
    keep->add_option("--antenna", exposure->chosen.antenna, "name or id of the antenna; the first one if left out");
    keep->add_option("--variant", exposure->chosen.variant, "name or id of its variant; the antenna as drawn if left out");
    keep->add_option("--limit", exposure->limit, "id in data/limits.json; all of them if left out");
    keep->add_option("--power", exposure->power, "W into the antenna; the design's if left out");
    keep->add_option("--duty", exposure->duty, "percent of the averaging time with full power; 100 if left out");
    keep->callback([exposure, &status] { status = exposureCommand(*exposure); });

    auto sag = std::make_shared<SagRequest>();
    CLI::App* hanging = app.add_subcommand("sag", "sag, tension and length of a wire between two supports of one height");
    hanging->add_option("--span", sag->span, "m between the supports")->required();
    hanging->add_option("--mass-per-metre", sag->mass, "kg of a metre of wire")->required();
    hanging->add_option("--sag", sag->sag, "m in the middle");
    hanging->add_option("--end-tension", sag->tension, "N at the supports; the taut one of both ways to hang");
    hanging->callback([sag, &status] { status = sagCommand(*sag); });
}

} // namespace vetchling::cli
