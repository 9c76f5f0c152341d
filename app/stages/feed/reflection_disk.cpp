#include "app/stages/feed/reflection_disk.h"

#include "app/view/feed_words.h"
#include "app/view/sketch.h"
#include "app/view/words.h"

#include <QKeyEvent>
#include <QMouseEvent>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr double wordsWidth = 236.0;
constexpr double ringSwr[] = {1.2, 1.5, 2.0, 3.0, 5.0, 10.0};
constexpr double nameless = 24.0;                 // px from the frequency that is looked at: the sweep's end stands beside it
constexpr double opened = 0.5, openedUpTo = 0.36; // reflection at the edge where all is near the middle

double radiusOf(double swr) { return (swr - 1.0) / (swr + 1.0); }

/// Within the limit: pale green on the card.
QColor goodGround(const Colours& c)
{
    constexpr double share = 0.6;
    const auto mixed = [](double a, double b) { return share * a + (1.0 - share) * b; };
    return QColor::fromRgbF(float(mixed(c.leafPale.redF(), c.card.redF())), float(mixed(c.leafPale.greenF(), c.card.greenF())),
                            float(mixed(c.leafPale.blueF(), c.card.blueF())));
}

} // namespace

ReflectionDisk::ReflectionDisk(ViewContext& context, FeedDesk& desk, QWidget* parent) : Canvas(context, parent), m_desk(desk)
{
    setObjectName(QStringLiteral("reflectionDisk"));
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    setMinimumHeight(330);
    setAccessibleName(tr("Reflection over the band at the feedpoint and at the radio"));
}

/// What lies near the middle is opened to twice its size.
ReflectionDisk::Disk ReflectionDisk::diskOf(const study::Reflection& seen, const QSizeF& size) const
{
    double most = std::max(std::abs(seen.atFeedpoint()), std::abs(seen.atRadio()));
    for (const study::ReflectionPoint& p : seen.sweep)
        most = std::max({most, std::abs(p.feedpoint), std::abs(p.radio)});
    const double room = size.width() - wordsWidth - 30.0;
    const double radius = 0.5 * std::min(room - 8.0, size.height() - 40.0);
    return {{0.5 * room, 0.5 * size.height()}, std::max(60.0, radius), most < openedUpTo ? opened : 1.0};
}

void ReflectionDisk::render(Sketch& sketch, const QSizeF& size)
{
    const Colours& c = sketch.colours();
    const auto seen = m_desk.reflection();
    if (!seen) {
        sketch.text({0.0, 20.0},
                    m_context.solver.busy() ? tr("Being computed …") : tr("This band is not solved: choose another one in the strip."),
                    Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 13});
        return;
    }
    const Disk disk = diskOf(*seen, size);
    sketch.keepWithin({0.0, 0.0, size.width() - wordsWidth - 20.0, size.height()});
    paintRings(sketch, *seen, disk);
    paintSweep(sketch, *seen, disk);
    paintRingNames(sketch, disk);
    constexpr double edge = 3.0;
    paintWords(sketch, *seen, {size.width() - wordsWidth - edge, 6.0, wordsWidth, size.height() - 12.0});
}

