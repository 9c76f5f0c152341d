#include "app/view/sketch.h"

#include <QLineF>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr double arrowLength = 8.0, arrowHalfWidth = 3.0;
constexpr double dimensionEnds = 34.0; // px of a dimension beside its words: arrows and a bit of line
constexpr double cardLine = 16.0;      // px from one line of a card to the next

QRectF placed(QPointF anchor, QSizeF size, Qt::Alignment alignment)
{
    double x = anchor.x(), y = anchor.y();
    if (alignment & Qt::AlignHCenter)
        x -= 0.5 * size.width();
    else if (alignment & Qt::AlignRight)
        x -= size.width();
    if (alignment & Qt::AlignVCenter)
        y -= 0.5 * size.height();
    else if (alignment & Qt::AlignBottom)
        y -= size.height();
    return {{x, y}, size};
}

} // namespace

Sketch::Sketch(QPainter& painter, const Theme& theme) : m_painter(painter), m_theme(theme)
{
    m_painter.setRenderHint(QPainter::Antialiasing);
}

void Sketch::draw(QPointF topLeft, const Typeset& set, const QColor& colour)
{
    if (m_wordless)
        return;
    m_painter.setFont(set.font);
    m_painter.setPen(colour);
    m_painter.drawStaticText(topLeft, set.text);
}

QRectF Sketch::text(QPointF anchor, const QString& words, Qt::Alignment alignment, const Ink& ink)
{
    if (m_wordless)
        return {};
    const Typeset set = m_theme.typeset(words, ink.pixels, ink.bold);
    const QRectF area = placed(anchor, set.size, alignment);
    if (ink.halo.isValid())
        m_painter.fillRect(area.adjusted(-2, 0, 2, 0), ink.halo);
    draw(area.topLeft(), set, ink.colour);
    reserve(area);
    return area;
}

bool Sketch::isFree(const QRectF& area) const
{
    if (!m_within.isNull() && !m_within.contains(area))
        return false;
    return std::none_of(m_taken.begin(), m_taken.end(), [&](const QRectF& r) { return r.intersects(area.adjusted(-2, -1, 2, 1)); });
}

double Sketch::covered(const QRectF& area) const
{
    constexpr double outside = 10.0;
    double sum = 0.0;
    for (const QRectF& r : m_taken)
        if (const QRectF both = r.intersected(area); !both.isEmpty())
            sum += both.width() * both.height();
    if (!m_within.isNull())
        if (const QRectF inside = area.intersected(m_within); inside != area)
            sum += outside * (area.width() * area.height() - std::max(0.0, inside.width() * inside.height()));
    return sum;
}

QRectF Sketch::fit(const std::vector<Place>& places, const QString& words, const Ink& ink)
{
    const QSizeF size = m_theme.typeset(words, ink.pixels, ink.bold).size;
    for (const Place& place : places)
        if (isFree(placed(place.at, size, place.alignment)))
            return text(place.at, words, place.alignment, ink);
    return {};
}

QRectF Sketch::put(const std::vector<Place>& places, const QString& words, const Ink& ink)
{
    if (const QRectF free = fit(places, words, ink); !free.isNull())
        return free;
    constexpr double stay = 1.0; // px squared words may cover without moving on
    const QSizeF size = m_theme.typeset(words, ink.pixels, ink.bold).size;
    const Place* best = nullptr;
    double least = HUGE_VAL;
    for (const Place& place : places)
        if (const double over = covered(placed(place.at, size, place.alignment)); over < least - stay)
            least = over, best = &place;
    if (!best)
        return {};
    Ink grounded = ink;
    if (!grounded.halo.isValid())
        grounded.halo = colours().paper;
    return text(best->at, words, best->alignment, grounded);
}

QRectF Sketch::label(QPointF anchor, const QString& words, Qt::Alignment alignment, const Ink& ink)
{
    static constexpr double rings[] = {0, 8, 16, 26, 38, 50, 60};
    std::vector<Place> places;
    for (double distance : rings)
        for (int step = 0; step < (distance == 0.0 ? 1 : 8); ++step) {
            const double angle = step * 0.7853981633974483;
            places.push_back({anchor + distance * QPointF(std::sin(angle), -std::cos(angle)), alignment});
        }
    return fit(places, words, ink);
}

