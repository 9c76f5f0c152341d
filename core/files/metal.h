#pragma once
/// A metal in designs and in the list of conductors: the same words in both. Only for .cpp files of core/files.

#include "core/files/json_reader.h"
#include "core/shapes/family.h"

namespace vetchling::files {

/// From a node's conductivity_S_per_m, relative_permeability and coating; copper where nothing is said.
shapes::Metal readMetal(const JsonNode& node);
Json coatingJson(const shapes::Metal& metal);

} // namespace vetchling::files
