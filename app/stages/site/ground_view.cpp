#include "app/stages/site/ground_view.h"

#include "app/view/words.h"

#include <QKeyEvent>
#include <QMouseEvent>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr double stripHeight = 150.0, edge = 54.0; // px

QString bearingWords(double bearing) { return QStringLiteral("%1°").arg(std::fmod(bearing, 360.0), 3, 'f', 0, QLatin1Char('0')); }

} // namespace

GroundView::GroundView(ViewContext& context, SiteDesk& desk) : Canvas(context), m_desk(desk)
{
    setObjectName(QStringLiteral("groundView"));
    setAccessibleName(tr("The ground along a bearing; arrow keys try the antenna's place"));
    setFocusPolicy(Qt::StrongFocus);
}

void GroundView::show(double bearing)
{
    if (bearing != m_bearing)
        m_tried = 0.0;
    m_bearing = bearing;
    if (const auto line = this->line())
        m_desk.wantPlaces(bearing, GroundSketch::nearReach(*line));
    update();
}

std::optional<TerrainProfile> GroundView::line() const { return m_desk.lineTowards(m_bearing); }

QPointF GroundView::Layout::at(double away, double gain) const
{
    return {section.at(away, 0.0).x(), strip.bottom() - strip.height() * (gain - low) / (high - low)};
}

GroundView::Layout GroundView::layoutFor(const QSizeF& size) const
{
    constexpr double gap = 40.0, above = 60.0, below = 44.0; // px over the highest and under the lowest point
    Layout l;
    l.strip = QRectF(edge, size.height() - stripHeight - 34.0, size.width() - 2.0 * edge, stripHeight);
    const QRectF area(edge, 10.0, size.width() - 2.0 * edge, l.strip.top() - gap - 10.0);
    const TerrainProfile ground = line().value_or(TerrainProfile{{}, {m_context.document.design().site.soil.ground()}});
    const double reach = GroundSketch::nearReach(ground), room = area.height() - above - below;
    const GroundSketch::Span span = GroundSketch::spanOf(ground, reach);
    const double rise = room * span.rise / std::max(span.rise + span.fall, 0.1);
    l.section = GroundSketch::fitted(ground, area, {area.center().x(), area.bottom() - below}, rise, room - rise, reach);
    l.section.foot.ry() -= span.fall * l.section.up;
    if (const auto gains = m_desk.places(); gains && !gains->empty()) {
        l.low = HUGE_VAL, l.high = -HUGE_VAL;
        for (const study::PlaceGain& g : *gains) {
            l.low = std::min({l.low, g.gain, g.higher.value_or(g.gain)});
            l.high = std::max({l.high, g.gain, g.higher.value_or(g.gain)});
        }
        l.low = std::floor(l.low - 0.5), l.high = std::max(std::ceil(l.high + 0.5), l.low + 4.0);
    }
    return l;
}

