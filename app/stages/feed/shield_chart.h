#pragma once
/// Current on the outside of the coax at the radio, for a choke at any place along it, by band; and what the shield does to the antenna.

#include "app/document/feed_desk.h"
#include "app/view/canvas.h"

namespace vetchling::app {

class ShieldChart : public Canvas {
    Q_OBJECT
public:
    ShieldChart(ViewContext& context, FeedDesk& desk, QWidget* parent = nullptr);
    void render(Sketch& sketch, const QSizeF& size) override;
    [[nodiscard]] std::vector<QStringList> cells() const;

protected:
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void leaveEvent(QEvent*) override;
    void keyPressEvent(QKeyEvent*) override;

private:
    [[nodiscard]] QString aloneWords() const;
    struct Frame {
        QRectF area;
        double length = 1.0, lowest = 0.0, highest = 1.0; ///< m; decades of A
        [[nodiscard]] double x(double metres) const { return area.left() + area.width() * metres / length; }
        [[nodiscard]] double y(double amperes) const;
    };
    [[nodiscard]] Frame frameOf(const study::ShieldAnswer& answer, const QSizeF& size) const;
    void paintAxes(Sketch& sketch, const Frame& frame) const;
    void paintCurves(Sketch& sketch, const study::ShieldAnswer& answer, const Frame& frame) const;
    void paintMarks(Sketch& sketch, const study::ShieldAnswer& answer, const Frame& frame) const;
    void paintTable(Sketch& sketch, const QRectF& area) const;

    FeedDesk& m_desk;
    std::optional<double> m_place; ///< m, under the pointer or reached by keys
};

} // namespace vetchling::app
