#pragma once
/// The table of exposure limits that ships with the program and that users may edit.

#include "core/workshop/exposure.h"

namespace vetchling::files {

/// The fault names the file and the place.
Result<std::vector<LimitSet>> readLimits(const std::string& path);

} // namespace vetchling::files
