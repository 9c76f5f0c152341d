#pragma once
/// What pieces, bands and the beginning of a log are called.

#include "core/trim/log_tasks.h"
#include "core/units/units.h"

#include <QString>

namespace vetchling::app {

/// A task by the band that it is cut for, else by its frequency: "40 m".
QString taskName(const Design& design, const TrimTask& task);
/// "14 cm over plan by the cut list".
QString asCutWords(double longer, CutFrom from, units::System system);

} // namespace vetchling::app