void ReflectionDisk::paintRings(Sketch& sketch, const study::Reflection& seen, const Disk& disk) const
{
    const Colours& c = sketch.colours();
    QPainter& p = sketch.painter();
    const auto ring = [&](double r, const QPen& pen, const QBrush& fill) {
        p.setPen(pen);
        p.setBrush(fill);
        p.drawEllipse(disk.centre, disk.of(r), disk.of(r));
    };
    ring(disk.full, QPen(c.inkFaint, 1.2), c.card);
    const double limit = m_context.document.design().operation.swrLimit;
    ring(radiusOf(limit), QPen(c.brick, 1.2, Qt::DashLine), goodGround(c));
    for (double s : ringSwr)
        if (isRing(s, disk))
            ring(radiusOf(s), QPen(c.hairline, 1.0), Qt::NoBrush);
    sketch.line(disk.at(-disk.full), disk.at(disk.full), c.hairline);
    p.setPen(Qt::NoPen);
    p.setBrush(c.inkSoft);
    p.drawEllipse(disk.centre, 2.5, 2.5);
    const double corner = 0.80 * disk.radius;
    const QString longWords = tr("too long"), shortWords = tr("too short");
    if (seen.upIsLong != 0) {
        const double x = disk.centre.x() - corner - 14.0;
        sketch.text({x, disk.centre.y() - corner}, seen.upIsLong > 0 ? longWords : shortWords, Qt::AlignHCenter | Qt::AlignVCenter,
                    {c.leaf, 12});
        sketch.text({x, disk.centre.y() + corner}, seen.upIsLong > 0 ? shortWords : longWords, Qt::AlignHCenter | Qt::AlignVCenter,
                    {c.leaf, 12});
    }
    const auto onLine = [&](QPointF at, const QString& words, Qt::Alignment side) {
        const QRectF box = sketch.text(at - QPointF(0, 9), words, side | Qt::AlignVCenter, {c.inkFaint, 12, false, c.card});
        sketch.reserve(box);
    };
    onLine(disk.at(-disk.full) + QPointF(8, 0), tr("too few"), Qt::AlignLeft);
    onLine(disk.at(disk.full) - QPointF(8, 0), tr("too many ohms"), Qt::AlignRight);
    if (disk.full < 1.0)
        sketch.text({disk.centre.x(), disk.centre.y() + disk.radius + 3.0}, tr("opened: the edge is SWR 3"),
                    Qt::AlignHCenter | Qt::AlignTop, {c.inkFaint, 12});
}

/// On their rings, where no curve runs.
void ReflectionDisk::paintRingNames(Sketch& sketch, const Disk& disk) const
{
    const Colours& c = sketch.colours();
    const double limit = m_context.document.design().operation.swrLimit;
    const auto name = [&](double s, const QColor& colour) {
        std::vector<Sketch::Place> places;
        for (double slant : {-0.96, -0.6, -1.3, 0.96, 0.6, 1.3, -2.18, 2.18, -2.6, 2.6}) // rad
            places.push_back({disk.at(std::polar(radiusOf(s), slant)), Qt::AlignCenter});
        sketch.put(places, QString::number(s, 'g', 3), {colour, 12, false, s < limit ? goodGround(c) : c.card});
    };
    for (double s : ringSwr)
        if (isRing(s, disk))
            name(s, c.inkFaint);
    name(limit, c.brick);
}

/// Whether a ring of its own is drawn for an SWR.
bool ReflectionDisk::isRing(double swr, const Disk& disk) const
{
    return std::abs(swr - m_context.document.design().operation.swrLimit) > 0.05 && radiusOf(swr) < disk.full &&
           (swr > 1.3 || disk.full < 1.0);
}

void ReflectionDisk::paintSweep(Sketch& sketch, const study::Reflection& seen, const Disk& disk) const
{
    const Colours& c = sketch.colours();
    QPainter& p = sketch.painter();
    QPolygonF feedpoint, radio, way;
    for (const study::ReflectionPoint& point : seen.sweep) {
        feedpoint << disk.at(point.feedpoint);
        radio << disk.at(point.radio);
    }
    for (Complex gamma : seen.way)
        way << disk.at(gamma);
    const bool apart = !seen.way.empty() && std::abs(seen.atFeedpoint() - seen.atRadio()) > 1e-3;
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(c.petal, 2.2, Qt::DotLine, Qt::RoundCap));
    p.drawPolyline(way);
    if (apart) {
        p.setPen(QPen(c.sky, 2.2, Qt::DashDotLine));
        p.drawPolyline(radio);
    }
    p.setPen(QPen(c.leaf, 2.4));
    p.drawPolyline(feedpoint);
    for (const QPolygonF& line : {feedpoint, apart ? radio : QPolygonF(), way})
        for (qsizetype i = 1; i < line.size(); ++i)
            sketch.reserveLine(line[i - 1], line[i]);
    const auto end = [&](const QPolygonF& line, const QColor& colour, bool named) {
        if (line.isEmpty())
            return;
        for (const bool first : {true, false}) {
            const QPointF at = first ? line.first() : line.last();
            p.setPen(QPen(colour, 1.4));
            p.setBrush(c.card);
            p.drawEllipse(at, 3.4, 3.4);
            sketch.reserve(QRectF(at - QPointF(5, 5), QSizeF(10, 10)));
            const QPointF away = at - disk.at(seen.atFeedpoint());
            if (named && std::hypot(away.x(), away.y()) > nameless)
                sketch.name(at, 6.0, megahertz(first ? seen.sweep.front().frequency : seen.sweep.back().frequency), {colour, 12});
        }
    };
    if (apart)
        end(radio, c.sky, false);
    end(feedpoint, c.leaf, true);
    const auto point = [&](Complex gamma, const QColor& colour, const QString& words) {
        p.setPen(QPen(c.card, 1.5));
        p.setBrush(colour);
        p.drawEllipse(disk.at(gamma), 6.0, 6.0);
        sketch.reserve(QRectF(disk.at(gamma) - QPointF(7, 7), QSizeF(14, 14)));
        sketch.name(disk.at(gamma), 9.0, words, {colour, 12, true, c.card});
    };
    if (apart)
        point(seen.atRadio(), c.sky, tr("at the radio"));
    point(seen.atFeedpoint(), c.leaf, apart ? tr("at the feedpoint") : tr("feedpoint and radio"));
}

