#pragma once
/// A graphic of the sky in which one looks somewhere: dragged with the mouse, moved by the arrow keys.

#include "app/view/canvas.h"

namespace vetchling::app {

class AimedCanvas : public Canvas {
    Q_OBJECT
public:
    AimedCanvas(ViewContext& context, QWidget* parent = nullptr);

    void setAim(double elevation, double bearing); ///< degrees
    [[nodiscard]] double elevation() const { return m_elevation; }
    [[nodiscard]] double bearing() const { return m_bearing; }

signals:
    void aimed(double elevation, double bearing);

protected:
    /// The pointer is pressed or dragged there: emits `aimed`, if that is a direction.
    virtual void aimAt(QPointF p) = 0;
    /// Of a half-dial: above its middle, to the side of the bearing or opposite.
    void aimOnDial(QPointF fromCentre);
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

    double m_elevation = 25.0, m_bearing = 150.0;
};

} // namespace vetchling::app
