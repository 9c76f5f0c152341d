#pragma once
/// What stands on a site and can be chosen, moved, renamed and removed, each by its kind and id.

#include "app/view/context.h"

namespace vetchling::app {

struct SiteThing {
    enum class Kind { None, Support, Building, Water, FeedEntry, LineFrom, LineTo, Boundary, Coax };
    Kind kind = Kind::None;
    Id id = {};      ///< of supports, buildings and waters
    int corner = -1; ///< of its outline, where that one alone is chosen
    [[nodiscard]] SiteThing whole() const { return {kind, id, -1}; }
    [[nodiscard]] bool any() const { return kind != Kind::None; }
    friend bool operator==(const SiteThing&, const SiteThing&) = default;
};

/// All that are there, in the order in which keys step through them.
std::vector<SiteThing> thingsOf(const Design& design);
bool isThere(const Design& design, const SiteThing& thing);
/// "flagpole", "feed line in".
QString nameOf(const Design& design, const SiteThing& thing);
/// Where it is: a support's foot, an outline's south-west corner.
PlanPoint placeOf(const Design& design, const SiteThing& thing);
/// Brings it there, and what is tied to a support along.
void moveTo(Design& design, const SiteThing& thing, PlanPoint place);
/// The corners of what has them: boundary, buildings, waters, the feed line's route (which is open); null for what has none.
const Outline* outlineOf(const Design& design, const SiteThing& thing);
Outline* outlineOf(Design& design, const SiteThing& thing);
/// A further corner on the edge after one, `at` its place; returns the thing with that corner chosen.
SiteThing addCorner(Design& design, const SiteThing& thing, int after, PlanPoint at);
/// Without the chosen corner; false where the outline would be none any more.
bool removeCorner(Design& design, const SiteThing& thing);
/// The edge of a thing's outline nearest to a place, and how far off, m; -1 where it has none.
std::pair<int, double> nearestEdge(const Design& design, const SiteThing& thing, PlanPoint p);
/// Where a corner goes that is dragged somewhere: to a corner or edge of another outline, or level with or below its neighbours, where
/// within reach, m; else to whole tenths.
PlanPoint snapped(const Design& design, const SiteThing& thing, PlanPoint to, double reach);

/// Whether it has a name of its own and can be taken away.
bool isNamed(const SiteThing& thing);
void renameThing(Design& design, const SiteThing& thing, const QString& name);
void removeThing(Design& design, const SiteThing& thing);

} // namespace vetchling::app
