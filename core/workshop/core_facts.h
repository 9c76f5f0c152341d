#pragma once
/// A choke and a transformer on ferrite rings, with all that is told of them on the bands that are wished for.

#include "core/design/design.h"
#include "core/workshop/ferrite.h"

namespace vetchling {

struct ChokeFacts {
    CoreChoke choke;
    std::vector<Band> bands; ///< wished
    LeastChoking least;      ///< on them
    double heat = 0.0;       ///< W that the rings get rid of
    double current = 0.0;    ///< A rms that it stands at the lowest of the bands
    std::vector<ChokePoint> curve;
    struct OtherFerrite {
        std::string id, name;
        std::vector<double> ohm; ///< |Z| at the middle of each band
    };
    std::vector<OtherFerrite> ferrites; ///< the same turns on each
};

struct TransformerFacts {
    CoreTransformer transformer;
    double frequency = 0.0, power = 0.0;         ///< Hz of the lowest band, W
    double heat = 0.0, flux = 0.0, stands = 0.0; ///< W, T, W
    double magnetising = 0.0;                    ///< |ohm| across the line
    int leastTurns = 0;
};

struct CoreFacts {
    double low = 0.0, high = 0.0; ///< Hz that are looked at
    ChokeFacts choke;
    TransformerFacts transformer;
};

/// @param low, high Hz
CoreFacts coreFactsOf(const Operation& operation, const CoreChoke& choke, const CoreTransformer& transformer,
                      const std::vector<FerriteClass>& ferrites, double low, double high);

} // namespace vetchling
