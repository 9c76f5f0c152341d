#pragma once
/// What is to be said of a feed chain, and which part in it would cure that.

#include "core/advice/findings.h"
#include "core/study/feed_choices.h"
#include "core/study/shield.h"

namespace vetchling::advice {

/// "coax", "open-wire line", "transformer": English, marked for translation.
std::string partName(const ChainPart& part);

/// Of a report of the antenna's chain in use; without cures.
std::vector<Finding> feedFindings(const Design& design, const Antenna& antenna, const study::FeedReport& report);

/// Of the coax's outside, where that was solved: what its choke has to get rid of, on the bands that the antenna is for. Without cures.
std::vector<Finding> shieldFindings(const Design& design, const Antenna& antenna, const study::FeedReport& report,
                                    const study::ShieldAnswer& shield);

/// The same with cures: the one transformer, tuner or line that takes a finding away and brings most to the wire on all wanted bands, and
/// no less than now; a choke, or a coax as long as its way is, where none is there. @param basis the report is of
void addFeedCures(std::vector<Finding>& findings, const Design& design, const Antenna& antenna, const study::FeedBasis& basis,
                  const study::FeedReport& report, const std::vector<LineType>& types);

} // namespace vetchling::advice
