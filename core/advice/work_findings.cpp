#include "core/advice/work_findings.h"

#include "core/bands/wanted.h"
#include "core/design/unread.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace vetchling::advice {
namespace {

using units::Quantity;

bool isUp(const Antenna& antenna) { return !antenna.trim.measurements.empty(); }

Measure metres(double value) { return {value, Quantity::Length}; }
Measure centimetres(double value) { return {value, Quantity::SmallLength}; }

Finding of(const Antenna& antenna, Stage stage, const char* view, Gravity gravity, const char* code, Text brief, Text message)
{
    return {.antenna = antenna.id,
            .gravity = gravity,
            .code = code,
            .brief = std::move(brief),
            .message = std::move(message),
            .stage = stage,
            .view = view};
}

/// What is done to the plan of an antenna; what hangs is changed by cuts alone.
std::function<void(Design&)> changes(const Antenna& antenna, std::function<void(Antenna&)> change)
{
    return [id = antenna.id, change = std::move(change)](Design& design) {
        if (Antenna* a = findAntenna(design, id))
            change(*a);
    };
}

bool isWantedAtNone(const Design& design, const std::vector<shapes::TunedLength>& tuned)
{
    return std::none_of(tuned.begin(), tuned.end(), [&](const shapes::TunedLength& t) {
        return std::any_of(design.operation.bands.begin(), design.operation.bands.end(), [&](const WantedBand& w) {
            return w.wish != Wish::No && t.frequency >= w.band.from && t.frequency <= w.band.to;
        });
    });
}

/// A lever moved for a band: the antenna is cut for that band from now on, where it was cut for none that is wanted, else for several
/// together; tuning it to its frequency again would undo that.
void moveFor(const Design& design, Antenna& antenna, const Band& band, const std::string& key, double value)
{
    const auto tuned = shapes::familyOf(antenna.shape).tuned(antenna.shape);
    takeShape(antenna, shapes::familyOf(antenna.shape).levered(antenna.shape, key, value));
    if (tuned.size() == 1 && isWantedAtNone(design, tuned))
        antenna.shape.designFrequency = band.centre();
    else
        agree(antenna, Compromise::From::Map);
}

} // namespace

std::vector<Finding> shapeFindings(const Design& design, const Antenna& antenna, const study::Detail* detail)
{
    std::vector<Finding> all;
    if (const auto built = shapes::buildOver(antenna.shape, groundUnder(design, antenna)); !built) {
        all.push_back(of(antenna, Stage::Shape, "side", Gravity::Wrong, "support", coreText("core", "It cannot be built so"),
                         built.faults().front().message));
        return all;
    }
    if (const std::string where = unreadOf(design, antenna.id); !where.empty())
        all.push_back(
            of(antenna, Stage::Shape, "side", Gravity::Wrong, "unread", coreText("core", "Not all of it was read"), unreadWords(where)));
    if (!detail)
        return all;
    const shapes::Family& family = shapes::familyOf(antenna.shape);
    shapes::Parameters tuned;
    const study::Length* farthest = nullptr;
    double most = 0.0;
    bool known = false;
    for (const study::Length& l : detail->lengths) {
        if (!l.solved)
            continue;
        known = true;
        tuned[l.what.parameter] = *l.solved;
        if (const double off = std::abs(family.value(antenna.shape, l.what.parameter) / *l.solved - 1.0); off > most)
            most = off, farthest = &l;
    }
    const bool chosen = compromiseOf(antenna) != nullptr; // lengths for several bands together are right as they are
    if (!known || isUp(antenna))
        return all;
    if (chosen || most <= tunedWithin) {
        all.push_back(of(antenna, Stage::Shape, "side", Gravity::Done, "tune", coreText("core", "Shape tuned"),
                         chosen ? coreText("core", "Its lengths were chosen for several bands together.")
                                : coreText("core", "Its lengths are those that are solved on this site.")));
        return all;
    }
    const shapes::ParameterSpec* spec = family.spec(antenna.shape, farthest->what.parameter);
    const Quantity quantity = spec ? spec->quantity : Quantity::Length;
    Finding f = of(antenna, Stage::Shape, "side", Gravity::Wrong, "tune", coreText("core", "Not tuned yet"),
                   {coreText("core", "%1 for %2 is %3; solved on this site it is %4."), farthest->what.name,
                    Measure{farthest->what.frequency, Quantity::Frequency},
                    Measure{family.value(antenna.shape, farthest->what.parameter), quantity}, Measure{*farthest->solved, quantity}});
    f.cure = {coreText("core", "Tune it"), changes(antenna, [tuned](Antenna& a) {
                  shapes::AntennaShape shape = a.shape;
                  for (const auto& [key, value] : tuned)
                      shape.parameters[key] = value;
                  takeShape(a, shape);
              })};
    all.push_back(std::move(f));
    return all;
}

