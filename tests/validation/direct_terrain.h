#pragma once
/// Waves over uneven ground the plain way, to check core/em by: a plane wave from each angle, short panels alike everywhere, every one with
/// every other, one dense solution an angle. Nothing of core/em's is used. Slow: some hundred wavelengths take minutes.

#include "core/wire/wire_model.h"

#include <complex>
#include <vector>

namespace vetchling::direct {

struct TerrainWaves {
    std::complex<double> across, vertical; ///< of a unit current over free space, as em::TerrainResponse has them
};
/// @param elevations rad, of waves that come from +x @param height m above the ground at x = 0
std::vector<TerrainWaves> terrainWaves(const TerrainProfile& profile, double frequency, double height,
                                       const std::vector<double>& elevations);

} // namespace vetchling::direct
