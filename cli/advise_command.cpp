#include "cli/advise_command.h"

#include "cli/chosen.h"
#include "cli/json_output.h"
#include "cli/kept_tables.h"
#include "cli/output.h"
#include "cli/typed.h"
#include "core/advice/advisor.h"
#include "core/files/advice_file.h"
#include "core/files/chain_file.h"
#include "core/files/data_folder.h"
#include "core/files/design_file.h"

#include <CLI/CLI.hpp>
#include <fmt/format.h>

#include <chrono>
#include <map>
#include <memory>

namespace vetchling::cli {
namespace {

using advice::AdviceWish;
using advice::Answer;
using advice::Tried;

struct AdviseRequest {
    std::string design, output, tuner = "radio", supports, keep;
    int antennas = 2, coils = -1, take = 1;
    double wire = 0.0, pole = 0.0;
    bool noRadials = false, portable = false, walkable = false, csv = false;
};

std::vector<std::string> listed(const std::string& text)
{
    std::vector<std::string> all;
    std::string item;
    for (const char c : text + ",")
        if (c != ',')
            item += c;
        else if (!item.empty())
            all.push_back(std::exchange(item, {}));
    return all;
}

Result<AdviceWish> wishOf(const AdviseRequest& request, const Design& design)
{
    static const std::map<std::string, advice::TunerWish> tuners{
        {"none", advice::TunerWish::None}, {"radio", advice::TunerWish::InRadio}, {"feed", advice::TunerWish::AtFeed}};
    AdviceWish wish;
    Faults faults;
    const auto tuner = tuners.find(request.tuner);
    if (tuner == tuners.end())
        faults.push_back({"--tuner", "'" + request.tuner + "' is no place of a tuner; write none, radio or feed"});
    else
        wish.tuner = tuner->second;
    if (request.antennas < 1 || request.antennas > 3)
        faults.push_back({"--antennas", "one to three can be looked for together"});
    wish.antennas = request.antennas;
    if (request.wire < 0.0)
        faults.push_back({"--wire-m", "is 0 m or more"});
    wish.wire = request.wire;
    if (request.pole < 0.0 || request.pole > 30.0)
        faults.push_back({"--pole-m", "is from 0 to 30 m"});
    wish.pole = request.pole;
    wish.coilsMost = request.coils;
    wish.radials = !request.noRadials;
    wish.portable = request.portable;
    wish.walkable = request.walkable;
    for (const std::string& name : listed(request.supports)) {
        const auto found = std::find_if(design.site.supports.begin(), design.site.supports.end(),
                                        [&](const Support& s) { return s.id == name || s.name == name; });
        if (found == design.site.supports.end())
            faults.push_back({"--supports", "the site has no support '" + name + "'"});
        else
            wish.supports.push_back(found->id);
    }
    for (const std::string& name : listed(request.keep)) {
        const auto found =
            std::find_if(design.antennas.begin(), design.antennas.end(), [&](const Antenna& a) { return a.id == name || a.name == name; });
        if (found == design.antennas.end())
            faults.push_back({"--keep", "the design has no antenna '" + name + "'"});
        else
            wish.kept.push_back(found->id);
    }
    if (!faults.empty())
        return faults;
    return wish;
}

/// As they are called once they hang: another one may have the name already.
std::vector<std::string> namesOf(const Answer& answer, const Design& design, const advice::Advice& advice)
{
    Design hung = design;
    std::vector<std::string> names;
    for (const Id& id : hangUp(hung, answer))
        names.push_back(findAntenna(hung, id)->name);
    for (const advice::TriedPointer& kept : advice.kept)
        names.push_back(kept->antenna.name);
    return names;
}

Json answerJson(const Answer& answer, std::size_t rank, const Design& design, const advice::Advice& advice)
{
    const std::vector<std::string> names = namesOf(answer, design, advice);
    Json out{{"rank", rank}, {"score", answer.score}, {"wish", answer.wish}, {"effort", answer.effort}, {"antennas", Json::array()}};
    for (std::size_t i = 0; i < answer.antennas.size(); ++i) {
        const Tried& t = *answer.antennas[i];
        Json antenna{
            {"family", t.antenna.shape.family}, {"name", names[i]}, {"supports", t.place.supports}, {"wire_m", t.takes.wire}};
        antenna["influence_Hz"] = i < answer.influence.size() ? Json(answer.influence[i]) : Json(nullptr);
        antenna["new_poles"] = Json::array();
        for (const advice::NewPole& p : t.place.poles)
            antenna["new_poles"].push_back({{"at_m", {p.at.x, p.at.y}}, {"height_m", p.height + advice::tieAllowance}});
        out["antennas"].push_back(std::move(antenna));
    }
    out["bands"] = Json::array();
    for (const advice::AnswerBand& b : answer.bands) {
        const WantedBand* band = findBand(design, b.figure.band);
        Json row{{"band", band->band.name}, {"wish", band->wish == Wish::Must ? "must" : "nice"}};
        row["antenna"] = b.antenna ? Json(names[*b.antenna]) : Json(nullptr);
        row["share_under_limit"] = b.figure.share;
        row["share_with_tuner"] = b.figure.shareWithTuner;
        row["net_dBi"] = b.figure.solved ? Json(b.figure.net) : Json(nullptr);
        row["against_dB"] = b.figure.solved ? Json(b.figure.against) : Json(nullptr);
        out["bands"].push_back(std::move(row));
    }
    std::string words;
    for (const Text& t : answer.givesUp)
        words += (words.empty() ? "" : "; ") + t.english();
    out["gives_up"] = words;
    return out;
}

Json adviceJson(const advice::Advice& advice, const Design& design, double seconds)
{
    Json out{{"format", "vetchling-advice"}, {"version", 1}, {"tried", advice.tried.size()}, {"seconds", seconds}};
    out["answers"] = Json::array();
    for (std::size_t i = 0; i < advice.answers.size(); ++i)
        out["answers"].push_back(answerJson(advice.answers[i], i + 1, design, advice));
    out["not_possible"] = Json::array();
    for (const advice::NotPossible& n : advice.notPossible)
        out["not_possible"].push_back({{"family", n.family}, {"reason", n.reason.english()}});
    out["would_help"] = Json::array();
    for (const advice::Help& h : advice.help)
        out["would_help"].push_back(
            {{"what", advice::wordOf(h.kind)}, {"score", h.score}, {"words", h.what.english() + " " + h.brings.english()}});
    return out;
}

std::string quoted(const std::string& text)
{
    std::string out = "\"";
    for (const char c : text)
        out += c == '"' ? "\"\"" : std::string(1, c);
    return out + "\"";
}

void printCsv(const advice::Advice& advice)
{
    fmt::print("rank,family,place,wish,score,wire_m,exact,reason\n");
    for (const advice::Row& row : advice.rows) {
        const std::string figures = row.judged
                                        ? fmt::format("{:.4f},{:.4f},{:.2f},{}", row.wish, row.score, row.wire, row.exact ? "yes" : "no")
                                        : std::string(",,,no");
        fmt::print("{},{},{},{},{}\n", row.rank ? std::to_string(row.rank) : std::string(), quoted(row.family), quoted(row.place), figures,
                   quoted(row.reason.english()));
    }
}

int adviseCommand(const AdviseRequest& request)
{
    const auto begin = std::chrono::steady_clock::now();
    Result<Design> design = openDesign(request.design);
    if (!design)
        return report(design.faults());
    const auto wish = wishOf(request, *design);
    if (!wish)
        return report(wish.faults());
    const std::string folder = files::findDataFolder();
    const auto rules = files::readScoreRules(folder + "/advice.json");
    if (!rules)
        return report(rules.faults());
    auto lines = files::readLineTypes(folder + "/lines.json");
    if (!lines)
        return report(lines.faults());
    const auto tables = std::make_shared<em::GroundTableCache>();
    const KeptTables kept(*tables);
    advice::Advisor advisor(tables, *design, *wish, *rules, std::move(lines).value());
    const auto advice = advisor.run(terminalWatch());
    if (!advice)
        return report(advice.faults());
    const advice::Advice& found = **advice;
    if (!request.output.empty()) {
        if (request.take < 1 || std::size_t(request.take) > found.answers.size())
            return report({{"--take", fmt::format("there is no answer {}; {} were found", request.take, found.answers.size())}});
        Design hung = std::move(design).value();
        hangUp(hung, found.answers[std::size_t(request.take) - 1]);
        if (Faults faults = files::saveDesign(hung, request.output); !faults.empty())
            return report(faults);
    }
    if (request.csv)
        printCsv(found);
    else
        print(adviceJson(found, advisor.design(), std::chrono::duration<double>(std::chrono::steady_clock::now() - begin).count()));
    return exitGood;
}

} // namespace

void addAdviseCommand(CLI::App& app, int& status)
{
    const auto request = std::make_shared<AdviseRequest>();
    CLI::App* advise =
        app.add_subcommand("advise", "which antenna for this place: every family tried where it may hang, best first, as JSON");
    advise->add_option("design", request->design, "design file (.vetchling)")->required();
    advise->add_option("--antennas", request->antennas, "how many may be hung together, 1 to 3 (2)");
    advise->add_option("--tuner", request->tuner, "none, radio or feed (radio)");
    quantityOption(advise, "--wire-m", request->wire, units::Quantity::Length, "wire at hand; 0: as much as it takes");
    advise->add_option("--coils-max", request->coils, "coils and traps that an antenna may have");
    advise->add_flag("--no-radials", request->noRadials, "nothing that needs radials");
    advise->add_flag("--portable", request->portable, "what goes into a bag");
    advise->add_flag("--walkable", request->walkable, "nothing on the ground or within reach");
    advise->add_option("--supports", request->supports, "ids or names of the supports that may be used, with commas; all without it");
    quantityOption(advise, "--pole-m", request->pole, units::Quantity::Length, "one new pole may be put up, so high; 0: none");
    advise->add_option("--keep", request->keep, "names of antennas that hang and count, with commas");
    advise->add_option("--take", request->take, "the answer that -o hangs, by its rank (1)");
    advise->add_flag("--csv", request->csv, "a row a place tried");
    advise->add_option("-o", request->output, "the design with the antennas of an answer");
    advise->callback([request, &status] { status = adviseCommand(*request); });
}

} // namespace vetchling::cli
