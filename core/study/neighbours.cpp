#include "core/study/neighbours.h"

#include <algorithm>
#include <cmath>

namespace vetchling::study {
namespace {

constexpr double clear = 0.1;       // m that a neighbour keeps from the antenna's wires
constexpr double lower = 0.3;       // m that it is hung or cut lower where it would not
constexpr double footHeight = 0.02; // m over the soil
constexpr double earthRadial = 4.0; // m
constexpr int earthRadials = 6;
constexpr double openFeed = 1e7;                     // ohm
constexpr double shieldRadius = 2.5e-3, steel = 7e6; // m, S/m

/// Calls back with every pair of straight pieces.
template <class Function> void eachPair(const std::vector<Vec3>& line, const WireModel& model, std::size_t wires, Function f)
{
    for (std::size_t i = 1; i < line.size(); ++i)
        for (std::size_t w = 0; w < wires; ++w)
            for (std::size_t k = 1; k < model.wires[w].points.size(); ++k)
                f(line[i - 1], line[i], model.wires[w], model.wires[w].points[k - 1], model.wires[w].points[k]);
}

bool meet(const Neighbour& neighbour, const Wire& wire)
{
    return std::any_of(neighbour.points.begin(), neighbour.points.end(), [&](Vec3 p) {
        return std::any_of(wire.points.begin(), wire.points.end(), [&](Vec3 q) { return distance(p, q) <= jointTolerance; });
    });
}

/// Whether it comes too near one of the first wires, the antenna's own; or a later one that it is not joined to.
bool touches(const Neighbour& neighbour, const WireModel& model, std::size_t own)
{
    bool any = false;
    eachPair(neighbour.points, model, model.wires.size(), [&](Vec3 a, Vec3 b, const Wire& wire, Vec3 c, Vec3 d) {
        const bool joined = &wire >= model.wires.data() + own && meet(neighbour, wire);
        const double keeps = &wire >= model.wires.data() + own ? 0.02 : clear;
        any = any || (!joined && segmentDistance(a, b, c, d) < keeps + neighbour.radius + wire.radius);
    });
    return any;
}

bool upright(const Neighbour& n) { return n.points.size() == 2 && n.points[0].x == n.points[1].x && n.points[0].y == n.points[1].y; }

/// A mast ends below what it carries, and begins above wires about its foot.
Neighbour cutBelow(Neighbour mast, const WireModel& model, std::size_t wires)
{
    double &foot = mast.points.front().z, &top = mast.points.back().z;
    const double half = 0.5 * (foot + top);
    eachPair(mast.points, model, wires, [&](Vec3 a, Vec3 b, const Wire& wire, Vec3 c, Vec3 d) {
        if (segmentDistance(a, b, c, d) >= clear + mast.radius + wire.radius)
            return;
        const Vec3 level = d - c;
        const double run = level.x * level.x + level.y * level.y;
        const double t = run > 0.0 ? std::clamp(((a.x - c.x) * level.x + (a.y - c.y) * level.y) / run, 0.0, 1.0) : 0.0;
        const double meets = std::min((c + level * t).z, std::max(c.z, d.z));
        if (meets > half)
            top = std::min(top, meets - lower);
        else
            foot = std::max(foot, meets + lower);
    });
    return mast;
}

std::vector<Neighbour> mastOf(const Support& support)
{
    const double radius = support.kind == SupportKind::Tower ? 0.15 : 0.03;
    const Vec3 foot{support.at.x, support.at.y, footHeight + 1.2 * radius};
    return {{support.name, {foot, {support.at.x, support.at.y, support.height}}, radius, steel, {}, true}};
}

Wire wireOf(const Neighbour& n)
{
    Wire wire;
    wire.id = n.id;
    wire.points = n.points;
    wire.radius = n.radius;
    wire.conductivity = n.conductivity;
    return wire;
}

/// Wires over the soil round a foot, but for those that would touch something.
void earthWires(const std::string& name, Vec3 foot, WireModel& model, std::size_t own)
{
    for (int i = 0; i < earthRadials; ++i) {
        const double angle = 2.0 * pi * (i + 0.25) / earthRadials;
        const Vec3 end = foot + Vec3{earthRadial * std::cos(angle), earthRadial * std::sin(angle), 0.0};
        const Neighbour radial{name + " earth", {foot, end}, 2e-3, steel, {}, false};
        if (!touches(radial, model, own))
            model.wires.push_back(wireOf(radial));
    }
}

std::vector<Neighbour> wiresOf(const Design& design, const Antenna& antenna, Surroundings::Feed feed)
{
    const auto built = shapes::buildOver(antenna.shape, groundUnder(design, antenna));
    if (!built)
        return {};
    std::vector<Neighbour> all;
    for (const Wire& wire : built->model.wires)
        all.push_back({antenna.name, wire.points, std::max(wire.radius, wire.endRadius.value_or(0.0)), wire.conductivity, {}, false});
    for (const Load& load : built->model.loads)
        all[load.wire].loads.push_back(load);
    for (const Feed& f : built->model.feeds) {
        Load end;
        end.at = f.at;
        end.resistance = feed == Surroundings::Feed::Open ? openFeed : built->portReference;
        all[f.wire].loads.push_back(end);
    }
    return all;
}

/// From below the feedpoint straight down, then along its route to the entry.
std::vector<Neighbour> shieldOf(const Design& design, const Antenna& antenna)
{
    const auto built = shapes::buildOver(antenna.shape, groundUnder(design, antenna));
    if (!built || built->shieldWire) // it is counted in as the return already
        return {};
    const Vec3 feed = built->feedPoint;
    Neighbour shield{"coax", {}, shieldRadius, {}, {}, false};
    constexpr double onGround = 0.02;
    if (feed.z > lower + 2.0 * onGround)
        shield.points.push_back({feed.x, feed.y, feed.z - lower});
    shield.points.push_back({feed.x, feed.y, onGround});
    Outline route = design.site.coaxRoute;
    route.push_back(design.site.feedEntry);
    for (PlanPoint p : route)
        if (const Vec3 next{p.x, p.y, onGround}; distance(next, shield.points.back()) > clear)
            shield.points.push_back(next);
    return shield.points.size() > 1 ? std::vector{shield} : std::vector<Neighbour>();
}

std::optional<double> dipOf(const Curve& curve, double near, const Band& band)
{
    constexpr double aside = 0.14;
    const ImpedanceAt at = [&](double f) { return curve.atLine(f) * (50.0 / curve.question.reference); };
    return nearestDip(at, near, (1.0 - aside) * band.from, (1.0 + aside) * band.to);
}

} // namespace

std::vector<Neighbourhood> neighbourhoodOf(const Design& design, const Antenna& antenna)
{
    std::vector<Neighbourhood> all;
    for (const Support& s : design.site.supports)
        if (s.metal && s.height > 1.0)
            all.push_back({Neighbourhood::Kind::Support, s.id, s.name, mastOf(s)});
    for (const Antenna& other : design.antennas) {
        if (other.id == antenna.id)
            continue;
        const auto said = antenna.surroundings.antennas.find(other.id);
        const auto feed = said == antenna.surroundings.antennas.end() ? Surroundings::Feed::Open : said->second;
        if (auto wires = wiresOf(design, other, feed); !wires.empty())
            all.push_back({Neighbourhood::Kind::Antenna, other.id, other.name, std::move(wires)});
    }
    if (auto shield = shieldOf(design, antenna); !shield.empty())
        all.push_back({Neighbourhood::Kind::Coax, {}, coreText("core", "the coax's shield"), std::move(shield)});
    return all;
}

std::vector<Neighbour> countedIn(const Design& design, const Antenna& antenna)
{
    const Surroundings& s = antenna.surroundings;
    if (!s.metal && !s.coax && s.antennas.empty())
        return {};
    std::vector<Neighbour> out;
    for (const Neighbourhood& n : neighbourhoodOf(design, antenna)) {
        const bool counts = n.kind == Neighbourhood::Kind::Support ? s.metal
                            : n.kind == Neighbourhood::Kind::Coax  ? s.coax
                                                                   : s.antennas.contains(n.id);
        if (counts)
            out.insert(out.end(), n.wires.begin(), n.wires.end());
    }
    return out;
}

void addEarth(const std::string& name, Vec3 foot, WireModel& model) { earthWires(name, foot, model, model.wires.size() - 1); }

void putIn(const std::vector<Neighbour>& neighbours, WireModel& model)
{
    const std::size_t own = model.wires.size();
    for (Neighbour n : neighbours) {
        if (upright(n))
            n = cutBelow(std::move(n), model, own);
        else if (touches(n, model, own))
            for (Vec3& p : n.points)
                p.z = std::max(footHeight, p.z - lower);
        if ((upright(n) && n.points.back().z < n.points.front().z + lower) || touches(n, model, own))
            continue;
        for (Load load : n.loads) {
            load.wire = model.wires.size();
            model.loads.push_back(load);
        }
        model.wires.push_back(wireOf(n));
        if (n.earthed)
            earthWires(n.id, n.points.front(), model, own);
    }
}

Result<std::vector<NeighbourEffect>> neighbourEffects(Library& library, const Design& design, const Antenna& antenna, const Id& band,
                                                      std::size_t configuration, const Watch& watch,
                                                      std::optional<Neighbourhood::Kind> only)
{
    const Watch quiet = watch.with({});
    Question question = questionOf(design, antenna, band, configuration);
    std::erase_if(question.bands, [&](const WantedBand& w) { return w.id != band; });
    question.subject.neighbours.clear();
    question.before.reset();
    if (question.bands.empty())
        return Fault{"", coreText("core", "no band is wanted yet; choose some first")};
    const auto alone = curveOf(library, question, quiet);
    if (!alone)
        return alone.faults();
    const Coverage& coverage = (*alone)->bands.front();
    const Band& range = question.bands.front().band;
    const std::optional<double> dip = dipOf(**alone, coverage.solved() ? coverage.at : range.centre(), range);
    std::vector<NeighbourEffect> out;
    std::vector<Neighbourhood> all = neighbourhoodOf(design, antenna);
    std::erase_if(all, [&](const Neighbourhood& n) { return only && n.kind != *only; });
    for (const Neighbourhood& n : all) {
        NeighbourEffect effect;
        effect.what = n;
        effect.width = coverage.wholeTo - coverage.wholeFrom;
        Question beside = question;
        beside.subject.neighbours = n.wires;
        const auto curve = curveOf(library, beside, quiet);
        if (watch.stopped())
            return stoppedFault();
        if (!curve) {
            effect.fault = curve.faults().front().message;
        } else {
            const double at = dip.value_or(range.centre());
            effect.change = (*curve)->atLine(at) - (*alone)->atLine(at);
            if (const auto moved = dipOf(**curve, at, range); moved && dip)
                effect.shift = *moved - *dip;
        }
        out.push_back(std::move(effect));
        watch.report(double(out.size()) / double(all.size()));
    }
    return unlessStopped(watch, std::move(out));
}

} // namespace vetchling::study
