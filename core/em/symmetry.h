#pragma once
/// Equal elements evenly turned about a vertical axis on which all feeds and loads lie carry equal currents: of a block-circulant system
/// only the block of the even excitation is left, and such elements share their unknowns (Davis 1979, Circulant Matrices, ch. 5).
/// Arms that are the mirror image of one another, in a plane that the feed's current passes at a right angle, carry currents that the
/// mirror turns round: of the even and the odd excitation the feed makes only the odd one.

#include "core/em/mesh.h"

#include <vector>

namespace vetchling::em {

/// What side of a mirror an element is on, and how it runs.
enum class Mirrored { No, Along, Against }; ///< on the side that counts; the image of one there, running as its image does or the other way

struct Orbits {
    std::vector<int>
        of; ///< by element, those that a turn or the mirror takes into one another; from 0 in the order of their first elements
    std::vector<Mirrored> mirrored; ///< by element; empty without a mirror
    Vec3 at, normal;                ///< of the mirror
    /// A point of the mirror itself.
    [[nodiscard]] bool onMirror(Vec3 p) const;
};

/// Without symmetry each element is an orbit of its own.
Orbits findOrbits(const WireModel& model, const std::vector<Element>& elements);

/// A pair of elements whose block stands for itself and for those that are the same by symmetry.
struct MeshPair {
    std::size_t m = 0, n = 0; ///< their block is added at both places, once if they are one element
    double weight = 1.0;
};

/// All pairs of a mesh that are needed, by rising m.
std::vector<MeshPair> meshPairs(const Mesh& mesh);

} // namespace vetchling::em