QStringList ReflectionDisk::explained(const study::Reflection& seen) const
{
    QStringList lines;
    if (!seen.dip)
        return {tr("It is not resonant near here.")};
    const double off = seen.frequency - *seen.dip;
    constexpr double near = 2e-3;
    if (std::abs(off) < near * seen.frequency)
        lines << tr("It is at its best here.");
    else
        lines << (off > 0.0 ? tr("Its best lies %1 kHz lower: too long for here.") : tr("Its best lies %1 kHz higher: too short for here."))
                     .arg(std::abs(off) / 1e3, 0, 'f', 0);
    const double r = seen.feedpoint.real(), away = std::abs(seen.feedpoint.imag());
    if (away < 0.12 * r)
        lines << (swr(r, seen.reference) > 1.2 ? tr("Beside the middle: resonant, not matched.")
                                               : tr("In the middle: resonant and matched."));
    else
        lines << tr("Off the line: not resonant here.");
    return lines;
}

void ReflectionDisk::paintWords(Sketch& sketch, const study::Reflection& seen, const QRectF& area)
{
    const Colours& c = sketch.colours();
    double y = area.top();
    const auto write = [&](const QString& words, const Sketch::Ink& ink, double down) {
        sketch.text({area.left(), y}, sketch.theme().elided(words, area.width(), ink.pixels, ink.bold), Qt::AlignLeft | Qt::AlignTop, ink);
        y += down;
    };
    write(tr("%1 MHz").arg(megahertz(seen.frequency, 3)), {c.ink, 17, true}, 30.0);
    const auto place = [&](const QString& where, Complex z, const QColor& colour) {
        write(where, {colour, 12}, 15.0);
        const double top = y;
        write(feed::shortImpedance(z), {c.ink, 15, true}, 27.0);
        sketch.text({area.right(), top + 2.0}, tr("SWR %1").arg(swrText(swr(z, seen.reference))), Qt::AlignRight | Qt::AlignTop,
                    {c.ink, 13, true});
    };
    place(tr("At the feedpoint"), seen.feedpoint, c.leaf);
    place(tr("At the radio's socket"), seen.radio, c.sky);
    write(tr("Reaches the wire"), {c.inkSoft, 12}, 15.0);
    write(feed::wattWords(seen.watts), {c.ink, 15, true}, 26.0);
    write(tr("What the line hides of what comes back"), {c.inkSoft, 12}, 15.0);
    write(feed::decibelWords(std::max(0.0, seen.hidden), 1), {c.ink, 15, true}, 26.0);
    sketch.line({area.left(), y}, {area.right(), y}, c.hairline);
    y += 8.0;
    for (const QString& line : explained(seen))
        write(line, {c.inkSoft, 12}, 17.0);
    y += 10.0;
    m_cures.clear();
    write(seen.cures.empty() ? tr("Nothing here would make it clearly better.") : tr("What would cure it (take it with a click)"),
          {c.inkSoft, 12}, 20.0);
    for (std::size_t i = 0; i < seen.cures.size() && y + 62.0 <= area.bottom(); ++i) {
        const study::ReflectionCure& cure = seen.cures[i];
        const QString harm = feed::elsewhereWords(cure, m_context.document);
        const QRectF box(area.left(), y, area.width(), harm.isEmpty() ? 43.0 : 59.0);
        m_cures.push_back(box);
        const bool hot = onScreen() && int(i) == m_cure;
        sketch.painter().setPen(QPen(hot ? c.petal : c.hairline, hot ? 1.8 : 1.0));
        sketch.painter().setBrush(c.card);
        sketch.painter().drawRoundedRect(box, 5, 5);
        const auto [what, result] = feed::cureWords(cure, m_context.document);
        const double edges = cure.swrAtEdges;
        const QString band = std::isfinite(edges) ? tr("edges %1").arg(swrText(edges)) : QString();
        sketch.text({box.left() + 8.0, box.top() + 4.0}, sketch.theme().elided(what, box.width() - 16.0, 12), Qt::AlignLeft | Qt::AlignTop,
                    {c.ink, 12});
        sketch.text({box.left() + 8.0, box.top() + 39.0}, result, Qt::AlignLeft | Qt::AlignBottom,
                    {cure.better ? c.leaf : c.inkSoft, 12, true});
        if (!harm.isEmpty())
            sketch.text({box.left() + 8.0, box.top() + 55.0}, sketch.theme().elided(harm, box.width() - 16.0, 12),
                        Qt::AlignLeft | Qt::AlignBottom, {cure.victim ? c.brick : c.inkSoft, 12});
        sketch.text({box.right() - 8.0, box.top() + 39.0}, band, Qt::AlignRight | Qt::AlignBottom, {c.inkSoft, 12});
        y += box.height() + 5.0;
    }
}

