#include "core/shapes/end_fed_parts.h"

#include <algorithm>
#include <cmath>
#include <set>

namespace vetchling::shapes {
namespace {

constexpr double shieldRadius = 2.5e-3, shortestShield = 0.3; // m; no choke is so good that nothing of the coax acts

Vec3 awayFrom(const Family& family, const AntennaShape& shape) { return towards(family.value(shape, "bearing_deg") + 180.0); }

double shieldLength(const Family& family, const AntennaShape& shape)
{
    const double typed = family.value(shape, "shield_m");
    return std::max(shortestShield, typed > 0.0 ? typed : shape.shield.length > 0.0 ? shape.shield.length : assumedShield);
}

/// Goes on so far towards a place, or until the length is used up.
void goOn(std::vector<Vec3>& points, double& left, Vec3 to)
{
    constexpr double shortest = 0.02; // m
    const double piece = distance(points.back(), to);
    if (left < shortest || piece < shortest)
        return;
    points.push_back(points.back() + std::min(1.0, left / piece) * (to - points.back()));
    left -= std::min(left, piece);
}

/// Straight down and along its route on the ground; beyond that, and without one, on in the last direction away from the antenna.
std::vector<Vec3> shieldPath(const Family& family, const AntennaShape& shape, Vec3 feed)
{
    const double height = std::min(feed.z, family.value(shape, "shield_height_m"));
    double left = shieldLength(family, shape);
    std::vector<Vec3> points{feed};
    goOn(points, left, {feed.x, feed.y, height});
    Vec3 onward = awayFrom(family, shape);
    for (Vec3 corner : shape.shield.route) {
        corner.z = points.back().z;
        if (distance(points.back(), corner) < shortestShield)
            continue;
        onward = unit(corner - points.back());
        goOn(points, left, corner);
    }
    goOn(points, left, points.back() + left * onward);
    return points;
}

/// A counterpoise hangs level away from the wire.
Wire returnWire(const Family& family, const AntennaShape& shape, Vec3 feed)
{
    if (!returnsByShield(shape)) {
        const double length = family.value(shape, "counterpoise_m");
        return makeWire(wireOf(shape, "counterpoise"), "counterpoise", {feed, feed + length * awayFrom(family, shape)});
    }
    return shieldFrom(family, shape, feed);
}

} // namespace

Wire shieldFrom(const Family& family, const AntennaShape& shape, Vec3 from)
{
    Wire shield{"shield", shieldPath(family, shape, from), shieldRadius};
    shield.conductivity = 5.8e7;
    return shield;
}

bool shieldActs(const AntennaShape& shape)
{
    if (!returnsByShield(shape))
        return false;
    const bool needsIt = familyOf(shape).spec(shape, "counterpoise_m") != nullptr; // and has some assumed
    return needsIt || !followsFeedLine(shape) || shape.shield.length >= shortestShield;
}

bool returnsByShield(const AntennaShape& shape)
{
    static const std::set<std::string> endFed = [] { // asked at every change of a design, where a family's list takes its time
        std::set<std::string> ids;
        for (const Family* family : families())
            if (family->standardShape(7.1e6).parameters.contains("return_kind"))
                ids.insert(family->id());
        return ids;
    }();
    if (!endFed.contains(shape.family))
        return false;
    const auto said = shape.parameters.find("return_kind");
    return (said != shape.parameters.end() ? said->second : familyOf(shape).value(shape, "return_kind")) >= 0.5;
}

bool followsFeedLine(const AntennaShape& shape)
{
    if (!returnsByShield(shape))
        return false;
    const auto said = shape.parameters.find("shield_m");
    return said == shape.parameters.end() || said->second <= 0.0;
}

std::vector<Text> returnRemarks(const AntennaShape& shape)
{
    if (!followsFeedLine(shape))
        return {};
    const ShieldRun& run = shape.shield;
    if (run.length <= 0.0)
        return {
            {coreText("core", "The return current is taken to flow on %1 of coax up to a choke: draw line and choke under Feed, or type "
                              "the length."),
             Measure{assumedShield, units::Quantity::Length}}};
    if (!run.toChoke)
        return {{coreText("core", "The return current flows on the coax as far as the radio, %1: a choke ends it earlier."),
                 Measure{run.length, units::Quantity::Length}}};
    if (run.length < shortestShield)
        return {{
            coreText("core", "A choke at the transformer leaves nothing for the return current: put it some metres down the coax, or "
                             "choose a counterpoise."),
        }};
    return {};
}

void addCounterpoiseLever(const AntennaShape& shape, std::vector<Lever>& all)
{
    if (!returnsByShield(shape))
        all.push_back({"counterpoise_m", coreText("core", "the counterpoise"), LeverKind::Cut, LeverSide::OpenEnd, 1});
}

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
    all.back().standard = 1.0;
    all.push_back(lengthSpec("counterpoise_m", coreText("core", "Counterpoise"), feedGroup, {2.0, 0.02, 100.0},
                             coreText("core", "a wire by itself, level, away from the antenna"), 0.05));
    addShieldSpecs(all);
    all[all.size() - 2].help = coreText("core", "from the transformer; 0: as Feed has it, 10 m where nothing is drawn there");
    all.push_back(transformerRatio(ratio, 200.0));
    all.push_back(percentSpec("transformer_loss_percent", coreText("core", "Loss in the transformer"), feedGroup, {lossPercent, 0.0, 60.0},
                              coreText("core", "of the power, into a matched load")));
    all.push_back(inductanceSpec("winding_H", coreText("core", "Winding on the line's side"), feedGroup, {0.0, 0.0, 1e-2},
                                 coreText("core", "inductance; too little lifts the SWR on the lowest band. 0: not counted")));
    all.push_back(inductanceSpec("leakage_H", coreText("core", "Leakage inductance"), feedGroup, {0.0, 0.0, 1e-4},
                                 coreText("core", "on the line's side; spoils the highest bands. 0: not counted")));
    all.push_back(capacitanceSpec("capacitor_F", coreText("core", "Capacitor across the line"), feedGroup, {0.0, 0.0, 1e-8},
                                  coreText("core", "at the transformer, against its leakage and for the upper bands. 0: none")));
    addPlace(all);
}

