#include "core/workshop/rigging.h"

#include "core/em/conductor.h"

#include "core/physics.h"
#include "core/root.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace vetchling {
namespace {

constexpr double airDensity = 1.25, drag = 1.2, iceDensity = 900.0, jacketDensity = 1350.0;
constexpr double shortest = 1.5, offGround = 0.5; // m
constexpr double joinedWithin = 1.0;              // m that a link or an insulator in a straight stretch may take
constexpr double straight = 0.9998;               // cosine of the angle between two stretches that are one
constexpr double upright = 0.97;
constexpr double held = 1.5;         // m from a support in plan
constexpr double steepEnough = 0.5;  // of a wire that is pulled straight on to the ground
constexpr double aPoleBeyond = 3.0;  // m, where nothing holds an end yet
constexpr double ropeStretch = 0.12; // at its breaking load, of polyester
constexpr double loops = 3.0;        // m of rope in the loops and halyards that hold any corner
constexpr double rod = 2e-3;         // m of radius: what is thicker does not hang

double sleeve(double inside, double thickness) { return std::numbers::pi * thickness * (inside + thickness); }

struct Run {
    Vec3 start, end;
    double radius = 1e-3;
    [[nodiscard]] Vec3 way() const { return unit(end - start); }
};

/// Taken together with another one that goes on in its line.
bool takeIn(Run& run, const Run& other)
{
    for (const auto& [a, b] : {std::pair(other.start, other.end), std::pair(other.end, other.start)}) {
        const Vec3 way = unit(b - a);
        if (norm(a - run.end) < joinedWithin && dot(run.way(), way) > straight) {
            run.end = b;
            return true;
        }
        if (norm(a - run.start) < joinedWithin && dot(run.way() * -1.0, way) > straight) {
            run.start = b;
            return true;
        }
    }
    return false;
}

std::vector<Run> runsOf(const shapes::BuiltAntenna& built)
{
    std::vector<Run> runs;
    for (const Wire& w : built.model.wires)
        for (std::size_t i = 0; i + 1 < w.points.size(); ++i)
            if (norm(w.points[i + 1] - w.points[i]) > 1e-6)
                runs.push_back({w.points[i], w.points[i + 1], w.radius});
    for (bool again = true; again;) {
        again = false;
        for (std::size_t i = 0; i < runs.size(); ++i)
            for (std::size_t k = i + 1; k < runs.size(); ++k)
                if (takeIn(runs[i], runs[k])) {
                    runs.erase(runs.begin() + std::ptrdiff_t(k));
                    again = true;
                    break;
                }
    }
    return runs;
}

const Support* supportBy(const Site& site, Vec3 at)
{
    for (const Support& s : site.supports)
        if (std::hypot(s.at.x - at.x, s.at.y - at.y) < held && s.height > at.z - held)
            return &s;
    return nullptr;
}

std::string nameOf(const shapes::BuiltAntenna& built, Vec3 at)
{
    for (const shapes::Handle& h : built.handles)
        if (norm(h.at - at) < 0.5)
            return h.name;
    return {};
}

/// The part that is as thick.
const shapes::WireChoice& wireOf(const shapes::AntennaShape& shape, double radius)
{
    for (const auto& [part, wire] : shape.partWires)
        if (std::abs(0.5 * wire.diameter - radius) < 1e-7)
            return wire;
    return shape.wire;
}

bool same(const SpanPlace& a, const SpanPlace& b)
{
    return std::abs(norm(a.end - a.start) - norm(b.end - b.start)) < 0.02 &&
           std::abs(std::abs(a.end.z - a.start.z) - std::abs(b.end.z - b.start.z)) < 0.02 &&
           std::abs(std::min(a.start.z, a.end.z) - std::min(b.start.z, b.end.z)) < 0.02;
}

/// Of wire and what rope there is in line with it, as if all were as long as the wire.
double stiffnessOf(const WireLoad& load, const Rigging& rigging, double wire, double rope)
{
    const double give = wire / load.stiffness + rope * ropeStretch / rigging.ropeStrength;
    return wire / give;
}

SpanReport reportOf(const SpanPlace& place, const WireLoad& load, const Rigging& rigging, double rope, Faults& faults)
{
    SpanReport out;
    out.place = place;
    out.load = load;
    const Vec3 across = place.end - place.start;
    const double span = std::hypot(across.x, across.y), rise = std::abs(across.z), wire = norm(across);
    const auto hung = [&](double level) {
        return hangingWithPull({span, load.mass}, level, rise, place.loaded ? rigging.centreMass : 0.0);
    };
    const Result<Hanging> hanging = hung(rigging.pull);
    if (!hanging) {
        faults.push_back(hanging.faults().front());
        return out;
    }
    out.still = *hanging;
    const double weight = (load.mass + (place.loaded ? rigging.centreMass / wire : 0.0)) * gravity,
                 added = load.mass * gravity * (load.times - 1.0), stiffness = stiffnessOf(load, rigging, wire, rope);
    const auto inWeather = [&](double level) {
        return rigging.weight ? level : pullUnderLoad(level, weight, weight + added, stiffness, wire);
    };
    const double level = inWeather(rigging.pull), upper = hanging->end / hanging->horizontal;
    out.pullInWeather = level * upper;
    out.sagInWeather = hanging->sag * (weight + added) / weight * rigging.pull / level;
    out.lowest = std::max(0.0, std::min({place.start.z, place.end.z, 0.5 * (place.start.z + place.end.z) - hanging->sag}));
    const double allowed = load.breaking / rigging.safety;
    const auto stands = [&](double tried) {
        const Result<Hanging> there = hung(tried);
        return there && inWeather(tried) * there->end / tried < allowed;
    };
    out.mostPull = lastWhere(stands, 0.0, allowed, 40);
    return out;
}

RopeReport ropeOf(const shapes::BuiltAntenna& built, const Site& site, Vec3 end, Vec3 way, double pull)
{
    RopeReport rope;
    rope.end = nameOf(built, end);
    rope.pull = pull;
    rope.weight = pull / gravity;
    const Support* support = ropeHold(site, end - way, end);
    Vec3 to = end;
    if (support) {
        rope.support = support->name;
        to = {support->at.x, support->at.y, std::min(support->height, std::max(end.z, 0.5))};
    } else {
        const double plan = std::max(std::hypot(way.x, way.y), 1e-9), down = -way.z / plan;
        rope.toGround = down > steepEnough;
        const double out = rope.toGround ? end.z / down : aPoleBeyond;
        to = {end.x + way.x / plan * out, end.y + way.y / plan * out, rope.toGround ? 0.0 : end.z};
    }
    rope.start = end;
    rope.hold = to;
    const Vec3 line = to - end;
    rope.length = norm(line) + knots;
    rope.angle = std::atan2(line.z, std::hypot(line.x, line.y)) * 180.0 / pi;
    rope.lowest = std::min(to.z, end.z);
    return rope;
}

} // namespace

