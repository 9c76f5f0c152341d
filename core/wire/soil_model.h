#pragma once
/// How a soil's figures change with frequency, from one pair of them.
///
/// Messier 1980 ("The propagation of an electromagnetic impulse through soil: influence of frequency dependent parameters", MRC-N-415):
/// e = e8 (1 + sqrt(s0 / (e8 s)))^2 with s = j w, causal for any two figures. Its real part and its conductivity are
/// er = er8 (1 + x), sigma = e8 w (x + x^2 / 2) with x = sqrt(2 s0 / (e8 w)); a pair measured at one frequency gives
/// x = t - 1 + sqrt(1 + t^2) there, t being its loss tangent. Made for soils of some water, 100 kHz to 100 MHz; not for sea water, whose
/// ions do not stick to grains.

namespace vetchling {

inline constexpr double soilModelFrom = 1e5, soilModelTo = 1e8; ///< Hz, that its measurements cover
inline constexpr double mostSoilConductivity = 0.5;             ///< S/m of a pair: beyond it is water

struct SoilFiguresAt {
    double relativePermittivity = 1.0;
    double conductivity = 0.0; ///< S/m
};

/// Relative permittivity that is left at the highest frequencies; below `leastDryPermittivity` the pair is no soil's by this model.
double permittivityAtTheTop(double permittivity, double conductivity, double pairFrequency);
inline constexpr double leastDryPermittivity = 2.0;

/// @param permittivity, conductivity the pair, that holds at `pairFrequency` (Hz) @param frequency Hz
SoilFiguresAt soilFiguresAt(double permittivity, double conductivity, double pairFrequency, double frequency);

} // namespace vetchling
