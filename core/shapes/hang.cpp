#include "core/shapes/hang.h"

#include <algorithm>
#include <cmath>
#include <optional>

namespace vetchling::shapes {
namespace {

const Support* nearestSupport(const Site& site, PlanPoint at, double reach)
{
    const Support* nearest = nullptr;
    for (const Support& s : site.supports)
        if (const double away = std::hypot(s.at.x - at.x, s.at.y - at.y); away <= reach)
            nearest = &s, reach = away;
    return nearest;
}

/// Whether a support holds an end of the antenna that is not the handle.
bool otherEndIsHeld(const Site& site, const BuiltAntenna& built, Vec3 handle)
{
    constexpr double samePlace = 0.01; // m
    for (const Wire& wire : built.model.wires)
        for (const auto& [end, before] :
             {std::pair(wire.points.front(), wire.points[1]), std::pair(wire.points.back(), wire.points[wire.points.size() - 2])})
            if (distance(end, handle) > samePlace && distance(end, built.feedPoint) > samePlace && ropeHold(site, before, end))
                return true;
    return false;
}

/// How a handle is tied to a support.
struct Tie {
    bool there = false; ///< at all
    bool atTop = false; ///< and follows its height
};

constexpr double exactly = 0.05; // m: closer than anything that is not tied

Tie tieOf(const BuiltAntenna& built, Vec3 handle, const Support& support)
{
    const double x = support.at.x - handle.x, y = support.at.y - handle.y;
    if (std::hypot(x, y) < exactly)
        return {true, std::abs(handle.z - support.height) < exactly};
    const std::optional<Vec3> next = besideEnd(built, handle);
    if (!next || distance(handle, built.feedPoint) < exactly)
        return {};
    const Vec3 out = unit(handle - *next);
    const double level = std::hypot(out.x, out.y);
    if (!(level > 1e-6))
        return {};
    const double along = (x * out.x + y * out.y) / level, across = std::abs(x * out.y - y * out.x) / level;
    return {along > 0.0 && across < exactly, std::abs(handle.z + along * out.z / level - support.height) < exactly};
}

} // namespace

std::optional<Vec3> besideEnd(const BuiltAntenna& built, Vec3 end)
{
    for (const Wire& wire : built.model.wires) {
        if (distance(wire.points.front(), end) < exactly)
            return wire.points[1];
        if (distance(wire.points.back(), end) < exactly)
            return wire.points[wire.points.size() - 2];
    }
    return std::nullopt;
}

AntennaShape newlyHung(const AntennaShape& shape, std::size_t handle, const Hook& hook)
{
    const Family& family = familyOf(shape);
    AntennaShape level = shape;
    if (family.spec(shape, "apex_height_m") && family.spec(shape, "end_height_m"))
        level.parameters["end_height_m"] = family.value(shape, "apex_height_m");
    return family.hung(level, handle, hook);
}

Hung hangAt(const Site& site, const AntennaShape& shape, std::size_t handle, PlanPoint at, double reach)
{
    const Ground ground = site.soil.ground();
    const Result<BuiltAntenna> here = buildOver(shape, ground);
    if (!here || handle >= here->handles.size())
        return {shape};
    const Support* support = nearestSupport(site, at, reach);
    Hook hook{at.x, at.y, std::nullopt, otherEndIsHeld(site, *here, here->handles[handle].at)};
    if (support)
        hook = {support->at.x, support->at.y, support->height, hook.alone};
    const AntennaShape moved = familyOf(shape).hung(shape, handle, hook);
    return buildOver(moved, ground) ? Hung{moved, support} : Hung{shape};
}

const Support* tiedTo(const Site& site, const BuiltAntenna& antenna, std::size_t handle)
{
    for (const Support& s : site.supports)
        if (tieOf(antenna, antenna.handles[handle].at, s).there)
            return &s;
    return nullptr;
}

AntennaShape carried(const Site& before, const Support& after, const AntennaShape& shape)
{
    const Ground ground = before.soil.ground();
    const Result<BuiltAntenna> here = buildOver(shape, ground);
    const auto was = std::find_if(before.supports.begin(), before.supports.end(), [&](const Support& s) { return s.id == after.id; });
    if (!here || was == before.supports.end())
        return shape;
    AntennaShape next = shape;
    for (std::size_t i = 0; i < here->handles.size(); ++i) {
        const Tie tie = tieOf(*here, here->handles[i].at, *was);
        if (!tie.there)
            continue;
        const std::optional<double> top = tie.atTop ? std::optional(after.height) : std::nullopt;
        next = familyOf(shape).hung(next, i, {after.at.x, after.at.y, top, true});
    }
    return buildOver(next, ground) ? next : shape;
}

AntennaShape cornered(const Site& site, const AntennaShape& before, const std::string& key, const AntennaShape& typed)
{
    const Family& family = familyOf(typed);
    if (before.family != typed.family || !family.shapesCorners(key))
        return typed;
    const Ground ground = site.soil.ground();
    AntennaShape next = typed;
    family.beginCorners(before, next);
    const Result<BuiltAntenna> was = buildOver(before, ground);
    const std::optional<std::size_t> end = family.hangsBy(before), now = family.hangsBy(next);
    const Support* support = was && end && *end < was->handles.size() ? tiedTo(site, *was, *end) : nullptr;
    const Result<BuiltAntenna> there = buildOver(next, ground);
    if (support && now && there && *now < there->handles.size() && tiedTo(site, *there, *now) != support) {
        const std::optional<double> top =
            tieOf(*was, was->handles[*end].at, *support).atTop ? std::optional(support->height) : std::nullopt;
        next = family.hung(next, *now, {support->at.x, support->at.y, top, true});
    }
    return buildOver(next, ground) ? next : typed;
}

namespace {

/// m from a point to where a direction first crosses an outline; nothing where it does not.
std::optional<double> wayToEdge(const Outline& outline, PlanPoint from, PlanPoint direction)
{
    std::optional<double> nearest;
    for (std::size_t i = 0; i < outline.size(); ++i) {
        const PlanPoint a = outline[i], b = outline[(i + 1) % outline.size()], edge{b.x - a.x, b.y - a.y}, to{a.x - from.x, a.y - from.y};
        const double across = direction.x * edge.y - direction.y * edge.x;
        if (std::abs(across) < 1e-12)
            continue;
        const double way = (to.x * edge.y - to.y * edge.x) / across, part = (to.x * direction.y - to.y * direction.x) / across;
        if (way > 0.0 && part >= 0.0 && part <= 1.0 && (!nearest || way < *nearest))
            nearest = way;
    }
    return nearest;
}

} // namespace

std::optional<double> roomForWire(const Site& site, const BuiltAntenna& antenna)
{
    if (antenna.model.wires.empty())
        return std::nullopt;
    const std::vector<Vec3>& points = antenna.model.wires.front().points;
    const Vec3 before = points[points.size() - 2], end = points.back(), run = end - before;
    const double length = antenna.model.wires.front().length(), last = distance(before, end), level = std::hypot(run.x, run.y);
    for (std::size_t i = 0; i < antenna.handles.size(); ++i)
        if (distance(antenna.handles[i].at, end) < jointTolerance)
            if (const Support* support = tiedTo(site, antenna, i))
                return length - last + distance(before, {support->at.x, support->at.y, support->height});
    if (site.boundary.size() < 3 || level < jointTolerance)
        return std::nullopt;
    const auto way = wayToEdge(site.boundary, {before.x, before.y}, {run.x / level, run.y / level});
    return way ? std::optional(length - last + std::hypot(*way, run.z)) : std::nullopt;
}

} // namespace vetchling::shapes
