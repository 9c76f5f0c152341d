#pragma once
/// Bessel and Hankel functions of order 0 and 1 with complex argument.
/// Method: power series below |z| = 12, Hankel's asymptotic series above (Abramowitz & Stegun 1964, 9.1.10-13, 9.2.5-10).
/// Accuracy: absolute 1e-10 relative to exp(|Im z|), measured in tests/core/bessel_test.cpp.

#include "core/physics.h"

namespace vetchling::em {

struct BesselPair {
    Complex order0, order1;
};

/// J0(z), J1(z), for Re z >= 0.
BesselPair besselJ(Complex z);
/// H0(1)(z), H1(1)(z), for Re z >= 0, Im z >= 0, z not zero: decays as exp(-Im z).
BesselPair hankelFirst(Complex z);
/// H0(2)(z), H1(2)(z), for Re z >= 0, Im z <= 0, z not zero: decays as exp(Im z).
BesselPair hankelSecond(Complex z);
/// J1(z)/J0(z) for Im z <= 0, stable for any size of z.
Complex besselRatio(Complex z);

} // namespace vetchling::em
