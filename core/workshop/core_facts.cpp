#include "core/workshop/core_facts.h"

#include <cmath>

namespace vetchling {

CoreFacts coreFactsOf(const Operation& operation, const CoreChoke& choke, const CoreTransformer& transformer,
                      const std::vector<FerriteClass>& ferrites, double low, double high)
{
    constexpr double below = 0.6, above = 1.6; // of the range, that the curve goes on
    constexpr int points = 161;
    CoreFacts out;
    out.low = low, out.high = high;
    out.choke.choke = choke;
    for (const WantedBand& b : operation.bands)
        if (b.wish != Wish::No)
            out.choke.bands.push_back(b.band);
    out.choke.least = leastChoking(choke, out.choke.bands);
    out.choke.heat = allowedHeat(choke.ring, choke.rings);
    out.choke.current = choke.allowedCurrent(low);
    out.choke.curve = chokeCurve(choke, below * low, above * high, points);
    CoreChoke other = choke;
    for (const FerriteClass& f : ferrites) {
        other.ferrite = f;
        ChokeFacts::OtherFerrite row{f.id, f.name, {}};
        for (const Band& b : out.choke.bands)
            row.ohm.push_back(std::abs(other.impedance(b.centre())));
        out.choke.ferrites.push_back(std::move(row));
    }
    TransformerFacts& t = out.transformer;
    t.transformer = transformer;
    t.frequency = low;
    t.power = operation.power;
    t.heat = transformer.coreHeat(low, operation.power);
    t.flux = transformer.flux(low, operation.power);
    t.stands = allowedHeat(transformer.ring, transformer.rings);
    t.magnetising = std::abs(transformer.magnetising(low));
    t.leastTurns = transformer.leastTurns(low);
    return out;
}

} // namespace vetchling
