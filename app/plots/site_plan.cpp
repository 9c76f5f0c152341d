#include "app/plots/site_plan.h"

#include "app/view/sketch.h"
#include "app/view/words.h"

#include <QMouseEvent>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr double margin = 46.0;
constexpr double dangerZone = 3.0; // m either side of a power line that nothing may enter

double planDistance(QPointF p, QPointF a, QPointF b) { return distanceToSegment({p.x(), p.y()}, {a.x(), a.y()}, {b.x(), b.y()}); }

} // namespace

SitePlan::SitePlan(ViewContext& context) : Canvas(context)
{
    setObjectName(QStringLiteral("sitePlan"));
    setAccessibleName(tr("Plan of the site"));
    connect(&context.document, &Document::designChanged, this, qOverload<>(&QWidget::update));
    connect(&context.document, &Document::currentChanged, this, qOverload<>(&QWidget::update));
}

void SitePlan::selectSupport(const Id& support)
{
    m_support = support;
    update();
    emit supportSelected();
}

const std::vector<Wire>& SitePlan::wiresOf(const Id& antenna) const
{
    static const std::vector<Wire> none;
    const AntennaModel* model = m_context.models.find(antenna);
    return model && model->built && !model->fault ? model->built->model.wires : none;
}

void SitePlan::aim(const QSizeF& size)
{
    if (m_frozen)
        return;
    double x0 = HUGE_VAL, x1 = -HUGE_VAL, y0 = HUGE_VAL, y1 = -HUGE_VAL;
    const auto include = [&](double x, double y) {
        x0 = std::min(x0, x), x1 = std::max(x1, x), y0 = std::min(y0, y), y1 = std::max(y1, y);
    };
    for (PlanPoint p : site().boundary)
        include(p.x, p.y);
    for (const Support& s : site().supports)
        include(s.at.x, s.at.y);
    for (const Antenna& a : m_context.document.design().antennas)
        for (const Wire& w : wiresOf(a.id))
            for (Vec3 p : w.points)
                include(p.x, p.y);
    if (site().powerLine) {
        include(x0, site().powerLine->from.y);
        include(x1, site().powerLine->to.y);
    }
    if (x0 > x1)
        x0 = y0 = 0.0, x1 = y1 = 20.0;
    m_scale = std::min((size.width() - 2 * margin) / std::max(x1 - x0, 4.0), (size.height() - 2 * margin - 16) / std::max(y1 - y0, 4.0));
    m_origin = QPointF(0.5 * size.width() - m_scale * 0.5 * (x0 + x1), 0.5 * size.height() + m_scale * 0.5 * (y0 + y1));
}

QPainterPath SitePlan::path(const Outline& outline) const
{
    QPolygonF polygon;
    for (PlanPoint p : outline)
        polygon << project(p);
    QPainterPath out;
    out.addPolygon(polygon);
    out.closeSubpath();
    return out;
}

void SitePlan::render(Sketch& sketch, const QSizeF& size)
{
    aim(size);
    sketch.painter().fillRect(QRectF({0, 0}, size), sketch.colours().paper);
    paintWater(sketch);
    paintBoundary(sketch);
    paintPowerLine(sketch);
    paintBuildings(sketch);
    paintSupports(sketch);
    paintAntennas(sketch);
    paintFrame(sketch, size);
}

void SitePlan::paintWater(Sketch& sketch) const
{
    const Colours& c = sketch.colours();
    for (const Water& w : site().waters) {
        const QPainterPath area = path(w.outline);
        sketch.painter().fillPath(area, c.skyPale);
        sketch.painter().save();
        sketch.painter().setClipPath(area);
        const QRectF box = area.boundingRect().intersected(QRectF(0, 0, width(), height()));
        for (int row = 0; box.top() + 40 + 46 * row < box.bottom(); ++row) // tufts of reed
            for (double x = box.left() + 22 + (row % 2) * 30; x < box.right(); x += 62) {
                const QPointF foot(x, box.top() + 46 + 46 * row);
                for (double lean : {-5.0, 0.0, 5.0})
                    sketch.line(foot, foot + QPointF(lean, -11 + std::abs(lean) * 0.5), c.sky);
            }
        sketch.painter().restore();
        sketch.text({box.left() + 8, box.top() + 8}, QString::fromStdString(w.name), Qt::AlignLeft | Qt::AlignTop, {c.sky, 12, true});
    }
}

