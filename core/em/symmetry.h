#pragma once
/// Equal elements evenly turned about a vertical axis on which all feeds and loads lie carry equal currents: of a block-circulant system
/// only the block of the even excitation is left, and such elements share their unknowns (Davis 1979, Circulant Matrices, ch. 5).

#include "core/em/mesh.h"

#include <vector>

namespace vetchling::em {

/// By element, the number of its orbit: those that a turn takes into one another. Orbits count from 0 in the order of their first elements;
/// without symmetry each element is one of its own.
std::vector<int> findOrbits(const WireModel& model, const std::vector<Element>& elements);

/// A pair of elements whose block stands for itself and for those that are the same by symmetry.
struct MeshPair {
    std::size_t m = 0, n = 0; ///< their block is added at both places, once if they are one element
    double weight = 1.0;
};

/// All pairs of a mesh that are needed, by rising m.
std::vector<MeshPair> meshPairs(const Mesh& mesh);

} // namespace vetchling::em
