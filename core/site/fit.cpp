#include "core/site/standing.h"

#include <boost/math/tools/minima.hpp>

#include <algorithm>
#include <cmath>
#include <map>

namespace vetchling {
namespace {

constexpr double safetyMargin = 2.0;                 // m added to what could fall towards a power line
constexpr double closeToMetal = 1.0;                 // m
constexpr double reach = 2.5;                        // m: a wire lower than this is walked into or touched
constexpr double onTheGround = 0.1;                  // m: radials and counterpoises that lie
constexpr double standing = 1.0;                     // m: ends below this stand on the ground or on a stub
constexpr double besidePole = 1.0, besideTree = 2.0; // m that wires keep from supports that do not hold them
constexpr double atTheWall = 1.0;                    // m round a tie on a wall or a roof
constexpr double besideTie = 3.0;                    // m in plan: a support so near was meant
constexpr double samePlace = 0.1;                    // m
constexpr double onTheEdge = 0.01;                   // m

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

double toBuilding(Vec3 p, const Building& house)
{
    const double level = inside(house.outline, planOf(p)) ? 0.0 : distanceToOutline(house.outline, planOf(p));
    return std::hypot(level, std::max(0.0, p.z - house.ridge));
}

/// The nearest point of a straight piece, every tenth of a metre; what is `exempt` does not count.
template <class Exempt> Met toBuilding(Vec3 a, Vec3 b, const Building& house, Exempt exempt)
{
    constexpr double step = 0.1;
    if (house.outline.size() < 3)
        return {};
    const int steps = std::max(1, int(std::ceil(distance(a, b) / step)));
    Met near;
    for (int i = 0; i <= steps; ++i) {
        const Vec3 p = between(a, b, double(i) / steps);
        if (const double away = toBuilding(p, house); away < near.value && !exempt(p))
            near = {away, p};
    }
    return near;
}

bool joined(const Wire& a, const Wire& b)
{
    for (Vec3 p : {a.points.front(), a.points.back()})
        for (Vec3 q : {b.points.front(), b.points.back()})
            if (distance(p, q) < samePlace)
                return true;
    return false;
}

/// Another wire goes on in its line, on the other side of a joint or an insulator.
bool goesOn(const WireModel& model, const Wire& wire, std::size_t i)
{
    if (i != 0 && i + 1 != wire.points.size())
        return false;
    constexpr double gap = 0.3, straight = 0.99; // m
    const Vec3 p = wire.points[i], out = unit(p - wire.points[i == 0 ? 1 : i - 1]);
    for (const Wire& other : model.wires) {
        const std::size_t last = other.points.size() - 1;
        for (const auto& [end, next] : {std::pair(other.points[0], other.points[1]), std::pair(other.points[last], other.points[last - 1])})
            if (&other != &wire && distance(p, end) < gap && dot(out, unit(next - end)) > straight)
                return true;
    }
    return false;
}

/// What holds a free end by a rope: none where others are joined to it, where another wire goes on, or where it stands on the ground.
const Support* ropeOf(const Site& site, const WireModel& model, const Wire& wire, std::size_t i)
{
    const Vec3 end = wire.points[i];
    if (end.z < standing)
        return nullptr;
    const bool shared = std::any_of(model.wires.begin(), model.wires.end(), [&](const Wire& w) {
        return &w != &wire && (distance(w.points.front(), end) < samePlace || distance(w.points.back(), end) < samePlace);
    });
    return shared || goesOn(model, wire, i) ? nullptr : ropeHold(site, wire.points[i == 0 ? 1 : i - 1], end);
}

/// By a point of it, or by a rope from one of its ends.
/// An end, or a corner.
bool turns(const Wire& wire, std::size_t i)
{
    if (i == 0 || i + 1 == wire.points.size())
        return true;
    const Vec3 before = unit(wire.points[i] - wire.points[i - 1]), after = unit(wire.points[i + 1] - wire.points[i]);
    return dot(before, after) < 0.999;
}

/// A corner is pulled outwards by a rope.
const Support* cornerHold(const Site& site, const Wire& wire, std::size_t i, double longest)
{
    const Vec3 p = wire.points[i], out = unit(p - wire.points[i - 1]) + unit(p - wire.points[i + 1]);
    const double level = std::hypot(out.x, out.y);
    if (!(level > 1e-6))
        return nullptr;
    return ropeHold(site, p - Vec3{out.x / level, out.y / level, 0.0}, p, longest);
}

bool holdsACorner(const Site& site, const Wire& wire, const Support& s)
{
    for (std::size_t i = 1; i + 1 < wire.points.size(); ++i)
        if (wire.points[i].z > heldFrom && turns(wire, i) && cornerHold(site, wire, i, longestRope) == &s)
            return true;
    return false;
}

bool isTied(const Site& site, const WireModel& model, const Wire& wire, const Support& s)
{
    return std::any_of(wire.points.begin(), wire.points.end(), [&](Vec3 p) { return holdsAt(s, p); }) ||
           ropeOf(site, model, wire, 0) == &s || ropeOf(site, model, wire, wire.points.size() - 1) == &s || holdsACorner(site, wire, s);
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
            if (m_site.boundary.size() >= 3 && !m_site.boundaryMayBeCrossed)
                boundary(wire);
            buildings(wire);
            beside(wire);
            waters(wire);
            low(wire);
            metal(wire);
        }
        for (const Support& s : m_site.supports)
            if (m_site.powerLine)
                fallOf(s, *m_site.powerLine);
        supports();
        mast();
        return std::move(m_report);
    }

private:
    using Kind = SiteWarning::Kind;

