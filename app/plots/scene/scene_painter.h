#pragma once
/// One picture of an antenna over its ground: soil, buildings, supports, current, wires, fittings, dimensions.

#include "app/plots/scene/camera.h"
#include "app/view/context.h"
#include "app/view/sketch.h"

#include <QCoreApplication>

#include <vector>

namespace vetchling::app {

/// What the picture is of.
struct SceneContent {
    const Site& site;
    units::System system;
    const AntennaModel& model; ///< built
    DetailPointer detail;      ///< may be null or a drag behind
    CurvePointer pinned;       ///< may be null
    QString pinnedName;
    SceneView view = SceneView::Side;
    bool voltage = false;       ///< the ribbon's, instead of current
    double power = 0.0;         ///< W that voltages are told for
    bool handles = true;        ///< to be dragged; not in an exported picture
    int hot = -1, dragged = -1; ///< handles; -1: none
};

class ScenePainter {
    Q_DECLARE_TR_FUNCTIONS(ScenePainter)
public:
    ScenePainter(Sketch& sketch, const Camera& camera, const QSizeF& size, const SceneContent& content);
    void paint();

private:
    [[nodiscard]] const shapes::BuiltAntenna& built() const { return *m_content.model.built; }
    [[nodiscard]] bool metric() const { return m_content.system == units::System::Metric; }
    [[nodiscard]] QPainterPath outlinePath(const Outline& outline) const;

    void paintGround();
    void paintPowerLine(const PowerLine& line);
    void paintPlanGround();
    void paintBuildings();
    void paintSupports();
    void paintSupport(const Support& support);
    void paintRibbon();
    void paintWires(const WireModel& model, const QPen& pen);
    void paintDugIn(const WireModel& model);
    /// Where a point is drawn: what lies in the soil far enough below the line to be seen.
    [[nodiscard]] QPointF placeOf(Vec3 p) const;
    [[nodiscard]] double lengthOnScreen(const shapes::CoilPlace& coil) const;
    void paintFittings();
    [[nodiscard]] QPointF noteAt(const RangeNote& note) const;
    void paintRangeNotes();
    /// Of wires, heights and distances on the ground; what else is written keeps clear of them.
    [[nodiscard]] std::vector<Sketch::Dimension> planDimensions();
    void planLengths(std::vector<Sketch::Dimension>& planned);
    void planHeights(std::vector<Sketch::Dimension>& planned); ///< their thin leads are drawn at once
    void planGroundDistances(std::vector<Sketch::Dimension>& planned);
    void reserveThings();
    [[nodiscard]] QString hint() const; ///< of the views from above and turned
    void paintRopes();
    void paintPinned();
    void reserveHandles();
    void paintDragValue();

    Sketch& m_sketch;
    const Camera& m_camera;
    QSizeF m_size;
    const SceneContent& m_content;
    const Colours& m_colours;
};

} // namespace vetchling::app
