#pragma once
/// Variants over one another to scale, their figures in a table, and where the dip of a band may land.

#include "app/view/canvas.h"
#include "core/study/comparison.h"

namespace vetchling::app {

class VariantsChart final : public Canvas {
    Q_OBJECT
public:
    explicit VariantsChart(ViewContext& context);

    void show(std::shared_ptr<const std::vector<study::Compared>> rows, const Id& variant);
    void render(Sketch& sketch, const QSizeF& size) override;
    /// Where a row of the table stands, for tests.
    [[nodiscard]] QPointF placeOf(std::size_t row) const;
    /// Said in place of a table where there is none.
    [[nodiscard]] QString emptyWords() const;
    /// For copying.
    [[nodiscard]] QString tableText() const;

signals:
    void chosen(const Id& variant);

protected:
    void mousePressEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    struct Column {
        QString title;
        QStringList cells;        ///< by row
        std::vector<bool> beyond; ///< is past the limit
    };
    [[nodiscard]] std::vector<Column> columns() const;
    [[nodiscard]] static std::vector<double> rightEdges(const Theme& theme, const std::vector<Column>& columns, const QRectF& area);
    [[nodiscard]] double tableTop(double height) const;
    [[nodiscard]] const WantedBand* ownBand() const;
    void paintShapes(Sketch& sketch, const QRectF& area) const;
    void paintTable(Sketch& sketch, const QRectF& area) const;
    void paintDips(Sketch& sketch, const QRectF& area) const;
    void step(int rows);

    std::shared_ptr<const std::vector<study::Compared>> m_rows;
    Id m_variant;
};

} // namespace vetchling::app
