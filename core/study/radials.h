#pragma once
/// What so much wire does as radials: few long ones or many short ones.

#include "core/study/study.h"
#include "core/tune/tune.h"

#include <optional>
#include <vector>

namespace vetchling::study {

struct RadialPoint {
    int count = 0;
    double length = 0.0;     ///< m, of each
    double radiator = 0.0;   ///< SI, of the tuned length, resonant with them
    double resistance = 0.0; ///< ohm at the line
    double efficiency = 0.0; ///< power into the sky over input power
    double gain = 0.0;       ///< dBi, of the strongest lobe
};

struct RadialCurve {
    double wire = 0.0; ///< m, of all radials together
    std::vector<RadialPoint> points;
    std::size_t enough = 0; ///< the first point from which no larger count gains `worthIt` more
};

inline constexpr double worthIt = 0.2; // dB

/// Counts from 2 to 32 that share the wire evenly; those that cannot be built or tuned are left out.
/// @param wire m, of all radials together; 0: as much as the antenna has
/// Faults: a family without radials, none of the counts can be solved; stopped.
Result<RadialCurve> radialCurve(Library& library, const Subject& subject, double frequency, double wire = 0.0, const Watch& watch = {});

} // namespace vetchling::study
