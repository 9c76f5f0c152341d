#pragma once
/// Common-mode current: the outside of the coax as a wire from one side of the feedpoint along its route to the radio, with chokes on it.

#include "core/study/feed.h"

#include <cmath>

namespace vetchling::study {

/// The outside of a coax and what is on it.
struct Shield {
    std::vector<Vec3> points; ///< from the feedpoint to the radio; two or more
    double radius = 2.5e-3;   ///< m
    bool earthed = true;      ///< at the radio, by a few wires over the soil; else it ends there
    friend bool operator==(const Shield&, const Shield&) = default;
};

/// From the feedpoint straight down, then along the site's route to the feed entry, 2 cm above the soil. Faults: there is no way to go.
Result<Shield> shieldAlong(const Site& site, const shapes::BuiltAntenna& built, bool earthed);
/// m along it.
double lengthOf(const Shield& shield);

/// A choke at a distance from the feedpoint along the shield.
struct ShieldChoke {
    double at = 0.0; ///< m
    ChainPart part;  ///< see chokingImpedance
    friend bool operator==(const ShieldChoke&, const ShieldChoke&) = default;
};

/// The model with the shield joined to the feedpoint, and the chokes' impedance at a frequency in it.
Result<WireModel> withShield(const shapes::BuiltAntenna& built, const Shield& shield, const std::vector<ShieldChoke>& chokes,
                             double frequency);

struct ShieldQuestion {
    FeedQuestion feed;
    std::map<Id, std::size_t> configurations; ///< by band
    Site site;
    bool earthed = true;
    std::vector<ShieldChoke> chokes;   ///< of the chain
    ChainPart choke;                   ///< that is tried at every place
    double power = 100.0;              ///< W into the antenna
    std::vector<double> counterpoises; ///< m, that are tried where the antenna has one
    friend bool operator==(const ShieldQuestion&, const ShieldQuestion&) = default;
};

/// What one arrangement does on one band.
struct ShieldState {
    Complex port;              ///< ohm at the antenna's port
    double gain = 0.0;         ///< dBi towards the aim
    double atRadio = 0.0;      ///< A rms, the strongest on the last metres before the radio
    double strongest = 0.0;    ///< A rms anywhere on the shield
    double chokeHeat = 0.0;    ///< W in the hottest choke, key down
    std::vector<double> along; ///< A rms at even places from the feedpoint to the radio
};

struct ShieldBand {
    Id band;
    std::string name;
    double frequency = 0.0;
    Wish wish = Wish::Nice;
    std::optional<ShieldState> without, bare, chosen;          ///< no shield at all; nothing on it; with the chain's chokes
    std::vector<double> byPlace;                               ///< A rms at the radio, for one choke at each of the places
    std::vector<double> gainByPlace;                           ///< dBi towards the aim, for the same
    std::vector<std::pair<double, ShieldState>> counterpoises; ///< by length, with the chain's chokes
};

struct ShieldAnswer {
    std::vector<double> places; ///< m from the feedpoint
    double length = 0.0;        ///< m of the shield
    std::vector<ShieldBand> bands;
    bool complete = false;
    /// Where one choke leaves least at the radio on the wished bands together, by their weights; nothing before all are known.
    [[nodiscard]] std::optional<double> bestPlace() const;
    /// What one choke at the best place would do, beside the chain's chokes as they are.
    struct AtBest {
        double place = 0.0;                         ///< m
        Id loudest, loudestNow;                     ///< bands
        double amperes = 0.0, amperesNow = 0.0;     ///< A rms at the radio on those
        Id gains, loses;                            ///< bands whose gain changes most either way
        double gained = -HUGE_VAL, lost = HUGE_VAL; ///< dB against now on those
    };
    [[nodiscard]] std::optional<AtBest> atBest() const;
    /// Bands on which what flows beyond the choke makes another antenna of it: an SWR against the port without it above 1.3, or half a
    /// decibel less towards the aim.
    [[nodiscard]] std::vector<Id> changed() const;
};

/// Whether two questions differ at most in the chain's own chokes.
bool sameButForChokes(const ShieldQuestion& a, const ShieldQuestion& b);

/// Worked out band by band; `publish` is called with what is known so far. Faults: what cannot be built or solved; stopped.
/// @param known a complete answer to a question that is the same but for the chain's own chokes; may be null
Result<ShieldAnswer> shieldAnswer(Library& library, const ShieldQuestion& asked, const Watch& watch = {},
                                  const std::function<void(const ShieldAnswer&)>& publish = {}, const ShieldAnswer* known = nullptr);

} // namespace vetchling::study
