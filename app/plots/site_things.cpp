#include "app/plots/site_things.h"

#include "app/view/words.h"

#include <QCoreApplication>

#include <algorithm>
#include <cmath>
#include <utility>

namespace vetchling::app {
namespace {

using Kind = SiteThing::Kind;

} // namespace

std::vector<SiteThing> thingsOf(const Design& design)
{
    std::vector<SiteThing> all;
    for (const Support& s : design.site.supports)
        all.push_back({Kind::Support, s.id});
    for (const Building& b : design.site.buildings)
        all.push_back({Kind::Building, b.id});
    for (const Water& w : design.site.waters)
        all.push_back({Kind::Water, w.id});
    all.push_back({Kind::FeedEntry});
    if (design.site.powerLine) {
        all.push_back({Kind::LineFrom});
        all.push_back({Kind::LineTo});
    }
    if (!design.site.boundary.empty())
        all.push_back({Kind::Boundary});
    if (!design.site.coaxRoute.empty())
        all.push_back({Kind::Coax});
    return all;
}

bool isThere(const Design& design, const SiteThing& thing)
{
    const auto all = thingsOf(design);
    if (std::find(all.begin(), all.end(), thing.whole()) == all.end())
        return false;
    const Outline* outline = outlineOf(design, thing);
    return thing.corner < 0 || (outline && thing.corner < int(outline->size()));
}

QString nameOf(const Design& design, const SiteThing& thing)
{
    switch (thing.kind) {
    case Kind::Support: return QString::fromStdString(findSupport(design, thing.id)->name);
    case Kind::Building: return QString::fromStdString(findBuilding(design, thing.id)->name);
    case Kind::Water: return QString::fromStdString(findWater(design, thing.id)->name);
    case Kind::FeedEntry: return tr("feed line in");
    case Kind::LineFrom: return tr("power line, one end");
    case Kind::LineTo: return tr("power line, other end");
    case Kind::Boundary: return tr("boundary");
    case Kind::Coax: return tr("feed line's route");
    case Kind::None: break;
    }
    return {};
}

PlanPoint placeOf(const Design& design, const SiteThing& thing)
{
    if (const Outline* outline = outlineOf(design, thing); outline && thing.corner >= 0)
        return (*outline)[std::size_t(thing.corner)];
    switch (thing.kind) {
    case Kind::Support: return findSupport(design, thing.id)->at;
    case Kind::Building: return cornerOf(findBuilding(design, thing.id)->outline);
    case Kind::Water: return cornerOf(findWater(design, thing.id)->outline);
    case Kind::FeedEntry: return design.site.feedEntry;
    case Kind::LineFrom: return design.site.powerLine->from;
    case Kind::LineTo: return design.site.powerLine->to;
    case Kind::Boundary: return cornerOf(design.site.boundary);
    case Kind::Coax: return design.site.coaxRoute.front();
    case Kind::None: break;
    }
    return {};
}

void moveTo(Design& design, const SiteThing& thing, PlanPoint place)
{
    if (!isThere(design, thing))
        return;
    if (Outline* outline = outlineOf(design, thing); outline && thing.corner >= 0) {
        (*outline)[std::size_t(thing.corner)] = place;
        return;
    }
    const PlanPoint now = placeOf(design, thing);
    const auto shift = [&](Outline& outline) { outline = moved(outline, place.x - now.x, place.y - now.y); };
    switch (thing.kind) {
    case Kind::Support: changeSupport(design, thing.id, [&](Support& s) { s.at = place; }); break;
    case Kind::Building: shift(findBuilding(design, thing.id)->outline); break;
    case Kind::Water: shift(findWater(design, thing.id)->outline); break;
    case Kind::FeedEntry: design.site.feedEntry = place; break;
    case Kind::LineFrom: design.site.powerLine->from = place; break;
    case Kind::LineTo: design.site.powerLine->to = place; break;
    case Kind::Boundary: shift(design.site.boundary); break;
    case Kind::Coax: shift(design.site.coaxRoute); break;
    case Kind::None: break;
    }
}

const Outline* outlineOf(const Design& design, const SiteThing& thing)
{
    switch (thing.kind) {
    case Kind::Building: {
        const Building* b = findBuilding(design, thing.id);
        return b ? &b->outline : nullptr;
    }
    case Kind::Water: {
        const Water* w = findWater(design, thing.id);
        return w ? &w->outline : nullptr;
    }
    case Kind::Boundary: return &design.site.boundary;
    case Kind::Coax: return &design.site.coaxRoute;
    default: return nullptr;
    }
}

Outline* outlineOf(Design& design, const SiteThing& thing) { return const_cast<Outline*>(outlineOf(std::as_const(design), thing)); }

SiteThing addCorner(Design& design, const SiteThing& thing, int after, PlanPoint at)
{
    Outline* outline = outlineOf(design, thing);
    if (!outline || after < 0 || after >= int(outline->size()))
        return thing;
    outline->insert(outline->begin() + after + 1, at);
    return {thing.kind, thing.id, after + 1};
}

bool removeCorner(Design& design, const SiteThing& thing)
{
    Outline* outline = outlineOf(design, thing);
    const std::size_t least = thing.kind == Kind::Coax ? 1 : 4; // an area has three corners
    if (!outline || thing.corner < 0 || thing.corner >= int(outline->size()) || outline->size() < least)
        return false;
    outline->erase(outline->begin() + thing.corner);
    return true;
}

std::pair<int, double> nearestEdge(const Design& design, const SiteThing& thing, PlanPoint p)
{
    std::pair<int, double> nearest{-1, HUGE_VAL};
    const Outline* outline = outlineOf(design, thing);
    const std::size_t edges = !outline || outline->empty() ? 0 : thing.kind == Kind::Coax ? outline->size() - 1 : outline->size();
    for (std::size_t i = 0; i < edges; ++i)
        if (const double away = distanceToSegment(p, (*outline)[i], (*outline)[(i + 1) % outline->size()]); away < nearest.second)
            nearest = {int(i), away};
    return nearest;
}

PlanPoint snapped(const Design& design, const SiteThing& thing, PlanPoint to, double reach)
{
    const auto away = [&](PlanPoint p) { return std::hypot(p.x - to.x, p.y - to.y); };
    std::optional<PlanPoint> best;
    const auto offer = [&](PlanPoint p) {
        if (away(p) < reach && (!best || away(p) < away(*best)))
            best = p;
    };
    for (const SiteThing& other : thingsOf(design))
        if (const Outline* outline = outlineOf(design, other); outline && !(other == thing.whole()))
            for (PlanPoint corner : *outline)
                offer(corner);
    if (best)
        return *best;
    for (const SiteThing& other : thingsOf(design))
        if (const Outline* outline = outlineOf(design, other); outline && !(other == thing.whole()))
            if (const auto [edge, off] = nearestEdge(design, other, to); edge >= 0 && off < reach)
                offer(nearestOnSegment(to, (*outline)[std::size_t(edge)], (*outline)[(std::size_t(edge) + 1) % outline->size()]));
    if (best)
        return *best;
    PlanPoint out{std::round(10.0 * to.x) / 10.0, std::round(10.0 * to.y) / 10.0};
    if (const Outline* outline = outlineOf(design, thing); outline && thing.corner >= 0) {
        const std::size_t count = outline->size(), at = std::size_t(thing.corner);
        for (std::size_t beside : {(at + 1) % count, (at + count - 1) % count}) {
            const PlanPoint p = (*outline)[beside];
            if (std::abs(p.x - to.x) < reach)
                out.x = p.x;
            if (std::abs(p.y - to.y) < reach)
                out.y = p.y;
        }
    }
    return out;
}

bool isNamed(const SiteThing& thing) { return thing.kind == Kind::Support || thing.kind == Kind::Building || thing.kind == Kind::Water; }

void renameThing(Design& design, const SiteThing& thing, const QString& name)
{
    if (name.trimmed().isEmpty() || !isThere(design, thing))
        return;
    const std::string free = freeName(name.trimmed().toStdString(), siteNames(design.site, thing.id));
    if (thing.kind == Kind::Support)
        findSupport(design, thing.id)->name = free;
    else if (thing.kind == Kind::Building)
        findBuilding(design, thing.id)->name = free;
    else if (thing.kind == Kind::Water)
        findWater(design, thing.id)->name = free;
}

void removeThing(Design& design, const SiteThing& thing)
{
    const auto gone = [&](const auto& t) { return t.id == thing.id; };
    if (thing.kind == Kind::Support)
        std::erase_if(design.site.supports, gone);
    else if (thing.kind == Kind::Building)
        std::erase_if(design.site.buildings, gone);
    else if (thing.kind == Kind::Water)
        std::erase_if(design.site.waters, gone);
    else if (thing.kind == Kind::Coax)
        design.site.coaxRoute.clear();
    else if (thing.kind == Kind::Boundary)
        design.site.boundary.clear();
}

} // namespace vetchling::app
