#pragma once
/// Answers to "which antenna for this place?", with everything that was tried.

#include "core/advice/tried.h"

#include <memory>

namespace vetchling::advice {

using TriedPointer = std::shared_ptr<const Tried>;

/// What an answer is to one wanted band: its best antenna's figures.
struct AnswerBand {
    BandFigure figure;
    std::optional<std::size_t> antenna; ///< among the answer's, then among the kept ones behind them; nothing: none is of use there
    double worth = 0.0;                 ///< 0 to 1
};

struct Answer {
    std::vector<TriedPointer> antennas; ///< new ones, each hung beside those before it
    std::vector<AnswerBand> bands;      ///< wanted ones, in the design's order
    std::vector<double> influence; ///< Hz that each one's dip is moved by the others and by what hangs already; not known before the end
    Takes takes;
    double wish = 0.0, effort = 0.0, score = 0.0;
    double worst = 0.0;        ///< the wish in its worst season; once it is exact
    bool exact = false;        ///< solved as the studies do, worst season counted in; else `wish` is an upper bound
    std::vector<Text> givesUp; ///< in words, for a list
    [[nodiscard]] std::string key() const;
};

/// What a change would bring, solved.
struct Help {
    enum class Kind { Higher, Pole, Tuner, FewerBands } kind = Kind::Higher;
    Text what, brings;  ///< "1 m more under the tower", "gains 0.4 dB on 40 m"
    double score = 0.0; ///< of the best answer then
    double more = 0.0;  ///< than now
};

const char* wordOf(Help::Kind kind); ///< "higher", "pole", "tuner", "fewer-bands"

/// A family that has no place here.
struct NotPossible {
    std::string family, title;
    Text reason;
};

/// One place that was tried, for a table.
struct Row {
    std::size_t rank = 0; ///< of the answer that it is by itself; 0: it is none
    std::string key, family, name, place;
    bool judged = false, exact = false; ///< else there are no figures
    double wish = 0.0, score = 0.0, wire = 0.0;
    Text reason; ///< why it cannot be, or why it ranks where it does
};
struct Advice {
    std::vector<Answer> answers;     ///< best first
    std::vector<TriedPointer> kept;  ///< antennas that hang and count
    std::vector<TriedPointer> tried; ///< every place, in the order in which they were tried
    std::vector<Row> rows;           ///< of all that were tried: answers by rank, then the others by score, then what cannot be
    ScoreRules rules;                ///< it is judged by
    std::vector<NotPossible> notPossible;
    std::vector<Help> help; ///< best first, at most three
    std::size_t places = 0; ///< that there are to try
    bool complete = false;
};
using AdvicePointer = std::shared_ptr<const Advice>;

/// The rows of an advice.
std::vector<Row> rowsOf(const Advice& advice, const Design& design);

/// Names of what holds it, or where it stands: "stone tower, flagpole"; "new pole"; "by itself"; English where it is not a name.
std::string placeWords(const Design& design, const Place& place);

/// Best single antenna and best combination of two and three; null where there is none.
const Answer* bestOf(const Advice& advice, std::size_t antennas);
/// Of the wanted bands those that an answer serves: all but a twentieth of them is within the limit, with its tuner.
int servedBy(const Answer& answer);
/// Why a family ranks where it does, its best place here first; a sentence each.
std::vector<Text> whyNot(const Advice& advice, const std::string& family);

/// The answer's antennas behind the others, with their chains and new poles; returns their ids.
std::vector<Id> hangUp(Design& design, const Answer& answer);

} // namespace vetchling::advice
