#pragma once
/// How the impedance answers to small changes, from the currents of one solution.
///
/// The system is symmetric, so the adjoint solution is the solution itself: for a change dA of the system's matrix
///   dZ = x^T dA x / I^2,  I the feed's current (Harrington 1968, sec. 7-9, the variational formula of the impedance),
/// and behind a transformer that times the slope of what it shows at the line.
/// No second factorisation is needed, only the matrix of the changed wires on the same mesh.
/// Valid for one driven feed; other feeds are short circuits. Accuracy: that of the solution and of first order in the step;
/// against differences of solves to 1 % in tests/core/sensitivity_test.cpp.

#include "core/em/solver.h"

namespace vetchling::em {

/// First-order change of the impedance from one model to another, both close to the solution's own.
/// Faults: other wires, points, feeds or loads than the solution's; stopped.
Result<Complex> impedanceChange(const Solution& solution, const WireModel& from, const WireModel& to, GroundTableCache& tables,
                                const Watch& watch = {});

struct EndSensitivity {
    std::size_t wire;
    bool atStart;
    Complex perMetre; ///< ohm per metre that the free end is made longer
};

struct Sensitivities {
    std::vector<EndSensitivity> ends;         ///< of every free end
    Complex perHeight;                        ///< ohm per metre that all wires are raised; zero in free space
    Complex perRadius;                        ///< ohm per relative change of all radii
    Complex perPermittivity, perConductivity; ///< ohm per relative change of the soil's figures; zero without soil
    std::vector<Complex> perLoad;             ///< ohm per ohm in series with each load
};

/// All of them. Not for wires that touch perfect ground, whose height is fixed: perHeight is then zero.
Result<Sensitivities> sensitivities(const Solution& solution, GroundTableCache& tables, const Watch& watch = {});

} // namespace vetchling::em
