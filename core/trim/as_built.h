#pragma once
/// Antennas as they really come out: unlike their plans in ways that nobody knows. For the stand-in instruments and the practice yard.

#include "core/design/design.h"
#include "core/line/chain_part.h"
#include "core/study/study.h"
#include "core/trim/calibration.h"

#include <map>
#include <random>

namespace vetchling {

/// How a finished antenna differs from its plan.
struct HiddenFaults {
    double permittivity = 1.0, conductivity = 1.0; ///< of the soil, times what was believed
    double higher = 0.0;                           ///< m
    double longer = 0.0;                           ///< part of each tuned length
    double coils = 1.0;                            ///< inductance, times the planned
    double joint = 0.0;                            ///< ohm at the feedpoint, of a bad crimp; it changes from sweep to sweep
    friend bool operator==(const HiddenFaults&, const HiddenFaults&) = default;
};

/// Everyday ones: soil and height other than planned, lengths half a percent to three too long.
HiddenFaults everydayFaults(std::mt19937& random);

/// What its builder did to it since.
struct Handling {
    std::map<std::string, double> changes; ///< SI added to each piece, by parameter; negative: cut or folded
    double higher = 0.0;                   ///< m above where it is to hang
    bool handNear = false;                 ///< a hand at an end
    friend bool operator==(const Handling&, const Handling&) = default;
};

struct AsBuilt {
    study::Subject plan;
    HiddenFaults faults;
};

/// The antenna that really hangs there.
study::Subject subjectOf(const AsBuilt& built, const Handling& handling);

/// The same with its lengths so much other that it has the dip that was measured last; as it was where nothing was, or no length does that.
/// Faults: stopped.
Result<AsBuilt> agreeingWithLog(study::Library& library, AsBuilt built, const Antenna& antenna, const Watch& watch = {});

/// At the feedpoint, as the line sees it, over a range. Faults: what cannot hang; the solver's; stopped.
/// @param frequencies Hz, rising
Result<std::vector<Complex>> impedancesOf(study::Library& library, const AsBuilt& built, const Handling& handling,
                                          const std::vector<double>& frequencies, const Watch& watch = {});

/// An analyser with what real ones have: own errors that a calibration takes away, noise, and frequencies in steps.
struct InstrumentFaults {
    double noise = 2e-4;    ///< of a reflection, one standard deviation of each part
    double drift = 0.0;     ///< part of the tracking, that it has wandered off since it was switched on
    double step = 100.0;    ///< Hz that its frequencies are multiples of
    double lead = 0.25;     ///< m of cable inside and to its plug
    double mismatch = 0.06; ///< directivity and source match
    friend bool operator==(const InstrumentFaults&, const InstrumentFaults&) = default;
};

/// What such an instrument adds at a frequency.
ErrorTerms errorTermsOf(const InstrumentFaults& faults, double frequency);
/// What it reads of true reflections at its plug. @param random its noise
RawSweep rawSweepOf(const InstrumentFaults& faults, const std::vector<double>& frequencies, const std::vector<Complex>& reflections,
                    std::mt19937& random);
/// A range in equal parts, each on the instrument's steps; rising, without doubles.
std::vector<double> sweptFrequencies(double from, double to, int points, double step);

} // namespace vetchling
