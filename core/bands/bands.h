#pragma once
/// Bands and how well an antenna covers them. Frequencies in Hz.

#include "core/id.h"
#include "core/physics.h"

#include <functional>
#include <map>
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

enum class Wish { No, Nice, Must };

/// A part of a band that is asked for by itself: what a plan keeps for one mode, what a licence allows, a net's frequencies.
struct Segment {
    std::string name; ///< "Morse"
    double from = 0.0, to = 0.0;
    Wish wish = Wish::No;
    friend bool operator==(const Segment&, const Segment&) = default;
};

/// A published table of allocations; data, not advice: everyone checks their own licence.
struct BandPlan {
    std::string id, name, source;
    int year = 0;
    std::vector<Band> bands;
    std::map<std::string, std::vector<Segment>> segments; ///< by band
};

struct WantedBand {
    Band band;
    Wish wish = Wish::Nice;
    Id id;
    KeptFields kept;
    std::vector<Segment> segments = {}; ///< rising; all of the band counts alike where none is wished for
    friend bool operator==(const WantedBand&, const WantedBand&) = default;
};

/// Even steps over a band, or a segment, that shares are counted on.
inline constexpr int coverageSteps = 200;

/// Impedance that the line sees at a frequency, ohm.
using ImpedanceAt = std::function<Complex(double frequency)>;

struct Resonance {
    double frequency = 0.0;
    double resistance = 0.0; ///< ohm
};

enum class Verdict { Covered, Partly, TooLong, TooShort, NotResonant, Pending, OnRequest };

/// How well a wished segment is covered.
struct SegmentCoverage {
    Segment segment;
    double lowestSwr = 0.0, at = 0.0; ///< inside it
    double shareUnderLimit = 0.0;     ///< of its width
};

struct Coverage {
    Band band;
    std::vector<SegmentCoverage> segments; ///< wished ones
    double lowestSwr = 0.0, at = 0.0;      ///< inside the band
    Complex impedance;                     ///< there
    double lowEdgeSwr = 0.0, highEdgeSwr = 0.0;
    double shareUnderLimit = 0.0;          ///< of the band's width
    double underFrom = 0.0, underTo = 0.0; ///< widest stretch under the limit; both 0 if none
    double wholeFrom = 0.0, wholeTo = 0.0; ///< that stretch beyond the band's edges, to a tenth of a band's edge; both 0 if none
    std::optional<Resonance> resonance;    ///< nearest X = 0 within a tenth of the band's centre
    std::optional<double> nearbyDip;       ///< lowest SWR near but outside the band, under the limit
    double harmonic = 0.0;                 ///< band centre over the fundamental
    Verdict verdict = Verdict::NotResonant;
    [[nodiscard]] bool solved() const { return verdict != Verdict::OnRequest && verdict != Verdict::Pending; }
};

/// @param limit the user's SWR limit; @param fundamental lowest resonance, for the harmonic number; 0: unknown
Coverage coverage(const ImpedanceAt& impedance, const Band& band, double limit, double fundamental);

/// The same with its wished segments.
Coverage coverage(const ImpedanceAt& impedance, const WantedBand& wanted, double limit, double fundamental);

/// What a wish counts: must 3, nice 1, no 0.
double weightOf(Wish wish);
/// Part of the band that is of use: of its width, or of its wished segments by their weights.
double usableShare(const Coverage& coverage);

/// A band that was left out of the solve, being far from what the wire is made for. @param verdict Pending or OnRequest
Coverage notSolved(const Band& band, Verdict verdict);

/// The dip (local minimum of SWR) nearest to a frequency between `from` and `to`; nothing if the SWR falls to an edge.
std::optional<double> nearestDip(const ImpedanceAt& impedance, double near, double from, double to);

/// All frequencies with no reactance between two, with their resistance.
std::vector<Resonance> resonances(const ImpedanceAt& impedance, double from, double to);

} // namespace vetchling
