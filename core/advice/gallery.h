#pragma once
/// Antennas that a site could have: every family hung from the supports there are, tuned over its soil, and judged on the wanted bands.

#include "core/advice/places.h"
#include "core/study/service.h"

#include <optional>
#include <string>
#include <vector>

namespace vetchling::advice {

enum class Ties { TwoSupports, OneSupport, NoSupport };

/// A family in one way of hanging it.
struct Proposal {
    std::string id;    ///< "dipole", "dipole between": stays the same from one site to another
    std::string title; ///< marked for translation
    Ties ties;
    bool severalBands = false;                                      ///< made for more than one band
    Antenna antenna;                                                ///< placed, with its lengths by rule
    Place place;                                                    ///< of it
    [[nodiscard]] const Text& fault() const { return place.fault; } ///< why it cannot be put up here; empty if it can
};

/// Every family at least once, where it is allowed and held (Judge), grouped by ties, in the order families are offered. Places only;
/// solves nothing. @param frequency Hz, of all of them @param supports that may be used; empty: all
std::vector<Proposal> proposals(const Design& design, double frequency, const std::vector<Id>& supports = {});

/// A number of bands for what has one: pairs, or sections.
void takeCount(shapes::AntennaShape& shape, int count);

/// One family alone, in the order of its ties. @param design its wanted bands are what a family of several bands takes further ones from
/// @param count bands of what has a number of them (pairs, sections); 0: as is usual
std::vector<Proposal> proposalsOf(const Judge& judge, const Design& design, const shapes::Family& family, double frequency, int count = 0);

/// A proposal whose shape is tuned: where it was, or where else there is room for it in the same manner; with a fault where there is none.
Place keptInPlace(const Judge& judge, const Proposal& proposal, const shapes::AntennaShape& tuned);

/// A wire of no particular length for a tuner, fed at its end: as long as it may be between two supports, else from one. Nothing where
/// there is no place for any. @param frequency Hz of the lowest band wanted
std::optional<Antenna> tunerWire(const Design& design, double frequency);

/// A proposal looked into.
struct Proposed {
    Antenna antenna; ///< tuned
    Place place;     ///< where it is then: another one where it was longer than thought
    std::shared_ptr<const shapes::BuiltAntenna> built;
    std::vector<Id> wished;            ///< wanted bands, in their order
    std::vector<BandService> services; ///< of them
    [[nodiscard]] Service service(const Id& band) const;
    [[nodiscard]] int served() const;
    double wire = 0.0;        ///< m that radiates
    shapes::TunedLength what; ///< the first tuned length
    double value = 0.0;       ///< of it
};

/// Tunes the proposal and solves its wanted bands. Faults: what cannot be built, tuned, or, tuned, be there; stopped.
/// @param supports that may be used; empty: all
Result<Proposed> propose(study::Library& library, const Design& design, const Proposal& proposal, const Watch& watch = {},
                         const std::vector<Id>& supports = {});

} // namespace vetchling::advice
