#pragma once
/// What an answer to "which antenna?" is judged by, as it ships with the program and as users may edit it.

#include "core/advice/score.h"
#include "core/result.h"

namespace vetchling::files {

/// What a file leaves out keeps its usual value. The fault names the file and the place.
Result<advice::ScoreRules> readScoreRules(const std::string& path);

} // namespace vetchling::files
