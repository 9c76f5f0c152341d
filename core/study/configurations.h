#pragma once
/// All configurations of an antenna together: each band in the one that serves it best.

#include "core/study/answers.h"

namespace vetchling::study {

struct BandChoice {
    Coverage coverage;
    std::size_t configuration = 0;
};

/// The curves of all configurations, innermost first.
Result<std::vector<CurvePointer>> curvesOf(Library& library, const Question& question, const Watch& watch = {}, Reach reach = Reach::All,
                                           Care care = Care::Usual);
/// Each band, in the question's order, where its SWR is lowest. @param curves at least one, all of the same bands
std::vector<BandChoice> bestByBand(const std::vector<CurvePointer>& curves);

} // namespace vetchling::study
