#include "app/view/axis.h"

#include <cmath>

namespace vetchling::app {

double niceStep(double span, int most)
{
    const double raw = span / most, power = std::pow(10.0, std::floor(std::log10(raw)));
    for (double f : {1.0, 2.0, 5.0})
        if (f * power >= raw)
            return f * power;
    return 10.0 * power;
}

std::vector<double> niceTicks(double from, double to, int most)
{
    const double step = niceStep(to - from, most);
    std::vector<double> ticks;
    for (double v = std::ceil(from / step - 1e-9) * step; v <= to * (1.0 + 1e-12); v += step)
        ticks.push_back(v);
    return ticks;
}

} // namespace vetchling::app
