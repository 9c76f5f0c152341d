#pragma once
/// Files of heights: a plain text grid (ncols, nrows, xllcorner or xllcenter, yllcorner or yllcenter, cellsize, nodata_value, then the rows
/// from north to south), and raw one-degree tiles of 16-bit heights, big-endian, 1201 or 3601 square, named after their south-west corner
/// like N54W004.

#include "core/site/height_grid.h"

#include <string>

namespace vetchling::files {

/// Text grids within 360 and cells under 0.1 count as degrees, others as m. At most 16 million heights. Faults: what cannot be read, with
/// the place in the file.
Result<HeightGrid> readHeightFile(const std::string& path);

} // namespace vetchling::files
