#pragma once
/// Where soils, conductors, bands and the demo are.

#include <string>

namespace vetchling::files {

/// In the install prefix of the running program, beside it, or in the source tree it was built from.
std::string findDataFolder();

} // namespace vetchling::files
