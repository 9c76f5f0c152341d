#pragma once
/// The field in the air of currents on both sides of a soil's surface, from the mixed potentials of soil_kernels.h:
///   E = -jw A - grad phi,  H = curl A / mu0, by central differences.

#include "core/em/near_field.h"
#include "core/em/soil_table.h"

namespace vetchling::em {

/// A current element on its way to a field: an element and its local coefficients.
struct CurrentPiece {
    Element element;
    std::vector<Complex> current;
};

/// @param point above the surface, outside of the wires @param step m, for the differences; the point is higher than it
/// The table must hold all pairs of the point and the pieces with one step more.
FieldAt soilField(const std::vector<CurrentPiece>& pieces, int degree, const SoilTable& table, Vec3 point, double step);

} // namespace vetchling::em
