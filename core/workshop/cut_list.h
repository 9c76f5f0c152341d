#pragma once
/// From electrical lengths to lengths to cut: loops at the centre, fold-back at the ends, tails at coils, a margin.

#include "core/shapes/family.h"

namespace vetchling {

struct Allowances {
    double centre = 0.06;       ///< m taken by the loop round the centre piece or transformer terminal, each end there
    double fold = 0.30;         ///< m folded back at an insulator
    double coilTail = 0.04;     ///< m into a coil's terminal
    double jointTail = 0.05;    ///< m soldered at a joint
    double marginPercent = 1.4; ///< cut long by, of the radiating length
    friend bool operator==(const Allowances&, const Allowances&) = default;
};

struct CutRow {
    std::string name;
    int pieces = 1;
    double radiating = 0.0, ends = 0.0, margin = 0.0, cut = 0.0; ///< m
};

std::vector<CutRow> cutList(const std::vector<shapes::WireSection>& sections, const Allowances& allowances);
/// All wire to buy, m.
double totalWire(const std::vector<CutRow>& rows);
std::string cutListCsv(const std::vector<CutRow>& rows);

/// Peak voltage between the open end of a resonant wire and earth, V, estimated from the current along it.
/// The end voltage of a standing wave of peak current I on a wire of mean impedance 60 (ln(2 l/a) - 1).
double endVoltage(double peakCurrent, double wireLength, double radius);

} // namespace vetchling
