#pragma once
/// The ground along a bearing in section, and below it what the antenna would gain towards the wanted angle if it stood elsewhere along it.

#include "app/document/site_desk.h"
#include "app/plots/ground_sketch.h"
#include "app/view/canvas.h"

namespace vetchling::app {

class GroundView : public Canvas {
    Q_OBJECT
public:
    GroundView(ViewContext& context, SiteDesk& desk);
    /// Along which one looks; asks for the gains there.
    void show(double bearing);
    [[nodiscard]] QString sentence() const;
    [[nodiscard]] QString tableText() const;
    void render(Sketch& sketch, const QSizeF& size) override;
    /// Where the antenna's foot is tried, m along the bearing.
    [[nodiscard]] double tried() const { return m_tried; }

protected:
    void mousePressEvent(QMouseEvent* event) override { tryAt(event->position()); }
    void mouseMoveEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    struct Layout {
        GroundSketch section;
        QRectF strip;                 ///< of the gains, over the same distances
        double low = 0.0, high = 1.0; ///< dBi
        [[nodiscard]] QPointF at(double away, double gain) const;
    };
    [[nodiscard]] std::optional<TerrainProfile> line() const;
    [[nodiscard]] Layout layoutFor(const QSizeF& size) const;
    void paintStrip(Sketch& sketch, const Layout& l) const;
    void tryAt(QPointF p);

    SiteDesk& m_desk;
    double m_bearing = 0.0, m_tried = 0.0;
};

} // namespace vetchling::app
