#include "core/shapes/hang.h"

#include <cmath>

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
        for (const auto& [end, before] : {std::pair(wire.points.front(), wire.points[1]),
                                          std::pair(wire.points.back(), wire.points[wire.points.size() - 2])})
            if (distance(end, handle) > samePlace && distance(end, built.feedPoint) > samePlace && ropeHold(site, before, end))
                return true;
    return false;
}

} // namespace

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

} // namespace vetchling::shapes
