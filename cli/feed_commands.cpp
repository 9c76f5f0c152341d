#include "cli/feed_commands.h"

#include "cli/chosen.h"
#include "cli/json_output.h"
#include "cli/kept_tables.h"
#include "cli/output.h"
#include "cli/typed.h"
#include "core/files/chain_file.h"
#include "core/line/sections.h"
#include "core/study/feed.h"

#include <CLI/CLI.hpp>
#include <fmt/format.h>

#include <cmath>

namespace vetchling::cli {
namespace {

int chainCommand(const std::string& path)
{
    const Result<files::ChainCase> asked = files::readChain(path);
    if (!asked)
        return report(asked.faults());
    fmt::print("{}", files::writeChainResult(*asked, chainAt(asked->parts, asked->load, asked->frequency)));
    return exitGood;
}

struct MatchRequest {
    std::string kind, frequency, source = "50", load, section, velocity = "1", velocity2;
};

const std::map<std::string, SectionMethod>& methods()
{
    static const std::map<std::string, SectionMethod> all{{"quarter-wave", SectionMethod::QuarterWave},
                                                          {"two-sections", SectionMethod::TwoSections},
                                                          {"series-section", SectionMethod::SeriesSection},
                                                          {"shorted-stub", SectionMethod::ShortedStub},
                                                          {"open-stub", SectionMethod::OpenStub}};
    return all;
}

/// "R,X", or R alone.
Complex loadOf(const std::string& text, Faults& faults)
{
    const std::size_t comma = text.find(',');
    const double r = number(text.substr(0, comma), "--load", units::Quantity::Resistance, faults);
    return {r, comma == std::string::npos ? 0.0 : number(text.substr(comma + 1), "--load", units::Quantity::Resistance, faults)};
}

int matchCommand(const MatchRequest& request)
{
    Faults faults;
    SectionQuestion q;
    const auto method = methods().find(request.kind);
    if (method == methods().end())
        faults.push_back(
            {"KIND",
             "'" + request.kind + "' is no matching section; write quarter-wave, two-sections, series-section, shorted-stub or open-stub"});
    else
        q.method = method->second;
    q.frequency = number(request.frequency, "--frequency", units::Quantity::Frequency, faults);
    q.source = number(request.source, "--source", units::Quantity::Resistance, faults);
    q.load = loadOf(request.load, faults);
    q.section = number(request.section, "--section", units::Quantity::Resistance, faults);
    q.velocityFactor = number(request.velocity, "--velocity-factor", units::Quantity::Plain, faults);
    q.velocityFactor2 =
        request.velocity2.empty() ? q.velocityFactor : number(request.velocity2, "--velocity-factor-2", units::Quantity::Plain, faults);
    if (!faults.empty())
        return report(faults);
    const auto solutions = matchSections(q);
    if (!solutions) {
        for (Fault f : solutions.faults()) {
            f.path = f.path.empty() ? "match" : "--" + (f.path == "velocity_factor" ? std::string("velocity-factor") : f.path);
            faults.push_back(std::move(f));
        }
        return report(faults);
    }
    Json rows = Json::array();
    for (const SectionSolution& s : *solutions)
        rows.push_back({{"section_ohm", s.section}, {"length_1_m", s.length1}, {"length_2_m", s.length2}});
    print({{"solutions", rows}});
    return exitGood;
}

struct FeedRequest {
    Request chosen;
    double elevation = 0.0, bearing = -1.0, power = 0.0;
    std::string against;
};

Json jointJson(const study::FeedReport& report, const study::FeedRow& row, std::size_t i)
{
    const Joint& joint = row.state.joints[i];
    const double root = std::sqrt(row.power);
    Json out{{"part", report.parts[i].kind},
             {"impedance_ohm", pair(joint.impedance)},
             {"swr_50", swr(joint.impedance)},
             {"loss_dB", joint.loss},
             {"lost_W", row.power * joint.lost()},
             {"volts", root * joint.volts},
             {"amperes", root * joint.amperes},
             {"basis", report.parts[i].basis == Basis::Measured   ? "measured"
                       : report.parts[i].basis == Basis::Computed ? "computed"
                                                                  : "assumed"}};
    if (joint.refused)
        out["refused"] = joint.refused->english();
    return out;
}

Json rowJson(const study::FeedReport& report, const study::FeedRow& row)
{
    Json out{{"band", row.band.name}, {"frequency_Hz", row.band.frequency}, {"port_ohm", pair(row.band.port)}, {"joints", Json::array()}};
    for (std::size_t i = 0; i < report.parts.size(); ++i)
        out["joints"].push_back(jointJson(report, row, i));
    out["total_dB"] = row.state.totalLoss();
    out["put_in_W"] = row.power;
    out["into_antenna_W"] = row.intoAntenna();
    addService(out, row.service);
    out["share_at_radio"] = row.service.share;
    out["gain_dBi"] = row.band.gain;
    out["net_dBi"] = row.net;
    out["reference_dBi"] = row.reference;
    if (row.netAtLeast != row.netAtMost)
        out["net_range_dBi"] = {row.netAtLeast, row.netAtMost};
    return out;
}

/// "vertical", "dipole", a gain in dBi, or another antenna of the design.
Result<Against> againstOf(const std::string& text, const Design& design)
{
    if (text == "vertical")
        return Against{};
    if (text == "dipole")
        return Against{Against::Kind::Dipole, {}, 0.0};
    for (const Antenna& a : design.antennas)
        if (a.name == text || a.id == text)
            return Against{Against::Kind::Antenna, a.id, 0.0};
    if (const Result<double> gain = units::parse(text, units::Quantity::Plain))
        return Against{Against::Kind::Own, {}, *gain};
    return Fault{"--against", "'" + text + "' is no antenna of this design; write vertical, dipole, a name or a gain in dBi"};
}

int feedCommand(const FeedRequest& request)
{
    Faults faults = findAimFaults(request.elevation, request.bearing);
    if (request.power < 0.0)
        faults.push_back({"--power", "a power lies above 0 W"});
    if (!faults.empty())
        return report(faults);
    const Result<Chosen> chosen = chosenAntenna(request.chosen);
    if (!chosen)
        return report(chosen.faults());
    Design design = chosen->design;
    if (request.elevation > 0.0)
        design.operation.aimElevation = request.elevation;
    if (request.bearing >= 0.0)
        design.operation.aimBearing = request.bearing;
    if (!request.against.empty()) {
        const Result<Against> against = againstOf(request.against, design);
        if (!against)
            return report(against.faults());
        design.operation.against = *against;
    }
    study::FeedQuestion asked = study::feedQuestionOf(design, chosen->antenna);
    asked.question.bands = design.operation.bands;
    if (asked.other)
        asked.other->bands = design.operation.bands;
    study::Library library;
    const KeptTables kept(library.tables());
    study::References references;
    const auto basis = study::feedBasisOf(library, references, asked, terminalWatch());
    if (!basis)
        return report(basis.faults());
    const std::vector<ChainPart> parts = wholeChain(chosen->antenna);
    const study::FeedReport all =
        study::feedReport(*basis, parts, parts.size() - chainParts(chosen->antenna).size(),
                          request.power > 0.0 ? request.power : design.operation.power, servedRule(design.operation));
    Json rows = Json::array();
    for (const study::FeedRow& row : all.rows)
        rows.push_back(rowJson(all, row));
    print({{"power_W", all.power}, {"bands", rows}});
    return exitGood;
}

} // namespace

void addFeedCommands(CLI::App& app, int& status)
{
    auto path = std::make_shared<std::string>();
    CLI::App* chain = app.add_subcommand("chain", "what a chain of parts makes of a load, and what it loses");
    chain->add_option("chain", *path, "chain file (vetchling-chain)")->required();
    chain->callback([path, &status] { status = chainCommand(*path); });

    auto match = std::make_shared<MatchRequest>();
    CLI::App* section = app.add_subcommand("match", "lengths of a matching section or a stub");
    section->add_option("kind", match->kind, "quarter-wave, two-sections, series-section, shorted-stub or open-stub")->required();
    section->add_option("--frequency", match->frequency, "Hz, or with a unit")->required();
    section->add_option("--source", match->source, "ohm of the line towards the radio; 50 if left out");
    section->add_option("--load", match->load, "R,X in ohm; of a stub the reactance it shall show, as 0,-80")->required();
    section->add_option("--section", match->section, "ohm of the section; of a quarter wave it comes out");
    section->add_option("--velocity-factor", match->velocity, "of the section");
    section->add_option("--velocity-factor-2", match->velocity2, "of the piece at the load; the section's if left out");
    section->callback([match, &status] { status = matchCommand(*match); });

    auto feed = std::make_shared<FeedRequest>();
    CLI::App* command = app.add_subcommand("feed", "what the radio sees of an antenna behind its chain, and what arrives");
    command->add_option("design", feed->chosen.design, "design file (.vetchling)")->required();
    command->add_option("--antenna", feed->chosen.antenna, "name or id of the antenna; the first one if left out");
    command->add_option("--variant", feed->chosen.variant, "name or id of its variant; the antenna as drawn if left out");
    command->add_option("--elevation", feed->elevation, "degrees above the horizon, for the gain; the design's if left out");
    command->add_option("--bearing", feed->bearing, "degrees; the design's if left out, or where the gain is highest");
    command->add_option("--power", feed->power, "W; the design's if left out");
    command->add_option("--against", feed->against, "vertical, dipole, another antenna's name, or a gain in dBi; the design's if left out");
    command->callback([feed, &status] { status = feedCommand(*feed); });
}

} // namespace vetchling::cli
