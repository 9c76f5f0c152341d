#include "app/plots/pair_chart.h"

#include "app/view/sketch.h"

#include <QKeyEvent>
#include <QMouseEvent>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr double pairLeft = 16.0, pairRight = 24.0, pairTop = 8.0, pairBottom = 46.0, between = 14.0, nameHeight = 20.0; // px
constexpr std::size_t figuresARow = 5, ticks = 10;

std::size_t every(std::size_t count, std::size_t most) { return std::max<std::size_t>(1, (count + most - 2) / most); }

} // namespace

PairChart::PairChart(ViewContext& context, QWidget* parent) : Canvas(context, parent)
{
    setObjectName(QStringLiteral("pairChart"));
    setAccessibleName(tr("Choices side by side"));
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
}

void PairChart::show(Content content)
{
    m_content = std::move(content);
    m_words.clear();
    if (m_hot >= int(m_content.across.size()))
        m_hot = -1;
    QStringList words;
    for (const QString& choice : m_content.hovers)
        words << choice;
    setAccessibleDescription(words.join(QStringLiteral("; ")));
    update();
}

void PairChart::say(const QString& words)
{
    m_content = {};
    m_words = words;
    update();
}

QRectF PairChart::rowArea(std::size_t row, const QSizeF& size) const
{
    const double count = double(std::max<std::size_t>(1, m_content.rows.size()));
    const double height = (size.height() - pairTop - pairBottom - (count - 1.0) * between) / count;
    return {pairLeft, pairTop + double(row) * (height + between) + nameHeight, size.width() - pairLeft - pairRight, height - nameHeight};
}

double PairChart::x(double across, const QRectF& area) const
{
    const double low = m_content.across.front(), high = std::max(m_content.across.back(), low + 1e-9);
    constexpr double room = 28.0; // px
    return area.left() + room + (across - low) / (high - low) * (area.width() - 2.0 * room);
}

void PairChart::render(Sketch& sketch, const QSizeF& size)
{
    const Colours& c = sketch.colours();
    sketch.painter().fillRect(QRectF({0, 0}, size), c.paper);
    if (!filled()) {
        sketch.text({0.5 * size.width(), 0.5 * size.height()}, m_words, Qt::AlignCenter, {c.inkSoft, 14});
        return;
    }
    for (std::size_t i = 0; i < m_content.rows.size(); ++i)
        drawRow(sketch, m_content.rows[i], rowArea(i, size));
    drawScale(sketch, rowArea(m_content.rows.size() - 1, size));
}

void PairChart::drawRow(Sketch& sketch, const Row& row, const QRectF& area) const
{
    const Colours& c = sketch.colours();
    const auto [least, most] = std::minmax_element(row.values.begin(), row.values.end());
    const double noise = 1e-3 * std::abs(*most); // what is the same all along lies flat
    const double span = *most - *least > noise ? *most - *least : std::max(noise * 1e2, 1e-6);
    const double low = row.fromZero ? 0.0 : *least - 0.15 * span;
    const double high = *most + 0.25 * (*most - low) + 1e-12; // room for the figures
    const auto place = [&](std::size_t i) {
        return QPointF(x(m_content.across[i], area), area.bottom() - (row.values[i] - low) / (high - low) * area.height());
    };
    sketch.text({area.left(), area.top() - nameHeight + 2.0}, row.name, Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 12, true});
    sketch.line(area.bottomLeft(), area.bottomRight(), c.hairline);
    const auto upright = [&](double at, const QColor& colour, Qt::PenStyle style) {
        sketch.line({x(at, area), area.top()}, {x(at, area), area.bottom()}, colour, 1.0, style);
        sketch.reserveLine({x(at, area), area.top()}, {x(at, area), area.bottom()});
    };
    if (m_content.now && *m_content.now >= m_content.across.front() && *m_content.now <= m_content.across.back())
        upright(*m_content.now, c.inkFaint, Qt::DashLine);
    if (m_content.best)
        upright(m_content.across[*m_content.best], c.petal, Qt::SolidLine);
    for (const auto& [at, words] : m_content.marks)
        upright(at, c.inkFaint, Qt::DotLine);
    const bool hot = m_hot >= 0 && onScreen();
    if (hot)
        upright(m_content.across[std::size_t(m_hot)], c.leaf, Qt::SolidLine);
    QPainterPath blocked;
    for (std::size_t i = 0; i < m_content.blocked.size(); ++i)
        if (m_content.blocked[i]) {
            const double from = x(m_content.across[i == 0 ? 0 : i - 1], area), here = x(m_content.across[i], area),
                         to = x(m_content.across[std::min(i + 1, m_content.across.size() - 1)], area);
            QPainterPath one;
            one.addRect(QRectF(QPointF(0.5 * (from + here), area.top()), QPointF(0.5 * (here + to), area.bottom())));
            blocked.addPath(one);
        }
    if (!blocked.isEmpty())
        sketch.hatch(blocked.simplified(), c.hairline);
    QPolygonF line;
    for (std::size_t i = 0; i < row.values.size(); ++i)
        line << place(i);
    sketch.painter().setPen(QPen(row.colour, 2.0));
    sketch.painter().setBrush(Qt::NoBrush);
    sketch.painter().drawPolyline(line);
    for (qsizetype i = 1; i < line.size(); ++i)
        sketch.reserveLine(line[i - 1], line[i]);
    sketch.painter().setPen(Qt::NoPen);
    sketch.painter().setBrush(row.colour);
    constexpr qsizetype crowded = 24; // beyond, the line itself tells
    for (qsizetype i = 0; i < line.size(); ++i)
        if (line.size() <= crowded || (hot && int(i) == m_hot))
            sketch.painter().drawEllipse(line[i], 3.0, 3.0);
    sketch.keepWithin(area.adjusted(-pairLeft, -1.0, pairRight, 1.0));
    const auto figure = [&](std::size_t i, bool bold) { // over its point or under it, or to a side of the lines there
        std::vector<Sketch::Place> places;
        for (double away : {7.0, 15.0, 24.0})
            for (const auto& [aside, side] :
                 {std::pair(0.0, Qt::AlignHCenter), std::pair(6.0, Qt::AlignLeft), std::pair(-6.0, Qt::AlignRight)}) {
                places.push_back({place(i) + QPointF(aside, -away), side | Qt::AlignBottom});
                places.push_back({place(i) + QPointF(aside, away), side | Qt::AlignTop});
            }
        sketch.fit(places, row.words(row.values[i]), {c.ink, 12, bold});
    };
    if (hot)
        figure(std::size_t(m_hot), true);
    for (std::size_t i = 0; i < row.values.size(); i += every(row.values.size(), figuresARow))
        figure(i, false);
    sketch.keepWithin({});
}

