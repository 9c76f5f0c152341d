#include "core/design/measured_sweep.h"

#include <algorithm>
#include <cmath>

namespace vetchling {

std::optional<MeasuredSweep::Dip> MeasuredSweep::dip() const
{
    if (points.empty())
        return std::nullopt;
    const auto least =
        std::min_element(points.begin(), points.end(), [](const MeasuredPoint& a, const MeasuredPoint& b) { return a.swr < b.swr; });
    const std::size_t i = std::size_t(least - points.begin());
    if (i == 0 || i + 1 == points.size())
        return Dip{least->frequency, least->swr, true};
    const double x0 = points[i - 1].frequency - least->frequency, x2 = points[i + 1].frequency - least->frequency,
                 y0 = points[i - 1].swr - least->swr, y2 = points[i + 1].swr - least->swr;
    const double curve = (y2 / x2 - y0 / x0) / (x2 - x0), slope = y0 / x0 - curve * x0;
    if (!(curve > 0.0))
        return Dip{least->frequency, least->swr, false};
    const double x = std::clamp(-0.5 * slope / curve, x0, x2);
    return Dip{least->frequency + x, std::max(1.0, least->swr + slope * x + curve * x * x), false};
}

MeasuredSweep MeasuredSweep::against(double ohm) const
{
    MeasuredSweep out = *this;
    out.reference = ohm;
    for (MeasuredPoint& p : out.points)
        if (p.impedance)
            p.swr = measuredSwr(*p.impedance, ohm);
    return out;
}

double measuredSwr(Complex impedance, double reference) { return measuredSwrOf((impedance - reference) / (impedance + reference)); }

double measuredSwrOf(Complex reflection)
{
    const double gamma = std::abs(reflection);
    return gamma < 1.0 ? std::min(highestSwr, (1.0 + gamma) / (1.0 - gamma)) : highestSwr;
}

Complex reflectingImpedance(Complex reflection, double reference)
{
    return reference * (1.0 + reflection) / (1.0 - reflection + Complex(1e-15));
}

} // namespace vetchling
