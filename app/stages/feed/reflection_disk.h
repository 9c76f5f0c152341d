#pragma once
/// What comes back: the reflection over the band at the feedpoint and at the radio on a disk whose rings are SWR, the way of one frequency
/// through the line, and what would cure it.

#include "app/document/feed_desk.h"
#include "app/view/canvas.h"

namespace vetchling::app {

class ReflectionDisk : public Canvas {
    Q_OBJECT
public:
    ReflectionDisk(ViewContext& context, FeedDesk& desk, QWidget* parent = nullptr);
    void render(Sketch& sketch, const QSizeF& size) override;

protected:
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void leaveEvent(QEvent*) override;
    void keyPressEvent(QKeyEvent*) override;

private:
    struct Disk {
        QPointF centre;
        double radius = 0.0, full = 1.0; ///< px; the reflection at its edge
        [[nodiscard]] double of(double gamma) const { return radius * gamma / full; }
        [[nodiscard]] QPointF at(Complex gamma) const { return centre + QPointF(of(gamma.real()), -of(gamma.imag())); }
    };
    [[nodiscard]] Disk diskOf(const study::Reflection& seen, const QSizeF& size) const;
    void paintRings(Sketch& sketch, const study::Reflection& seen, const Disk& disk) const;
    void paintRingNames(Sketch& sketch, const Disk& disk) const;
    [[nodiscard]] bool isRing(double swr, const Disk& disk) const;
    void paintSweep(Sketch& sketch, const study::Reflection& seen, const Disk& disk) const;
    void paintWords(Sketch& sketch, const study::Reflection& seen, const QRectF& area);
    [[nodiscard]] QStringList explained(const study::Reflection& seen) const;
    [[nodiscard]] int cureAt(QPointF p) const;
    [[nodiscard]] std::optional<double> frequencyNear(QPointF p) const;
    void step(int places);

    FeedDesk& m_desk;
    std::vector<QRectF> m_cures;
    int m_cure = -1; ///< that the keys have reached
};

} // namespace vetchling::app
