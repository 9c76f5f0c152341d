#pragma once
/// Where the signal is to go, and what arrives there.

#include "core/design/design.h"
#include "core/em/far_field.h"

#include <optional>

namespace vetchling::study {

struct Aim {
    double elevation = 0.35;       ///< rad
    std::optional<double> azimuth; ///< rad, mathematical; nothing: wherever it is strongest at that elevation
    friend bool operator==(const Aim&, const Aim&) = default;
};

Aim aimOf(const Operation& operation);
/// Gain towards it, dBi. Stopped: any.
double gainTowards(const em::FarField& field, const Aim& aim, const Watch& watch = {});
/// The azimuth of the aim, or the one that is strongest at its elevation, rad. Stopped: any.
double azimuthTowards(const em::FarField& field, const Aim& aim, const Watch& watch = {});
/// The elevation of the strongest direction in the vertical half-plane of an azimuth, rad.
double lobeElevation(const em::FarField& field, double azimuth);
/// Power that a mismatch lets through, part of what is offered.
double passedThrough(double swr);

} // namespace vetchling::study
