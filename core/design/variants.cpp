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

void keepDifferences(Variant& variant, const shapes::AntennaShape& drawn, const shapes::AntennaShape& shape, const TypedTexts& typed)
{
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
    for (const auto& [key, text] : typed)
        if (variant.values.contains(key))
            variant.typed[key] = text;
    variant.wire.reset();
    if (shape.wire != drawn.wire)
        variant.wire = shape.wire;
    variant.partWires.reset();
    if (shape.partWires != drawn.partWires)
        variant.partWires = shape.partWires;
}

const Variant* findVariant(const Antenna& antenna, const Id& id) { return findIn(antenna.variants, id); }
Variant* findVariant(Antenna& antenna, const Id& id) { return findIn(antenna.variants, id); }

Antenna asVariant(const Antenna& antenna, const Id& variant)
{
    Antenna out = antenna;
    if (const Variant* v = findVariant(antenna, variant)) {
        out.shape = shapeOf(antenna.shape, *v);
        out.typed = typedOf(antenna, *v);
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

Design stored(Design edited, const Design& stored, const ChosenVariants& chosen)
{
    for (Antenna& antenna : edited.antennas) {
        const auto choice = chosen.find(antenna.id);
        const Antenna* before = findAntenna(stored, antenna.id);
        if (choice == chosen.end() || !before || !findVariant(*before, choice->second))
            continue;
        const shapes::AntennaShape shape = antenna.shape;
        const TypedTexts typed = antenna.typed;
        antenna.shape = before->shape;
        antenna.typed = before->typed;
        carryAlong(antenna, stored.site, edited.site);
        if (Variant* v = findVariant(antenna, choice->second))
            keepDifferences(*v, antenna.shape, shape, typed);
    }
    settleFeeds(edited);
    return edited;
}

Id addVariant(Antenna& antenna, const Id& from, const std::string& name)
{
    const Antenna now = asVariant(antenna, from);
    Variant variant;
    variant.id = newId();
    variant.name = freeName(name, namesOf(antenna));
    keepDifferences(variant, antenna.shape, now.shape, now.typed);
    antenna.variants.push_back(variant);
    return variant.id;
}

bool takeVariant(Antenna& antenna, const Id& id, const std::string& nameBefore)
{
    if (!findVariant(antenna, id))
        return false;
    const Antenna before = antenna, now = asVariant(antenna, id);
    antenna.shape = now.shape;
    antenna.typed = now.typed;
    for (Variant& v : antenna.variants) {
        const Antenna as = asVariant(before, v.id);
        if (v.id == id) {
            v.name = nameBefore;
            keepDifferences(v, antenna.shape, before.shape, before.typed);
        } else {
            keepDifferences(v, antenna.shape, as.shape, as.typed);
        }
    }
    return true;
}

} // namespace vetchling
