#include "app/stages/feed/loss_board.h"

#include "app/view/band_words.h"
#include "app/view/feed_words.h"

#include <QApplication>
#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QToolTip>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr double cardHeight = 62.0, nameWidth = 78.0, netPart = 0.33, headings = 34.0;

} // namespace

LossBoard::LossBoard(ViewContext& context, FeedDesk& desk, QWidget* parent) : Canvas(context, parent), m_desk(desk)
{
    setObjectName(QStringLiteral("lossBoard"));
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    setMinimumHeight(330);
    setAccessibleName(tr("Chain from the antenna to the radio, and what is lost on each band"));
}

void LossBoard::refresh()
{
    m_drawing.take(m_context.document, m_desk.report(), m_context.document.selectedBand());
    const auto all = m_drawing.places();
    if (std::none_of(all.begin(), all.end(), [&](const auto& p) { return p.part == m_chosen; }))
        m_chosen.clear();
    update();
}

void LossBoard::setWords(const QString& headline, const QString& more, const QString& against)
{
    m_headline = headline;
    m_more = more;
    m_against = against;
}

void LossBoard::choose(const Id& part)
{
    m_chosen = part;
    update();
    emit partChosen();
}

LossBoard::Rows LossBoard::rowsOf(const study::FeedReport& report, const QSizeF& size) const
{
    Rows rows;
    rows.top = ChainDrawing::height + headings;
    rows.left = nameWidth;
    rows.width = size.width() * (1.0 - netPart) - nameWidth - 26.0;
    const double room = size.height() - rows.top - cardHeight - 24.0;
    rows.step = std::clamp(room / double(std::max<std::size_t>(1, report.rows.size())), 26.0, 96.0);
    double least = -1.0, most = 1.0;
    for (const study::FeedRow& row : report.rows) {
        least = std::min({least, row.ahead(), row.aheadAtLeast()});
        most = std::max({most, row.ahead(), row.aheadAtMost()});
    }
    constexpr double furthest = 24.0, label = 62.0;
    least = std::max(least, -furthest);
    most = std::min(most, furthest);
    const double left = size.width() * (1.0 - netPart) + 10.0, span = size.width() - left - 2.0 * label;
    rows.perDecibel = span / (most - least);
    rows.zero = left + label - least * rows.perDecibel;
    return rows;
}

QColor LossBoard::colourOf(const ChainPart& part, const Colours& c) const
{
    return part.kind == part::transformer ? c.petal
           : part.kind == part::line      ? c.brick
           : part.kind == part::tuner     ? c.leafMid
           : part.kind == part::choke     ? c.inkSoft
                                          : c.sky;
}

void LossBoard::render(Sketch& sketch, const QSizeF& size)
{
    const Colours& c = sketch.colours();
    m_drawing.layOut({0.0, 4.0, size.width(), ChainDrawing::height});
    m_drawing.paint(sketch, onScreen() ? m_chosen : Id(), onScreen() ? m_hovered : Id(), m_dragged);
    sketch.line({0.0, ChainDrawing::height}, {size.width(), ChainDrawing::height}, c.hairline);
    const auto report = m_desk.report();
    if (!report || report->rows.empty()) {
        const QString words = !m_context.document.hasAntenna()           ? tr("No antenna yet.")
                              : m_desk.busy() || m_context.solver.busy() ? tr("The fields on the wanted bands are being computed …")
                              : report                                   ? tr("No band is wanted: wish for some on the Bands page.")
                                                                         : tr("Nothing is known of this antenna yet.");
        sketch.text({0.0, ChainDrawing::height + 20.0}, words, Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 13});
        return;
    }
    const Rows rows = rowsOf(*report, size);
    const double heading = ChainDrawing::height + 6.0;
    sketch.text({0.0, heading}, tr("Of %1 W in the middle of each band; SWR at the radio").arg(report->power, 0, 'g', 4),
                Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 12});
    sketch.text({size.width(), heading}, sketch.theme().elided(tr("Net, against %1").arg(m_against), size.width() * netPart + 60.0, 12),
                Qt::AlignRight | Qt::AlignTop, {c.inkSoft, 12});
    sketch.text({size.width(), ChainDrawing::height - 17.0}, tr("≈ assumed   = computed   ✓ measured"), Qt::AlignRight | Qt::AlignTop,
                {c.inkFaint, 12});
    for (std::size_t i = 0; i < report->rows.size(); ++i) {
        const double y = rows.top + rows.step * double(i);
        if (y + rows.step > size.height() - 4.0)
            break;
        if (onScreen() && report->rows[i].band.band == m_context.document.selectedBand()) {
            sketch.painter().fillRect(QRectF(-8.0, y - 3.0, 3.0, std::min(38.0, rows.step - 4.0)), c.petal);
        }
        paintRow(sketch, *report, report->rows[i], rows, y, i + 1 == report->rows.size());
        paintNet(sketch, report->rows[i], rows, y);
    }
    const double below = rows.top + rows.step * double(report->rows.size()) + 16.0;
    if (below + cardHeight <= size.height() + 2.0)
        paintCard(sketch, {0.0, size.height() - cardHeight, size.width(), cardHeight});
    if (onScreen() && m_row >= 0)
        paintHover(sketch, *report, rows, size);
}

