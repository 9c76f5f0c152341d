#include "app/stages/bands/length_map_chart.h"

#include "app/view/axis.h"
#include "app/view/sketch.h"
#include "app/view/words.h"

#include <QKeyEvent>
#include <QMouseEvent>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr double mapLeft = 70.0, mapRight = 14.0, mapTop = 24.0, scoreHeight = 44.0, mapBottom = 46.0, tallest = 60.0, petalHeight = 3.0;

QColor mixed(const QColor& from, const QColor& to, double part)
{
    const auto between = [&](int a, int b) { return int(std::lround(a + (b - a) * part)); };
    return {between(from.red(), to.red()), between(from.green(), to.green()), between(from.blue(), to.blue())};
}

} // namespace

double shadeOf(double swr, double below)
{
    const double match = swr <= 1.5 ? 1.0 : swr <= 2.0 ? 0.75 : swr <= 3.0 ? 0.38 : swr <= 6.0 ? 0.16 : 0.0;
    constexpr double faint = 0.35, range = 15.0; // of the shade; dB
    return match * std::clamp(1.0 - (1.0 - faint) * std::max(0.0, below) / range, faint, 1.0);
}

LengthMapChart::LengthMapChart(ViewContext& context) : Canvas(context)
{
    setObjectName(QStringLiteral("lengthMap"));
    setAccessibleName(tr("Map of lengths and bands"));
    setAccessibleDescription(tr("Arrows choose a length, Enter takes it"));
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
    setMinimumHeight(260);
}

void LengthMapChart::show(std::shared_ptr<const study::LengthMap> map, double now, const QString& words,
                          std::shared_ptr<const study::LengthMap> before)
{
    m_before = std::move(before);
    if (m_map && map && m_map->columns.size() != map->columns.size())
        m_hot.reset();
    m_map = std::move(map);
    if (!m_map)
        m_hot.reset();
    m_now = now;
    m_words = words;
    update();
}

QRectF LengthMapChart::area(const QSizeF& size) const
{
    return {mapLeft, mapTop + scoreHeight, size.width() - mapLeft - mapRight, size.height() - mapTop - scoreHeight - mapBottom};
}

/// Bands that are solved somewhere, or wished for.
std::vector<std::size_t> LengthMapChart::rowsShown() const
{
    std::vector<std::size_t> rows;
    for (std::size_t i = 0; m_map && i < m_map->question.question.bands.size(); ++i)
        if (m_map->question.question.bands[i].wish != Wish::No ||
            std::any_of(m_map->columns.begin(), m_map->columns.end(),
                        [&](const study::MapColumn& c) { return !c.cells.empty() && c.cells[i].solved; }))
            rows.push_back(i);
    return rows;
}

QRectF LengthMapChart::rowArea(std::size_t row, const QSizeF& size) const
{
    const QRectF all = area(size);
    const double pitch = std::min(tallest + 8.0, all.height() / double(std::max<std::size_t>(1, rowsShown().size())));
    return {all.left(), all.top() + pitch * double(row), all.width(), pitch - 8.0};
}

double LengthMapChart::x(double value, const QRectF& area) const
{
    const auto& values = m_map->question.values;
    return area.left() + area.width() * (value - values.front()) / (values.back() - values.front());
}

std::optional<std::size_t> LengthMapChart::columnAt(double px) const
{
    if (!m_map)
        return std::nullopt;
    const QRectF all = area(size());
    const double part = (px - all.left()) / all.width();
    if (part < -0.02 || part > 1.02)
        return std::nullopt;
    const double last = double(m_map->columns.size() - 1);
    return std::size_t(std::clamp(std::round(part * last), 0.0, last));
}

QPointF LengthMapChart::placeOf(std::size_t column, std::size_t row) const
{
    return {x(m_map->columns[column].value, area(size())), rowArea(row, size()).center().y()};
}

QString LengthMapChart::valueText(double value) const
{
    const shapes::ParameterSpec* spec = m_context.document.family().spec(m_context.document.antenna().shape, m_map->question.vary);
    return spec ? valueWords(value, spec->quantity, m_context.system()) : QString::number(value);
}

