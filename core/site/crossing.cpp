#include "core/site/site.h"

namespace vetchling {

std::optional<Crossing> crossingOf(const WireModel& first, const WireModel& second)
{
    constexpr int steps = 16;
    std::optional<Crossing> nearest;
    for (const Wire& a : first.wires)
        for (const Wire& b : second.wires)
            for (std::size_t i = 1; i < a.points.size(); ++i)
                for (std::size_t k = 1; k < b.points.size(); ++k) {
                    const double apart = segmentDistance(a.points[i - 1], a.points[i], b.points[k - 1], b.points[k]);
                    if (apart >= crossingReach || (nearest && apart >= nearest->apart))
                        continue;
                    Crossing found{apart, a.points[i - 1]};
                    double least = HUGE_VAL;
                    for (int s = 0; s <= steps; ++s) // where on the first one
                        if (const Vec3 p = a.points[i - 1] + (a.points[i] - a.points[i - 1]) * (double(s) / steps);
                            segmentDistance(p, p + Vec3{0, 0, 1e-9}, b.points[k - 1], b.points[k]) < least)
                            least = segmentDistance(p, p + Vec3{0, 0, 1e-9}, b.points[k - 1], b.points[k]), found.at = p;
                    nearest = found;
                }
    return nearest;
}

} // namespace vetchling
