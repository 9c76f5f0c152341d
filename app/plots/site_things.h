#pragma once
/// What stands on a site and can be chosen, moved, renamed and removed, each by its kind and id.

#include "app/view/context.h"

namespace vetchling::app {

struct SiteThing {
    enum class Kind { None, Support, Building, Water, FeedEntry, LineFrom, LineTo };
    Kind kind = Kind::None;
    Id id = {}; ///< of supports, buildings and waters
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
/// Whether it has a name of its own and can be taken away.
bool isNamed(const SiteThing& thing);
void renameThing(Design& design, const SiteThing& thing, const QString& name);
void removeThing(Design& design, const SiteThing& thing);

} // namespace vetchling::app