QRectF Sketch::name(QPointF at, double radius, const QString& words, const Ink& ink, bool always)
{
    if (!m_within.isNull() && !m_within.contains(at))
        return {};
    constexpr double slant = 0.7; // a slanting place
    const Place sides[] = {{{0, -1}, Qt::AlignHCenter | Qt::AlignBottom},      {{1, 0}, Qt::AlignLeft | Qt::AlignVCenter},
                           {{-1, 0}, Qt::AlignRight | Qt::AlignVCenter},       {{0, 1}, Qt::AlignHCenter | Qt::AlignTop},
                           {{slant, -slant}, Qt::AlignLeft | Qt::AlignBottom}, {{-slant, -slant}, Qt::AlignRight | Qt::AlignBottom},
                           {{slant, slant}, Qt::AlignLeft | Qt::AlignTop},     {{-slant, slant}, Qt::AlignRight | Qt::AlignTop}};
    std::vector<Place> places;
    for (double away : {1.0, 2.2, 3.4}) // further rows for where many stand together
        for (const Place& side : sides)
            places.push_back({at + away * radius * side.at, side.alignment});
    return always ? put(places, words, ink) : fit(places, words, ink);
}

QSizeF Sketch::cardSize(const QStringList& lines) const
{
    double wide = 0.0;
    for (int i = 0; i < lines.size(); ++i)
        wide = std::max(wide, m_theme.typeset(lines[i], 12, i == 0).size.width());
    return {wide + 18.0, 6.0 + cardLine * double(lines.size())};
}

QRectF Sketch::card(QPointF corner, const QStringList& lines, const QRectF& within)
{
    const QSizeF size = cardSize(lines);
    const QRectF area({std::clamp(corner.x(), within.left(), std::max(within.left(), within.right() - size.width())),
                       std::clamp(corner.y(), within.top(), std::max(within.top(), within.bottom() - size.height()))},
                      size);
    m_painter.setPen(QPen(colours().hairline, 1.0));
    m_painter.setBrush(colours().card);
    m_painter.drawRoundedRect(area, 4, 4);
    for (int i = 0; i < lines.size(); ++i)
        text(area.topLeft() + QPointF(9.0, 3.0 + cardLine * i), lines[i], Qt::AlignLeft | Qt::AlignTop,
             {i == 0 ? colours().ink : colours().inkSoft, 12, i == 0});
    return area;
}

void Sketch::reserveLine(QPointF a, QPointF b)
{
    const int steps = std::max(1, int(QLineF(a, b).length() / 10.0));
    for (int i = 0; i <= steps; ++i) {
        const QPointF p = a + (b - a) * (double(i) / steps);
        reserve({p.x() - 4, p.y() - 4, 8, 8});
    }
}

void Sketch::reservePath(const QPainterPath& path)
{
    for (const QPolygonF& piece : path.toSubpathPolygons())
        for (qsizetype i = 1; i < piece.size(); ++i)
            reserveLine(piece[i - 1], piece[i]);
}

void Sketch::line(QPointF a, QPointF b, const QColor& colour, double width, Qt::PenStyle style)
{
    QPen pen(colour, width, style, Qt::FlatCap);
    if (style == Qt::DashLine)
        pen.setDashPattern({4.0, 3.0});
    m_painter.setPen(pen);
    m_painter.drawLine(a, b);
}

void Sketch::arrowHead(QPointF tip, QPointF from, const QColor& colour)
{
    const QLineF shaft(tip, from);
    if (shaft.length() < 1.0)
        return;
    const QPointF along = (from - tip) / shaft.length(), across(-along.y(), along.x());
    m_painter.setPen(QPen(colour, 1.0));
    m_painter.drawLine(tip, tip + arrowLength * along + arrowHalfWidth * across);
    m_painter.drawLine(tip, tip + arrowLength * along - arrowHalfWidth * across);
}

QRectF Sketch::wordsOf(const Dimension& d) const
{
    const QLineF span(d.a, d.b);
    const double length = std::max(1e-9, span.length());
    const QSizeF size = m_theme.typeset(d.words, 12).size;
    const double c = std::abs(span.dx()) / length, s = std::abs(span.dy()) / length;
    const QSizeF turned(c * size.width() + s * size.height(), s * size.width() + c * size.height());
    const double up =
        size.width() + dimensionEnds < span.length() ? 0.0 : 0.5 * size.height() + 3.0; // beside it where it has no room in it
    QPointF aside(span.dy() / length, -span.dx() / length);
    if (aside.y() > 0.0)
        aside = -aside;
    const QPointF middle = d.a + d.share * (d.b - d.a) + up * aside;
    return {middle - QPointF(0.5 * turned.width(), 0.5 * turned.height()), turned};
}

