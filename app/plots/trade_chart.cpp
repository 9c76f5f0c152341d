#include "app/plots/trade_chart.h"

#include "app/view/axis.h"
#include "app/view/sketch.h"
#include "app/view/words.h"

#include <QKeyEvent>
#include <QMouseEvent>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr double left = 16.0, right = 24.0, top = 8.0, bottom = 46.0, between = 14.0, nameHeight = 20.0; // px

} // namespace

TradeChart::TradeChart(ViewContext& context, QWidget* parent) : Canvas(context, parent)
{
    setObjectName(QStringLiteral("tradeChart"));
    setAccessibleName(tr("Pairs of equal resonance"));
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
}

void TradeChart::show(std::shared_ptr<const study::TradeCurve> curve, double now)
{
    m_curve = std::move(curve);
    m_now = now;
    m_words.clear();
    if (m_curve && m_hot >= int(m_curve->points.size()))
        m_hot = -1;
    update();
}

void TradeChart::say(const QString& words)
{
    m_curve.reset();
    m_words = words;
    update();
}

std::vector<TradeChart::Row> TradeChart::rows() const
{
    const Colours& c = m_context.theme.colours();
    const units::System system = m_context.system();
    const shapes::AntennaShape& shape = m_context.document.antenna().shape;
    const shapes::ParameterSpec* solved = shapes::familyOf(shape).spec(shape, m_curve->what.solved);
    return {{coreWords(solved->label), [](const study::TradePoint& p) { return p.solved; },
             [=](double v) { return valueWords(v, solved->quantity, system); }, c.petal},
            {tr("Width under 2:1"), [](const study::TradePoint& p) { return p.width; },
             [](double v) { return tr("%1 kHz").arg(v / 1e3, 0, 'f', 0); }, c.leaf},
            {tr("Resistance at resonance"), [](const study::TradePoint& p) { return p.resistance; },
             [](double v) { return tr("%1 Ω").arg(v, 0, 'f', 0); }, c.sky},
            {tr("Into the sky"), [](const study::TradePoint& p) { return 100.0 * p.efficiency; },
             [](double v) { return tr("%1 %").arg(v, 0, 'f', 0); }, c.brick}};
}

QRectF TradeChart::rowArea(int row, int count, const QSizeF& size) const
{
    const double height = (size.height() - top - bottom - (count - 1) * between) / count;
    return {left, top + row * (height + between) + nameHeight, size.width() - left - right, height - nameHeight};
}

double TradeChart::x(double free, const QRectF& area) const
{
    const double low = m_curve->points.front().free, high = std::max(m_curve->points.back().free, low + 1e-9);
    constexpr double room = 28.0; // px
    return area.left() + room + (free - low) / (high - low) * (area.width() - 2.0 * room);
}

void TradeChart::render(Sketch& sketch, const QSizeF& size)
{
    const Colours& c = sketch.colours();
    sketch.painter().fillRect(QRectF({0, 0}, size), c.paper);
    if (!m_curve || m_curve->points.empty() || !m_context.document.hasAntenna()) {
        sketch.text({0.5 * size.width(), 0.5 * size.height()}, m_words, Qt::AlignCenter, {c.inkSoft, 14});
        return;
    }
    const std::vector<Row> all = rows();
    for (std::size_t i = 0; i < all.size(); ++i)
        drawRow(sketch, all[i], rowArea(int(i), int(all.size()), size));
    drawScale(sketch, rowArea(int(all.size()) - 1, int(all.size()), size));
}

