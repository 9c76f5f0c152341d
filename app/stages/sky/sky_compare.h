#pragma once
/// Several antennas over one another: their lobes in one cut, and below it every band in one table.

#include "app/plots/half_dial.h"
#include "app/view/aimed_canvas.h"
#include "core/study/skies.h"

#include <memory>

namespace vetchling::app {

class SkyCompare final : public AimedCanvas {
    Q_OBJECT
public:
    explicit SkyCompare(ViewContext& context);
    /// @param skies may be null
    void show(std::shared_ptr<const std::vector<study::Skies>> skies);
    void render(Sketch& sketch, const QSizeF& size) override;
    /// Only the table, as another view's lower part. Returns its height.
    double paintTable(Sketch& sketch, const QRectF& area) const;
    [[nodiscard]] double tableHeight() const;
    /// Headings and rows: antenna, then dBi on each wanted band; empty where there is none.
    [[nodiscard]] std::vector<QStringList> cells() const;
    /// Who leads on the selected band, by how much, in words by size; empty where there are no two.
    [[nodiscard]] QString lead() const;

protected:
    void mousePressEvent(QMouseEvent* event) override;
    void aimAt(QPointF p) override;

private:
    [[nodiscard]] HalfDial dialFor(const QSizeF& size) const;
    [[nodiscard]] static Qt::PenStyle styleOf(std::size_t place);
    [[nodiscard]] QColor colourOf(std::size_t place) const;
    [[nodiscard]] QString nameOf(const study::Skies& skies) const;
    [[nodiscard]] std::vector<const WantedBand*> bands() const;
    /// dBi where one looks; nothing where the antenna has no field on that band.
    [[nodiscard]] std::optional<double> gainOf(const study::Skies& skies, const Id& band) const;
    void paintDial(Sketch& sketch, const HalfDial& dial) const;

    std::shared_ptr<const std::vector<study::Skies>> m_skies;
};

} // namespace vetchling::app