Sketch::Dimension Sketch::plan(QPointF a, QPointF b, const QString& words)
{
    constexpr double mostCovered = 0.02, usual = 0.5, shares[] = {usual, 0.42, 0.58, 0.34, 0.66, 0.26, 0.74, 0.18, 0.82};
    const double length = QLineF(a, b).length(), half = 0.5 * (m_theme.typeset(words, 12).size.width() + dimensionEnds);
    double least = HUGE_VAL;
    Dimension best{a, b, words, usual};
    for (double share : shares) {
        if (share != usual && std::min(share, 1.0 - share) * length < half)
            continue;
        const Dimension tried{a, b, words, share};
        if (const double over = covered(wordsOf(tried)); over < least)
            least = over, best = tried;
    }
    const QRectF area = wordsOf(best);
    if (least > mostCovered * area.width() * area.height())
        return {}; // no room for it at all
    reserveLine(a, b);
    reserve(area);
    return best;
}

void Sketch::draw(const Dimension& d)
{
    if (m_wordless)
        return;
    const QLineF span(d.a, d.b);
    if (span.length() < 14.0)
        return;
    const QColor ink = colours().inkSoft;
    const Typeset set = m_theme.typeset(d.words, 12);
    const double width = set.size.width() + 10.0;
    const bool roomInside = set.size.width() + dimensionEnds < span.length();
    const bool seen = m_within.isNull() || m_within.contains(wordsOf(d));
    const QPointF middle = d.a + d.share * (d.b - d.a), along = (d.b - d.a) / span.length();
    if (roomInside && seen) {
        line(d.a, middle - 0.5 * width * along, ink);
        line(middle + 0.5 * width * along, d.b, ink);
    } else {
        line(d.a, d.b, ink);
    }
    arrowHead(d.a, d.b, ink);
    arrowHead(d.b, d.a, ink);
    if (!seen)
        return;
    double angle = std::atan2(along.y(), along.x()) * 57.29577951308232;
    if (angle > 90.0)
        angle -= 180.0;
    else if (angle <= -90.0)
        angle += 180.0;
    m_painter.save();
    m_painter.translate(middle);
    m_painter.rotate(angle);
    if (!roomInside)
        m_painter.translate(0.0, -0.5 * set.size.height() - 3.0);
    draw({-0.5 * set.size.width(), -0.5 * set.size.height()}, set, colours().ink);
    m_painter.restore();
}

void Sketch::hatch(const QPainterPath& area, const QColor& colour, double spacing)
{
    m_painter.save();
    m_painter.setClipPath(area, Qt::IntersectClip);
    m_painter.setPen(QPen(colour, 1.0));
    const QRectF box = area.boundingRect();
    for (double x = box.left() - box.height(); x < box.right(); x += spacing)
        m_painter.drawLine(QPointF(x, box.bottom()), QPointF(x + box.height(), box.top()));
    m_painter.restore();
}

void Sketch::handle(QPointF at, bool hot)
{
    m_painter.setBrush(hot ? QBrush(colours().petalPale) : QBrush(Qt::NoBrush));
    m_painter.setPen(QPen(colours().petal, hot ? 3.0 : 2.0));
    m_painter.drawEllipse(at, 10.0, 10.0);
    reserve({at.x() - 11, at.y() - 11, 22, 22});
}

void Sketch::feed(QPointF at)
{
    m_painter.setPen(QPen(colours().ink, 1.5));
    m_painter.setBrush(colours().petal);
    m_painter.drawEllipse(at, 5.0, 5.0);
    m_painter.setBrush(colours().ink);
    m_painter.drawEllipse(at, 1.5, 1.5);
    reserve({at.x() - 6, at.y() - 6, 12, 12});
}

void Sketch::coil(QPointF at, double angle, double length)
{
    constexpr double shortest = 26.0, pitch = 5.0, ends = 6.0;
    const double width = std::max(shortest, length);
    const int turns = int((width - ends) / pitch);
    m_painter.save();
    m_painter.translate(at);
    m_painter.rotate(angle);
    m_painter.setBrush(colours().card);
    m_painter.setPen(QPen(colours().ink, 1.4));
    m_painter.drawRoundedRect(QRectF(-0.5 * width, -6, width, 12), 3, 3);
    QPainterPath winding;
    for (int i = 0; i < turns; ++i) {
        const double x = pitch * (i - 0.5 * turns);
        winding.moveTo(x, 4.5);
        winding.cubicTo(x, -7, x + pitch, -7, x + pitch, 4.5);
    }
    m_painter.setBrush(Qt::NoBrush);
    m_painter.drawPath(winding);
    m_painter.restore();
    reserve({at.x() - 14, at.y() - 14, 28, 28});
}

