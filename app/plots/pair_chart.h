#pragma once
/// Choices side by side: several figures of each over one dimension; a click takes a choice.

#include "app/view/canvas.h"

#include <functional>
#include <optional>
#include <vector>

namespace vetchling::app {

class PairChart : public Canvas {
    Q_OBJECT
public:
    struct Row {
        QString name;
        std::vector<double> values; ///< one a choice
        std::function<QString(double)> words;
        QColor colour;
        bool fromZero = true; ///< else the scale fits the values
    };
    struct Content {
        QString axis = {};               ///< what goes across, with what the dashed line is
        std::vector<double> across = {}; ///< rising; where the choices stand
        std::vector<QString> ticks = {}; ///< below them
        /// In place of those: round figures of the axis, where the choices are many.
        std::vector<std::pair<double, QString>> scale = {};
        std::vector<bool> blocked = {}; ///< choices that cannot be taken, hatched; empty: none
        /// Further places on the axis, named at the foot of the first row.
        std::vector<std::pair<double, QString>> marks = {};
        std::vector<QString> hovers = {}; ///< said of one in place of the axis
        std::optional<double> now = {};   ///< dashed
        std::optional<std::size_t> best = {};
        QString bestWords = {}; ///< beside the best one
        std::vector<Row> rows = {};
    };

    PairChart(ViewContext& context, QWidget* parent = nullptr);
    void show(Content content);
    /// Said in place of choices.
    void say(const QString& words);
    [[nodiscard]] bool filled() const { return !m_content.across.empty(); }
    void render(Sketch& sketch, const QSizeF& size) override;
    /// Where a choice stands, for tests.
    [[nodiscard]] QPointF placeOf(int choice) const;

signals:
    void taken(int choice);

protected:
    void mouseMoveEvent(QMouseEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void leaveEvent(QEvent*) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    [[nodiscard]] QRectF rowArea(std::size_t row, const QSizeF& size) const;
    [[nodiscard]] double x(double across, const QRectF& area) const;
    [[nodiscard]] int nearest(QPointF at) const;
    [[nodiscard]] bool isBlocked(int choice) const
    {
        return std::size_t(choice) < m_content.blocked.size() && m_content.blocked[std::size_t(choice)];
    }
    void drawRow(Sketch& sketch, const Row& row, const QRectF& area) const;
    void drawScale(Sketch& sketch, const QRectF& area) const;

    Content m_content;
    QString m_words;
    int m_hot = -1; ///< choice under the pointer, or chosen by keys
};

} // namespace vetchling::app
