#pragma once
/// A finished antenna as it was built, told so that it can be built again: not one length, but path, wire, jacket, height, soil and how the
/// dip answers. Copied to another wire or site, each length is what the model finds there, times what building made of the model here.

#include "core/design/design.h"
#include "core/em/solver.h"

#include <map>
#include <string>
#include <vector>

namespace vetchling::study {

/// One tuned length.
struct RecipeLength {
    std::string parameter, name;
    double built = 0.0;     ///< SI, as it is on the finished antenna
    double frequency = 0.0; ///< Hz it was finished on
    double perUnit = 0.0;   ///< Hz that the dip moves for one more; 0: not known
    friend bool operator==(const RecipeLength&, const RecipeLength&) = default;
};

struct Recipe {
    std::string name, site, date, notes;
    shapes::AntennaShape shape; ///< with the lengths as built
    Soil soil;
    std::vector<RecipeLength> lengths;
};

/// @param built its shape with what the log took off @param perUnit Hz for one more, by parameter, where it is known
Recipe recipeOf(const Design& design, const Antenna& antenna, const shapes::AntennaShape& built,
                const std::map<std::string, double>& perUnit, const std::string& date);

struct RecipeCopy {
    Antenna antenna;
    struct Length {
        std::string parameter, name;
        double built = 0.0, modelledThere = 0.0, modelledHere = 0.0, copied = 0.0;
    };
    std::vector<Length> lengths;
};

/// For another wire on another soil; place and heights are the recipe's. Faults: what cannot be built or tuned, there or here; a finished
/// length more than a quarter off its model, which is no building but another antenna; stopped.
Result<RecipeCopy> copyOf(const Recipe& recipe, const shapes::WireChoice& wire, const Ground& ground, em::GroundTableCache& tables,
                          const Watch& watch = {});

} // namespace vetchling::study
