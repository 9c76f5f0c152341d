#include "core/shapes/dipole_geometry.h"

#include <algorithm>
#include <cmath>

namespace vetchling::shapes {
namespace {

/// Under a top a flat dipole becomes an inverted V.
AntennaShape centreHung(const Family& family, const AntennaShape& shape, const Hook& hook, double leg)
{
    constexpr double slope = 0.5, outOfReach = 2.6; // m a metre of leg; m
    AntennaShape next = shape;
    next.parameters["x_m"] = hook.x;
    next.parameters["y_m"] = hook.y;
    if (!hook.top)
        return next;
    const double ends = family.value(shape, "end_height_m"), top = *hook.top, flat = std::min(top, family.value(shape, "apex_height_m"));
    next.parameters["apex_height_m"] = top;
    if (ends >= flat)
        next.parameters["end_height_m"] = std::min(top, std::max(outOfReach, top - slope * leg));
    else if (top - ends >= 0.99 * leg)
        next.parameters["end_height_m"] = top - 0.98 * leg;
    return next;
}

/// One leg of a dipole, in plan and height.
struct Leg {
    double bearing, endHeight;
};

AntennaShape endHung(const Family& family, const AntennaShape& shape, bool second, const Hook& hook, double leg)
{
    const auto value = [&](const char* key) { return family.value(shape, key); };
    constexpr double straight = 180.0, fold = 20.0; // degrees; the least opening
    const double east = hook.x - value("x_m"), north = hook.y - value("y_m"), opening = value("opening_deg");
    const bool sloping = family.spec(shape, "second_end_m") != nullptr;
    Leg legs[] = {{value("bearing_deg"), value("end_height_m")},
                  {value("bearing_deg") + opening, value("end_height_m") + (sloping ? value("second_end_m") : 0.0)}};
    Leg &moved = legs[second], &other = legs[!second];
    moved.bearing = bearingTowards(east, north);
    if (hook.top)
        moved.endHeight = ropeHeight(value("apex_height_m"), std::hypot(east, north), *hook.top, leg);
    if (opening == straight && !hook.alone)
        other.bearing = moved.bearing + straight;
    double between = std::fmod(legs[1].bearing - legs[0].bearing + 720.0, 360.0);
    if (between > straight) { // the opening is told clockwise
        std::swap(legs[0], legs[1]);
        between = 360.0 - between;
    }
    AntennaShape next = shape;
    next.parameters["bearing_deg"] = std::fmod(legs[0].bearing + 720.0, 360.0);
    next.parameters["opening_deg"] = std::max(between, fold);
    next.parameters["end_height_m"] = legs[0].endHeight;
    if (sloping)
        next.parameters["second_end_m"] = legs[1].endHeight - legs[0].endHeight;
    return next;
}

} // namespace

Result<Vec3> legEnd(Vec3 centre, double leg, double endHeight, double bearing)
{
    const double drop = centre.z - endHeight;
    if (std::abs(drop) >= 0.999 * leg)
        return Fault{"end_height_m",
                     {coreText("core", "the end would hang %1 below the centre, but a side is only %2 long; raise the end"),
                      Measure{drop, units::Quantity::Length}, Measure{leg, units::Quantity::Length}}};
    return centre + std::sqrt(leg * leg - drop * drop) * towards(bearing) + Vec3{0.0, 0.0, -drop};
}

std::vector<ParameterSpec> dipoleParameters(double apex, double ends, double legInWaves)
{
    using units::Quantity;
    std::vector<ParameterSpec> all{
        {"apex_height_m",
         coreText("core", "Height of centre"),
         hangsGroup,
         Quantity::Length,
         apex,
         0.05,
         500.0,
         {},
         coreText("core", "feedpoint above ground")},
        {"end_height_m",
         coreText("core", "Height of ends"),
         hangsGroup,
         Quantity::Length,
         ends,
         0.05,
         500.0,
         {},
         coreText("core", "both ends, unless the second is set apart")},
        {"second_end_m",
         coreText("core", "Second end higher by"),
         hangsGroup,
         Quantity::Length,
         0.0,
         -200.0,
         200.0,
         {},
         coreText("core", "makes a sloping dipole")},
        {"opening_deg",
         coreText("core", "Angle between legs in plan"),
         standsGroup,
         Quantity::Angle,
         180.0,
         20.0,
         180.0,
         {},
         coreText("core", "180 is straight, seen from above")},
        {"leg_m", coreText("core", "Length a side"), lengthGroup, Quantity::Length, 9.95, 0.02, 5000.0, {}, {}, legInWaves},
    };
    addPlace(all);
    return all;
}

Result<DipoleGeometry> dipoleGeometry(const Family& family, const AntennaShape& shape)
{
    const double leg = family.value(shape, "leg_m");
    return dipoleGeometry(family, shape, {leg, leg});
}

Result<DipoleGeometry> dipoleGeometry(const Family& family, const AntennaShape& shape, std::array<double, 2> legs)
{
    const auto value = [&](const char* key) { return family.value(shape, key); };
    DipoleGeometry g;
    g.centre = {value("x_m"), value("y_m"), value("apex_height_m")};
    g.leg = legs[0];
    const Result<Vec3> a = legEnd(g.centre, g.leg, value("end_height_m"), value("bearing_deg"));
    if (!a)
        return a.faults();
    const Result<Vec3> b =
        legEnd(g.centre, legs[1], value("end_height_m") + value("second_end_m"), value("bearing_deg") + value("opening_deg"));
    if (!b)
        return b.faults();
    g.endA = *a;
    g.endB = *b;
    return g;
}

BuiltAntenna dipoleFrame(const DipoleGeometry& g, const AntennaShape& shape)
{
    BuiltAntenna out;
    out.model.wires.push_back(makeWire(shape.wire, "legs", {g.endA, g.centre, g.endB}));
    out.model.feeds.push_back({0, g.leg, 1.0});
    out.feedPoint = g.centre;
    out.handles = {{coreText("core", "centre"), g.centre, {"apex_height_m"}},
                   {coreText("core", "first end"), g.endA, {"end_height_m", "leg_m"}},
                   {coreText("core", "second end"), g.endB, {"end_height_m", "leg_m"}}};
    out.dimensions = {{g.centre, g.endA, "leg_m"}, {g.centre, g.endB, "leg_m"}};
    out.insulators = {g.endA, g.endB};
    return out;
}

AntennaShape dipoleHung(const Family& family, const AntennaShape& shape, std::size_t handle, const Hook& hook, std::array<double, 2> legs)
{
    return handle == 0 ? centreHung(family, shape, hook, std::min(legs[0], legs[1]))
                       : endHung(family, shape, handle == 2, hook, legs[handle == 2]);
}

AntennaShape stiffHung(const Family& family, const AntennaShape& shape, std::size_t handle, const Hook& hook)
{
    const auto value = [&](const char* key) { return family.value(shape, key); };
    AntennaShape next = shape;
    if (handle > 0) {
        const double towardsHook = bearingTowards(hook.x - value("x_m"), hook.y - value("y_m"));
        next.parameters["bearing_deg"] = std::fmod(towardsHook - (handle == 2 ? value("opening_deg") : 0.0) + 720.0, 360.0);
        return next;
    }
    next.parameters["x_m"] = hook.x;
    next.parameters["y_m"] = hook.y;
    if (hook.top) {
        next.parameters["apex_height_m"] = *hook.top;
        next.parameters["end_height_m"] = std::max(0.05, value("end_height_m") + *hook.top - value("apex_height_m"));
    }
    return next;
}

AntennaShape dipoleBetween(const Family& family, const AntennaShape& shape, const Hook& from, const Hook& to)
{
    constexpr double sag = 0.03; // of the distance
    const double east = to.x - from.x, north = to.y - from.y, away = std::hypot(east, north);
    const double top =
        std::min(from.top.value_or(family.value(shape, "apex_height_m")), to.top.value_or(family.value(shape, "apex_height_m")));
    AntennaShape next = dipoleStraightened(shape);
    next.parameters["x_m"] = 0.5 * (from.x + to.x);
    next.parameters["y_m"] = 0.5 * (from.y + to.y);
    next.parameters["bearing_deg"] = bearingTowards(east, north);
    next.parameters["apex_height_m"] = next.parameters["end_height_m"] = std::max(0.5 * top, top - sag * away);
    return next;
}

AntennaShape dipoleStraightened(const AntennaShape& shape)
{
    AntennaShape next = shape;
    next.parameters["opening_deg"] = 180.0;
    next.parameters["end_height_m"] = familyOf(shape).value(shape, "apex_height_m");
    if (familyOf(shape).spec(shape, "second_end_m"))
        next.parameters["second_end_m"] = 0.0;
    return next;
}

std::array<double, 2> DipoleFamily::sides(const AntennaShape& shape) const
{
    const double leg = value(shape, "leg_m");
    return {leg, leg};
}

AntennaShape DipoleFamily::hung(const AntennaShape& shape, std::size_t handle, const Hook& hook) const
{
    return dipoleHung(*this, shape, handle > 2 ? 1 : handle, hook, sides(shape));
}

std::optional<AntennaShape> DipoleFamily::between(const AntennaShape& shape, const Hook& from, const Hook& to) const
{
    return dipoleBetween(*this, shape, from, to);
}

AntennaShape DipoleFamily::straightened(const AntennaShape& shape) const { return dipoleStraightened(shape); }

std::vector<Lever> ArmDipole::levers(const AntennaShape& shape) const
{
    return armLevers(*this, kind(), shape,
                     stiff() ? Lever{"leg_m", coreText("core", "each tip"), LeverKind::Slide, LeverSide::OpenEnd, 2}
                             : Lever{"leg_m", coreText("core", "each side"), LeverKind::Cut, LeverSide::OpenEnd, 2});
}

Result<BuiltAntenna> ArmDipole::build(const AntennaShape& shape, std::size_t) const
{
    std::vector<Arm> arms;
    for (int side : {0, 1}) {
        Result<Arm> arm = armOf(*this, kind(), shape, side);
        if (!arm)
            return arm.faults();
        arms.push_back(std::move(*arm));
    }
    const Result<DipoleGeometry> g = dipoleGeometry(*this, shape, {arms[0].straight(), arms[1].straight()});
    if (!g)
        return g.faults();
    const std::vector<ArmLine> lines{armLine(g->centre, g->endA, 0.0), armLine(g->centre, g->endB, 0.0)};
    BuiltAntenna out = dipoleFrame(*g, shape);
    out.model = {};
    layArms(shape, kind(), arms, lines, "legs", out);
    const Arm& arm = arms.front();
    // an arm folded inside ends lower
    const bool inside = arm.fold > 0.0 && value(shape, "loading_fold") < 0.5;
    const Vec3 low{0.0, 0.0, inside ? -2.0 * value(shape, "loading_spacing_m") : 0.0};
    for (std::size_t side : {0, 1}) {
        out.handles[side + 1].at = out.handles[side + 1].at + low;
        if (arm.droop > 0.0)
            out.dimensions[side] = {out.handles[side + 1].at, tipOf(arms[side], lines[side]) + low, "droop_m"};
        out.insulators[side] = out.handles[side + 1].at;
    }
    if (!out.coils.empty() && arm.coilAt > 0.0)
        out.handles.push_back({coreText("core", "coil"),
                               lines[0].at(arm.coilAt),
                               {spec(shape, "coil_place_percent") ? std::string("coil_place_percent") : "tube_1_m"}});
    if (arm.fold > 0.0) {
        out.handles.push_back({coreText("core", "fold"), lines[0].at(arm.foldAt + arm.fold), {"loading_m"}});
        out.dimensions.push_back({lines[0].at(arm.foldAt), lines[0].at(arm.foldAt + arm.fold), "loading_m"});
    }
    for (std::size_t tube = 0; tube + 1 < arm.tubes.size(); ++tube)
        out.dimensions.push_back({lines[1].at(arm.tubes[tube].first), lines[1].at(arm.tubes[tube].second),
                                  "tube_" + std::to_string(tube + 1) + "_m"});
    if (stiff())
        out.insulators.clear();
    return out;
}

AntennaShape StiffDipoleFamily::hung(const AntennaShape& shape, std::size_t handle, const Hook& hook) const
{
    return stiffHung(*this, shape, handle, hook);
}

void raiseEnds(AntennaShape& shape, double leg)
{
    constexpr double slope = 0.3; // m a metre of leg
    double& ends = shape.parameters["end_height_m"];
    ends = std::max(ends, shape.parameters["apex_height_m"] - slope * leg);
}

std::vector<RuleOfThumb> halfWaveRules(double frequency, double part)
{
    return {feetRule("468 / f", coreText("core", "bare wire near half a wave up, 5 % for its ends"), 468.0, part, frequency),
            feetRule("485 / f", coreText("core", "a cut-long figure: leaves wire to trim"), 485.0, part, frequency),
            feetRule("492 / f", coreText("core", "half a wave in free space, nothing taken off"), 492.0, part, frequency)};
}

} // namespace vetchling::shapes
