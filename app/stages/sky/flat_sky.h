#pragma once
/// The whole sky laid flat: bearings across, angles up, low ones wide because they carry farthest; the deeper the stronger.

#include "app/view/canvas.h"
#include "core/study/skies.h"

#include <QImage>

#include <memory>

namespace vetchling::app {

class FlatSky final : public Canvas {
    Q_OBJECT
public:
    explicit FlatSky(ViewContext& context);
    void show(std::shared_ptr<const study::SkyGrid> grid, double elevation, double bearing, double gain);
    void render(Sketch& sketch, const QSizeF& size) override;

signals:
    void aimed(double elevation, double bearing);

protected:
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    [[nodiscard]] static QRectF area(const QSizeF& size);
    [[nodiscard]] static double y(double elevation, const QRectF& area); ///< degrees
    void aimAt(QPointF p);
    void paintShade(Sketch& sketch, const QRectF& area);

    std::shared_ptr<const study::SkyGrid> m_grid;
    double m_elevation = 20.0, m_bearing = 0.0, m_gain = 0.0;
};

} // namespace vetchling::app
