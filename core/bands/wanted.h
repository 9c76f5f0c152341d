#pragma once
/// Which bands an antenna is wanted for: put in from a plan, wished for, or a range of one's own.

#include "core/bands/bands.h"

namespace vetchling {

/// Brings a plan's bands in, not wanted yet; bands of the same name take its edges and keep their wish.
void putIn(const BandPlan& plan, std::vector<WantedBand>& bands);

/// Wishes for the band that holds a frequency, at least as much as said. Where none does, it comes from the plan, if there is one, else
/// as a range of one percent either side.
void wishFor(std::vector<WantedBand>& bands, double frequency, Wish wish, const BandPlan* plan = nullptr);

/// Whether a range shares frequencies with one that is there.
bool overlapsAny(const std::vector<WantedBand>& bands, double from, double to);

/// Adds a range of one's own, in its place.
void addRange(std::vector<WantedBand>& bands, double from, double to, Wish wish);

/// Hz of the centre of a band by its name; 0 if there is none.
double centreOf(const std::vector<WantedBand>& bands, const std::string& name);

/// What a new antenna is for, Hz: the centre of the last band that is a must, else of the first that is nice, else 7.1 MHz.
double proposedFrequency(const std::vector<WantedBand>& bands);

} // namespace vetchling
