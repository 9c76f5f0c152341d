#pragma once
/// What is to be said of an antenna's lengths and bands, at the bench and of its measurements.

#include "core/advice/findings.h"
#include "core/study/answers.h"
#include "core/study/feed.h"
#include "core/trim/next_step.h"
#include "core/trim/sense.h"
#include "core/workshop/build_facts.h"

namespace vetchling::advice {

/// What cannot be built, or not all be read; lengths that are not tuned. With cures. @param detail null: not known
std::vector<Finding> shapeFindings(const Design& design, const Antenna& antenna, const study::Detail* detail);

/// Wanted bands that a lever would bring in without losing another, with cures; how many are served; and where it is cut for nothing that
/// is wanted, which may be wanted then.
/// @param details by configuration; null: not known
std::vector<Finding> bandFindings(const Design& design, const Antenna& antenna, const study::FeedReport& report,
                                  const std::vector<study::DetailPointer>& details);

/// Wanted bands that nothing on the site serves. @param reports of all its antennas
std::vector<Finding> siteBandFindings(const Design& design, const std::vector<study::FeedReport>& reports);

/// Spool, sides, wire and rope in weather, heads; what is not cut yet. With cures.
std::vector<Finding> buildFindings(const Antenna& antenna, const BuildFacts& facts);

/// Entries of the log and a last sweep that are to be doubted, and the steps of each length.
/// @param now ISO 8601, local
std::vector<Finding> trimFindings(const Design& design, const Antenna& antenna, const TrimOutcome& outcome, const std::string& now);

inline constexpr double tunedWithin = 0.01; ///< of a length: what is nearer to its solved value counts as tuned; it is trimmed anyway
inline constexpr double equalWithin = 0.01; ///< m, that equal pieces may differ

} // namespace vetchling::advice
