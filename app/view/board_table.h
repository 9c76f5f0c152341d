#pragma once
/// The table of a board: one look for all. Soft headings, a hairline below each row, what is chosen on a pale leaf; nothing boxed.

#include "app/view/sketch.h"

namespace vetchling::app {

class BoardTable {
public:
    static constexpr double headHeight = 24.0, rowHeight = 27.0; ///< px
    static constexpr int pixels = 12;

    struct Column {
        QString head;
        double at;                              ///< px from the table's left: where its words begin, or end
        Qt::AlignmentFlag side = Qt::AlignLeft; ///< AlignRight: its words end there; AlignHCenter: that is their middle
    };

    /// Paints the headings and the line below them. @param row px of each
    BoardTable(Sketch& sketch, QPointF topLeft, double width, std::vector<Column> columns, double row = rowHeight);

    /// Begins the next row and returns where it lies.
    QRectF begin(bool chosen = false);
    /// Words in a column of it; cut short where they do not fit into `room`, which 0 does not limit.
    void cell(std::size_t column, const QString& words, const QColor& colour, bool bold = false, double room = 0.0);
    /// A frame round it: the keys are there.
    void mark();
    /// Where the rows end so far.
    [[nodiscard]] double bottom() const { return m_row.bottom(); }
    [[nodiscard]] static double heightOf(std::size_t rows, double row = rowHeight) { return headHeight + row * double(rows); }

private:
    void put(std::size_t column, const QString& words, const Sketch::Ink& ink);

    Sketch& m_sketch;
    std::vector<Column> m_columns;
    double m_height;
    QRectF m_row; ///< the headings, then the last one begun
};

} // namespace vetchling::app
