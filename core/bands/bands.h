#pragma once
/// Bands and how well an antenna covers them. Frequencies in Hz.

#include "core/physics.h"

#include <functional>
#include <optional>
#include <string>
#include <vector>

namespace vetchling {

struct Band {
    std::string name; ///< "40 m"
    double from = 0.0, to = 0.0;
    [[nodiscard]] double centre() const { return 0.5 * (from + to); }
    friend bool operator==(const Band&, const Band&) = default;
};

/// A published table of allocations; data, not advice: everyone checks their own licence.
struct BandPlan {
    std::string id, name, source;
    int year = 0;
    std::vector<Band> bands;
};

enum class Wish { No, Nice, Must };

struct WantedBand {
    Band band;
    Wish wish = Wish::Nice;
    friend bool operator==(const WantedBand&, const WantedBand&) = default;
};

/// Impedance that the line sees at a frequency, ohm.
using ImpedanceAt = std::function<Complex(double frequency)>;

struct Resonance {
    double frequency = 0.0;
    double resistance = 0.0; ///< ohm
};

enum class Verdict { Covered, Partly, TooLong, TooShort, NotResonant };

struct Coverage {
    Band band;
    double lowestSwr = 0.0, at = 0.0; ///< inside the band
    Complex impedance;                ///< there
    double lowEdgeSwr = 0.0, highEdgeSwr = 0.0;
    double shareUnderLimit = 0.0;          ///< of the band's width
    double underFrom = 0.0, underTo = 0.0; ///< widest stretch under the limit; both 0 if none
    std::optional<Resonance> resonance;    ///< nearest X = 0 within a tenth of the band's centre
    std::optional<double> nearbyDip;       ///< lowest SWR near but outside the band, under the limit
    double harmonic = 0.0;                 ///< band centre over the fundamental
    Verdict verdict = Verdict::NotResonant;
};

/// @param limit the user's SWR limit; @param fundamental lowest resonance, for the harmonic number; 0: unknown
Coverage coverage(const ImpedanceAt& impedance, const Band& band, double limit, double fundamental);

/// The dip (local minimum of SWR) nearest to a frequency between `from` and `to`; nothing if the SWR falls to an edge.
std::optional<double> nearestDip(const ImpedanceAt& impedance, double near, double from, double to);

/// All frequencies with no reactance between two, with their resistance.
std::vector<Resonance> resonances(const ImpedanceAt& impedance, double from, double to);

} // namespace vetchling
