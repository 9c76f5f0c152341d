#pragma once

namespace vetchling::bench {

struct DragTimes {
    double median = 0.0, percentile95 = 0.0; ///< ms from a changed value to the repainted strip
};

/// Drags the height of the demo inverted V in a real window (offscreen), tables warm.
DragTimes measureDrag(int steps);

} // namespace vetchling::bench
