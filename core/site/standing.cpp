#include "core/site/standing.h"

#include <algorithm>
#include <cmath>

namespace vetchling {
namespace {

bool isTube(const Wire& wire) { return wire.radius >= tubeRadius; }

bool tiedTo(const Site& site, Vec3 p)
{
    return std::any_of(site.supports.begin(), site.supports.end(), [&](const Support& s) { return holdsAt(s, p); });
}

/// Ends of wires in the air that a support holds, directly or by a rope.
std::vector<Vec3> heldEnds(const Site& site, const WireModel& model)
{
    std::vector<Vec3> all;
    for (const Wire& w : model.wires) {
        const std::size_t last = w.points.size() - 1;
        for (const auto& [end, next] : {std::pair(w.points[0], w.points[1]), std::pair(w.points[last], w.points[last - 1])})
            if (end.z > heldFrom && (tiedTo(site, end) || ropeHold(site, next, end)))
                all.push_back(end);
    }
    return all;
}

/// Between two ends that are held, in plan.
bool hangsBetween(const std::vector<Vec3>& held, Vec3 top)
{
    constexpr double aside = 0.5, beside = 1.0; // m
    const PlanPoint at{top.x, top.y};
    const auto away = [&](Vec3 p) { return std::hypot(p.x - top.x, p.y - top.y) > beside; };
    for (std::size_t i = 0; i < held.size(); ++i)
        for (std::size_t k = 0; k < i; ++k)
            if (away(held[i]) && away(held[k]) && distanceToSegment(at, {held[i].x, held[i].y}, {held[k].x, held[k].y}) < aside)
                return true;
    return false;
}

/// Tops of straight uprights that begin low enough to stand on the ground.
std::vector<Vec3> uprightTops(const WireModel& model)
{
    constexpr double straight = 0.05; // m
    std::vector<Vec3> all;
    for (const Wire& w : model.wires)
        for (std::size_t i = 1; i < w.points.size(); ++i) {
            const Vec3 a = w.points[i - 1], b = w.points[i], top = a.z > b.z ? a : b;
            if (std::hypot(a.x - b.x, a.y - b.y) < straight && std::min(a.z, b.z) < heldFrom && top.z > heldFrom)
                all.push_back(top);
        }
    return all;
}

Vec3 feedOf(const WireModel& model)
{
    const Feed& feed = model.feeds.front();
    return model.wires[feed.wire].pointAt(feed.at);
}

/// Tubes leave the feed sideways, high up.
bool carriesTubes(const WireModel& model)
{
    constexpr double near = 1.0; // m
    if (model.feeds.empty() || feedOf(model).z <= heldFrom)
        return false;
    const Vec3 feed = feedOf(model);
    return std::any_of(model.wires.begin(), model.wires.end(), [&](const Wire& w) {
        const Vec3 a = w.points.front(), b = w.points.back();
        const bool leaves = &w == &model.wires[model.feeds.front().wire] || std::min(distance(a, feed), distance(b, feed)) < near;
        return isTube(w) && leaves && std::hypot(a.x - b.x, a.y - b.y) > 0.5 * distance(a, b);
    });
}

} // namespace

OwnMast ownMastOf(const Site& site, const WireModel& model)
{
    OwnMast highest;
    const auto stands = [&](Vec3 top) {
        if (top.z > highest.height && !tiedTo(site, top))
            highest = {top.z, top};
    };
    const std::vector<Vec3> held = heldEnds(site, model);
    for (Vec3 top : uprightTops(model))
        if (!hangsBetween(held, top))
            stands(top);
    if (carriesTubes(model))
        stands(feedOf(model));
    return highest;
}

double tubesReachTooFar(const WireModel& model)
{
    if (model.feeds.empty())
        return 0.0;
    constexpr double telescope = 6e-3; // m: none is thicker at its foot
    const Vec3 from = feedOf(model);
    double out = 0.0, thickest = 0.0;
    for (const Wire& w : model.wires)
        if (isTube(w) && w.points.front().z > heldFrom && w.points.back().z > heldFrom) // lower ones lie, or are a coax
            for (Vec3 p : w.points) {
                out = std::max(out, std::hypot(p.x - from.x, p.y - from.y));
                thickest = std::max(thickest, w.radius);
            }
    return out > (thickest < telescope ? longestWhip : longestTube) ? out : 0.0;
}

} // namespace vetchling
