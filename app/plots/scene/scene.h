#pragma once
/// The antenna to scale over its ground: side view, plan, or turned in space; handles can be dragged.

#include "app/plots/scene/scene_painter.h"
#include "app/view/canvas.h"
#include "core/shapes/drag.h"

#include <optional>

namespace vetchling::app {

class Scene : public Canvas {
    Q_OBJECT
public:
    Scene(ViewContext& context, QWidget* parent = nullptr);
    void setView(SceneView view);
    /// The ribbon shows voltage instead of current.
    void setVoltage(bool on);
    [[nodiscard]] SceneView view() const { return m_view; }
    void render(Sketch& sketch, const QSizeF& size) override;

    /// Screen place of a handle of the current antenna, for tests; nothing if there is none of that name.
    [[nodiscard]] std::optional<QPointF> handlePosition(const std::string& name);
    /// Screen place of a point of the site, for tests.
    [[nodiscard]] QPointF pointOf(Vec3 p) const { return m_camera.project(p); }

signals:
    void draggingChanged(bool dragging);

protected:
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void mouseReleaseEvent(QMouseEvent*) override;
    void mouseDoubleClickEvent(QMouseEvent*) override;
    void wheelEvent(QWheelEvent*) override;
    void keyPressEvent(QKeyEvent*) override;

private:
    [[nodiscard]] const shapes::BuiltAntenna* built() const;
    void aim(const QSizeF& size);
    [[nodiscard]] int handleAt(QPointF p) const;
    void dragTo(QPointF p);
    bool dragBy(const shapes::ViewMove& move);
    [[nodiscard]] Vec3 pointOnWire(QPointF p) const;
    [[nodiscard]] bool removeCorner();
    [[nodiscard]] const Support* supportUnder(QPointF p) const;
    void endDrag();

    SceneView m_view = SceneView::Side;
    Turn m_turn;
    Camera m_camera;
    int m_hot = -1, m_dragged = -1;
    bool m_turning = false, m_voltage = false;
    QPointF m_last;
    shapes::AntennaShape m_grabbed; ///< as it was when the drag began: what is tied keeps that length
    std::optional<Camera> m_frozen; ///< while dragging, so that the picture does not rescale under the pointer
};

} // namespace vetchling::app
