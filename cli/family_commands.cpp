#include "cli/family_commands.h"

#include "cli/chosen.h"
#include "cli/json_output.h"
#include "cli/kept_tables.h"
#include "cli/output.h"
#include "cli/typed.h"
#include "core/advice/gallery.h"
#include "core/files/design_file.h"

#include <CLI/CLI.hpp>
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <memory>
#include <set>

namespace vetchling::cli {
namespace {

std::string measured(double value, units::Quantity quantity) { return units::format(value, quantity, units::System::Metric); }

std::string ohms(Complex z) { return fmt::format("{:.0f} {} j{:.0f}", z.real(), z.imag() < 0.0 ? "−" : "+", std::abs(z.imag())); }

std::string kilohertz(double hertz)
{
    return hertz >= 9.95e5 ? fmt::format("{:.1f} MHz", hertz / 1e6) : fmt::format("{:.0f} kHz", hertz / 1e3);
}

/// Stretch round a frequency with an SWR under 2 at the line, Hz; 0 where it is not under 2 there.
double widthUnderTwo(const study::Curve& curve, double f)
{
    constexpr double limit = 2.0, step = 5e-5, farthest = 0.4; // of the frequency
    if (!(curve.swrAt(f) < limit))
        return 0.0;
    const auto edge = [&](double direction) {
        double at = f;
        while (std::abs(at / f - 1.0) < farthest && curve.swrAt(at + direction * step * f) < limit)
            at += direction * step * f;
        return at;
    };
    return edge(1.0) - edge(-1.0);
}

/// One line of the table; the faults of what could not be solved.
Result<std::string> row(study::Library& library, const Design& design, const advice::Proposal& proposal)
{
    const Result<advice::Proposed> tuned = advice::propose(library, design, proposal, terminalWatch());
    if (!tuned)
        return tuned.faults();
    const Antenna& antenna = tuned->antenna;
    const shapes::Family& family = shapes::familyOf(antenna.shape);
    const double f = tuned->what.frequency;
    const auto curve = study::curveOf(library, study::questionOf(design, antenna), terminalWatch(), study::Reach::Near);
    const auto studied = library.study({antenna.shape, design.site.soil.ground(), 0});
    if (!curve || !studied)
        return curve ? studied.faults() : curve.faults();
    const auto spot = studied->study->spot(f, terminalWatch());
    if (!spot)
        return spot.faults();
    const Complex port = (*spot)->solution.impedance;
    const double dip = (*curve)->fundamental, width = widthUnderTwo(**curve, dip);
    const shapes::RuleOfThumb rule = family.rules(antenna.shape, tuned->what).front();
    const units::Quantity quantity = family.spec(antenna.shape, tuned->what.parameter)->quantity;
    return fmt::format("| {} | {}: {} | {} | {} | {} | {} | {} | {:.1f} dBi at {:.0f}° |", proposal.title, rule.name,
                       measured(rule.value, quantity), measured(tuned->value, quantity), tuned->what.name,
                       studied->built->transformer ? ohms(port) : "", ohms(studied->built->atLine(port, f)),
                       width > 0.0 ? kilohertz(width) : "—", (*spot)->strongest, (*spot)->strongestElevation * 180.0 / pi);
}

/// Every family once, hung as the gallery proposes it, as a Markdown table.
int tableCommand(const std::string& file, double frequency, const std::vector<std::string>& only)
{
    const Result<Design> design = openDesign(file);
    if (!design)
        return report(design.faults());
    if (Faults faults = findFrequencyFaults(frequency, "--frequency"); !faults.empty())
        return report(faults);
    for (const std::string& id : only)
        if (!shapes::findFamily(id))
            return report(Faults{{"--family", "there is no family '" + id + "'; families without anything lists them"}});
    study::Library library;
    const KeptTables kept(library.tables());
    const std::vector<advice::Proposal> all = advice::proposals(*design, frequency);
    std::vector<std::string> rows;
    std::set<std::string> seen;
    for (const bool allowed : {true, false}) // what may not be on this site is told as it would be there
        for (const advice::Proposal& p : all) {
            const std::string& family = p.antenna.shape.family;
            const bool wanted = only.empty() || std::find(only.begin(), only.end(), family) != only.end();
            if (p.fault().empty() != allowed || !wanted || seen.contains(family))
                continue;
            if (const Result<std::string> line = row(library, *design, p)) {
                rows.push_back(*line);
                seen.insert(family);
            }
        }
    for (const advice::Proposal& p : all) { // nor tuned as it would have to be laid here
        const shapes::Family& family = shapes::familyOf(p.antenna.shape);
        const bool wanted = only.empty() || std::find(only.begin(), only.end(), family.id()) != only.end();
        if (!wanted || !seen.insert(family.id()).second)
            continue;
        advice::Proposal usual = p;
        usual.antenna = newAntenna(family, frequency, design->site);
        if (usual.place.allowed()) // no place is asked for
            usual.place.fault = "as it is usually built";
        const Result<std::string> line = row(library, *design, usual);
        if (!line)
            return report(line.faults());
        rows.push_back(*line);
    }
    fmt::print("| antenna | rule | solved | | bare, Ω | at the line, Ω | under 2:1 | strongest |\n|---|---|---|---|---|---|---|---|\n");
    for (const std::string& line : rows)
        fmt::print("{}\n", line);
    return exitGood;
}

} // namespace

int familiesCommand()
{
    constexpr double shownAt = 7.1e6;
    Json out = Json::array();
    for (const shapes::Family* family : shapes::families()) {
        const shapes::AntennaShape shape = family->standardShape(shownAt);
        Json parameters = Json::array(), levers = Json::array(), tuned = Json::array();
        for (const shapes::ParameterSpec& s : family->specs(shape))
            parameters.push_back({{"name", s.key},
                                  {"means", s.label},
                                  {"standard", family->value(shape, s.key)},
                                  {"lowest", s.lowest},
                                  {"highest", s.highest}});
        for (const shapes::Lever& l : family->levers(shape))
            levers.push_back(
                {{"parameter", l.parameter}, {"means", l.name}, {"pieces", l.pieces}, {"undoable", l.kind != shapes::LeverKind::Cut}});
        for (const shapes::TunedLength& t : family->tuned(shape))
            tuned.push_back(
                {{"parameter", t.parameter}, {"means", t.name}, {"at_Hz", t.frequency}, {"configuration", t.configuration + 1}});
        out.push_back({{"family", family->id()},
                       {"title", family->title()},
                       {"summary", family->summary()},
                       {"tuned", family->tuned(shape).front().parameter},
                       {"parameters", parameters},
                       {"levers", levers},
                       {"configurations", family->configurations(shape).size()},
                       {"tuned_lengths", tuned}});
    }
    fmt::print("{}\n", out.dump(1));
    return exitGood;
}

void addFamilyCommands(CLI::App& app, int& status)
{
    struct Request {
        std::string on;
        double frequency = 14.2e6;
        std::vector<std::string> only;
    };
    auto request = std::make_shared<Request>();
    CLI::App* command = app.add_subcommand("families", "families of antennas and their parameters");
    command->add_option("--on", request->on, "design file: instead, a table of what each comes to on its site, tuned");
    quantityOption(command, "--frequency", request->frequency, units::Quantity::Frequency, "Hz or with a unit, of that table");
    command->add_option("--family", request->only, "one of that table, instead of all; may be repeated");
    command->callback([request, &status] {
        status = request->on.empty() ? familiesCommand() : tableCommand(request->on, request->frequency, request->only);
    });
}

} // namespace vetchling::cli
