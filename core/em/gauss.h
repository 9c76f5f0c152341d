#pragma once
/// Gauss-Legendre rules on -1..1, made once and kept.

#include <vector>

namespace vetchling::em {

struct GaussRule {
    std::vector<double> node, weight;
};

/// @param count 1 to 64 nodes. Thread-safe.
const GaussRule& gaussRule(int count);

} // namespace vetchling::em
