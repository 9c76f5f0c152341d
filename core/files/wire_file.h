#pragma once
/// The wire file ("vetchling-wires") and the result file ("vetchling-result"); see docs/file-format.md.

#include "core/em/far_field.h"
#include "core/wire/wire_model.h"

#include <string>
#include <vector>

namespace vetchling::files {

struct PatternRequest {
    std::vector<double> elevations, azimuths; ///< degrees; azimuth mathematical, from +x towards +y
};

struct WireCase {
    WireModel model;
    std::vector<double> frequencies; ///< Hz
    PatternRequest pattern;
};

/// Reads and checks a wire file: all faults at once, each with its path in the file.
Result<WireCase> readWireFile(const std::string& path);
Result<WireCase> parseWireFile(const std::string& text);
std::string writeWireFile(const WireCase& wires);

struct CaseResult {
    em::Solution solution;
    em::PowerLedger ledger;
    std::vector<std::vector<double>> gain;                               ///< dBi [elevation][azimuth]
    std::vector<std::vector<double>> flat;                               ///< the same over flat ground; empty where there is nothing else
    std::vector<std::vector<double>> withoutNearLoss = {}, perfect = {}; ///< as told elsewhere (study/told_gain.h); empty: not asked for
};

std::string writeResultFile(const std::vector<CaseResult>& results);

} // namespace vetchling::files
