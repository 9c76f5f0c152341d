#include "app/plots/site_painter.h"

#include "app/view/words.h"
#include "core/shapes/hang.h"

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr double dangerZone = 3.0;                                     // m either side of a power line that nothing may enter
constexpr double towerHalf = 9.0, treeRadius = 11.0, poleRadius = 6.0; // px

double radiusOf(const Support& s)
{
    return s.kind == SupportKind::Tower ? towerHalf : s.kind == SupportKind::Tree ? treeRadius : poleRadius;
}

} // namespace

const shapes::BuiltAntenna* soundAntenna(const ViewContext& context, const Id& antenna)
{
    const AntennaModel* model = context.models.find(antenna);
    return model && model->built && !model->fault ? model->built.get() : nullptr;
}

PlanCamera aimedAt(const ViewContext& context, const QSizeF& size, double margin)
{
    PlanCamera camera;
    const Site& site = context.document.design().site;
    double x0 = HUGE_VAL, x1 = -HUGE_VAL, y0 = HUGE_VAL, y1 = -HUGE_VAL;
    const auto include = [&](double x, double y) {
        x0 = std::min(x0, x), x1 = std::max(x1, x), y0 = std::min(y0, y), y1 = std::max(y1, y);
    };
    for (PlanPoint p : site.boundary)
        include(p.x, p.y);
    for (const Support& s : site.supports)
        include(s.at.x, s.at.y);
    for (const Building& b : site.buildings)
        for (PlanPoint p : b.outline)
            include(p.x, p.y);
    for (const Antenna& a : context.document.design().antennas)
        if (const shapes::BuiltAntenna* built = soundAntenna(context, a.id))
            for (const Wire& w : built->model.wires)
                for (Vec3 p : w.points)
                    include(p.x, p.y);
    if (x0 > x1) { // nothing is there yet
        include(0.0, 0.0);
        include(20.0, 20.0);
    }
    if (site.powerLine) // its nearest point; it goes on beyond the picture
        for (PlanPoint corner : {PlanPoint{x0, y0}, PlanPoint{x1, y1}}) {
            const PlanPoint on = nearestOnSegment(corner, site.powerLine->from, site.powerLine->to);
            include(std::clamp(on.x, x0, x1), std::clamp(on.y, y0 - 0.6 * (y1 - y0 + 10.0), y1 + 0.6 * (y1 - y0 + 10.0)));
        }
    camera.scale =
        std::min((size.width() - 2 * margin) / std::max(x1 - x0, 4.0), (size.height() - 2 * margin - 16) / std::max(y1 - y0, 4.0));
    camera.origin = QPointF(0.5 * size.width() - camera.scale * 0.5 * (x0 + x1), 0.5 * size.height() + camera.scale * 0.5 * (y0 + y1));
    return camera;
}

SitePainter::SitePainter(Sketch& sketch, const PlanCamera& camera, const QSizeF& size, const ViewContext& context, PlanMarks marks)
    : m_sketch(sketch), m_camera(camera), m_size(size), m_context(context), m_marks(std::move(marks)), m_colours(sketch.colours())
{
}

void SitePainter::paint()
{
    m_sketch.painter().fillRect(QRectF({0, 0}, m_size), m_colours.paper);
    m_sketch.keepWithin(QRectF({2, 2}, m_size - QSizeF(4, 4)));
    reserveAll();
    paintFarGrounds();
    paintProfiles();
    paintWaters();
    paintBoundary();
    paintPowerLine();
    paintBuildings();
    paintCoax();
    paintAntennas();
    paintFeedEntry();
    paintSupports();
    nameAntennas(); // they have more places to stand at
    nameFarGrounds();
    paintHandles();
    paintCorners();
    paintFrame();
}

QPainterPath SitePainter::path(const Outline& outline) const
{
    QPolygonF polygon;
    for (PlanPoint p : outline)
        polygon << m_camera.project(p);
    QPainterPath out;
    out.addPolygon(polygon);
    out.closeSubpath();
    return out;
}

/// What names and labels shall not cover: supports and wires, whichever is painted first.
void SitePainter::reserveAll()
{
    for (const Support& s : site().supports) {
        const QPointF at = m_camera.project(s.at);
        const double r = radiusOf(s);
        m_sketch.reserve({at.x() - r, at.y() - r, 2 * r, 2 * r});
    }
    for (const Building& b : site().buildings)
        m_sketch.reservePath(path(b.outline));
    for (const Antenna& a : m_context.document.design().antennas)
        if (const shapes::BuiltAntenna* built = soundAntenna(m_context, a.id)) {
            for (const Wire& w : built->model.wires)
                for (std::size_t k = 1; k < w.points.size(); ++k)
                    m_sketch.reserveLine(m_camera.project(w.points[k - 1]), m_camera.project(w.points[k]));
            for (const Rope& rope : ropesOf(site(), built->model))
                m_sketch.reserveLine(m_camera.project(rope.from), m_camera.project(rope.support->at));
        }
}

