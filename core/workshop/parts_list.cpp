#include "core/workshop/parts_list.h"

#include "core/workshop/cautions.h"

#include "core/line/parts.h"
#include "core/workshop/cut_list.h"
#include "core/workshop/feed_line.h"
#include "core/workshop/shed.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace vetchling {
namespace {

using shapes::WireEnd;

constexpr double dryLimit = 0.25, saltLimit = 0.15; // V (PD 6484:1979, for exposed and for marine places)
constexpr double ropeMass = 0.016;                  // kg/m of 5 mm polyester

int groundRods(const shapes::BuiltAntenna& built)
{
    return int(std::count_if(built.model.wires.begin(), built.model.wires.end(), [](const Wire& w) { return w.id == "ground rod"; }));
}

double ropes(const RiggingReport& rigging)
{
    double sum = 0.0;
    for (const RopeReport& rope : rigging.ropes)
        sum += std::ceil(rope.length);
    return sum;
}

class Maker {
public:
    explicit Maker(const Antenna& antenna) : m_antenna(antenna) {}

    void add(const char* key, const char* name, double count, PartUnit unit = PartUnit::Piece, std::optional<double> price = {})
    {
        if (count > 0.0)
            m_rows.push_back({key, name, unit, count, price});
    }

    std::vector<PartRow> finish()
    {
        for (PartRow& row : m_rows)
            if (const auto change = m_antenna.workshop.parts.find(row.key); change != m_antenna.workshop.parts.end())
                take(row, change->second);
        for (const auto& [key, change] : m_antenna.workshop.parts)
            if (!change.name.empty()) {
                PartRow own{key, change.name, PartUnit::Piece, 1.0};
                own.own = true;
                take(own, change);
                m_rows.push_back(own);
            }
        return m_rows;
    }

private:
    static void take(PartRow& row, const PartChange& change)
    {
        row.count = change.count.value_or(row.count);
        row.price = change.price ? change.price : row.price;
        row.changed = change.count || change.price;
        row.leftOut = change.leftOut;
    }

    const Antenna& m_antenna;
    std::vector<PartRow> m_rows;
};

void addFeed(Maker& make, const Antenna& antenna, const shapes::BuiltAntenna& built, const Site& site, const StockPrices& prices)
{
    const FeedLine line = feedLineOf(antenna, built.feedPoint, site);
    int chokes = 0, transformers = 0, plugs = 0;
    for (const ChainPart& part : wholeChain(antenna)) {
        chokes += part.kind == part::choke ? 1 : 0;
        transformers += part.kind == part::transformer && partValue(part, "ratio") != 1.0 ? 1 : 0;
    }
    int sections = 0, stubs = 0;
    for (const ChainPart& part : wholeChain(antenna)) {
        sections += part.kind == part::section ? 1 : 0;
        stubs += part.kind == part::stub ? 1 : 0;
    }
    plugs = (line.coax > 0.0 ? 2 : 0) + 2 * sections + stubs;
    make.add("transformer", coreText("core", "transformer in a tight box"), transformers);
    make.add("choke", coreText("core", "common-mode choke"), chokes);
    make.add("coax", coreText("core", "coax"), std::ceil(line.coax), PartUnit::Metre, prices.coax);
    make.add("open-line", coreText("core", "open-wire line"), std::ceil(line.open), PartUnit::Metre);
    make.add("plug", coreText("core", "plugs for the coax"), plugs);
    make.add("joiner", coreText("core", "joiners for plugs, matching section to coax"), line.coax > 0.0 ? sections : 0);
    make.add("tee", coreText("core", "T pieces for a stub"), stubs);
    make.add("sealing", coreText("core", "self-fusing tape, rolls"), plugs > 0 ? 1 : 0);
}

} // namespace

