#pragma once
/// A length for a wire that goes to a tuner: what the rule leaves free, and what the solved map says of each ratio, side by side.

#include "core/bands/free_lengths.h"
#include "core/study/ratios.h"

#include <memory>
#include <optional>

namespace vetchling::study {

/// Ratios that are drawn over the length.
inline constexpr double drawnRatios[] = {1.0, 4.0, 9.0, 49.0};

struct FinderFacts {
    std::vector<Band> bands; ///< wanted; empty where the rule cannot be asked
    FreeLengthOptions options;
    std::vector<FreeInterval> free;               ///< best first
    Faults faults;                                ///< why the rule cannot be asked
    std::vector<std::vector<HalfWaveZone>> zones; ///< by band
    std::shared_ptr<const LengthMap> map;         ///< null before it is solved
    std::vector<std::vector<double>> worst;       ///< SWR by drawn ratio and column of the map
    std::vector<RatioChoice> best;                ///< of the map as far as it is known
};

/// @param map may be null
FinderFacts finderFacts(const std::vector<Band>& bands, const FreeLengthOptions& options, std::shared_ptr<const LengthMap> map);

/// Of the drawn ratios the one with the lowest worst SWR at a length; nothing before the map is solved there.
std::optional<double> ratioFor(const FinderFacts& facts, double length);

} // namespace vetchling::study
