#pragma once
/// One part of a feed line as it is written down: its kind, its values by key, and how well those are known.

#include "core/id.h"

#include <map>
#include <string>
#include <utility>
#include <vector>

namespace vetchling {

/// How a figure came about.
enum class Basis { Assumed, Computed, Measured };

struct ChainPart {
    Id id;
    std::string kind;                                 ///< "transformer", "line" ...; see parts.h
    std::string type;                                 ///< of a line: id in data/lines.json; empty: its own values
    std::map<std::string, double> values;             ///< by key, SI; dB, percent, degrees as such. What is missing has its standard value
    std::vector<std::pair<double, double>> lossTable; ///< Hz, dB; rising. Empty: "loss_dB" at every frequency
    Basis basis = Basis::Assumed;
    KeptFields kept;
    friend bool operator==(const ChainPart&, const ChainPart&) = default;
};

} // namespace vetchling
