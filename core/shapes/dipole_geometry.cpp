#include "core/shapes/dipole_geometry.h"

#include <cmath>

namespace vetchling::shapes {
namespace {

Result<Vec3> legEnd(Vec3 centre, double leg, double endHeight, double bearing)
{
    const double drop = centre.z - endHeight;
    if (std::abs(drop) >= 0.999 * leg)
        return Fault{"end_height_m",
                     {coreText("core", "the end would hang %1 below the centre, but a side is only %2 long; raise the end"),
                      Measure{drop, units::Quantity::Length}, Measure{leg, units::Quantity::Length}}};
    return centre + std::sqrt(leg * leg - drop * drop) * towards(bearing) + Vec3{0.0, 0.0, -drop};
}

} // namespace

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
        {"leg_m", coreText("core", "Length a side"), lengthGroup, Quantity::Length, 9.95, 0.02, 2000.0, {}, {}, legInWaves},
    };
    addPlace(all);
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
    out.handles = {{coreText("core", "centre"), g.centre, {"apex_height_m"}},
                   {coreText("core", "first end"), g.endA, {"end_height_m", "leg_m"}},
                   {coreText("core", "second end"), g.endB, {"end_height_m", "leg_m"}}};
    out.dimensions = {{g.centre, g.endA, "leg_m"}, {g.centre, g.endB, "leg_m"}};
    out.insulators = {g.endA, g.endB};
    return out;
}

std::vector<RuleOfThumb> halfWaveRules(double frequency)
{
    return {feetRule("468 / f", coreText("core", "bare wire near half a wave up, 5 % for its ends"), 468.0, 0.5, frequency),
            feetRule("485 / f", coreText("core", "a cut-long figure: leaves wire to trim"), 485.0, 0.5, frequency),
            feetRule("492 / f", coreText("core", "half a wave in free space, nothing taken off"), 492.0, 0.5, frequency)};
}

} // namespace vetchling::shapes
