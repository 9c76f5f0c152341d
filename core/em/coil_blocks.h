#pragma once
/// A coil that has a length (CoilSize in wire_model.h): what a straight tube of its radius and length does not have.
///
/// The winding is a sheet of n turns a metre on a cylinder of radius a (Nagaoka 1909). Its current I(z) couples with itself over
///   jw n^2 int int I(z) M(z - z') I(z') dz dz',  M of two coaxial circles (Maxwell 1873, art. 701):
///   M = mu0 a ((2/k - k) K(k) - (2/k) E(k)),  k^2 = 4 a^2 / (4 a^2 + (z - z')^2)
/// so that a current that falls off along the coil has less flux than an even one, which has the inductance that the coil is told to have.
/// Along its axis the tube has all that the winding has. Its charges sit on round wires a pitch p apart and not on the closed tube: the
/// potential at the wire is higher by that of a grid against a sheet, q/(2 pi eps0) (p / 2 pi a) ln(p / pi d) of a charge q a metre along
/// the axis, d the wire's diameter (Maxwell 1873, arts. 203-205).
/// Of a trap the current along the axis is that of coil and capacitor together: its voltage is that of the coil with the capacitor across
/// it, spread as the coil's flux is.

#include "core/em/mesh.h"
#include "core/em/moments.h"

#include <vector>

namespace vetchling::em {

/// Two elements of one coil, m <= n.
struct CoiledPair {
    std::size_t m = 0, n = 0;
    std::size_t load = 0;
    Moments flux;      ///< H, of the currents: with jw they are ohm; its imaginary part is the loss
    Moments elastance; ///< of the charges, beside those of 1/R
};

/// All pairs of all coils.
std::vector<CoiledPair> coiledPairs(const Mesh& mesh, const WireModel& model);

/// p/(2 pi a) ln(p / pi d): by so much a grid's potential is above a sheet's. 0 where the wires are close or not known.
double gridElastance(const Load& coil);

} // namespace vetchling::em
