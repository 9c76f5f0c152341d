#pragma once
/// Why a higher resonance does not lie at the plain multiple of the lowest one.

#include "core/study/answers.h"

#include <vector>

namespace vetchling::study {

struct ShiftCause {
    const char* name;   ///< marked for translation
    double shift = 0.0; ///< Hz
};

struct HarmonicShift {
    int n = 0;                      ///< "n x f"
    double plain = 0.0, dip = 0.0;  ///< Hz: n times the fundamental, and where the dip is
    std::vector<ShiftCause> causes; ///< they add to dip - plain
};

/// Of the dip nearest to a frequency, each cause by solves without it: the straight wire by itself in free space (its ends), the same at
/// its height over the soil, then with its bends and slopes, then behind its transformer. Nothing where there is no dip, where it is the
/// lowest one itself, where the wire does not work that multiple, or where a length of its own is tuned for it. Faults: what cannot be
/// built; stopped.
Result<std::optional<HarmonicShift>> harmonicShift(Library& library, const Curve& curve, double near, const Watch& watch = {});

} // namespace vetchling::study