    /// Wires that meet tell the same thing of the same place once.
    void warn(Kind kind, Text message, Vec3 at, double hold = 0.0, const Id& support = {})
    {
        const bool known = std::any_of(m_report.warnings.begin(), m_report.warnings.end(),
                                       [&](const SiteWarning& w) { return w.kind == kind && distance(w.at, at) < samePlace; });
        if (!known)
            m_report.warnings.push_back({kind, std::move(message), at, hold, support});
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
             {s.at.x, s.at.y, s.height}, 0.0, s.id);
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

    /// Every tenth of a metre: what is nearer than the half metre is so for longer than that.
    void buildings(const Wire& wire)
    {
        for (const Building& house : m_site.buildings)
            for (std::size_t i = 1; i < wire.points.size(); ++i) {
                const Met near = toBuilding(wire.points[i - 1], wire.points[i], house, [this](Vec3 p) { return tiedToWall(p); });
                if (near.value >= clearOfHouse)
                    continue;
                m_report.throughBuilding = true;
                if (near.value > 0.0)
                    warn(Kind::Building,
                         {coreText("core", "comes within %1 of %2, %3 high; keep half a metre clear of a house"), length(near.value),
                          house.name, length(near.at.z)},
                         near.at);
                else
                    warn(Kind::Building, {coreText("core", "goes through %1, %2 high; move it"), house.name, length(near.at.z)}, near.at);
                break;
            }
    }

    bool tiedToWall(Vec3 p) const
    {
        return std::any_of(m_site.supports.begin(), m_site.supports.end(), [&](const Support& s) {
            return (s.kind == SupportKind::Wall || s.kind == SupportKind::Roof) && std::hypot(p.x - s.at.x, p.y - s.at.y) <= atTheWall;
        });
    }

    /// Wires that pass a support which does not hold them chafe on it, or hang in its branches.
    void beside(const Wire& wire)
    {
        for (const Support& s : m_site.supports) {
            const double clear = s.kind == SupportKind::Tree ? besideTree : besidePole;
            for (std::size_t i = 1; i < wire.points.size(); ++i) {
                const Vec3 a = wire.points[i - 1], b = wire.points[i];
                const double away = segmentDistance(a, b, {s.at.x, s.at.y, 0.0}, {s.at.x, s.at.y, s.height});
                if (away >= clear || std::max(a.z, b.z) <= onTheGround || holds(s, wire))
                    continue;
                constexpr double through = 0.05; // m
                warn(Kind::Tie,
                     away < through
                         ? Text(coreText("core", "passes through the %1; keep %2 away from what does not hold it"), s.name, length(clear))
                         : Text(coreText("core", "passes %1 from the %2; keep %3 away from what does not hold it"), length(away), s.name,
                                length(clear)),
                     between(a, b, 0.5));
                break;
            }
        }
    }

    /// Tied there itself, or joined to a wire that is.
    bool holds(const Support& s, const Wire& wire)
    {
        std::vector<char>& tied = m_tied[&s]; // by wire, found once
        if (tied.empty())
            for (const Wire& w : m_model.wires)
                tied.push_back(isTied(m_site, m_model, w, s));
        for (std::size_t i = 0; i < tied.size(); ++i)
            if (const Wire& w = m_model.wires[i]; tied[i] && (&w == &wire || joined(w, wire)))
                return true;
        return false;
    }

    /// Its own mast, or its support, stands beneath.
    static bool isUpright(const Wire& wire)
    {
        return std::all_of(wire.points.begin(), wire.points.end(),
                           [&](Vec3 p) { return std::hypot(p.x - wire.points[0].x, p.y - wire.points[0].y) < samePlace; });
    }

