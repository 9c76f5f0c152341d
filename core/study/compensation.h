#pragma once
/// Pulling the harmonics where they are wanted: a small coil near the feed, its place, a capacitor across the transformer's line side and
/// the wire's length solved for all wished bands; or a coil and a tail at the far end, which add a band below.

#include "core/study/length_map.h"

namespace vetchling::study {

/// What became of a wished band.
struct CompensatedBand {
    Id band;
    double swrBefore = 0.0, swrAfter = 0.0;     ///< lowest in the band
    double shareBefore = 0.0, shareAfter = 0.0; ///< see usableShare
    double widthBefore = 0.0, widthAfter = 0.0; ///< Hz under the limit round its dip, beyond the band's edges too
    double lossBefore = 0.0, lossAfter = 0.0;   ///< dB in coils, of the power into the line
};

struct Compensation {
    shapes::AntennaShape shape; ///< with it
    shapes::Parameters values;  ///< of what was changed
    std::vector<CompensatedBand> bands;
    double scoreBefore = 0.0, scoreAfter = 0.0; ///< as of a map
    int solves = 0;
    [[nodiscard]] bool helps() const { return scoreAfter > scoreBefore; }
};

/// Whether an antenna has such a coil: its inductance, its place and one wire whose length is free.
bool canCompensate(const shapes::AntennaShape& shape);

/// The lowest weighted mean of |reflection|^2 over the wished bands (or their wished segments), from a few starts of the coil; the length
/// stays within 6 %. Faults: no such coil, no wished band, what cannot be built; stopped.
Result<Compensation> compensate(Library& library, const Question& question, const Watch& watch = {});

/// Wished bands that a coil and a tail could add: below the antenna's own; none for what cannot have them.
std::vector<Id> lowerBands(const Question& question);
/// Coil, tail and length for the present wishes, the first two starting from what suits a band of `lowerBands`.
/// Faults: no such band, what cannot be built; stopped.
Result<Compensation> addLowerBand(Library& library, const Question& question, const Id& band, const Watch& watch = {});

} // namespace vetchling::study
