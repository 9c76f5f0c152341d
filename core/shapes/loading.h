#pragma once
/// Coils and traps in the wires of an antenna, and first values for them.

#include "core/shapes/specs.h"

namespace vetchling::shapes {

/// "coil_q" and the size that a coil may have.
void addCoilSpecs(std::vector<ParameterSpec>& all);
/// Whether a parameter tells a coil's size, which nobody tunes by.
bool isCoilSize(const std::string& key);
CoilSize coilSizeOf(const Family& family, const AntennaShape& shape);
/// Whether it can be, and finds room. @param before, beyond m of straight wire on either side of its middle @param wire m, thickness of
/// that
Faults findSizeFaults(const CoilSize& coil, double before, double beyond, double wire);

/// A coil in series with a wire, drawn where it sits. @param at m along the wire @param q reactance over resistance
void addSeriesCoil(BuiltAntenna& out, std::size_t wire, double at, double henry, double q, const CoilSize& size = {});
/// A coil and a capacitor side by side, resonant at a frequency.
void addTrap(BuiltAntenna& out, std::size_t wire, double at, double henry, double resonance, double q, const CoilSize& size = {});

/// An arm from its foot (or a dipole's centre) to its open end, with one coil in it.
struct LoadedLine {
    double length = 0.0, coilAt = 0.0; ///< m from the foot
    double diameter = 2e-3;            ///< m, up to the coil
    double beyond = 0.0;               ///< m, thickness beyond it; 0: the same
};
/// Reactance in ohm that makes the arm resonant, its parts taken as open lines of Za = 60 (ln(2h/a) - 1):
/// X = Za' cot beyond - Za tan before (Belrose 1953, in the form of the open-ended line). Knows no ground.
double loadingReactance(const LoadedLine& arm, double frequency);
/// The same as a rule of thumb for a coil, in H.
RuleOfThumb coilRule(const LoadedLine& arm, double frequency);

} // namespace vetchling::shapes
