#pragma once
/// Single-layer coils of round wire: inductance from turns and back, wire, resistance, Q, self-resonance; each with how sure it is.
///
/// Low frequency: current sheet with complete elliptic integrals (Lorenz 1879, Nagaoka 1909) and Rosa's corrections for round wire and
/// its insulation gaps, the second one summed exactly (Rosa & Grover 1911, eqs. 79-82); right to 0.3 %.
/// At a frequency the current crowds to where turns face each other. The coil is taken as a stack of rings whose surface, half a skin
/// depth inside the wire, is a line of force: an integral equation for the current round each ring, solved with weights for its
/// logarithm (Kress 1999, sec. 12.3). That gives the loss of inductance and the proximity factor of the resistance alike.
/// Valid: more than one turn, gaps of some skin depths or more; no former, no shield, leads left out.

#include "core/result.h"

#include <optional>

namespace vetchling {

struct Coil {
    double meanDiameter = 0.05; ///< m, from centre to centre of the wire
    double wireDiameter = 2e-3; ///< m, of the metal
    double pitch = 4e-3;        ///< m, from centre to centre of two turns
    double turns = 10.0;
    double conductivity = 5.8e7; ///< S/m
    friend bool operator==(const Coil&, const Coil&) = default;
};

/// What is made of it.
struct CoilFigures {
    double inductance = 0.0;    ///< H at low frequency
    double atFrequency = 0.0;   ///< H at the frequency, without what its own capacitance adds; the same without a frequency
    double length = 0.0;        ///< m, turns times pitch
    double wire = 0.0;          ///< m of wire, leads left out
    double resistance = 0.0;    ///< ohm at the frequency, else for direct current; an estimate, 10 % and more where turns are close
    double proximity = 1.0;     ///< times that of the straight wire
    double q = 0.0;             ///< w L / R at the frequency; 0 without one
    double selfResonance = 0.0; ///< Hz, with one end earthed (Medhurst 1947); an estimate to 15 %
};

/// What is wrong with it, by member: "pitch" and so on.
Faults findCoilFaults(const Coil& coil);
/// @param frequency Hz; 0: low. Faults: see findCoilFaults
Result<CoilFigures> coilFigures(const Coil& coil, double frequency = 0.0);
/// H of two straight leads from the axis out to the first turn and back from the last, the current in their skin: twice
/// mu0/2pi l (ln 2l/r - 1), less their coupling (Rosa 1908, Bull. Bur. Stand. 4, eqs. 9 and 12) by the angle between them. 2 % of itself.
double leadInductance(const Coil& coil);
/// The turns that make an inductance, not rounded; at the frequency where there is one. Faults: also what takes too many turns or too few.
Result<Coil> coilFor(Coil coil, double inductance, double frequency = 0.0);

} // namespace vetchling
