#include "core/workshop/build_facts.h"

#include "core/workshop/cautions.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <set>

namespace vetchling {
namespace {

constexpr double thinnestTube = 6e-3, tubeOverlap = 0.10; // m
constexpr double saltSoil = 0.05;                         // S/m: nothing but salt makes soil conduct so well

/// What a rod is put together of, where the sizes at hand do and it is no telescope already.
void addTubes(BuildPiece& piece, const Antenna& antenna, const WorkshopData& data)
{
    const shapes::WireChoice& rod = antenna.shape.wire;
    const shapes::Family& family = shapes::familyOf(antenna.shape);
    const bool telescope = family.spec(antenna.shape, "section_count") || family.spec(antenna.shape, "tube_step_m"); // put together already
    const double thick = piece.row.diameter > 0.0 ? piece.row.diameter : rod.diameter;
    if (piece.row.first != shapes::WireEnd::Tube || piece.row.last != shapes::WireEnd::Tube || telescope || thick < thinnestTube)
        return;
    const auto set = tubeSetFor(piece.row.radiating, thick, data.tubes, tubeOverlap);
    if (!set)
        return;
    piece.tubes = *set;
    piece.droop = droopOf(set->spans, data.tubeOf(rod.conductor));
}

std::vector<BuildPiece> piecesOf(const Antenna& antenna, const shapes::BuiltAntenna& built, const WorkshopData& data)
{
    const std::vector<CutRow> rows = cutList(built.sections, antenna.allowances);
    const std::vector<std::vector<double>> corners = cornersOf(built);
    std::vector<BuildPiece> pieces;
    for (std::size_t i = 0; i < rows.size(); ++i) {
        const bool waits = rows[i].first == shapes::WireEnd::Link && i > 0;
        pieces.push_back(
            {rows[i], tapeOf(rows[i], corners[i], antenna.workshop.tapeOffset), waits ? rows[i - 1].name : std::string(), {}, {}});
        addTubes(pieces.back(), antenna, data);
    }
    return pieces;
}

void countPieces(BuildFacts& facts, const Workshop& workshop)
{
    for (const BuildPiece& piece : facts.pieces) {
        facts.count += piece.row.pieces;
        for (const std::string& key : pieceKeys(piece.row))
            if (const auto state = workshop.pieces.find(key); state != workshop.pieces.end()) {
                facts.done += state->second.done ? 1 : 0;
                if (state->second.measured && std::abs(*state->second.measured - piece.row.cut) > std::abs(facts.longestOff))
                    facts.longestOff = *state->second.measured - piece.row.cut;
            }
    }
}

std::vector<std::string> conductorsOf(const shapes::AntennaShape& shape)
{
    std::set<std::string> ids{shape.wire.conductor};
    for (const auto& [part, wire] : shape.partWires)
        ids.insert(wire.conductor);
    return {ids.begin(), ids.end()};
}

std::vector<Support> supportsBeside(const shapes::BuiltAntenna& built, const RiggingReport& rigging, const Site& site)
{
    constexpr double near = 1.5; // m
    std::vector<Support> out;
    for (const Support& s : site.supports) {
        double nearest = HUGE_VAL;
        for (const Wire& w : built.model.wires)
            for (std::size_t i = 1; i < w.points.size(); ++i)
                nearest =
                    std::min(nearest, distanceToSegment(s.at, {w.points[i - 1].x, w.points[i - 1].y}, {w.points[i].x, w.points[i].y}));
        for (const RopeReport& rope : rigging.ropes)
            nearest = std::min(nearest, std::hypot(rope.hold.x - s.at.x, rope.hold.y - s.at.y));
        if (nearest <= near)
            out.push_back(s);
    }
    return out;
}

} // namespace

int BuildFacts::waiting() const
{
    int count = 0;
    for (const BuildPiece& piece : pieces)
        count += piece.waitsFor.empty() ? 0 : piece.row.pieces;
    return count;
}

BuildFacts buildFactsOf(const Design& design, const Antenna& antenna, const shapes::BuiltAntenna& built, const WorkshopData& data,
                        const StockPrices& prices)
{
    BuildFacts facts;
    facts.pieces = piecesOf(antenna, built, data);
    std::vector<CutRow> rows;
    for (const BuildPiece& piece : facts.pieces)
        rows.push_back(piece.row);
    facts.wire = wireToBuy(rows);
    countPieces(facts, antenna.workshop);
    if (antenna.workshop.spool)
        facts.spool = spoolUse(rows, *antenna.workshop.spool);
    facts.rigging = riggingOf(
        built, antenna.shape, [&](const std::string& id) { return data.strengthOf(id); }, antenna.workshop.rigging, design.site);
    facts.lossOverCopper = lossOverCopper(antenna.shape.wire, antenna.shape.designFrequency);
    facts.supports = supportsBeside(built, facts.rigging, design.site);
    facts.parts = partsOf(antenna, built, facts.rigging, design.site, prices);
    facts.saltAir = soilUnder(design, antenna).conductivity >= saltSoil || !design.site.waters.empty();
    facts.metals = metalPairs(conductorsOf(antenna.shape), data.potentials(), facts.saltAir);
    if (shapes::familyOf(antenna.shape).carrier() != shapes::Carrier::Vehicle)
        facts.stand = mastStandOf(design.site, built.model, antenna.workshop.rigging.wind);
    facts.bench = benchCautions(antenna, built);
    facts.cards = benchCards(antenna, built);
    facts.pack = packListOf(antenna, built, facts.rigging, design.site);
    for (const BuildPiece& piece : facts.pieces)
        if (piece.tubes && piece.row.name == facts.pack.longestName) // taken apart
            facts.pack.longest =
                std::max_element(piece.tubes->spans.begin(), piece.tubes->spans.end(), [](const TubeSpan& a, const TubeSpan& b) {
                    return a.tube.length < b.tube.length;
                })->tube.length;
    return facts;
}

StockPrices stockPrices(const Shed& shed)
{
    StockPrices prices;
    for (const StockItem& item : shed.items) {
        if (item.kind == StockKind::Wire && item.price > 0.0 && !prices.wire)
            prices.wire = item.price;
        if (item.kind == StockKind::Coax && item.price > 0.0 && !prices.coax)
            prices.coax = item.price;
    }
    return prices;
}

std::string markName(MarkKind kind)
{
    switch (kind) {
    case MarkKind::Peg: return coreText("core", "at the peg");
    case MarkKind::Out: return coreText("core", "out of the centre");
    case MarkKind::Corner: return coreText("core", "corner");
    case MarkKind::Coil: return coreText("core", "at the coil");
    case MarkKind::Joint: return coreText("core", "joint");
    case MarkKind::Link: return coreText("core", "link: tie here");
    case MarkKind::PigtailEnds: return coreText("core", "pigtail");
    case MarkKind::Fold: return coreText("core", "fold here");
    case MarkKind::Cut: return coreText("core", "cut");
    }
    return {};
}

std::string tapeCsv(const BuildFacts& facts)
{
    std::string out = "piece,pieces,mark,at_m\n";
    for (const BuildPiece& piece : facts.pieces)
        for (const TapeMark& mark : piece.marks)
            out += fmt::format("{},{},{},{:.3f}\n", piece.row.name, piece.row.pieces, markName(mark.kind), mark.at);
    return out;
}

} // namespace vetchling