std::vector<Finding> bandFindings(const Design& design, const Antenna& antenna, const study::FeedReport& report,
                                  const std::vector<study::DetailPointer>& details)
{
    std::vector<Finding> all;
    const shapes::Family& family = shapes::familyOf(antenna.shape);
    for (const study::FeedRow& row : report.rows) {
        const study::Detail* detail = row.band.configuration < details.size() ? details[row.band.configuration].get() : nullptr;
        const study::Cure* cure = detail && !detail->levers.empty() ? detail->cureOf(row.band.band) : nullptr;
        if (!cure || !cure->lost.empty() || row.service.service == Service::Served)
            continue;
        const shapes::Lever& lever = detail->levers.front().lever;
        const shapes::ParameterSpec* spec = family.spec(antenna.shape, lever.parameter);
        const Measure amount = spec && spec->quantity == Quantity::Length
                                   ? centimetres(std::abs(cure->change))
                                   : Measure{std::abs(cure->change), spec ? spec->quantity : Quantity::Plain};
        Finding f =
            of(antenna, Stage::Bands, "coverage", Gravity::Wrong, "band", {coreText("core", "%1 lies beside its dip"), row.band.name},
               {cure->change < 0.0 ? coreText("core", "%1 less, %2, would bring it in at SWR %3, and lose no other wanted band.")
                                   : coreText("core", "%1 more, %2, would bring it in at SWR %3, and lose no other wanted band."),
                amount, lever.name, fmt::format("{:.1f}", cure->lowestSwr)});
        if (!isUp(antenna)) {
            const double value = family.value(antenna.shape, lever.parameter) + cure->change;
            f.cure = {{cure->change < 0.0 ? coreText("core", "Make it %1 less") : coreText("core", "Make it %1 more"), amount},
                      [id = antenna.id, key = lever.parameter, value, band = row.band.band](Design& d) {
                          const WantedBand* wanted = findBand(d, band);
                          if (Antenna* a = findAntenna(d, id); a && wanted)
                              moveFor(d, *a, wanted->band, key, value);
                      }};
        }
        all.push_back(std::move(f));
    }
    if (const auto tuned = family.tuned(antenna.shape); !report.rows.empty() && !tuned.empty() && isWantedAtNone(design, tuned)) {
        const double frequency = tuned.front().frequency;
        std::vector<WantedBand> then = design.operation.bands;
        wishFor(then, frequency, Wish::Nice);
        const auto band = std::find_if(then.begin(), then.end(), [&](const WantedBand& w) {
            return w.wish != Wish::No && frequency >= w.band.from && frequency <= w.band.to;
        });
        Finding f = of(antenna, Stage::Bands, "coverage", Gravity::Next, "wish", coreText("core", "It is cut for nothing that is wanted"),
                       {coreText("core", "It is cut for %1, and judged on the bands that are wanted, which that is not among."),
                        Measure{frequency, Quantity::Frequency}});
        if (band != then.end())
            f.cure = {{coreText("core", "Want %1 too"), band->band.name}, [frequency](Design& d) {
                          wishFor(d.operation.bands, frequency, Wish::Nice);
                          nameNewThings(d);
                      }};
        all.push_back(std::move(f));
    }
    const Tally tally = report.tally();
    const std::string served = std::to_string(tally.served), wished = std::to_string(tally.wished);
    if (tally.wished > 0)
        all.push_back(
            of(antenna, Stage::Bands, "coverage", Gravity::Done, "judged", {coreText("core", "%1 of %2 bands served"), served, wished},
               {coreText("core", "%1 of %2 wanted bands are served, %3 more in part."), served, wished, std::to_string(tally.partly)}));
    else
        all.push_back(of(antenna, Stage::Bands, "coverage", Gravity::Wrong, "wish", coreText("core", "No band is wanted yet"),
                         coreText("core", "Nothing can be judged before some are wished for on Bands.")));
    return all;
}