double lossOverCopper(const shapes::WireChoice& wire, double frequency)
{
    const Vec3 ends[] = {{0.0, 0.0, 1.0}, {1.0, 0.0, 1.0}};
    const auto ohms = [&](const shapes::WireChoice& choice) {
        const Wire metre = shapes::makeWire(choice, {}, {ends[0], ends[1]});
        return em::internalImpedance(metre, metre.radius, frequency).real();
    };
    shapes::WireChoice copper;
    copper.diameter = wire.diameter;
    return ohms(wire) / ohms(copper);
}

WireLoad loadOf(const shapes::WireChoice& wire, const WireStrength& strength, const Rigging& rigging)
{
    WireLoad load;
    const double area = 0.25 * std::numbers::pi * wire.diameter * wire.diameter, outer = wire.diameter + 2.0 * wire.jacket;
    load.mass = area * strength.density + sleeve(wire.diameter, wire.jacket) * jacketDensity;
    load.ice = sleeve(outer, rigging.ice) * iceDensity;
    load.wind = 0.5 * airDensity * rigging.wind * rigging.wind * drag * (outer + 2.0 * rigging.ice);
    load.breaking = area * strength.strength;
    load.stiffness = area * strength.modulus;
    load.times = std::hypot((load.mass + load.ice) * gravity, load.wind) / (load.mass * gravity);
    return load;
}

