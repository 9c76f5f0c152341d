#include "core/site/site.h"

#include <algorithm>
#include <cmath>

namespace vetchling {
namespace {

PlanPoint between(PlanPoint a, PlanPoint b, double t) { return {a.x + t * (b.x - a.x), a.y + t * (b.y - a.y)}; }

} // namespace

void makeOwn(Soil& soil, const std::string& name)
{
    soil.id.clear();
    soil.name = name;
    soil.source.clear();
    soil.dry.reset();
    soil.wet.reset();
}

bool FarGround::holds(double bearing) const
{
    const auto turn = [](double degrees) { return degrees - 360.0 * std::floor(degrees / 360.0); };
    const double width = toBearing - fromBearing >= 360.0 ? 360.0 : turn(toBearing - fromBearing);
    return turn(bearing - fromBearing) <= width;
}

bool inside(const Outline& outline, PlanPoint p)
{
    bool in = false;
    for (std::size_t i = 0, j = outline.size() - 1; i < outline.size(); j = i++)
        if ((outline[i].y > p.y) != (outline[j].y > p.y) &&
            p.x < (outline[j].x - outline[i].x) * (p.y - outline[i].y) / (outline[j].y - outline[i].y) + outline[i].x)
            in = !in;
    return in;
}

double distanceToSegment(PlanPoint p, PlanPoint a, PlanPoint b)
{
    const PlanPoint q = nearestOnSegment(p, a, b);
    return std::hypot(p.x - q.x, p.y - q.y);
}

PlanPoint nearestOnSegment(PlanPoint p, PlanPoint a, PlanPoint b)
{
    const double dx = b.x - a.x, dy = b.y - a.y, l2 = dx * dx + dy * dy;
    return between(a, b, l2 > 0.0 ? std::clamp(((p.x - a.x) * dx + (p.y - a.y) * dy) / l2, 0.0, 1.0) : 0.0);
}

double distanceToOutline(const Outline& outline, PlanPoint p)
{
    double nearest = HUGE_VAL;
    for (std::size_t i = 0; i < outline.size(); ++i)
        nearest = std::min(nearest, distanceToSegment(p, outline[i], outline[(i + 1) % outline.size()]));
    return nearest;
}

PlanPoint extentOf(const Outline& outline)
{
    if (outline.empty())
        return {};
    const auto [x0, x1] = std::minmax_element(outline.begin(), outline.end(), [](PlanPoint a, PlanPoint b) { return a.x < b.x; });
    const auto [y0, y1] = std::minmax_element(outline.begin(), outline.end(), [](PlanPoint a, PlanPoint b) { return a.y < b.y; });
    return {x1->x - x0->x, y1->y - y0->y};
}

PlanPoint cornerOf(const Outline& outline)
{
    if (outline.empty())
        return {};
    PlanPoint corner = outline.front();
    for (PlanPoint p : outline)
        corner = {std::min(corner.x, p.x), std::min(corner.y, p.y)};
    return corner;
}

Outline rectangle(PlanPoint corner, PlanPoint extent)
{
    return {corner, {corner.x + extent.x, corner.y}, {corner.x + extent.x, corner.y + extent.y}, {corner.x, corner.y + extent.y}};
}

Outline moved(Outline outline, double east, double north)
{
    for (PlanPoint& p : outline)
        p = {p.x + east, p.y + north};
    return outline;
}

Outline stretched(const Outline& outline, PlanPoint extent)
{
    const PlanPoint now = extentOf(outline), corner = cornerOf(outline);
    if (!(now.x > 0.0 && now.y > 0.0))
        return rectangle(corner, extent);
    Outline out;
    for (PlanPoint p : outline)
        out.push_back({corner.x + (p.x - corner.x) * extent.x / now.x, corner.y + (p.y - corner.y) * extent.y / now.y});
    return out;
}

} // namespace vetchling