void LossBoard::paintRow(Sketch& sketch, const study::FeedReport& report, const study::FeedRow& row, const Rows& rows, double y,
                         bool last) const
{
    const Colours& c = sketch.colours();
    const bool roomy = rows.step >= 38.0;
    const double seen = row.socketSwr;
    sketch.text({0.0, y - 3.0}, QString::fromStdString(row.band.name), Qt::AlignLeft | Qt::AlignTop, {c.ink, roomy ? 16 : 13, true});
    if (roomy)
        sketch.text({0.0, y + 17.0}, tr("SWR %1").arg(swrText(seen)), Qt::AlignLeft | Qt::AlignTop,
                    {seen > m_context.document.design().operation.swrLimit ? c.brick : c.inkSoft, 12});
    const double height = roomy ? std::clamp(0.34 * rows.step, 20.0, 32.0) : 15.0;
    double x = rows.left, labelEnd = -1e9;
    const auto block = [&](double share, const QColor& colour) {
        const QRectF area(x, y, rows.width * share, height);
        sketch.painter().fillRect(area, colour);
        x += area.width();
        return area;
    };
    const double in = row.power / report.power, into = in * row.state.efficiency();
    const QRectF wire = block(into, c.leaf);
    const QString words = tr("%1 into the wire").arg(feed::wattWords(report.power * into));
    const double wordsWidth = sketch.theme().typeset(words, 12).size.width();
    const bool inside = wordsWidth + 14.0 < wire.width();
    const QString brief = feed::wattWords(report.power * into);
    const bool briefInside = sketch.theme().typeset(brief, 12).size.width() + 8.0 < wire.width();
    if (!inside && !briefInside && roomy) {
        const QRectF below = sketch.text({wire.left(), y + height + 1.0}, brief, Qt::AlignLeft | Qt::AlignTop, {c.leaf, 12});
        labelEnd = below.right() + 5.0;
    }
    if (inside || briefInside)
        sketch.text({inside ? wire.left() + 8.0 : wire.left() + 4.0, y + 0.5 * height}, inside ? words : brief,
                    Qt::AlignLeft | Qt::AlignVCenter, {c.card, 12});
    const auto label = [&](const QRectF& area, double watts, const QString& name) {
        const bool named = last && area.width() > 3.0;
        const QString figure = QString::number(watts, 'f', watts < 9.5 && report.power < 20 ? 1 : 0);
        const double half = 0.5 * sketch.theme().typeset(named ? name : figure, 12).size.width(), middle = area.center().x();
        if (watts < 0.5 || middle - half < labelEnd || !roomy)
            return;
        labelEnd = middle + half + 5.0;
        sketch.text({middle, y + height + 1.0}, figure, Qt::AlignHCenter | Qt::AlignTop, {c.inkSoft, 12});
        if (named)
            sketch.text({middle, y + height + 14.0}, name, Qt::AlignHCenter | Qt::AlignTop, {c.inkSoft, 12});
    };
    for (std::size_t i = 0; i < report.parts.size(); ++i) {
        const double lost = in * row.state.joints[i].lost();
        const QRectF area = block(lost, colourOf(report.parts[i], c));
        if (area.width() > 1.5)
            sketch.line({area.left(), y}, {area.left(), y + height}, c.paper, 1.0);
        label(area, report.power * lost, feed::partName(report.parts[i]));
    }
    const QRectF left = block(1.0 - in, c.paper);
    if (left.width() > 1.5) {
        QPainterPath outside;
        outside.addRect(left.adjusted(0.0, 0.5, -0.5, -0.5));
        sketch.hatch(outside, c.inkFaint, 6.0);
        sketch.painter().setPen(QPen(c.inkFaint, 1.0));
        sketch.painter().setBrush(Qt::NoBrush);
        sketch.painter().drawPath(outside);
        label(left, report.power - row.power, tr("not put in"));
    }
}

