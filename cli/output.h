#pragma once
/// How every command speaks: faults a line each on stderr, progress on stderr, a clean stop on Ctrl-C.

#include "core/result.h"
#include "core/work/watch.h"

namespace vetchling::cli {

inline constexpr int exitGood = 0;
inline constexpr int exitBad = 2;

/// Prints one line a fault and returns exitBad.
int report(const Faults& faults);

/// Progress on stderr where it is a terminal, and a stop request from Ctrl-C.
Watch terminalWatch();

/// This minute, ISO 8601.
std::string localTime();

} // namespace vetchling::cli
