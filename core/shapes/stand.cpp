#include "core/shapes/stand.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace vetchling::shapes {
namespace {

constexpr double quarterWave = 0.238;   // of a wire with its end effect
constexpr double lyingHeight = 0.02;    // m, of a wire that lies on the soil
constexpr double shortestPiece = 0.005; // m, not worth a corner of its own
constexpr double shallowest = 0.01;     // m, of what is dug in

/// The lead from the base into the soil, with the rod that goes on from it.
Faults addEarth(const Family& family, const AntennaShape& shape, double depth, BuiltAntenna& out)
{
    const double rod = family.value(shape, "rod_m");
    if (family.value(shape, "radial_count") < 0.5 && rod == 0.0 && vehicleOf(shape) == OnVehicle::No)
        return {{"radial_count", coreText("core", "without radials it needs a ground rod to stand on; give its length, or some radials")}};
    if (depth > 0.0 && depth < shallowest)
        return {{"radial_depth_m",
                 {coreText("core", "dig them in by %1 or more, or by 0 to lay them on the soil"),
                  Measure{shallowest, units::Quantity::Length}}}};
    if (rod > 0.0 && rod < depth + shallowest)
        return {{"rod_m", coreText("core", "the rod must reach deeper than the radials; make it longer, or 0")}};
    if (depth == 0.0 && rod == 0.0)
        return {};
    const Vec3 base = baseOf(family, shape), surface{base.x, base.y, 0.0}, hub{base.x, base.y, -depth};
    const double lead = rod > 0.0 ? base.z : base.z + depth;
    std::vector<Vec3> down{base, surface};
    if (rod == 0.0)
        down.push_back(hub);
    out.model.wires.push_back(makeWire(wireOf(shape, "radials"), "lead to earth", down));
    out.sections.push_back({coreText("core", "lead to earth"), 1, lead, WireEnd::Joint, WireEnd::Joint, false});
    if (rod == 0.0)
        return {};
    std::vector<Vec3> driven{surface, {base.x, base.y, -rod}};
    if (depth > 0.0)
        driven.insert(driven.begin() + 1, hub);
    WireChoice bare = wireOf(shape, "radials");
    bare.diameter = family.value(shape, "rod_diameter_m");
    bare.jacket = 0.0;
    out.model.wires.push_back(makeWire(bare, "ground rod", driven));
    out.notCut += rod;
    return {};
}

} // namespace

std::vector<ParameterSpec> standParameters(double base, double count)
{
    std::vector<ParameterSpec> all{
        lengthSpec("base_height_m", coreText("core", "Height of base"), hangsGroup, {base, 0.01, 300.0},
                   coreText("core", "2 cm for radials lying on the soil")),
        lengthSpec("radial_end_height_m", coreText("core", "Height of radial ends"), hangsGroup, {base, 0.01, 300.0},
                   coreText("core", "lower than the base: sloping radials")),
        lengthSpec("radial_m", coreText("core", "Length of radials"), lengthGroup, {10.0, 0.02, 2000.0}, {}, quarterWave),
        numberSpec("radial_count", coreText("core", "Number of radials"), lengthGroup, {count, 0.0, 120.0}),
        lengthSpec("radial_anchor_m", coreText("core", "Radials anchored at"), hangsGroup, {0.0, 0.0, 500.0},
                   coreText("core", "distance from the foot; they slope down there and lie on the soil beyond. 0: no anchors")),
        lengthSpec("radial_depth_m", coreText("core", "Radials dug in by"), hangsGroup, {0.0, 0.0, 1.0},
                   coreText("core", "2 to 10 cm in a lawn; then they lie level, whatever is said of their ends. 0: not dug in")),
        lengthSpec("rod_m", coreText("core", "Ground rod"), hangsGroup, {0.0, 0.0, 6.0},
                   coreText("core", "its length in the soil, joined to the base. 0: none")),
        sizeSpec("rod_diameter_m", coreText("core", "Diameter of the rod"), hangsGroup, {0.014, 0.004, 0.06}),
    };
    addPlace(all);
    return all;
}