void SitePlan::paintBoundary(Sketch& sketch) const
{
    if (site().boundary.size() < 3)
        return;
    const Colours& c = sketch.colours();
    const auto system = m_context.document.design().operation.system;
    const QPainterPath area = path(site().boundary);
    const QRectF box = area.boundingRect();
    sketch.painter().save();
    sketch.painter().setClipPath(area);
    sketch.painter().fillPath(area, c.card);
    const double cell = 2.0 * m_scale;
    for (double x = box.left(); x < box.right(); x += cell)
        sketch.line({x, box.top()}, {x, box.bottom()}, c.fill);
    for (double y = box.bottom(); y > box.top(); y -= cell)
        sketch.line({box.left(), y}, {box.right(), y}, c.fill);
    sketch.painter().restore();
    sketch.painter().setPen(QPen(c.inkSoft, site().wallHeight > 0.0 ? 3.0 : 1.5));
    sketch.painter().setBrush(Qt::NoBrush);
    sketch.painter().drawPath(area);
    sketch.reserveLine(box.topLeft(), box.topRight());
    sketch.reserveLine(box.topRight(), box.bottomRight());
    sketch.reserveLine(box.topLeft(), box.bottomLeft());
    const PlanPoint extent = extentOf(site().boundary);
    sketch.dimension({box.left(), box.top() - 18}, {box.right(), box.top() - 18},
                     QString::fromStdString(units::formatLength(extent.x, system, 0)));
    sketch.dimension({box.left() - 18, box.bottom()}, {box.left() - 18, box.top()},
                     QString::fromStdString(units::formatLength(extent.y, system, 0)));
}

void SitePlan::paintBuildings(Sketch& sketch) const
{
    const Colours& c = sketch.colours();
    for (const Building& b : site().buildings) {
        const QPainterPath area = path(b.outline);
        const QRectF box = area.boundingRect();
        sketch.painter().setPen(QPen(c.inkFaint, 1.2));
        sketch.painter().setBrush(c.fill);
        sketch.painter().drawPath(area);
        sketch.line({box.left(), box.center().y()}, {box.right(), box.center().y()}, c.inkFaint);
        sketch.label({box.center().x(), box.top() + 0.25 * box.height()}, QString::fromStdString(b.name), Qt::AlignCenter, {c.inkSoft, 12});
    }
    const QPointF entry = project(site().feedEntry);
    sketch.painter().setPen(QPen(c.ink, 1.2));
    sketch.painter().setBrush(c.petal);
    sketch.painter().drawEllipse(entry, 4.5, 4.5);
    sketch.label(entry + QPointF(9, 8), tr("feed line in"), Qt::AlignLeft | Qt::AlignVCenter, {c.inkSoft, 11});
}

