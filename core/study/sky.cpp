#include "core/study/sky.h"

#include <boost/math/tools/toms748_solve.hpp>

#include <cmath>

namespace vetchling::study {

double hopDistance(double elevation, double layer)
{
    const double angle = std::acos(earthRadius * std::cos(elevation) / (earthRadius + layer)) - elevation;
    return 2.0 * earthRadius * angle;
}

double hopElevation(double distance, double layer)
{
    std::uintmax_t iterations = 60;
    const auto excess = [&](double elevation) { return hopDistance(elevation, layer) - distance; };
    if (excess(0.0) <= 0.0)
        return 0.0; // farther than one hop reaches
    const auto [low, high] =
        boost::math::tools::toms748_solve(excess, 0.0, 0.5 * pi, boost::math::tools::eps_tolerance<double>(40), iterations);
    return 0.5 * (low + high);
}

double lobeWidth(const em::FarField& field, double elevation, double azimuth)
{
    constexpr double step = pi / 720.0;
    const auto gain = [&](double e) { return e <= 0.5 * pi ? field.gain(e, azimuth) : field.gain(pi - e, azimuth + pi); };
    const double floor = gain(elevation) - 3.0103;
    double low = elevation, high = elevation;
    while (low - step > 0.0 && gain(low - step) > floor)
        low -= step;
    while (high + step < pi && gain(high + step) > floor)
        high += step;
    return high - low;
}

double bearingOf(double azimuth)
{
    const double bearing = std::fmod(90.0 - degrees(azimuth), 360.0);
    return bearing < 0.0 ? bearing + 360.0 : bearing;
}

double azimuthOf(double bearing) { return radians(90.0 - bearing); }

} // namespace vetchling::study
