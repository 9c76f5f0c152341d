#pragma once
/// Where the dip lies and how it answers, learned from all dips that were measured beside the model's dips for the same dimensions.
///
/// measured = modelled + offset + (factor - 1) (modelled - modelled at the last): what building, soil and height add is an offset in
/// frequency, and the answer to a change is the model's times a factor near 1. Both by Bayes: normal priors, readings with normal noise.

#include <vector>

namespace vetchling {

struct DipReading {
    double measured = 0.0, modelled = 0.0; ///< Hz
    double noise = 0.0;                    ///< Hz, one standard deviation
};

struct DipPrior {
    double offset = 0.03; ///< of the frequency, one standard deviation
    double factor = 0.05; ///< likewise, round 1
};

struct DipEstimate {
    double reference = 0.0; ///< Hz: the model's dip at the last reading
    double offset = 0.0, factor = 1.0;
    double offsetVariance = 0.0, factorVariance = 0.0, covariance = 0.0;
    /// Hz that the real dip has where the model's is that.
    [[nodiscard]] double at(double modelled) const { return reference + offset + factor * (modelled - reference); }
    /// Hz, one standard deviation of that.
    [[nodiscard]] double sure(double modelled) const;
    /// Hz that the model's dip has where the real one is that.
    [[nodiscard]] double modelled(double real) const { return reference + (real - reference - offset) / factor; }
};

/// @param readings oldest first, one or more
DipEstimate estimateDip(const std::vector<DipReading>& readings, const DipPrior& prior = {});

} // namespace vetchling
