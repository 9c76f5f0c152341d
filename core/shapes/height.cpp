#include "core/shapes/height.h"

#include "core/shapes/hang.h"
#include "core/site/standing.h"

#include <algorithm>
#include <cmath>

namespace vetchling::shapes {
namespace {

constexpr double noise = 1e-6;     // m that a height is told to, so that the same question stays the same
constexpr double samePlace = 0.05; // m

std::string heightKeyOf(const Handle& handle)
{
    for (const std::string& key : handle.parameters)
        if (key.ends_with("height_m"))
            return key;
    return {};
}

/// Where the line of a wire that runs down to its end meets the ground, no farther off than a rope is long.
std::optional<Vec3> pegOf(Vec3 before, Vec3 end)
{
    const Vec3 out = unit(end - before);
    if (!(out.z < -1e-3) || !(end.z > 0.0) || end.z > -out.z * longestRope || std::hypot(out.x, out.y) < 0.1)
        return std::nullopt;
    return end + (end.z / -out.z) * out;
}

AntennaShape tidy(const AntennaShape& before, AntennaShape after)
{
    for (auto& [key, value] : after.parameters)
        if (const auto was = before.parameters.find(key); was == before.parameters.end() || was->second != value)
            value = std::round(value / noise) * noise;
    return after;
}

} // namespace

AntennaShape raised(const AntennaShape& shape, double by)
{
    AntennaShape out = shape;
    if (std::abs(by) < 1e-9)
        return out;
    const Family& family = familyOf(shape);
    for (const ParameterSpec& spec : family.specs(shape))
        if (spec.quantity == units::Quantity::Length && spec.key.find("height_m") != std::string::npos) {
            const double now = family.value(shape, spec.key);
            if (now > 0.0)
                out.parameters[spec.key] = std::clamp(now + by, std::max(spec.lowest, 0.1), spec.highest);
        }
    return out;
}

double heightOf(const BuiltAntenna& built)
{
    double high = 0.0;
    for (const Wire& w : built.model.wires)
        for (const Vec3& p : w.points)
            high = std::max(high, p.z);
    return high;
}

Ties::Ties(const Site& site, const AntennaShape& shape) : m_shape(shape)
{
    const auto built = buildOver(shape, site.soil.ground());
    if (!built)
        return;
    m_height = heightOf(*built);
    m_supports = supportsHolding(site, built->model);
    for (const Handle& handle : built->handles) {
        Held held;
        held.at = handle.at;
        held.heightKey = heightKeyOf(handle);
        const std::optional<Vec3> before = distance(handle.at, built->feedPoint) < samePlace ? std::nullopt : besideEnd(*built, handle.at);
        held.isEnd = before.has_value();
        const auto support =
            std::find_if(site.supports.begin(), site.supports.end(), [&](const Support& s) { return holdsAt(s, handle.at); });
        if (support != site.supports.end()) {
            held.by = By::Support, held.support = support->id, held.tie = handle.at;
        } else if (before) {
            for (const Rope& rope : ropesOf(site, built->model))
                if (distance(rope.from, handle.at) < samePlace)
                    held.by = By::Rope, held.support = rope.support->id, held.tie = rope.to;
            if (held.by == By::Nothing)
                if (const auto peg = pegOf(*before, handle.at))
                    held.by = By::Peg, held.tie = *peg;
        }
        m_held.push_back(held);
    }
}

/// Ends are brought back into the lines to their pegs, and to supports; what the moved support holds, to where it holds it now.
/// @param ropesToo else pegs alone
AntennaShape Ties::alongTheirLines(AntennaShape shape, const Id& moved, double by, bool ropesToo) const
{
    for (std::size_t i = 0; i < m_held.size(); ++i) {
        const Held& h = m_held[i];
        const bool goes = !moved.empty() && h.support == moved;
        if (!h.isEnd || h.by == By::Nothing || (h.by != By::Peg && !ropesToo) || (h.by == By::Support && !goes))
            continue;
        shape = familyOf(shape).hung(shape, i, {h.tie.x, h.tie.y, h.tie.z + (goes ? by : 0.0), true});
    }
    return shape;
}

double Ties::lowestHeld() const
{
    double lowest = m_height;
    for (const Held& h : m_held)
        if (h.by == By::Support || h.by == By::Rope || (h.by == By::Nothing && h.at.z >= heldFrom))
            lowest = std::min(lowest, h.at.z);
    return lowest;
}

AntennaShape Ties::higher(double by) const
{
    if (std::abs(by) < noise)
        return m_shape;
    AntennaShape next = raised(m_shape, by);
    const bool anything = std::any_of(m_held.begin(), m_held.end(), [](const Held& h) { return h.by != By::Nothing; });
    for (const Held& h : m_held)
        if (anything && h.by == By::Nothing && h.at.z < heldFrom && !h.heightKey.empty())
            next.parameters[h.heightKey] = familyOf(m_shape).value(m_shape, h.heightKey);
    return tidy(m_shape, alongTheirLines(std::move(next), {}, 0.0, false));
}

AntennaShape Ties::higher(const Id& support, double by) const
{
    if (std::abs(by) < noise)
        return m_shape;
    AntennaShape next = m_shape;
    for (const Held& h : m_held)
        if (h.support == support && !h.isEnd && !h.heightKey.empty())
            next.parameters[h.heightKey] = h.at.z + by;
    return tidy(m_shape, alongTheirLines(std::move(next), support, by, true));
}

AntennaShape Ties::withApexAt(double height) const
{
    AntennaShape next = m_shape;
    const Family& family = familyOf(m_shape);
    const double by = height - family.value(m_shape, "apex_height_m");
    next.parameters["apex_height_m"] = height;
    const bool held = std::any_of(m_held.begin(), m_held.end(), [](const Held& h) { return h.isEnd && h.by != By::Nothing; });
    if (!held && family.spec(m_shape, "end_height_m"))
        next.parameters["end_height_m"] = family.value(m_shape, "end_height_m") + by;
    if (std::abs(by) < noise)
        return m_shape;
    return tidy(m_shape, alongTheirLines(std::move(next), {}, 0.0, true));
}

} // namespace vetchling::shapes
