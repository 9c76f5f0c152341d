#pragma once
/// The measured antennas, by their names in docs/performance.md.

#include "core/em/sweep.h"

#include <memory>
#include <string>
#include <vector>

namespace vetchling::bench {

struct Case {
    std::string name;
    std::shared_ptr<const WireModel> model;
    double frequency; ///< Hz
    double goal;      ///< in units of one factorisation, 0: none set
};

/// Single-frequency cases over the demo's soil.
std::vector<Case> cases();
/// A quarter wave on radials 5 cm deep.
std::shared_ptr<const WireModel> buriedRadials(int count);
const Ground& demoSoil();
std::shared_ptr<const WireModel> invertedV(double height = 13.2);

} // namespace vetchling::bench
