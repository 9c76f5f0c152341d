#include "core/workshop/mast_stand.h"

#include "core/root.h"
#include "core/site/standing.h"

#include <algorithm>
#include <cmath>

namespace vetchling {
namespace {

constexpr double standAir = 1.25, standDrag = 1.2, standGravity = 9.81, leastFeet = 0.6, feetPart = 0.2; // kg/m3; m/s2; m; of the height

double pressure(double wind) { return 0.5 * standAir * wind * wind * standDrag; }

/// m of radius that a tripod of that height stands on.
double feetOf(double height) { return std::max(leastFeet, feetPart * height); }

/// kg on the feet that keep a moment from tipping it, its own weight counted.
double ballastFor(double moment, double height)
{
    return std::max(0.0, againstTipping * moment / (standGravity * 0.5 * feetOf(height)) - poleMass * height);
}

/// m2 of the antenna's tubes that the wind meets from its worst side: uprights, and level ones along their length.
double tubeArea(const WireModel& model, double above)
{
    double area = 0.0;
    for (const Wire& w : model.wires)
        if (w.radius >= tubeRadius)
            for (std::size_t i = 1; i < w.points.size(); ++i)
                if (std::min(w.points[i - 1].z, w.points[i].z) > above)
                    area += 2.0 * w.radius * distance(w.points[i - 1], w.points[i]);
    return area;
}

/// An upright's own top, where it stands low by itself: a whip or tube on a tripod or stake. 0: none.
double uprightTop(const WireModel& model)
{
    constexpr double straight = 0.1;
    double top = 0.0;
    for (const Wire& w : model.wires)
        if (w.radius >= tubeRadius && std::hypot(w.points.front().x - w.points.back().x, w.points.front().y - w.points.back().y) < straight &&
            std::min(w.points.front().z, w.points.back().z) < heldFrom)
            top = std::max({top, w.points.front().z, w.points.back().z});
    return top;
}

} // namespace

MastStand poleStand(double height, double wind, double top)
{
    constexpr double guysAt = 2.0 / 3.0, guysOut = 0.5; // of the height
    MastStand out;
    out.height = height;
    const double q = pressure(wind);
    out.force = q * (poleDiameter * height + top);
    out.moment = q * (poleDiameter * height * 0.5 * height + top * height);
    out.footprint = feetOf(height);
    out.ballast = ballastFor(out.moment, height);
    const double own = poleMass * height * standGravity;
    out.pegPull = std::max(0.0, (againstTipping * out.moment - own * 0.5 * out.footprint) / (1.5 * out.footprint));
    out.guyAt = guysAt * height;
    out.guyOut = guysOut * height;
    out.guyPull = againstTipping * out.moment / out.guyAt * std::hypot(out.guyAt, out.guyOut) / out.guyOut;
    const auto needed = [&](double h) { return ballastFor(q * (poleDiameter * h * 0.5 * h + top * h), h); };
    constexpr double highest = 30.0; // m
    out.unstaked = whereRising(needed, usualBallast, 0.3, highest);
    return out;
}

std::optional<MastStand> mastStandOf(const Site& site, const WireModel& model, double wind)
{
    const OwnMast mast = ownMastOf(site, model);
    const double upright = uprightTop(model);
    if (upright > 0.0 && upright >= mast.height - 1e-6) { // the upright is what the wind meets
        MastStand out = poleStand(upright, wind);
        return out;
    }
    if (!(mast.height > 0.0))
        return std::nullopt;
    return poleStand(mast.height, wind, tubeArea(model, heldFrom));
}

std::vector<Text> standWords(const MastStand& s, double wind)
{
    using units::Quantity;
    const auto whole = [](double v) { return Measure{std::round(v)}; };
    std::vector<Text> out;
    out.emplace_back(coreText("core", "It stands by itself, %1 high: wind of %2 m/s pushes with %3 N and turns its foot with %4 Nm."),
                     Measure{s.height, Quantity::Length}, whole(wind), whole(s.force), whole(s.moment));
    if (s.ballast > 0.0)
        out.emplace_back(coreText("core", "Three feet %1 from the middle: %2 kg lie on them, or each is pegged for %3 N."),
                         Measure{s.footprint, Quantity::Length}, whole(std::ceil(s.ballast)), whole(s.pegPull));
    else
        out.emplace_back(coreText("core", "Three feet %1 from the middle keep it up by its own weight."), Measure{s.footprint, Quantity::Length});
    out.emplace_back(coreText("core", "Or three guys from %1 up to pegs %2 out: %3 N in the one that takes the wind."),
                     Measure{s.guyAt, Quantity::Length}, Measure{s.guyOut, Quantity::Length}, whole(s.guyPull));
    if (s.unstaked < s.height)
        out.emplace_back(coreText("core", "Keep it below %1 where nothing can be staked and %2 kg are all there is."),
                         Measure{s.unstaked, Quantity::Length}, whole(usualBallast));
    return out;
}

} // namespace vetchling
