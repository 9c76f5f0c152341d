#pragma once
/// The log of an antenna as a table for other programs.

#include "core/design/design.h"

#include <string>

namespace vetchling::files {

/// One line an entry, measurements first, then on-air reports; SI, decimal points, commas between, headings with units.
std::string logCsv(const Antenna& antenna);

} // namespace vetchling::files
