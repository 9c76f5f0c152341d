#include "core/site/site.h"

#include <boost/math/tools/minima.hpp>

#include <algorithm>
#include <cmath>

namespace vetchling {
namespace {

constexpr double safetyMargin = 2.0; // m added to what could fall towards a power line
constexpr double closeToMetal = 1.0; // m
constexpr double reach = 2.5;        // m: a wire lower than this is walked into or touched
constexpr double ropeReach = 3.0;    // m in plan from a support to what it holds
constexpr double aboveSupport = 0.3; // m that a wire may be higher than its support
constexpr double heldFrom = 3.0;     // m: lower ends stand on a stake or a box
constexpr double samePlace = 0.1;    // m
constexpr double onTheEdge = 0.01;   // m

PlanPoint planOf(Vec3 p) { return {p.x, p.y}; }
Vec3 between(Vec3 a, Vec3 b, double t) { return a + (b - a) * t; }
Measure length(double metres) { return {metres, units::Quantity::Length}; }

/// A value and where it is met.
struct Met {
    double value = HUGE_VAL;
    Vec3 at;
};

/// The least value of a convex function of places along a straight piece.
template <class Function> Met leastOn(Vec3 a, Vec3 b, Function f)
{
    constexpr int bits = 24;
    const auto along = [&](double t) { return f(between(a, b, t)); };
    const auto [t, value] = boost::math::tools::brent_find_minima(along, 0.0, 1.0, bits);
    Met least{value, between(a, b, t)};
    for (Vec3 end : {a, b})
        if (const double v = f(end); v <= least.value)
            least = {v, end};
    return least;
}

template <class Function> Met leastOn(const Wire& wire, Function f)
{
    Met least;
    for (std::size_t i = 1; i < wire.points.size(); ++i)
        if (const Met m = leastOn(wire.points[i - 1], wire.points[i], f); m.value < least.value)
            least = m;
    return least;
}

/// Where a straight piece crosses an outline, as parts 0..1 of it, with both ends, rising.
std::vector<double> crossings(const Outline& outline, Vec3 a, Vec3 b)
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

/// Looks at a model's wires one after the other, then at the supports.
class Surveyor {
public:
    Surveyor(const Site& site, const WireModel& model) : m_site(site), m_model(model) { m_report.clearOfBoundary = HUGE_VAL; }

    FitReport run()
    {
        if (m_site.powerLineUnread && !m_site.powerLine)
            unknownPowerLine();
        for (const Wire& wire : m_model.wires) {
            if (m_site.powerLine)
                powerLine(wire, *m_site.powerLine);
            if (m_site.boundary.size() >= 3)
                boundary(wire);
            low(wire);
            metal(wire);
        }
        for (const Support& s : m_site.supports)
            if (m_site.powerLine)
                fallOf(s, *m_site.powerLine);
        supports();
        return std::move(m_report);
    }

private:
    using Kind = SiteWarning::Kind;

    /// Wires that meet tell the same thing of the same place once.
    void warn(Kind kind, Text message, Vec3 at)
    {
        const bool known = std::any_of(m_report.warnings.begin(), m_report.warnings.end(),
                                       [&](const SiteWarning& w) { return w.kind == kind && distance(w.at, at) < samePlace; });
        if (!known)
            m_report.warnings.push_back({kind, std::move(message), at});
    }

    /// Every point of every wire counts: what is so high above the line's foot can swing so far. Distance to a segment along a
    /// straight piece is convex, and so it stays less the height.
    void powerLine(const Wire& wire, const PowerLine& line)
    {
        const auto away = [&](Vec3 p) { return distanceToSegment(planOf(p), line.from, line.to); };
        m_report.toPowerLine = std::min(m_report.toPowerLine, leastOn(wire, away).value);
        const Met room = leastOn(wire, [&](Vec3 p) { return away(p) - p.z; });
        if (room.value >= safetyMargin)
            return;
        m_report.nearPowerLine = true;
        m_report.endangering = coreText("core", "the wire");
        warn(Kind::PowerLine,
             {coreText("core", "hangs %1 high and %2 from the power line, which it could reach when it falls or swings; move it away"),
              length(room.at.z), length(away(room.at))},
             room.at);
    }

    void fallOf(const Support& s, const PowerLine& line)
    {
        const double away = distanceToSegment(s.at, line.from, line.to);
        m_report.toPowerLine = std::min(m_report.toPowerLine, away);
        if (away >= s.height + safetyMargin)
            return;
        m_report.nearPowerLine = true;
        m_report.endangering = s.name;
        warn(Kind::PowerLine,
             {coreText("core", "%1, %2 high, could fall onto the power line %3 away; move it or take it down"), s.name, length(s.height),
              length(away)},
             {s.at.x, s.at.y, s.height});
    }

    /// It may be anywhere.
    void unknownPowerLine()
    {
        m_report.nearPowerLine = true;
        m_report.endangering = coreText("core", "the wire");
        warn(Kind::PowerLine,
             coreText("core", "the power line of this site could not be read, so nobody knows how near it is; draw it again"),
             m_model.wires.empty() ? Vec3{} : m_model.wires.front().points.front());
    }

