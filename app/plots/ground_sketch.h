#pragma once
/// The ground along a bearing, to the right, and behind an antenna, to the left, in section.

#include "app/view/sketch.h"
#include "core/units/units.h"
#include "core/wire/wire_model.h"

namespace vetchling::app {

struct GroundSketch {
    QRectF area;                   ///< px, that it may take
    QPointF foot;                  ///< px, of the antenna
    double reach = 0;              ///< m to either side
    double across = 1.0, up = 1.0; ///< px a metre

    /// @param rise, fall px above and below the foot that it may take
    static GroundSketch fitted(const TerrainProfile& ground, const QRectF& area, QPointF foot, double rise, double fall, double reach);
    /// m, to which a line of ground is worth drawing, and in which an antenna might be moved.
    static double farReach(const TerrainProfile& ground);
    static double nearReach(const TerrainProfile& ground);
    /// m over and under the foot, of what lies within a reach.
    struct Span {
        double rise = 0.0, fall = 0.0;
    };
    static Span spanOf(const TerrainProfile& ground, double reach);
    [[nodiscard]] QPointF at(double x, double z) const { return foot + QPointF(x * across, -z * up); }
    /// How much steeper than it is.
    [[nodiscard]] double exaggeration() const { return up / across; }

    /// @param strength of its fill, up to 255
    void paint(Sketch& sketch, const TerrainProfile& ground, int strength) const;
    /// Distances below it, and how high and low it goes.
    void paintWords(Sketch& sketch, const TerrainProfile& ground, units::System system) const;
};

} // namespace vetchling::app
