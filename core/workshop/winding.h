#pragma once
/// What to wind for a coil of an antenna: turns, length, wire and Q of a winding, and other windings beside it.

#include "core/design/winding.h"
#include "core/workshop/coil.h"

#include <cmath>
#include <vector>

namespace vetchling {

/// The wire's centre lies half its thickness and a jacket outside the former; touching turns without a jacket keep the thickness of enamel.
Coil coilOf(const Winding& winding, double turns = 1.0);

struct Wound {
    Winding winding;
    Coil coil; ///< with the turns that make the inductance, not rounded
    CoilFigures figures;
    double perTurn = 0.0; ///< H that the last turn adds
    double leads = 0.0;   ///< H of the ends that come to the turns
    Fault fault;          ///< why it cannot be wound; without a message where it can
    /// With the spare ones, which are wound and stay open beyond the tap; as many as are needed where none are spare.
    [[nodiscard]] double allTurns() const { return winding.spare > 0.0 ? std::ceil(coil.turns) + winding.spare : coil.turns; }
    [[nodiscard]] double allLength() const { return allTurns() * coil.pitch; }                                       ///< m along the former
    [[nodiscard]] double allWire() const { return coil.turns > 0.0 ? figures.wire * allTurns() / coil.turns : 0.0; } ///< m, without leads
    [[nodiscard]] bool good() const { return fault.message.empty(); }
    /// H at the frequency of the coil as it is put in.
    [[nodiscard]] double whole() const { return figures.atFrequency + leads; }
};

/// @param inductance H at the frequency, of turns and leads together @param frequency Hz
Wound windFor(double inductance, double frequency, const Winding& winding);
/// The same on thinner and thicker formers, and without the jacket.
std::vector<Wound> windingsBeside(double inductance, double frequency, const Winding& winding);

} // namespace vetchling
