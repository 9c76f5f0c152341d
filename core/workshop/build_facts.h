#pragma once
/// Everything the bench needs of one antenna as drawn, without anything being solved: pieces with their marks and what was done to them,
/// spool, ropes and weather, parts, metals, packing.

#include "core/workshop/caution.h"
#include "core/workshop/mast_stand.h"
#include "core/workshop/parts_list.h"
#include "core/workshop/rigging.h"
#include "core/workshop/shed.h"
#include "core/workshop/tape.h"
#include "core/workshop/workshop_data.h"

namespace vetchling {

struct BuildPiece {
    CutRow row;
    std::vector<TapeMark> marks;
    std::string waitsFor;         ///< name of the section that has to be trimmed before; empty: may be cut now
    std::optional<TubeSet> tubes; ///< of a rod longer than one of them
    std::optional<Droop> droop;   ///< of those, held level at one end
};

struct BuildFacts {
    std::vector<BuildPiece> pieces;
    double wire = 0.0; ///< m of it to buy, all cut; rods are counted by the piece
    int count = 0;     ///< pieces
    int done = 0;      ///< of them ticked off
    std::optional<SpoolUse> spool;
    double longestOff = 0.0; ///< m, the most that a measured piece differs from what it should be
    RiggingReport rigging;
    double lossOverCopper = 1.0;   ///< of the wire, on the design frequency
    std::vector<Support> supports; ///< that stand beside its wires or hold a rope, within 1.5 m in plan
    std::vector<PartRow> parts;
    std::vector<MetalPair> metals;
    bool saltAir = false;
    PackList pack;
    std::optional<MastStand> stand; ///< of what stands by itself
    std::vector<Caution> bench;     ///< that apply while it is made
    std::vector<BenchCard> cards;
    [[nodiscard]] int waiting() const;
};

BuildFacts buildFactsOf(const Design& design, const Antenna& antenna, const shapes::BuiltAntenna& built, const WorkshopData& data,
                        const StockPrices& prices = {});
/// Prices of wire and coax in the shed.
StockPrices stockPrices(const Shed& shed);
/// Pieces with marks: one row a mark.
std::string tapeCsv(const BuildFacts& facts);
/// The mark in English, marked for translation: "link: tie here".
std::string markName(MarkKind kind);

} // namespace vetchling
