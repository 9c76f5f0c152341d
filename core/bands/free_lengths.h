#pragma once
/// Lengths of wire that are no multiple of half a wave on any band: a first choice for a wire that goes to a tuner.
///
/// A half wave on the wire is h(f) = v c / (2 f), v being the velocity factor, of which only a range is known. A length is free if for
/// every frequency of every band (edges belong to it), every v of the range and every n = 1, 2, 3 ... it keeps the margin from n h.

#include "core/bands/bands.h"
#include "core/result.h"

#include <vector>

namespace vetchling {

/// What a distance is measured by.
enum class DistanceMeasure {
    HalfWave, ///< |L/h - n|, part of one half wave
    Multiple, ///< |L - n h| / (n h), part of the multiple
};

struct FreeLengthOptions {
    double lowestVelocity = 0.95, highestVelocity = 1.0;
    double marginPercent = 6.0; ///< of what the measure says
    DistanceMeasure measure = DistanceMeasure::HalfWave;
    double from = 3.0, to = 60.0; ///< m
    friend bool operator==(const FreeLengthOptions&, const FreeLengthOptions&) = default;
};

struct FreeInterval {
    double from = 0.0, to = 0.0;  ///< m, both belong to it
    double best = 0.0;            ///< m, where the smallest distance is largest
    double distancePercent = 0.0; ///< there
};

/// Lengths that a multiple of half a wave on a band forbids, with its margin, m.
struct HalfWaveZone {
    int n = 1;
    double from = 0.0, to = 0.0; ///< open interval
};
/// Those that begin below the longest length asked for, rising.
std::vector<HalfWaveZone> halfWaveZones(const Band& band, const FreeLengthOptions& options);

/// The smallest distance of a length from any multiple, percent; 0 on one.
double distanceFromMultiples(double length, const std::vector<Band>& bands, const FreeLengthOptions& options);

/// All free intervals, that with the largest distance first. Faults: no band, a range or margin that makes no sense.
Result<std::vector<FreeInterval>> freeLengths(const std::vector<Band>& bands, const FreeLengthOptions& options = {});

} // namespace vetchling
