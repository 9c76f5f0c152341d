#pragma once
/// A wire that goes to a tuner through a transformer: what each ratio makes of it on every wanted band.

#include "core/study/length_map.h"

#include <vector>

namespace vetchling::study {

/// Ratios that are wound: impedance on the antenna's side over the line's.
inline constexpr double woundRatios[] = {1.0, 4.0, 9.0, 16.0, 49.0, 64.0};

struct RatioChoice {
    std::size_t column = 0;
    double ratio = 1.0;
    double worstSwr = 0.0; ///< over the wished bands, at their centres, behind an ideal transformer
    /// What a tuner meets there, ohm.
    double lowestResistance = 0.0, highestResistance = 0.0, lowestReactance = 0.0, highestReactance = 0.0;
};

/// Worst SWR over the wished bands; infinite where one is not known.
double worstSwr(const LengthMap& map, std::size_t column, double ratio);
/// For each ratio the column where its worst SWR is lowest, the best ratio first; none where nothing is known.
std::vector<RatioChoice> bestRatios(const LengthMap& map);

} // namespace vetchling::study
