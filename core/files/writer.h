#pragma once
/// How every file of the program is written, the window's and the command line's.

#include "core/result.h"

#include <string>

namespace vetchling::files {

/// Whether it must survive a power cut; what can be computed again, and is checked when it is read, need not.
enum class Flush { ToDisk, WhenItSuits };

/// Writes through a temporary file beside the target, which is flushed to the disk and renamed over it: the old file stays whole if
/// anything fails. Follows links to the file they lead to and keeps its permissions.
Faults writeWhole(const std::string& path, const std::string& content, Flush flush = Flush::ToDisk);

} // namespace vetchling::files
