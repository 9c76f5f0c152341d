#include "bench/cases.h"

#include "core/shapes/family.h"

#include <cmath>

namespace vetchling::bench {
namespace {

Wire copper(std::string id, std::vector<Vec3> points, double radius = 0.9e-3)
{
    Wire w;
    w.id = std::move(id);
    w.points = std::move(points);
    w.radius = radius;
    w.conductivity = 5.8e7;
    return w;
}

std::shared_ptr<const WireModel> shared(WireModel model)
{
    model.ground = demoSoil();
    return std::make_shared<const WireModel>(std::move(model));
}

std::shared_ptr<const WireModel> ofFamily(const char* family, const shapes::Parameters& changes, double frequency)
{
    shapes::AntennaShape shape = shapes::findFamily(family)->standardShape(frequency);
    for (const auto& [key, value] : changes)
        shape.parameters[key] = value;
    return std::make_shared<const WireModel>(shapes::buildOver(shape, demoSoil()).value().model);
}

/// Inverted V in two sections a side, the outer ones hanging on behind an open link of 5 cm.
std::shared_ptr<const WireModel> linked()
{
    const double c = std::cos(radians(30)), s = std::sin(radians(30));
    const auto at = [&](double along, double side) { return Vec3{side * along * c, 0, 13.2 - along * s}; };
    WireModel model;
    model.wires = {copper("inner", {at(9.9, -1), at(0, 1), at(9.9, 1)}), copper("left", {at(9.95, -1), at(13.2, -1)}),
                   copper("right", {at(9.95, 1), at(13.2, 1)})};
    model.feeds.push_back({0, 9.9, 1.0});
    return shared(std::move(model));
}

/// Five pairs of legs from one feedpoint, spread vertically.
std::shared_ptr<const WireModel> fanOfFive()
{
    WireModel model;
    model.wires.push_back(copper("gap", {{-0.05, 0, 12}, {0.05, 0, 12}}));
    const double lengths[] = {10.2, 5.1, 3.9, 2.85, 2.5};
    for (int i = 0; i < 5; ++i) {
        const double slope = radians(8.0 + 9.0 * i), run = lengths[i] * std::cos(slope), drop = lengths[i] * std::sin(slope);
        model.wires.push_back(copper("l" + std::to_string(i), {{-0.05, 0, 12}, {-0.05 - run, 0, 12 - drop}}));
        model.wires.push_back(copper("r" + std::to_string(i), {{0.05, 0, 12}, {0.05 + run, 0, 12 - drop}}));
    }
    model.feeds.push_back({0, 0.05, 1.0});
    return shared(std::move(model));
}

std::shared_ptr<const WireModel> longWire()
{
    const double length = 50.0 * wavelength(14.1e6);
    WireModel model;
    model.wires.push_back(copper("long", {{0, 0, 3}, {length, 0, 3}}));
    model.feeds.push_back({0, 0.25 * wavelength(14.1e6), 1.0});
    return shared(std::move(model));
}

} // namespace

const Ground& demoSoil()
{
    static const Ground soil{GroundKind::Real, 30.0, 0.02};
    return soil;
}

std::shared_ptr<const WireModel> invertedV(double height)
{
    return ofFamily("dipole", {{"apex_height_m", height}, {"end_height_m", height - 5.2}, {"opening_deg", 96}, {"leg_m", 10.23}}, 7.08e6);
}

std::shared_ptr<const WireModel> buriedRadials(int count)
{
    WireModel model;
    model.ground = demoSoil();
    model.wires.push_back(copper("mast", {{0, 0, 10}, {0, 0, 0}, {0, 0, -0.05}}));
    for (int i = 0; i < count; ++i) {
        const double angle = 2.0 * pi * i / count;
        model.wires.push_back(copper("radial" + std::to_string(i), {{0, 0, -0.05}, {7 * std::cos(angle), 7 * std::sin(angle), -0.05}}));
    }
    model.feeds.push_back({0, 9.9, 1.0});
    return shared(std::move(model));
}

std::vector<Case> cases()
{
    return {
        {"inverted-v", invertedV(), 7.08e6, 0.1},
        {"end-fed",
         ofFamily("end-fed",
                  {{"length_m", 19.7},
                   {"first_run_m", 9.8},
                   {"feed_height_m", 2.2},
                   {"bend_height_m", 5.8},
                   {"end_height_m", 5.2},
                   {"counterpoise_m", 1},
                   {"bend_bearing_deg", 0}},
                  7.08e6),
         7.08e6, 0.3},
        {"linked", linked(), 7.08e6, 0.3},
        {"delta", ofFamily("delta-loop", {{"perimeter_m", 17.2}}, 18.1e6), 18.1e6, 0.3},
        {"fan-5", fanOfFive(), 14.1e6, 2.0},
        {"radials-16",
         ofFamily("vertical",
                  {{"radial_count", 16}, {"base_height_m", 0.02}, {"radial_end_height_m", 0.02}, {"radiator_m", 7.0}, {"radial_m", 7.0}},
                  10.1e6),
         10.1e6, 0.5},
        {"radials-120",
         ofFamily("vertical",
                  {{"radial_count", 120}, {"base_height_m", 0.02}, {"radial_end_height_m", 0.02}, {"radiator_m", 7.0}, {"radial_m", 7.0}},
                  10.1e6),
         10.1e6, 10.0},
        {"buried-16", buriedRadials(16), 7.1e6, 2.0},
        {"long-wire", longWire(), 14.1e6, 8.0}};
}

} // namespace vetchling::bench
