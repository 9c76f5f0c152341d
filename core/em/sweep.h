#pragma once
/// The impedance over a frequency range from few solves: sampled on one nested set of frequencies, whole fractions of octaves, where two
/// successive rational fits of the reflection coefficient disagree most, until they agree.

#include "core/em/rational.h"
#include "core/em/solver.h"

#include <functional>

namespace vetchling::em {

struct SweepOptions {
    double from = 0.0, to = 0.0; ///< Hz
    double reference = 50.0;     ///< ohm; the SWR that matters is on this impedance
    double swrTolerance = 0.004; ///< relative, where SWR < 10; the curve then keeps 1 %
    int mostSolves = 72;
    SolveOptions solve; ///< where one small mesh serves all frequencies it is not refined to the wanted error
};

/// A curve that can be asked at any frequency of its range.
struct ImpedanceCurve {
    double from = 0.0, to = 0.0, reference = 50.0;
    std::vector<double> sampled;     ///< Hz, rising: where it was solved
    std::vector<Complex> impedances; ///< ohm, there
    RationalFit reflection;          ///< of (Z-reference)/(Z+reference) over log frequency
    double worstErrorPercent = 0.0;  ///< largest error estimate of the solves
    bool converged = false;
    int solves = 0;

    [[nodiscard]] Complex at(double frequency) const;
    [[nodiscard]] double swrAt(double frequency) const;
    /// Frequencies dense enough that straight lines between them keep SWR to 0.5 % wherever SWR < 10.
    [[nodiscard]] std::vector<double> displayFrequencies(double first, double last) const;
};

/// Called with each finished solve, one at a time but in any order and on any of the computing threads.
using SampleSink = std::function<void(const Solution&)>;

/// Bad range, bad model and stops come back as faults.
Result<ImpedanceCurve> sweep(std::shared_ptr<const WireModel> model, const SweepOptions& options, GroundTableCache& tables,
                             const Watch& watch = {}, const SampleSink& sink = {});

} // namespace vetchling::em