void LengthMapChart::render(Sketch& sketch, const QSizeF& size)
{
    const Colours& c = sketch.colours();
    sketch.painter().fillRect(QRectF({0, 0}, size), c.paper);
    if (!m_map || !m_context.document.hasAntenna()) {
        sketch.text({0.5 * size.width(), 60.0}, m_words, Qt::AlignHCenter | Qt::AlignTop, {c.inkSoft, 14});
        return;
    }
    const QRectF all = area(size);
    double strongest = -HUGE_VAL;
    for (const study::MapColumn& column : m_map->columns)
        for (const study::MapCell& cell : column.cells)
            if (cell.solved && cell.lowestSwr <= 6.0)
                strongest = std::max(strongest, cell.gain);
    paintScore(sketch, all);
    const std::vector<std::size_t> rows = rowsShown();
    for (std::size_t i = 0; i < rows.size(); ++i)
        paintRow(sketch, rows[i], rowArea(i, size), strongest);
    const double foot = rows.empty() ? all.bottom() : rowArea(rows.size() - 1, size).bottom() + 4.0;
    const QRectF used(all.left(), all.top(), all.width(), foot - all.top());
    paintScale(sketch, used);
    paintMarks(sketch, used);
    paintFigures(sketch, size);
    if (onScreen())
        paintReading(sketch, size);
}

