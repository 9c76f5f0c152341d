#include "app/plots/site_things.h"

#include <QCoreApplication>

namespace vetchling::app {
namespace {

using Kind = SiteThing::Kind;

QString tr(const char* words) { return QCoreApplication::translate("vetchling::app", words); }

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
    return all;
}

bool isThere(const Design& design, const SiteThing& thing)
{
    const auto all = thingsOf(design);
    return std::find(all.begin(), all.end(), thing) != all.end();
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
    case Kind::None: break;
    }
    return {};
}

PlanPoint placeOf(const Design& design, const SiteThing& thing)
{
    switch (thing.kind) {
    case Kind::Support: return findSupport(design, thing.id)->at;
    case Kind::Building: return cornerOf(findBuilding(design, thing.id)->outline);
    case Kind::Water: return cornerOf(findWater(design, thing.id)->outline);
    case Kind::FeedEntry: return design.site.feedEntry;
    case Kind::LineFrom: return design.site.powerLine->from;
    case Kind::LineTo: return design.site.powerLine->to;
    case Kind::None: break;
    }
    return {};
}

void moveTo(Design& design, const SiteThing& thing, PlanPoint place)
{
    if (!isThere(design, thing))
        return;
    const PlanPoint now = placeOf(design, thing);
    const auto shift = [&](Outline& outline) { outline = moved(outline, place.x - now.x, place.y - now.y); };
    switch (thing.kind) {
    case Kind::Support: changeSupport(design, thing.id, [&](Support& s) { s.at = place; }); break;
    case Kind::Building: shift(findBuilding(design, thing.id)->outline); break;
    case Kind::Water: shift(findWater(design, thing.id)->outline); break;
    case Kind::FeedEntry: design.site.feedEntry = place; break;
    case Kind::LineFrom: design.site.powerLine->from = place; break;
    case Kind::LineTo: design.site.powerLine->to = place; break;
    case Kind::None: break;
    }
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
}

} // namespace vetchling::app
