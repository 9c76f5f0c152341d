#pragma once
/// Gain over elevation as a half-dial with a ray that can be dragged, a ground bar with hop distances, and a compass.

#include "app/view/canvas.h"

namespace vetchling::app {

class LobeDial : public Canvas {
    Q_OBJECT
public:
    explicit LobeDial(ViewContext& context);

    void setAim(double elevation, double bearing); ///< degrees
    [[nodiscard]] double elevation() const { return m_elevation; }
    [[nodiscard]] double bearing() const { return m_bearing; }
    void render(Sketch& sketch, const QSizeF& size) override;

signals:
    void aimed(double elevation, double bearing);

protected:
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;

private:
    struct Layout {
        QPointF centre;
        double radius;
        QPointF compass;
        double compassRadius;
    };
    [[nodiscard]] Layout layoutFor(const QSizeF& size) const;
    [[nodiscard]] double radiusOf(double gain, double radius) const;
    [[nodiscard]] QPainterPath lobe(const em::FarField& field, const Layout& l) const;
    [[nodiscard]] QPainterPath rose(const em::FarField& field, const Layout& l) const;
    void paintDial(Sketch& sketch, const Layout& l, const study::Spot& spot) const;
    void paintGroundBar(Sketch& sketch, const Layout& l) const;
    void paintRay(Sketch& sketch, const Layout& l, const study::Spot& spot) const;
    void paintCompass(Sketch& sketch, const Layout& l, const study::Spot& spot) const;
    void aimAt(QPointF p);

    double m_elevation = 25.0, m_bearing = 150.0;
    double m_top = 6.0; ///< dBi at the rim
};

} // namespace vetchling::app
