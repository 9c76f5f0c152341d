#pragma once
/// The list of what lies in the shed: one's own plain file (format in docs/file-format.md).

#include "core/workshop/shed.h"

namespace vetchling::files {

/// Faults name line or place.
Result<Shed> parseShed(const std::string& text);
Result<Shed> readShed(const std::string& path);
std::string writeShed(const Shed& shed);
Faults saveShed(const Shed& shed, const std::string& path);

} // namespace vetchling::files
