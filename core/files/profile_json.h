#pragma once
/// Ground along a bearing in JSON. Only for .cpp files of core/files.

#include "core/files/json_reader.h"
#include "core/site/site.h"

namespace vetchling::files {

/// Of members `profile` (x_m, z_m) and `soils`; whether it can be solved is another question.
TerrainProfile readProfile(const JsonNode& node);

/// Of a design's site. A soil is an id of the data or has figures.
GroundProfile readGroundProfile(const JsonNode& node);
GeoPlace readGeoPlace(const JsonNode& node);
Json groundProfileJson(const GroundProfile& profile);

} // namespace vetchling::files
