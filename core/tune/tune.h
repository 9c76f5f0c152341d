#pragma once
/// One parameter of an antenna brought to resonance or to its lowest SWR at a frequency, over the antenna's own ground.

#include "core/em/solver.h"
#include "core/shapes/family.h"

namespace vetchling {

struct TuneOptions {
    shapes::TuneGoal goal = shapes::TuneGoal::Resonance;
    bool startFromPresent = false; ///< else a tuned length starts from its rule of thumb
    double reference = 50.0;       ///< ohm at the line, for LowestSwr
    std::size_t configuration = 0;
    double reach = 0.15; ///< of the start, either side, for LowestSwr
    int mostSolves = 14;
    double settled = 0.0; ///< of several lengths: a round that moves none by more of itself is the last; 0: as finely as it pays
    em::SolveOptions solve;
};

struct TuneOutcome {
    double value = 0.0;     ///< of the parameter, SI
    double ruleValue = 0.0; ///< by rule of thumb; equal to the start for other parameters
    Complex impedance;      ///< ohm at the line, there
    int solves = 0;
};

/// @param key parameter to vary, one that lengthens the antenna electrically; @param frequency Hz
/// Method: a Newton step by the adjoint sensitivity, then regula falsi with a bracket (Illinois) on sin(arg Z), which is
/// smooth through series and parallel resonance alike, of which an antenna that is tuned for resonance takes the first alone; Brent's
/// search for the lowest SWR. Faults: no resonance within a third of the start, or stopped.
Result<TuneOutcome> tune(const shapes::AntennaShape& shape, const Ground& ground, const std::string& key, double frequency,
                         em::GroundTableCache& tables, const TuneOptions& options = {}, const Watch& watch = {});

struct TunedValue {
    shapes::TunedLength length;
    double value = 0.0, ruleValue = 0.0; ///< SI
    Complex impedance;                   ///< ohm at the line, at the length's frequency
};

struct TuneAllOutcome {
    std::vector<TunedValue> lengths; ///< in the family's order
    int solves = 0;
};

/// All tuned lengths of the family, each at its own frequency, from their rules or from where they are: one after the other in the
/// family's order, and again until none moves, since they act on one another. Faults: as tune, or lengths that do not settle.
Result<TuneAllOutcome> tuneAll(const shapes::AntennaShape& shape, const Ground& ground, em::GroundTableCache& tables,
                               const TuneOptions& options = {}, const Watch& watch = {});

} // namespace vetchling
