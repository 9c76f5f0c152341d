#pragma once
/// How every file of the program is written, the window's and the command line's.

#include "core/result.h"

#include <cstdint>
#include <string>

namespace vetchling::files {

/// Whether it must survive a power cut; what can be computed again, and is checked when it is read, need not.
enum class Flush { ToDisk, WhenItSuits };

/// Writes through a temporary file beside the target, which is flushed to the disk and renamed over it: the old file stays whole if
/// anything fails. Follows links to the file they lead to and keeps its permissions. What is no ordinary file, a device or a pipe, is
/// written into as it is.
Faults writeWhole(const std::string& path, const std::string& content, Flush flush = Flush::ToDisk);

/// What a file is, as far as the file system tells it: another state means that somebody wrote it, or touched it.
struct FileState {
    bool there = false;
    std::uint64_t device = 0, number = 0;
    std::int64_t size = 0, written = 0, changed = 0; ///< bytes; ns
    friend bool operator==(const FileState&, const FileState&) = default;
};
FileState stateOf(const std::string& path);

/// The name with the next free number: "shed-1.json".
std::string freeFileName(const std::string& path);

} // namespace vetchling::files
