#include "core/design/variants.h"

#include "core/shapes/hang.h"

#include <algorithm>

namespace vetchling {
namespace {

template <class List> auto findIn(List& list, const Id& id) -> decltype(list.data())
{
    const auto found = std::find_if(list.begin(), list.end(), [&](const Variant& v) { return v.id == id; });
    return found == list.end() ? nullptr : &*found;
}

TypedTexts typedOf(const Antenna& antenna, const Variant& variant)
{
    TypedTexts typed = variant.family.empty() ? antenna.typed : TypedTexts();
    for (const auto& [key, value] : variant.values)
        typed.erase(key);
    for (const auto& [key, text] : variant.typed)
        typed[key] = text;
    return typed;
}

std::vector<std::string> namesOf(const Antenna& antenna)
{
    std::vector<std::string> names;
    for (const Variant& v : antenna.variants)
        names.push_back(v.name);
    return names;
}

/// The antenna as drawn follows supports that were moved while its variant was looked at.
void carryAlong(Antenna& drawn, const Site& before, const Site& after)
{
    for (const Support& now : after.supports)
        for (const Support& then : before.supports)
            if (now.id == then.id && !(now == then))
                if (const shapes::AntennaShape shape = shapes::carried(before, now, drawn.shape); shape != drawn.shape)
                    takeShape(drawn, shape);
}

/// What the variant shares with nobody: all that one antenna may have other than another of the same name.
struct Look {
    shapes::AntennaShape shape;
    TypedTexts typed;
    std::optional<Soil> soil;
};

Look lookOf(const Antenna& antenna) { return {antenna.shape, antenna.typed, antenna.soil}; }

void wear(Antenna& antenna, const Look& look)
{
    antenna.shape = look.shape;
    antenna.typed = look.typed;
    antenna.soil = look.soil;
}

/// Keeps in a variant what a look has other than the antenna as drawn.
void keepDifferences(Variant& variant, const Antenna& asDrawn, const Look& look)
{
    const shapes::AntennaShape &drawn = asDrawn.shape, &shape = look.shape;
    variant.soil.reset();
    if (look.soil != asDrawn.soil)
        variant.soil = look.soil;
    const bool sameFamily = shape.family == drawn.family;
    const shapes::Family& family = shapes::familyOf(shape);
    variant.family = sameFamily ? std::string() : shape.family;
    variant.designFrequency.reset();
    if (shape.designFrequency != drawn.designFrequency)
        variant.designFrequency = shape.designFrequency;
    variant.values.clear();
    for (const auto& [key, value] : shape.parameters)
        if (const auto here = drawn.parameters.find(key); !sameFamily || here == drawn.parameters.end() || here->second != value)
            variant.values[key] = value;
    for (const auto& [key, value] : drawn.parameters)
        if (sameFamily && !shape.parameters.contains(key) && family.spec(shape, key))
            variant.values[key] = family.value(shape, key);
    variant.typed.clear();
    for (const auto& [key, text] : look.typed)
        if (variant.values.contains(key))
            variant.typed[key] = text;
    variant.wire.reset();
    if (shape.wire != drawn.wire)
        variant.wire = shape.wire;
    variant.partWires.reset();
    if (shape.partWires != drawn.partWires)
        variant.partWires = shape.partWires;
}

} // namespace

shapes::AntennaShape shapeOf(const shapes::AntennaShape& drawn, const Variant& variant)
{
    shapes::AntennaShape out = drawn;
    if (!variant.family.empty()) {
        out.family = variant.family;
        out.parameters.clear();
    }
    for (const auto& [key, value] : variant.values)
        out.parameters[key] = value;
    out.designFrequency = variant.designFrequency.value_or(drawn.designFrequency);
    out.wire = variant.wire.value_or(drawn.wire);
    out.partWires = variant.partWires.value_or(drawn.partWires);
    return out;
}

const Variant* findVariant(const Antenna& antenna, const Id& id) { return findIn(antenna.variants, id); }
Variant* findVariant(Antenna& antenna, const Id& id) { return findIn(antenna.variants, id); }

Antenna asVariant(const Antenna& antenna, const Id& variant)
{
    Antenna out = antenna;
    if (const Variant* v = findVariant(antenna, variant)) {
        out.shape = shapeOf(antenna.shape, *v);
        out.typed = typedOf(antenna, *v);
        out.soil = v->soil.value_or(antenna.soil);
    }
    return out;
}

Design shown(const Design& stored, const ChosenVariants& chosen)
{
    Design out = stored;
    for (Antenna& antenna : out.antennas)
        if (const auto choice = chosen.find(antenna.id); choice != chosen.end())
            antenna = asVariant(antenna, choice->second);
    return out;
}

Design stored(Design changed, const Design& stored, const ChosenVariants& chosen)
{
    for (Antenna& antenna : changed.antennas) {
        const auto choice = chosen.find(antenna.id);
        const Antenna* before = findAntenna(stored, antenna.id);
        if (choice == chosen.end() || !before || !findVariant(*before, choice->second))
            continue;
        const Look edited = lookOf(antenna);
        wear(antenna, lookOf(*before));
        carryAlong(antenna, stored.site, changed.site);
        if (Variant* v = findVariant(antenna, choice->second))
            keepDifferences(*v, antenna, edited);
    }
    settleFeeds(changed);
    return changed;
}

Id addVariant(Antenna& antenna, const Id& from, const std::string& name)
{
    const Antenna now = asVariant(antenna, from);
    Variant variant;
    variant.id = newId();
    variant.name = freeName(name, namesOf(antenna));
    keepDifferences(variant, antenna, lookOf(now));
    antenna.variants.push_back(variant);
    return variant.id;
}

bool takeVariant(Antenna& antenna, const Id& id, const std::string& nameBefore)
{
    if (!findVariant(antenna, id))
        return false;
    const Antenna before = antenna, now = asVariant(antenna, id);
    wear(antenna, lookOf(now));
    for (Variant& v : antenna.variants) {
        const Antenna as = asVariant(before, v.id);
        if (v.id == id) {
            v.name = nameBefore;
            keepDifferences(v, antenna, lookOf(before));
        } else {
            keepDifferences(v, antenna, lookOf(as));
        }
    }
    return true;
}

} // namespace vetchling
