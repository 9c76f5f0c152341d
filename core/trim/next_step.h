#pragma once
/// What to do next to a finished antenna: from its log, the model at every state it was measured in, and what the two together taught.
///
/// The plan is not changed by a cut: the antenna as it hangs is the design with what the log took off. Lengths are trimmed one by one,
/// links inside out, pairs of a fan longest first; each is finished when its dip is off by no more than a quarter of the 2:1 width and 0.5
/// %.

#include "core/design/design.h"
#include "core/shapes/height.h"
#include "core/study/study.h"
#include "core/trim/estimate.h"
#include "core/trim/log_tasks.h"
#include "core/trim/sense.h"

#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace vetchling {

struct DipFacts {
    double dip = 0.0, width = 0.0; ///< Hz; width below 2:1, 0 where it is nowhere
};
/// The dip of the SWR nearest to a frequency. Faults: what cannot be built or solved; stopped.
Result<DipFacts> dipNear(study::Library& library, const study::Subject& subject, double frequency, const Watch& watch = {});

/// Hz that a finished dip may be off. @param width Hz below 2:1, 0 where it is nowhere
double toleranceAt(double target, double width);

enum class TrimStep { Measure, Cut, Fold, Slide, Lengthen, Done, Check };

/// The same shift by what can be set and set back: the height of the ends, the angle of radials, a coil's tap.
struct OtherLever {
    shapes::Lever lever;
    double change = 0.0;    ///< SI for each piece
    double predicted = 0.0; ///< Hz
};

struct TrimNext {
    TrimStep step = TrimStep::Measure;
    std::size_t task = 0;
    double change = 0.0;    ///< SI for each piece, negative shortens; 0 where nothing is to be changed
    double predicted = 0.0; ///< Hz: the dip after it; the last one's estimate where nothing is to be changed
    double sure = 0.0;      ///< Hz, one standard deviation of that
    double target = 0.0;    ///< Hz
    double aim = 0.0;       ///< Hz: the dip to aim for at the height of the last measurement; the target where that is the same
    double tolerance = 0.0; ///< Hz
    double width = 0.0;     ///< Hz below 2:1, of the model; 0 where it is nowhere
    double slope = 0.0;     ///< Hz for one more SI unit, each piece, with what was learned
    double modelSlope = 0.0;
    double modelDip = 0.0; ///< Hz of the antenna as logged
    DipEstimate learned;
    double fold = 0.0;                   ///< m of each piece that, folded back, do what the cut does; 0 where that is not known
    std::optional<OtherLever> other;     ///< for the last bit, where the antenna has one that reaches it
    std::optional<std::size_t> waitsFor; ///< task that has to be finished before, since it moves this one
    std::vector<SenseRow> sense;         ///< signs of the last measurement; empty without one
    /// What would be next if that measurement is believed, where one of its signs stops the saw: `step` is Check then, and `words` what to
    /// look at first. Null else.
    std::shared_ptr<const TrimNext> behind;
    Text words;
};

struct TrimQuestion {
    study::Subject subject; ///< as designed
    Antenna antenna;
    std::optional<std::size_t> task; ///< that is told of; else the first that is not finished
    units::System system = units::System::Metric;
    double reference = 50.0; ///< ohm that an SWR is told against
    std::string unread;      ///< where in its file something of it could not be read (`unreadOf`); empty: nowhere
    friend bool operator==(const TrimQuestion&, const TrimQuestion&) = default;
};
TrimQuestion trimQuestionOf(const Design& design, const Antenna& antenna);

struct TrimOutcome {
    std::vector<TrimTask> tasks;
    TrimNext next;
    std::vector<TrimStep> states; ///< by task: Done, or what is to be done; Measure for those after the first that is not finished
    std::size_t working = 0;      ///< the first task that is not finished; the number of them where all are
};
/// Faults: what cannot be built, an antenna without lengths to trim; stopped.
Result<TrimOutcome> trimNext(study::Library& library, const TrimQuestion& asked, const Watch& watch = {});

/// "cut", "measure" ...
const char* stepName(TrimStep step);

} // namespace vetchling
