#pragma once
/// The sweep in three open formats: JSON ("vetchling-sweep"), CSV, and Touchstone (one port, RI, 50 ohm).

#include "core/em/sweep.h"

#include <string>

namespace vetchling::files {

struct SweepTable {
    std::vector<double> frequency; ///< Hz, rising
    std::vector<Complex> impedance;
    int solves = 0;
    std::string antenna = {}; ///< its name; may be empty
};

/// The curve's own display points over a range.
SweepTable sweepTable(const em::ImpedanceCurve& curve, double from, double to);

std::string sweepJson(const SweepTable& table);
std::string sweepCsv(const SweepTable& table);
std::string sweepTouchstone(const SweepTable& table);

} // namespace vetchling::files
