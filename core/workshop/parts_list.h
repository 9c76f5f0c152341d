#pragma once
/// What has to be on the table before the work begins: parts with quantities and prices, made from the design, changed by the user; metals
/// that eat each other; what a portable set weighs and how long its longest piece is, and the order in which it is put up.

#include "core/design/design.h"
#include "core/workshop/rigging.h"

#include <string>
#include <vector>

namespace vetchling {

enum class PartUnit { Piece, Metre };

struct PartRow {
    std::string key;  ///< stays: "wire", "insulator", "own-1"
    std::string name; ///< marked for translation, or an own part's
    PartUnit unit = PartUnit::Piece;
    double count = 0.0;
    std::optional<double> price; ///< of one, or of a metre; nothing: not known
    bool changed = false, leftOut = false, own = false;
    [[nodiscard]] double sum() const { return leftOut ? 0.0 : count * price.value_or(0.0); }
};

/// @param prices of the shed, by stock kind; what the user wrote for the antenna comes first
struct StockPrices {
    std::optional<double> wire, coax;
};
std::vector<PartRow> partsOf(const Antenna& antenna, const shapes::BuiltAntenna& built, const RiggingReport& rigging, const Site& site,
                             const StockPrices& prices = {});
double priceOf(const std::vector<PartRow>& parts);
/// Pieces to take in hand; metres count as one.
int countOf(const std::vector<PartRow>& parts);
std::string partsCsv(const std::vector<PartRow>& parts);

/// A metal and where it stands in sea water, V against the calomel electrode.
struct MetalPotential {
    std::string id, name;
    double volts = 0.0;
};
struct MetalPair {
    std::string one, other; ///< names
    double volts = 0.0;     ///< apart
    bool corrodes = false;  ///< above 0.15 V in salt air, else above 0.25 V
    std::string eaten;      ///< name of the less noble one
};
/// The conductors of an antenna against the usual metals of clamps and screws. @param salty whether the site's air is
std::vector<MetalPair> metalPairs(const std::vector<std::string>& conductors, const std::vector<MetalPotential>& metals, bool salty);

struct PackList {
    double longest = 0.0; ///< m, of what cannot be rolled or pushed together
    std::string longestName;
    double mass = 0.0;       ///< kg, wire and rope
    std::vector<Text> order; ///< to put it up
};
PackList packListOf(const Antenna& antenna, const shapes::BuiltAntenna& built, const RiggingReport& rigging, const Site& site);

} // namespace vetchling