void SitePainter::paintWaters()
{
    const Colours& c = m_colours;
    for (const Water& w : site().waters) {
        const QPainterPath area = path(w.outline);
        m_sketch.painter().fillPath(area, c.skyPale);
        if (chosen(SiteThing::Kind::Water, w.id)) {
            m_sketch.painter().setPen(QPen(c.petal, 2.5));
            m_sketch.painter().setBrush(Qt::NoBrush);
            m_sketch.painter().drawPath(area);
        }
        m_sketch.painter().save();
        m_sketch.painter().setClipPath(area);
        const QRectF box = area.boundingRect().intersected(QRectF({0, 0}, m_size));
        const QString name = QString::fromStdString(w.name);
        const QRectF words({box.left() + 8, box.top() + 8}, m_sketch.theme().typeset(name, 12, true).size);
        for (int row = 0; box.top() + 30 + 46 * row < box.bottom(); ++row) // tufts of reed
            for (double x = box.left() + 22 + (row % 2) * 30; x < box.right(); x += 62) {
                const QPointF foot(x, box.top() + 46 + 46 * row);
                if (!words.adjusted(-8, -4, 8, 14).contains(foot))
                    for (double lean : {-5.0, 0.0, 5.0})
                        m_sketch.line(foot, foot + QPointF(lean, -11 + std::abs(lean) * 0.5), c.sky);
            }
        m_sketch.painter().restore();
        m_sketch.text(words.topLeft(), name, Qt::AlignLeft | Qt::AlignTop, {c.sky, 12, true});
    }
}

void SitePainter::paintBoundary()
{
    if (site().boundary.size() < 3)
        return;
    const Colours& c = m_colours;
    const auto system = m_context.system();
    const QPainterPath area = path(site().boundary);
    const QRectF box = area.boundingRect();
    m_sketch.painter().save();
    m_sketch.painter().setClipPath(area);
    m_sketch.painter().fillPath(area, c.card);
    const double cell = 2.0 * m_camera.scale;
    constexpr double finest = 6.0; // px
    for (double x = box.left(); cell > finest && x < box.right(); x += cell)
        m_sketch.line({x, box.top()}, {x, box.bottom()}, c.fill);
    for (double y = box.bottom(); cell > finest && y > box.top(); y -= cell)
        m_sketch.line({box.left(), y}, {box.right(), y}, c.fill);
    m_sketch.painter().restore();
    const bool marked = chosen(SiteThing::Kind::Boundary);
    m_sketch.painter().setPen(QPen(marked ? c.petal : c.inkSoft, site().wallHeight > 0.0 || marked ? 3.0 : 1.5));
    m_sketch.painter().setBrush(Qt::NoBrush);
    m_sketch.painter().drawPath(area);
    for (std::size_t i = 0; i < site().boundary.size(); ++i)
        m_sketch.reserveLine(m_camera.project(site().boundary[i]), m_camera.project(site().boundary[(i + 1) % site().boundary.size()]));
    const PlanPoint extent = extentOf(site().boundary);
    m_sketch.dimension({box.left(), box.top() - 18}, {box.right(), box.top() - 18}, lengthWords(extent.x, system, 0));
    m_sketch.dimension({box.left() - 18, box.bottom()}, {box.left() - 18, box.top()}, lengthWords(extent.y, system, 0));
}

void SitePainter::paintBuildings()
{
    const Colours& c = m_colours;
    for (const Building& b : site().buildings) {
        const QPainterPath area = path(b.outline);
        const QRectF box = area.boundingRect();
        const bool marked = chosen(SiteThing::Kind::Building, b.id);
        m_sketch.painter().setPen(QPen(marked ? c.petal : c.inkFaint, marked ? 2.5 : 1.2));
        m_sketch.painter().setBrush(c.fill);
        m_sketch.painter().drawPath(area);
        m_sketch.line({box.left(), box.center().y()}, {box.right(), box.center().y()}, c.inkFaint);
        m_sketch.label({box.center().x(), box.top() + 0.25 * box.height()}, QString::fromStdString(b.name), Qt::AlignCenter,
                       {c.inkSoft, 12});
    }
}

