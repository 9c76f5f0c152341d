#pragma once
/// Gain over elevation as a half-dial with a ray that can be dragged, a ground bar with hop distances, and a compass. Where the ground is
/// not flat, the dial stands on it in section, and what there would be over flat ground is dashed.

#include "app/document/sky_desk.h"
#include "app/plots/ground_sketch.h"
#include "app/plots/half_dial.h"
#include "app/view/aimed_canvas.h"

namespace vetchling::app {

class LobeDial : public AimedCanvas {
    Q_OBJECT
public:
    explicit LobeDial(ViewContext& context);

    /// Null: nothing is known.
    void show(std::shared_ptr<const SkyDesk::Lobes> lobes);
    void render(Sketch& sketch, const QSizeF& size) override;

protected:
    void aimAt(QPointF p) override;

private:
    struct Layout {
        HalfDial dial;
        HalfDial compass;                   ///< the whole round, from above
        QRectF card;                        ///< at the tip of the ray
        std::optional<GroundSketch> ground; ///< on which it stands, where it is not flat
    };
    [[nodiscard]] Layout layoutFor(const QSizeF& size) const;
    [[nodiscard]] QPainterPath lobe(const std::vector<double>& cut, const Layout& l) const;
    [[nodiscard]] QPainterPath rose(const std::vector<double>& round, const Layout& l) const;
    void paintDial(Sketch& sketch, const Layout& l, const study::Spot& spot) const;
    void paintFlat(Sketch& sketch, const Layout& l) const;
    void paintSection(Sketch& sketch, const Layout& l) const;
    void paintGroundBar(Sketch& sketch, const Layout& l) const;
    [[nodiscard]] QStringList rayWords() const;
    [[nodiscard]] QRectF cardFor(const Sketch& sketch, const Layout& l, const QSizeF& size) const;
    void paintRay(Sketch& sketch, const Layout& l) const;
    void paintCompass(Sketch& sketch, const Layout& l, const study::Spot& spot) const;

    std::shared_ptr<const SkyDesk::Lobes> m_lobes;
    [[nodiscard]] const SkyDesk::Lobes::Ground* ground() const; ///< null where it is flat
    [[nodiscard]] std::optional<TerrainProfile> line() const;
    double m_top = 6.0; ///< dBi at the rim
};

} // namespace vetchling::app
