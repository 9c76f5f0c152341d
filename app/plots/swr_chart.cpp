#include "app/plots/swr_chart.h"

#include <algorithm>
#include <cmath>

namespace vetchling::app {

void SwrChart::frame(Sketch& sketch, double bandFrom, double bandTo, double limit, bool wished) const
{
    const Colours& c = sketch.colours();
    const QRectF band(QPointF(x(std::max(bandFrom, from)), area.top()), QPointF(x(std::min(bandTo, to)), area.bottom()));
    sketch.painter().fillRect(band, wished ? c.leafPale : c.fill);
    for (double s : {1.5, 2.0, 3.0, 5.0}) {
        const bool isLimit = std::abs(s - limit) < 0.01;
        sketch.line({area.left(), y(s)}, {area.right(), y(s)}, isLimit ? c.inkSoft : c.hairline, 1.0,
                    isLimit ? Qt::DashLine : Qt::SolidLine);
        if (isLimit)
            sketch.reserveLine({area.left(), y(s)}, {area.right(), y(s)});
        sketch.text({area.left() - 6, y(s)}, QString::number(s), Qt::AlignRight | Qt::AlignVCenter, {isLimit ? c.brick : c.inkFaint, 11});
    }
    if (std::abs(limit - 1.5) > 0.01 && std::abs(limit - 2.0) > 0.01 && std::abs(limit - 3.0) > 0.01 && limit < 5.0) {
        sketch.line({area.left(), y(limit)}, {area.right(), y(limit)}, c.inkSoft, 1.0, Qt::DashLine);
        sketch.label({area.right() - 2, y(limit)}, QString::number(limit), Qt::AlignRight | Qt::AlignBottom, {c.brick, 11});
    }
    sketch.line(area.bottomLeft(), area.bottomRight(), c.inkFaint, 1.2);
}

void SwrChart::hatchPastLimit(Sketch& sketch, double bandFrom, double bandTo, double limit, const std::function<double(double)>& swr) const
{
    constexpr int steps = 240;
    QPainterPath past;
    for (int i = 0; i < steps; ++i) {
        const double a = bandFrom + (bandTo - bandFrom) * i / steps, b = bandFrom + (bandTo - bandFrom) * (i + 1) / steps;
        if (swr(0.5 * (a + b)) > limit)
            past.addRect(QRectF(QPointF(x(a), area.top()), QPointF(x(b) + 0.3, area.bottom())));
    }
    past.setFillRule(Qt::WindingFill);
    if (!past.isEmpty())
        sketch.hatch(past, sketch.colours().leafMid, 7.0);
}

void SwrChart::between(Sketch& sketch, const std::vector<double>& frequency, const std::vector<double>& low,
                       const std::vector<double>& high, const QColor& fill) const
{
    QPolygonF shape;
    for (std::size_t i = 0; i < frequency.size(); ++i)
        shape << QPointF(x(frequency[i]), std::max(area.top(), y(low[i])));
    for (std::size_t i = frequency.size(); i-- > 0;)
        shape << QPointF(x(frequency[i]), std::max(area.top(), y(high[i])));
    sketch.painter().setPen(Qt::NoPen);
    sketch.painter().setBrush(fill);
    sketch.painter().drawPolygon(shape);
}

void SwrChart::curve(Sketch& sketch, const std::function<double(double)>& swr, const QPen& pen) const
{
    const int steps = std::max(60, int(area.width()));
    constexpr double top = 5.0;
    QPainterPath path;
    QPointF named; // from here on no words are in the way of the curve
    bool drawing = false;
    for (int i = 0; i <= steps; ++i) {
        const double f = from + (to - from) * i / steps, s = swr(f);
        if (std::isnan(s)) { // not solved there
            drawing = false;
            continue;
        }
        const QPointF p(x(f), y(std::min(s, top)));
        drawing ? path.lineTo(p) : path.moveTo(p);
        if (!drawing)
            named = p;
        else if (QLineF(named, p).length() > 8.0) {
            if (s < top)
                sketch.reserveLine(named, p);
            named = p;
        }
        drawing = true;
    }
    sketch.painter().setBrush(Qt::NoBrush);
    sketch.painter().setPen(pen);
    sketch.painter().drawPath(path);
}

void SwrChart::name(Sketch& sketch, QPointF mark, double radius, const QString& words, const Sketch::Ink& ink) const
{
    constexpr double beside = 14.0; // px
    sketch.keepWithin(area);
    const QPointF above = mark - QPointF(0.0, radius + 2.5);
    const QRectF place = sketch.label(above, words, Qt::AlignHCenter | Qt::AlignBottom, ink);
    sketch.keepWithin({});
    if (place.isNull()) { // nowhere is room: on a ground of its own
        Sketch::Ink grounded = ink;
        grounded.halo = sketch.colours().paper;
        sketch.text(above, words, Qt::AlignHCenter | Qt::AlignBottom, grounded);
        return;
    }
    const QPointF nearest(std::clamp(mark.x(), place.left(), place.right()), std::clamp(mark.y(), place.top(), place.bottom()));
    const QLineF way(mark, nearest);
    if (way.length() > radius + beside)
        sketch.line(way.pointAt((radius + 1.0) / way.length()), way.pointAt(1.0 - 1.0 / way.length()), sketch.colours().inkFaint, 1.0);
}

} // namespace vetchling::app