Vec3 baseOf(const Family& family, const AntennaShape& shape)
{
    return {family.value(shape, "x_m"), family.value(shape, "y_m"), family.value(shape, "base_height_m")};
}

BuiltAntenna standing(Wire radiator, Vec3 base)
{
    BuiltAntenna out;
    out.model.wires.push_back(std::move(radiator));
    out.model.feeds.push_back({0, 0.0, 1.0});
    out.feedPoint = base;
    return out;
}

Result<std::vector<Vec3>> radialPath(Vec3 base, double length, double bearing, double endHeight, double anchor)
{
    const Vec3 out = towards(bearing);
    if (anchor > 0.0) {
        const Vec3 stake = Vec3{base.x, base.y, lyingHeight} + anchor * out;
        const double sloping = distance(base, stake);
        if (length > sloping + shortestPiece && base.z > lyingHeight + shortestPiece)
            return std::vector<Vec3>{base, stake, stake + (length - sloping) * out};
        const Vec3 end = base + std::min(1.0, length / sloping) * (stake - base); // the rest of the way is rope
        return std::vector<Vec3>{base, length > sloping ? end + (length - sloping) * out : end};
    }
    const double drop = base.z - endHeight;
    if (std::abs(drop) >= 0.999 * length)
        return Fault{"radial_end_height_m",
                     {coreText("core", "radials of %1 cannot end %2 below the base; raise their ends"),
                      Measure{length, units::Quantity::Length}, Measure{drop, units::Quantity::Length}}};
    return std::vector<Vec3>{base, base + std::sqrt(length * length - drop * drop) * out + Vec3{0.0, 0.0, -drop}};
}

Faults addRadials(const Family& family, const AntennaShape& shape, BuiltAntenna& out)
{
    const auto v = [&](const char* key) { return family.value(shape, key); };
    const Vec3 base = baseOf(family, shape);
    const int count = int(std::lround(v("radial_count")));
    const double depth = count > 0 ? v("radial_depth_m") : 0.0, anchor = v("radial_anchor_m");
    if (Faults faults = addEarth(family, shape, depth, out); !faults.empty())
        return faults;
    const Vec3 hub = depth > 0.0 ? Vec3{base.x, base.y, -depth} : base;
    const OnVehicle on = vehicleOf(shape);
    if (on == OnVehicle::Roof && count > 0)
        return {{"radial_count", coreText("core", "on a roof its sheet takes the place of radials; give 0, or stand it on a bracket")}};
    if (on != OnVehicle::No && (depth > 0.0 || v("rod_m") > 0.0))
        return {{depth > 0.0 ? "radial_depth_m" : "rod_m", coreText("core", "a vehicle stands on its tyres; nothing is dug in or driven")}};
    if (Faults faults = addVehicle(family, shape, base, v("bearing_deg"), "radials", out); !faults.empty())
        return faults;
    for (int i = 0; i < count; ++i) {
        // behind a vehicle they spread over what is free
        const double bearing = v("bearing_deg") + (on == OnVehicle::Rear ? 180.0 * (0.5 + double(i + 1) / (count + 1)) : 360.0 * i / count);
        const Result<std::vector<Vec3>> path = depth > 0.0 ? radialPath(hub, v("radial_m"), bearing, hub.z, 0.0)
                                                           : radialPath(base, v("radial_m"), bearing, v("radial_end_height_m"), anchor);
        if (!path)
            return path.faults();
        const Vec3 end = path->back();
        out.model.wires.push_back(makeWire(wireOf(shape, "radials"), fmt::format("radial {}", i + 1), *path));
        if (depth == 0.0)
            out.insulators.push_back(end);
        if (i > 0)
            continue;
        out.handles.push_back({coreText("core", "radial end"), end,
                               anchor > 0.0 || depth > 0.0 ? std::vector<std::string>{"radial_m"}
                                                           : std::vector<std::string>{"radial_end_height_m", "radial_m"}});
        if (path->size() == 3)
            out.handles.push_back({coreText("core", "anchor"), (*path)[1], {"radial_anchor_m"}});
        out.dimensions.push_back({hub, end, "radial_m"});
    }
    if (count > 0)
        out.sections.push_back(
            {coreText("core", "radial"), count, v("radial_m"), WireEnd::Joint, depth > 0.0 ? WireEnd::Bare : WireEnd::Insulator, false});
    return {};
}

