#pragma once
/// Small drawn symbols of the parts of a chain; each looks like the thing.

#include "app/view/sketch.h"
#include "core/line/chain_part.h"

namespace vetchling::app {

inline constexpr double glyphSize = 36.0; ///< px, square

/// @param kind of a part, or "antenna", "radio"
void paintPartGlyph(Sketch& sketch, const ChainPart& part, QPointF centre, const QColor& ink);

} // namespace vetchling::app
