#pragma once
/// How good an answer to "which antenna?" is: what it brings of the wanted bands, less what it takes. The figures are data
/// (data/advice.json), the rule is here alone; every page and command tells this one.

#include "core/bands/bands.h"

#include <vector>

namespace vetchling::advice {

struct ScoreRules {
    double must = 3.0, nice = 1.0, favourite = 2.0; ///< weights of a band; times that of a favourite
    double withTuner = 0.8;                         ///< of a share that a tuner must help
    double matchPart = 2.0 / 3.0;                   ///< of a band's worth; the rest is how well it is heard
    double heardRange = 12.0;                       ///< dB from worth nothing to worth all, the reference in the middle
    double worstPart = 0.25;                        ///< of the wish, that rests on the worst season and height
    double heightOff = 0.05;                        ///< of a height, that it may be lower or higher
    double wire = 60.0, wireCosts = 0.10;           ///< m of wire that cost that much
    double thingCosts = 0.05;                       ///< each further antenna, new pole, and a tuner at the feed
    double partCosts = 0.02;                        ///< each coil, trap, link and caution
    double same = 0.005;                            ///< scores no farther apart are the same: fewer metres win
    friend bool operator==(const ScoreRules&, const ScoreRules&) = default;
};

/// What a band counts. @param favourite whether it is the one
double weightOf(const ScoreRules& rules, Wish wish, bool favourite);

/// What an antenna is to one band, 0 to 1. @param share under the limit @param shareWithTuner the same with the chain's tuner
/// @param against dB heard better than the reference
double worthOf(const ScoreRules& rules, double share, double shareWithTuner, double against);

/// Mean of the worths by their weights; 0 without any. @param weights, worths of the same bands
double wishOf(const std::vector<double>& weights, const std::vector<double>& worths);
/// The wish with the worst of its seasons counted in. @param seasons the same wish then; empty: not known, and the wish is an upper bound
double wishWithSeasons(const ScoreRules& rules, double wish, const std::vector<double>& seasons);

/// What an answer takes.
struct Takes {
    double wire = 0.0; ///< m of wire, tube and radials
    int furtherAntennas = 0, newPoles = 0, tunersAtFeed = 0;
    int coils = 0, traps = 0, links = 0, cautions = 0;
    Takes& operator+=(const Takes& other);
    friend bool operator==(const Takes&, const Takes&) = default;
};
double effortOf(const ScoreRules& rules, const Takes& takes);

double scoreOf(double wish, double effort);

/// Of two scores the better one; of like ones that with fewer metres.
struct Ranked {
    double score = 0.0, wire = 0.0;
};
/// Best first, in an order that is the same for the same scores. @return places in `all`
std::vector<std::size_t> rankingOf(const ScoreRules& rules, const std::vector<Ranked>& all);

} // namespace vetchling::advice
