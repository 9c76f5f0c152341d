#include "core/site/site.h"

#include <boost/math/tools/minima.hpp>

#include <algorithm>
#include <cmath>

namespace vetchling {
namespace {

constexpr double safetyMargin = 2.0; // m added to what could fall towards a power line

PlanPoint planOf(Vec3 p) { return {p.x, p.y}; }
PlanPoint between(PlanPoint a, PlanPoint b, double t) { return {a.x + t * (b.x - a.x), a.y + t * (b.y - a.y)}; }

/// The least value of a convex function over 0..1.
template <class Function> double leastOf(Function f)
{
    constexpr int bits = 24;
    return std::min({f(0.0), f(1.0), boost::math::tools::brent_find_minima(f, 0.0, 1.0, bits).second});
}

/// Every point of every wire counts: what is so high above the line's foot can swing so far. Distance to a segment along a straight
/// piece is convex, and so it stays less the height.
void wiresAgainstPowerLine(const PowerLine& line, const WireModel& model, FitReport& report)
{
    for (const Wire& wire : model.wires)
        for (std::size_t i = 1; i < wire.points.size(); ++i) {
            const Vec3 a = wire.points[i - 1], b = wire.points[i];
            const auto away = [&](double t) { return distanceToSegment(between(planOf(a), planOf(b), t), line.from, line.to); };
            report.toPowerLine = std::min(report.toPowerLine, leastOf(away));
            if (leastOf([&](double t) { return away(t) - (a.z + t * (b.z - a.z)); }) < safetyMargin) {
                report.nearPowerLine = true;
                report.endangering = coreText("core", "the wire");
            }
        }
}

/// Where a straight piece crosses an outline, as parts 0..1 of it, with both ends, rising.
std::vector<double> crossings(const Outline& outline, PlanPoint a, PlanPoint b)
{
    std::vector<double> at{0.0, 1.0};
    const double ux = b.x - a.x, uy = b.y - a.y;
    for (std::size_t i = 0; i < outline.size(); ++i) {
        const PlanPoint c = outline[i], d = outline[(i + 1) % outline.size()];
        const double vx = d.x - c.x, vy = d.y - c.y, across = ux * vy - uy * vx;
        if (across == 0.0)
            continue;
        const double t = ((c.x - a.x) * vy - (c.y - a.y) * vx) / across, s = ((c.x - a.x) * uy - (c.y - a.y) * ux) / across;
        if (t > 0.0 && t < 1.0 && s >= 0.0 && s <= 1.0)
            at.push_back(t);
    }
    std::sort(at.begin(), at.end());
    return at;
}

/// A piece that does not cross the outline is inside or outside as a whole.
void pieceAgainstBoundary(const Outline& outline, PlanPoint a, PlanPoint b, FitReport& report)
{
    constexpr double onTheEdge = 0.01; // m
    constexpr int steps = 32;
    double nearest = std::min(distanceToOutline(outline, a), distanceToOutline(outline, b)), farthest = 0.0;
    for (PlanPoint corner : outline)
        nearest = std::min(nearest, distanceToSegment(corner, a, b));
    for (int i = 0; i <= steps; ++i)
        farthest = std::max(farthest, distanceToOutline(outline, between(a, b, double(i) / steps)));
    if (inside(outline, between(a, b, 0.5)))
        report.clearOfBoundary = std::min(report.clearOfBoundary, nearest);
    else if (farthest > onTheEdge) {
        report.insideBoundary = false;
        report.beyondBoundary = std::max(report.beyondBoundary, farthest);
    }
}

void wiresAgainstBoundary(const Outline& outline, const WireModel& model, FitReport& report)
{
    for (const Wire& wire : model.wires)
        for (std::size_t i = 1; i < wire.points.size(); ++i) {
            const PlanPoint a = planOf(wire.points[i - 1]), b = planOf(wire.points[i]);
            const std::vector<double> at = crossings(outline, a, b);
            for (std::size_t k = 1; k < at.size(); ++k)
                pieceAgainstBoundary(outline, between(a, b, at[k - 1]), between(a, b, at[k]), report);
        }
}

void wireEndsAgainstMetal(const Site& site, const WireModel& model, FitReport& report)
{
    for (const Wire& wire : model.wires)
        for (Vec3 p : {wire.points.front(), wire.points.back()})
            for (const Support& s : site.supports) {
                const double away = std::hypot(p.x - s.at.x, p.y - s.at.y);
                if (s.metal && p.z <= s.height + 1.0 && away < report.clearOfMetal) {
                    report.clearOfMetal = away;
                    report.nearestMetal = s.name;
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

FitReport fitOnSite(const Site& site, const WireModel& model)
{
    FitReport report;
    report.clearOfBoundary = HUGE_VAL;
    if (site.boundary.size() >= 3)
        wiresAgainstBoundary(site.boundary, model, report);
    wireEndsAgainstMetal(site, model, report);
    if (site.powerLine) {
        wiresAgainstPowerLine(*site.powerLine, model, report);
        supportsAgainstPowerLine(*site.powerLine, site, report);
    }
    return report;
}

namespace {

constexpr double closeToMetal = 1.0; // m
constexpr double reach = 2.5;        // m: a wire lower than this is walked into or touched
constexpr double ropeReach = 3.0;    // m in plan from a support to what it holds
constexpr double aboveSupport = 0.3; // m that a wire may be higher than its support
constexpr double heldFrom = 3.0;     // m: lower ends stand on a stake or a box
constexpr double samePlace = 0.1;    // m
constexpr double sampleStep = 0.25;  // m along wires

Measure length(double metres) { return {metres, units::Quantity::Length}; }

/// Where along a wire a value is least.
template <class Value> std::pair<double, Vec3> leastAlong(const Wire& wire, Value value)
{
    std::pair<double, Vec3> least{HUGE_VAL, wire.points.front()};
    const double whole = wire.length();
    const int steps = std::max(8, int(whole / sampleStep));
    for (int i = 0; i <= steps; ++i) {
        const Vec3 p = wire.pointAt(whole * i / steps);
        if (const double v = value(p); v < least.first)
            least = {v, p};
    }
    return least;
}

class Warner {
public:
    Warner(const Site& site, const WireModel& model) : m_site(site), m_model(model) {}

    std::vector<SiteWarning> run()
    {
        for (const Wire& wire : m_model.wires) {
            powerLine(wire);
            boundary(wire);
            low(wire);
            metal(wire);
        }
        for (const Support& s : m_site.supports)
            fallOf(s);
        supports();
        return std::move(m_out);
    }

private:
    using Kind = SiteWarning::Kind;

    /// Wires that meet tell the same thing of the same place once.
    void warn(Kind kind, Text message, Vec3 at)
    {
        const bool known =
            std::any_of(m_out.begin(), m_out.end(), [&](const SiteWarning& w) { return w.kind == kind && distance(w.at, at) < samePlace; });
        if (!known)
            m_out.push_back({kind, std::move(message), at});
    }

    void powerLine(const Wire& wire)
    {
        if (!m_site.powerLine)
            return;
        const auto away = [&](Vec3 p) { return distanceToSegment(planOf(p), m_site.powerLine->from, m_site.powerLine->to); };
        const auto [room, at] = leastAlong(wire, [&](Vec3 p) { return away(p) - p.z; });
        if (room < safetyMargin)
            warn(Kind::PowerLine,
                 {coreText("core", "hangs %1 high and %2 from the power line, which it could reach when it falls or swings; move it away"),
                  length(at.z), length(away(at))},
                 at);
    }

    void fallOf(const Support& s)
    {
        if (!m_site.powerLine)
            return;
        const double away = distanceToSegment(s.at, m_site.powerLine->from, m_site.powerLine->to);
        if (away < s.height + safetyMargin)
            warn(Kind::PowerLine,
                 {coreText("core", "%1, %2 high, could fall onto the power line %3 away; move it or take it down"), s.name,
                  length(s.height), length(away)},
                 {s.at.x, s.at.y, s.height});
    }

    void boundary(const Wire& wire)
    {
        if (m_site.boundary.size() < 3)
            return;
        const auto [beyond, at] = leastAlong(
            wire, [&](Vec3 p) { return inside(m_site.boundary, planOf(p)) ? 0.0 : -distanceToOutline(m_site.boundary, planOf(p)); });
        if (beyond < -0.01)
            warn(Kind::Boundary, {coreText("core", "reaches %1 beyond the boundary"), length(-beyond)}, at);
    }

    void low(const Wire& wire)
    {
        const auto [height, at] = leastAlong(wire, [](Vec3 p) { return p.z; });
        if (height < reach)
            warn(Kind::Low,
                 {coreText("core", "is only %1 above ground: people walk into it or touch it; raise it, or mark it and keep people away"),
                  length(height)},
                 at);
    }

    void metal(const Wire& wire)
    {
        for (const Support& s : m_site.supports) {
            if (!s.metal)
                continue;
            for (Vec3 p : {wire.points.front(), wire.points.back()})
                if (const double away = std::hypot(p.x - s.at.x, p.y - s.at.y); away < closeToMetal && p.z <= s.height + 1.0)
                    warn(Kind::Metal,
                         {coreText("core", "an end is only %1 from the %2; keep about a metre from metal"), length(away), s.name}, p);
        }
    }

    void supports()
    {
        for (const Wire& wire : m_model.wires)
            for (std::size_t i = 0; i < wire.points.size(); ++i)
                if (const Vec3 p = wire.points[i]; p.z > heldFrom && firstOfItsPlace(p) && turns(wire, i) && !standsByItself(wire, i))
                    held(p);
    }

    /// Points that several wires share are told once.
    bool firstOfItsPlace(Vec3 p)
    {
        for (Vec3 q : m_seen)
            if (distance(p, q) < samePlace)
                return false;
        m_seen.push_back(p);
        return true;
    }

    /// An end, or a corner.
    static bool turns(const Wire& wire, std::size_t i)
    {
        if (i == 0 || i + 1 == wire.points.size())
            return true;
        const Vec3 before = unit(wire.points[i] - wire.points[i - 1]), after = unit(wire.points[i + 1] - wire.points[i]);
        return dot(before, after) < 0.999;
    }

    /// The top of a vertical wire: its own pole stands beneath.
    static bool standsByItself(const Wire& wire, std::size_t i)
    {
        const auto pole = [&](std::size_t foot) {
            const Vec3 down = wire.points[foot] - wire.points[i];
            return wire.points[foot].z < heldFrom && std::hypot(down.x, down.y) < samePlace;
        };
        return (i > 0 && pole(i - 1)) || (i + 1 < wire.points.size() && pole(i + 1));
    }

    void held(Vec3 p)
    {
        const Support* nearest = nullptr;
        double away = ropeReach;
        for (const Support& s : m_site.supports)
            if (const double d = std::hypot(p.x - s.at.x, p.y - s.at.y); d <= away)
                nearest = &s, away = d;
        if (!nearest)
            warn(Kind::Support, {coreText("core", "nothing stands here to hold it, %1 high"), length(p.z)}, p);
        else if (p.z > nearest->height + aboveSupport)
            warn(Kind::Support,
                 {coreText("core", "hangs %1 high, above the top of the %2 at %3"), length(p.z), nearest->name, length(nearest->height)},
                 p);
    }

    const Site& m_site;
    const WireModel& m_model;
    std::vector<Vec3> m_seen;
    std::vector<SiteWarning> m_out;
};

} // namespace

std::vector<SiteWarning> siteWarnings(const Site& site, const WireModel& model) { return Warner(site, model).run(); }

} // namespace vetchling