    void waters(const Wire& wire)
    {
        for (Vec3 p : {wire.points.front(), wire.points.back()})
            for (const Water& w : m_site.waters)
                if ((p.z < standing || (p.z < heldFrom && isUpright(wire))) && inside(w.outline, planOf(p))) {
                    const bool known = std::any_of(m_report.warnings.begin(), m_report.warnings.end(),
                                                   [](const SiteWarning& told) { return told.kind == Kind::Water; });
                    if (!known)
                        warn(Kind::Water,
                             {coreText("core", "stands in %1: look how high the water comes, and keep people and boats away from it"),
                              w.name},
                             p);
                }
    }

    void low(const Wire& wire)
    {
        if (std::all_of(wire.points.begin(), wire.points.end(), [](Vec3 p) { return p.z >= -jointTolerance && p.z <= onTheGround; }))
            return;
        const Vec3 least = *std::min_element(wire.points.begin(), wire.points.end(), [](Vec3 p, Vec3 q) { return p.z < q.z; });
        if (least.z < 0.0)
            warn(
                Kind::Dig,
                {coreText("core", "goes %1 into the soil: before you dig or drive, ask the site's owner and the utilities where cables and "
                                  "pipes lie"),
                 length(-least.z)},
                {least.x, least.y, 0.0});
        if (least.z <= jointTolerance || least.z >= reach) // what goes into the soil is met where it comes from
            return;
        const bool upright = steepBelow(wire, reach);
        warn(Kind::Low,
             upright ? Text(coreText("core", "comes down to %1 above ground: fence it off, nobody touches it while it is sent on"),
                            length(least.z))
                     : Text(coreText("core",
                                     "is only %1 above ground: people walk into it or touch it; raise it, or mark it and keep people away"),
                            length(least.z)),
             least);
        if (!m_report.warnings.empty() && m_report.warnings.back().kind == Kind::Low)
            m_report.warnings.back().upright = upright;
    }

    /// Whether all of it that is lower, and does not lie on the ground, stands or hangs down.
    static bool steepBelow(const Wire& wire, double height)
    {
        constexpr double steep = 0.85; // sine of 58 degrees
        for (std::size_t i = 1; i < wire.points.size(); ++i) {
            const Vec3 a = wire.points[i - 1], b = wire.points[i];
            const double lowest = std::min(a.z, b.z), highest = std::max(a.z, b.z);
            if (lowest < height && highest > onTheGround && highest - lowest < steep * distance(a, b))
                return false;
        }
        return true;
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
                if (const Vec3 p = wire.points[i]; p.z > heldFrom && firstOfItsPlace(p) && turns(wire, i) && !goesOn(m_model, wire, i) &&
                                                   !standsByItself(wire, i) && !hangsDown(wire, i) && !stiff(wire) && !roped(wire, i) &&
                                                   !corded(wire, i))
                    held(wire, i);
    }

