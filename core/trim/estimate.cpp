#include "core/trim/estimate.h"

#include <cmath>

namespace vetchling {

double DipEstimate::sure(double modelled) const
{
    const double d = modelled - reference;
    return std::sqrt(offsetVariance + 2.0 * d * covariance + d * d * factorVariance);
}

DipEstimate estimateDip(const std::vector<DipReading>& readings, const DipPrior& prior)
{
    DipEstimate out;
    out.reference = readings.back().modelled;
    // normal equations of the two unknowns, the priors being the first two rows
    const double offset = prior.offset * out.reference;
    double aa = 1.0 / (offset * offset), ab = 0.0, bb = 1.0 / (prior.factor * prior.factor), ay = 0.0, by = bb;
    for (const DipReading& r : readings) {
        const double weight = 1.0 / (r.noise * r.noise), d = r.modelled - out.reference, y = r.measured - out.reference;
        aa += weight, ab += weight * d, bb += weight * d * d;
        ay += weight * y, by += weight * y * d;
    }
    const double determinant = aa * bb - ab * ab;
    out.offset = (bb * ay - ab * by) / determinant;
    out.factor = (aa * by - ab * ay) / determinant;
    out.offsetVariance = bb / determinant;
    out.factorVariance = aa / determinant;
    out.covariance = -ab / determinant;
    return out;
}

} // namespace vetchling
