#pragma once
/// Matching sections without loss, sized: what turns one impedance into another, and stubs that show a reactance.
/// Source: transmission line equations; the two equal sections after P. Bramham, Electronic Engineering 33 (1961), pp. 42-44; the series
/// section after F. A. Regier, Proc. IEEE 59 (1971), pp. 1133-1134.

#include "core/physics.h"
#include "core/result.h"

#include <vector>

namespace vetchling {

enum class SectionMethod { QuarterWave, TwoSections, SeriesSection, ShortedStub, OpenStub };

struct SectionQuestion {
    SectionMethod method = SectionMethod::QuarterWave;
    double frequency = 0.0; ///< Hz
    double source = 50.0;   ///< ohm of the line towards the radio; a stub has none
    Complex load;           ///< ohm; of a stub the reactance it shall show
    double section = 0.0;   ///< ohm; of a quarter wave it is what comes out
    double velocityFactor = 1.0;
    double velocityFactor2 = 1.0; ///< of the piece at the load
};

/// Physical lengths, m. Piece 1 is next to the source, piece 2 at the load (of the source's impedance; 0 where there is none).
struct SectionSolution {
    double section = 0.0; ///< ohm of piece 1
    double length1 = 0.0, length2 = 0.0;
};

/// All solutions below half a wave, a stub's shortest. Faults: what cannot be matched so.
Result<std::vector<SectionSolution>> matchSections(const SectionQuestion& question);

} // namespace vetchling
