#pragma once
/// Heights of the ground on a grid, and the ground along bearings taken from it.

#include "core/result.h"
#include "core/site/site.h"

#include <vector>

namespace vetchling {

struct HeightGrid {
    std::size_t columns = 0, rows = 0;
    double west = 0.0, south = 0.0, cell = 0.0; ///< of the middle of the south-west cell; degrees or m
    bool inDegrees = false;
    std::vector<float> heights; ///< m, from the north-west cell eastwards, then southwards; NaN: not known

    /// Between the cells' middles by the four around it; NaN beyond them or where one is not known. @param east, north as west, south
    [[nodiscard]] double heightAt(double east, double north) const;
    [[nodiscard]] GeoPlace middle() const { return {south + 0.5 * cell * double(rows - 1), west + 0.5 * cell * double(columns - 1)}; }
};

struct GroundLines {
    std::vector<GroundProfile> profiles;
    double footHeight = 0.0;          ///< m, as the grid has it
    double shortest = 0.0;            ///< m, of the lines
    std::size_t corners = 0, sea = 0; ///< of all lines; lines that reach water
};

struct GroundLinesQuery {
    GeoPlace place;                      ///< as the grid counts: degrees, or latitude = m north and longitude = m east
    double every = 10.0, reach = 5000.0; ///< degrees, m
    Soil land, sea;                      ///< at a height of 0 or below is sea
};

/// Sea water among the soils of the data; of average salt where there is none.
Soil seaOf(const std::vector<Soil>& soils);

/// Ground along bearings all around, straight between as few points as keep it within a metre, farther off within 0.3 % of the distance:
/// such files are no truer. A line ends where heights are not known. Faults: the place is not on the grid.
Result<GroundLines> linesFrom(const HeightGrid& grid, const GroundLinesQuery& query);

/// A plain slope, all around. @param fall degrees down towards a bearing, of less than 45 @param length m to its foot and to its top
std::vector<GroundProfile> slopeLines(double fall, double towards, double length);

} // namespace vetchling