std::vector<PartRow> partsOf(const Antenna& antenna, const shapes::BuiltAntenna& built, const RiggingReport& rigging, const Site& site,
                             const StockPrices& prices)
{
    Maker make(antenna);
    const int rods = built.ends(WireEnd::Tube), links = built.ends(WireEnd::Link) / 2, coils = int(built.coils.size() + built.traps.size()),
              joints = built.ends(WireEnd::Joint), insulators = built.ends(WireEnd::Insulator);
    int tubes = 0, clamps = 0;
    const std::vector<CutRow> rows = cutList(built.sections, antenna.allowances);
    for (const CutRow& row : rows) {
        clamps += row.overlap > 0.0 ? row.pieces : 0;
        tubes += isRod(row) ? row.pieces : 0;
    }
    make.add("wire", coreText("core", "wire"), std::ceil(wireToBuy(rows)), PartUnit::Metre, prices.wire);
    make.add("tube", coreText("core", "rods, tubes or whips"), tubes);
    if (built.ends(WireEnd::Transformer) == 0)
        make.add("centre", coreText("core", "centre piece"), built.model.feeds.empty() ? 0 : 1);
    make.add("ground-rod", coreText("core", "ground rods with clamp"), groundRods(built));
    make.add("insulator", coreText("core", "end insulators"), insulators);
    make.add("link", coreText("core", "link insulators"), links);
    make.add("link-plug", coreText("core", "plug and socket for a link, pairs"), links);
    make.add("coil-former", coreText("core", "coil formers"), coils);
    make.add("lug", coreText("core", "cable lugs"), joints + built.ends(WireEnd::Centre) + built.ends(WireEnd::Transformer));
    addFeed(make, antenna, built, site, prices);
    make.add("rope", coreText("core", "rope, weatherproof"), ropes(rigging), PartUnit::Metre);
    make.add("pulley", coreText("core", "pulleys"), antenna.workshop.rigging.weight ? double(rigging.ropes.size()) : 0.0);
    make.add("weight", coreText("core", "weights"), antenna.workshop.rigging.weight ? double(rigging.ropes.size()) : 0.0);
    make.add("tube-clamp", coreText("core", "hose clamps for slotted tube ends"), clamps);
    make.add("tube-slot", coreText("core", "slots to saw, two in each of those ends"), 2.0 * clamps);
    make.add("heat-shrink", coreText("core", "heat-shrink with glue, pieces"), 2.0 * links + joints + 2.0 * coils);
    make.add("tie", coreText("core", "cable ties for folds"), 2.0 * insulators);
    make.add("antioxidant", coreText("core", "antioxidant paste for tubes, tubes"), rods > 0 ? 1 : 0);
    return make.finish();
}

double priceOf(const std::vector<PartRow>& parts)
{
    double sum = 0.0;
    for (const PartRow& row : parts)
        sum += row.sum();
    return sum;
}

int countOf(const std::vector<PartRow>& parts)
{
    int count = 0;
    for (const PartRow& row : parts)
        count += row.leftOut ? 0 : row.unit == PartUnit::Metre ? 1 : int(std::lround(row.count));
    return count;
}

std::string partsCsv(const std::vector<PartRow>& parts)
{
    std::string out = "part,count,unit,price,sum\n";
    for (const PartRow& row : parts)
        if (!row.leftOut)
            out += fmt::format("\"{}\",{:g},{},{},{}\n", row.name, row.count, row.unit == PartUnit::Metre ? "m" : "pieces",
                               row.price ? fmt::format("{:.2f}", *row.price) : "", row.price ? fmt::format("{:.2f}", row.sum()) : "");
    return out;
}

namespace {

/// Of a metal that stands in the list itself, and is as noble: "copper-hard".
bool isVariety(const MetalPotential& metal, const std::vector<MetalPotential>& metals)
{
    const std::string stem = metal.id.substr(0, metal.id.find('-'));
    return stem != metal.id &&
           std::any_of(metals.begin(), metals.end(), [&](const MetalPotential& m) { return m.id == stem && m.volts == metal.volts; });
}

} // namespace

std::vector<MetalPair> metalPairs(const std::vector<std::string>& conductors, const std::vector<MetalPotential>& metals, bool salty)
{
    std::vector<MetalPair> pairs;
    for (const std::string& id : conductors) {
        const auto here = std::find_if(metals.begin(), metals.end(), [&](const MetalPotential& m) { return m.id == id; });
        if (here == metals.end())
            continue;
        for (const MetalPotential& other : metals) {
            if (other.id == id || isVariety(other, metals))
                continue;
            MetalPair pair{here->name, other.name, std::abs(here->volts - other.volts)};
            pair.corrodes = pair.volts > (salty ? saltLimit : dryLimit) + 1e-9;
            pair.eaten = here->volts < other.volts ? here->name : other.name;
            pairs.push_back(pair);
        }
    }
    std::stable_sort(pairs.begin(), pairs.end(), [](const MetalPair& a, const MetalPair& b) { return a.volts > b.volts; });
    return pairs;
}

PackList packListOf(const Antenna& antenna, const shapes::BuiltAntenna& built, const RiggingReport& rigging, const Site& site)
{
    PackList pack;
    for (const shapes::WireSection& s : built.sections)
        if ((s.first == WireEnd::Tube || s.last == WireEnd::Tube) && s.length > pack.longest) {
            const double shortest = shapes::familyOf(antenna.shape).value(antenna.shape, "shortest_m");
            pack.longest = shortest > 0.0 && shortest < s.length ? shortest : s.length;
            pack.longestName = s.name;
        }
    double wire = 0.0;
    for (const CutRow& row : cutList(built.sections, antenna.allowances))
        if (row.first != WireEnd::Tube && row.last != WireEnd::Tube)
            wire += row.pieces * row.cut;
    constexpr double rolls = 4e-3; // m thick, at most
    double least = antenna.shape.wire.diameter, mass = rigging.load.mass;
    for (const auto& [part, other] : antenna.shape.partWires)
        if (other.diameter < least) {
            mass *= other.diameter * other.diameter / (least * least);
            least = other.diameter;
        }
    pack.mass = least <= rolls ? wire * mass + ropes(rigging) * ropeMass : 0.0;
    pack.order = puttingUp(antenna, built, rigging, site);
    return pack;
}

} // namespace vetchling