void LossBoard::paintNet(Sketch& sketch, const study::FeedRow& row, const Rows& rows, double y) const
{
    const Colours& c = sketch.colours();
    const double height = rows.step >= 38.0 ? 20.0 : 15.0, by = row.ahead();
    const auto x = [&](double decibels) { return rows.zero + std::clamp(decibels, -24.0, 24.0) * rows.perDecibel; };
    const QRectF bar = QRectF(QPointF(x(0.0), y), QPointF(x(by), y + height)).normalized();
    sketch.painter().setPen(QPen(c.sky, 1.2));
    sketch.painter().setBrush(by >= 0.0 ? c.sky : c.skyPale);
    sketch.painter().drawRect(bar);
    sketch.line({rows.zero, y - 5.0}, {rows.zero, y + height + 5.0}, c.inkFaint);
    if (row.netAtMost > row.netAtLeast) {
        const double middle = y + 0.5 * height, left = x(row.aheadAtLeast()), right = x(row.aheadAtMost());
        sketch.line({left, middle}, {right, middle}, c.ink, 1.4);
        for (double end : {left, right})
            sketch.line({end, middle - 4.0}, {end, middle + 4.0}, c.ink, 1.4);
    }
    const bool right = by >= 0.0;
    const double beyond = right ? std::max(x(by), x(row.aheadAtMost())) + 6.0 : rows.zero + 6.0;
    sketch.text({beyond, y + 0.5 * height}, feed::signedWords(by), Qt::AlignLeft | Qt::AlignVCenter, {c.ink, 12, true});
}

void LossBoard::paintCard(Sketch& sketch, const QRectF& card) const
{
    const Colours& c = sketch.colours();
    if (m_headline.isEmpty())
        return;
    sketch.painter().setPen(Qt::NoPen);
    sketch.painter().setBrush(c.petalPale);
    sketch.painter().drawRoundedRect(card, 6, 6);
    const double room = card.width() - 28.0;
    sketch.text(card.topLeft() + QPointF(14, 10), sketch.theme().elided(m_headline, room, 14, true), Qt::AlignLeft | Qt::AlignTop,
                {c.ink, 14, true});
    sketch.text(card.topLeft() + QPointF(14, 34), sketch.theme().elided(m_more, room, 12), Qt::AlignLeft | Qt::AlignTop, {c.ink, 12});
}

void LossBoard::paintHover(Sketch& sketch, const study::FeedReport& report, const Rows& rows, const QSizeF& size) const
{
    const study::FeedRow& row = report.rows[std::size_t(m_row)];
    QStringList lines{tr("%1, %2 MHz").arg(QString::fromStdString(row.band.name)).arg(row.band.frequency / 1e6, 0, 'f', 3)};
    for (std::size_t i = 0; i < report.parts.size(); ++i) {
        const Joint& j = row.state.joints[i];
        lines << tr("%1: %2, %3, %4")
                     .arg(feed::partName(report.parts[i]), feed::decibelWords(j.loss), feed::wattWords(row.power * j.lost()),
                          feed::shortImpedance(j.impedance));
    }
    if (row.service.mismatch >= 0.05)
        lines << tr("mismatch: %1, %2 not put in").arg(feed::decibelWords(row.service.mismatch), feed::wattWords(report.power - row.power));
    lines << tr("gain %1, net %2, held against %3 dBi")
                 .arg(QString::number(row.band.gain, 'f', 1).replace(QLatin1Char('-'), QStringLiteral("−")))
                 .arg(QString::number(row.net, 'f', 1).replace(QLatin1Char('-'), QStringLiteral("−")))
                 .arg(QString::number(row.reference, 'f', 1).replace(QLatin1Char('-'), QStringLiteral("−")));
    lines << feed::rowSentence(row, report);
    lines << serviceSentence(row.service, m_context.document.design().operation);
    const double y = rows.top + rows.step * m_row;
    const QSizeF card = sketch.cardSize(lines);
    const double top = y + 44.0 + card.height() < size.height() ? y + 44.0 : y - card.height() - 6.0;
    sketch.card({m_pointer.x() + 14.0, top}, lines, {0.0, 0.0, size.width(), size.height()});
}

