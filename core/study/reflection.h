#pragma once
/// What comes back: the reflection of an antenna over a band at its feedpoint and at the radio, the way of one frequency through the chain,
/// and what would cure it. Worked out on a curve that was solved already.

#include "core/line/sections.h"
#include "core/study/feed_choices.h"

namespace vetchling::study {

struct ReflectionPoint {
    double frequency = 0.0;
    Complex feedpoint, radio; ///< reflection coefficients
};

/// One way to bring the SWR down at the frequency that is looked at.
struct ReflectionCure {
    enum class Kind { Length, Ratio, Section, Network, Tuner } kind;
    double swr = 1.0;        ///< at the radio then, at that frequency
    double swrAtEdges = 1.0; ///< the higher one of the band's edges; not a number where it is not known
    double loss = 0.0;       ///< dB of the whole chain then, mismatch included
    double watts = 0.0;      ///< that reach the wire then, at that frequency
    double allBands = 0.0;   ///< part of the radio's power that reaches the wire then, mean over the wished bands by their weights
    bool better = false;     ///< more arrives than without it on all of them together, and clearly less on none
    bool othersKnown = true; ///< a cure on the wire moves the other bands too, and was looked at on this one alone
    /// Another wished band that gets less, the one with the most to lose.
    struct Victim {
        Id band;
        double wattsBefore = 0.0, wattsAfter = 0.0;
    };
    std::optional<Victim> victim;
    std::string parameter; ///< of a length
    std::string name;      ///< "each side"
    double change = 0.0;   ///< SI, each piece
    double ratio = 1.0;
    SectionSolution section;
    double sectionVelocity = 0.66;
    std::vector<ChainPart> parts; ///< the whole chain then; empty where it stays
    /// The same way, whatever it comes to.
    [[nodiscard]] bool sameWay(const ReflectionCure& other) const
    {
        return kind == other.kind && parameter == other.parameter && section.section == other.section.section;
    }
};

struct ReflectionQuestion {
    std::vector<ChainPart> parts; ///< whole chain
    std::size_t own = 0;
    Band band;
    double frequency = 0.0;
    std::optional<LeverSlope> lever;
    Id wanted;                                ///< the band's id
    std::shared_ptr<const FeedBasis> basis{}; ///< ports on the wished bands; null: cures are judged on this band alone
    ServedRule rule{};
    double power = 100.0; ///< W that the radio puts into its reference
};

struct Reflection {
    double reference = 50.0; ///< ohm
    double frequency = 0.0;
    std::vector<ReflectionPoint> sweep; ///< over the band
    Complex port, feedpoint, radio;     ///< ohm; the radio is its socket
    std::vector<Complex> impedances;    ///< ohm behind each part of the chain
    std::vector<Complex> way;           ///< reflection coefficients from the feedpoint to the radio
    double hidden = 0.0;                ///< dB of return loss that the line adds
    int upIsLong = 0;                   ///< 1: above the middle line it is too long, -1: too short, 0: not known
    std::optional<double> dip;          ///< Hz, nearest at the feedpoint
    double watts = 0.0;                 ///< that reach the wire
    double allBands = 0.0;              ///< see ReflectionCure
    std::vector<ReflectionCure> cures;  ///< what brings most to the wire on all wished bands first
    [[nodiscard]] Complex atFeedpoint() const { return vetchling::reflection(feedpoint, reference); }
    [[nodiscard]] Complex atRadio() const { return vetchling::reflection(radio, reference); }
};

/// Nothing where the curve does not reach the frequency.
std::optional<Reflection> reflectionOf(const Curve& curve, const ReflectionQuestion& asked);

} // namespace vetchling::study