std::vector<Finding> siteBandFindings(const Design& design, const std::vector<study::FeedReport>& reports)
{
    std::vector<Finding> all;
    for (const WantedBand& w : design.operation.bands) {
        const auto service = [&](Service least) {
            return std::any_of(reports.begin(), reports.end(), [&](const study::FeedReport& r) {
                const study::FeedRow* row = r.row(w.id);
                return row && row->service.service >= least;
            });
        };
        if (w.wish == Wish::No || reports.empty() || service(Service::Served))
            continue;
        const bool partly = service(Service::Partly);
        all.push_back(
            {.antenna = {},
             .gravity = w.wish == Wish::Must ? Gravity::Wrong : Gravity::Next,
             .code = "band",
             .brief = {partly ? coreText("core", "%1 is served in part only") : coreText("core", "No antenna serves %1"), w.band.name},
             .message = w.wish == Wish::Must ? coreText("core", "It is a must. Another antenna, a tuner or another line could bring it in.")
                                             : coreText("core", "It would be nice to have."),
             .stage = Stage::Bands,
             .view = "coverage"});
    }
    return all;
}

namespace {

/// The most that equal pieces differ as they were measured, and of which.
std::pair<double, std::string> unequal(const Antenna& antenna, const BuildFacts& facts)
{
    std::pair<double, std::string> most{0.0, {}};
    for (const BuildPiece& piece : facts.pieces) {
        double least = HUGE_VAL, longest = -HUGE_VAL;
        for (const std::string& key : pieceKeys(piece.row))
            if (const auto state = antenna.workshop.pieces.find(key); state != antenna.workshop.pieces.end() && state->second.measured) {
                least = std::min(least, *state->second.measured);
                longest = std::max(longest, *state->second.measured);
            }
        if (longest - least > most.first)
            most = {longest - least, piece.row.name};
    }
    return most;
}

void addSpool(std::vector<Finding>& all, const Antenna& antenna, const BuildFacts& facts)
{
    if (!facts.spool || (facts.spool->left >= 0.0 && facts.spool->without.empty()))
        return;
    Finding f = facts.spool->left < 0.0
                    ? of(antenna, Stage::Build, "cut", Gravity::Wrong, "spool",
                         {coreText("core", "%1 of wire are missing on the spool"), metres(-facts.spool->left)},
                         {coreText("core", "It takes %1 in all; a piece is not joined of two where it radiates."), metres(facts.wire)})
                    : of(antenna, Stage::Build, "cut", Gravity::Wrong, "spool", coreText("core", "A piece is longer than what is left"),
                         {coreText("core", "For %1 the rest of the spool is too short: cut the longest ones first."),
                          joinedNames(facts.spool->without)});
    all.push_back(std::move(f));
}

void addRigging(std::vector<Finding>& all, const Antenna& antenna, const BuildFacts& facts)
{
    const RiggingReport& rigging = facts.rigging;
    const Rigging& asked = antenna.workshop.rigging;
    for (const Fault& fault : rigging.faults)
        all.push_back(of(antenna, Stage::Build, "parts", Gravity::Wrong, "pull", coreText("core", "It cannot hang so"), fault.message));
    if (const SpanReport* weakest = rigging.weakest(); weakest && !rigging.wireHolds(asked)) {
        Finding f = of(antenna, Stage::Build, "parts", Gravity::Wrong, "strength", coreText("core", "The wire may part in weather"),
                       {coreText("core", "In the weather that is asked for it is pulled with %1 N, more than a %2th of what it breaks at."),
                        fmt::format("{:.0f}", weakest->pullInWeather), fmt::format("{:.2g}", asked.safety)});
        if (weakest->mostPull > 1.0 && weakest->mostPull < asked.pull)
            f.cure = {{coreText("core", "Pull it with %1 N"), fmt::format("{:.0f}", std::floor(weakest->mostPull))},
                      changes(antenna, [pull = std::floor(weakest->mostPull)](Antenna& a) { a.workshop.rigging.pull = pull; })};
        all.push_back(std::move(f));
    }
    if (!rigging.ropeHolds(asked)) {
        const double needed = std::ceil(asked.safety * rigging.strongestPull() / 100.0) * 100.0;
        all.push_back(of(antenna, Stage::Build, "parts", Gravity::Wrong, "strength", coreText("core", "The rope is too weak"),
                         {coreText("core", "It should break at %1 N or more."), fmt::format("{:.0f}", needed)}));
    }
    if (const double lowest = rigging.lowest(); lowest < walkingHeight)
        all.push_back(
            of(antenna, Stage::Build, "parts", Gravity::Wrong, "walk", coreText("core", "Under head height"),
               {coreText("core", "Wire or rope comes down to %1: mark it, or somebody runs into it in the dark."), metres(lowest)}));
}

} // namespace

