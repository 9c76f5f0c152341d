#pragma once
/// From electrical lengths to lengths to cut: loops at the centre, fold-back at the ends, tails at coils, a margin.

#include "core/design/design.h"

namespace vetchling {

struct CutRow {
    std::string name;
    int pieces = 1;
    double radiating = 0.0, ends = 0.0, margin = 0.0, cut = 0.0; ///< m
};

/// The margin is for the pieces that are trimmed.
std::vector<CutRow> cutList(const std::vector<shapes::WireSection>& sections, const Allowances& allowances);
/// All wire to buy, m.
double totalWire(const std::vector<CutRow>& rows);
std::string cutListCsv(const std::vector<CutRow>& rows);

} // namespace vetchling