int LossBoard::rowAt(QPointF p) const
{
    const auto report = m_desk.report();
    if (!report || report->rows.empty())
        return -1;
    const Rows rows = rowsOf(*report, size());
    const int row = int(std::floor((p.y() - rows.top + 6.0) / rows.step));
    return row >= 0 && row < int(report->rows.size()) ? row : -1;
}

void LossBoard::mousePressEvent(QMouseEvent* event)
{
    const Id part = m_drawing.partAt(event->position());
    if (event->position().y() < ChainDrawing::height) {
        const auto movable = m_drawing.movable();
        m_pressed = std::find(movable.begin(), movable.end(), part) != movable.end() ? part : Id();
        m_pressedAt = event->position();
        choose(part);
    } else if (const int row = rowAt(event->position()); row >= 0) {
        m_context.document.selectBand(m_desk.report()->rows[std::size_t(row)].band.band);
    }
}

void LossBoard::mouseMoveEvent(QMouseEvent* event)
{
    m_pointer = event->position();
    if (!m_pressed.empty() && (event->position() - m_pressedAt).manhattanLength() > QApplication::startDragDistance())
        m_dragged = {m_pressed, event->position()};
    m_hovered = m_drawing.partAt(event->position());
    m_row = rowAt(event->position());
    update();
}

void LossBoard::mouseReleaseEvent(QMouseEvent* event)
{
    if (m_dragged) {
        const auto movable = m_drawing.movable();
        const auto from = std::find(movable.begin(), movable.end(), m_pressed);
        const int places = m_drawing.placeAt(event->position()) - int(from - movable.begin());
        const Id part = m_pressed;
        m_dragged.reset();
        m_pressed.clear();
        if (from != movable.end() && places != 0)
            m_desk.movePart(part, places);
    }
    m_pressed.clear();
    update();
}

void LossBoard::leaveEvent(QEvent*)
{
    m_row = -1;
    m_hovered.clear();
    update();
}

/// The next part along the chain, the shape's own among them.
void LossBoard::step(int places)
{
    std::vector<Id> all;
    for (const auto& p : m_drawing.places())
        if (!p.part.empty())
            all.push_back(p.part);
    if (all.empty())
        return;
    const auto now = std::find(all.begin(), all.end(), m_chosen);
    const int next = now == all.end() ? (places > 0 ? 0 : int(all.size()) - 1) : int(now - all.begin()) + places;
    choose(all[std::size_t(std::clamp(next, 0, int(all.size()) - 1))]);
}

void LossBoard::keyPressEvent(QKeyEvent* event)
{
    const auto movable = m_drawing.movable();
    const bool own = std::find(movable.begin(), movable.end(), m_chosen) == movable.end();
    const bool along = event->key() == Qt::Key_Left || event->key() == Qt::Key_Right;
    const int places = event->key() == Qt::Key_Left ? -1 : 1;
    if (along && event->modifiers().testFlag(Qt::ShiftModifier)) {
        if (!own)
            m_desk.movePart(m_chosen, places);
    } else if (along) {
        step(places);
    } else if (event->key() == Qt::Key_Up || event->key() == Qt::Key_Down) {
        m_context.document.stepBand(event->key() == Qt::Key_Up ? -1 : 1);
    } else if ((event->key() == Qt::Key_Delete || event->key() == Qt::Key_Backspace) && !own) {
        const auto place = std::find(movable.begin(), movable.end(), m_chosen);
        const Id gone = m_chosen;
        const Id next = place + 1 != movable.end() ? *(place + 1) : place != movable.begin() ? *(place - 1) : Id();
        m_desk.removePart(gone);
        choose(next);
    } else if (event->key() == Qt::Key_Insert) {
        emit addWanted();
    } else if (event->key() == Qt::Key_Escape) {
        choose({});
    } else {
        Canvas::keyPressEvent(event);
    }
}

bool LossBoard::event(QEvent* event)
{
    if (event->type() != QEvent::ToolTip)
        return Canvas::event(event);
    const auto* help = static_cast<QHelpEvent*>(event);
    const QString tip = m_drawing.tipAt(help->pos());
    tip.isEmpty() ? QToolTip::hideText() : QToolTip::showText(help->globalPos(), tip, this);
    return true;
}

} // namespace vetchling::app
