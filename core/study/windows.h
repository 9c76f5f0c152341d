#pragma once
/// The stretches of frequency in which an antenna is solved: one around each band and one around the design frequency, joined where
/// they lie close together.

#include "core/bands/bands.h"

#include <vector>

namespace vetchling::study {

struct Window {
    double from = 0.0, to = 0.0; ///< Hz
    [[nodiscard]] bool holds(double frequency) const { return frequency >= from && frequency <= to; }
    friend bool operator==(const Window&, const Window&) = default;
};

/// Wire longer than this many wavelengths is solved on request only.
inline constexpr double longestInWaves = 40.0;

struct WireExtent {
    double total = 0.0;   ///< m, of all wires together
    double longest = 0.0; ///< m, of the longest one
};

/// Bands farther from the design frequency than these ratios are far: nobody waits for them.
inline constexpr double farBelow = 0.05, farAbove = 20.0;
/// Nobody waits for a band beyond these either, unless it is wanted or looked at.
inline constexpr double asideBelow = 0.2, asideAbove = 3.2;

enum class BandPlace { Near, Far, OnRequest };

struct WindowPlan {
    std::vector<Window> windows, far; ///< each rising and apart from one another; far ones take longer
    std::vector<BandPlace> bands;     ///< for each band: among which windows it is
};

/// A band is left for a request where the wire is too long there, or where nobody wants it and it is far.
/// The ends of windows lie on whole fractions of an octave, so that other bands leave them where they are.
/// Around a band on which the wire is many half waves long the window is as wide as a few of its resonances.
/// @param requested id of the band that is looked at, which is solved in any case; may be empty
WindowPlan planWindows(const std::vector<WantedBand>& bands, double designFrequency, const Id& requested, const WireExtent& wires);

} // namespace vetchling::study
