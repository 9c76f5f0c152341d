#pragma once
/// Antennas held against one another in the sky: the field of each on every wanted band, as fed from the line.

#include "core/study/aim.h"
#include "core/study/configurations.h"

#include <map>
#include <memory>

namespace vetchling::study {

struct BandSky {
    double frequency = 0.0;                    ///< Hz, the band's centre
    double lowestSwr = 0.0;                    ///< in the band, in the best configuration
    std::shared_ptr<const em::FarField> field; ///< counted from the power into the line
};

/// One antenna's.
struct Skies {
    Id antenna; ///< empty for one that is not of the design
    std::string name;
    std::map<Id, BandSky> bands;
};

/// On the wished bands, each in the configuration that serves it best. Faults: what cannot be built or solved; stopped.
Result<Skies> skiesOf(Library& library, const Design& design, const Antenna& antenna, const Watch& watch = {});

/// Verticals on 16 radials 2 cm above this soil, a quarter, half, 5/8, 3/4 and one wave high at a band's centre; the match is another
/// matter. Faults: the solver's; stopped.
Result<std::vector<Skies>> verticalSkies(Library& library, const Ground& ground, const WantedBand& band, const Watch& watch = {},
                                         const std::vector<FarSector>& beyond = {});

/// Gain in the vertical plane of a bearing, dBi, at 0 to 180 degrees: from the horizon there over the zenith to the one behind.
/// @param bearing degrees
std::vector<double> verticalCut(const em::FarField& field, double bearing);

/// Gain over the whole sky.
struct SkyGrid {
    std::vector<double> elevations;                                           ///< rad, rising
    std::vector<double> bearings;                                             ///< degrees, rising from 0 to 360
    std::vector<std::vector<double>> gain;                                    ///< dBi [elevation][bearing]
    double strongest = 0.0, strongestElevation = 0.0, strongestBearing = 0.0; ///< dBi, rad, degrees
};
SkyGrid skyGrid(const em::FarField& field);

} // namespace vetchling::study
