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

std::vector<std::vector<QPointF>> miniature(const WireModel& model, const QSizeF& size)
{
    constexpr double pen = 3.0; // px
    auto lines = sideLines(model, sideViewOf(model));
    double x0 = HUGE_VAL, x1 = -HUGE_VAL, y0 = HUGE_VAL, y1 = -HUGE_VAL;
    for (const auto& line : lines)
        for (QPointF q : line) {
            x0 = std::min(x0, q.x()), x1 = std::max(x1, q.x());
            y0 = std::min(y0, q.y()), y1 = std::max(y1, q.y());
        }
    const double scale = std::max({(x1 - x0) / (size.width() - pen), (y1 - y0) / (size.height() - pen), 1e-9});
    for (auto& line : lines)
        for (QPointF& p : line)
            p = {0.5 * size.width() + (p.x() - 0.5 * (x0 + x1)) / scale, 0.5 * size.height() + (p.y() - 0.5 * (y0 + y1)) / scale};
    return lines;
}

} // namespace vetchling::app
