#pragma once
/// Half a dial of gain over the angle above the horizon: rings of decibels, spokes of angles, and words that stand clear of the curves.

#include "app/view/sketch.h"

namespace vetchling::app {

struct HalfDial {
    QPointF centre;
    double radius = 0.0;
    double top = 0.0; ///< dBi at the rim

    static constexpr double span = 24.0, ringStep = 6.0; ///< dB from the rim to the centre, from ring to ring

    /// A round value at the rim for what is strongest, dBi.
    [[nodiscard]] static double rimFor(double strongest);
    [[nodiscard]] double radiusOf(double gain) const;
    /// @param elevation degrees, 0 to 180: beyond 90 on the far side
    [[nodiscard]] QPointF at(double gain, double elevation) const;
    [[nodiscard]] QPointF rim(double elevation) const { return at(top, elevation); }

    /// Rings and spokes, below the curves.
    void paintGround(Sketch& sketch) const;
    /// Angles around it, where there is room for them; dBi of the rings, on which no curve runs: after the curves.
    void paintWords(Sketch& sketch) const;
    /// Where its sides look, at their ends or, on a narrow one, beside one another.
    void paintTowards(Sketch& sketch, double bearing, double down) const;
};

} // namespace vetchling::app
