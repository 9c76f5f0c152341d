#pragma once
/// Several antennas over one another: their lobes in one cut, and below it every band in one table.

#include "app/view/canvas.h"
#include "core/study/skies.h"

#include <memory>

namespace vetchling::app {

class SkyCompare final : public Canvas {
    Q_OBJECT
public:
    explicit SkyCompare(ViewContext& context);
    /// @param skies may be null @param elevation, bearing degrees, where one looks
    void show(std::shared_ptr<const std::vector<study::Skies>> skies, double elevation, double bearing);
    void render(Sketch& sketch, const QSizeF& size) override;
    /// Only the table, as another view's lower part. Returns its height.
    double paintTable(Sketch& sketch, const QRectF& area) const;
    [[nodiscard]] double tableHeight() const;
    /// Headings and rows: antenna, then dBi on each wanted band; empty where there is none.
    [[nodiscard]] std::vector<QStringList> cells() const;
    /// Who leads on the selected band, by how much, in words by size; empty where there are no two.
    [[nodiscard]] QString lead() const;

signals:
    void aimed(double elevation, double bearing);

protected:
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    struct Dial {
        QPointF centre;
        double radius;
    };
    [[nodiscard]] Dial dialFor(const QSizeF& size) const;
    [[nodiscard]] QColor colourOf(std::size_t place) const;
    [[nodiscard]] QString nameOf(const study::Skies& skies) const;
    [[nodiscard]] std::vector<const WantedBand*> bands() const;
    /// dBi where one looks; nothing where the antenna has no field on that band.
    [[nodiscard]] std::optional<double> gainOf(const study::Skies& skies, const Id& band) const;
    void paintDial(Sketch& sketch, const Dial& dial) const;
    void aimAt(QPointF p);

    std::shared_ptr<const std::vector<study::Skies>> m_skies;
    double m_elevation = 20.0, m_bearing = 0.0;
};

} // namespace vetchling::app