    void mast()
    {
        if (const OwnMast own = ownMastOf(m_site, m_model); own.height > highestMast)
            warn(Kind::Mast,
                 {coreText("core", "would stand %1 high with nothing that holds it; a mast by itself is %2 high at most"),
                  length(own.height), length(highestMast)},
                 own.top, own.height);
        if (const double out = tubesReachTooFar(m_model); out > 0.0)
            warn(Kind::Tube, {coreText("core", "no tube reaches %1 out by itself; hold its ends, or use wire"), length(out)},
                 m_model.wires[m_model.feeds.front().wire].pointAt(m_model.feeds.front().at));
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

    /// An end that drops straight down is held by a weight.
    static bool hangsDown(const Wire& wire, std::size_t i)
    {
        if (i != 0 && i + 1 != wire.points.size())
            return false;
        const Vec3 up = wire.points[i == 0 ? 1 : i - 1] - wire.points[i];
        return up.z > 0.0 && std::hypot(up.x, up.y) < samePlace;
    }

    /// Rods and tubes, and the short spokes of a hat, hold themselves.
    bool stiff(const Wire& wire) const
    {
        constexpr double rod = 2e-3, spoke = 2.5; // m: radius; length
        if (wire.radius >= rod)
            return true;
        return wire.length() <= spoke &&
               std::any_of(m_model.wires.begin(), m_model.wires.end(), [&](const Wire& w) { return &w != &wire && joined(w, wire); });
    }

    /// A cord holds it to a wire of the same antenna that reaches farther out beside it, as in a fan.
    bool corded(const Wire& wire, std::size_t i) const
    {
        if (i != 0 && i + 1 != wire.points.size())
            return false;
        constexpr double cord = 2.5; // m
        const Vec3 p = wire.points[i], from = wire.points[i == 0 ? 1 : i - 1], out = unit(Vec3{p.x - from.x, p.y - from.y, 0.0});
        for (const Wire& other : m_model.wires)
            for (Vec3 end : {other.points.front(), other.points.back()})
                if (&other != &wire && distance(p, end) < cord && dot(end - p, out) > samePlace)
                    return true;
        return false;
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

    /// By a rope in the line of an end, or outwards from a corner.
    const Support* rope(const Wire& wire, std::size_t i, double longest) const
    {
        const bool end = i == 0 || i + 1 == wire.points.size();
        return end ? ropeHold(m_site, wire.points[i == 0 ? 1 : i - 1], wire.points[i], longest) : cornerHold(m_site, wire, i, longest);
    }

    bool roped(const Wire& wire, std::size_t i) { return rope(wire, i, longestRope) != nullptr; }

    void held(const Wire& wire, std::size_t i)
    {
        const Vec3 p = wire.points[i];
        const Support* nearest = nullptr;
        double away = besideTie;
        for (const Support& s : m_site.supports)
            if (const double d = std::hypot(p.x - s.at.x, p.y - s.at.y); d <= away)
                nearest = &s, away = d;
        if (const Support* far = nearest ? nullptr : rope(wire, i, HUGE_VAL))
            warn(Kind::Tie,
                 {coreText("core", "would need a rope of %1 to the %2; %3 are the most"),
                  length(std::hypot(p.x - far->at.x, p.y - far->at.y)), far->name, length(longestRope)},
                 p, p.z);
        else if (!nearest)
            warn(Kind::Support, {coreText("core", "has nothing that holds it here, %1 high"), length(p.z)}, p, p.z);
        else if (p.z > nearest->height + aboveSupport)
            warn(Kind::Tie,
                 {coreText("core", "hangs %1 high, above the top of the %2 at %3"), length(p.z), nearest->name, length(nearest->height)}, p,
                 p.z);
        else if (away > tieReach(*nearest))
            warn(Kind::Tie,
                 {coreText("core", "hangs %1 from the %2, which cannot hold it from there: a rope pulls in the line of the wire"),
                  length(away), nearest->name},
                 p, p.z);
    }

    const Site& m_site;
    const WireModel& m_model;
    std::vector<Vec3> m_seen;
    std::map<const Support*, std::vector<char>> m_tied;
    FitReport m_report;
};

} // namespace

std::vector<Rope> ropesOf(const Site& site, const WireModel& model)
{
    std::vector<Rope> all;
    for (const Wire& wire : model.wires) {
        const std::size_t last = wire.points.size() - 1;
        for (const auto& [i, next] : {std::pair(std::size_t(0), std::size_t(1)), std::pair(last, last - 1)}) {
            const Vec3 end = wire.points[i], out = unit(end - wire.points[next]);
            const Support* support = ropeOf(site, model, wire, i);
            if (!support || std::hypot(support->at.x - end.x, support->at.y - end.y) <= tieReach(*support))
                continue;
            const double away = std::hypot(support->at.x - end.x, support->at.y - end.y) / std::hypot(out.x, out.y);
            all.push_back({end, {support->at.x, support->at.y, end.z + away * out.z}, support});
        }
    }
    return all;
}

std::vector<Id> supportsHolding(const Site& site, const WireModel& model)
{
    std::vector<Id> all;
    for (const Support& s : site.supports)
        if (std::any_of(model.wires.begin(), model.wires.end(), [&](const Wire& w) { return isTied(site, model, w, s); }))
            all.push_back(s.id);
    return all;
}

double tieReach(const Support& support) { return support.kind == SupportKind::Tower ? 1.0 : 0.3; }

bool holdsAt(const Support& support, Vec3 p)
{
    return std::hypot(p.x - support.at.x, p.y - support.at.y) <= tieReach(support) && p.z <= support.height + aboveSupport;
}

double distanceToBuilding(Vec3 a, Vec3 b, const Building& building)
{
    return toBuilding(a, b, building, [](Vec3) { return false; }).value;
}

const Support* ropeHold(const Site& site, Vec3 before, Vec3 end, double longest)
{
    constexpr double aside = 0.1, near = 0.3; // m a metre of rope; m
    const Vec3 out = unit(end - before);
    const double level = std::hypot(out.x, out.y);
    if (!(level > 1e-6))
        return nullptr;
    for (const Support& s : site.supports) {
        const double x = s.at.x - end.x, y = s.at.y - end.y, along = (x * out.x + y * out.y) / level;
        const double across = std::abs(x * out.y - y * out.x) / level;
        if (along > -near && along / level <= longest && across <= near + aside * along &&
            end.z + along * out.z / level <= s.height + aboveSupport)
            return &s;
    }
    return nullptr;
}

FitReport fitOnSite(const Site& site, const WireModel& model) { return Surveyor(site, model).run(); }

} // namespace vetchling
