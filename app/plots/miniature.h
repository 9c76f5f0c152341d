#pragma once
/// Small drawings of an antenna's real wires.

#include "core/wire/wire_model.h"

#include <QPointF>
#include <QSizeF>

#include <vector>

namespace vetchling::app {

/// Compass bearing of the vertical plane in which the wires are widest.
double widestBearing(const WireModel& model);

/// The wires in metres, to the right and down (height zero at y = 0), seen from the side in which they are widest and a little from above,
/// so that level wires that turn a corner do not fall on one line.
struct SideView {
    Vec3 across, into; ///< unit vectors, level
    [[nodiscard]] QPointF of(Vec3 p) const;
};
SideView sideViewOf(const WireModel& model);
std::vector<std::vector<QPointF>> sideLines(const WireModel& model, const SideView& view);
/// The same fitted into a size, px.
std::vector<std::vector<QPointF>> miniature(const WireModel& model, const QSizeF& size);

} // namespace vetchling::app
