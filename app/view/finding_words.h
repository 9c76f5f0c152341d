#pragma once
/// What is found of an antenna, in the window's words.

#include "core/advice/findings.h"

#include <QString>

namespace vetchling::app {

/// "Power line in reach".
QString findingTitle(const advice::Finding& finding, units::System system);
/// What is, and what to do, as whole sentences.
QString findingSentence(const advice::Finding& finding, units::System system);
/// "Danger", "Not right", "Next", "Done": what its sign means.
QString gravityWords(advice::Gravity gravity);
/// The stage that shows it: "Feed".
QString stageWords(advice::Stage stage);
/// What leads there: "Cut list", "Show it".
QString goWords(const advice::Finding& finding);

} // namespace vetchling::app
