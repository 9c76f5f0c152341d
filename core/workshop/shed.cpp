#include "core/workshop/shed.h"

#include "core/workshop/cut_list.h"
#include "core/workshop/feed_line.h"

#include <algorithm>
#include <cmath>

namespace vetchling {
namespace {

constexpr double closeEnough = 0.02; // of a length: such a piece is taken as it is

/// What is left of an item while needs are served.
struct Left {
    const StockItem* item;
    int pieces;
    double metres; ///< of wire and coax
};

bool byTheMetre(StockKind kind) { return kind == StockKind::Wire || kind == StockKind::Coax; }

/// How well an item serves a need: the way, and what is left over or lacking; smaller is better.
struct Offer {
    Met::How how = Met::How::Missing;
    double change = 0.0;
    friend bool operator<(const Offer& a, const Offer& b)
    {
        return a.how != b.how ? a.how < b.how : std::abs(a.change) < std::abs(b.change);
    }
};

Offer offerOf(const Need& need, const Left& left)
{
    const StockItem& item = *left.item;
    if (item.kind != need.kind || left.pieces <= 0)
        return {};
    if (need.kind == StockKind::Coil) // turns are taken off
        return item.inductance >= need.inductance * (1.0 - closeEnough)
                   ? Offer{item.inductance <= need.inductance * (1.0 + closeEnough) ? Met::How::AsFound : Met::How::Cut,
                           item.inductance - need.inductance}
                   : Offer{};
    const double longest = byTheMetre(need.kind) ? left.metres : item.longest, shortest = byTheMetre(need.kind) ? longest : item.shortest;
    if (longest <= 0.0)
        return {};
    if (need.length < shortest * (1.0 - closeEnough))
        return {Met::How::Cut, shortest - need.length};
    if (need.length <= longest * (1.0 + closeEnough))
        return {Met::How::AsFound, 0.0};
    return {Met::How::Extended, need.length - longest};
}

double priceOf(const Need& need, const Met& met, const Shed& shed)
{
    for (const StockItem& item : shed.items)
        if (item.kind == need.kind && item.price > 0.0)
            return byTheMetre(need.kind) ? item.price * (met.how == Met::How::Extended ? met.change : need.length) : item.price;
    return 0.0;
}

} // namespace

std::vector<Need> needsOf(const Antenna& antenna, const shapes::BuiltAntenna& built, const Site& site)
{
    std::vector<Need> all;
    const std::vector<CutRow> rows = cutList(built.sections, antenna.allowances);
    for (std::size_t i = 0; i < rows.size() && i < built.sections.size(); ++i)
        for (int piece = 0; piece < rows[i].pieces; ++piece)
            all.push_back(
                {isRod(rows[i]) ? StockKind::Whip : StockKind::Wire, rows[i].name, isRod(rows[i]) ? rows[i].radiating : rows[i].cut, 0.0});
    for (const Load& load : built.model.loads)
        if (load.inductance > 0.0)
            all.push_back({StockKind::Coil, coreText("core", "coil"), 0.0, load.inductance});
    all.push_back({StockKind::Coax, coreText("core", "feed line"), feedLineOf(antenna, built.feedPoint, site).coax, 0.0});
    return all;
}

bool Inventory::complete() const
{
    return std::all_of(rows.begin(), rows.end(), [](const Met& m) { return m.how == Met::How::AsFound || m.how == Met::How::Cut; });
}

Met::How Inventory::worst() const
{
    Met::How worst = Met::How::AsFound;
    for (const Met& m : rows)
        worst = std::max(worst, m.how);
    return worst;
}

Inventory inventoryOf(const std::vector<Need>& needs, const Shed& shed)
{
    std::vector<Left> left;
    for (const StockItem& item : shed.items)
        for (int i = 0; i < (byTheMetre(item.kind) ? item.count : 1); ++i)
            left.push_back({&item, byTheMetre(item.kind) ? 1 : item.count, item.longest});
    std::vector<std::size_t> order(needs.size()); // the longest first, that it finds its piece
    for (std::size_t i = 0; i < order.size(); ++i)
        order[i] = i;
    std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) { return needs[a].length > needs[b].length; });
    Inventory out;
    out.rows.resize(needs.size());
    for (std::size_t place : order) {
        const Need& need = needs[place];
        Left* best = nullptr;
        Offer offered;
        for (Left& l : left) {
            Offer offer = offerOf(need, l);
            if (byTheMetre(need.kind) && offer.how <= Met::How::Cut) // the rest of the piece is what is spent of long wire
                offer = {l.metres <= need.length * (1.0 + closeEnough) ? Met::How::AsFound : Met::How::Cut, l.metres - need.length};
            if (offer.how != Met::How::Missing && (!best || offer < offered))
                best = &l, offered = offer;
        }
        Met& met = out.rows[place];
        met.need = need;
        met.how = best ? offered.how : Met::How::Missing;
        met.change = best ? offered.change : 0.0;
        if (best) {
            met.item = best->item->id;
            if (byTheMetre(need.kind))
                best->metres = std::max(0.0, best->metres - need.length);
            else
                --best->pieces;
        }
        if (met.how == Met::How::AsFound || met.how == Met::How::Cut)
            continue;
        met.price = priceOf(need, met, shed);
        out.price += met.price;
        out.unpriced += met.price == 0.0;
    }
    return out;
}

std::vector<BandReach> bandsFromShed(const Design& design, const Antenna& antenna, const Shed& shed)
{
    const shapes::Family& family = shapes::familyOf(antenna.shape);
    std::vector<BandReach> all;
    for (const WantedBand& w : design.operation.bands) {
        if (w.wish == Wish::No)
            continue;
        shapes::AntennaShape shape = family.standardShape(w.band.centre());
        for (const char* key : {"x_m", "y_m"})
            if (const auto at = antenna.shape.parameters.find(key); at != antenna.shape.parameters.end())
                shape.parameters[key] = at->second;
        const auto built = shapes::buildOver(shape, groundUnder(design, antenna));
        BandReach reach{w.id, Met::How::Missing};
        if (built) {
            auto needs = needsOf(antenna, *built, design.site);
            std::erase_if(needs, [](const Need& n) { return n.kind == StockKind::Coax; }); // the same on every band
            reach.how = inventoryOf(needs, shed).worst();
        }
        all.push_back(reach);
    }
    return all;
}

} // namespace vetchling