void GroundView::render(Sketch& sketch, const QSizeF& size)
{
    const Colours& c = sketch.colours();
    sketch.painter().fillRect(QRectF({0, 0}, size), c.paper);
    const auto ground = line();
    if (!ground) {
        sketch.text({0.5 * size.width(), 0.4 * size.height()},
                    tr("Flat all round. Type a bearing, lay a slope or open a height file at the right."), Qt::AlignHCenter | Qt::AlignTop,
                    {c.inkSoft, 14});
        return;
    }
    const Layout l = layoutFor(size);
    l.section.paint(sketch, *ground, 255);
    const QPointF foot = l.section.at(m_tried, ground->heightAt(m_tried) - ground->heightAt(0.0)), top = foot - QPointF(0.0, 26.0);
    sketch.line(foot, top, c.ink, 2.0);
    sketch.line(top, top + QPointF(-11.0, 8.0), c.leaf, 1.8);
    sketch.line(top, top + QPointF(11.0, 8.0), c.leaf, 1.8);
    sketch.handle(foot, hasFocus());
    sketch.reserve(QRectF(foot.x() - 14.0, top.y() - 4.0, 28.0, 44.0));
    l.section.paintWords(sketch, *ground, m_context.system());
    const double words = l.section.area.bottom() + 4.0;
    sketch.text({l.section.area.left(), words}, tr("towards %1").arg(bearingWords(m_bearing + 180.0)), Qt::AlignLeft | Qt::AlignTop,
                {c.ink, 12, true});
    sketch.text({l.section.area.right(), words}, tr("towards %1").arg(bearingWords(m_bearing)), Qt::AlignRight | Qt::AlignTop,
                {c.ink, 12, true});
    const double times = l.section.exaggeration();
    sketch.text({l.section.area.center().x(), words},
                std::abs(times - 1.0) < 0.05 ? tr("heights to scale") : tr("heights drawn %1 times").arg(times, 0, 'g', 2),
                Qt::AlignHCenter | Qt::AlignTop, {c.inkSoft, 12});
    paintStrip(sketch, l);
}

void GroundView::paintStrip(Sketch& sketch, const Layout& l) const
{
    const Colours& c = sketch.colours();
    const auto gains = m_desk.places();
    sketch.line(l.strip.bottomLeft(), l.strip.bottomRight(), c.hairline);
    const QString title = tr("Gain at %1° towards %2 if the antenna stood there, on %3")
                              .arg(m_context.document.design().operation.aimElevation, 0, 'f', 0)
                              .arg(bearingWords(m_bearing), m_desk.placesBand());
    sketch.text(l.strip.bottomLeft() + QPointF(0.0, 18.0), title, Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 12});
    if (!gains || gains->empty()) {
        sketch.text(l.strip.center(),
                    m_desk.placesBusy() ? tr("Being computed …") : tr("Nothing to show: no antenna is solved on a wanted band."),
                    Qt::AlignCenter, {c.inkSoft, 13});
        return;
    }
    const double step = l.high - l.low > 12.0 ? 6.0 : l.high - l.low > 6.0 ? 3.0 : 1.0;
    for (double gain = std::ceil(l.low / step) * step; gain <= l.high; gain += step) {
        const double y = l.at(0.0, gain).y();
        sketch.line({l.strip.left(), y}, {l.strip.right(), y}, c.fill);
        sketch.text({l.strip.left() - 6.0, y}, numberWords(gain, 0), Qt::AlignRight | Qt::AlignVCenter, {c.inkSoft, 12});
    }
    sketch.text({l.strip.left() - 6.0, l.strip.top() - 12.0}, tr("dBi"), Qt::AlignRight | Qt::AlignVCenter, {c.inkSoft, 12});
    QPolygonF curve, higher;
    for (const study::PlaceGain& g : *gains) {
        curve << l.at(g.away, g.gain);
        if (g.higher)
            higher << l.at(g.away, *g.higher);
    }
    QPen dashed(c.inkSoft, 1.2);
    dashed.setDashPattern({4, 3});
    sketch.painter().setBrush(Qt::NoBrush);
    sketch.painter().setPen(dashed);
    sketch.painter().drawPolyline(higher);
    sketch.painter().setPen(QPen(c.leaf, 2.0));
    sketch.painter().drawPolyline(curve);
    if (!higher.isEmpty())
        sketch.text(higher.back() + QPointF(-4.0, -4.0), tr("%1 higher").arg(farWords(study::PlaceGain::raisedBy, m_context.system())),
                    Qt::AlignRight | Qt::AlignBottom, {c.inkSoft, 12, false, c.paper});
    const double x = l.at(m_tried, l.low).x();
    sketch.line({x, l.strip.top()}, {x, l.strip.bottom()}, c.petal, 2.0);
    if (const auto there = m_desk.gainAtPlace(m_tried)) {
        QStringList words{tr("%1 dBi").arg(decibelWords(there->gain))};
        words << (m_tried == 0.0 ? tr("where it stands")
                                 : tr("%1 towards %2")
                                       .arg(farWords(std::abs(m_tried), m_context.system()),
                                            bearingWords(m_tried > 0.0 ? m_bearing : m_bearing + 180.0)));
        if (!there->isFirm)
            words << tr("no place for a mast");
        const QSizeF card = sketch.cardSize(words);
        sketch.card({x + 10.0 + card.width() > l.strip.right() ? x - 10.0 - card.width() : x + 10.0, l.strip.top() - 6.0}, words,
                    QRectF(l.strip.left(), 0.0, l.strip.width(), l.strip.bottom()));
    }
}

