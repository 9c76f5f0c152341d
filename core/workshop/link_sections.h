#pragma once
/// The sections of a linked half: from the path to each open end to wire between insulators.
///
/// At a link each side has a pigtail that belongs to the conductor: closed, both are in the path; open, the one on the feed's side hangs
/// at its end. The wire between two insulators is therefore the path that a band adds, less a pigtail for each of its ends at a link.

#include "core/result.h"

#include <vector>

namespace vetchling {

struct LinkHardware {
    double pigtail = 0.0;   ///< m of conductor on each side of a link
    double insulator = 0.0; ///< m between the two wires at a link
};

struct LinkSection {
    double fromFeed = 0.0; ///< m along the conductor to where it starts
    double path = 0.0;     ///< m of conductor it adds, its pigtails counted in
    double straight = 0.0; ///< m of wire between its insulators
    int linkEnds = 0;      ///< of its two ends, those at a link
};

struct LinkedHalf {
    std::vector<LinkSection> sections; ///< from the feed outwards
    double span = 0.0;                 ///< m pulled out, its links' insulators counted in
};

/// @param paths m from the feed to the open end of each band, along the conductor, innermost first.
/// Faults: paths that do not rise, hardware below 0, a section shorter than its pigtails.
Result<LinkedHalf> linkedHalf(const std::vector<double>& paths, const LinkHardware& hardware);

} // namespace vetchling
