#pragma once
/// What the ground comes to be farther off, as the solver takes it.

#include "core/em/far_field.h"
#include "core/site/site.h"

#include <functional>
#include <optional>

namespace vetchling::study {

/// Profiles, each mixed with the next where that is 30 degrees away at most, else up to 5 degrees to its side; then other grounds beyond
/// a shore. What is behind an antenna, against a profile, is the profile of the opposite bearing where there is one, and flat where there
/// is none. None where the site counts as flat.
std::vector<FarSector> sectorsOf(const Site& site);

/// That which counts most towards a bearing; none where the ground there is flat and all of one soil. @param bearing degrees
std::optional<FarSector> groundTowards(const Site& site, double bearing);

/// Gain towards an angle for an antenna that stands elsewhere along a bearing, as it is or higher; its currents
/// stay those over flat ground.
struct PlaceGain {
    double away = 0.0;                      ///< m along the bearing
    double gain = 0.0;                      ///< dBi
    bool isFirm = true;                     ///< neither water nor steep
    std::optional<double> higher;           ///< dBi, hung so much higher; none for one that stands on the ground
    static constexpr double raisedBy = 5.0; ///< m
};
struct PlaceQuery {
    double bearing = 0.0, elevation = 0.0, reach = 0.0; ///< degrees, m to either side
    int steps = 20;                                     ///< to either side
};
/// The antenna of a solution with all its wires so much higher, fed from the line as it was; none for one that stands on the ground.
/// Faults: the solver's; stopped.
Result<std::optional<em::FarField>> fieldHigher(em::GroundTableCache& tables, const em::Solution& fromLine, const Watch& watch = {});

/// From behind to ahead; `soFar` is called after each. Faults: stopped. @param higher of the same antenna, where there is one
Result<std::vector<PlaceGain>> gainsByPlace(const em::FarField& field, const std::optional<em::FarField>& higher, const Site& site,
                                            const PlaceQuery& query, const Watch& watch = {},
                                            const std::function<void(const std::vector<PlaceGain>&)>& soFar = {});

} // namespace vetchling::study
