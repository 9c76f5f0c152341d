#pragma once
/// What if it is not quite so? How far dips, SWR and gain may lie from what is computed, height, soil, cut, jacket and sides being known
/// only so well.
///
/// Method: the antenna is solved at either end of each tolerance, and between them every answer goes as a parabola through the three: the
/// dip, the reflection coefficient beside the dip, the gain. Causes add up, being independent; their spread is normal, a tolerance being
/// two standard deviations. The figures are those of fixed draws from it. tests/core/spread_test.cpp holds them against solves of random
/// draws.

#include "core/study/aim.h"
#include "core/study/answers.h"

#include <array>
#include <map>

namespace vetchling::study {

enum class Unsure { Height, Soil, Cut, Jacket, Unequal };

/// A point below which 5, 50 and 95 of a hundred lie.
using Points = std::array<double, 3>;

/// One cause at one band.
struct SpreadShift {
    Unsure what = Unsure::Height;
    double shift = 0.0; ///< Hz that the dip moves from the middle to the upper end of the tolerance, half of its way between both ends;
                        ///< of the soil: towards wet
};

struct BandSpread {
    Id band;
    std::size_t configuration = 0;
    bool solved = false;
    std::optional<Points> dip;                     ///< Hz; nothing where there is none in the band or within three percent of it
    Points lowestSwr{};                            ///< in the band
    std::optional<Points> gain;                    ///< dBi towards the aim at the band's centre; of wished bands
    std::vector<SpreadShift> shifts;               ///< largest first; empty without a dip
    std::vector<double> frequency, swrFrom, swrTo; ///< Hz over the band; 5 and 95 % points of the SWR there
};

struct SpreadQuestion {
    Question question;
    Tolerances tolerances;
    Soil soil;
    Aim aim;
    friend bool operator==(const SpreadQuestion&, const SpreadQuestion&) = default;
};
SpreadQuestion spreadQuestionOf(const Design& design, const Antenna& antenna, const Id& requested = {});

struct Spread {
    SpreadQuestion asked;
    std::vector<BandSpread> bands; ///< in the order of the question's
    int solves = 0;
    /// Null if there is none of that id.
    [[nodiscard]] const BandSpread* band(const Id& id) const;
};

/// Each band in the configuration that serves it best. Faults: what cannot be built or solved; stopped.
Result<Spread> spreadOf(Library& library, const SpreadQuestion& asked, const Watch& watch = {});

/// What is not exactly known of this antenna: bare wire has no jacket, an end-fed one no equal sides.
std::vector<Unsure> causesOf(const SpreadQuestion& asked, std::size_t configuration);
/// How far off each thing is, in parts of its tolerance; of the soil -1 is dry and 1 is wet.
using Parts = std::map<Unsure, double>;
/// The antenna as it is where things are off. Faults: what cannot be built.
Result<shapes::BuiltAntenna> antennaOff(const SpreadQuestion& asked, std::size_t configuration, const Parts& parts);

/// The soil between dry (-1), as given (0) and wet (1).
Ground soilAt(const Soil& soil, const Tolerances& tolerances, double part);

/// How much longer than computed to cut, percent, so that 95 of 100 have to be shortened and not lengthened; 0 without a dip.
double cutMargin(const BandSpread& band);

/// "height", "soil": marked for translation.
const char* nameOf(Unsure what);

} // namespace vetchling::study