void SitePlan::paintPowerLine(Sketch& sketch) const
{
    if (!site().powerLine)
        return;
    const Colours& c = sketch.colours();
    const PowerLine& line = *site().powerLine;
    const QPointF a = project(line.from), b = project(line.to);
    const double length = std::hypot(b.x() - a.x(), b.y() - a.y());
    if (length < 1.0)
        return;
    const QPointF across = dangerZone * m_scale * QPointF((b.y() - a.y()) / length, (a.x() - b.x()) / length);
    QPainterPath zone;
    zone.addPolygon(QPolygonF({a + across, b + across, b - across, a - across}));
    zone.closeSubpath();
    sketch.hatch(zone, QColor(c.brick.red(), c.brick.green(), c.brick.blue(), 90), 9.0);
    sketch.line(a, b, c.brick, 2.0);
    const double x = std::max(20.0, std::min(a.x(), b.x()) + 30.0);
    const QString words = tr("overhead power line, %1 high: nothing that can fall or swing may reach it")
                              .arg(lengthWords(line.height, m_context.system(), 0));
    const QSizeF size = sketch.theme().typeset(words, 12).size;
    const QRectF ground(x - 4, std::max(a.y(), b.y()) + 6, size.width() + 8, size.height() + 2);
    sketch.painter().fillRect(ground, c.paper);
    sketch.text({x, ground.top() + 1}, words, Qt::AlignLeft | Qt::AlignTop, {c.brick, 12});
    for (const Support& s : site().supports)
        if (s.kind == SupportKind::Tower) { // how far the tallest thing is from the line
            const QPointF foot = project(s.at), on = project(nearestOnSegment(s.at, line.from, line.to));
            sketch.dimension(on, foot,
                             QString::fromStdString(units::formatLength(std::hypot(on.x() - foot.x(), on.y() - foot.y()) / m_scale,
                                                                        m_context.document.design().operation.system, 1)));
        }
}

void SitePlan::paintSupports(Sketch& sketch) const
{
    const Colours& c = sketch.colours();
    for (const Support& s : site().supports) {
        const QPointF at = project(s.at);
        QPainter& p = sketch.painter();
        p.setPen(QPen(c.ink, 1.5));
        p.setBrush(s.kind == SupportKind::Tree ? c.leafPale : c.card);
        if (s.kind == SupportKind::Tower) {
            p.drawRect(QRectF(at.x() - 9, at.y() - 9, 18, 18));
            p.drawRect(QRectF(at.x() - 4, at.y() - 4, 8, 8));
        } else {
            const double r = s.kind == SupportKind::Tree ? 11.0 : 6.0;
            p.drawEllipse(at, r, r);
            p.setBrush(c.ink);
            p.drawEllipse(at, 1.8, 1.8);
        }
        if (s.id == m_support)
            sketch.handle(at, true);
        sketch.reserve({at.x() - 10, at.y() - 10, 20, 20});
        const QString words = tr("%1 %2").arg(QString::fromStdString(s.name), heightWords(s.height, m_context.system()));
        sketch.label(at + QPointF(0, -13), words, Qt::AlignHCenter | Qt::AlignBottom, {c.ink, 12, true});
    }
}

void SitePlan::paintAntennas(Sketch& sketch) const
{
    const Colours& c = sketch.colours();
    const auto& antennas = m_context.document.design().antennas;
    for (const Antenna& antenna : antennas) {
        const std::vector<Wire>& wires = wiresOf(antenna.id);
        if (wires.empty())
            continue;
        const bool current = antenna.id == m_context.document.current();
        QPointF anchor;
        double longest = -1.0;
        QRectF box;
        for (const Wire& w : wires)
            for (std::size_t k = 0; k < w.points.size(); ++k) {
                const QPointF p = project({w.points[k].x, w.points[k].y});
                box = box.isNull() ? QRectF(p, QSizeF(0.1, 0.1)) : box.united(QRectF(p, QSizeF(0.1, 0.1)));
                if (k > 0) {
                    const QPointF before = project({w.points[k - 1].x, w.points[k - 1].y});
                    sketch.line(before, p, current ? c.leaf : c.leafMid, current ? 3.0 : 2.0);
                    sketch.reserveLine(before, p);
                    if (const double length = std::hypot(p.x() - before.x(), p.y() - before.y()); length > longest)
                        longest = length, anchor = 0.5 * (p + before);
                }
            }
        if (wires.size() > 3) // a star of radials: name it below
            anchor = {box.center().x(), box.bottom()};
        sketch.label(anchor + QPointF(0, 8), QString::fromStdString(antenna.name), Qt::AlignHCenter | Qt::AlignTop,
                     {current ? c.leaf : c.inkSoft, 12, current, inWater({anchor.x(), anchor.y() + 14}) ? c.skyPale : QColor()});
    }
}

