#pragma once
/// What the return path of an end-fed wire does to its bands: the one that is chosen against the other.

#include "core/study/configurations.h"

namespace vetchling::study {

struct ReturnEffect {
    bool shield = false;                   ///< the outside of the feed line is chosen; the other is a counterpoise
    double counterpoise = 0.0, coax = 0.0; ///< m, of the two; no counterpoise: the coax is choked at the transformer instead
    struct Row {
        Id band;
        std::string name;
        double here = 0.0, other = 0.0; ///< lowest SWR in the band
    };
    std::vector<Row> rows; ///< of the bands that are wished for and solved both ways
    /// The band it matters most to; null where it matters to none.
    [[nodiscard]] const Row* most() const;
};

/// Each band in the configuration that serves it best. Nothing where the antenna has no such choice or could not be built with the other.
/// @param here the antenna as it is, by configuration Faults: the solver's; stopped
Result<std::optional<ReturnEffect>> returnEffect(Library& library, const std::vector<CurvePointer>& here, const Watch& watch = {});

} // namespace vetchling::study