/// A coil with the plates of its capacitor below.
void Sketch::trap(QPointF at, double angle)
{
    coil(at, angle);
    m_painter.save();
    m_painter.translate(at);
    m_painter.rotate(angle);
    m_painter.setPen(QPen(colours().ink, 1.4));
    m_painter.drawLine(QPointF(-2, 9), QPointF(-2, 15));
    m_painter.drawLine(QPointF(2, 9), QPointF(2, 15));
    m_painter.drawPolyline(QPolygonF({QPointF(-13, 0), QPointF(-13, 12), QPointF(-2, 12)}));
    m_painter.drawPolyline(QPolygonF({QPointF(13, 0), QPointF(13, 12), QPointF(2, 12)}));
    m_painter.restore();
}

void Sketch::resistor(QPointF at, double angle)
{
    m_painter.save();
    m_painter.translate(at);
    m_painter.rotate(angle);
    m_painter.setBrush(colours().card);
    m_painter.setPen(QPen(colours().ink, 1.4));
    m_painter.drawRoundedRect(QRectF(-13, -6, 26, 12), 3, 3);
    m_painter.drawPolyline(
        QPolygonF({QPointF(-11, 0), QPointF(-8, -4), QPointF(-4, 4), QPointF(0, -4), QPointF(4, 4), QPointF(8, -4), QPointF(11, 0)}));
    m_painter.restore();
    reserve({at.x() - 14, at.y() - 14, 28, 28});
}

/// Two wire ends at an insulator, and the pigtail that bridges them or hangs loose.
void Sketch::link(QPointF at, double angle, bool open)
{
    m_painter.save();
    m_painter.translate(at);
    m_painter.rotate(angle);
    m_painter.setBrush(colours().card);
    m_painter.setPen(QPen(colours().ink, 1.4));
    m_painter.drawRoundedRect(QRectF(-7, -3, 14, 6), 3, 3);
    QPainterPath pigtail(QPointF(-7, 0));
    if (open)
        pigtail.cubicTo(-9, 8, -5, 12, -10, 14);
    else
        pigtail.cubicTo(-6, 12, 6, 12, 7, 0);
    m_painter.setBrush(Qt::NoBrush);
    m_painter.drawPath(pigtail);
    m_painter.restore();
    reserve({at.x() - 12, at.y() - 14, 24, 28});
}

void Sketch::insulator(QPointF at, double angle)
{
    m_painter.save();
    m_painter.translate(at);
    m_painter.rotate(angle);
    m_painter.setPen(QPen(colours().ink, 1.2));
    m_painter.setBrush(colours().card);
    m_painter.drawRoundedRect(QRectF(-4, -4, 8, 8), 2, 2);
    m_painter.restore();
    reserve({at.x() - 5, at.y() - 5, 10, 10});
}

void Sketch::leaf(QPointF stem, bool filled)
{
    QPainterPath blade(stem);
    blade.cubicTo(stem + QPointF(0, -12), stem + QPointF(10, -17), stem + QPointF(20, -17));
    blade.cubicTo(stem + QPointF(20, -8), stem + QPointF(14, 1), stem);
    m_painter.setPen(QPen(colours().leaf, 1.4));
    m_painter.setBrush(filled ? colours().petal : colours().leafPale);
    m_painter.drawPath(blade);
    m_painter.setBrush(filled ? colours().petal : colours().paper);
    m_painter.drawEllipse(stem, 4.0, 4.0);
}

void Sketch::triangle(QPointF tip, const QColor& fill, const QColor& edge)
{
    const QPointF points[] = {tip, tip + QPointF(-4.5, 8), tip + QPointF(4.5, 8)};
    m_painter.setPen(QPen(edge, 1.0));
    m_painter.setBrush(fill);
    m_painter.drawPolygon(points, 3);
}

double swrFraction(double swr)
{
    const double capped = std::clamp(swr, 1.0, swrCap);
    return (capped - 1.0) / (capped + 1.0) * (swrCap + 1.0) / (swrCap - 1.0);
}

QString swrText(double swr)
{
    if (!(swr <= swrCap))
        return QObject::tr("over %1").arg(swrCap);
    return QString::number(swr, 'f', 2);
}

QString impedanceText(double resistance, double reactance)
{
    const auto digits = [](double v) {
        return std::abs(v) >= 1000.0 ? QString::number(std::abs(v) / 1000.0, 'f', 1) + QStringLiteral("k")
                                     : QString::number(std::abs(v), 'f', 0);
    };
    return QStringLiteral("%1 %2 j%3 Ω")
        .arg(digits(resistance), std::round(reactance) < 0.0 ? QStringLiteral("−") : QStringLiteral("+"), digits(reactance));
}

} // namespace vetchling::app
