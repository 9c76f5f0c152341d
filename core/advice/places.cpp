#include "core/advice/places.h"

#include "core/physics.h"
#include "core/shapes/hang.h"
#include "core/site/standing.h"

#include <algorithm>
#include <cmath>
#include <tuple>

namespace vetchling::advice {
namespace {

using shapes::AntennaShape;
using shapes::Family;
using shapes::Hook;

constexpr double withoutBoundary = 40.0;                                // m from the feed entry
constexpr double mastFromHouse = 0.3, fallMargin = 2.0, samePole = 0.5; // m
constexpr double turn = 15.0;                                           // degrees between directions that are tried
constexpr double pitch = 2.0;                                           // m between places that are tried
constexpr double mastOver = 1.125;                                      // times the highest pole: a light one that its own wire runs up
constexpr double lowestMast = 3.5;                                      // m: what is lower holds an end, but carries no antenna

double apart(PlanPoint a, PlanPoint b) { return std::hypot(a.x - b.x, a.y - b.y); }
Hook hookOf(const Support& support) { return {support.at.x, support.at.y, support.height}; }

/// The better one of two places; what is allowed without a pole ends the search.
bool better(const Place& a, const Place& b)
{
    if (a.allowed() != b.allowed())
        return a.allowed();
    return a.allowed() ? a.poles.size() < b.poles.size() : a.against < b.against;
}

/// In as many words as a card has room for; where it is drawn it is told in full.
Text briefly(const SiteWarning& warning)
{
    using Kind = SiteWarning::Kind;
    switch (warning.kind) {
    case Kind::PowerLine: return coreText("core", "it could reach the power line");
    case Kind::Building: return coreText("core", "it would touch a house");
    case Kind::Water: return coreText("core", "it would stand in water");
    case Kind::Tube: return warning.message;
    case Kind::Low: return {coreText("core", "it would hang %1 high, under head height"), Measure{warning.at.z, units::Quantity::Length}};
    default: break;
    }
    return warning.hold > 0.0 ? Text(coreText("core", "nothing can hold it %1 high"), Measure{warning.hold, units::Quantity::Length})
                              : Text(coreText("core", "it would pass too near to what does not hold it"));
}

/// It stands on a mount or a car that is lower than people: to be minded, not to be hung higher.
bool isPortable(const AntennaShape& shape)
{
    const Family& family = shapes::familyOf(shape);
    return family.spec(shape, "body_length_m") ||
           (!family.hangsBy(shape) && family.spec(shape, "base_height_m") && !family.spec(shape, "radial_end_height_m"));
}

/// As it may come to be once it is tuned: what is cut for a frequency wants some room.
AntennaShape roomier(const AntennaShape& shape, double more)
{
    const Family& family = shapes::familyOf(shape);
    AntennaShape longer = shape;
    for (const shapes::TunedLength& t : family.tuned(shape))
        if (const shapes::ParameterSpec* spec = family.spec(shape, t.parameter); spec && spec->quantity == units::Quantity::Length)
            longer.parameters[t.parameter] = more * family.value(shape, t.parameter);
    return longer;
}

/// Of places that are tried one after the other: the first one that is as good as can be, else the best.
class Search {
public:
    /// False when there is nothing left to look for.
    bool add(Place place)
    {
        if (!m_best || better(place, *m_best))
            m_best = std::move(place);
        return !(m_best->allowed() && m_best->poles.empty());
    }
    [[nodiscard]] std::optional<Place> best() const { return m_best; }

private:
    std::optional<Place> m_best;
};

/// m in plan from where a shape is fed to a handle of it.
double reachOf(const AntennaShape& shape, std::size_t handle)
{
    const auto built = shapes::buildOver(shape, {});
    if (!built || handle >= built->handles.size())
        return 0.0;
    const Vec3 way = built->handles[handle].at - built->feedPoint;
    return std::hypot(way.x, way.y);
}

/// m in plan from where a shape is fed to where the line comes in; to a metre, so that what hardly differs keeps its order.
double feedAway(const AntennaShape& shape, const Site& site)
{
    const auto built = shapes::buildOver(shape, {});
    return built ? std::round(apart({built->feedPoint.x, built->feedPoint.y}, site.feedEntry)) : HUGE_VAL;
}

/// m in plan between the ends in the air that are farthest apart.
double spanOf(const AntennaShape& shape)
{
    constexpr double onTheGround = 0.1; // m: a counterpoise that lies
    double longest = 0.0;
    if (const auto built = shapes::buildOver(shape, {}))
        for (const Wire& a : built->model.wires)
            for (const Wire& b : built->model.wires)
                for (Vec3 p : {a.points.front(), a.points.back()})
                    for (Vec3 q : {b.points.front(), b.points.back()})
                        if (std::min(p.z, q.z) > onTheGround)
                            longest = std::max(longest, std::hypot(p.x - q.x, p.y - q.y));
    return longest;
}

Place notBuilt(const AntennaShape& shape, const Faults& faults) { return {shape, {}, {}, {}, faults.front().message, 10000}; }

/// Leaves a support in a bearing; what hangs by an end begins so far away that this end comes to the support.
std::optional<AntennaShape> turnedFrom(const AntennaShape& shape, const Support& support, double bearing)
{
    const Family& family = shapes::familyOf(shape);
    const std::optional<std::size_t> handle = family.hangsBy(shape);
    if (!handle)
        return std::nullopt;
    AntennaShape next = shape;
    const double angle = radians(bearing), away = reachOf(shape, *handle);
    if (family.spec(shape, "bearing_deg"))
        next.parameters["bearing_deg"] = bearing;
    next.parameters["x_m"] = support.at.x + away * std::sin(angle);
    next.parameters["y_m"] = support.at.y + away * std::cos(angle);
    return shapes::newlyHung(next, *handle, hookOf(support));
}

/// Places inside, those nearest to the feed entry first.
std::vector<PlanPoint> placesOn(const Site& site)
{
    const bool bounded = site.boundary.size() >= 3;
    const PlanPoint corner = bounded ? cornerOf(site.boundary) : PlanPoint{site.feedEntry.x - 12.0, site.feedEntry.y - 12.0};
    const PlanPoint extent = bounded ? extentOf(site.boundary) : PlanPoint{24.0, 24.0};
    const double step = std::max(pitch, std::max(extent.x, extent.y) / 24.0);
    std::vector<PlanPoint> all;
    for (double x = corner.x + 0.5 * step; x < corner.x + extent.x; x += step)
        for (double y = corner.y + 0.5 * step; y < corner.y + extent.y; y += step)
            if (!bounded || inside(site.boundary, {x, y}))
                all.push_back({x, y});
    for (const Support& s : site.supports) // what stands may be tied to one, if it is no conductor beside another
        if (!s.metal && (s.kind == SupportKind::Pole || s.kind == SupportKind::Tree))
            all.push_back(s.at);
    std::stable_sort(all.begin(), all.end(), [&](PlanPoint a, PlanPoint b) { return apart(a, site.feedEntry) < apart(b, site.feedEntry); });
    if (bounded && all.empty())
        all.push_back({corner.x + 0.5 * extent.x, corner.y + 0.5 * extent.y});
    return all;
}

} // namespace

void putUp(Design& design, const std::vector<NewPole>& poles)
{
    for (const NewPole& pole : poles) {
        Support support;
        support.name = freeName(coreText("core", "pole"), siteNames(design.site));
        support.at = pole.at;
        support.height = std::ceil(10.0 * (pole.height + tieAllowance)) / 10.0;
        support.id = newId();
        design.site.supports.push_back(support);
    }
}

Judge::Judge(const Design& design, PlaceOptions options) : m_design(design), m_options(std::move(options))
{
    for (const Support& s : design.site.supports)
        if (m_options.supports.empty() || std::find(m_options.supports.begin(), m_options.supports.end(), s.id) != m_options.supports.end())
            m_supports.push_back(&s);
    std::stable_sort(m_supports.begin(), m_supports.end(), [](const Support* a, const Support* b) { return a->height > b->height; });
    for (const Antenna& antenna : design.antennas)
        if (const auto built = shapes::buildOver(antenna.shape, groundUnder(design, antenna)))
            m_others.emplace_back(antenna.name, built->model);
}

bool Judge::leavesSite(const WireModel& model, Place& place) const
{
    const Site& site = m_design.site;
    double beyond = 0.0;
    for (const Wire& w : model.wires)
        for (Vec3 p : w.points) {
            const PlanPoint at{p.x, p.y};
            if (site.boundary.size() < 3)
                beyond = std::max(beyond, apart(at, site.feedEntry) - withoutBoundary);
            else if (!site.boundaryMayBeCrossed && !inside(site.boundary, at))
                beyond = std::max(beyond, distanceToOutline(site.boundary, at));
        }
    constexpr double onTheEdge = 0.01; // m
    if (beyond <= onTheEdge)
        return false;
    const Measure far{beyond, units::Quantity::Length};
    place.fault = site.boundary.size() >= 3
                      ? Text(coreText("core", "it would reach %1 beyond the boundary"), far)
                      : Text(coreText("core", "it would reach %1 farther than 40 m from where the feed line comes in"), far);
    place.against = 10 + int(std::min(beyond, 1000.0));
    return true;
}

bool Judge::mayStand(const NewPole& pole, double higher) const
{
    const Site& site = m_design.site;
    if (pole.height > higher * m_options.mostPole || (site.boundary.size() >= 3 && !inside(site.boundary, pole.at)))
        return false;
    const Vec3 foot{pole.at.x, pole.at.y, 0.0}, top{pole.at.x, pole.at.y, pole.height};
    if (std::any_of(site.buildings.begin(), site.buildings.end(),
                    [&](const Building& b) { return distanceToBuilding(foot, top, b) < mastFromHouse; }))
        return false;
    if (std::any_of(site.waters.begin(), site.waters.end(), [&](const Water& w) { return inside(w.outline, pole.at); }))
        return false;
    return !site.powerLine || distanceToSegment(pole.at, site.powerLine->from, site.powerLine->to) >= pole.height + fallMargin;
}

void Judge::take(const SiteWarning& warning, Place& place) const
{
    using Kind = SiteWarning::Kind;
    switch (warning.kind) {
    case Kind::Metal:
    case Kind::Dig: return; // told where it is drawn
    case Kind::Low:
        if (warning.upright)
            return;
        break;
    case Kind::Support:
    case Kind::Mast:
    case Kind::Tie:
        if (warning.hold > 0.0) {
            const NewPole pole{{warning.at.x, warning.at.y}, warning.hold};
            const bool known =
                std::any_of(place.poles.begin(), place.poles.end(), [&](const NewPole& p) { return apart(p.at, pole.at) < samePole; });
            if (!known)
                place.poles.push_back(pole);
            if (known || (mayStand(pole, warning.kind == Kind::Mast ? mastOver : 1.0) && place.poles.size() <= m_options.mostPoles))
                return;
        }
        break;
    case Kind::PowerLine:
        if (!warning.support.empty() && std::find(place.supports.begin(), place.supports.end(), warning.support) == place.supports.end())
            return; // a mast that it does not use
        break;
    default: break;
    }
    if (place.fault.empty())
        place.fault = briefly(warning);
    ++place.against;
}

Place Judge::withRoom(Place place, const std::function<Place()>& longer) const
{
    if (place.allowed() && m_options.room > 1.0)
        if (const Place other = longer(); !other.allowed()) {
            place.fault = other.fault;
            place.against = other.against;
        }
    return place;
}

Place Judge::judgeWithRoom(const AntennaShape& shape) const
{
    return withRoom(judge(shape), [&] { return judge(roomier(shape, m_options.room), m_options.room); });
}

Place Judge::judge(const AntennaShape& shape, double room) const
{
    const auto built = shapes::buildOver(shape, m_design.site.soil.ground());
    return built ? judge(shape, built->model, room) : notBuilt(shape, built.faults());
}

Place Judge::judge(const AntennaShape& shape, const WireModel& model, double room) const
{
    Place place{shape, {}, {}, {}, {}, 0};
    if (leavesSite(model, place))
        return place;
    const auto allowed = [&](const Id& id) {
        return std::any_of(m_supports.begin(), m_supports.end(), [&](const Support* s) { return s->id == id; });
    };
    place.supports = supportsHolding(m_design.site, model);
    for (const SiteWarning& warning : fitOnSite(m_design.site, model).warnings) {
        const bool minded = warning.kind == SiteWarning::Kind::Low && isPortable(shape);
        const bool lowEnough = warning.kind == SiteWarning::Kind::Mast && warning.hold <= room * highestMast;
        if (!minded && !lowEnough)
            take(warning, place);
    }
    if (place.allowed() && !std::all_of(place.supports.begin(), place.supports.end(), allowed)) {
        place.fault = coreText("core", "another support would hold it than those that may be used");
        ++place.against;
    }
    for (const auto& [name, other] : m_others)
        if (const auto crossing = crossingOf(model, other)) {
            if (place.allowed())
                place.fault = {coreText("core", "it would come within %1 of %2"), Measure{crossing->apart, units::Quantity::Length}, name};
            ++place.against;
        }
    return place;
}

Place Movable::Cast::at(PlanPoint place, const Judge& judge, double room)
{
    shape.parameters["x_m"] = place.x;
    shape.parameters["y_m"] = place.y;
    if (!origin)
        return notBuilt(shape, origin.faults());
    for (std::size_t w = 0; w < model.wires.size(); ++w)
        for (std::size_t p = 0; p < model.wires[w].points.size(); ++p)
            model.wires[w].points[p] = origin->model.wires[w].points[p] + Vec3{place.x, place.y, 0.0};
    return judge.judge(shape, model, room);
}

Movable::Cast Movable::castOf(AntennaShape shape) const
{
    shape.parameters["x_m"] = shape.parameters["y_m"] = 0.0;
    auto built = shapes::buildOver(shape, m_judge.m_design.site.soil.ground());
    WireModel model = built ? built->model : WireModel();
    return {std::move(shape), std::move(built), std::move(model)};
}

Movable::Movable(const Judge& judge, AntennaShape shape) : m_judge(judge), m_own(castOf(std::move(shape))) {}

Place Movable::at(PlanPoint place)
{
    const double room = m_judge.m_options.room;
    return m_judge.withRoom(m_own.at(place, m_judge, 1.0), [&] {
        if (!m_longer)
            m_longer = castOf(roomier(m_own.shape, room));
        return m_longer->at(place, m_judge, room);
    });
}

std::optional<Place> betweenTwo(const Judge& judge, const AntennaShape& shape)
{
    const Family& family = shapes::familyOf(shape);
    std::vector<std::pair<const Support*, const Support*>> pairs;
    for (const Support* a : judge.supports())
        for (const Support* b : judge.supports())
            if (a != b && b->height >= lowestMast && a->height >= lowestMast)
                pairs.emplace_back(a, b);
    std::stable_sort(pairs.begin(), pairs.end(), [](const auto& a, const auto& b) {
        return std::min(a.first->height, a.second->height) > std::min(b.first->height, b.second->height);
    });
    Search search;
    for (std::size_t i = 0; i < pairs.size(); ++i) {
        auto [a, b] = pairs[i];
        std::optional<AntennaShape> hung = family.between(shape, hookOf(*a), hookOf(*b));
        if (!hung)
            return std::nullopt;
        if (const auto back = std::find(pairs.begin() + long(i) + 1, pairs.end(), std::pair(b, a)); back != pairs.end())
            if (auto turned = family.between(shape, hookOf(*b), hookOf(*a));
                turned && feedAway(*turned, judge.site()) < feedAway(*hung, judge.site())) { // the nearer way round first
                std::swap(*back, pairs[i]);
                std::swap(a, b);
                hung = std::move(turned);
            }
        Place place = judge.judgeWithRoom(*hung);
        if (const double span = spanOf(*hung), room = apart(a->at, b->at); span > room) {
            place.fault = {coreText("core", "needs %1 between supports that are %2 apart"), Measure{span, units::Quantity::Length},
                           Measure{room, units::Quantity::Length}};
            place.against = 20 + int(std::min(span - room, 1000.0)); // another pair's reason tells more
        }
        if (!search.add(std::move(place)))
            break;
    }
    return search.best();
}

namespace {

/// Nothing where the corner would come at its very end, or it does not reach past the third support's place.
std::optional<AntennaShape> bentRound(const AntennaShape& shape, const Support& feed, const Support& corner, const Support& towards)
{
    constexpr double leastEnd = 1.0; // m beyond the corner
    const Family& family = shapes::familyOf(shape);
    const double east = corner.at.x - feed.at.x, north = corner.at.y - feed.at.y, onEast = towards.at.x - corner.at.x,
                 onNorth = towards.at.y - corner.at.y;
    AntennaShape next = shape;
    auto& p = next.parameters;
    const double start = family.value(shape, "feed_height_m");
    const double run = std::hypot(std::hypot(east, north), corner.height - start), rest = family.value(shape, "length_m") - run,
                 room = std::hypot(onEast, onNorth);
    if (rest < leastEnd || rest > room || room <= 0.0)
        return std::nullopt;
    p["x_m"] = feed.at.x, p["y_m"] = feed.at.y;
    p["bearing_deg"] = shapes::bearingTowards(east, north);
    p["first_run_m"] = run;
    p["bend_height_m"] = corner.height;
    p["bend_bearing_deg"] = shapes::bearingTowards(onEast, onNorth);
    p["end_height_m"] = corner.height + (towards.height - corner.height) * rest / room;
    return next;
}

} // namespace

std::optional<Place> roundACorner(const Judge& judge, const AntennaShape& shape)
{
    const Family& family = shapes::familyOf(shape);
    if (!family.spec(shape, "first_run_m") || !family.spec(shape, "bend_bearing_deg") || !family.spec(shape, "feed_height_m"))
        return std::nullopt;
    std::vector<std::tuple<double, const Support*, AntennaShape>> ways;
    for (const Support* feed : judge.supports())
        for (const Support* corner : judge.supports())
            for (const Support* towards : judge.supports())
                if (feed != corner && corner != towards && feed != towards && corner->height >= lowestMast && towards->height >= lowestMast)
                    if (auto bent = bentRound(shape, *feed, *corner, *towards))
                        ways.emplace_back(feedAway(*bent, judge.site()), corner, std::move(*bent));
    std::stable_sort(ways.begin(), ways.end(), [](const auto& a, const auto& b) { return std::get<0>(a) < std::get<0>(b); });
    Search search;
    for (const auto& [away, corner, bent] : ways) {
        Place place = judge.judgeWithRoom(bent);
        place.laid = {coreText("core", "bent round the %1"), corner->name};
        if (!search.add(std::move(place)))
            break;
    }
    return search.best();
}

std::optional<Place> fromOne(const Judge& judge, const AntennaShape& shape, const Turned& turned)
{
    Search search;
    for (const Support* support : judge.supports()) {
        if (support->height < lowestMast)
            break;                                         // the highest come first
        std::vector<std::pair<double, AntennaShape>> ways; // those first that are fed near to where the line comes in
        for (double bearing = 0.0; bearing < 360.0; bearing += turn) {
            auto hung = turned ? turned(*support, bearing) : turnedFrom(shape, *support, bearing);
            if (!hung)
                return search.best();
            const double away = feedAway(*hung, judge.site());
            ways.emplace_back(away, std::move(*hung));
        }
        std::stable_sort(ways.begin(), ways.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
        for (const auto& [away, hung] : ways)
            if (!search.add(judge.judgeWithRoom(hung)))
                return search.best();
    }
    return search.best();
}

namespace {

/// Less of its radials, where there is no room for all.
struct Laid {
    double length = 1.0; ///< of each, times what it was
    double count = 0.0;  ///< 0: as many as there were
};

Text laidWords(const AntennaShape& shape, const Laid& laid)
{
    const Family& family = shapes::familyOf(shape);
    const Measure each{family.value(shape, "radial_m"), units::Quantity::Length};
    if (laid.count > 0.0)
        return {coreText("core", "%1 radials of %2, for which there is room"), std::to_string(std::lround(laid.count)), each};
    return laid.length < 1.0 ? Text(coreText("core", "radials of %1, for which there is room"), each) : Text();
}

std::vector<Laid> waysToLay(const AntennaShape& shape)
{
    constexpr double fewest = 2.0, shorter[] = {0.75, 0.5, 0.35};
    const Family& family = shapes::familyOf(shape);
    std::vector<Laid> all{{}};
    if (!family.spec(shape, "radial_m") || !family.spec(shape, "radial_count"))
        return all;
    const bool oneBand = family.tuned(shape).size() == 1; // what works on several needs its radials
    if (oneBand && family.value(shape, "radial_count") > fewest)
        all.push_back({1.0, fewest}); // two in line lie along a fence
    for (double length : shorter)
        all.push_back({length, 0.0});
    return all;
}

} // namespace

Place byItself(const Judge& judge, const AntennaShape& shape)
{
    const Family& family = shapes::familyOf(shape);
    const bool turns = family.spec(shape, "bearing_deg");
    const std::vector<PlanPoint> places = placesOn(judge.site());
    Search search;
    for (const Laid& way : waysToLay(shape)) {
        AntennaShape laid = shape;
        if (way.length < 1.0)
            laid.parameters["radial_m"] = way.length * family.value(shape, "radial_m");
        if (way.count > 0.0)
            laid.parameters["radial_count"] = way.count;
        std::vector<Movable> turned;
        for (double bearing = 0.0; bearing < (turns ? 360.0 : 1.0); bearing += 3.0 * turn) {
            if (turns)
                laid.parameters["bearing_deg"] = bearing;
            turned.emplace_back(judge, laid);
        }
        for (PlanPoint at : places)
            for (Movable& one : turned) {
                Place place = one.at(at);
                place.laid = laidWords(laid, way);
                if (!search.add(std::move(place)))
                    return *search.best();
            }
        if (search.best()->allowed())
            break;
    }
    return *search.best();
}

} // namespace vetchling::advice
