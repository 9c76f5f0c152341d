#pragma once
/// A caution, and a card for one kind of work at the bench: what is said, wherever it is said.

#include "core/units/text.h"

#include <string>
#include <vector>

namespace vetchling {

struct Caution {
    std::string heading; ///< marked for translation
    Text words;
};

struct BenchCard {
    std::string title; ///< marked for translation
    std::vector<Text> steps;
};

} // namespace vetchling
