#pragma once
/// The design file ("vetchling-design"). Old versions open for ever; what this version does not know is kept at every depth and
/// written back, and an antenna of an unknown family is kept whole.

#include "core/design/design.h"

#include <string>

namespace vetchling::files {

inline constexpr int designVersion = 1;

/// All that can be read; what cannot is in `damage` of the design, and stands where it stood when the design is written.
/// Faults: it is no design, or one of a newer program.
Result<Design> parseDesign(const std::string& text);
Result<Design> readDesign(const std::string& path);
std::string writeDesign(const Design& design);
/// By writeWhole. Refuses to write over a file that was cut short.
Faults saveDesign(const Design& design, const std::string& path);

} // namespace vetchling::files