std::vector<Finding> buildFindings(const Antenna& antenna, const BuildFacts& facts)
{
    std::vector<Finding> all;
    addSpool(all, antenna, facts);
    if (const auto [by, name] = unequal(antenna, facts); by > equalWithin)
        all.push_back(of(antenna, Stage::Build, "cut", Gravity::Wrong, "unequal", {coreText("core", "Unequal by %1"), centimetres(by)},
                         {coreText("core", "Pieces that should be alike are not, %1: measure again, and cut the longer one."), name}));
    addRigging(all, antenna, facts);
    if (facts.count == 0)
        return all;
    const std::string count = std::to_string(facts.count - facts.done);
    if (isUp(antenna) || facts.done >= facts.count)
        all.push_back(of(antenna, Stage::Build, "cut", Gravity::Done, "cut", coreText("core", "Cut"),
                         facts.done >= facts.count ? coreText("core", "All pieces are ticked off.")
                                                   : coreText("core", "It hangs and was measured.")));
    else
        all.push_back(of(antenna, Stage::Build, "cut", Gravity::Next, "cut",
                         facts.done > 0     ? Text(coreText("core", "Not all cut: %1 more"), count)
                         : facts.count == 1 ? Text(coreText("core", "Not cut yet: one piece, %1 of wire"), metres(facts.wire))
                                            : Text(coreText("core", "Not cut yet: %1 pieces, %2 of wire"), count, metres(facts.wire)),
                         facts.waiting() > 0 ? coreText("core", "The inner ones first; the outer ones wait for the first sweep.")
                                             : coreText("core", "Tick each off on the cut list, with its length as measured.")));
    return all;
}

namespace {

void addLog(std::vector<Finding>& all, const Design&, const Antenna& antenna, const std::string& now)
{
    for (const DoubtfulEntry& doubt : doubtfulEntries(antenna, now)) {
        const Measurement& m = antenna.trim.measurements[doubt.entry];
        const std::string number = std::to_string(doubt.entry + 1);
        all.push_back(of(antenna, Stage::Trim, "log", Gravity::Wrong, "log", {coreText("core", "Entry %1 of the log is doubtful"), number},
                         doubt.expected > 0.0
                             ? Text(coreText("core", "Its dip is %1 where about %2 was expected: look whether it was read or "
                                                     "typed wrong."),
                                    Measure{m.dip, Quantity::Frequency}, Measure{doubt.expected, Quantity::Frequency})
                             : Text(coreText("core", "%1 is no day that it can have been made on: mend its date."), m.when)));
    }
}

void addTask(std::vector<Finding>& all, const Design& design, const Antenna& antenna, const TrimOutcome& outcome, std::size_t i)
{
    const std::string name = nameOfTask(design, outcome.tasks[i]);
    const TrimNext& next = outcome.next;
    const bool told = next.task == i;
    const auto add = [&](Gravity gravity, const char* code, Text brief, Text message) {
        all.push_back(of(antenna, Stage::Trim, "next", gravity, code, std::move(brief), std::move(message)));
    };
    switch (outcome.states[i]) {
    case TrimStep::Done:
        return add(Gravity::Done, "trim", {coreText("core", "%1 trimmed"), name},
                   told ? next.words : Text(coreText("core", "Its dip lies near enough to its goal.")));
    case TrimStep::Check:
        if (told && next.behind) // told of the sweep already
            return;
        return add(Gravity::Wrong, "doubt", {coreText("core", "%1: look before cutting"), name}, told ? next.words : Text());
    case TrimStep::Measure: {
        const bool again = lastOf(antenna, i) != nullptr, waits = i > outcome.working && outcome.working < outcome.tasks.size();
        return add(Gravity::Next, "measure",
                   {again ? coreText("core", "%1 is to be measured again") : coreText("core", "%1 is not measured"), name},
                   waits  ? Text(coreText("core", "After %1 is finished."), nameOfTask(design, outcome.tasks[outcome.working]))
                   : told ? next.words
                          : Text(coreText("core", "Hoist it and measure.")));
    }
    default: return add(Gravity::Next, "trim", {coreText("core", "%1 is to be trimmed"), name}, told ? next.words : Text());
    }
}

} // namespace

std::vector<Finding> trimFindings(const Design& design, const Antenna& antenna, const TrimOutcome& outcome, const std::string& now)
{
    std::vector<Finding> all;
    addLog(all, design, antenna, now);
    for (const SenseRow& row : outcome.next.sense)
        if (!row.good() && row.sign != SenseSign::SwrOnly && row.sign != SenseSign::OtherInstrument)
            all.push_back(
                of(antenna, Stage::Trim, "next", Gravity::Wrong, "doubt", coreText("core", "The last sweep is to be doubted"), row.words));
    for (std::size_t i = 0; i < outcome.tasks.size(); ++i)
        addTask(all, design, antenna, outcome, i);
    return all;
}

} // namespace vetchling::advice