/// The feed line on the ground, from the shown antenna's feed along its corners to the entry.
void SitePainter::paintCoax()
{
    if (site().coaxRoute.empty())
        return;
    QPolygonF line;
    if (const shapes::BuiltAntenna* built = soundAntenna(m_context, m_context.document.current()))
        line << m_camera.project(built->feedPoint);
    for (PlanPoint p : site().coaxRoute)
        line << m_camera.project(p);
    line << m_camera.project(site().feedEntry);
    const bool marked = chosen(SiteThing::Kind::Coax);
    m_sketch.painter().setBrush(Qt::NoBrush);
    m_sketch.painter().setPen(QPen(marked ? m_colours.petal : m_colours.inkSoft, marked ? 2.5 : 1.4, Qt::DashDotLine));
    m_sketch.painter().drawPolyline(line);
}

namespace {

double widthOf(const FarGround& g)
{
    const double turn = g.toBearing - g.fromBearing;
    return turn >= 360.0 ? 360.0 : turn - 360.0 * std::floor(turn / 360.0);
}

} // namespace

QPointF SitePainter::middle() const
{
    const PlanPoint extent = extentOf(site().boundary), corner = cornerOf(site().boundary);
    return m_camera.project(PlanPoint{corner.x + 0.5 * extent.x, corner.y + 0.5 * extent.y});
}

/// From the middle of the site towards each sector, at its distance.
void SitePainter::paintFarGrounds()
{
    const double reach = m_size.width() + m_size.height();
    const auto square = [&](double half) { return QRectF(middle() - QPointF(half, half), QSizeF(2 * half, 2 * half)); };
    for (const FarGround& g : site().farGrounds) {
        QPainterPath ring; // angles of the painter grow counterclockwise from east
        const double start = 90.0 - g.fromBearing;
        ring.arcMoveTo(square(reach), start);
        ring.arcTo(square(reach), start, -widthOf(g));
        ring.arcTo(square(g.distance * m_camera.scale), start - widthOf(g), widthOf(g));
        ring.closeSubpath();
        m_sketch.painter().fillPath(ring, Theme::withAlpha(m_colours.skyPale, 170));
    }
}

/// Over what is painted on them.
void SitePainter::nameFarGrounds()
{
    for (const FarGround& g : site().farGrounds) {
        const double bearing = radians(g.fromBearing + 0.5 * widthOf(g));
        const QPointF at = middle() + QPointF(std::sin(bearing), -std::cos(bearing)) * (g.distance * m_camera.scale + 16.0);
        m_sketch.label({std::clamp(at.x(), 70.0, std::max(70.0, m_size.width() - 90.0)),
                        std::clamp(at.y(), 16.0, std::max(16.0, m_size.height() - 30.0))},
                       tr("%1 from %2 on").arg(QString::fromStdString(g.name), farWords(g.distance, m_context.system())), Qt::AlignCenter,
                       {m_colours.sky, 12, true, m_colours.paper});
    }
}

/// A ray towards each bearing along which the ground is told, blue from where it is water.
void SitePainter::paintProfiles()
{
    const double reach = m_size.width() + m_size.height();
    for (const GroundProfile& profile : site().profiles) {
        const double bearing = radians(profile.bearing);
        const QPointF out(std::sin(bearing), -std::cos(bearing));
        const auto water = std::find_if(profile.points.begin(), profile.points.end(),
                                        [](const GroundProfile::Point& p) { return p.soil && p.soil->figures.conductivity > 1.0; });
        const double shore = water == profile.points.end() ? reach : std::min(reach, water->distance * m_camera.scale);
        m_sketch.line(middle(), middle() + shore * out, m_colours.hairline, 1.0);
        m_sketch.line(middle() + shore * out, middle() + reach * out, m_colours.sky, 1.2);
    }
}

/// Rings at the corners of the chosen outline.
void SitePainter::paintCorners()
{
    const Design& design = m_context.document.design();
    const Outline* outline = m_marks.handles && isThere(design, m_marks.selected) ? outlineOf(design, m_marks.selected) : nullptr;
    for (std::size_t i = 0; outline && i < outline->size(); ++i)
        m_sketch.handle(m_camera.project((*outline)[i]), int(i) == m_marks.selected.corner);
}

void SitePainter::paintFeedEntry()
{
    const Colours& c = m_colours;
    const QPointF entry = m_camera.project(site().feedEntry);
    constexpr double radius = 4.5;
    m_sketch.painter().setPen(QPen(c.ink, 1.2));
    m_sketch.painter().setBrush(c.petal);
    m_sketch.painter().drawEllipse(entry, radius, radius);
    if (chosen(SiteThing::Kind::FeedEntry))
        m_sketch.handle(entry, true);
    m_sketch.name(entry, radius + 4.0, tr("feed line in"), {c.inkSoft, 11});
}

