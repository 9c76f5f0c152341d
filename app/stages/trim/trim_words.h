#pragma once
/// What pieces, bands and the beginning of a log are called.

#include "core/trim/log_tasks.h"
#include "core/units/units.h"

#include <QString>

#include <vector>

namespace vetchling::app {

/// A task by the band that it is cut for, else by its frequency: "40 m".
QString taskName(const Design& design, const TrimTask& task);
/// "14 cm over plan by the cut list".
QString asCutWords(double longer, CutFrom from, units::System system);

/// What a line of the log says beyond the measurement itself.
struct LogWords {
    QString piece;      ///< that was cut: "each side"
    QString band;       ///< it was measured for; empty where there is one only
    bool first = false; ///< of its piece
    QString asCut;      ///< how it was cut at first, of the first; empty: not known
    friend bool operator==(const LogWords&, const LogWords&) = default;
};
/// By measurement.
std::vector<LogWords> logWordsOf(const Design& design, const Antenna& antenna, units::System system);
/// "40 m: cut 8.0 cm, each side".
QString doneWords(const Measurement& measurement, const LogWords& words, units::System system);

} // namespace vetchling::app
