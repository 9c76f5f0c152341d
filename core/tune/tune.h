#pragma once
/// One parameter of an antenna brought to resonance or to its lowest SWR at a frequency, over the antenna's own ground.

#include "core/em/solver.h"
#include "core/shapes/family.h"

namespace vetchling {

enum class TuneGoal { Resonance, LowestSwr };

struct TuneOptions {
    TuneGoal goal = TuneGoal::Resonance;
    double reference = 50.0; ///< ohm at the line, for LowestSwr
    int mostSolves = 14;
    em::SolveOptions solve;
};

struct TuneOutcome {
    double value = 0.0;     ///< of the parameter, SI
    double ruleValue = 0.0; ///< by rule of thumb; equal to the start for other parameters
    Complex impedance;      ///< ohm at the feed, there
    int solves = 0;
};

/// @param key parameter to vary, one that lengthens the antenna electrically; @param frequency Hz
/// Method: a Newton step by the adjoint sensitivity, then regula falsi with a bracket (Illinois) on sin(arg Z), which is
/// smooth through series and parallel resonance alike; Brent's search for the lowest SWR. Faults: no resonance within a third of the start,
/// or stopped.
Result<TuneOutcome> tune(const shapes::AntennaShape& shape, const Ground& ground, const std::string& key, double frequency,
                         em::GroundTableCache& tables, const TuneOptions& options = {}, const Watch& watch = {});

} // namespace vetchling
