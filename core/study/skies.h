#pragma once
/// Antennas held against one another in the sky: the field of each on every wanted band, as fed from the line.

#include "core/study/aim.h"
#include "core/study/configurations.h"

#include <functional>
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

/// Antennas side by side, one after the other; one that cannot be solved has no bands. The verticals of a band last where one is given.
/// `soFar` is called after each. Faults: stopped.
Result<std::vector<Skies>> allSkies(Library& library, const Design& design, const std::vector<Antenna>& antennas, const Id& verticalsFor,
                                    const Watch& watch = {}, const std::function<void(const std::vector<Skies>&)>& soFar = {});

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

/// A field as one looks at it, all in dBi.
struct Lobe {
    static constexpr int roundStep = 3; ///< degrees of bearing
    std::vector<double> cut;            ///< see verticalCut
    std::vector<double> round;          ///< at the elevation, from north eastwards
    double there = 0.0;                 ///< in the very direction
};
/// Its `round`. @param elevation degrees
std::vector<double> roundCut(const em::FarField& field, double elevation);
/// @param elevation, bearing degrees
Lobe lobeOf(const em::FarField& field, double elevation, double bearing);

} // namespace vetchling::study
