#include "app/plots/scene/camera.h"

#include "core/shapes/hang.h"
#include "core/study/sky.h"

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

struct Box {
    double u0 = HUGE_VAL, u1 = -HUGE_VAL, v0 = HUGE_VAL, v1 = -HUGE_VAL;
    void include(double u, double v) { u0 = std::min(u0, u), u1 = std::max(u1, u), v0 = std::min(v0, v), v1 = std::max(v1, v); }
};

/// The horizontal direction in which an antenna is widest.
Vec3 widestDirection(const WireModel& model)
{
    Vec3 best{1.0, 0.0, 0.0};
    double longest = 1e-3;
    std::vector<Vec3> points;
    for (const Wire& w : model.wires)
        points.insert(points.end(), w.points.begin(), w.points.end());
    for (const Vec3& a : points)
        for (const Vec3& b : points)
            if (const double d = std::hypot(a.x - b.x, a.y - b.y); d > longest)
                longest = d, best = Vec3{b.x - a.x, b.y - a.y, 0.0};
    best = unit(best);
    return best.x < -1e-9 || (std::abs(best.x) < 1e-9 && best.y < 0.0) ? -1.0 * best : best;
}

double planDistanceTo(const WireModel& model, PlanPoint p)
{
    double nearest = HUGE_VAL;
    for (const Wire& w : model.wires)
        for (std::size_t i = 1; i < w.points.size(); ++i)
            nearest = std::min(nearest, distanceToSegment(p, {w.points[i - 1].x, w.points[i - 1].y}, {w.points[i].x, w.points[i].y}));
    return nearest;
}

void turnTowards(Camera& camera, const WireModel& model, SceneView view, const Turn& turn)
{
    switch (view) {
    case SceneView::Side:
        camera.right = widestDirection(model);
        camera.up = {0.0, 0.0, 1.0};
        return;
    case SceneView::Plan:
        camera.right = {1.0, 0.0, 0.0};
        camera.up = {0.0, 1.0, 0.0};
        return;
    case SceneView::Turn: break;
    }
    const double cy = std::cos(turn.yaw), sy = std::sin(turn.yaw), cp = std::cos(turn.pitch), sp = std::sin(turn.pitch);
    camera.right = {cy, sy, 0.0};
    camera.up = {-sy * sp, cy * sp, cp};
}

} // namespace

QPointF Camera::project(Vec3 p) const
{
    const Vec3 d = p - target;
    return centre + QPointF(scale * dot(d, right), -scale * dot(d, up));
}

double Camera::bearing() const
{
    const Vec3 into = cross(up, right); // away from the viewer
    return study::bearingOf(std::atan2(into.y, into.x));
}

std::vector<const Support*> supportsInSight(const Site& site, const shapes::BuiltAntenna& antenna, SceneView view)
{
    constexpr double carriesWithin = 3.0, besides = 3.2; // m from a wire or its plane; of the antenna's width
    const Vec3 right = widestDirection(antenna.model), into{-right.y, right.x, 0.0};
    double reach = 0.0;
    for (const Wire& w : antenna.model.wires)
        for (Vec3 p : w.points)
            reach = std::max(reach, std::abs(dot(p - antenna.feedPoint, right)));
    std::vector<const Support*> shown, holding;
    for (std::size_t i = 0; i < antenna.handles.size(); ++i)
        holding.push_back(shapes::tiedTo(site, antenna, i));
    for (const Rope& rope : ropesOf(site, antenna.model))
        holding.push_back(rope.support);
    for (const Support& s : site.supports) {
        const Vec3 off = Vec3{s.at.x, s.at.y, 0.0} - antenna.feedPoint;
        const bool inPlane = std::abs(dot(off, into)) < carriesWithin && std::abs(dot(off, right)) < besides * reach;
        const bool holds = std::find(holding.begin(), holding.end(), &s) != holding.end();
        if (view != SceneView::Side || inPlane || holds || planDistanceTo(antenna.model, s.at) < carriesWithin)
            shown.push_back(&s);
    }
    return shown;
}

QPointF Camera::shown(Vec3 p, SceneView view) const
{
    constexpr double leastDepth = 9.0; // px
    QPointF at = project(p);
    if (view == SceneView::Side && p.z < -jointTolerance)
        at.setY(std::max(at.y(), project({p.x, p.y, 0.0}).y() + leastDepth));
    return at;
}

Camera aimedAt(const WireModel& model, SceneView view, const Turn& turn, const QSizeF& size, const std::vector<Vec3>& others)
{
    Camera camera;
    turnTowards(camera, model, view, turn);
    Box box;
    for (const Wire& w : model.wires)
        for (Vec3 p : w.points) {
            box.include(dot(p, camera.right), dot(p, camera.up));
            if (view != SceneView::Plan)
                box.include(dot(Vec3{p.x, p.y, 0.0}, camera.right), dot(Vec3{p.x, p.y, 0.0}, camera.up));
        }
    const bool side = view == SceneView::Side;
    const double besideWires = side ? 0.12 : 0.0, pad = side ? 0.04 : 0.12; // of the width; ribbon and dimensions stand beside the wires
    const double aside = besideWires * (box.u1 - box.u0);
    box.u0 -= aside, box.u1 += aside;
    for (Vec3 p : others)
        box.include(dot(p, camera.right), dot(p, camera.up));
    const double smallest = 0.02 * std::max({box.u1 - box.u0, box.v1 - box.v0, 1e-3});
    const double spanU = std::max(box.u1 - box.u0, smallest), low = side ? std::min(0.0, box.v0) : box.v0,
                 spanV = std::max(side ? 1.12 * box.v1 - low : box.v1 - low, smallest);
    const double width = size.width() - marginLeft - marginRight, height = size.height() - marginTop - marginBottom;
    camera.scale = turn.zoom * std::min(width / (spanU * (1.0 + 2.0 * pad)), height / spanV);
    const double middleU = 0.5 * (box.u0 + box.u1), middleV = side ? low + 0.5 * spanV : 0.5 * (box.v0 + box.v1);
    camera.target = middleU * camera.right + middleV * camera.up;
    camera.centre = {marginLeft + 0.5 * width, marginTop + 0.5 * height};
    if (side) // the ground stays at the bottom whatever the scale, and what lies below it in its band
        camera.centre.setY(size.height() - marginBottom - camera.scale * (middleV - low));
    return camera;
}

} // namespace vetchling::app
