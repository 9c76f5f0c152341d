#include "core/shapes/drag.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace vetchling::shapes {
namespace {

constexpr double nudge = 1e-3;   // of a parameter, for its slope
constexpr double damping = 1e-4; // of a slope of one, squared
constexpr double grid = 100.0;   // values a unit

struct Slope {
    double right = 0.0, up = 0.0;
};

Slope slopeOf(const AntennaShape& shape, const std::string& key, std::size_t handle, Vec3 at, const ViewMove& view)
{
    AntennaShape moved = shape;
    moved.parameters[key] = familyOf(shape).value(shape, key) + nudge;
    const auto there = buildOver(moved, {});
    if (!there || handle >= there->handles.size())
        return {};
    const Vec3 step = (1.0 / nudge) * (there->handles[handle].at - at);
    return {dot(step, view.right), dot(step, view.up)};
}

/// Solves the damped normal equations for two changes.
std::array<double, 2> changes(const Slope& a, const Slope& b, const ViewMove& move)
{
    const auto product = [](const Slope& s, const Slope& t) { return s.right * t.right + s.up * t.up; };
    const Slope gap{move.alongRight, move.alongUp};
    const double aa = product(a, a) + damping, bb = product(b, b) + damping, ab = product(a, b);
    const double ga = product(a, gap), gb = product(b, gap), determinant = aa * bb - ab * ab;
    return {(ga * bb - gb * ab) / determinant, (gb * aa - ga * ab) / determinant};
}

} // namespace

AntennaShape dragged(const AntennaShape& shape, const Ground& ground, std::size_t handle, const ViewMove& move)
{
    const auto here = buildOver(shape, {});
    if (!here || handle >= here->handles.size())
        return shape;
    const Handle& h = here->handles[handle];
    const Family& family = familyOf(shape);
    std::array<Slope, 2> slopes;
    const std::size_t count = std::min(slopes.size(), h.parameters.size());
    for (std::size_t i = 0; i < count; ++i)
        slopes[i] = slopeOf(shape, h.parameters[i], handle, h.at, move);
    const std::array<double, 2> change = changes(slopes[0], slopes[1], move);
    AntennaShape next = shape;
    for (std::size_t i = 0; i < count; ++i) {
        const ParameterSpec* spec = family.spec(shape, h.parameters[i]);
        if (change[i] != 0.0)
            next.parameters[spec->key] =
                std::clamp(std::round((family.value(shape, spec->key) + change[i]) * grid) / grid, spec->lowest, spec->highest);
    }
    return buildOver(next, ground) ? next : shape;
}

} // namespace vetchling::shapes
