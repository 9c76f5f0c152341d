#include "app/stages/sky/sky_math.h"

#include <cmath>

namespace vetchling::app {

double hopDistance(double elevation, double layer)
{
    const double angle = std::acos(earthRadius * std::cos(elevation) / (earthRadius + layer)) - elevation;
    return 2.0 * earthRadius * angle;
}

double hopElevation(double distance, double layer)
{
    double low = 0.0, high = 0.5 * pi;
    for (int i = 0; i < 60; ++i) {
        const double middle = 0.5 * (low + high);
        (hopDistance(middle, layer) > distance ? low : high) = middle;
    }
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

} // namespace vetchling::app
