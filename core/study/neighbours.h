#pragma once
/// What stands near an antenna: metal supports, the other antennas of the site, its own feed line's shield; and what each does to it.

#include "core/study/answers.h"

namespace vetchling::study {

/// What could be counted in, one entry a thing: a support, another antenna as a whole, the feed line.
struct Neighbourhood {
    enum class Kind { Support, Antenna, Coax };
    Kind kind = Kind::Support;
    Id id; ///< of the support or antenna; empty for the feed line
    std::string name;
    std::vector<Neighbour> wires;
};

/// All metal supports, all other antennas (with their feeds as the antenna's surroundings say, else open), and the feed line.
std::vector<Neighbourhood> neighbourhoodOf(const Design& design, const Antenna& antenna);
/// Those that the antenna's surroundings count in.
std::vector<Neighbour> countedIn(const Design& design, const Antenna& antenna);
/// A connection to the soil where the model's last wire ends: a few wires over it, but for those that would touch something.
void addEarth(const std::string& name, Vec3 foot, WireModel& model);

/// Adds neighbours to a model after its own wires. What would touch one of those is cut short of it: a mast below the wire it carries.
void putIn(const std::vector<Neighbour>& neighbours, WireModel& model);

/// What one neighbour does.
struct NeighbourEffect {
    Neighbourhood what;
    double shift = 0.0; ///< Hz, of the dip of the antenna's own band; 0 where there is none
    Complex change;     ///< ohm at the line, at that dip
    double width = 0.0; ///< Hz under the limit round that dip without it; 0: none
    Text fault;         ///< why it is not known
    /// The shift is more than a quarter of that width.
    [[nodiscard]] bool matters() const { return width > 0.0 && std::abs(shift) > 0.25 * width; }
};

/// Each by itself beside the antenna alone. Faults: what cannot be built or solved; stopped.
/// @param only of that kind
Result<std::vector<NeighbourEffect>> neighbourEffects(Library& library, const Design& design, const Antenna& antenna, const Id& band,
                                                      std::size_t configuration, const Watch& watch = {},
                                                      std::optional<Neighbourhood::Kind> only = {});

} // namespace vetchling::study