void SitePainter::paintPowerLine()
{
    if (!site().powerLine)
        return;
    const Colours& c = m_colours;
    const PowerLine& line = *site().powerLine;
    const QPointF a = m_camera.project(line.from), b = m_camera.project(line.to);
    const double length = std::hypot(b.x() - a.x(), b.y() - a.y());
    if (length >= 1.0) {
        const QPointF across = dangerZone * m_camera.scale * QPointF((b.y() - a.y()) / length, (a.x() - b.x()) / length);
        QPainterPath zone;
        zone.addPolygon(QPolygonF({a + across, b + across, b - across, a - across}));
        zone.closeSubpath();
        m_sketch.hatch(zone, QColor(c.brick.red(), c.brick.green(), c.brick.blue(), 90), 9.0);
        m_sketch.line(a, b, c.brick, 2.0);
    }
    for (const auto& [end, kind] : {std::pair(a, SiteThing::Kind::LineFrom), std::pair(b, SiteThing::Kind::LineTo)})
        if (m_marks.handles)
            m_sketch.handle(end, chosen(kind));
    const QString words =
        tr("overhead power line, %1 high: nothing that can fall or swing may reach it").arg(heightWords(line.height, m_context.system()));
    const QSizeF size = m_sketch.theme().typeset(words, 12).size;
    const double x = std::clamp(std::min(a.x(), b.x()) + 30.0, 20.0, std::max(20.0, m_size.width() - size.width() - 20.0));
    const QRectF ground(x - 4, std::clamp(std::max(a.y(), b.y()) + 6, 4.0, m_size.height() - size.height() - 6), size.width() + 8,
                        size.height() + 2);
    m_sketch.painter().fillRect(ground, c.paper);
    m_sketch.text({x, ground.top() + 1}, words, Qt::AlignLeft | Qt::AlignTop, {c.brick, 12});
    for (const Support& s : site().supports)
        if (s.kind == SupportKind::Tower) { // how far the tallest thing is from the line
            const PlanPoint on = nearestOnSegment(s.at, line.from, line.to);
            m_sketch.dimension(m_camera.project(on), m_camera.project(s.at),
                               lengthWords(std::hypot(on.x - s.at.x, on.y - s.at.y), m_context.system(), 1));
        }
}

void SitePainter::paintSupports()
{
    for (const Support& s : site().supports)
        paintSupport(s);
}

void SitePainter::paintSupport(const Support& s)
{
    const Colours& c = m_colours;
    const QPointF at = m_camera.project(s.at);
    const double r = radiusOf(s);
    QPainter& p = m_sketch.painter();
    p.setPen(QPen(c.ink, 1.5));
    p.setBrush(s.kind == SupportKind::Tree ? c.leafPale : c.card);
    if (s.kind == SupportKind::Tower) {
        p.drawRect(QRectF(at.x() - r, at.y() - r, 2 * r, 2 * r));
        p.drawRect(QRectF(at.x() - 4, at.y() - 4, 8, 8));
    } else {
        p.drawEllipse(at, r, r);
        p.setBrush(c.ink);
        p.drawEllipse(at, 1.8, 1.8);
    }
    if (chosen(SiteThing::Kind::Support, s.id))
        m_sketch.handle(at, true);
    m_sketch.name(at, r + 4.0, tr("%1 %2").arg(QString::fromStdString(s.name), heightWords(s.height, m_context.system())),
                  {c.ink, 12, true});
}

/// Those that can be built, the shown one last.
std::vector<const Antenna*> SitePainter::antennas() const
{
    std::vector<const Antenna*> all;
    for (const Antenna& a : m_context.document.design().antennas)
        if (soundAntenna(m_context, a.id))
            all.push_back(&a);
    std::stable_partition(all.begin(), all.end(), [&](const Antenna* a) { return a->id != m_context.document.current(); });
    return all;
}

void SitePainter::paintAntennas()
{
    for (const Antenna* a : antennas())
        paintWires(*soundAntenna(m_context, a->id), a->id == m_context.document.current());
}

/// That of the shown one is placed first.
void SitePainter::nameAntennas()
{
    const std::vector<const Antenna*> all = antennas();
    for (auto a = all.rbegin(); a != all.rend(); ++a)
        paintName(**a, *soundAntenna(m_context, (*a)->id), (*a)->id == m_context.document.current());
}

