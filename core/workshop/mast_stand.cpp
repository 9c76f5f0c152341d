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

Exposed scaled(const Exposed& e, double by) { return {by * e.pole, by * e.top, by * e.area, by * e.at}; }

double forceOn(const Exposed& e, double wind) { return pressure(wind) * (poleDiameter * e.pole + e.area); }
double momentOf(const Exposed& e, double wind) { return pressure(wind) * (poleDiameter * e.pole * 0.5 * e.pole + e.area * e.at); }

/// Adds a tube's face to the wind; what lies level meets it along its whole length.
void add(Exposed& e, const Wire& wire, double above)
{
    for (std::size_t i = 1; i < wire.points.size(); ++i) {
        const Vec3 a = wire.points[i - 1], b = wire.points[i];
        if (std::min(a.z, b.z) < above)
            continue;
        const double area = 2.0 * wire.radius * distance(a, b), middle = 0.5 * (a.z + b.z);
        e.at = (e.area * e.at + area * middle) / std::max(e.area + area, 1e-12);
        e.area += area;
    }
}

/// A tube that stands upright on a stake, tripod or base; nothing where none does.
std::optional<Exposed> uprightTube(const WireModel& model)
{
    constexpr double straight = 0.1;
    std::optional<Exposed> out;
    for (const Wire& w : model.wires) {
        const Vec3 a = w.points.front(), b = w.points.back();
        const double low = std::min(a.z, b.z), high = std::max(a.z, b.z);
        if (w.radius < tubeRadius || std::hypot(a.x - b.x, a.y - b.y) > straight || low > heldFrom || high - low < 0.5 ||
            (out && high <= out->top))
            continue;
        out = Exposed{std::max(0.0, low), high, 0.0, 0.0};
        add(*out, w, 0.0);
    }
    return out;
}

} // namespace

MastStand standOf(const Exposed& exposed, double wind)
{
    constexpr double guysAt = 2.0 / 3.0, guysOut = 0.75, worthGuying = 1.5; // of the height; m out a metre up; m
    MastStand out;
    out.height = exposed.top;
    out.force = forceOn(exposed, wind);
    out.moment = momentOf(exposed, wind);
    out.footprint = feetOf(exposed.top);
    const double own = poleMass * exposed.pole;
    const auto ballast = [&](const Exposed& e) {
        return std::max(0.0, againstTipping * momentOf(e, wind) / (standGravity * 0.5 * feetOf(e.top)) - poleMass * e.pole);
    };
    out.ballast = ballast(exposed);
    out.pegPull = std::max(0.0, (againstTipping * out.moment - own * standGravity * 0.5 * out.footprint) / (1.5 * out.footprint));
    if (exposed.pole >= worthGuying) {
        out.guyAt = std::min(guysAt * exposed.top, exposed.pole);
        out.guyOut = guysOut * out.guyAt;
        out.guyPull = againstTipping * out.moment / out.guyAt * std::hypot(out.guyAt, out.guyOut) / out.guyOut;
    }
    constexpr double lowest = 0.05, highest = 10.0; // times as high
    out.unstaked = exposed.top * whereRising([&](double by) { return ballast(scaled(exposed, by)); }, usualBallast, lowest, highest);
    return out;
}

std::optional<MastStand> mastStandOf(const Site& site, const WireModel& model, double wind)
{
    const OwnMast mast = ownMastOf(site, model);
    const std::optional<Exposed> upright = uprightTube(model);
    if (upright && upright->top >= mast.height - 1e-6)
        return standOf(*upright, wind);
    if (!(mast.height > 0.0))
        return std::nullopt;
    Exposed exposed{mast.height, mast.height, 0.0, 0.0};
    for (const Wire& w : model.wires)
        if (w.radius >= tubeRadius)
            add(exposed, w, heldFrom);
    return standOf(exposed, wind);
}

std::vector<Text> standWords(const MastStand& s, double wind)
{
    using units::Quantity;
    const auto whole = [](double v) { return Measure{std::round(v)}; };
    std::vector<Text> out;
    out.emplace_back(
        coreText("core", "On a mast or foot of its own, %1 high: wind of %2 m/s pushes with %3 N and turns its foot with %4 Nm."),
        Measure{s.height, Quantity::Length}, whole(wind), whole(s.force), whole(s.moment));
    if (s.ballast > 0.0)
        out.emplace_back(coreText("core", "Three feet %1 from the middle: %2 kg lie on them, or each is pegged for %3 N."),
                         Measure{s.footprint, Quantity::Length}, whole(std::ceil(s.ballast)), whole(s.pegPull));
    else
        out.emplace_back(coreText("core", "Three feet %1 from the middle keep it up by its own weight."),
                         Measure{s.footprint, Quantity::Length});
    if (s.guyAt > 0.0)
        out.emplace_back(coreText("core", "Or three guys from %1 up to pegs %2 out: %3 N in the one that takes the wind."),
                         Measure{s.guyAt, Quantity::Length}, Measure{s.guyOut, Quantity::Length}, whole(s.guyPull));
    constexpr double worthTelling = 1.5; // m
    if (s.unstaked < std::min(s.height, worthTelling))
        out.emplace_back(coreText("core", "It has to be staked or guyed: %1 kg on its feet would not keep it in that wind."),
                         whole(usualBallast));
    else if (s.unstaked < s.height)
        out.emplace_back(coreText("core", "Keep it below %1 where nothing can be staked and %2 kg are all there is."),
                         Measure{s.unstaked, Quantity::Length}, whole(usualBallast));
    return out;
}

} // namespace vetchling
