#pragma once
/// What each answer brings over the metres it takes: small drawings as points, the front of the best joined, the first three named.

#include "app/view/canvas.h"
#include "core/advice/advice.h"

namespace vetchling::app {

class AnswerChart : public Canvas {
    Q_OBJECT
public:
    explicit AnswerChart(ViewContext& context, QWidget* parent = nullptr);
    /// @param chosen key of an answer; may be empty
    void show(advice::AdvicePointer advice, const std::string& chosen);
    void render(Sketch& sketch, const QSizeF& size) override;

signals:
    /// An answer, by its key.
    void chosen(const std::string& key);
    /// A place that is no answer: why not?
    void asked(const std::string& family);

protected:
    void mousePressEvent(QMouseEvent* event) override;
    bool event(QEvent* event) override;

private:
    struct Point {
        std::string key, family;
        QString name;
        std::vector<advice::TriedPointer> antennas;
        double wire = 0.0, wish = 0.0;
        std::size_t rank = 0; ///< 0: no answer
        QPointF at;           ///< px
        double radius = 0.0;  ///< px
    };
    void place(const QRectF& plot);
    void paintAxes(Sketch& sketch, const QRectF& plot) const;
    void paintFront(Sketch& sketch) const;
    void paintPoint(Sketch& sketch, const Point& point) const;
    [[nodiscard]] const Point* pointAt(QPointF at) const;

    advice::AdvicePointer m_advice;
    std::string m_chosen;
    std::vector<Point> m_points; ///< the best last, so that they lie on top
    double m_most = 40.0;        ///< m at the right end
};

} // namespace vetchling::app
