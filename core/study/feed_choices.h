#pragma once
/// Which transformer, where the tuner, which line: one chain changed in one thing at a time, worked out on what was solved already.

#include "core/line/line_types.h"
#include "core/study/feed.h"

namespace vetchling::study {

/// What a change makes of one band.
struct ChoiceCell {
    Id band;
    double swr = 1.0; ///< where the question is: behind the transformer, at the tuner, on the line's radio end
    double net = 0.0; ///< dBi, the mismatch counted
    BandService service;
    /// dB of the whole chain, mismatch included.
    [[nodiscard]] double total() const { return service.total(); }
    [[nodiscard]] bool served() const { return service.service == Service::Served; }
};

struct ChoiceRow {
    enum class Tuner { None, InRadio, Indoors, AtAntenna };
    double ratio = 0.0;     ///< of a transformer
    double capacitor = 0.0; ///< F across its line's terminals
    Tuner tuner = Tuner::None;
    std::string type; ///< id of a line type
    std::string name; ///< of it, or of a chain
    Id chain;
    double length = 0.0; ///< m of line in all
    double price = 0.0;
    bool now = false, best = false;
    std::vector<ChainPart> parts; ///< the whole chain as it would be
    std::vector<ChoiceCell> cells;
    Tally tally;
    double arriving = 0.0; ///< part of the radio's power that reaches the wire, mean over the wished bands by their weights
    /// The same thing to choose, whatever its figures.
    [[nodiscard]] bool sameChoice(const ChoiceRow& other) const
    {
        return ratio == other.ratio && capacitor == other.capacitor && tuner == other.tuner && type == other.type && chain == other.chain &&
               now == other.now;
    }
};

/// Part of the radio's power that reaches the wire, mean over the wished bands by their weights.
double arrivingOn(const FeedBasis& basis, const std::vector<BandService>& services);

/// The ratios that are customary.
const std::vector<double>& customaryRatios();
/// Where the chain's transformer is, or would be put.
std::size_t transformerPlace(const std::vector<ChainPart>& parts, std::size_t own);

/// In each the best is what brings most to the wire on all wished bands together.
std::vector<ChoiceRow> transformersCompared(const FeedBasis& basis, const std::vector<ChainPart>& parts, std::size_t own,
                                            const ServedRule& rule, const std::vector<double>& ratios = customaryRatios());
/// Capacitors across the line's terminals of the chain's transformer: customary ones, and the one that serves best, solved; none without a
/// transformer.
std::vector<ChoiceRow> capacitorsCompared(const FeedBasis& basis, const std::vector<ChainPart>& parts, std::size_t own,
                                          const ServedRule& rule);

/// What the leakage inductance of the chain's transformer does behind it, on the band it matters most to.
struct LeakageEffect {
    double leakage = 0.0;             ///< H; 0: none is told
    Id band;                          ///< empty: it matters to none
    double without = 1.0, with = 1.0; ///< SWR there
    double most = 0.0; ///< H up to which every band that is under the limit without it stays so; 0: none is, or it is out of reach
};
/// Nothing without a transformer.
std::optional<LeakageEffect> leakageEffect(const FeedBasis& basis, const std::vector<ChainPart>& parts, std::size_t own,
                                           const ServedRule& rule);

std::vector<ChoiceRow> tunersCompared(const FeedBasis& basis, const std::vector<ChainPart>& parts, std::size_t own, const ServedRule& rule);
/// Every type in the place of the chain's lines, or of the shape's own line where that can be changed. @param length m instead of the
/// chain's; 0: as long as they are
std::vector<ChoiceRow> linesCompared(const FeedBasis& basis, const std::vector<ChainPart>& parts, std::size_t own, const ServedRule& rule,
                                     const std::vector<LineType>& types, double length = 0.0, bool ownLine = false);

/// The antenna's chains side by side.
std::vector<ChoiceRow> chainsCompared(const FeedBasis& basis, const Antenna& antenna, const ServedRule& rule);

/// A matching section, stub or L network sized for a load. Faults: what cannot be matched so; a part that has no size.
Result<ChainPart> sizedPart(ChainPart part, Complex load, double frequency, double to);

} // namespace vetchling::study
