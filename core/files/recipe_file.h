#pragma once
/// Recipes of finished antennas as files, to be kept and passed on.

#include "core/study/recipe.h"

namespace vetchling::files {

Result<study::Recipe> parseRecipe(const std::string& text);
Result<study::Recipe> readRecipe(const std::string& path);
std::string writeRecipe(const study::Recipe& recipe);
Faults saveRecipe(const study::Recipe& recipe, const std::string& path);

} // namespace vetchling::files
