#pragma once
/// What a log is of: the lengths that are trimmed, in the order of the work, what was cut off them, and how long they were at first.

#include "core/design/design.h"

#include <map>
#include <string>
#include <vector>

namespace vetchling {

/// One length that is trimmed for one frequency.
struct TrimTask {
    shapes::Lever lever;
    double target = 0.0; ///< Hz
    std::size_t configuration = 0;
    std::string configurationName; ///< empty where there is one only
    double frequency = 0.0;        ///< Hz that it is cut for, whatever goal is set
};
/// In the order of the work.
std::vector<TrimTask> trimTasks(const Antenna& antenna);
/// "40 m", by the band that it is cut for, else its links, else its frequency.
std::string nameOfTask(const Design& design, const TrimTask& task);
/// The task that a measurement belongs to: of its configuration, the one whose parameter it names, else whose target is nearest.
std::size_t taskOf(const std::vector<TrimTask>& tasks, const Measurement& measurement);
/// The parameter that a measurement's cut is of: the one it names, else its task's; empty where nothing is trimmed.
std::string cutParameter(const Antenna& antenna, const Measurement& measurement);
/// What can be cut (or slid, where that is what trimming does): a task's lever, then others at an open end, as of one side alone
std::vector<shapes::Lever> cutPieces(const Antenna& antenna, std::size_t task);
/// By how much the pieces were shorter than their plan after the first so many entries of the log, by parameter, SI each piece; below 0
/// where they are longer still, as they were cut. @param entries all of them where left out
std::map<std::string, double> takenByLog(const Antenna& antenna, std::size_t entries = std::size_t(-1));
/// The shape as it was cut at first, less what the first so many entries of the log took off. @param entries all of them where left out
shapes::AntennaShape asLogged(const Antenna& antenna, std::size_t entries = std::size_t(-1));

/// How long the pieces were when they were hoisted for the first time, if that is now: as measured or ticked off at the bench, else as the
/// cut list says.
struct AsCut {
    std::map<std::string, double> longer; ///< SI that each piece of a parameter is longer than its plan
    CutFrom from = CutFrom::NotKnown;     ///< of what is least known of them
    friend bool operator==(const AsCut&, const AsCut&) = default;
};
AsCut asCutOf(const Antenna& antenna);
/// The antenna with its log begun, where it has none yet: it hangs as it was cut.
Antenna withLogBegun(const Antenna& antenna);
/// Adds a measurement, which is named by its piece and configuration; the first one begins the log.
void addMeasurement(Antenna& antenna, Measurement measurement);
/// The goal of one task.
void setTarget(Antenna& antenna, std::size_t task, double hertz);
/// The person's own word of how much longer than its plan a task's piece was hoisted for the first time, SI.
void setAsCut(Antenna& antenna, std::size_t task, double longer);
/// With the last one the log has not begun.
void removeMeasurement(Antenna& antenna, const Id& id);
/// Places in the log of a task's measurements, oldest first.
std::vector<std::size_t> entriesOf(const Antenna& antenna, std::size_t task);
/// The last measurement of a task; null without any.
const Measurement* lastOf(const Antenna& antenna, std::size_t task);

/// An entry of the log that would be asked about if it were written down now.
struct DoubtfulEntry {
    std::size_t entry = 0;
    double expected = 0.0; ///< Hz, where its dip can hardly be of this antenna; 0: its date cannot be
};
/// @param now ISO 8601, local
std::vector<DoubtfulEntry> doubtfulEntries(const Antenna& antenna, const std::string& now);

} // namespace vetchling