bool SitePlan::inWater(QPointF p) const
{
    return std::any_of(site().waters.begin(), site().waters.end(), [&](const Water& w) { return inside(w.outline, unproject(p)); });
}

void SitePlan::paintFrame(Sketch& sketch, const QSizeF& size) const
{
    const Colours& c = sketch.colours();
    const QPointF north(7, 46);
    sketch.line(north, north + QPointF(0, -26), c.ink, 1.4);
    sketch.arrowHead(north + QPointF(0, -26), north, c.ink);
    sketch.text(north + QPointF(0, -29), tr("N"), Qt::AlignHCenter | Qt::AlignBottom, {c.ink, 12, true});
    const bool metric = m_context.document.design().operation.system == units::System::Metric;
    const double metres = metric ? 5.0 : 20 * 0.3048;
    const QPointF scale(10, size.height() - 12);
    sketch.line(scale, scale + QPointF(metres * m_scale, 0), c.ink, 2.0);
    sketch.text(scale + QPointF(metres * m_scale + 6, 0), metric ? tr("5 m") : tr("20 ft"), Qt::AlignLeft | Qt::AlignVCenter, {c.ink, 12});
}

Id SitePlan::supportAt(QPointF p) const
{
    for (const Support& s : site().supports) {
        const QPointF d = project(s.at) - p;
        if (std::hypot(d.x(), d.y()) < 13.0)
            return s.id;
    }
    return {};
}

Id SitePlan::antennaAt(QPointF p) const
{
    Id best;
    double nearest = 9.0;
    for (const Antenna& a : m_context.document.design().antennas)
        for (const Wire& w : wiresOf(a.id))
            for (std::size_t k = 1; k < w.points.size(); ++k)
                if (const double d =
                        planDistance(p, project({w.points[k - 1].x, w.points[k - 1].y}), project({w.points[k].x, w.points[k].y}));
                    d < nearest)
                    nearest = d, best = a.id;
    return best;
}

void SitePlan::mousePressEvent(QMouseEvent* event)
{
    m_draggedSupport = supportAt(event->position());
    m_draggedAntenna = m_draggedSupport.empty() ? antennaAt(event->position()) : Id();
    selectSupport(m_draggedSupport);
    if (!m_draggedAntenna.empty())
        m_context.document.setCurrent(m_draggedAntenna);
    m_grab = unproject(event->position());
    m_frozen = !m_draggedSupport.empty() || !m_draggedAntenna.empty();
}

void SitePlan::mouseMoveEvent(QMouseEvent* event)
{
    if (!(event->buttons() & Qt::LeftButton))
        return;
    const PlanPoint now = unproject(event->position());
    const double dx = std::round(10.0 * (now.x - m_grab.x)) / 10.0, dy = std::round(10.0 * (now.y - m_grab.y)) / 10.0;
    if (dx == 0.0 && dy == 0.0)
        return;
    if (!m_draggedSupport.empty())
        m_context.document.edit(tr("move a support"), QStringLiteral("drag support"), [&](Design& d) {
            if (Support* s = findSupport(d, m_draggedSupport))
                s->at = {s->at.x + dx, s->at.y + dy};
        });
    else if (!m_draggedAntenna.empty())
        m_context.document.edit(tr("move the antenna"), QStringLiteral("drag antenna"), [&](Design& d) {
            Antenna* a = findAntenna(d, m_draggedAntenna);
            if (!a)
                return;
            for (const auto& [key, by] : {std::pair("x_m", dx), std::pair("y_m", dy)}) {
                a->shape.parameters[key] += by;
                a->typed.erase(key);
            }
        });
    else
        return;
    m_grab = {m_grab.x + dx, m_grab.y + dy};
}

void SitePlan::mouseReleaseEvent(QMouseEvent*)
{
    m_context.document.endDrag();
    m_frozen = false;
    m_draggedSupport.clear();
    m_draggedAntenna.clear();
    update();
}

} // namespace vetchling::app
