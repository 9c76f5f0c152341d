#include "core/study/aim.h"

#include "core/study/sky.h"

#include <algorithm>
#include <cmath>

namespace vetchling::study {

Aim aimOf(const Operation& operation)
{
    Aim aim{radians(operation.aimElevation), {}};
    if (operation.aimBearing)
        aim.azimuth = azimuthOf(*operation.aimBearing);
    return aim;
}

double azimuthTowards(const em::FarField& field, const Aim& aim, const Watch& watch)
{
    if (aim.azimuth)
        return *aim.azimuth;
    constexpr int steps = 72;
    std::vector<double> azimuths;
    for (int i = 0; i < steps; ++i)
        azimuths.push_back(2.0 * pi * i / steps);
    if (!field.prepare(azimuths, watch))
        return 0.0;
    const std::vector<double> gains = field.gainGrid({aim.elevation}, azimuths).front();
    return azimuths[std::size_t(std::max_element(gains.begin(), gains.end()) - gains.begin())];
}

double gainTowards(const em::FarField& field, const Aim& aim, const Watch& watch)
{
    const double azimuth = azimuthTowards(field, aim, watch);
    return watch.stopped() ? 0.0 : field.gain(aim.elevation, azimuth);
}

double lobeElevation(const em::FarField& field, double azimuth)
{
    constexpr int steps = 60;
    double best = 0.0, strongest = -HUGE_VAL;
    for (int i = 1; i <= steps; ++i) {
        const double elevation = 0.5 * pi * i / steps, gain = field.gain(elevation, azimuth);
        if (gain > strongest) {
            strongest = gain;
            best = elevation;
        }
    }
    return best;
}

double passedThrough(double swr)
{
    if (!std::isfinite(swr))
        return 0.0;
    const double reflected = (swr - 1.0) / (swr + 1.0);
    return 1.0 - reflected * reflected;
}

} // namespace vetchling::study
