#pragma once
/// What stands and hangs in the turned view, painted from the far to the near so that the near hides the far.

#include "app/plots/scene/camera.h"
#include "app/view/sketch.h"

namespace vetchling::app {

/// Buildings with walls and roofs, supports, and wires in short pieces.
/// Faces and pieces are ordered by their middles (the painter's order), which is right where none is long against what it passes.
void paintSolids(Sketch& sketch, const Camera& camera, const Site& site, const std::vector<const Support*>& supports,
                 const WireModel& wires);

} // namespace vetchling::app
