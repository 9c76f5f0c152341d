#pragma once
/// What the radio sees of an antenna and what of its power arrives: per wanted band, behind any chain, held against a plain antenna.
/// The slow part, fields and port impedances, is asked once (feedBasisOf); a chain is then worked out on it in no time (feedReport).

#include "core/study/operating.h"
#include "core/study/service.h"

#include <string>
#include <vector>

namespace vetchling::study {

/// A reference for one band: gain as fed at its own port, and what it is fed through.
struct HeldAgainst {
    double gain = 0.0; ///< dBi
    Complex port{50.0, 0.0};
    std::vector<ChainPart> parts; ///< its own chain
    bool sameLine = false;        ///< it has the lines of the chain that is judged instead, and nothing else
    bool isAntenna = false;       ///< one with a radio of its own before it; else a plain one, matched
};

struct FeedBand {
    Id band;
    std::string name;
    Wish wish = Wish::Nice;
    double frequency = 0.0; ///< Hz, the band's centre
    std::size_t configuration = 0;
    Complex port;         ///< ohm at the antenna's own port
    PortOverBand across;  ///< over the band; without stretches it is known at its centre alone
    double gain = 0.0;    ///< dBi as fed there, towards the aim, or the mean over the sector
    double azimuth = 0.0; ///< rad, of the aim or where it is strongest at its elevation
    HeldAgainst against;
};

struct FeedQuestion {
    Question question; ///< on the wished bands
    Aim aim;
    double sector = 0.0; ///< rad of azimuth that gain is averaged over
    Against against;
    std::optional<Question> other; ///< of the antenna that is held against, with its chain
    std::vector<ChainPart> otherParts;
    friend bool operator==(const FeedQuestion&, const FeedQuestion&) = default;
};

/// @param pinned the pinned antenna; may be null
FeedQuestion feedQuestionOf(const Design& design, const Antenna& antenna, const Antenna* pinned = nullptr);

struct FeedBasis {
    std::vector<FeedBand> bands; ///< wished ones that could be solved, in their order
    Against against;             ///< what it is held against; the vertical where the wanted one is not there
};

/// Faults: what cannot be built or solved; stopped.
Result<FeedBasis> feedBasisOf(Library& library, References& references, const FeedQuestion& asked, const Watch& watch = {});
/// The same on curves that are there, by configuration, each for the bands that it was solved on.
/// @param care coarse: for choosing among many
Result<FeedBasis> feedBasisOn(Library& library, References& references, const FeedQuestion& asked, const std::vector<CurvePointer>& curves,
                              const Watch& watch = {}, Care care = Care::Usual);

/// Of some curves, by configuration, the one that serves a band best; nothing where none was solved there.
std::optional<std::size_t> bestFor(const std::vector<CurvePointer>& curves, const Id& band);

struct FeedRow {
    FeedBand band;
    ChainState state;
    BandService service;                      ///< with what the radio does not put in
    double net = 0.0;                         ///< dBi: gain less the whole chain's loss
    double reference = 0.0;                   ///< dBi, the same of what it is held against
    double netAtLeast = 0.0, netAtMost = 0.0; ///< with what is guessed at its worst and at its best
    double referenceMismatch = 0.0;           ///< dB that the radio does not put into another antenna it is held against
    double lineLoss = 0.0;                    ///< dB of the loss in lines
    double socketSwr = 1.0;                   ///< at the radio's socket, before a tuner in it
    double power = 100.0;                     ///< W that the radio puts into the chain
    [[nodiscard]] double intoAntenna() const { return power * state.efficiency(); } ///< W
    /// dB more than what it is held against, the mismatch counted on both sides.
    [[nodiscard]] double ahead() const { return net - service.mismatch - (reference - referenceMismatch); }
    [[nodiscard]] double aheadAtLeast() const { return ahead() + netAtLeast - net; }
    [[nodiscard]] double aheadAtMost() const { return ahead() + netAtMost - net; }
    /// What is guessed decides whether it is ahead or behind.
    [[nodiscard]] bool undecided() const { return aheadAtLeast() * aheadAtMost() < 0.0; }
};

/// Something in a chain that needs a word.
struct FeedCaution {
    enum class Kind {
        TunerRefuses, ///< `why`
        LineSwr,      ///< value: SWR on a coax, at its antenna's end
        LowImpedance, ///< value: ohm behind the transformer
        HighRatio,    ///< value: SWR behind the transformer, which steps down too little
        Heat,         ///< value: W lost in a part, above its rating
        Volts,        ///< value: V peak, the highest in the chain
        NoChoke,      ///< nothing keeps current off the coax
        BalanceBroken ///< open-wire line ends on coax or on the radio
    } kind;
    std::size_t part = 0;  ///< of the chain
    std::vector<Id> bands; ///< where; the worst first
    double value = 0.0;
    Text why;
};

struct FeedReport {
    std::vector<ChainPart> parts;
    std::size_t own = 0;  ///< of them the shape brings along
    double power = 100.0; ///< W that the radio puts into its reference
    std::vector<FeedRow> rows;
    std::vector<FeedCaution> cautions;
    /// Null if there is none of that id.
    [[nodiscard]] const FeedRow* row(const Id& band) const;
    /// The band that loses most, mismatch counted, of those that are of use, else of all; null without bands.
    [[nodiscard]] const FeedRow* worst() const;
    [[nodiscard]] Tally tally() const;
};

/// @param parts the whole chain @param own how many of them are the shape's own @param power W
FeedReport feedReport(const FeedBasis& basis, const std::vector<ChainPart>& parts, std::size_t own, double power,
                      const ServedRule& rule = {});

/// What needs a word of a report's chain on its bands.
std::vector<FeedCaution> cautionsOf(const FeedReport& report);

/// What the chain serves of a band. Where only its centre is known, that is judged for all of it.
BandService serviceOf(const FeedBand& band, const std::vector<ChainPart>& parts, const ServedRule& rule);

} // namespace vetchling::study
