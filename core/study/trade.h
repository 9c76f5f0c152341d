#pragma once
/// Pairs of equal resonance of a shortened antenna: what it costs to make it shorter still.

#include "core/study/study.h"
#include "core/tune/tune.h"

#include <vector>

namespace vetchling::study {

struct TradePoint {
    double free = 0.0, solved = 0.0; ///< SI, of the two dimensions; see shapes::Trade
    double width = 0.0;              ///< Hz under 2:1 against the resistance at resonance
    double resistance = 0.0;         ///< ohm at the line
    double efficiency = 0.0;         ///< power into the sky over input power, the coil's Q counted
    double longestPiece = 0.0;       ///< m, of what is packed
};

struct TradeCurve {
    shapes::Trade what;
    std::vector<TradePoint> points; ///< by rising `free`; those without a resonance are left out
};

struct TradeOptions {
    int points = 13;
    double from = 0.55, to = 1.5; ///< of the present free dimension
    std::size_t pair = 0;         ///< of the family's trades
};

/// Each point is tuned from its neighbour's value. Width: FBW = 1 / (sqrt(2) Q), Q = f |dZ/df| / 2R (Yaghjian & Best 2005, eqs. 60 and 87
/// for an SWR of 2).
/// @param frequency Hz. Faults: a family that trades nothing, none of the points can be solved; stopped.
Result<TradeCurve> tradeCurve(Library& library, const Subject& subject, double frequency, const TradeOptions& options = {},
                              const Watch& watch = {});

} // namespace vetchling::study