void TradeChart::drawRow(Sketch& sketch, const Row& row, const QRectF& area) const
{
    const Colours& c = sketch.colours();
    const auto& points = m_curve->points;
    double high = 0.0;
    for (const study::TradePoint& p : points)
        high = std::max(high, row.value(p));
    high = std::max(1.25 * high, 1e-12); // room for the figures
    const auto place = [&](const study::TradePoint& p) { return QPointF(x(p.free, area), area.bottom() - row.value(p) / high * area.height()); };
    sketch.text({area.left(), area.top() - nameHeight + 2.0}, row.name, Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 12, true});
    sketch.line(area.bottomLeft(), area.bottomRight(), c.hairline);
    sketch.line({x(m_now, area), area.top()}, {x(m_now, area), area.bottom()}, c.inkFaint, 1.0, Qt::DashLine);
    if (m_hot >= 0 && onScreen())
        sketch.line({x(points[std::size_t(m_hot)].free, area), area.top()}, {x(points[std::size_t(m_hot)].free, area), area.bottom()}, c.petal);
    QPolygonF line;
    for (const study::TradePoint& p : points)
        line << place(p);
    sketch.painter().setPen(QPen(row.colour, 2.0));
    sketch.painter().setBrush(Qt::NoBrush);
    sketch.painter().drawPolyline(line);
    sketch.painter().setPen(Qt::NoPen);
    sketch.painter().setBrush(row.colour);
    for (QPointF p : line)
        sketch.painter().drawEllipse(p, 3.0, 3.0);
    const auto figure = [&](std::size_t i, bool bold) {
        sketch.label(place(points[i]) + QPointF(0, -7), row.words(row.value(points[i])), Qt::AlignHCenter | Qt::AlignBottom, {c.ink, 12, bold});
    };
    if (m_hot >= 0 && onScreen())
        figure(std::size_t(m_hot), true);
    for (std::size_t i = 0; i < points.size(); i += std::max<std::size_t>(1, (points.size() - 1) / 4))
        figure(i, false);
}

void TradeChart::drawScale(Sketch& sketch, const QRectF& area) const
{
    const Colours& c = sketch.colours();
    const units::System system = m_context.system();
    const shapes::AntennaShape& shape = m_context.document.antenna().shape;
    const shapes::ParameterSpec* free = shapes::familyOf(shape).spec(shape, m_curve->what.free);
    const auto& points = m_curve->points;
    for (std::size_t i = 0; i < points.size(); i += std::max<std::size_t>(1, (points.size() - 1) / 6))
        sketch.text({x(points[i].free, area), area.bottom() + 4.0}, valueWords(points[i].free, free->quantity, system), Qt::AlignHCenter | Qt::AlignTop,
                    {c.inkSoft, 12});
    const bool hot = m_hot >= 0 && onScreen();
    const QString words = hot ? tr("%1 %2; the longest piece to pack is %3")
                                    .arg(coreWords(free->label), valueWords(points[std::size_t(m_hot)].free, free->quantity, system),
                                         lengthWords(points[std::size_t(m_hot)].longestPiece, system))
                              : tr("%1; dashed: as it is").arg(coreWords(free->label));
    sketch.text({area.center().x(), area.bottom() + 22.0}, words, Qt::AlignHCenter | Qt::AlignTop, {hot ? c.ink : c.inkFaint, 12});
}

QPointF TradeChart::placeOf(int point) const
{
    const QRectF area = rowArea(0, 4, QSizeF(size()));
    return m_curve ? QPointF(x(m_curve->points[std::size_t(point)].free, area), area.center().y()) : QPointF();
}

int TradeChart::nearest(QPointF at) const
{
    if (!m_curve || m_curve->points.empty())
        return -1;
    const QRectF area = rowArea(0, 4, QSizeF(size()));
    int best = 0;
    for (int i = 0; i < int(m_curve->points.size()); ++i)
        if (std::abs(x(m_curve->points[std::size_t(i)].free, area) - at.x()) < std::abs(x(m_curve->points[std::size_t(best)].free, area) - at.x()))
            best = i;
    return best;
}

void TradeChart::mouseMoveEvent(QMouseEvent* event)
{
    m_hot = nearest(event->position());
    update();
}

void TradeChart::mousePressEvent(QMouseEvent* event)
{
    if (const int point = nearest(event->position()); point >= 0 && event->button() == Qt::LeftButton)
        emit taken(point);
}

void TradeChart::leaveEvent(QEvent*)
{
    m_hot = -1;
    update();
}

void TradeChart::keyPressEvent(QKeyEvent* event)
{
    const int count = m_curve ? int(m_curve->points.size()) : 0;
    if (count > 0 && (event->key() == Qt::Key_Left || event->key() == Qt::Key_Right)) {
        m_hot = std::clamp(m_hot + (event->key() == Qt::Key_Right ? 1 : -1), 0, count - 1);
        update();
    } else if (m_hot >= 0 && (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter))
        emit taken(m_hot);
    else
        Canvas::keyPressEvent(event);
}

} // namespace vetchling::app
