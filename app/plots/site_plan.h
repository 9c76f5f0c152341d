#pragma once
/// The site to scale from above: what stands there can be chosen, moved, renamed and removed, and the shown antenna hung from it.

#include "app/plots/site_painter.h"
#include "app/view/canvas.h"

namespace vetchling::app {

class SitePlan : public Canvas {
    Q_OBJECT
public:
    explicit SitePlan(ViewContext& context);
    void render(Sketch& sketch, const QSizeF& size) override;

    [[nodiscard]] const SiteThing& selected() const { return m_selected; }
    void select(const SiteThing& thing);
    /// Id of a support; empty for none.
    [[nodiscard]] Id selectedSupport() const { return m_selected.kind == SiteThing::Kind::Support ? m_selected.id : Id(); }
    void selectSupport(const Id& support) { select({support.empty() ? SiteThing::Kind::None : SiteThing::Kind::Support, support}); }
    /// Screen place of a plan point, for tests.
    [[nodiscard]] QPointF place(PlanPoint p) const { return m_camera.project(p); }
    /// Screen place of a handle of the shown antenna, for tests.
    [[nodiscard]] QPointF handlePlace(std::size_t handle) const;

    /// Takes the corners of something new from clicks, until Enter, a double click or the first corner again; Escape leaves it.
    void startDrawing(SiteThing::Kind kind);
    /// A further corner after the chosen one; the chosen corner, else the thing, taken away.
    void addCornerByKey();
    void removeSelected();
    [[nodiscard]] bool drawing() const { return m_drawing != SiteThing::Kind::None; }

signals:
    void selectionChanged();
    void drawingChanged();
    void drawn(SiteThing::Kind kind, const Outline& outline);
    void renameWanted();
    void removeWanted();

protected:
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void mouseReleaseEvent(QMouseEvent*) override;
    void mouseDoubleClickEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;

private:
    void aim(const QSizeF& size);
    [[nodiscard]] SiteThing thingAt(QPointF p) const;
    [[nodiscard]] int handleAt(QPointF p) const; ///< of the shown antenna; -1: none
    [[nodiscard]] Id antennaAt(QPointF p) const;
    void dragThing(PlanPoint by);
    void dragAntenna(PlanPoint by);
    void dragHandle(QPointF to);
    void stepSelection(int direction);
    void stepCorner(int direction);
    void addCornerAt(QPointF p);
    void drawCorner(QPointF p, bool last);
    void finishDrawing(bool keep);

    void nudge(double east, double north);

    PlanCamera m_camera;
    SiteThing m_selected, m_draggedThing;
    Id m_draggedAntenna;
    int m_hot = -1, m_draggedHandle = -1;
    SiteThing::Kind m_drawing = SiteThing::Kind::None;
    Outline m_drawn;
    QPointF m_pointer;
    bool m_frozen = false;
    PlanPoint m_grab;
};

} // namespace vetchling::app