    void boundary(const Wire& wire)
    {
        Met beyond{0.0, {}};
        for (std::size_t i = 1; i < wire.points.size(); ++i) {
            const Vec3 a = wire.points[i - 1], b = wire.points[i];
            const std::vector<double> at = crossings(m_site.boundary, a, b);
            for (std::size_t k = 1; k < at.size(); ++k)
                if (const Met m = beyondBoundary(between(a, b, at[k - 1]), between(a, b, at[k])); m.value > beyond.value)
                    beyond = m;
        }
        if (beyond.value <= onTheEdge)
            return;
        m_report.insideBoundary = false;
        m_report.beyondBoundary = std::max(m_report.beyondBoundary, beyond.value);
        warn(Kind::Boundary, {coreText("core", "reaches %1 beyond the boundary"), length(beyond.value)}, beyond.at);
    }

    /// A piece that does not cross the outline is inside or outside as a whole: its farthest point outside, 0 inside.
    Met beyondBoundary(Vec3 a, Vec3 b)
    {
        constexpr int steps = 32;
        const Outline& outline = m_site.boundary;
        double nearest = std::min(distanceToOutline(outline, planOf(a)), distanceToOutline(outline, planOf(b)));
        for (PlanPoint corner : outline)
            nearest = std::min(nearest, distanceToSegment(corner, planOf(a), planOf(b)));
        if (inside(outline, planOf(between(a, b, 0.5)))) {
            m_report.clearOfBoundary = std::min(m_report.clearOfBoundary, nearest);
            return {0.0, a};
        }
        Met farthest{0.0, a};
        for (int i = 0; i <= steps; ++i) {
            const Vec3 p = between(a, b, double(i) / steps);
            if (const double away = distanceToOutline(outline, planOf(p)); away > farthest.value)
                farthest = {away, p};
        }
        return farthest;
    }

    void low(const Wire& wire)
    {
        const Vec3 least = *std::min_element(wire.points.begin(), wire.points.end(), [](Vec3 p, Vec3 q) { return p.z < q.z; });
        if (least.z < 0.0)
            warn(
                Kind::Dig,
                {coreText("core", "goes %1 into the soil: before you dig or drive, ask the site's owner and the utilities where cables and "
                                  "pipes lie"),
                 length(-least.z)},
                {least.x, least.y, 0.0});
        if (least.z > jointTolerance && least.z < reach) // what goes into the soil is met where it comes from
            warn(Kind::Low,
                 {coreText("core", "is only %1 above ground: people walk into it or touch it; raise it, or mark it and keep people away"),
                  length(least.z)},
                 least);
    }

    void metal(const Wire& wire)
    {
        for (Vec3 p : {wire.points.front(), wire.points.back()})
            for (const Support& s : m_site.supports) {
                const double away = std::hypot(p.x - s.at.x, p.y - s.at.y);
                if (!s.metal || p.z > s.height + 1.0)
                    continue;
                if (away < m_report.clearOfMetal)
                    m_report.clearOfMetal = away, m_report.nearestMetal = s.name;
                if (away < closeToMetal)
                    warn(Kind::Metal,
                         {coreText("core", "an end is only %1 from the %2; keep about a metre from metal"), length(away), s.name}, p);
            }
    }

    void supports()
    {
        for (const Wire& wire : m_model.wires)
            for (std::size_t i = 0; i < wire.points.size(); ++i)
                if (const Vec3 p = wire.points[i];
                    p.z > heldFrom && firstOfItsPlace(p) && turns(wire, i) && !standsByItself(wire, i) && !roped(wire, i))
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

    bool roped(const Wire& wire, std::size_t i) const
    {
        const bool first = i == 0;
        return (first || i + 1 == wire.points.size()) && ropeHold(m_site, wire.points[first ? 1 : i - 1], wire.points[i]);
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
    FitReport m_report;
};

} // namespace

const Support* ropeHold(const Site& site, Vec3 before, Vec3 end)
{
    constexpr double aside = 0.1, near = 0.3; // m a metre of rope; m
    const Vec3 out = unit(end - before);
    const double level = std::hypot(out.x, out.y);
    if (!(level > 1e-6))
        return nullptr;
    for (const Support& s : site.supports) {
        const double x = s.at.x - end.x, y = s.at.y - end.y, along = (x * out.x + y * out.y) / level;
        const double across = std::abs(x * out.y - y * out.x) / level;
        if (along > -near && across <= near + aside * along && end.z + along * out.z / level <= s.height + aboveSupport)
            return &s;
    }
    return nullptr;
}

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
                        if (const Vec3 p = between(a.points[i - 1], a.points[i], double(s) / steps);
                            segmentDistance(p, p + Vec3{0, 0, 1e-9}, b.points[k - 1], b.points[k]) < least)
                            least = segmentDistance(p, p + Vec3{0, 0, 1e-9}, b.points[k - 1], b.points[k]), found.at = p;
                    nearest = found;
                }
    return nearest;
}

FitReport fitOnSite(const Site& site, const WireModel& model) { return Surveyor(site, model).run(); }

} // namespace vetchling
