#pragma once
/// Variants of an antenna, and others, held against one another in figures.

#include "core/study/spread.h"

#include <functional>
#include <map>

namespace vetchling::study {

/// One way to build it.
struct Compared {
    Id antenna, variant; ///< variant: empty for the antenna as drawn
    std::string name;
    std::shared_ptr<const shapes::BuiltAntenna> built; ///< null where it cannot be
    Text fault;                                        ///< why not, or why it was not solved
    struct BandFigures {
        double lowestSwr = 0.0, width = 0.0; ///< in the band; Hz under the limit round its dip, 0: none
        double gain = 0.0, straightUp = 0.0; ///< dBi towards the aim, at the band's centre
        double lost = 0.0;                   ///< part of the power that is not radiated into the sky
        std::optional<double> dip;           ///< Hz
        BandService service;
    };
    std::map<Id, BandFigures> bands;      ///< wished and solved ones
    Tally tally;                          ///< behind its chain in use
    double wire = 0.0;                    ///< m that radiate, all pieces
    double longestPiece = 0.0;            ///< m, of what is cut: how long it packs if it is stiff
    std::vector<CurvePointer> curves;     ///< by configuration
    std::shared_ptr<const Spread> spread; ///< null before addSpread
};

struct ComparisonQuestion {
    std::vector<Antenna> antennas; ///< each as it is to be solved, with the variant's shape
    std::vector<Id> variants;      ///< of the antennas, in their order
    std::vector<std::string> names;
    Site site;
    Operation operation;
    friend bool operator==(const ComparisonQuestion&, const ComparisonQuestion&) = default;
};

/// The antenna as drawn and all its variants. @param stored as saved
ComparisonQuestion comparisonOf(const Design& stored, const Antenna& antenna, const std::string& drawn);

/// One row; what cannot be built or solved says so in it. Faults: stopped.
Result<Compared> comparedOf(Library& library, const ComparisonQuestion& question, std::size_t row, const Watch& watch = {});

/// How far the row's figures may be off. Faults, and nothing added, where that cannot be solved; stopped.
Faults addSpread(Library& library, const ComparisonQuestion& question, std::size_t row, Compared& compared, const Watch& watch = {});

/// All rows one after the other, then how far their figures may be off where they are not too many; `soFar` is called after each step.
/// Faults: stopped.
Result<std::vector<Compared>> allCompared(Library& library, const ComparisonQuestion& question, const Watch& watch = {},
                                          const std::function<void(const std::vector<Compared>&)>& soFar = {});

} // namespace vetchling::study
