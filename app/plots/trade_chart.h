#pragma once
/// Pairs of equal resonance side by side: the solved dimension, width, resistance and efficiency over the free one; a click takes a pair.

#include "app/view/canvas.h"
#include "core/study/trade.h"

#include <memory>

namespace vetchling::app {

class TradeChart : public Canvas {
    Q_OBJECT
public:
    TradeChart(ViewContext& context, QWidget* parent = nullptr);
    /// @param now the free dimension as it is; marked
    void show(std::shared_ptr<const study::TradeCurve> curve, double now);
    /// Said in place of a curve.
    void say(const QString& words);
    void render(Sketch& sketch, const QSizeF& size) override;
    [[nodiscard]] bool filled() const { return m_curve && !m_curve->points.empty(); }
    /// Where a pair stands, for tests.
    [[nodiscard]] QPointF placeOf(int point) const;

signals:
    void taken(int point);

protected:
    void mouseMoveEvent(QMouseEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void leaveEvent(QEvent*) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    struct Row {
        QString name;
        std::function<double(const study::TradePoint&)> value;
        std::function<QString(double)> words;
        QColor colour;
    };
    [[nodiscard]] std::vector<Row> rows() const;
    [[nodiscard]] QRectF rowArea(int row, int count, const QSizeF& size) const;
    [[nodiscard]] double x(double free, const QRectF& area) const;
    [[nodiscard]] int nearest(QPointF at) const;
    void drawRow(Sketch& sketch, const Row& row, const QRectF& area) const;
    void drawScale(Sketch& sketch, const QRectF& area) const;

    std::shared_ptr<const study::TradeCurve> m_curve;
    QString m_words;
    double m_now = 0.0;
    int m_hot = -1; ///< pair under the pointer, or chosen by keys
};

} // namespace vetchling::app
