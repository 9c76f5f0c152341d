#include "app/plots/miniature.h"

#include "core/shapes/family.h"

#include <algorithm>
#include <cmath>

namespace vetchling::app {

double widestBearing(const WireModel& model)
{
    double bearing = 0.0, widest = -1.0;
    for (int b = 0; b < 180; b += 15) {
        double low = HUGE_VAL, high = -HUGE_VAL;
        for (const Wire& w : model.wires)
            for (Vec3 p : w.points) {
                const double u = dot(p, shapes::towards(b));
                low = std::min(low, u), high = std::max(high, u);
            }
        if (high - low > widest)
            widest = high - low, bearing = b;
    }
    return bearing;
}

QPointF SideView::of(Vec3 p) const
{
    constexpr double fromAbove = 0.25;
    return {dot(p, across), -p.z - fromAbove * dot(p, into)};
}

SideView sideViewOf(const WireModel& model)
{
    const Vec3 across = shapes::towards(widestBearing(model));
    return {across, {-across.y, across.x, 0.0}};
}

std::vector<std::vector<QPointF>> sideLines(const WireModel& model, const SideView& view)
{
    std::vector<std::vector<QPointF>> lines;
    for (const Wire& w : model.wires) {
        lines.emplace_back();
        for (Vec3 p : w.points)
            lines.back().push_back(view.of(p));
    }
    return lines;
}

} // namespace vetchling::app
