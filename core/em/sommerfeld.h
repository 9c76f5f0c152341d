#pragma once
/// Sommerfeld integrals of the field reflected by a homogeneous half space, at one point.
///
/// Problem: electric dipole in air at height z' above soil of complex relative permittivity eps, observed in air.
/// The reflected field is split in two: Kq = (eps-1)/(eps+1) times the field of the mirror dipole (horizontal part
/// reversed, vertical part kept), and a remainder that has no pole at zero distance. With x = lambda/k0,
/// nu0 = sqrt(x^2-1), nu1 = sqrt(x^2-eps), Re nu > 0, and the TM and TE coefficients less their quasi-static parts
///   Rv = (eps nu0-nu1)/(eps nu0+nu1) - Kq,   Rh = (nu0-nu1)/(nu0+nu1) + Kq
/// the remainder needs four integrals over x from 0 to infinity with E = exp(-nu0 h):
///   S = int (nu0 Rv + Rh/nu0) J0(x r) E x dx      D = int (nu0 Rv - Rh/nu0) J2(x r) E x dx
///   X = 2 int x Rv J1(x r) E x dx                 Z = 2 int (x^2/nu0) Rv J0(x r) E x dx
/// Sources: Sommerfeld 1909; Michalski and Zheng 1990, IEEE Trans. AP 38, 335 (transmission line form of the plane
/// wave spectrum), from which these follow; J is split in Hankel functions for the tail as in Michalski 1998.
/// The field is assembled from them in ground_table.h.

#include "core/physics.h"

namespace vetchling::em {

/// The four integrals, dimensionless.
struct HalfSpaceIntegrals {
    Complex s, d, x, z;

    HalfSpaceIntegrals& operator+=(const HalfSpaceIntegrals& o)
    {
        s += o.s, d += o.d, x += o.x, z += o.z;
        return *this;
    }
    friend HalfSpaceIntegrals operator*(Complex f, const HalfSpaceIntegrals& i) { return {f * i.s, f * i.d, f * i.x, f * i.z}; }
};

/// Quasi-static image strength (eps-1)/(eps+1).
Complex imageStrength(Complex permittivity);

/// @param permittivity  complex relative permittivity of the soil, Im <= 0, |eps - 1| > 0
/// @param r             k0 times the horizontal distance, 0 or more
/// @param h             k0 times the sum of both heights, 0 or more; r and h not both zero
/// Accuracy: about 1e-8 of the largest integral (tests/core/sommerfeld_test.cpp). Thread-safe.
HalfSpaceIntegrals remainderIntegrals(Complex permittivity, double r, double h);
/// The same to 1e-6, in half the time, for tables that are interpolated to less.
HalfSpaceIntegrals tabulatedIntegrals(Complex permittivity, double r, double h);

/// The same integrals over x from 1 to infinity only, along the real axis: the waves that die out above the soil.
/// Their imaginary parts give the power these waves carry into it (far_field.h).
HalfSpaceIntegrals evanescentIntegrals(Complex permittivity, double r, double h);

} // namespace vetchling::em
