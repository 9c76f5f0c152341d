#pragma once
/// Which bands an antenna is wanted for: put in from a plan, wished for, or a range of one's own.

#include "core/bands/bands.h"

namespace vetchling {

/// Brings a plan's bands in, not wanted yet; bands of the same name take its edges and keep their wish.
void putIn(const BandPlan& plan, std::vector<WantedBand>& bands);

/// Wishes for the band that holds a frequency, at least as much as said. Where none does, it comes from the plan, if there is one, else
/// as a range of one percent either side.
void wishFor(std::vector<WantedBand>& bands, double frequency, Wish wish, const BandPlan* plan = nullptr);

/// When one is on the air, as far as the ionosphere's layers are a matter of it.
enum class Conditions { DayHighSun, DayLowSun, NightHighSun, NightLowSun };

/// A start for short-wave wishes: the bands that are usually open for far contacts then are nice, the highest two of them a must; the other
/// short-wave bands are not wanted. What lies above 30 MHz keeps its wish. Customary judgement, no forecast.
void wishByConditions(std::vector<WantedBand>& bands, Conditions conditions);

/// A segment of one's own inside a band, wished for at once; the band is wished for with it. False if no band holds it whole.
bool addSegment(std::vector<WantedBand>& bands, const std::string& name, double from, double to, Wish wish);

/// Whether a range shares frequencies with one that is there.
bool overlapsAny(const std::vector<WantedBand>& bands, double from, double to);

/// Adds a range of one's own, in its place. @param name its middle frequency where it is empty
void addRange(std::vector<WantedBand>& bands, double from, double to, Wish wish, const std::string& name = {});

/// Takes out a plan's bands that nobody wishes for.
void takeOut(const BandPlan& plan, std::vector<WantedBand>& bands);

/// Hz of the centre of a band by its name; 0 if there is none.
double centreOf(const std::vector<WantedBand>& bands, const std::string& name);

/// What a new antenna is for, Hz: the centre of the lowest band that is a must, else of the lowest that is nice, else 7.1 MHz.
double proposedFrequency(const std::vector<WantedBand>& bands);

} // namespace vetchling
