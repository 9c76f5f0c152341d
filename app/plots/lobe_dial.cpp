#include "app/plots/lobe_dial.h"

#include "app/view/sketch.h"
#include "core/study/skies.h"
#include "core/study/sky.h"

#include <algorithm>
#include <cmath>

namespace vetchling::app {

using study::hopDistance;

namespace {

constexpr double compassMargin = 24.0; // px, its letters

QString signedDecibels(double value)
{
    const double rounded = std::round(10.0 * value) / 10.0;
    return (rounded > 0.0   ? QStringLiteral("+")
            : rounded < 0.0 ? QStringLiteral("−")
                            : QString()) +
           QString::number(std::abs(rounded), 'f', 1);
}

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
    l.compass.radius = std::clamp(0.082 * size.width(), 48.0, 90.0);
    l.compass.centre = {size.width() - l.compass.radius - 30.0, l.compass.radius + 20.0};
    l.dial.radius = std::max(60.0, std::min(0.5 * size.width() - 46.0, size.height() - 130.0));
    l.dial.centre = {0.5 * size.width() - 10.0, size.height() - 78.0 - std::max(0.0, 0.4 * (size.height() - l.dial.radius - 130.0))};
    l.dial.top = l.compass.top = m_top;
    if (const auto line = this->line()) {
        constexpr double below = 150.0, mast = 26.0, edge = 20.0, least = 34.0; // px
        l.dial.radius = std::max(60.0, std::min(0.5 * size.width() - 46.0, size.height() - below - 62.0));
        l.dial.centre.setY(size.height() - below);
        const double half = l.dial.radius + edge;
        const QRectF area(l.dial.centre.x() - half, 0.0, 2.0 * half, size.height() - edge - 4.0);
        const QPointF foot = l.dial.centre + QPointF(0.0, mast);
        l.ground =
            GroundSketch::fitted(*line, area, foot, 0.45 * l.dial.radius, area.bottom() - foot.y() - least, GroundSketch::farReach(*line));
    }
    return l;
}

QPainterPath LobeDial::lobe(const std::vector<double>& cut, const Layout& l) const
{
    QPainterPath path(l.dial.centre);
    for (std::size_t i = 0; i < cut.size(); ++i)
        path.lineTo(l.dial.at(cut[i], double(i)));
    path.closeSubpath();
    return path;
}

QPainterPath LobeDial::rose(const std::vector<double>& round, const Layout& l) const
{
    QPainterPath path;
    for (std::size_t i = 0; i < round.size(); ++i) {
        const double b = radians(study::Lobe::roundStep * double(i)), r = l.compass.radiusOf(round[i]);
        const QPointF p = l.compass.centre + QPointF(r * std::sin(b), -r * std::cos(b));
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
    m_top = HalfDial::rimFor(spot->strongest);
    Layout l = layoutFor(size);
    l.card = cardFor(sketch, l, size);
    const double across = l.compass.radius + compassMargin;
    sketch.reserve(QRectF(l.compass.centre - QPointF(across, across), QSizeF(2 * across, 2 * across + (ground() ? 32.0 : 16.0))));
    sketch.reserve(l.card);
    paintDial(sketch, l, *spot);
    if (!l.ground)
        paintGroundBar(sketch, l);
    paintRay(sketch, l);
    paintCompass(sketch, l, *spot);
}

void LobeDial::paintDial(Sketch& sketch, const Layout& l, const study::Spot& spot) const
{
    const Colours& c = sketch.colours();
    QPainter& p = sketch.painter();
    const QPainterPath shown = lobe(m_lobes->shown.cut, l);
    p.fillPath(shown, c.leafPale);
    l.dial.paintGround(sketch);
    if (l.ground)
        paintSection(sketch, l);
    if (ground())
        paintFlat(sketch, l);
    p.setPen(QPen(c.leaf, 2.0));
    p.setBrush(Qt::NoBrush);
    p.drawPath(shown);
    sketch.reservePath(shown);
    if (m_lobes->pinned && !ground()) { // of dashed lines there is one kind at a time
        QPen dashed(c.inkSoft, 1.2);
        dashed.setDashPattern({4, 3});
        p.setPen(dashed);
        p.setBrush(Qt::NoBrush);
        p.drawPath(lobe(m_lobes->pinned->cut, l));
        sketch.reservePath(lobe(m_lobes->pinned->cut, l));
    }
    sketch.reserveLine(l.dial.centre, l.dial.rim(m_elevation));
    l.dial.paintWords(sketch);
    const QString up =
        spot.straightUp > -40.0
            ? tr("straight up %1 dBi").arg(QString::number(spot.straightUp, 'f', 1).replace(QLatin1Char('-'), QStringLiteral("−")))
            : tr("nothing straight up");
    const QPointF above = l.dial.rim(90.0) - QPointF(0, 30);
    sketch.fit({{above, Qt::AlignHCenter | Qt::AlignBottom},
                {above - QPointF(24, 0), Qt::AlignRight | Qt::AlignBottom},
                {above + QPointF(24, 0), Qt::AlignLeft | Qt::AlignBottom}},
               up, {c.leaf, 12, true});
    l.dial.paintTowards(sketch, m_bearing, l.ground ? l.ground->area.bottom() + 4.0 - l.dial.centre.y() : 42.0);
    if (!l.ground)
        return;
    l.ground->paintWords(sketch, *line(), m_context.system());
    const QString how = l.ground->exaggeration() > 1.05 || l.ground->exaggeration() < 0.95
                            ? tr("heights drawn %1 times; dashed: over flat ground").arg(l.ground->exaggeration(), 0, 'g', 2)
                            : tr("heights to scale; dashed: over flat ground");
    sketch.text({l.dial.centre.x(), l.ground->area.bottom() + 4.0}, how, Qt::AlignHCenter | Qt::AlignTop, {c.inkSoft, 12});
}

const SkyDesk::Lobes::Ground* LobeDial::ground() const { return m_lobes && m_lobes->ground ? &*m_lobes->ground : nullptr; }

std::optional<TerrainProfile> LobeDial::line() const
{
    return ground() && ground()->line ? std::optional(ground()->line->over(ground()->own)) : std::nullopt;
}

void LobeDial::paintFlat(Sketch& sketch, const Layout& l) const
{
    QPen dashed(sketch.colours().inkSoft, 1.2);
    dashed.setDashPattern({4, 3});
    sketch.painter().setPen(dashed);
    sketch.painter().setBrush(Qt::NoBrush);
    sketch.painter().drawPath(lobe(ground()->flat.cut, l));
    sketch.reservePath(lobe(ground()->flat.cut, l));
}

void LobeDial::paintSection(Sketch& sketch, const Layout& l) const
{
    l.ground->paint(sketch, *line(), 215);
    sketch.line(l.ground->foot, l.dial.centre, sketch.colours().ink, 2.0);
    sketch.line(l.dial.centre, l.dial.centre + QPointF(-11.0, 8.0), sketch.colours().leaf, 1.8);
    sketch.line(l.dial.centre, l.dial.centre + QPointF(11.0, 8.0), sketch.colours().leaf, 1.8);
}

void LobeDial::paintGroundBar(Sketch& sketch, const Layout& l) const
{
    const Colours& c = sketch.colours();
    const QRectF bar(l.dial.centre.x() - l.dial.radius - 20, l.dial.centre.y(), 2 * l.dial.radius + 40, 20);
    sketch.painter().fillRect(bar, c.fill);
    sketch.line(bar.topLeft(), bar.topRight(), c.inkSoft, 1.5);
    sketch.text({bar.left(), bar.bottom() + 5}, tr("one hop off the F layer at 300 km reaches"), Qt::AlignLeft | Qt::AlignTop,
                {c.inkSoft, 12});
    for (int angle : {75, 60, 45, 30, 15, 5}) {
        const double x = l.dial.centre.x() + l.dial.radius * std::cos(radians(angle)), km = hopDistance(radians(angle)) / 1000.0;
        sketch.line({x, bar.top()}, {x, bar.bottom()}, c.inkFaint);
        const double rounded = km < 1000.0 ? std::round(km / 10.0) * 10.0 : std::round(km / 100.0) * 100.0;
        if (angle != 15)
            sketch.label({x, bar.bottom() + 5}, angle == 75 ? tr("%1 km").arg(rounded) : QString::number(rounded),
                         Qt::AlignHCenter | Qt::AlignTop, {c.inkSoft, 12});
    }
}

QStringList LobeDial::rayWords() const
{
    const QString gain = QString::number(m_lobes->shown.there, 'f', 1).replace(QLatin1Char('-'), QStringLiteral("−"));
    QStringList words{tr("%1°   %2 dBi").arg(m_elevation, 0, 'f', 0).arg(gain)};
    if (ground())
        words << tr("%1 dB by the ground").arg(signedDecibels(ground()->there));
    words << tr("first hop %1 km").arg(hopDistance(radians(m_elevation)) / 1000.0, 0, 'f', 0);
    return words;
}

/// Above the ray's tip, beside it, or in the corner over the lobes: where it hides least of them, and not the compass.
QRectF LobeDial::cardFor(const Sketch& sketch, const Layout& l, const QSizeF& size) const
{
    constexpr double edge = 2.0, compassCost = 1000.0;
    const QPointF tip = l.dial.rim(m_elevation);
    const QSizeF card = sketch.cardSize(rayWords());
    const double r = l.compass.radius;
    const QRectF compassBox(l.compass.centre.x() - r - 22, 0, 2 * r + 60, l.compass.centre.y() + r + (ground() ? 60.0 : 40.0));
    QRectF best;
    double least = HUGE_VAL;
    for (const QPointF corner : {tip + QPointF(-0.5 * card.width(), -54), tip + QPointF(-card.width() - 16, -20), QPointF(edge, edge)}) {
        const QRectF place({std::clamp(corner.x(), edge, std::max(edge, size.width() - edge - card.width())),
                            std::clamp(corner.y(), edge, std::max(edge, size.height() - edge - card.height()))},
                           card);
        double cost = compassBox.intersects(place) ? compassCost : 0.0;
        for (std::size_t i = 0; i < m_lobes->shown.cut.size(); ++i)
            cost += place.contains(l.dial.at(m_lobes->shown.cut[i], double(i)));
        if (cost < least)
            least = cost, best = place;
    }
    return best;
}

void LobeDial::paintRay(Sketch& sketch, const Layout& l) const
{
    const Colours& c = sketch.colours();
    const QPointF tip = l.dial.rim(m_elevation);
    sketch.line(l.dial.centre, tip, c.petal, 2.2);
    sketch.painter().setPen(QPen(c.ink, 1.2));
    sketch.painter().setBrush(c.petal);
    sketch.painter().drawEllipse(tip, 8, 8);
    sketch.card(l.card.topLeft(), rayWords(), l.card);
}

void LobeDial::paintCompass(Sketch& sketch, const Layout& l, const study::Spot& spot) const
{
    const Colours& c = sketch.colours();
    QPainter& p = sketch.painter();
    p.setPen(QPen(c.hairline, 1.0));
    p.setBrush(c.paper);
    p.drawEllipse(l.compass.centre, l.compass.radius, l.compass.radius);
    p.setPen(QPen(c.leaf, 1.6));
    p.setBrush(c.leafPale);
    p.drawPath(rose(m_lobes->shown.round, l));
    if (ground()) {
        QPen dashed(c.inkSoft, 1.1);
        dashed.setDashPattern({3, 2});
        p.setPen(dashed);
        p.setBrush(Qt::NoBrush);
        p.drawPath(rose(ground()->flat.round, l));
    }
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
                return l.compass.centre + 0.45 * l.compass.radius / std::max(reach, 1e-3) * QPointF(v.x - middle.x, middle.y - v.y);
            };
            sketch.line(at(w.points[i - 1]), at(w.points[i]), c.ink, 1.8);
        }
    const double b = radians(m_bearing);
    sketch.line(l.compass.centre, l.compass.centre + l.compass.radius * QPointF(std::sin(b), -std::cos(b)), c.petal, 2.2);
    const std::pair<const char*, QPointF> points[] = {{"N", {0, -1}}, {"E", {1, 0}}, {"S", {0, 1}}, {"W", {-1, 0}}};
    for (const auto& [name, direction] : points)
        sketch.text(l.compass.centre + (l.compass.radius + 12) * direction, QLatin1String(name), Qt::AlignCenter, {c.inkSoft, 12});
    const QPointF below = l.compass.centre + QPointF(0, l.compass.radius + 22);
    sketch.text(below, tr("at %1°, from above").arg(m_elevation, 0, 'f', 0), Qt::AlignHCenter | Qt::AlignTop, {c.inkSoft, 12});
    if (ground())
        sketch.text(below + QPointF(0.0, 16.0),
                    tr("ground: %1 to %2 dB").arg(signedDecibels(ground()->least), signedDecibels(ground()->most)),
                    Qt::AlignHCenter | Qt::AlignTop, {c.inkSoft, 12});
}

void LobeDial::aimAt(QPointF p)
{
    const Layout l = layoutFor(size());
    const QPointF toCompass = p - l.compass.centre, toCentre = p - l.dial.centre;
    if (std::hypot(toCompass.x(), toCompass.y()) < l.compass.radius + 20) {
        const double b = degrees(std::atan2(toCompass.x(), -toCompass.y()));
        emit aimed(m_elevation, std::round(b < 0.0 ? b + 360.0 : b));
        return;
    }
    aimOnDial(toCentre);
}

} // namespace vetchling::app
