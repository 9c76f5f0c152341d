#pragma once
/// Marks on one tape that is laid along a piece from one peg: where it leaves the centre, turns, is tied, folded and cut.

#include "core/workshop/cut_list.h"

#include <vector>

namespace vetchling {

enum class MarkKind { Peg, Out, Corner, Coil, Joint, Link, PigtailEnds, Fold, Cut };

struct TapeMark {
    MarkKind kind = MarkKind::Peg;
    double at = 0.0; ///< m as the tape shows it
    friend bool operator==(const TapeMark&, const TapeMark&) = default;
};

/// @param corners m of path from the piece's start to each turn @param offset m that the tape shows at the peg
std::vector<TapeMark> tapeOf(const CutRow& row, const std::vector<double>& corners = {}, double offset = 0.0);

/// For each section, m from its start to where the wire turns by more than 3 degrees: corners of loops, the foot of an L. Sections that do
/// not begin at the feed or go on from the one before have none.
std::vector<std::vector<double>> cornersOf(const shapes::BuiltAntenna& built);

/// The pieces of a row, each with a key of its own that stays: "leg/1", "leg/2".
std::vector<std::string> pieceKeys(const CutRow& row);

/// How a spool serves: longest pieces first.
struct SpoolUse {
    double left = 0.0;                ///< m after all; below 0: so much is missing
    std::vector<std::string> without; ///< names of rows with a piece it is too short for
};
SpoolUse spoolUse(const std::vector<CutRow>& rows, double spool);

} // namespace vetchling
