#pragma once
/// Several parameters of an antenna at once, for what one alone cannot reach.

#include "core/tune/tune.h"

namespace vetchling {

/// What is wanted of the antenna where it is used.
struct JointAim {
    enum class Kind {
        LowestSwr,  ///< the weighted mean of |reflection|^2
        Resonance,  ///< no reactance
        Resistance, ///< at resonance
        Gain        ///< towards an angle, of the power into the antenna
    };
    struct At {
        double frequency = 0.0; ///< Hz
        double weight = 1.0;
        std::size_t configuration = 0;
        friend bool operator==(const At&, const At&) = default;
    };
    Kind kind = Kind::LowestSwr;
    std::vector<At> at;                    ///< one or more
    double reference = 50.0;               ///< ohm at the line, of the SWR
    double resistance = 50.0;              ///< ohm at the line
    double elevation = 0.0, azimuth = 0.0; ///< rad, mathematical azimuth, of the gain
    friend bool operator==(const JointAim&, const JointAim&) = default;
};

struct JointLever {
    std::string parameter;
    double lowest = 0.0, highest = 0.0; ///< SI; both 0: a third either side of the present value
    friend bool operator==(const JointLever&, const JointLever&) = default;
};

struct JointOutcome {
    std::vector<double> values;     ///< SI, in the order of the levers
    std::vector<Complex> impedance; ///< ohm at the line, in the order of the aims
    double achieved = 0.0;          ///< |reflection| in the mean, |X|/|Z|, ohm off, or dBi
    int solves = 0;
    bool atLimit = false; ///< a value stands at its limit: there may be better ones beyond
};

struct JointOptions {
    int mostTries = 240, mostSolves = 600; ///< a try is a solve for each frequency
    em::SolveOptions solve;
};

/// Method: Nelder-Mead on subspaces (Rowan 1990; NLopt's SBPLX) from the present values, which needs no slopes and passes over
/// places that cannot be built. Faults: no such dimension, none or more than six of them, a start that cannot be built; stopped.
Result<JointOutcome> tuneJointly(const shapes::AntennaShape& shape, const Ground& ground, const std::vector<JointLever>& levers,
                                 const JointAim& aim, em::GroundTableCache& tables, const JointOptions& options = {},
                                 const Watch& watch = {});

} // namespace vetchling
