#pragma once
/// What stands between the antenna's port and the line: a transformer, a piece of line of the antenna's own, or both.

#include "core/line/chain_part.h"
#include "core/line/two_port.h"

#include <optional>

namespace vetchling {

/// Line that belongs to the antenna: a matching section, or open-wire line down to where a tuner stands. It does not radiate.
struct OwnLine {
    double impedance = 450.0; ///< ohm
    double length = 1.0;      ///< m
    double velocityFactor = 0.95;
    double k1 = 0.0; ///< dB per 100 m at 1 MHz, growing with the root of the frequency

    [[nodiscard]] TwoPort at(double frequency) const;
    friend bool operator==(const OwnLine&, const OwnLine&) = default;
};

/// Seen from the line: a capacitor across it, the leakage in series with the core's loss and magnetising inductance and with the port's
/// impedance over the ratio, side by side (Terman 1943, sec. 5).
struct Transformer {
    double ratio = 1.0;                 ///< impedance of the antenna's side over that of the line's
    double leakageInductance = 0.0;     ///< H, on the line's side
    double magnetisingInductance = 0.0; ///< H, on the line's side; 0: infinite
    double coreLoss = 0.0;              ///< ohm across the line's side; 0: none
    std::optional<OwnLine> ownLine;     ///< between the port and the transformer
    double capacitance = 0.0;           ///< F, of a capacitor across the line's terminals, against the leakage; 0: none
    std::vector<ChainPart> behind = {}; ///< fixed parts at the feedpoint, from the transformer towards the line

    [[nodiscard]] TwoPort at(double frequency) const;
    /// Impedance at the line for an impedance at the port, ohm.
    [[nodiscard]] Complex atLine(Complex port, double frequency) const { return at(frequency).towardsRadio(port); }
    friend bool operator==(const Transformer&, const Transformer&) = default;
};

} // namespace vetchling
