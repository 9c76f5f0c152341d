#pragma once
/// What the ground comes to be farther off, as the solver takes it.

#include "core/site/site.h"

namespace vetchling::study {

/// Profiles, each up to 5 degrees to either side or to the middle between it and the next; then other grounds beyond a shore. What is
/// behind an antenna, against a profile, is the profile of the opposite bearing where there is one, and flat where there is none.
std::vector<FarSector> sectorsOf(const Site& site);

} // namespace vetchling::study
