#include "app/plots/half_dial.h"

#include "core/physics.h"

#include <QObject>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

QString ringWords(double gain, bool atRim)
{
    const QString number = QString::number(gain).replace(QLatin1Char('-'), QStringLiteral("−"));
    return atRim ? QObject::tr("%1 dBi").arg(number) : number;
}

} // namespace

double HalfDial::rimFor(double strongest) { return 2.0 * std::ceil((strongest + 0.3) / 2.0); }

double HalfDial::radiusOf(double gain) const { return radius * std::clamp((gain - top + span) / span, 0.0, 1.0); }

QPointF HalfDial::at(double gain, double elevation) const
{
    const double e = radians(elevation), r = radiusOf(gain);
    return centre + QPointF(r * std::cos(e), -r * std::sin(e));
}

void HalfDial::paintGround(Sketch& sketch) const
{
    const Colours& c = sketch.colours();
    sketch.painter().setBrush(Qt::NoBrush);
    sketch.painter().setPen(QPen(c.hairline, 1.0));
    for (double gain = top; gain > top - span; gain -= ringStep) {
        const double r = radiusOf(gain);
        sketch.painter().drawArc(QRectF(centre.x() - r, centre.y() - r, 2 * r, 2 * r), 0, 180 * 16);
    }
    for (int angle = 15; angle < 180; angle += 15)
        sketch.line(centre, rim(angle), c.fill);
}

void HalfDial::paintWords(Sketch& sketch) const
{
    constexpr double beside = 14.0, inside = 11.0; // px from the rim, from a ring
    const Colours& c = sketch.colours();
    for (int angle : {30, 60, 90, 150, 120, 15, 45, 75, 165, 135, 105}) { // those that matter first
        const QPointF out(std::cos(radians(angle)), -std::sin(radians(angle)));
        const int shown = angle <= 90 ? angle : 180 - angle;
        sketch.fit({{centre + (radius + beside) * out, Qt::AlignCenter}}, QStringLiteral("%1°").arg(shown), {c.inkFaint, 12});
    }
    for (double gain = top; gain > top - span; gain -= ringStep) {
        const double r = radiusOf(gain);
        std::vector<Sketch::Place> places;
        for (double side : {-1.0, 1.0}) // on the horizon, then higher along the ring
            places.push_back({centre + QPointF(side * (r - 4.0), -3.0), (side < 0.0 ? Qt::AlignLeft : Qt::AlignRight) | Qt::AlignBottom});
        for (double elevation : {8.0, 22.0, 38.0, 52.0, 68.0, 82.0})
            for (double side : {180.0 - elevation, elevation})
                places.push_back({at(gain, side) + inside / std::max(1.0, r) * (centre - at(gain, side)), Qt::AlignCenter});
        sketch.fit(places, ringWords(gain, gain == top), {c.inkSoft, 12});
    }
}

void HalfDial::paintTowards(Sketch& sketch, double bearing, double down) const
{
    constexpr double outside = 20.0, apart = 84.0; // px
    const Colours& c = sketch.colours();
    const double reach = std::max(radius + outside, apart);
    const auto words = [](double degrees) { return QObject::tr("towards %1°").arg(degrees, 3, 'f', 0, QLatin1Char('0')); };
    sketch.text(centre + QPointF(reach, down), words(bearing), Qt::AlignRight | Qt::AlignTop, {c.ink, 12, true});
    sketch.text(centre + QPointF(-reach, down), words(std::fmod(bearing + 180.0, 360.0)), Qt::AlignLeft | Qt::AlignTop, {c.ink, 12, true});
}

} // namespace vetchling::app
