#pragma once
/// What is left to do to an antenna: everything that is found of it, from its place to its log, with what would cure it. Pages, sheet and
/// command line all tell this.

#include "core/advice/findings.h"
#include "core/line/line_types.h"
#include "core/study/answers.h"
#include "core/study/feed.h"
#include "core/workshop/workshop_data.h"

#include <string>
#include <vector>

namespace vetchling::advice {

/// Tables that ship with the program, and the day it is.
struct LeftData {
    WorkshopData workshop;
    std::vector<LineType> lines;
    std::string now; ///< ISO 8601, local
};

/// Of the antenna as it is, where somebody has solved it already; null: not yet.
struct Solved {
    study::CurvePointer curve;
    study::DetailPointer detail;
};

struct Left {
    std::vector<Finding> findings;             ///< sorted
    std::optional<study::FeedReport> report{}; ///< nothing where it could not be solved
};

/// Faults: stopped. What cannot be built or solved is a finding.
Result<Left> leftOf(study::Library& library, study::References& references, const Design& design, const Antenna& antenna,
                    const LeftData& data, const Solved& solved = {}, const Watch& watch = {});

/// What is told of no antenna alone, of a site whose antennas were looked into.
std::vector<Finding> siteFindings(const Design& design, const std::vector<Left>& antennas);

} // namespace vetchling::advice
