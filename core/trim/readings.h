#pragma once
/// SWR read by hand at a few frequencies, with whatever meter there is: what was typed, and where the dip lies by it.

#include "core/bands/bands.h"
#include "core/design/measured_sweep.h"
#include "core/design/measurement.h"
#include "core/line/line_types.h"
#include "core/result.h"

#include <optional>
#include <string>
#include <vector>

namespace vetchling {

struct SwrReading {
    double frequency = 0.0, swr = 0.0; ///< Hz
    friend bool operator==(const SwrReading&, const SwrReading&) = default;
};

/// One reading a line, or between semicolons: a frequency and an SWR "7.10 1.8"; forward and reflected power "7.10 50/2"; resistance and
/// reactance without its sign "7.10 42 30". Rising in the result. Faults: what is none of these, by line; one frequency twice.
Result<std::vector<SwrReading>> parseReadings(const std::string& text, double reference = 50.0);

/// SWR of a meter's forward and reflected power. A fault where more comes back than went out.
Result<double> swrOfPowers(double forward, double reflected);

/// Where the dip lies: the model's curve moved along the frequency axis until it fits best.
/// Faults: fewer than two readings; readings that no shift within 12 % fits.
Result<double> dipFromReadings(const std::vector<SwrReading>& readings, const ImpedanceAt& model, double modelDip);

/// What one reading alone can mean: the dip below it (too long) or above it (too short). Nothing where no shift within 12 % explains it.
struct BothReadings {
    std::optional<double> ifTooLong, ifTooShort; ///< Hz of the dip
};
BothReadings bothReadings(const SwrReading& reading, const ImpedanceAt& model, double modelDip);

/// Which of the two, from a hand brought near an end, never touching: that lengthens the wire, so the SWR falls where it was too short.
/// @param fell the SWR fell
std::optional<double> dipByHand(const BothReadings& both, bool fell);

/// What was typed at the mast, and what it comes to: several readings give a dip, one alone two that it can mean; no readings neither.
struct ReadDip {
    std::vector<SwrReading> readings;
    std::optional<double> dip; ///< Hz
    std::optional<BothReadings> both;
};
/// Faults: as parseReadings and dipFromReadings.
Result<ReadDip> dipOfReadings(const std::string& text, double reference, const ImpedanceAt& model, double modelDip);

/// What was measured at the far end of a line, moved to the feedpoint: R and X through the line backwards; an SWR alone by its matched
/// loss.
void moveToFeedpoint(MeasuredSweep& sweep, const ChainPart& line);

/// A sweep that was taken through a length of coax, into a measurement: dip, SWR and sweep as they are at the feedpoint.
/// @param whole R and X are true where it was taken; else the SWR alone is used @param type of the coax; null: it counts for its length
/// only
void takeSweepThrough(MeasuredSweep sweep, bool whole, double coax, const LineType* type, Measurement& measurement);

} // namespace vetchling
