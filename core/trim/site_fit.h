#pragma once
/// What the measurements say of the site: soil, height and the length of the wire, fitted to all dips and sweeps at once.
///
/// Four unknowns with normal priors (the logarithms of the soil's figures, metres higher, part that the lengths are longer); the model's
/// dips, least SWRs and, at the feedpoint, resistances at every logged state against what was read; linear about the plan, with one
/// step more from where that leads (Gauss-Newton with the first Jacobian; Tarantola 2005, "Inverse Problem Theory", eq. 3.56).

#include "core/design/design.h"
#include "core/trim/next_step.h"

#include <array>
#include <vector>

namespace vetchling {

/// A figure with one standard deviation.
struct Fitted {
    double value = 0.0, sure = 0.0;
};

/// Where a dip is to be expected with what was learned.
struct FitPrediction {
    Id band;
    std::string name;
    double asPlanned = 0.0; ///< Hz: the model's dip of the plan, nothing cut
    Fitted dip;             ///< Hz
};

struct SiteFit {
    Fitted permittivity, conductivity; ///< relative; S/m
    Fitted higher;                     ///< m above the plan
    Fitted longer;                     ///< part of the trimmed lengths
    int measurements = 0;
    double before = 0.0, after = 0.0; ///< mean misfit in standard deviations of the readings, of plan and fit
    std::vector<FitPrediction> bands; ///< wished ones that have a dip in them or near, as it hangs now and by plan
};

/// Faults: nothing measured; what cannot be built or solved; stopped. Takes some seconds.
Result<SiteFit> fitSite(study::Library& library, const Design& design, const Antenna& antenna, const Watch& watch = {});

/// The design with the fit: the site's soil, the antenna's height and its trimmed lengths. The log counts on as it is.
void useFit(Design& design, const Id& antenna, const SiteFit& fit);

} // namespace vetchling
