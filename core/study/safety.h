#pragma once
/// What people have to keep away from: on each wished band the highest voltage on the wires, and how far the fields exceed a limit.
/// The fields are followed once a band; limits, modes and powers are then read off them.

#include "core/study/configurations.h"
#include "core/workshop/exposure.h"

#include <memory>
#include <string>
#include <vector>

namespace vetchling::study {

struct SafetyBand {
    Id band;
    std::string name;
    double frequency = 0.0; ///< Hz, the band's centre
    std::size_t configuration = 0;
    double voltsAtOneWatt = 0.0; ///< V peak, the highest anywhere on the wires, for a watt into the antenna
    Vec3 voltsAt;
    std::string voltsName; ///< handle that is nearest to it, marked for translation
    std::shared_ptr<const ExposureScan> scan;
};

struct SafetyBasis {
    std::vector<SafetyBand> bands; ///< wished ones that could be solved, in their order, each in the configuration that serves it best
};

/// Calls `publish` after each band where there is one. Faults: what cannot be built or solved; stopped.
Result<SafetyBasis> safetyBasisOf(Library& library, const Question& asked, const Watch& watch = {},
                                  const std::function<void(const SafetyBasis&)>& publish = {});

struct KeepRow {
    Id band;
    std::string name;
    double frequency = 0.0;
    double averaged = 0.0; ///< W that the limit is held against
    double volts = 0.0;    ///< V peak at full power
    KeepAway keep;
};

/// @param power W at the crest @param share of the averaging time with full power: the mode's, times how much of the time one sends.
/// Bands that the limit says nothing about are left out. A limit that holds at every moment takes the full power.
std::vector<KeepRow> keepRows(const SafetyBasis& basis, const LimitSet& limit, double power, double share);

} // namespace vetchling::study
