#pragma once
/// Orthographic projection from site metres to pixels, and how it is aimed at an antenna.

#include "core/shapes/family.h"
#include "core/site/site.h"

#include <QPointF>
#include <QSizeF>

namespace vetchling::app {

enum class SceneView { Side, Plan, Turn };

/// Room around the antenna for scales, dimension lines and the soil, px.
inline constexpr double marginLeft = 40.0, marginRight = 70.0, marginTop = 26.0, marginBottom = 58.0;

struct Camera {
    Vec3 right{1.0, 0.0, 0.0}, up{0.0, 0.0, 1.0};
    Vec3 target;
    double scale = 20.0; ///< px a metre
    QPointF centre;

    [[nodiscard]] QPointF project(Vec3 p) const;
    /// As the picture shows it: what lies in the soil far enough below the line to be seen from the side.
    [[nodiscard]] QPointF shown(Vec3 p, SceneView view) const;
    /// Compass bearing into the picture, degrees.
    [[nodiscard]] double bearing() const;
};

/// How the turned view is turned and drawn near.
struct Turn {
    double yaw = 0.6, pitch = 0.45, zoom = 1.0; ///< rad, rad, 1 fits the window
};

/// Looks across the direction in which the antenna is widest (side), down (plan), or as turned; the antenna fits the size, and so do the
/// other points.
Camera aimedAt(const WireModel& model, SceneView view, const Turn& turn, const QSizeF& size, const std::vector<Vec3>& others = {});

/// The supports that a picture shows: all, but from the side only those near a wire, that hold an end, or beside which an end could be
/// tied.
std::vector<const Support*> supportsInSight(const Site& site, const shapes::BuiltAntenna& antenna, SceneView view);

} // namespace vetchling::app
