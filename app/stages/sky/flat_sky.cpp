#include "app/stages/sky/flat_sky.h"

#include "app/view/sketch.h"
#include "app/view/words.h"
#include "core/study/sky.h"

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr double range = 24.0; // dB from the deepest shade to none

} // namespace

FlatSky::FlatSky(ViewContext& context) : AimedCanvas(context)
{
    setObjectName(QStringLiteral("flatSky"));
    setAccessibleName(tr("Gain over the whole sky; arrow keys move the mark"));
    setMinimumHeight(240);
}

void FlatSky::show(std::shared_ptr<const study::SkyGrid> grid, double gain)
{
    m_grid = std::move(grid);
    m_gain = gain;
    update();
}

QRectF FlatSky::area(const QSizeF& size) { return {40.0, 8.0, size.width() - 54.0, size.height() - 36.0}; }

double FlatSky::y(double elevation, const QRectF& area)
{
    return area.bottom() - area.height() * std::sqrt(std::clamp(elevation, 0.0, 90.0) / 90.0);
}

void FlatSky::paintShade(Sketch& sketch, const QRectF& area)
{
    const Colours& c = sketch.colours();
    const int rows = int(m_grid->elevations.size()), columns = int(m_grid->bearings.size());
    QImage image(columns, rows, QImage::Format_RGB32);
    for (int row = 0; row < rows; ++row)
        for (int column = 0; column < columns; ++column) {
            const double part =
                std::clamp(1.0 - (m_grid->strongest - m_grid->gain[std::size_t(row)][std::size_t(column)]) / range, 0.0, 1.0);
            const auto mix = [&](int from, int to) { return int(std::lround(from + (to - from) * part * part)); };
            image.setPixelColor(
                column, rows - 1 - row,
                QColor(mix(c.panel.red(), c.leaf.red()), mix(c.panel.green(), c.leaf.green()), mix(c.panel.blue(), c.leaf.blue())));
        }
    sketch.painter().setRenderHint(QPainter::SmoothPixmapTransform);
    sketch.painter().drawImage(area, image); // the grid's rows are even in the root of the angle, as the picture is
}

void FlatSky::render(Sketch& sketch, const QSizeF& size)
{
    const Colours& c = sketch.colours();
    sketch.painter().fillRect(QRectF({0, 0}, size), c.paper);
    if (!m_grid) {
        const QString words = !m_context.document.hasAntenna() ? tr("No antenna yet: add one with + at the top.")
                              : m_context.solver.busy()        ? tr("Being computed …")
                                                               : tr("Nothing to show: no band is wanted, or the shape cannot be computed.");
        sketch.text({0.5 * size.width(), 60.0}, words, Qt::AlignHCenter | Qt::AlignTop, {c.inkSoft, 14});
        return;
    }
    const QRectF all = area(size);
    paintShade(sketch, all);
    for (double angle : {5.0, 10.0, 20.0, 30.0, 45.0, 60.0, 90.0}) {
        if (angle < 90.0)
            sketch.line({all.left(), y(angle, all)}, {all.right(), y(angle, all)}, c.paper);
        sketch.text({all.left() - 6, y(angle, all)}, QStringLiteral("%1°").arg(angle), Qt::AlignRight | Qt::AlignVCenter, {c.inkSoft, 12});
    }
    const auto x = [&](double bearing) { return all.left() + all.width() * bearing / 360.0; };
    const std::pair<double, QString> winds[] = {{0.0, tr("N")}, {90.0, tr("E")}, {180.0, tr("S")}, {270.0, tr("W")}, {360.0, tr("N")}};
    for (const auto& [bearing, name] : winds)
        sketch.text({x(bearing), all.bottom() + 5}, name, Qt::AlignHCenter | Qt::AlignTop, {c.inkSoft, 12, true});
    for (double bearing : {30.0, 60.0, 120.0, 150.0, 210.0, 240.0, 300.0, 330.0})
        sketch.text({x(bearing), all.bottom() + 5}, QString::number(bearing), Qt::AlignHCenter | Qt::AlignTop, {c.inkFaint, 11});
    const QPointF top(x(m_grid->strongestBearing), y(degrees(m_grid->strongestElevation), all));
    sketch.line(top - QPointF(5, 0), top + QPointF(5, 0), c.paper, 1.6);
    sketch.line(top - QPointF(0, 5), top + QPointF(0, 5), c.paper, 1.6);
    const QPointF mark(x(m_bearing), y(m_elevation, all));
    constexpr double ring = 11.0;
    sketch.reserve(QRectF(mark - QPointF(ring, ring), QSizeF(2 * ring, 2 * ring)));
    sketch.keepWithin(all);
    sketch.name(top, 8.0, tr("%1 dBi").arg(decibelWords(m_grid->strongest)), {c.ink, 12, true, c.paper});
    sketch.painter().setBrush(Qt::NoBrush);
    sketch.painter().setPen(QPen(c.petal, 3.0));
    sketch.painter().drawEllipse(mark, 9, 9);
    sketch.name(mark, 13.0,
                tr("%1 dBi towards %2°, %3°: %4 km")
                    .arg(decibelWords(m_gain))
                    .arg(m_bearing, 3, 'f', 0, QLatin1Char('0'))
                    .arg(m_elevation, 0, 'f', 0)
                    .arg(study::hopDistance(radians(m_elevation)) / 1000.0, 0, 'f', 0),
                {c.ink, 12, true, c.paper});
}

void FlatSky::aimAt(QPointF p)
{
    const QRectF all = area(size());
    const double part = std::clamp((all.bottom() - p.y()) / all.height(), 0.0, 1.0);
    const double bearing = std::clamp(360.0 * (p.x() - all.left()) / all.width(), 0.0, 360.0);
    emit aimed(std::max(1.0, std::round(90.0 * part * part)), std::round(bearing));
}

} // namespace vetchling::app
