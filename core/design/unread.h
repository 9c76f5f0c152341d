#pragma once
/// What of an antenna that hangs could not be read from its file, and must be known before anything is cut.

#include "core/design/design.h"

namespace vetchling {

/// Where in the file the first such part stands: of its log, its allowances, its goals. Empty where all could be read, or only what is told
/// of it could not: notes, pictures, reports.
std::string unreadOf(const Design& design, const Id& antenna);
/// What to do about it. @param where not empty
Text unreadWords(const std::string& where);

} // namespace vetchling
