#pragma once
/// One picture of a site from above, to scale.

#include "app/plots/site_things.h"
#include "app/view/sketch.h"

#include <QCoreApplication>
#include <QPainterPath>

namespace vetchling::app {

/// From plan metres to pixels.
struct PlanCamera {
    QPointF origin;
    double scale = 15.0; ///< px a metre
    [[nodiscard]] QPointF project(PlanPoint p) const { return origin + scale * QPointF(p.x, -p.y); }
    [[nodiscard]] QPointF project(Vec3 p) const { return project(PlanPoint{p.x, p.y}); }
    [[nodiscard]] PlanPoint unproject(QPointF p) const { return {(p.x() - origin.x()) / scale, (origin.y() - p.y()) / scale}; }
};

/// All that stands there and hangs, fitted into a size. @param margin px round it
PlanCamera aimedAt(const ViewContext& context, const QSizeF& size, double margin);

/// What is chosen and under the pointer; nothing in an exported picture.
struct PlanMarks {
    SiteThing selected;
    int hot = -1, dragged = -1; ///< handles of the shown antenna; -1: none
    bool handles = false;       ///< whether they are shown
};

class SitePainter {
    Q_DECLARE_TR_FUNCTIONS(SitePainter)
public:
    SitePainter(Sketch& sketch, const PlanCamera& camera, const QSizeF& size, const ViewContext& context, PlanMarks marks);
    void paint();

private:
    [[nodiscard]] const Site& site() const { return m_context.document.design().site; }
    [[nodiscard]] QPainterPath path(const Outline& outline) const;
    [[nodiscard]] bool chosen(SiteThing::Kind kind, const Id& id = {}) const { return m_marks.selected.whole() == SiteThing{kind, id}; }
    void paintCoax();
    [[nodiscard]] QPointF middle() const;
    void paintFarGrounds();
    void nameFarGrounds();
    void paintProfiles();
    void paintCorners();
    void reserveAll();
    void paintWaters();
    void paintBoundary();
    void paintPowerLine();
    void paintBuildings();
    void paintFeedEntry();
    void paintSupports();
    void paintSupport(const Support& support);
    [[nodiscard]] std::vector<const Antenna*> antennas() const;
    void paintAntennas();
    void nameAntennas();
    void paintWires(const shapes::BuiltAntenna& built, bool current);
    void paintName(const Antenna& antenna, const shapes::BuiltAntenna& built, bool current);
    void paintRopes(const shapes::BuiltAntenna& built, const QColor& colour);
    void paintHandles();
    void paintFrame();
    [[nodiscard]] bool inWater(QPointF p) const;

    Sketch& m_sketch;
    const PlanCamera& m_camera;
    QSizeF m_size;
    const ViewContext& m_context;
    PlanMarks m_marks;
    const Colours& m_colours;
};

/// Built and without a fault; else null.
const shapes::BuiltAntenna* soundAntenna(const ViewContext& context, const Id& antenna);

} // namespace vetchling::app
