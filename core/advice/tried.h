#pragma once
/// One antenna in one place of a site, looked into for the wish: hung, tuned, behind its chain, solved coarsely or exactly, and what it
/// takes. Figures of an exact one are those of the bands and feed studies.

#include "core/advice/gallery.h"
#include "core/advice/score.h"
#include "core/advice/usual_chain.h"
#include "core/study/feed.h"

#include <array>

namespace vetchling::advice {

/// What a person allows and wants, besides what bands and site say.
struct AdviceWish {
    int antennas = 2; ///< at most, new ones
    TunerWish tuner = TunerWish::InRadio;
    double wire = 0.0;        ///< m at hand; 0: as much as it takes
    int coilsMost = -1;       ///< and traps; below 0: any number
    bool radials = true;      ///< and counterpoises
    bool portable = false;    ///< goes into a bag: no tubes but telescopic ones, no new poles
    bool walkable = false;    ///< nothing on the ground or within reach
    std::vector<Id> supports; ///< that may be used; empty: all
    double pole = 0.0;        ///< m that one new pole may be high; 0: none
    std::vector<Id> kept;     ///< antennas that hang and count
    friend bool operator==(const AdviceWish&, const AdviceWish&) = default;
};

/// Of one wanted band.
struct BandFigure {
    Id band;
    double share = 0.0;          ///< under the limit, as the bands study tells it
    double shareWithTuner = 0.0; ///< the same with the chain's tuner
    double net = 0.0;            ///< dBi
    double against = 0.0;        ///< dB more than what it is held against
    bool solved = false;
};

enum class Depth { Rule, Coarse, Exact }; ///< how a figure came about

/// Lower and higher, dry and wet: what a finalist's worst season is taken from.
inline constexpr std::size_t seasons = 4;

struct Tried {
    std::string key;                                   ///< of family, place and bands: stays the same from one run to another
    std::vector<Id> bandsFor;                          ///< that it is cut for
    Proposal proposal;                                 ///< as it was placed
    Antenna antenna;                                   ///< tuned, with its chain
    Place place;                                       ///< where it is then
    std::shared_ptr<const shapes::BuiltAntenna> built; ///< null where it cannot be, or is told by rule alone
    Depth depth = Depth::Rule;
    Text reason;                                              ///< why it cannot be, or was not looked into; empty: it was
    std::vector<BandFigure> bands;                            ///< wanted ones, in the design's order
    std::array<std::vector<double>, seasons> seasonWorths{};  ///< by band; empty: not known
    std::vector<std::pair<Id, std::size_t>> servedIn{};       ///< configuration that serves a band, once it is exact
    std::vector<std::pair<Id, study::CurvePointer>> curves{}; ///< of that configuration, by band; once it is exact
    Takes takes;                                              ///< by itself
    double bound = 0.0;                                       ///< of the wish, by rule, where it was not looked into
    bool barred = false;                                      ///< by what the wish allows
    [[nodiscard]] bool byRule() const { return bound > 0.0; } ///< not looked into
    [[nodiscard]] bool usable() const { return reason.empty() && depth != Depth::Rule; }
};

/// Of the soil as it is, dry and wet.
struct SeasonReferences {
    study::References now, dry, wet;
};

/// What every trial needs; lives as long as they do.
struct Bench {
    study::Library& library;
    SeasonReferences& references;
    const Design& design; ///< with what hangs and stays
    const AdviceWish& wish;
    const ScoreRules& rules;
    const std::vector<LineType>& lines;
};

/// Wanted bands and what they weigh.
struct Weighed {
    std::vector<WantedBand> bands;
    std::vector<double> weights;
};
Weighed weighed(const Design& design, const ScoreRules& rules);

/// Whether a family may be of use so many times above its lowest resonance, by rule.
bool isNearMultiple(const shapes::Family& family, double times);

/// Tunes, chooses the chain's ratio (and whether its tuner is at the feed), solves coarsely. What cannot be says so in `reason`.
/// Faults: stopped.
Result<Tried> tryOut(const Bench& bench, Tried candidate, const Watch& watch = {});

/// As it hangs, with the chain it has; for what is kept.
Result<Tried> asItHangs(const Bench& bench, const Antenna& antenna, const Watch& watch = {});

/// The same antenna solved as the bands and feed studies do. @param design that it hangs in. Faults: the solver's; stopped.
Result<Tried> exactly(const Bench& bench, const Design& design, Tried tried, const Watch& watch = {});
/// The same with its worths in the other seasons, solved coarsely. Faults: stopped.
Result<Tried> inSeasons(const Bench& bench, Tried tried, const Watch& watch = {});

/// Where the wish allows it. @param room as PlaceOptions has it
Judge judgeOf(const Bench& bench, double room);

/// Worths of its bands.
std::vector<double> worthsOf(const ScoreRules& rules, const std::vector<BandFigure>& bands);

/// New poles put up, and the antenna behind the others; returns its id.
Id hangUp(Design& design, const Tried& tried);

} // namespace vetchling::advice
