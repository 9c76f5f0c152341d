#pragma once
/// The antenna to scale over its ground: side view, plan, or turned in space; with current, dimensions and handles.

#include "app/stages/stage.h"

#include <array>
#include <optional>

namespace vetchling::app {

/// Orthographic projection from site metres to pixels.
struct Camera {
    Vec3 right{1.0, 0.0, 0.0}, up{0.0, 0.0, 1.0};
    Vec3 target;
    double scale = 20.0; ///< px a metre
    QPointF centre;

    [[nodiscard]] QPointF project(Vec3 p) const;
};

class Scene : public Canvas {
    Q_OBJECT
public:
    enum class View { Side, Plan, Turn };

    Scene(StageContext& context, QWidget* parent = nullptr);
    void setView(View view);
    [[nodiscard]] View view() const { return m_view; }
    void render(Sketch& sketch, const QSizeF& size) override;

    /// Screen place of a handle of the current antenna, for tests; nothing if there is none of that name.
    [[nodiscard]] std::optional<QPointF> handlePosition(const std::string& name);

signals:
    void draggingChanged(bool dragging);

protected:
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void mouseReleaseEvent(QMouseEvent*) override;
    void wheelEvent(QWheelEvent*) override;

private:
    [[nodiscard]] const shapes::BuiltAntenna* built() const;
    void refreshGeometry();
    void aim(const QSizeF& size);
    [[nodiscard]] int handleAt(QPointF p) const;
    void dragTo(QPointF p);

    void paintGround(Sketch& sketch, const QSizeF& size) const;
    void paintPlanGround(Sketch& sketch) const;
    void paintBuildings(Sketch& sketch) const;
    void paintSupports(Sketch& sketch) const;
    void paintSupport(Sketch& sketch, const Support& support) const;
    void measureRibbon(const em::Solution& solution);
    void paintRibbon(Sketch& sketch);
    void paintWires(Sketch& sketch, const WireModel& model, bool pinned) const;
    void paintFittings(Sketch& sketch) const;
    void paintRangeNotes(Sketch& sketch) const;
    struct DimensionLine {
        QPointF a, b;
        QString words;
    };
    [[nodiscard]] std::vector<DimensionLine> dimensionLines() const;
    void paintHeights(Sketch& sketch, const QSizeF& size) const;
    void paintDragValue(Sketch& sketch) const;
    [[nodiscard]] double bearingOfView() const;

    View m_view = View::Side;
    Camera m_camera;
    double m_yaw = 0.6, m_pitch = 0.45, m_zoom = 1.0;
    std::optional<shapes::BuiltAntenna> m_built; ///< of the document's present values, before any solve
    static constexpr int ribbonPieces = 6;       ///< of an element
    std::vector<std::array<double, ribbonPieces + 1>> m_ribbon;
    DetailPointer m_ribbonOf; ///< what m_ribbon was measured on
    int m_hot = -1, m_dragged = -1;
    bool m_turning = false;
    QPointF m_last;
    std::optional<Camera> m_frozen; ///< while dragging, so that the picture does not rescale under the pointer
};

} // namespace vetchling::app
