#pragma once
/// What a log tells after months: how each dip wandered, by how much wet soil moves it, how much stretch that would be, and what worked
/// where an antenna was before.

#include "core/trim/next_step.h"

namespace vetchling {

/// Days since 1970-01-01 of an ISO 8601 date, with the time as a part of the day; nothing where it is none.
std::optional<double> dayOf(const std::string& iso);

/// Whether a date as it is told can be when something was measured. @param now ISO 8601, local
bool possibleDate(const std::string& when, const std::string& now);

/// The dips of one task over time.
struct DipPoint {
    Id measurement;
    double day = 0.0, dip = 0.0; ///< Hz
    SoilState soil = SoilState::NotNoted;
    bool afterLastCut = false;
};
struct DipSeries {
    std::size_t task = 0;
    double target = 0.0;          ///< Hz
    std::vector<DipPoint> points; ///< oldest first
};
/// Only measurements with a date; tasks without any are left out.
std::vector<DipSeries> dipSeriesOf(const Antenna& antenna);

/// How a dip wandered since it was last cut: df/f = -dL/L.
struct Drift {
    double change = 0.0; ///< Hz, the last dip less the first
    double days = 0.0;
    double stretch = 0.0;             ///< m of each piece that would do the same
    std::optional<double> wetLessDry; ///< Hz, means of the wet and of the dry ones
    bool seasonal = false;            ///< what wet and dry do explains it
    double within = 0.0;              ///< Hz that a dip wanders without a word
    [[nodiscard]] bool stayed() const { return !(change > within || change < -within); }
};
/// Nothing with fewer than two dips after the last cut.
std::optional<Drift> driftOf(const Antenna& antenna, const DipSeries& series);
Text driftWords(const Drift& drift);

/// Two entries held against one another: what differs between them, a sentence each; the first says whether they can be compared at all.
std::vector<Text> comparedWords(const Antenna& antenna, const Measurement& earlier, const Measurement& later);

/// What worked at a place.
struct PlaceMemory {
    std::string place, when;
    std::vector<std::pair<std::string, double>> settings; ///< name of the piece, SI of its parameter
    double dip = 0.0, swr = 0.0;
};
/// The last entry at each place, newest first.
std::vector<PlaceMemory> placesOf(const Antenna& antenna);

} // namespace vetchling