void PairChart::drawScale(Sketch& sketch, const QRectF& area) const
{
    const Colours& c = sketch.colours();
    const auto tick = [&](double across, const QString& words) {
        sketch.text({x(across, area), area.bottom() + 4.0}, words, Qt::AlignHCenter | Qt::AlignTop, {c.inkSoft, 12});
    };
    for (const auto& [at, words] : m_content.scale) {
        sketch.line({x(at, area), area.bottom()}, {x(at, area), area.bottom() + 4.0}, c.inkFaint);
        tick(at, words);
    }
    const QFontMetricsF font(sketch.theme().font(12));
    constexpr double clear = 8.0; // px between two
    double free = -HUGE_VAL;      // where the next one may begin
    for (std::size_t i = 0; m_content.scale.empty() && i < m_content.across.size(); i += every(m_content.across.size(), ticks)) {
        const double half = 0.5 * font.horizontalAdvance(m_content.ticks[i]), at = x(m_content.across[i], area);
        if (at - half < free)
            continue;
        tick(m_content.across[i], m_content.ticks[i]);
        free = at + half + clear;
    }
    const bool hot = m_hot >= 0 && onScreen();
    sketch.text({area.center().x(), area.bottom() + 22.0}, hot ? m_content.hovers[std::size_t(m_hot)] : m_content.axis,
                Qt::AlignHCenter | Qt::AlignTop, {hot ? c.ink : c.inkFaint, 12});
    const QRectF first = rowArea(0, QSizeF(area.right() + pairRight, area.bottom() + pairBottom));
    for (const auto& [at, words] : m_content.marks) {
        const bool leftSide = x(at, first) > first.center().x();
        sketch.text({x(at, first) + (leftSide ? -5.0 : 5.0), first.bottom() - 4.0}, words,
                    (leftSide ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignBottom, {c.inkSoft, 12, false, c.paper});
    }
    if (m_content.best && !m_content.bestWords.isEmpty()) {
        sketch.text({x(m_content.across[*m_content.best], first) + 5.0, first.top() - nameHeight + 2.0}, m_content.bestWords,
                    Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 12});
    }
}

QPointF PairChart::placeOf(int choice) const
{
    const QRectF area = rowArea(0, QSizeF(size()));
    return filled() ? QPointF(x(m_content.across[std::size_t(choice)], area), area.center().y()) : QPointF();
}

int PairChart::nearest(QPointF at) const
{
    if (!filled())
        return -1;
    const QRectF area = rowArea(0, QSizeF(size()));
    const auto off = [&](double across) { return std::abs(x(across, area) - at.x()); };
    return int(std::min_element(m_content.across.begin(), m_content.across.end(), [&](double a, double b) { return off(a) < off(b); }) -
               m_content.across.begin());
}

void PairChart::mouseMoveEvent(QMouseEvent* event)
{
    m_hot = nearest(event->position());
    update();
}

void PairChart::mousePressEvent(QMouseEvent* event)
{
    if (const int choice = nearest(event->position()); choice >= 0 && event->button() == Qt::LeftButton && !isBlocked(choice))
        emit taken(choice);
}

void PairChart::leaveEvent(QEvent*)
{
    m_hot = -1;
    update();
}

void PairChart::keyPressEvent(QKeyEvent* event)
{
    const int count = int(m_content.across.size());
    if (count > 0 && (event->key() == Qt::Key_Left || event->key() == Qt::Key_Right)) {
        m_hot = std::clamp(m_hot + (event->key() == Qt::Key_Right ? 1 : -1), 0, count - 1);
        update();
    } else if (m_hot >= 0 && !isBlocked(m_hot) && (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter))
        emit taken(m_hot);
    else
        Canvas::keyPressEvent(event);
}

} // namespace vetchling::app
