#pragma once
/// Moving a handle: which parameter values bring it where the pointer is.

#include "core/shapes/family.h"

namespace vetchling::shapes {

/// A displacement in the plane of view, m: along two unit vectors that span it.
struct ViewMove {
    Vec3 right, up;
    double alongRight = 0.0, alongUp = 0.0;
};

/// New values of the handle's parameters, one or two, by the slopes of its place in the view (least squares with a little damping, so that
/// a parameter without effect in this view stays), rounded to a centimetre and kept within their limits.
/// The shape itself, with nothing changed, where the moved one could not be built.
AntennaShape dragged(const AntennaShape& shape, const Ground& ground, std::size_t handle, const ViewMove& move);

} // namespace vetchling::shapes
