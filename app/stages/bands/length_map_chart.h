#pragma once
/// The map of lengths: a dimension across, bands down; the shade is what is of use there, the petal lines are the plain multiples.

#include "app/view/canvas.h"
#include "core/study/length_map.h"

#include <memory>
#include <optional>

namespace vetchling::app {

class LengthMapChart final : public Canvas {
    Q_OBJECT
public:
    explicit LengthMapChart(ViewContext& context);

    /// @param map may be null; @param now the present value @param words said in place of a map @param before another one, drawn as dashed
    /// lines of SWR; may be null
    void show(std::shared_ptr<const study::LengthMap> map, double now, const QString& words,
              std::shared_ptr<const study::LengthMap> before = nullptr);
    void render(Sketch& sketch, const QSizeF& size) override;
    /// Column under the pointer or chosen by keys; nothing if there is none.
    [[nodiscard]] std::optional<std::size_t> hot() const { return m_hot; }
    /// Where a column and a band stand, for tests.
    [[nodiscard]] QPointF placeOf(std::size_t column, std::size_t row) const;

signals:
    void hotChanged();
    void taken(double value, bool dragging);
    void dragEnded();

protected:
    void mouseMoveEvent(QMouseEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void leaveEvent(QEvent*) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    [[nodiscard]] QRectF area(const QSizeF& size) const;
    [[nodiscard]] QRectF rowArea(std::size_t row, const QSizeF& size) const;
    [[nodiscard]] double x(double value, const QRectF& area) const;
    [[nodiscard]] std::optional<std::size_t> columnAt(double x) const;
    [[nodiscard]] std::vector<std::size_t> rowsShown() const;
    void setHot(std::optional<std::size_t> column, int row);
    void paintScore(Sketch& sketch, const QRectF& area) const;
    void paintRow(Sketch& sketch, std::size_t band, const QRectF& row, double strongest) const;
    void paintTrace(Sketch& sketch, const study::LengthMap& map, std::size_t band, const QRectF& row, bool dashed) const;
    void paintScale(Sketch& sketch, const QRectF& area) const;
    void paintMarks(Sketch& sketch, const QRectF& area) const;
    void paintFigures(Sketch& sketch, const QSizeF& size) const;
    void paintReading(Sketch& sketch, const QSizeF& size) const;
    void paintCurve(Sketch& sketch, const study::MapCell& cell, const Band& band, const QRectF& box) const;
    [[nodiscard]] QString valueText(double value) const;

    std::shared_ptr<const study::LengthMap> m_map, m_before;
    double m_now = 0.0;
    QString m_words;
    std::optional<std::size_t> m_hot;
    int m_hotRow = -1; ///< among the rows shown
    bool m_dragging = false;
};

/// How deep a cell is shaded, 0 to 1: by its SWR in steps, less what its gain lies below the strongest. @param below dB
double shadeOf(double swr, double below);

} // namespace vetchling::app
