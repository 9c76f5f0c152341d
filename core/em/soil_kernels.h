#pragma once
/// Potentials of currents above, below and across the surface of a homogeneous soil, less what is known in closed form.
///
/// Mixed potentials in formulation C of Michalski and Zheng 1990 (IEEE Trans. AP 38, 335): one scalar potential for all charges,
///   E = -jw A - grad phi,   phi = 1/(4 pi eps0) int K q,   A = mu0/(4 pi) int G J,   G horizontal, vertical and mixed.
/// With x = lambda/k0, n0 = sqrt(x^2-1), n1 = sqrt(x^2-eps), De = n1 + eps n0, Dh = n0 + n1, Kq = (eps-1)/(eps+1), the spectral kernels
///   across     K = 2/De               horizontal and vertical 2/Dh
///   in air     K = 2/De - 1/n0        horizontal 2/Dh - 1/n0     vertical (1/n0)(-(n0-n1)/Dh + 2 (eps-1)(n0^2+x^2)/(De Dh))
///   in soil    K = 2/De - 1/(eps n1)  horizontal 2/Dh - 1/n1     vertical (1/n1)( (n0-n1)/Dh + 2 (1-eps)(n1^2+x^2)/(De Dh))
///   mixed      2 (1-eps) x/(De Dh) everywhere, with J1
/// go over at large x into images, which are left to closed forms (moments.h), with exp(-jkR)/R of
///   across     K: 2/(1+eps), horizontal and vertical 1, k0
///   in air     K: -Kq, vertical 2 Kq, k0, from the mirror point
///   in soil    K: Kq/eps, vertical -2 Kq, k1, from the mirror point; the direct one there has K: 1/eps, k1.
/// What remains in one medium is bounded at any distance but for the mixed kernel, which goes as 1/R. Across, the kernels are given whole:
/// they die out with the depth, which the image does not.
/// V_i of the transmission lines is continuous across the surface, so that K is too: a current that passes it leaves no charge there.

#include "core/physics.h"

#include <vector>

namespace vetchling::em {

/// In 1/m over k0, that is, dimensionless. t_m.G.t_n = horizontal (t_m.t_n in plan) + vertical t_mz t_nz
/// + mixed (t_mz t_nr - t_mr t_nz), r from the source to the observer.
struct SoilKernels {
    Complex scalar, horizontal, vertical, mixed;

    SoilKernels& operator+=(const SoilKernels& o)
    {
        scalar += o.scalar, horizontal += o.horizontal, vertical += o.vertical, mixed += o.mixed;
        return *this;
    }
    friend SoilKernels operator*(Complex f, const SoilKernels& k) { return {f * k.scalar, f * k.horizontal, f * k.vertical, f * k.mixed}; }
};

/// What is wanted of one place: all of it costs little more than the first.
struct SoilKernelsWanted {
    bool air = false, soil = false;
    std::vector<double> depths; ///< k0 times the depth, of pairs across
};

struct SoilKernelsAt {
    SoilKernels air, soil;           ///< remainders
    std::vector<SoilKernels> across; ///< whole, by depth
};

/// @param permittivity complex relative permittivity of the soil, Im <= 0
/// @param r k0 times the horizontal distance, @param h k0 times the sum of both distances from the surface; not both zero
/// @param wanted depths between 0 and h

/// Accuracy: 1e-8 (tests/core/soil_kernels_test.cpp). Thread-safe.
SoilKernelsAt soilKernels(Complex permittivity, double r, double h, const SoilKernelsWanted& wanted);

/// What the waves of x > 1, which die out above the soil, take of the air's reflected kernels: their imaginary parts, less those of the
/// images with the real part of exp(-jkR)/R. Real, in the real parts of what is returned.
SoilKernels soilLossKernels(Complex permittivity, double r, double h);

/// The scalar kernel between a point in the surface and one at h above it, of the waves of x < 1 alone.
Complex propagatingScalar(Complex permittivity, double r, double h);

} // namespace vetchling::em
