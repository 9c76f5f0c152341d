#include "core/shapes/dipole_geometry.h"

#include <fmt/format.h>

#include <cmath>

namespace vetchling::shapes {
namespace {

Result<Vec3> legEnd(Vec3 centre, double leg, double endHeight, double bearing)
{
    const double drop = centre.z - endHeight;
    if (std::abs(drop) >= 0.999 * leg)
        return Fault{
            "end_height_m",
            fmt::format("the end would hang {:.2f} m below the centre, but a side is only {:.2f} m long; raise the end", drop, leg)};
    return centre + std::sqrt(leg * leg - drop * drop) * towards(bearing) + Vec3{0.0, 0.0, -drop};
}

} // namespace

std::vector<ParameterSpec> dipoleParameters(double leg, double apex, double ends)
{
    using units::Quantity;
    std::vector<ParameterSpec> all{
        {"apex_height_m", "Height of centre", "Where it hangs", Quantity::Length, apex, 0.05, 500.0, {}, "feedpoint above ground"},
        {"end_height_m",
         "Height of ends",
         "Where it hangs",
         Quantity::Length,
         ends,
         0.05,
         500.0,
         {},
         "both ends, unless the second is set apart"},
        {"second_end_m", "Second end higher by", "Where it hangs", Quantity::Length, 0.0, -200.0, 200.0, {}, "makes a sloping dipole"},
        {"opening_deg",
         "Angle between legs in plan",
         "Where it stands",
         Quantity::Angle,
         180.0,
         20.0,
         180.0,
         {},
         "180 is straight, seen from above"},
        {"leg_m", "Length a side", "Length", Quantity::Length, leg, 0.05, 1000.0, {}, {}},
    };
    for (ParameterSpec& s : placeParameters())
        all.push_back(std::move(s));
    return all;
}

Result<DipoleGeometry> dipoleGeometry(const Family& family, const AntennaShape& shape)
{
    const auto value = [&](const char* key) { return family.value(shape, key); };
    DipoleGeometry g;
    g.centre = {value("x_m"), value("y_m"), value("apex_height_m")};
    g.leg = value("leg_m");
    const Result<Vec3> a = legEnd(g.centre, g.leg, value("end_height_m"), value("bearing_deg"));
    if (!a)
        return a.faults();
    const Result<Vec3> b =
        legEnd(g.centre, g.leg, value("end_height_m") + value("second_end_m"), value("bearing_deg") + value("opening_deg"));
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
    out.handles = {{"centre", g.centre, {"apex_height_m"}},
                   {"first end", g.endA, {"end_height_m", "leg_m"}},
                   {"second end", g.endB, {"end_height_m", "leg_m"}}};
    out.dimensions = {{g.centre, g.endA, "leg_m"}, {g.centre, g.endB, "leg_m"}};
    out.insulators = {g.endA, g.endB};
    return out;
}

RuleOfThumb feetRule(std::string name, std::string assumption, double feetMegahertz, double part, double frequency)
{
    const double metres = feetMegahertz * 0.3048;
    return {std::move(name), std::move(assumption), feetMegahertz, metres, part * metres / (frequency / 1e6)};
}

} // namespace vetchling::shapes
