#pragma once
/// What linked antennas share: a path to the open end for each band, innermost first. With the first n - 1 links closed and the others
/// open the antenna is on its nth band. Paths, not sections: an inner one that is drawn shorter leaves every outer path as it was; what is
/// cut from a wire that hangs does not, see bandLevered.

#include "core/shapes/specs.h"

#include <array>

namespace vetchling::shapes {

inline constexpr int mostBands = 6;

/// "leg_m", "leg_2_m" ... for dipoles; "length_m", "length_2_m" ... for end-fed wires.
std::string legKey(int band);
std::string lengthKey(int band);
std::string frequencyKey(int band);

extern const std::array<const char*, mostBands> legLabels, legSections;

/// How one kind of linked antenna names its paths.
struct PathNames {
    std::string (*key)(int band) = legKey;
    bool oneSide = false; ///< else a side of two
};

/// Adds the number of bands, and from the second band on its frequency and path.
/// @param halfWaves the path's rule at a wavelength of one metre, m
void addBands(std::vector<ParameterSpec>& all, int bands, double halfWaves, const PathNames& names = {});
/// Inside out, each in its own configuration.
std::vector<TunedLength> bandLengths(const Family& family, const AntennaShape& shape, int bands, const PathNames& names = {});
std::vector<Configuration> bandConfigurations(const Family& family, const AntennaShape& shape, int bands);
std::vector<Lever> bandLevers(const Family& family, const AntennaShape& shape, int pieces);
/// What is taken at a link takes the sections beyond along, as they are built.
AntennaShape bandLevered(const Family& family, const AntennaShape& shape, int bands, const std::string& key, double value,
                         const PathNames& names = {});
/// "each side, 10.19 m to the first link", section by section: what lies between the links, the gaps taken off.
std::vector<Text> sectionRemarks(const std::vector<double>& paths, double gap);
/// Paths in m, innermost first; a fault where one does not reach beyond the one before it.
Result<std::vector<double>> bandPaths(const Family& family, const AntennaShape& shape, int bands, double gap, const PathNames& names = {});

} // namespace vetchling::shapes
