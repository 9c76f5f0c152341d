#pragma once
/// Antennas that a site could have: every family hung from the supports there are, tuned over its soil, and judged on the wanted bands.

#include "core/study/service.h"

#include <optional>
#include <string>
#include <vector>

namespace vetchling::study {

enum class Ties { TwoSupports, OneSupport, NoSupport };

/// A family in one way of hanging it.
struct Proposal {
    std::string id;    ///< "dipole", "dipole between": stays the same from one site to another
    std::string title; ///< marked for translation
    Ties ties;
    bool severalBands = false; ///< made for more than one band
    Antenna antenna;           ///< placed, with its lengths by rule
    Text fault;                ///< why it cannot be put up here; empty if it can
};

/// The supports that the proposals hang from, those that reach highest first; what is not there is null.
struct GallerySupports {
    const Support *first = nullptr, *second = nullptr;
    [[nodiscard]] double apart() const; ///< m in plan; 0 without two
};
GallerySupports gallerySupports(const Site& site);

/// Every family at least once, grouped by ties, in the order families are offered. Places only; solves nothing.
/// @param frequency Hz, of all of them
std::vector<Proposal> proposals(const Design& design, double frequency);

/// A proposal looked into.
struct Proposed {
    Antenna antenna; ///< tuned
    std::shared_ptr<const shapes::BuiltAntenna> built;
    std::vector<Id> wished;            ///< wanted bands, in their order
    std::vector<BandService> services; ///< of them
    [[nodiscard]] Service service(const Id& band) const;
    [[nodiscard]] int served() const;
    double wire = 0.0;        ///< m that radiates
    shapes::TunedLength what; ///< the first tuned length
    double value = 0.0;       ///< of it
};

/// Tunes the proposal and solves its wanted bands. Faults: what cannot be built or tuned; stopped.
Result<Proposed> propose(Library& library, const Design& design, const Proposal& proposal, const Watch& watch = {});

} // namespace vetchling::study
