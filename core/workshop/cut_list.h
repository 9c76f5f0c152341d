#pragma once
/// From electrical lengths to lengths to cut: loops at the centre, fold-back at the ends, tails at coils, a margin.

#include "core/design/design.h"

#include <optional>

namespace vetchling {

struct CutRow {
    std::string name;
    int pieces = 1;
    double radiating = 0.0, ends = 0.0, margin = 0.0, cut = 0.0; ///< m; ends: all that is added and does not radiate
    double fold = 0.0;                                           ///< m of `ends` that is folded back at insulators
    double pigtail = 0.0;                                        ///< m of `radiating` at each end that is at a link
    double firstLoop = 0.0, lastLoop = 0.0;                      ///< m of `ends` at each of the two
    double overlap = 0.0;                                        ///< m of `firstLoop` that stands in the tube before
    double diameter = 0.0;                                       ///< m, of what is not the antenna's wire
    shapes::WireEnd first = shapes::WireEnd::Centre, last = shapes::WireEnd::Insulator;
};

/// The margin is for the pieces that are trimmed.
std::vector<CutRow> cutList(const std::vector<shapes::WireSection>& sections, const Allowances& allowances);
/// What a radiating length is cut to, m: that of the piece of this length, or of all pieces that make it up; nothing where the list does
/// not tell, as for the wire of a folded dipole.
std::optional<double> cutFor(const std::vector<CutRow>& rows, double radiating);
/// All that is cut, rods and tubes too, m.
double totalWire(const std::vector<CutRow>& rows);
/// Whether it is a rod, a tube or a whip, which comes by the piece.
bool isRod(const CutRow& row);
/// The wire among it, which comes by the metre, m.
double wireToBuy(const std::vector<CutRow>& rows);
std::string cutListCsv(const std::vector<CutRow>& rows);

} // namespace vetchling
