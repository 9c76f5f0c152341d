#pragma once
/// Where an antenna can be operated, and how well: all its configurations together, each band's match beside its use.

#include "core/study/aim.h"
#include "core/study/configurations.h"
#include "core/study/harmonic_shift.h"
#include "core/study/reference_vertical.h"
#include "core/study/return_effect.h"

#include <map>
#include <mutex>

namespace vetchling::study {

/// The reference verticals that were asked for last, of one ground, kept; thread-safe.
class References {
public:
    Result<Reference> at(Library& library, const Ground& ground, double frequency, const Watch& watch = {});
    [[nodiscard]] std::size_t size() const;

private:
    mutable std::mutex m_mutex;
    Ground m_ground; ///< they are for
    std::map<double, Reference> m_known;
};

/// What a band is of use for, at its centre, as fed from the line; mismatch is not counted in.
struct BandUse {
    double frequency = 0.0;
    double gain = 0.0;       ///< dBi towards the aim
    double azimuth = 0.0;    ///< rad, of the aim, or where it is strongest at its elevation
    double straightUp = 0.0; ///< dBi
    double reference = 0.0;  ///< dBi of the band's reference vertical at that elevation
};

struct Operating {
    std::vector<CurvePointer> curves;   ///< by configuration
    std::vector<BandChoice> choices;    ///< by band, in the question's order
    std::map<Id, BandUse> uses;         ///< of the bands that are wished for or looked at, and solved
    std::map<Id, HarmonicShift> shifts; ///< of the same, where their dip is a higher resonance

    std::optional<ReturnEffect> otherReturn; ///< of what has a choice of it

    /// Null if there is none of that id.
    [[nodiscard]] const BandChoice* choice(const Id& band) const;
};

/// Match only. Faults: what cannot be built or solved; stopped.
Result<Operating> operatingOf(Library& library, const Question& question, const Watch& watch = {});
/// The same with uses and shifts. Faults: the solver's; stopped.
Result<Operating> withUses(Library& library, References& references, Operating operating, const Aim& aim, const Watch& watch = {});

} // namespace vetchling::study
