#include "core/study/recipe.h"

#include "core/design/unread.h"
#include "core/tune/tune.h"

#include <algorithm>
#include <cmath>

namespace vetchling::study {
namespace {

constexpr double believable = 0.25; // of a length, that building may make of its model

const TunedValue* find(const TuneAllOutcome& all, const std::string& parameter)
{
    const auto found =
        std::find_if(all.lengths.begin(), all.lengths.end(), [&](const TunedValue& v) { return v.length.parameter == parameter; });
    return found == all.lengths.end() ? nullptr : &*found;
}

} // namespace

Recipe recipeOf(const Design& design, const Antenna& antenna, const shapes::AntennaShape& built,
                const std::map<std::string, double>& perUnit, const std::string& date)
{
    Recipe recipe{antenna.name, design.site.name, date, antenna.notes, built, soilUnder(design, antenna), {}};
    if (const std::string where = unreadOf(design, antenna.id); !where.empty())
        recipe.notes += (recipe.notes.empty() ? "" : "\n") + unreadWords(where).english();
    const shapes::Family& family = shapes::familyOf(antenna.shape);
    for (const shapes::TunedLength& t : family.tuned(recipe.shape)) {
        const auto slope = perUnit.find(t.parameter);
        recipe.lengths.push_back(
            {t.parameter, t.name, family.value(recipe.shape, t.parameter), t.frequency, slope == perUnit.end() ? 0.0 : slope->second});
    }
    return recipe;
}

Result<RecipeCopy> copyOf(const Recipe& recipe, const shapes::WireChoice& wire, const Ground& ground, em::GroundTableCache& tables,
                          const Watch& watch)
{
    const auto there = tuneAll(recipe.shape, recipe.soil.ground(), tables, {}, watch);
    if (!there)
        return there.faults();
    RecipeCopy copy;
    copy.antenna.name = recipe.name;
    copy.antenna.notes = recipe.notes;
    copy.antenna.shape = recipe.shape;
    copy.antenna.shape.wire = wire;
    const auto here = tuneAll(copy.antenna.shape, ground, tables, {}, watch);
    if (!here)
        return here.faults();
    for (const RecipeLength& l : recipe.lengths) {
        const TunedValue *a = find(*there, l.parameter), *b = find(*here, l.parameter);
        if (!a || !b || !(a->value > 0.0))
            continue;
        const double built = l.built / a->value;
        if (std::abs(built - 1.0) > believable)
            return Fault{l.parameter,
                         {coreText("core", "the recipe's %1 is %2 and its model wants %3: that is another antenna than it says"), l.name,
                          Measure{l.built, units::Quantity::Length}, Measure{a->value, units::Quantity::Length}}};
        copy.lengths.push_back({l.parameter, l.name, l.built, a->value, b->value, built * b->value});
        copy.antenna.shape.parameters[l.parameter] = built * b->value;
    }
    return unlessStopped(watch, std::move(copy));
}

} // namespace vetchling::study
