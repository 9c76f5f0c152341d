#pragma once
/// How every file of the program is written, the window's and the command line's.

#include "core/result.h"

#include <string>

namespace vetchling::files {

/// Writes through a temporary file beside the target, which is flushed to the disk and renamed over it: the old file stays whole if
/// anything fails. Follows links to the file they lead to and keeps its permissions.
Faults writeWhole(const std::string& path, const std::string& content);

} // namespace vetchling::files
