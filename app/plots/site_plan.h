#pragma once
/// The site to scale from above: boundary, buildings, water, supports, power line with its danger zone, the antennas.

#include "app/view/canvas.h"

#include <QPainterPath>

namespace vetchling::app {

class SitePlan : public Canvas {
    Q_OBJECT
public:
    explicit SitePlan(ViewContext& context);
    void render(Sketch& sketch, const QSizeF& size) override;

    /// Id of a support; empty for none.
    [[nodiscard]] const Id& selectedSupport() const { return m_support; }
    void selectSupport(const Id& support);
    /// Screen place of a plan point, for tests.
    [[nodiscard]] QPointF place(PlanPoint p) const { return project(p); }

signals:
    void supportSelected();

protected:
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void mouseReleaseEvent(QMouseEvent*) override;

private:
    [[nodiscard]] const Site& site() const { return m_context.document.design().site; }
    /// Of an antenna that can be built; else none.
    [[nodiscard]] const std::vector<Wire>& wiresOf(const Id& antenna) const;
    void aim(const QSizeF& size);
    [[nodiscard]] QPointF project(PlanPoint p) const { return m_origin + m_scale * QPointF(p.x, -p.y); }
    [[nodiscard]] PlanPoint unproject(QPointF p) const { return {(p.x() - m_origin.x()) / m_scale, (m_origin.y() - p.y()) / m_scale}; }
    [[nodiscard]] QPainterPath path(const Outline& outline) const;

    void paintWater(Sketch& sketch) const;
    void paintBoundary(Sketch& sketch) const;
    void paintBuildings(Sketch& sketch) const;
    void paintPowerLine(Sketch& sketch) const;
    void paintSupports(Sketch& sketch) const;
    void paintAntennas(Sketch& sketch) const;
    void paintFrame(Sketch& sketch, const QSizeF& size) const;
    [[nodiscard]] bool inWater(QPointF p) const;
    [[nodiscard]] Id supportAt(QPointF p) const; ///< empty: none
    [[nodiscard]] Id antennaAt(QPointF p) const;

    QPointF m_origin;
    double m_scale = 15.0;
    Id m_support, m_draggedSupport, m_draggedAntenna;
    bool m_frozen = false;
    PlanPoint m_grab;
};

} // namespace vetchling::app