ArmKind uprightArm()
{
    ArmKind kind;
    kind.length = "radiator_m";
    kind.part = "radiator";
    kind.pair = false;
    kind.henryLabel = coreText("core", "Coil");
    kind.placeLabel = coreText("core", "Coil up the radiator");
    kind.placeHelp = coreText("core", "0 is at the base, 100 at the top");
    kind.whole = coreText("core", "radiator");
    kind.inner = coreText("core", "below the coil");
    kind.outer = coreText("core", "above the coil");
    return kind;
}

std::vector<Lever> ArmVertical::levers(const AntennaShape& shape) const
{
    const std::vector<Lever> stand = standLevers(kind().length);
    std::vector<Lever> all = armLevers(*this, kind(), shape, stand.front());
    all.insert(all.begin() + 1, stand.begin() + 1, stand.end());
    return all;
}

Result<BuiltAntenna> ArmVertical::build(const AntennaShape& shape, std::size_t) const
{
    const Result<Arm> arm = armOf(*this, kind(), shape);
    if (!arm)
        return arm.faults();
    const Vec3 base = baseOf(*this, shape);
    const ArmLine line = armLine(base, base + Vec3{0.0, 0.0, 1.0}, value(shape, "bearing_deg"));
    BuiltAntenna out;
    out.feedPoint = base;
    layArms(shape, kind(), {*arm}, {line}, "radiator", out);
    if (Faults faults = addRadials(*this, shape, out); !faults.empty())
        return faults;
    const Vec3 top = line.at(arm->straight());
    out.handles.push_back({coreText("core", "top"), top, {kind().length}});
    out.handles.push_back({coreText("core", "base"), base, {"base_height_m"}});
    if (!out.coils.empty() && arm->coilAt > 0.0)
        out.handles.push_back({coreText("core", "coil"),
                               line.at(arm->coilAt),
                               {spec(shape, "coil_place_percent") ? std::string("coil_place_percent") : "tube_1_m"}});
    if (arm->droop > 0.0)
        out.dimensions.push_back({top, tipOf(*arm, line), "droop_m"});
    else
        out.dimensions.push_back({base, top, kind().length});
    if (arm->fold > 0.0)
        out.dimensions.push_back({line.at(arm->foldAt), line.at(arm->foldAt + arm->fold), "loading_m"});
    addMore(shape, out);
    return out;
}

std::vector<RuleOfThumb> quarterWaveRules(double frequency)
{
    return {feetRule("234 / f", coreText("core", "thin wire, 5 % for its end"), 234.0, 1.0, frequency),
            feetRule("246 / f", coreText("core", "quarter wave in free space, nothing taken off"), 246.0, 1.0, frequency)};
}

std::vector<Lever> standLevers(const std::string& radiator)
{
    return {{radiator, coreText("core", "the end"), LeverKind::Cut, LeverSide::OpenEnd, 1},
            {"radial_end_height_m", coreText("core", "the slope of the radials"), LeverKind::Angle, LeverSide::OpenEnd, 1},
            {"radial_anchor_m", coreText("core", "the anchors of the radials"), LeverKind::Angle, LeverSide::OpenEnd, 1}};
}

std::vector<Part> standParts() { return {{"radiator", coreText("core", "Radiator")}, {"radials", coreText("core", "Radials")}}; }

} // namespace vetchling::shapes
