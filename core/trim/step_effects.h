#pragma once
/// What a step would do to the other bands, before it is done.

#include "core/study/answers.h"
#include "core/trim/next_step.h"

namespace vetchling {

struct BandEffect {
    Id band;
    std::string name;
    double swrBefore = 0.0, swrAfter = 0.0; ///< lowest in the band, in its best configuration
    bool lost = false;                      ///< under the limit before, and no longer
};

/// The wished bands other than the trimmed one whose SWR is below 5 before or after. Faults: as trimNext.
Result<std::vector<BandEffect>> stepEffects(study::Library& library, const Design& design, const Antenna& antenna,
                                            const TrimOutcome& outcome, const Watch& watch = {});
/// The highest SWR across the band that a target lies in, the curve moved so that its dip is where it was measured; nothing where the
/// target lies in no band, or the curve does not reach across it.
std::optional<double> highestAcross(const Design& design, double target, const study::Curve& curve, double dip);
/// "10 m: 1.4 becomes 1.9." Empty where nothing changes by a tenth.
std::vector<Text> effectWords(const std::vector<BandEffect>& effects);

} // namespace vetchling
