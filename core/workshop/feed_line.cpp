#include "core/workshop/feed_line.h"

#include "core/line/parts.h"

#include <algorithm>
#include <cmath>

namespace vetchling {
namespace {

constexpr double openWire = 150.0; // ohm, from which a line is no coax

double wayOf(Vec3 feed, const Site& site)
{
    double length = std::max(0.0, feed.z);
    PlanPoint at{feed.x, feed.y};
    Outline route = site.coaxRoute;
    route.push_back(site.feedEntry);
    for (PlanPoint p : route) {
        length += std::hypot(p.x - at.x, p.y - at.y);
        at = p;
    }
    return length;
}

} // namespace

FeedLine feedLineOf(const Antenna& antenna, Vec3 feedPoint, const Site& site)
{
    FeedLine out;
    out.way = wayOf(feedPoint, site);
    for (const ChainPart& part : wholeChain(antenna))
        if (part.kind == part::line)
            (partValue(part, "impedance_ohm") < openWire ? out.coax : out.open) += partValue(part, "length_m");
    if (out.coax + out.open == 0.0)
        out.coax = out.way;
    return out;
}

} // namespace vetchling