void addShieldSpecs(std::vector<ParameterSpec>& all)
{
    all.push_back(lengthSpec("shield_m", coreText("core", "Coax to the choke"), feedGroup, {0.0, 0.0, 500.0},
                             coreText("core", "from the transformer; 0: as Feed has it")));
    all.push_back(lengthSpec("shield_height_m", coreText("core", "Coax lies at"), feedGroup, {0.02, 0.005, 100.0},
                             coreText("core", "above the ground, after it has come down from the transformer")));
}

Faults addRun(std::vector<Vec3>& points, double length, double height, double bearing, const std::string& key)
{
    const double rise = height - points.back().z;
    const std::optional<Climb> climb = climbOf(length, rise);
    if (!climb)
        return {{key,
                 {coreText("core", "%1 of wire cannot climb %2; change the height or the length"), Measure{length, units::Quantity::Length},
                  Measure{rise, units::Quantity::Length}}}};
    points.push_back(points.back() + climb->level * towards(bearing) + Vec3{0.0, 0.0, climb->rise});
    return {};
}

BuiltAntenna endFedFrame(const Family& family, const AntennaShape& shape, std::vector<Vec3> wire, double portReference)
{
    const auto v = [&](const char* key) { return family.value(shape, key); };
    const Vec3 feed = wire.front();
    BuiltAntenna out;
    out.model.wires.push_back(makeWire(wireOf(shape, "wire"), "wire", std::move(wire)));
    out.model.wires.push_back(returnWire(family, shape, feed));
    if (returnsByShield(shape))
        out.shieldWire = 1;
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
    if (out.shieldWire)
        out.notCut += out.model.wires[*out.shieldWire].length();
    else
        out.sections.push_back(
            {coreText("core", "counterpoise"), 1, family.value(shape, "counterpoise_m"), WireEnd::Transformer, WireEnd::Insulator, false});
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

std::optional<AntennaShape> straightFlipped(const Family& family, const AntennaShape& shape)
{
    const Result<BuiltAntenna> here = family.build(shape, 0);
    if (!here)
        return std::nullopt;
    const auto far = std::find_if(here->handles.begin(), here->handles.end(), [](const Handle& h) {
        return std::find(h.parameters.begin(), h.parameters.end(), "end_height_m") != h.parameters.end();
    });
    if (far == here->handles.end())
        return std::nullopt;
    AntennaShape next = shape;
    const Vec3 end = far->at;
    next.parameters["x_m"] = end.x;
    next.parameters["y_m"] = end.y;
    next.parameters["feed_height_m"] = family.value(shape, "end_height_m");
    next.parameters["end_height_m"] = family.value(shape, "feed_height_m");
    next.parameters["bearing_deg"] = std::fmod(family.value(shape, "bearing_deg") + 180.0, 360.0);
    return next;
}

} // namespace vetchling::shapes
