#pragma once
/// The Galerkin system of a mesh over its ground: Z I = V (Harrington 1968, Field Computation by Moment Methods, ch. 4;
/// polynomial currents as in Popovic 1991, ch. 3). All matrices are symmetric, row-major, ohms.

#include "core/em/ground_table.h"
#include "core/em/mesh.h"
#include "core/em/pair_plan.h"

#include <vector>

namespace vetchling::em {

using Matrix = std::vector<Complex>; ///< n x n, row-major

/// Fault message of work that was told to stop.

/// The whole system of a model on a mesh: fields, wires and loads. Faults: stopped, or too far apart for the soil's table.
/// @param plan of the same mesh, if there is one: saves its integrals
Result<Matrix> systemMatrix(const Mesh& mesh, const WireModel& model, GroundTableCache& tables, const Watch& watch = {},
                            const PairPlan* plan = nullptr);

/// Fields of the currents tested by the currents: everything but wire loss and loads.
/// @param table the soil's table; null unless the ground is real. Must cover the mesh (coverMesh).
/// A stop leaves the matrix unfinished, here and below.
Matrix fieldMatrix(const Mesh& mesh, const Ground& ground, const GroundTable* table, const PairPlan* plan = nullptr,
                   const Watch& watch = {});

/// Only the part of a table: the soil's remainder, or its evanescent loss (whose real part counts).
Matrix remainderMatrix(const Mesh& mesh, const GroundTable& table, const Watch& watch = {});

/// Fields of the currents' mirror images on perfect ground, tested by the currents.
Matrix mirrorMatrix(const Mesh& mesh, const Watch& watch = {});

/// Adds wire loss int Zi f_m f_n ds, the jackets' change of the scalar potential (moments.h), and coils.
void addWire(const Mesh& mesh, const WireModel& model, Matrix& matrix, const PairPlan* plan = nullptr);

/// What stretches wound as coils have beyond a tube (coil_blocks.h); addWire adds it too.
void addCoils(const Mesh& mesh, const WireModel& model, Matrix& matrix, const PairPlan* plan = nullptr);

/// Adds one ohm in series with a coil that has a length, spread as the flux of its turns is.
void addCoilOhm(const Mesh& mesh, const WireModel& model, std::size_t load, Matrix& matrix);

/// Of what addWire adds, what the soil in the place of jackets would have taken: theirs is the difference.
void addDisplacedSoil(const Mesh& mesh, const WireModel& model, Matrix& matrix);

/// Adds impedance * row row^T.
void addLoad(Matrix& matrix, int unknowns, const PortRow& row, Complex impedance);

/// Adds the line sections: for a section's two ports, row^T Z row with its open-circuit impedances.
void addLines(const Mesh& mesh, const WireModel& model, Matrix& matrix);

/// Makes the table cover all distances the mesh asks for. False if stopped.
bool coverMesh(const Mesh& mesh, GroundTable& table, const Watch& watch = {});

} // namespace vetchling::em
