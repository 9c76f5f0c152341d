#pragma once
/// Which length serves best: one dimension of an antenna varied, and for each value every band solved on this site.

#include "core/study/aim.h"
#include "core/study/service.h"
#include "core/study/varied.h"

#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace vetchling::study {

struct MapQuestion {
    Question question;          ///< its bands are the rows; each is judged in its best configuration, whatever the question's
    std::string vary;           ///< a parameter of the family, or a height (below)
    std::vector<double> values; ///< SI, rising: the columns
    /// The antenna at each value and what stands round it then, where that is more than one parameter set to it: heights. Empty else.
    std::vector<Subject> at;
    std::vector<bool> free; ///< at each bearing of what is turned, whether it stands free on its site there; empty for anything else
    Aim aim;
    Id favourite;       ///< band; may be empty
    ServiceTerms terms; ///< that the bands are judged by
    friend bool operator==(const MapQuestion&, const MapQuestion&) = default;
};

inline constexpr int traceSamples = 33;

/// One band at one value.
struct MapCell {
    bool solved = false;
    double lowestSwr = 0.0, at = 0.0; ///< in the band, Hz
    double share = 0.0;               ///< of the band, or of its wished segments, that is under the limit
    Complex port;                     ///< ohm at the antenna's own port, at the band's centre
    double gain = 0.0;                ///< dBi towards the aim at the band's centre, as fed from the line
    std::size_t configuration = 0;
    double up = 0.0;             ///< dBi straight up, as `gain`
    double resistance = 0.0;     ///< ohm on the line's side where the SWR is lowest
    bool multiple = false;       ///< a plain multiple of the rule's resonance lies in the band
    std::vector<float> swr = {}; ///< at `traceSamples` even steps over the band, for its curve
    BandService service = {};    ///< behind the chain in use
};

struct MapColumn {
    double value = 0.0;
    std::vector<MapCell> cells; ///< in the order of the bands; empty before it is computed, and where `fault` says why not
    double score = 0.0;         ///< sum of weight x share (must 3, nice 1, no 0)
    Care care = Care::Coarse;
    Text fault;
    double lobe = 0.0;      ///< rad, elevation of the strongest direction on the highest wished band, towards the aim's bearing
    double underLobe = 0.0; ///< dB that the aim lies below it
    [[nodiscard]] bool computed() const { return !cells.empty() || !fault.empty(); }
};

struct LengthMap {
    MapQuestion question;
    std::vector<MapColumn> columns; ///< one a value
    /// Places of columns; nothing where none is computed, or no band is wished for.
    std::optional<std::size_t> bestAllRound, bestFavourite;
    /// The lowest value beyond which the wanted angle lies under the main lobe of the highest wished band by more than 3 dB.
    std::optional<double> lobeCeiling;

    [[nodiscard]] double progress() const; ///< part of the columns that are there at the usual care
    [[nodiscard]] Tally tally(std::size_t column) const;
    /// The lowest height from which on a metre more brings less than a decibel on that band towards the aim; nothing where it still does at
    /// the highest one, or where nothing is solved.
    [[nodiscard]] std::optional<double> enoughHeight(std::size_t band) const;
};

/// The values of a map that shows a range well, in even steps, the present value among them.
/// @param from, to SI; the dimension's limits are kept
std::vector<double> mapValues(const shapes::ParameterSpec& spec, double from, double to, int count);

/// What is usually asked of an antenna: its first tuned length, from two thirds to one and a half of the present one.
/// Faults: a name that is no parameter, fewer than two values.
Result<MapQuestion> mapQuestionOf(const Design& design, const Antenna& antenna, const std::string& vary = {}, double from = 0.0,
                                  double to = 0.0, int count = 60);

/// One column; what cannot be built says so in it. Faults: stopped. @param library for this column alone, or shared @param reach Wished:
/// bands that nobody wishes for stay unsolved, also where a wished one beside them is solved
Result<MapColumn> mapColumn(Library& library, const MapQuestion& question, double value, Care care, const Watch& watch = {},
                            Reach reach = Reach::All);

/// Scores, best values and the lobe's ceiling, from the columns that are there.
void judgeMap(LengthMap& map);

} // namespace vetchling::study
