#pragma once
/// Two-ports between the antenna's port and the radio, as chain (ABCD) matrices: V1 = a V2 + b I2, I1 = c V2 + d I2, port 1
/// towards the radio, port 2 towards the antenna (Pozar 2011, sec. 4.4). Parts are joined by multiplying their matrices.

#include "core/physics.h"

namespace vetchling {

struct TwoPort {
    Complex a = 1.0, b = 0.0, c = 0.0, d = 1.0;

    /// An impedance in the line's path, ohm.
    static TwoPort series(Complex impedance) { return {1.0, impedance, 0.0, 1.0}; }
    /// An admittance across the line, S.
    static TwoPort shunt(Complex admittance) { return {1.0, 0.0, admittance, 1.0}; }
    /// Without loss. @param ratio impedance on the antenna's side over that on the radio's
    static TwoPort idealTransformer(double ratio);
    /// A line with two equal ends. @param propagation loss in Np and phase in rad of the whole line
    static TwoPort line(Complex characteristicImpedance, Complex propagation);

    /// This part with another one on its antenna side.
    [[nodiscard]] TwoPort then(const TwoPort& towardsAntenna) const;
    /// Impedance on the radio's side for one on the antenna's side, ohm.
    [[nodiscard]] Complex towardsRadio(Complex load) const { return (a * load + b) / (c * load + d); }
    /// How that answers to a small change of the load.
    [[nodiscard]] Complex slope(Complex load) const;
    /// Power into the load over power into the radio's side.
    [[nodiscard]] double efficiency(Complex load) const;
};

} // namespace vetchling
