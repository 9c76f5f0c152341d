#pragma once
/// What a person waits for in the real window (offscreen).

#include <string>
#include <vector>

namespace vetchling::bench {

struct Wait {
    std::string name;
    double milliseconds = 0.0, goal = 0.0; ///< goal 0: none set
};

/// A length dragged on every antenna of the demo, and a transformer turned: from the changed value to the repainted strip, median and, for
/// the first antenna, the 95th percentile; tables warm.
std::vector<Wait> measureDrags(int steps);
/// The longest turn of the event loop in each step of a journey through the demo: every stage and view, a drag, the gallery, a sweep, a
/// sheet, saving and opening, with a goal for all of them.
std::vector<Wait> measureTurns();
/// A map of 60 lengths of the demo's end-fed over all its bands: its coarse picture, and all of it, with no tables and with warm ones; the
/// chart of settings of the demo's whip; a drag while a map is being computed.
std::vector<Wait> measureBands();
/// The spread of the demo's first antenna over all bands, with no tables and with warm ones; ten variants of it compared, warm.
std::vector<Wait> measureSpread();
/// From the start of a new process to its first complete strip: with no tables kept, and with those that an earlier run left.
std::vector<Wait> measureFirstStrip(int runs);

} // namespace vetchling::bench