/// The SWR of each wanted band beside the best length, or the one that is looked at.
void LengthMapChart::paintFigures(Sketch& sketch, const QSizeF& size) const
{
    const std::optional<std::size_t> column = m_hot ? m_hot : m_map->progress() >= 1.0 ? m_map->bestAllRound : std::nullopt;
    if (!column || *column >= m_map->columns.size() || m_map->columns[*column].cells.empty())
        return;
    const Colours& c = sketch.colours();
    const std::vector<std::size_t> rows = rowsShown();
    for (std::size_t i = 0; i < rows.size(); ++i) {
        const study::MapCell& cell = m_map->columns[*column].cells[rows[i]];
        if (!cell.solved || cell.lowestSwr >= swrCap || int(i) == m_hotRow)
            continue;
        const QRectF row = rowArea(i, size);
        const double at = x(m_map->columns[*column].value, row);
        const bool leftSide = at > row.center().x();
        sketch.text({at + (leftSide ? -6.0 : 6.0), row.center().y()}, swrText(cell.lowestSwr),
                    (leftSide ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter, {c.ink, 12, true, c.paper});
    }
}

void LengthMapChart::paintScore(Sketch& sketch, const QRectF& area) const
{
    const Colours& c = sketch.colours();
    double most = 0.0;
    for (const study::MapColumn& column : m_map->columns)
        most = std::max(most, column.score);
    if (most <= 0.0)
        return;
    sketch.text({mapLeft - 10, area.top() - 12}, tr("score"), Qt::AlignRight | Qt::AlignVCenter, {c.inkSoft, 12});
    QPainterPath path;
    for (const study::MapColumn& column : m_map->columns) {
        if (column.cells.empty())
            continue;
        const QPointF p(x(column.value, area), area.top() - 6.0 - (scoreHeight - 26.0) * column.score / most);
        path.elementCount() == 0 ? path.moveTo(p) : path.lineTo(p);
    }
    sketch.painter().setBrush(Qt::NoBrush);
    sketch.painter().setPen(QPen(c.ink, 1.3));
    sketch.painter().drawPath(path);
}

void LengthMapChart::paintRow(Sketch& sketch, std::size_t band, const QRectF& row, double strongest) const
{
    const Colours& c = sketch.colours();
    const WantedBand& wanted = m_map->question.question.bands[band];
    sketch.text({mapLeft - 10, row.center().y()}, QString::fromStdString(wanted.band.name), Qt::AlignRight | Qt::AlignVCenter,
                {wanted.wish == Wish::No ? c.inkSoft : c.ink, 13, wanted.wish != Wish::No});
    sketch.painter().setRenderHint(QPainter::Antialiasing, false); // columns without seams
    sketch.painter().fillRect(row, c.panel);
    const auto& columns = m_map->columns;
    const double half = 0.5 * row.width() / double(std::max<std::size_t>(1, columns.size() - 1));
    QPainterPath impossible;
    for (std::size_t i = 0; i < columns.size(); ++i) {
        const study::MapColumn& column = columns[i];
        if (!column.fault.empty()) {
            QPainterPath cannot;
            cannot.addRect(QRectF(x(column.value, row) - half, row.top(), 2.0 * half, row.height()).intersected(row));
            impossible.addPath(cannot);
        }
        if (column.cells.empty() || !column.cells[band].solved)
            continue;
        const study::MapCell& cell = column.cells[band];
        // a coarse column stands for its neighbours until they are there
        double from = x(column.value, row) - half, to = x(column.value, row) + half;
        for (std::size_t k = 1; k <= 2 && i + k < columns.size() && !columns[i + k].computed(); ++k)
            to += 2.0 * half;
        for (std::size_t k = 1; k <= 2 && i >= k && !columns[i - k].computed(); ++k)
            from -= 2.0 * half;
        from = std::floor(from), to = std::ceil(to); // no paper between two columns
        const double shade = shadeOf(cell.lowestSwr, strongest - cell.gain);
        if (shade > 0.0)
            sketch.painter().fillRect(QRectF(from, row.top(), to - from, row.height() - petalHeight - 1.0).intersected(row),
                                      mixed(c.panel, c.leaf, shade));
        if (cell.multiple)
            sketch.painter().fillRect(QRectF(from, row.bottom() - petalHeight, to - from, petalHeight).intersected(row), c.petal);
    }
    sketch.painter().setRenderHint(QPainter::Antialiasing, true);
    if (!impossible.isEmpty())
        sketch.hatch(impossible.simplified(), c.hairline);
    bool highest = wanted.wish != Wish::No;
    for (std::size_t i = band + 1; i < m_map->question.question.bands.size(); ++i)
        highest = highest && m_map->question.question.bands[i].wish == Wish::No;
    if (highest && m_map->lobeCeiling) {
        const double from = std::max(row.left(), x(*m_map->lobeCeiling, row) - half);
        QPainterPath past;
        past.addRect(QRectF(from, row.top(), row.right() - from, row.height() - petalHeight - 1.0));
        sketch.hatch(past, c.inkFaint);
        sketch.text({row.right() - 4, row.center().y()}, tr("lobe above %1°").arg(degrees(m_map->question.aim.elevation), 0, 'f', 0),
                    Qt::AlignRight | Qt::AlignVCenter, {c.inkSoft, 11, false, c.panel});
    }
    const bool hot = m_hotRow >= 0 && m_hot && rowsShown()[std::size_t(m_hotRow)] == band;
    if (m_before && m_before->question.question.bands.size() == m_map->question.question.bands.size()) {
        paintTrace(sketch, *m_before, band, row, true);
        paintTrace(sketch, *m_map, band, row, false);
    } else if (hot) {
        paintTrace(sketch, *m_map, band, row, false);
    }
}

/// The row's SWR over the dimension, 1 at its foot.
void LengthMapChart::paintTrace(Sketch& sketch, const study::LengthMap& map, std::size_t band, const QRectF& row, bool dashed) const
{
    QPainterPath path;
    for (const study::MapColumn& column : map.columns) {
        if (column.cells.empty() || !column.cells[band].solved)
            continue;
        const QPointF p(x(column.value, row), row.bottom() - 5.0 - (row.height() - 6.0) * swrFraction(column.cells[band].lowestSwr));
        path.elementCount() == 0 ? path.moveTo(p) : path.lineTo(p);
    }
    sketch.painter().setBrush(Qt::NoBrush);
    sketch.painter().setPen(dashed ? QPen(sketch.colours().inkSoft, 1.2, Qt::DashLine) : QPen(sketch.colours().ink, 1.4));
    sketch.painter().drawPath(path);
}

void LengthMapChart::paintScale(Sketch& sketch, const QRectF& area) const
{
    const Colours& c = sketch.colours();
    const shapes::ParameterSpec* spec = m_context.document.family().spec(m_context.document.antenna().shape, m_map->question.vary);
    if (!spec)
        return;
    const bool length = spec->quantity == units::Quantity::Length;
    const bool feet = length && m_context.system() != units::System::Metric;
    const double unit = feet ? 0.3048 : spec->quantity == units::Quantity::Inductance ? 1e-6 : 1.0;
    const auto& values = m_map->question.values;
    for (double tick : niceTicks(values.front() / unit, values.back() / unit, 14)) {
        const double at = x(tick * unit, area);
        sketch.line({at, area.bottom()}, {at, area.bottom() + 4}, c.inkFaint);
        sketch.text({at, area.bottom() + 6}, QString::number(tick), Qt::AlignHCenter | Qt::AlignTop, {c.inkSoft, 12});
    }
    const QString in = length ? (feet ? tr("ft") : tr("m")) : spec->quantity == units::Quantity::Inductance ? tr("µH") : QString();
    sketch.text({area.right(), area.bottom() + 24}, tr("%1, %2").arg(coreWords(spec->label), in), Qt::AlignRight | Qt::AlignTop,
                {c.inkFaint, 12});
}

void LengthMapChart::paintMarks(Sketch& sketch, const QRectF& area) const
{
    const Colours& c = sketch.colours();
    const auto mark = [&](double value, const QString& words, const QColor& colour, double lower = 0.0) {
        const double at = x(value, area);
        if (at < area.left() - 1.0 || at > area.right() + 1.0)
            return;
        sketch.line({at, area.top() - scoreHeight - 4}, {at, area.bottom()}, colour, 1.5);
        const bool leftSide = at > area.center().x();
        sketch.label({at + (leftSide ? -5.0 : 5.0), area.top() - scoreHeight - 18 + lower}, words,
                     (leftSide ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignTop, {colour, 12, true, c.paper});
    };
    mark(m_now, tr("now %1").arg(valueText(m_now)), c.ink);
    if (m_map->progress() < 1.0)
        return; // what is best is not known yet
    if (m_map->bestAllRound)
        mark(m_map->columns[*m_map->bestAllRound].value, tr("best for all %1").arg(valueText(m_map->columns[*m_map->bestAllRound].value)),
             c.leaf, 14.0);
    if (m_map->bestFavourite && m_map->bestFavourite != m_map->bestAllRound) {
        const WantedBand* favourite = findBand(m_context.document.design(), m_map->question.favourite);
        mark(m_map->columns[*m_map->bestFavourite].value,
             tr("for %1: %2")
                 .arg(favourite ? QString::fromStdString(favourite->band.name) : QString(),
                      valueText(m_map->columns[*m_map->bestFavourite].value)),
             c.sky, 14.0);
    }
}

void LengthMapChart::paintReading(Sketch& sketch, const QSizeF& size) const
{
    if (!m_hot || *m_hot >= m_map->columns.size())
        return;
    const Colours& c = sketch.colours();
    const QRectF all = area(size);
    const study::MapColumn& column = m_map->columns[*m_hot];
    const double at = x(column.value, all);
    sketch.line({at, all.top() - scoreHeight}, {at, all.bottom()}, c.petal, 1.5);
    const std::vector<std::size_t> rows = rowsShown();
    QStringList lines{valueText(column.value)};
    if (!column.fault.empty())
        lines << coreWords(column.fault, m_context.system());
    else if (column.cells.empty())
        lines << tr("being computed …");
    else if (m_hotRow >= 0 && m_hotRow < int(rows.size())) {
        const std::size_t band = rows[std::size_t(m_hotRow)];
        const study::MapCell& cell = column.cells[band];
        lines << QString::fromStdString(m_map->question.question.bands[band].band.name);
        if (cell.solved)
            lines << tr("SWR %1 at %2").arg(swrText(cell.lowestSwr)).arg(cell.at / 1e6, 0, 'f', 3)
                  << tr("%1 % of it under %2").arg(100.0 * cell.share, 0, 'f', 0).arg(m_map->question.question.limit)
                  << tr("%1 dBi at %2°")
                         .arg(QString::number(cell.gain, 'f', 1).replace(QLatin1Char('-'), QStringLiteral("−")))
                         .arg(degrees(m_map->question.aim.elevation), 0, 'f', 0);
    }
    const double y = m_hotRow >= 0 && m_hotRow < int(rows.size()) ? rowArea(std::size_t(m_hotRow), size).bottom() + 6 : all.top();
    const QRectF card = sketch.card({at + 10, y}, lines, QRectF(4, 4, size.width() - 8, size.height() - 8));
    if (m_hotRow < 0 || m_hotRow >= int(rows.size()) || column.cells.empty())
        return;
    const std::size_t band = rows[std::size_t(m_hotRow)];
    constexpr double wide = 150.0, tall = 74.0; // beside the card, where there is room
    const double cardLeft = card.right() + 6.0 + wide < size.width() ? card.right() + 6.0 : card.left() - 6.0 - wide;
    if (column.cells[band].solved)
        paintCurve(sketch, column.cells[band], m_map->question.question.bands[band].band,
                   {cardLeft, std::min(card.top(), size.height() - tall - 4.0), wide, tall});
}

/// The SWR over a band at one length.
void LengthMapChart::paintCurve(Sketch& sketch, const study::MapCell& cell, const Band& band, const QRectF& box) const
{
    const Colours& c = sketch.colours();
    sketch.painter().setPen(QPen(c.hairline, 1.0));
    sketch.painter().setBrush(c.paper);
    sketch.painter().drawRoundedRect(box, 4, 4);
    const QRectF plot = box.adjusted(8, 8, -8, -20);
    const auto y = [&](double swr) { return plot.bottom() - plot.height() * swrFraction(swr); };
    const double limit = m_map->question.question.limit;
    sketch.line({plot.left(), y(limit)}, {plot.right(), y(limit)}, c.inkFaint, 1.0, Qt::DashLine);
    QPolygonF line;
    for (std::size_t i = 0; i < cell.swr.size(); ++i)
        if (!std::isnan(cell.swr[i]))
            line << QPointF(plot.left() + plot.width() * double(i) / double(cell.swr.size() - 1), y(double(cell.swr[i])));
    sketch.painter().setBrush(Qt::NoBrush);
    sketch.painter().setPen(QPen(c.ink, 1.5));
    sketch.painter().drawPolyline(line);
    sketch.text({plot.left(), plot.bottom() + 3}, QString::number(band.from / 1e6, 'f', 2), Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 11});
    sketch.text({plot.right(), plot.bottom() + 3}, QString::number(band.to / 1e6, 'f', 2), Qt::AlignRight | Qt::AlignTop, {c.inkSoft, 11});
}

void LengthMapChart::setHot(std::optional<std::size_t> column, int row)
{
    if (column == m_hot && row == m_hotRow)
        return;
    m_hot = column;
    m_hotRow = row;
    update();
    emit hotChanged();
}

void LengthMapChart::mouseMoveEvent(QMouseEvent* event)
{
    int row = -1;
    const std::size_t count = rowsShown().size();
    for (std::size_t i = 0; i < count; ++i)
        if (rowArea(i, size()).adjusted(0, -4, 0, 4).contains(QPointF(area(size()).center().x(), event->position().y())))
            row = int(i);
    const auto column = columnAt(event->position().x());
    setHot(column, row);
    if (m_dragging && column)
        emit taken(m_map->columns[*column].value, true);
}

void LengthMapChart::mousePressEvent(QMouseEvent* event)
{
    const auto column = columnAt(event->position().x());
    if (event->button() != Qt::LeftButton || !column)
        return;
    m_dragging = true;
    emit taken(m_map->columns[*column].value, true);
}

void LengthMapChart::mouseReleaseEvent(QMouseEvent*)
{
    if (m_dragging)
        emit dragEnded();
    m_dragging = false;
}

void LengthMapChart::leaveEvent(QEvent*) { setHot(std::nullopt, -1); }

void LengthMapChart::keyPressEvent(QKeyEvent* event)
{
    if (!m_map || m_map->columns.empty()) {
        Canvas::keyPressEvent(event);
        return;
    }
    const auto& values = m_map->question.values;
    const int last = int(values.size()) - 1, rows = int(rowsShown().size());
    const int present = int(std::lround(last * std::clamp((m_now - values.front()) / (values.back() - values.front()), 0.0, 1.0)));
    const int at = m_hot ? int(*m_hot) : present, stride = event->modifiers() & Qt::ShiftModifier ? 5 : 1;
    switch (event->key()) {
    case Qt::Key_Left: setHot(std::size_t(std::max(0, at - stride)), m_hotRow); break;
    case Qt::Key_Right: setHot(std::size_t(std::min(last, at + stride)), m_hotRow); break;
    case Qt::Key_Up: setHot(std::size_t(at), std::max(0, m_hotRow - 1)); break;
    case Qt::Key_Down: setHot(std::size_t(at), std::min(rows - 1, m_hotRow + 1)); break;
    case Qt::Key_Return:
    case Qt::Key_Enter: emit taken(values[std::size_t(at)], false); break;
    default: Canvas::keyPressEvent(event);
    }
}

} // namespace vetchling::app
