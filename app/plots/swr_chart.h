#pragma once
/// The frame of an SWR chart: a stretch of frequency, the reflected-power-like axis, a band and the limit.

#include "app/view/sketch.h"

#include <functional>

namespace vetchling::app {

struct SwrChart {
    QRectF area;
    double from = 0.0, to = 0.0; ///< Hz

    [[nodiscard]] double x(double frequency) const { return area.left() + area.width() * (frequency - from) / (to - from); }
    [[nodiscard]] double y(double swr) const { return area.bottom() - area.height() * swrFraction(swr) / swrFraction(5.0); }
    [[nodiscard]] double frequencyAt(double px) const { return from + (to - from) * (px - area.left()) / area.width(); }

    /// Axis lines and numbers, the band's ground, and the limit as a dashed line.
    void frame(Sketch& sketch, double bandFrom, double bandTo, double limit, bool wished) const;
    /// Hatching where the band's SWR is past the limit.
    void hatchPastLimit(Sketch& sketch, double bandFrom, double bandTo, double limit, const std::function<double(double)>& swr) const;
    /// Where a curve may lie: what is between two of them.
    void between(Sketch& sketch, const std::vector<double>& frequency, const std::vector<double>& low, const std::vector<double>& high,
                 const QColor& fill) const;
    /// No words stand on it that come later.
    void curve(Sketch& sketch, const std::function<double(double)>& swr, const QPen& pen) const;
    /// Words for a mark, above it or where there is room within the chart; led to it where that is not beside it.
    void name(Sketch& sketch, QPointF mark, double radius, const QString& words, const Sketch::Ink& ink) const;
};

} // namespace vetchling::app
