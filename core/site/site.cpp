#include "core/site/site.h"

#include <algorithm>
#include <cmath>

namespace vetchling {
namespace {

constexpr double safetyMargin = 2.0; // m added to what could fall towards a power line

/// The nearest approach of a wire to a line in plan, and the wire's height there decides how far it can swing.
void wiresAgainstPowerLine(const PowerLine& line, const WireModel& model, FitReport& report)
{
    for (const Wire& wire : model.wires)
        for (Vec3 p : wire.points) {
            const double away = distanceToSegment({p.x, p.y}, line.from, line.to);
            report.toPowerLine = std::min(report.toPowerLine, away);
            if (away < p.z + safetyMargin) {
                report.nearPowerLine = true;
                report.endangering = "the wire";
            }
        }
}

void supportsAgainstPowerLine(const PowerLine& line, const Site& site, FitReport& report)
{
    for (const Support& s : site.supports) {
        const double away = distanceToSegment(s.at, line.from, line.to);
        report.toPowerLine = std::min(report.toPowerLine, away);
        if (away < s.height + safetyMargin) {
            report.nearPowerLine = true;
            report.endangering = s.name;
        }
    }
}

} // namespace

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
    const double dx = b.x - a.x, dy = b.y - a.y, l2 = dx * dx + dy * dy;
    const double t = l2 > 0.0 ? std::clamp(((p.x - a.x) * dx + (p.y - a.y) * dy) / l2, 0.0, 1.0) : 0.0;
    return std::hypot(p.x - a.x - t * dx, p.y - a.y - t * dy);
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

FitReport fitOnSite(const Site& site, const WireModel& model)
{
    FitReport report;
    report.clearOfBoundary = HUGE_VAL;
    for (const Wire& wire : model.wires)
        for (std::size_t i = 0; i < wire.points.size(); ++i) {
            const Vec3 p = wire.points[i];
            if (site.boundary.size() >= 3) {
                const double edge = distanceToOutline(site.boundary, {p.x, p.y});
                if (inside(site.boundary, {p.x, p.y}))
                    report.clearOfBoundary = std::min(report.clearOfBoundary, edge);
                else if (edge > 0.01) {
                    report.insideBoundary = false;
                    report.beyondBoundary = std::max(report.beyondBoundary, edge);
                }
            }
            for (const Support& s : site.supports) {
                const bool end = i == 0 || i + 1 == wire.points.size();
                if (!s.metal || !end || p.z > s.height + 1.0)
                    continue;
                const double away = std::hypot(p.x - s.at.x, p.y - s.at.y);
                if (away < report.clearOfMetal) {
                    report.clearOfMetal = away;
                    report.nearestMetal = s.name;
                }
            }
        }
    if (site.powerLine) {
        wiresAgainstPowerLine(*site.powerLine, model, report);
        supportsAgainstPowerLine(*site.powerLine, site, report);
    }
    return report;
}

} // namespace vetchling
