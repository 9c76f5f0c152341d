#pragma once
/// A case of the command `terrain`: one current over one profile.

#include "core/em/terrain.h"

#include <string>

namespace vetchling::files {

struct TerrainCase {
    TerrainProfile profile;
    double frequency = 0.0; ///< Hz
    double height = 0.0;    ///< m, of the current above the foot at x = 0
    bool vertical = false;
    std::vector<double> elevations; ///< degrees, above 0 up to 90
};

/// Every fault with its place.
Result<TerrainCase> readTerrainCase(const std::string& path);

} // namespace vetchling::files