QString GroundView::sentence() const
{
    if (!line())
        return tr("Nothing is said of the ground farther off: it counts as flat and of one soil.");
    const auto gains = m_desk.places();
    const auto here = m_desk.gainAtPlace(0.0);
    if (!gains || !here || !m_desk.placesWhole())
        return m_desk.placesBusy() ? tr("What the place does to the gain is being computed …")
                                   : tr("With an antenna on a wanted band, what the place does to its gain stands below.");
    const study::PlaceGain* best = nullptr;
    for (const study::PlaceGain& g : *gains)
        if (g.isFirm && (!best || g.gain > best->gain))
            best = &g;
    const double angle = m_context.document.design().operation.aimElevation;
    if (!best || best->gain < here->gain + 0.3)
        return tr("Along this line it stands well: nowhere within %1 on firm ground would it gain 0.3 dB more at %2°.")
            .arg(farWords(gains->back().away, m_context.system()))
            .arg(angle, 0, 'f', 0);
    return tr("On firm ground it would gain most %1 towards %2: %3 dB more at %4° than where it stands, its currents taken as they are. "
              "Keep "
              "back from edges.")
        .arg(farWords(std::abs(best->away), m_context.system()), bearingWords(best->away > 0.0 ? m_bearing : m_bearing + 180.0))
        .arg(best->gain - here->gain, 0, 'f', 1)
        .arg(angle, 0, 'f', 0);
}

QString GroundView::tableText() const
{
    QString out = tr("m towards %1\tdBi\tdBi %2 m higher\n").arg(bearingWords(m_bearing)).arg(study::PlaceGain::raisedBy);
    if (const auto gains = m_desk.places())
        for (const study::PlaceGain& g : *gains)
            out += QStringLiteral("%1\t%2\t%3\n")
                       .arg(g.away, 0, 'f', 1)
                       .arg(g.gain, 0, 'f', 2)
                       .arg(g.higher ? QString::number(*g.higher, 'f', 2) : QString());
    return out;
}

void GroundView::tryAt(QPointF p)
{
    const auto ground = line();
    if (!ground)
        return;
    const Layout l = layoutFor(size());
    m_tried = std::clamp(std::round((p.x() - l.section.foot.x()) / l.section.across), -l.section.reach, l.section.reach);
    if (std::abs(m_tried * l.section.across) < 6.0)
        m_tried = 0.0; // back where it stands
    update();
}

void GroundView::mouseMoveEvent(QMouseEvent* event)
{
    if (event->buttons() & Qt::LeftButton)
        tryAt(event->position());
}

void GroundView::keyPressEvent(QKeyEvent* event)
{
    const auto ground = line();
    const int way = event->key() == Qt::Key_Right ? 1 : event->key() == Qt::Key_Left ? -1 : 0;
    if (!ground || (way == 0 && event->key() != Qt::Key_Home)) {
        Canvas::keyPressEvent(event);
        return;
    }
    const double reach = GroundSketch::nearReach(*ground);
    m_tried = way == 0 ? 0.0 : std::clamp(m_tried + way * std::max(1.0, std::round(reach / 60.0)), -reach, reach);
    update();
}

} // namespace vetchling::app
