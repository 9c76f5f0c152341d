#pragma once
/// A transformer between the antenna's port and the line.

#include "core/line/two_port.h"

namespace vetchling {

/// Seen from the line: the leakage in series with the core's loss and magnetising inductance and with the port's impedance
/// over the ratio, side by side (Terman 1943, sec. 5).
struct Transformer {
    double ratio = 1.0;                 ///< impedance of the antenna's side over that of the line's
    double leakageInductance = 0.0;     ///< H, on the line's side
    double magnetisingInductance = 0.0; ///< H, on the line's side; 0: infinite
    double coreLoss = 0.0;              ///< ohm across the line's side; 0: none

    [[nodiscard]] TwoPort at(double frequency) const;
    /// Impedance at the line for an impedance at the port, ohm.
    [[nodiscard]] Complex atLine(Complex port, double frequency) const { return at(frequency).towardsRadio(port); }
    friend bool operator==(const Transformer&, const Transformer&) = default;
};

} // namespace vetchling
