#pragma once
/// What lies in the shed, what an antenna needs, and what of that is there: as found, by cutting, by extending, or not at all.

#include "core/design/design.h"

#include <optional>
#include <string>
#include <vector>

namespace vetchling {

enum class StockKind { Wire, Whip, Coil, Coax, Pole };

/// One thing in the shed, or several alike.
struct StockItem {
    Id id;
    StockKind kind = StockKind::Wire;
    std::string name;
    int count = 1;
    double shortest = 0.0;   ///< m, of a whip pushed together; of a pole
    double longest = 0.0;    ///< m, of a whip pulled out, a pole; of wire and coax: how much there is
    double inductance = 0.0; ///< H, of a coil with all its turns
    double price = 0.0;      ///< of another one: for a metre of wire or coax, else a piece; 0: not given
    KeptFields kept;
    friend bool operator==(const StockItem&, const StockItem&) = default;
};

struct Shed {
    std::string currency; ///< as it is written behind prices
    std::vector<StockItem> items;
    KeptFields kept;
    friend bool operator==(const Shed&, const Shed&) = default;
};

/// Something that an antenna is made of.
struct Need {
    StockKind kind = StockKind::Wire;
    std::string name;        ///< "a side", marked for translation
    double length = 0.0;     ///< m; of wire as cut
    double inductance = 0.0; ///< H
    friend bool operator==(const Need&, const Need&) = default;
};

/// One entry a piece: wires as cut, rods and whips, coils, and the feed line along its route to the entry.
std::vector<Need> needsOf(const Antenna& antenna, const shapes::BuiltAntenna& built, const Site& site);

/// How a need is met.
struct Met {
    enum class How { AsFound, Cut, Extended, Missing } how = How::Missing;
    Need need;
    Id item;             ///< that serves; empty where none does
    double change = 0.0; ///< m that is cut off, or that is to be put on
    double price = 0.0;  ///< of what is to be bought; 0 where no price is given
};

struct Inventory {
    std::vector<Met> rows;               ///< in the order of the needs
    double price = 0.0;                  ///< of all that is missing and has a price
    int unpriced = 0;                    ///< missing things without one
    [[nodiscard]] bool complete() const; ///< nothing is missing or to be put on
    [[nodiscard]] Met::How worst() const;
};

/// Each thing serves once; wire is cut from the shortest piece that is long enough, so that long ones stay whole.
Inventory inventoryOf(const std::vector<Need>& needs, const Shed& shed);

/// Of one antenna on one band, its lengths by rule of thumb.
struct BandReach {
    Id band;
    Met::How how = Met::How::Missing;
};
/// What the shed makes of a family on each wished band; bands for which the family cannot be made are missing.
std::vector<BandReach> bandsFromShed(const Design& design, const Antenna& antenna, const Shed& shed);

} // namespace vetchling
