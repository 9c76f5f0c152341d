#include "app/plots/lobe_dial.h"

#include "app/view/sketch.h"
#include "core/study/skies.h"
#include "core/study/sky.h"

#include <algorithm>
#include <cmath>

namespace vetchling::app {

using study::hopDistance;

namespace {

constexpr double span = 24.0; // dB from the rim to the centre
constexpr double ringStep = 6.0;

} // namespace

LobeDial::LobeDial(ViewContext& context) : AimedCanvas(context)
{
    setObjectName(QStringLiteral("lobeDial"));
    setAccessibleName(tr("Gain over the angle above the horizon; arrow keys move the ray"));
}

void LobeDial::show(std::shared_ptr<const SkyDesk::Lobes> lobes)
{
    m_lobes = std::move(lobes);
    update();
}

LobeDial::Layout LobeDial::layoutFor(const QSizeF& size) const
{
    Layout l;
    l.compassRadius = std::clamp(0.082 * size.width(), 48.0, 90.0);
    l.compass = {size.width() - l.compassRadius - 30.0, l.compassRadius + 20.0};
    l.radius = std::max(60.0, std::min(0.5 * size.width() - 46.0, size.height() - 130.0));
    l.centre = {0.5 * size.width() - 10.0, size.height() - 78.0 - std::max(0.0, 0.4 * (size.height() - l.radius - 130.0))};
    return l;
}

double LobeDial::radiusOf(double gain, double radius) const { return radius * std::clamp((gain - m_top + span) / span, 0.0, 1.0); }

QPainterPath LobeDial::lobe(const std::vector<double>& cut, const Layout& l) const
{
    QPainterPath path(l.centre);
    for (std::size_t i = 0; i < cut.size(); ++i) {
        const double e = radians(double(i)), r = radiusOf(cut[i], l.radius);
        path.lineTo(l.centre + QPointF(r * std::cos(e), -r * std::sin(e)));
    }
    path.closeSubpath();
    return path;
}

QPainterPath LobeDial::rose(const std::vector<double>& round, const Layout& l) const
{
    QPainterPath path;
    for (std::size_t i = 0; i < round.size(); ++i) {
        const double b = radians(study::Lobe::roundStep * double(i)), r = radiusOf(round[i], l.compassRadius);
        const QPointF p = l.compass + QPointF(r * std::sin(b), -r * std::cos(b));
        i == 0 ? path.moveTo(p) : path.lineTo(p);
    }
    path.closeSubpath();
    return path;
}

void LobeDial::render(Sketch& sketch, const QSizeF& size)
{
    const Colours& c = sketch.colours();
    sketch.painter().fillRect(QRectF({0, 0}, size), c.paper);
    const study::Spot* spot = m_lobes ? m_lobes->detail->spot() : nullptr;
    if (!spot) {
        const QString words = !m_context.document.hasAntenna() ? tr("No antenna yet: add one with + at the top.")
                              : m_context.solver.busy()        ? tr("Being computed …")
                                                               : tr("Nothing to show: no band is wanted, or the shape cannot be computed.");
        sketch.text({0.5 * size.width(), 60.0}, words, Qt::AlignHCenter | Qt::AlignTop, {c.inkSoft, 14});
        return;
    }
    m_top = 2.0 * std::ceil((spot->strongest + 0.3) / 2.0);
    const Layout l = layoutFor(size);
    paintDial(sketch, l, *spot);
    paintGroundBar(sketch, l);
    paintRay(sketch, l);
    paintCompass(sketch, l, *spot);
}

void LobeDial::paintDial(Sketch& sketch, const Layout& l, const study::Spot& spot) const
{
    const Colours& c = sketch.colours();
    QPainter& p = sketch.painter();
    p.setBrush(Qt::NoBrush);
    for (double gain = m_top; gain > m_top - span; gain -= ringStep) {
        const double r = radiusOf(gain, l.radius);
        p.setPen(QPen(c.hairline, 1.0));
        p.drawArc(QRectF(l.centre.x() - r, l.centre.y() - r, 2 * r, 2 * r), 0, 180 * 16);
    }
    const double across = l.compassRadius + 24.0; // with its letters and its caption
    const QRectF compassBox(l.compass.x() - across, l.compass.y() - across, 2 * across, 2 * across + 16.0);
    for (int angle = 15; angle < 180; angle += 15) {
        const QPointF out(std::cos(radians(angle)), -std::sin(radians(angle)));
        sketch.line(l.centre, l.centre + l.radius * out, c.fill);
        const int shown = angle <= 90 ? angle : 180 - angle;
        const QPointF at = l.centre + (l.radius + 14.0) * out;
        if (!compassBox.contains(at)) // the other side tells it too
            sketch.text(at, QStringLiteral("%1°").arg(shown), Qt::AlignCenter, {c.inkFaint, 12});
    }
    p.setPen(QPen(c.leaf, 2.0));
    p.setBrush(c.leafPale);
    p.drawPath(lobe(m_lobes->shown.cut, l));
    if (m_lobes->pinned) {
        QPen dashed(c.inkSoft, 1.2);
        dashed.setDashPattern({4, 3});
        p.setPen(dashed);
        p.setBrush(Qt::NoBrush);
        p.drawPath(lobe(m_lobes->pinned->cut, l));
    }
    for (double gain = m_top; gain > m_top - span; gain -= ringStep)
        sketch.text(l.centre + QPointF(-radiusOf(gain, l.radius) + 4, -3),
                    gain == m_top ? QStringLiteral("%1 dBi").arg(gain)
                                  : QString::number(gain).replace(QLatin1Char('-'), QStringLiteral("−")),
                    Qt::AlignLeft | Qt::AlignBottom, {c.inkSoft, 12});
    const QString up =
        spot.straightUp > -40.0
            ? tr("straight up %1 dBi").arg(QString::number(spot.straightUp, 'f', 1).replace(QLatin1Char('-'), QStringLiteral("−")))
            : tr("nothing straight up");
    sketch.text(l.centre + QPointF(0, -l.radius - 30), up, Qt::AlignHCenter | Qt::AlignBottom, {c.leaf, 12, true});
    const double opposite = std::fmod(m_bearing + 180.0, 360.0);
    sketch.text(l.centre + QPointF(l.radius + 20, 42), tr("towards %1°").arg(m_bearing, 3, 'f', 0, QLatin1Char('0')),
                Qt::AlignRight | Qt::AlignTop, {c.ink, 12, true});
    sketch.text(l.centre + QPointF(-l.radius - 20, 42), tr("towards %1°").arg(opposite, 3, 'f', 0, QLatin1Char('0')),
                Qt::AlignLeft | Qt::AlignTop, {c.ink, 12, true});
}

void LobeDial::paintGroundBar(Sketch& sketch, const Layout& l) const
{
    const Colours& c = sketch.colours();
    const QRectF bar(l.centre.x() - l.radius - 20, l.centre.y(), 2 * l.radius + 40, 20);
    sketch.painter().fillRect(bar, c.fill);
    sketch.line(bar.topLeft(), bar.topRight(), c.inkSoft, 1.5);
    sketch.text({bar.left(), bar.bottom() + 5}, tr("one hop off the F layer at 300 km reaches"), Qt::AlignLeft | Qt::AlignTop,
                {c.inkSoft, 12});
    for (int angle : {75, 60, 45, 30, 15, 5}) {
        const double x = l.centre.x() + l.radius * std::cos(radians(angle)), km = hopDistance(radians(angle)) / 1000.0;
        sketch.line({x, bar.top()}, {x, bar.bottom()}, c.inkFaint);
        const double rounded = km < 1000.0 ? std::round(km / 10.0) * 10.0 : std::round(km / 100.0) * 100.0;
        if (angle != 15)
            sketch.label({x, bar.bottom() + 5}, angle == 75 ? tr("%1 km").arg(rounded) : QString::number(rounded),
                         Qt::AlignHCenter | Qt::AlignTop, {c.inkSoft, 12});
    }
}

void LobeDial::paintRay(Sketch& sketch, const Layout& l) const
{
    const Colours& c = sketch.colours();
    const double e = radians(m_elevation);
    const QPointF tip = l.centre + l.radius * QPointF(std::cos(e), -std::sin(e));
    sketch.line(l.centre, tip, c.petal, 2.2);
    sketch.painter().setPen(QPen(c.ink, 1.2));
    sketch.painter().setBrush(c.petal);
    sketch.painter().drawEllipse(tip, 8, 8);
    const double gain = m_lobes->shown.there;
    const QString first =
        tr("%1°   %2 dBi").arg(m_elevation, 0, 'f', 0).arg(QString::number(gain, 'f', 1).replace(QLatin1Char('-'), QStringLiteral("−")));
    const QString second = tr("first hop %1 km").arg(hopDistance(e) / 1000.0, 0, 'f', 0);
    const QStringList lines{first, second};
    const QSizeF card = sketch.cardSize(lines);
    QPointF corner = tip + QPointF(-0.5 * card.width(), -54);
    const QRectF compassBox(l.compass.x() - l.compassRadius - 22, 0, 2 * l.compassRadius + 60, l.compass.y() + l.compassRadius + 40);
    if (compassBox.intersects(QRectF(corner, card)))
        corner = tip + QPointF(-card.width() - 16, -20);
    sketch.card(corner, lines, QRectF(2, 2, width() - 4, height() - 4));
}

void LobeDial::paintCompass(Sketch& sketch, const Layout& l, const study::Spot& spot) const
{
    const Colours& c = sketch.colours();
    QPainter& p = sketch.painter();
    p.setPen(QPen(c.hairline, 1.0));
    p.setBrush(c.paper);
    p.drawEllipse(l.compass, l.compassRadius, l.compassRadius);
    p.setPen(QPen(c.leaf, 1.6));
    p.setBrush(c.leafPale);
    p.drawPath(rose(m_lobes->shown.round, l));
    double reach = 0.0;
    Vec3 middle;
    int count = 0;
    for (const Wire& w : spot.solution.model->wires)
        for (Vec3 v : w.points)
            middle = middle + v, ++count;
    middle = (1.0 / count) * middle;
    for (const Wire& w : spot.solution.model->wires)
        for (Vec3 v : w.points)
            reach = std::max(reach, std::hypot(v.x - middle.x, v.y - middle.y));
    for (const Wire& w : spot.solution.model->wires)
        for (std::size_t i = 1; i < w.points.size(); ++i) {
            const auto at = [&](Vec3 v) {
                return l.compass + 0.45 * l.compassRadius / std::max(reach, 1e-3) * QPointF(v.x - middle.x, middle.y - v.y);
            };
            sketch.line(at(w.points[i - 1]), at(w.points[i]), c.ink, 1.8);
        }
    const double b = radians(m_bearing);
    sketch.line(l.compass, l.compass + l.compassRadius * QPointF(std::sin(b), -std::cos(b)), c.petal, 2.2);
    const std::pair<const char*, QPointF> points[] = {{"N", {0, -1}}, {"E", {1, 0}}, {"S", {0, 1}}, {"W", {-1, 0}}};
    for (const auto& [name, direction] : points)
        sketch.text(l.compass + (l.compassRadius + 12) * direction, QLatin1String(name), Qt::AlignCenter, {c.inkSoft, 12});
    sketch.text(l.compass + QPointF(0, l.compassRadius + 22), tr("at %1°, from above").arg(m_elevation, 0, 'f', 0),
                Qt::AlignHCenter | Qt::AlignTop, {c.inkSoft, 12});
}

void LobeDial::aimAt(QPointF p)
{
    const Layout l = layoutFor(size());
    const QPointF toCompass = p - l.compass, toCentre = p - l.centre;
    if (std::hypot(toCompass.x(), toCompass.y()) < l.compassRadius + 20) {
        const double b = degrees(std::atan2(toCompass.x(), -toCompass.y()));
        emit aimed(m_elevation, std::round(b < 0.0 ? b + 360.0 : b));
        return;
    }
    aimOnDial(toCentre);
}

} // namespace vetchling::app
