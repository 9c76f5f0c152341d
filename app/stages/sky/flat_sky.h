#pragma once
/// The whole sky laid flat: bearings across, angles up, low ones wide because they carry farthest; the deeper the stronger.

#include "app/view/aimed_canvas.h"
#include "core/study/skies.h"

#include <QImage>

#include <memory>

namespace vetchling::app {

class FlatSky final : public AimedCanvas {
    Q_OBJECT
public:
    explicit FlatSky(ViewContext& context);
    /// @param gain dBi where one looks
    void show(std::shared_ptr<const study::SkyGrid> grid, double gain);
    void render(Sketch& sketch, const QSizeF& size) override;

protected:
    void aimAt(QPointF p) override;

private:
    [[nodiscard]] static QRectF area(const QSizeF& size);
    [[nodiscard]] static double y(double elevation, const QRectF& area); ///< degrees
    void paintShade(Sketch& sketch, const QRectF& area);

    std::shared_ptr<const study::SkyGrid> m_grid;
    double m_gain = 0.0;
};

} // namespace vetchling::app