int ReflectionDisk::cureAt(QPointF p) const
{
    for (std::size_t i = 0; i < m_cures.size(); ++i)
        if (m_cures[i].contains(p))
            return int(i);
    return -1;
}

/// The frequency of the nearest point of either curve, within a finger's width.
std::optional<double> ReflectionDisk::frequencyNear(QPointF p) const
{
    const auto seen = m_desk.reflection();
    if (!seen)
        return std::nullopt;
    const Disk disk = diskOf(*seen, size());
    double nearest = 18.0;
    std::optional<double> frequency;
    for (const study::ReflectionPoint& point : seen->sweep)
        for (Complex gamma : {point.feedpoint, point.radio})
            if (const QPointF away = disk.at(gamma) - p; std::hypot(away.x(), away.y()) < nearest) {
                nearest = std::hypot(away.x(), away.y());
                frequency = point.frequency;
            }
    return frequency;
}

void ReflectionDisk::mousePressEvent(QMouseEvent* event)
{
    if (const int cure = cureAt(event->position()); cure >= 0) {
        if (const auto seen = m_desk.reflection(); seen && cure < int(seen->cures.size()))
            m_desk.takeCure(seen->cures[std::size_t(cure)]);
        return;
    }
    if (const auto frequency = frequencyNear(event->position()))
        m_desk.lookAt(*frequency);
}

void ReflectionDisk::mouseMoveEvent(QMouseEvent* event)
{
    const int cure = cureAt(event->position());
    if (cure >= 0 && cure != m_cure) {
        m_cure = cure;
        update();
    }
    setCursor(cure >= 0 || frequencyNear(event->position()) ? Qt::PointingHandCursor : Qt::ArrowCursor);
    if (event->buttons().testFlag(Qt::LeftButton))
        if (const auto frequency = frequencyNear(event->position()))
            m_desk.lookAt(*frequency);
}

void ReflectionDisk::leaveEvent(QEvent*)
{
    m_cure = -1;
    update();
}

void ReflectionDisk::step(int places)
{
    const WantedBand* band = findBand(m_context.document.design(), m_context.document.selectedBand());
    if (!band)
        return;
    const double by = 0.02 * (band->band.to - band->band.from) * places;
    m_desk.lookAt(std::clamp(m_desk.lookedAt() + by, band->band.from, band->band.to));
}

void ReflectionDisk::keyPressEvent(QKeyEvent* event)
{
    const auto seen = m_desk.reflection();
    const int cures = seen ? int(std::min(seen->cures.size(), m_cures.size())) : 0;
    if (event->key() == Qt::Key_Left || event->key() == Qt::Key_Right)
        step(event->key() == Qt::Key_Left ? -1 : 1);
    else if ((event->key() == Qt::Key_Up || event->key() == Qt::Key_Down) && cures > 0)
        m_cure = std::clamp(m_cure + (event->key() == Qt::Key_Up ? -1 : 1), 0, cures - 1);
    else if ((event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) && m_cure >= 0 && m_cure < cures)
        m_desk.takeCure(seen->cures[std::size_t(m_cure)]);
    else
        return Canvas::keyPressEvent(event);
    update();
}

} // namespace vetchling::app