std::vector<SpanPlace> spansOf(const shapes::BuiltAntenna& built, const shapes::AntennaShape& shape, const Site& site)
{
    std::vector<Run> runs = runsOf(built);
    std::vector<SpanPlace> all;
    if (shapes::familyOf(shape).carrier() == shapes::Carrier::Mast)
        return all; // its rods hold themselves, whatever their thickness
    for (const Run& run : runs) {
        const Vec3 way = run.way();
        if (run.radius > rod || norm(run.end - run.start) < shortest || std::abs(way.z) > upright ||
            std::max(run.start.z, run.end.z) < offGround)
            continue;
        SpanPlace place;
        place.start = run.start, place.end = run.end;
        place.wire = wireOf(shape, run.radius);
        place.from = nameOf(built, run.start), place.to = nameOf(built, run.end);
        const double along = dot(built.feedPoint - run.start, way);
        const bool within = along > 0.5 && along < norm(run.end - run.start) - 0.5 && norm(built.feedPoint - run.start - way * along) < 0.1;
        place.loaded = within && !supportBy(site, built.feedPoint);
        const auto known = std::find_if(all.begin(), all.end(), [&](const SpanPlace& p) { return same(p, place); });
        if (known != all.end())
            ++known->alike;
        else
            all.push_back(place);
    }
    std::stable_sort(all.begin(), all.end(),
                     [](const SpanPlace& a, const SpanPlace& b) { return norm(a.end - a.start) > norm(b.end - b.start); });
    return all;
}

RiggingReport riggingOf(const shapes::BuiltAntenna& built, const shapes::AntennaShape& shape,
                        const std::function<WireStrength(const std::string&)>& strengthOf, const Rigging& rigging, const Site& site)
{
    RiggingReport out;
    out.load = loadOf(shape.wire, strengthOf(shape.wire.conductor), rigging);
    const std::vector<Run> runs = runsOf(built);
    for (const Vec3& end : built.insulators)
        for (const Run& run : runs) {
            const bool last = norm(run.end - end) < 0.05, first = norm(run.start - end) < 0.05;
            if ((last || first) && run.radius <= rod && end.z > offGround && norm(run.end - run.start) > shortest) {
                out.ropes.push_back(ropeOf(built, site, end, last ? run.way() : run.way() * -1.0, rigging.pull));
                break;
            }
        }
    for (const SpanPlace& place : spansOf(built, shape, site)) {
        double rope = 0.0;
        for (const RopeReport& r : out.ropes)
            if (norm(r.start - place.start) < joinedWithin || norm(r.start - place.end) < joinedWithin)
                rope += r.length;
        if (rope == 0.0)
            rope = loops;
        out.spans.push_back(reportOf(place, loadOf(place.wire, strengthOf(place.wire.conductor), rigging), rigging, rope, out.faults));
    }
    return out;
}

double pullUnderLoad(double before, double weight, double after, double stiffness, double length)
{
    const double slack = stiffness * weight * weight * length * length / (24.0 * before * before),
                 loaded = stiffness * after * after * length * length / 24.0;
    const auto excess = [&](double pull) { return pull * pull * (pull - before + slack) - loaded; };
    double high = before + std::cbrt(loaded);
    while (excess(high) < 0.0)
        high *= 2.0;
    return whereRising(excess, 0.0, 1e-6, high);
}

double RiggingReport::strongestPull() const
{
    double most = 0.0;
    for (const SpanReport& s : spans)
        most = std::max(most, s.pullInWeather);
    return most;
}

const SpanReport* RiggingReport::weakest() const
{
    const auto used = [](const SpanReport& s) { return s.pullInWeather / s.load.breaking; };
    const auto found =
        std::max_element(spans.begin(), spans.end(), [&](const SpanReport& a, const SpanReport& b) { return used(a) < used(b); });
    return found == spans.end() ? nullptr : &*found;
}

double RiggingReport::lowest() const
{
    double low = HUGE_VAL;
    for (const SpanReport& s : spans)
        low = std::min(low, s.lowest);
    for (const RopeReport& r : ropes)
        low = std::min(low, r.toGround ? r.start.z : r.lowest);
    return low;
}

bool RiggingReport::wireHolds(const Rigging& rigging) const
{
    const SpanReport* s = weakest();
    return !s || s->pullInWeather * rigging.safety <= s->load.breaking;
}
bool RiggingReport::ropeHolds(const Rigging& rigging) const { return strongestPull() * rigging.safety <= rigging.ropeStrength; }

} // namespace vetchling
