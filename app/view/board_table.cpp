#include "app/view/board_table.h"

namespace vetchling::app {

BoardTable::BoardTable(Sketch& sketch, QPointF topLeft, double width, std::vector<Column> columns, double row)
    : m_sketch(sketch), m_columns(std::move(columns)), m_height(row), m_row(topLeft, QSizeF(width, headHeight))
{
    for (std::size_t i = 0; i < m_columns.size(); ++i)
        put(i, m_columns[i].head, {sketch.colours().inkSoft, pixels});
    sketch.line(m_row.bottomLeft(), m_row.bottomRight(), sketch.colours().hairline);
}

QRectF BoardTable::begin(bool chosen)
{
    m_row = QRectF(m_row.left(), m_row.bottom(), m_row.width(), m_height);
    if (chosen)
        m_sketch.painter().fillRect(m_row, m_sketch.colours().leafPale);
    m_sketch.line(m_row.bottomLeft(), m_row.bottomRight(), m_sketch.colours().hairline);
    return m_row;
}

void BoardTable::cell(std::size_t column, const QString& words, const QColor& colour, bool bold, double room)
{
    put(column, room > 0.0 ? m_sketch.theme().elided(words, room, pixels, bold) : words, {colour, pixels, bold});
}

void BoardTable::mark()
{
    m_sketch.painter().setPen(QPen(m_sketch.colours().petal, 1.6));
    m_sketch.painter().setBrush(Qt::NoBrush);
    m_sketch.painter().drawRect(m_row.adjusted(0.5, 0.5, -0.5, -0.5));
}

void BoardTable::put(std::size_t column, const QString& words, const Sketch::Ink& ink)
{
    if (!words.isEmpty())
        m_sketch.text({m_row.left() + m_columns[column].at, m_row.center().y()}, words, m_columns[column].side | Qt::AlignVCenter, ink);
}

} // namespace vetchling::app
