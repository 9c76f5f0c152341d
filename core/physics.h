#pragma once
/// Constants of nature (SI) and the complex number type used everywhere.
/// Time factor exp(+j w t).

#include <complex>

namespace vetchling {

using Complex = std::complex<double>;

inline constexpr double pi = 3.14159265358979323846;
inline constexpr double speedOfLight = 299792458.0;     ///< m/s
inline constexpr double vacuumPermeability = 4e-7 * pi; ///< H/m
inline constexpr double vacuumPermittivity = 1.0 / (vacuumPermeability * speedOfLight * speedOfLight);
inline constexpr double waveImpedance = vacuumPermeability * speedOfLight; ///< ohm
inline constexpr Complex imaginaryUnit{0.0, 1.0};

/// What antennas are planned for, Hz.
inline constexpr double lowestFrequency = 1e5, highestFrequency = 3e9;

/// Wave number in air, rad/m. @param frequency Hz
inline double waveNumber(double frequency) { return 2.0 * pi * frequency / speedOfLight; }
/// Wavelength in air, m. @param frequency Hz
inline double wavelength(double frequency) { return speedOfLight / frequency; }
inline double radians(double degrees) { return degrees * pi / 180.0; }
inline double degrees(double radians) { return radians * 180.0 / pi; }

/// SWR of an impedance on a line of real characteristic impedance; infinity where no power is taken.
double swr(Complex impedance, double reference = 50.0);

} // namespace vetchling