void SitePainter::paintWires(const shapes::BuiltAntenna& built, bool current)
{
    const QColor ink = current ? m_colours.leaf : m_colours.leafMid;
    paintRopes(built, ink);
    for (const Wire& w : built.model.wires)
        for (std::size_t k = 1; k < w.points.size(); ++k)
            m_sketch.line(m_camera.project(w.points[k - 1]), m_camera.project(w.points[k]), ink, current ? 3.0 : 2.0);
}

/// Below the middle of the longest wire; below a star of radials.
void SitePainter::paintName(const Antenna& antenna, const shapes::BuiltAntenna& built, bool current)
{
    constexpr std::size_t star = 3; // more wires than that
    QPointF anchor;
    double longest = -1.0;
    QPolygonF all;
    for (const Wire& w : built.model.wires)
        for (std::size_t k = 0; k < w.points.size(); ++k) {
            const QPointF p = m_camera.project(w.points[k]), before = k > 0 ? all.back() : p;
            all << p;
            if (const double length = std::hypot(p.x() - before.x(), p.y() - before.y()); length > longest)
                longest = length, anchor = 0.5 * (p + before);
        }
    if (built.model.wires.size() > star)
        anchor = {all.boundingRect().center().x(), all.boundingRect().bottom()};
    m_sketch.label(
        anchor + QPointF(0, 8), QString::fromStdString(antenna.name), Qt::AlignHCenter | Qt::AlignTop,
        {current ? m_colours.leaf : m_colours.inkSoft, 12, current, inWater({anchor.x(), anchor.y() + 14}) ? m_colours.skyPale : QColor()});
}

/// From each end that a support holds.
void SitePainter::paintRopes(const shapes::BuiltAntenna& built, const QColor& colour)
{
    for (const Rope& rope : ropesOf(site(), built.model))
        m_sketch.line(m_camera.project(rope.from), m_camera.project(rope.support->at), colour, 1.2, Qt::DashLine);
}

/// Rings of the shown antenna, with how far each end is over ground; the one that is dragged says more.
void SitePainter::paintHandles()
{
    const shapes::BuiltAntenna* built = soundAntenna(m_context, m_context.document.current());
    if (!built || !m_marks.handles)
        return;
    for (std::size_t i = 0; i < built->handles.size(); ++i)
        m_sketch.handle(m_camera.project(built->handles[i].at), int(i) == m_marks.hot || int(i) == m_marks.dragged);
    const int told = m_marks.dragged >= 0 ? m_marks.dragged : m_marks.hot;
    if (told < 0 || told >= int(built->handles.size()))
        return;
    const shapes::Handle& h = built->handles[std::size_t(told)];
    const double out = std::hypot(h.at.x - built->feedPoint.x, h.at.y - built->feedPoint.y);
    QStringList words{coreWords(h.name), tr("%1 high").arg(lengthWords(h.at.z, m_context.system()))};
    if (out > 0.01)
        words << tr("%1 from the feed, over ground").arg(lengthWords(out, m_context.system()));
    m_sketch.card(m_camera.project(h.at) + QPointF(16, -52), words, QRectF({0, 0}, m_size));
}

bool SitePainter::inWater(QPointF p) const
{
    return std::any_of(site().waters.begin(), site().waters.end(),
                       [&](const Water& w) { return inside(w.outline, m_camera.unproject(p)); });
}

void SitePainter::paintFrame()
{
    const Colours& c = m_colours;
    const QPointF north(7, 46);
    m_sketch.line(north, north + QPointF(0, -26), c.ink, 1.4);
    m_sketch.arrowHead(north + QPointF(0, -26), north, c.ink);
    m_sketch.text(north + QPointF(0, -29), tr("N"), Qt::AlignHCenter | Qt::AlignBottom, {c.ink, 12, true});
    const bool metric = m_context.system() == units::System::Metric;
    const double unit = metric ? 1.0 : 0.3048;
    constexpr double longEnough = 50.0; // px
    double steps = metric ? 5.0 : 20.0;
    while (steps * unit * m_camera.scale < longEnough)
        steps *= 2.0;
    const QPointF scale(10, m_size.height() - 12);
    const double length = steps * unit * m_camera.scale;
    m_sketch.line(scale, scale + QPointF(length, 0), c.ink, 2.0);
    m_sketch.text(scale + QPointF(length + 6, 0), (metric ? tr("%1 m") : tr("%1 ft")).arg(steps, 0, 'f', 0),
                  Qt::AlignLeft | Qt::AlignVCenter, {c.ink, 12});
}

} // namespace vetchling::app
