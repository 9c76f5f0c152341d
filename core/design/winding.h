#pragma once
/// How a coil is wound: what there is to wind it of. The turns follow.

namespace vetchling {

struct Winding {
    double former = 0.032; ///< m, outer diameter of what it is wound on
    double wire = 1.2e-3;  ///< m, of the metal
    double jacket = 5e-4;  ///< m, thickness of the insulation; 0: bare or enamelled
    double gap = 0.0;      ///< m between the jackets of two turns
    double spare = 1.0;    ///< turns wound and tapped, to be taken off
    friend bool operator==(const Winding&, const Winding&) = default;
};

} // namespace vetchling
