#include "core/shapes/vehicle.h"

#include <fmt/format.h>

#include <cmath>

namespace vetchling::shapes {

Vec3 Body::at(double along, double across, bool top) const
{
    return Vec3{x, y, top ? roof : clearance} + along * length * towards(bearing) + across * width * towards(bearing + 90.0);
}

void addBodySpecs(std::vector<ParameterSpec>& all)
{
    all.push_back(lengthSpec("body_length_m", coreText("core", "Length of the body"), hangsGroup, {4.3, 0.5, 30.0}));
    all.push_back(lengthSpec("body_width_m", coreText("core", "Its width"), hangsGroup, {1.7, 0.3, 5.0}));
    all.push_back(lengthSpec("body_clearance_m", coreText("core", "Body above the soil"), hangsGroup, {0.25, 0.1, 2.0}));
}

Result<Body> bodyOf(const Family& family, const AntennaShape& shape, double roof, const char* roofKey)
{
    const auto v = [&](const char* key) { return family.value(shape, key); };
    constexpr double flattest = 0.3; // m
    if (roof < v("body_clearance_m") + flattest)
        return Fault{roofKey, coreText("core", "the roof must lie at least 30 cm above the underside")};
    return Body{v("x_m"), v("y_m"), v("bearing_deg"), v("body_length_m"), v("body_width_m"), roof, v("body_clearance_m")};
}

void addBody(const Body& body, const WireChoice& metal, BuiltAntenna& out)
{
    WireChoice sheet = metal;
    sheet.diameter = 2.0 * bodyRadius;
    sheet.jacket = 0.0;
    const auto add = [&](std::vector<Vec3> points) {
        const std::size_t edge = out.model.wires.size();
        out.model.wires.push_back(makeWire(sheet, fmt::format("body {}", edge), std::move(points)));
        out.notCut += out.model.wires.back().length();
    };
    for (bool top : {true, false})
        for (double across : {-0.5, 0.5})
            add({body.at(-0.5, across, top), body.at(0.0, across, top), body.at(0.5, across, top)});
    for (double along : {-0.5, 0.0, 0.5})
        add({body.at(along, -0.5, true), body.at(along, 0.0, true), body.at(along, 0.5, true)});
    for (double along : {-0.5, 0.5})
        add({body.at(along, -0.5, false), body.at(along, 0.5, false)});
    add({body.at(-0.5, 0.0, true), body.at(0.0, 0.0, true), body.at(0.5, 0.0, true)});
    for (double along : {-0.5, 0.0, 0.5})
        for (double across : {-0.5, 0.5})
            add({body.at(along, across, true), body.at(along, across, false)});
}

OnVehicle vehicleOf(const AntennaShape& shape)
{
    const auto found = shape.parameters.find("vehicle");
    return found == shape.parameters.end() || found->second < 0.5 ? OnVehicle::No : found->second < 1.5 ? OnVehicle::Roof : OnVehicle::Rear;
}

std::string vehicleLayout(const AntennaShape& shape)
{
    const OnVehicle on = vehicleOf(shape);
    return on == OnVehicle::No ? "" : on == OnVehicle::Roof ? "v" : "b";
}

void addVehicleSpecs(std::vector<ParameterSpec>& all, const AntennaShape& shape)
{
    all.push_back(choiceSpec("vehicle", coreText("core", "On a vehicle"), hangsGroup,
                             {coreText("core", "no"), coreText("core", "on its roof"), coreText("core", "on a bracket at its rear")},
                             coreText("core", "its body is then part of the antenna, its roof as high as the base")));
    if (vehicleOf(shape) == OnVehicle::No)
        return;
    addBodySpecs(all);
    if (vehicleOf(shape) == OnVehicle::Rear)
        all.push_back(lengthSpec("bracket_m", coreText("core", "Bracket behind the body"), hangsGroup, {0.3, 0.05, 2.0}));
}

Faults addVehicle(const Family& family, const AntennaShape& shape, Vec3 base, double ahead, const std::string& part, BuiltAntenna& out)
{
    const OnVehicle on = vehicleOf(shape);
    if (on == OnVehicle::No)
        return {};
    const Result<Body> found = bodyOf(family, shape, base.z, "base_height_m");
    if (!found)
        return found.faults();
    Body body = *found;
    const double away = on == OnVehicle::Rear ? 0.5 * body.length + family.value(shape, "bracket_m") : 0.0;
    body.bearing = ahead;
    body.x = base.x + away * towards(ahead).x;
    body.y = base.y + away * towards(ahead).y;
    if (on == OnVehicle::Rear) {
        WireChoice strip = wireOf(shape, part);
        strip.diameter = bodyRadius;
        strip.jacket = 0.0;
        out.model.wires.push_back(makeWire(strip, "bracket", {base, body.at(-0.5, 0.0, true)}));
        out.notCut += out.model.wires.back().length();
    }
    addBody(body, wireOf(shape, part), out);
    return {};
}

} // namespace vetchling::shapes
