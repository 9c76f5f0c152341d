#pragma once
/// Where a take-off angle leads: hops off a reflecting layer, and the width of a lobe.

#include "core/em/far_field.h"

namespace vetchling::study {

inline constexpr double layerHeight = 300e3; ///< m, F layer as usually assumed
inline constexpr double earthRadius = 6371e3;

/// Ground distance of one hop off a layer, m; spherical earth, mirror at the layer. @param elevation rad
double hopDistance(double elevation, double layer = layerHeight);
/// The elevation whose hop reaches a distance, rad.
double hopElevation(double distance, double layer = layerHeight);
/// Width in elevation, rad, within 3 dB of the strongest direction on that bearing; counted over the top if need be.
double lobeWidth(const em::FarField& field, double elevation, double azimuth);

/// Compass bearing of a mathematical azimuth and back; degrees and radians.
double bearingOf(double azimuth);
double azimuthOf(double bearing);

} // namespace vetchling::study
