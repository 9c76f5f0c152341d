#include "core/shapes/end_fed_parts.h"

#include <algorithm>
#include <cmath>

namespace vetchling::shapes {
namespace {

enum Return { counterpoiseWire = 0, coaxShield = 1 };

/// A counterpoise hangs level away from the wire; a shield drops to 20 cm and runs on there.
std::vector<Vec3> returnPath(const Family& family, const AntennaShape& shape, Vec3 feed)
{
    constexpr double shieldHeight = 0.2, shortest = 0.02; // m
    const double length = family.value(shape, "counterpoise_m");
    const Vec3 away = towards(family.value(shape, "bearing_deg") + 180.0);
    if (family.value(shape, "return_kind") < 0.5)
        return {feed, feed + length * away};
    const double drop = std::min(length, feed.z - shieldHeight);
    if (drop <= 0.01)
        return {feed, feed + length * away};
    std::vector<Vec3> points{feed, feed - Vec3{0.0, 0.0, drop}};
    if (length - drop > shortest)
        points.push_back(points.back() + (length - drop) * away);
    return points;
}

} // namespace

std::vector<ParameterSpec> endFedHeights()
{
    return {lengthSpec("feed_height_m", coreText("core", "Height of feed"), hangsGroup, {2.5, 0.05, 500.0}),
            lengthSpec("end_height_m", coreText("core", "Height of far end"), hangsGroup, {6.0, 0.05, 500.0})};
}

void addEndFedFeed(std::vector<ParameterSpec>& all, double ratio, double lossPercent)
{
    all.push_back(choiceSpec("return_kind", coreText("core", "Return current in"), feedGroup,
                             {coreText("core", "short counterpoise"), coreText("core", "coax shield to a choke")},
                             coreText("core", "one school says none is needed: then the shield is it")));
    all.push_back(lengthSpec("counterpoise_m", coreText("core", "Length of that"), feedGroup, {2.0, 0.02, 100.0},
                             coreText("core", "counterpoise, or shield from the transformer to the choke"), 0.05));
    all.push_back(transformerRatio(ratio, 200.0));
    all.push_back(percentSpec("transformer_loss_percent", coreText("core", "It loses"), feedGroup, {lossPercent, 0.0, 60.0},
                              coreText("core", "of the power, into a matched load")));
    all.push_back(inductanceSpec("winding_H", coreText("core", "Winding on the line's side"), feedGroup, {0.0, 0.0, 1e-2},
                                 coreText("core", "inductance; too little lifts the SWR on the lowest band. 0: not counted")));
    all.push_back(inductanceSpec("leakage_H", coreText("core", "Leakage inductance"), feedGroup, {0.0, 0.0, 1e-4},
                                 coreText("core", "on the line's side; spoils the highest bands. 0: not counted")));
    all.push_back(capacitanceSpec("capacitor_F", coreText("core", "Capacitor across the line"), feedGroup, {0.0, 0.0, 1e-8},
                                  coreText("core", "at the transformer, against its leakage and for the upper bands. 0: none")));
    addPlace(all);
}

Faults addRun(std::vector<Vec3>& points, double length, double height, double bearing, const std::string& key)
{
    const double rise = height - points.back().z;
    if (std::abs(rise) >= 0.999 * length)
        return {{key,
                 {coreText("core", "%1 of wire cannot climb %2; change the height or the length"), Measure{length, units::Quantity::Length},
                  Measure{rise, units::Quantity::Length}}}};
    points.push_back(points.back() + std::sqrt(length * length - rise * rise) * towards(bearing) + Vec3{0.0, 0.0, rise});
    return {};
}

BuiltAntenna endFedFrame(const Family& family, const AntennaShape& shape, std::vector<Vec3> wire, double portReference)
{
    const auto v = [&](const char* key) { return family.value(shape, key); };
    const Vec3 feed = wire.front();
    BuiltAntenna out;
    out.model.wires.push_back(makeWire(wireOf(shape, "wire"), "wire", std::move(wire)));
    out.model.wires.push_back(makeWire(wireOf(shape, "counterpoise"), "counterpoise", returnPath(family, shape, feed)));
    out.model.feeds.push_back({0, 0.0, 1.0});
    out.portReference = portReference;
    out.transformer = transformer(v("transformer_ratio"), v("transformer_loss_percent"), v("winding_H"), v("leakage_H"), v("capacitor_F"));
    out.highVoltageFeed = true;
    out.feedPoint = feed;
    out.handles.push_back({coreText("core", "feed"), feed, {"feed_height_m"}});
    return out;
}

void addCounterpoiseSection(const Family& family, const AntennaShape& shape, BuiltAntenna& out)
{
    const double length = family.value(shape, "counterpoise_m");
    if (family.value(shape, "return_kind") < 0.5)
        out.sections.push_back({coreText("core", "counterpoise"), 1, length, WireEnd::Transformer, WireEnd::Insulator, false});
    else
        out.notCut += length;
}

std::vector<Part> endFedParts() { return {{"wire", coreText("core", "Wire")}, {"counterpoise", coreText("core", "Counterpoise")}}; }

void lowerToReach(const Family& family, AntennaShape& shape, const std::string& length, const std::vector<std::string>& heights)
{
    const double highest = family.value(shape, "feed_height_m") + 0.35 * family.value(shape, length);
    for (const std::string& key : heights)
        shape.parameters[key] = std::min(shape.parameters[key], highest);
}

AntennaShape endFedBetween(const Family& family, const AntennaShape& shape, const Hook& from, const Hook& to)
{
    AntennaShape next = shape;
    next.parameters["x_m"] = from.x;
    next.parameters["y_m"] = from.y;
    return family.hung(next, 1, to);
}

AntennaShape straightHung(const Family& family, const AntennaShape& shape, std::size_t handle, const Hook& hook, double length)
{
    AntennaShape next = shape;
    if (handle == 0) {
        next.parameters["x_m"] = hook.x;
        next.parameters["y_m"] = hook.y;
        if (hook.top)
            next.parameters["feed_height_m"] = std::min(family.value(shape, "feed_height_m"), *hook.top);
        return next;
    }
    const double east = hook.x - family.value(shape, "x_m"), north = hook.y - family.value(shape, "y_m");
    next.parameters["bearing_deg"] = bearingTowards(east, north);
    if (hook.top)
        next.parameters["end_height_m"] = ropeHeight(family.value(shape, "feed_height_m"), std::hypot(east, north), *hook.top, length);
    return next;
}

} // namespace vetchling::shapes
