#include "app/plots/scene/scene_painter.h"

#include "app/plots/scene/solids.h"
#include "app/view/axis.h"
#include "app/view/words.h"
#include "core/shapes/hang.h"

#include <QLineF>

#include <algorithm>
#include <array>
#include <cmath>
#include <map>

namespace vetchling::app {
namespace {

constexpr double groundBand = 28.0;  // px of soil shown below the surface
constexpr double ribbonWidth = 34.0; // px of the strongest current
constexpr QPointF hintAt{4.0, 2.0};
constexpr int hintPixels = 11;

} // namespace

ScenePainter::ScenePainter(Sketch& sketch, const Camera& camera, const QSizeF& size, const SceneContent& content)
    : m_sketch(sketch), m_camera(camera), m_size(size), m_content(content), m_colours(sketch.colours())
{
}

void ScenePainter::paint()
{
    m_sketch.keepWithin(QRectF({2, 2}, m_size - QSizeF(4, 4)));
    reserveHandles();
    reserveThings();
    if (m_content.view == SceneView::Side)
        paintGround();
    else
        paintPlanGround();
    paintBuildings();
    paintRibbon();
    const std::vector<Sketch::Dimension> dimensions = planDimensions();
    paintSupports();
    paintRopes();
    if (m_content.pinned)
        paintPinned();
    QPen wire(m_colours.leaf, 2.5);
    wire.setCapStyle(Qt::RoundCap);
    if (m_content.view == SceneView::Turn)
        paintSolids(m_sketch, m_camera, m_content.site, supportsInSight(m_content.site, built(), m_content.view), built().model);
    else
        paintWires(built().model, wire);
    if (m_content.view == SceneView::Side)
        paintDugIn(built().model);
    paintFittings();
    for (const Sketch::Dimension& d : dimensions)
        m_sketch.draw(d);
    paintRangeNotes();
    if (m_content.view != SceneView::Side)
        m_sketch.text(hintAt, hint(), Qt::AlignLeft | Qt::AlignTop, {m_colours.inkFaint, hintPixels, false, m_colours.paper});
    paintDragValue();
}

QString ScenePainter::hint() const
{
    return m_content.view == SceneView::Turn ? tr("drag the background to turn, wheel to come closer") : tr("north is up");
}

std::vector<Sketch::Dimension> ScenePainter::planDimensions()
{
    std::vector<Sketch::Dimension> planned;
    if (m_content.view == SceneView::Side) {
        planHeights(planned);
        planGroundDistances(planned);
    }
    planLengths(planned);
    return planned;
}

/// What words keep clear of beside the antenna itself.
void ScenePainter::reserveThings()
{
    constexpr double mark = 11.0; // px
    if (m_content.view == SceneView::Side) {
        const double ground = m_camera.project({0.0, 0.0, 0.0}).y();
        m_sketch.reserveLine({marginLeft, ground}, {m_size.width(), ground});
    } else {
        m_sketch.reserve(QRectF(hintAt, m_sketch.theme().typeset(hint(), hintPixels).size));
        m_sketch.reservePath(outlinePath(m_content.site.boundary));
        for (const Building& b : m_content.site.buildings)
            m_sketch.reservePath(outlinePath(b.outline));
    }
    if (m_content.view != SceneView::Plan)
        for (const Support* s : supportsInSight(m_content.site, built(), m_content.view))
            m_sketch.reserveLine(m_camera.project({s->at.x, s->at.y, 0.0}), m_camera.project({s->at.x, s->at.y, s->height}));
    for (const auto& [from, to, support] : ropesOf(m_content.site, built().model))
        m_sketch.reserveLine(m_camera.project(from), m_camera.project(to));
    for (const RangeNote& note : m_content.model.notes) {
        const QPointF at = noteAt(note);
        m_sketch.reserve({at.x() - mark, at.y() - mark, 2 * mark, 2 * mark});
    }
}

QPointF ScenePainter::noteAt(const RangeNote& note) const { return m_camera.project(note.at) + QPointF(26.0, -6.0); }

QPainterPath ScenePainter::outlinePath(const Outline& outline) const
{
    QPolygonF polygon;
    for (PlanPoint p : outline)
        polygon << m_camera.project({p.x, p.y, 0.0});
    QPainterPath path;
    path.addPolygon(polygon);
    path.closeSubpath();
    return path;
}

void ScenePainter::paintGround()
{
    const Colours& c = m_colours;
    const double ground = m_camera.project({m_camera.target.x, m_camera.target.y, 0.0}).y();
    const double left = marginLeft, right = m_size.width() - 8.0;
    const bool metric = this->metric();
    const double unitLength = metric ? 1.0 : 0.3048;
    const double topMetres = (ground - marginTop) / m_camera.scale / unitLength;
    const double step = niceStep(topMetres, 8);
    m_sketch.text({4.0, 2.0}, metric ? tr("m above ground") : tr("ft above ground"), Qt::AlignLeft | Qt::AlignTop, {c.inkFaint, 11});
    for (double h = 0.0; h <= topMetres; h += step) {
        const double y = ground - h * unitLength * m_camera.scale;
        if (h > 0.0)
            m_sketch.line({left, y}, {right, y}, c.fill);
        m_sketch.text({left - 8, y}, QString::number(h), Qt::AlignRight | Qt::AlignVCenter, {c.inkFaint, 12});
    }
    const double band = groundBand + std::max(0.0, -built().model.lowestPoint()) * m_camera.scale;
    m_sketch.painter().fillRect(QRectF(left, ground, right - left, band), c.fill);
    for (int row = 0; row < 3; ++row) // grains, as squares: dashes with round caps took half of a repaint
        for (double x = left + 7 * row; x < right; x += 7.4 + 2.1 * row)
            m_sketch.painter().fillRect(QRectF(x, ground + 6.3 + 7 * row, 1.5, 1.5), c.inkFaint);
    m_sketch.line({left, ground}, {right, ground}, c.inkSoft, 1.5);
    const Soil& s = m_content.model.soil;
    m_sketch.text({left, ground + band + 6},
                  tr("%1, ε %2, %3 S/m")
                      .arg(s.name.empty() ? tr("own soil") : QString::fromStdString(s.name))
                      .arg(s.relativePermittivity)
                      .arg(s.conductivity),
                  Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 12});
    m_sketch.text({right, ground + band + 6},
                  tr("looking %1°; lines %2 %3 apart")
                      .arg(m_camera.bearing(), 3, 'f', 0, QLatin1Char('0'))
                      .arg(step)
                      .arg(metric ? tr("m") : tr("ft")),
                  Qt::AlignRight | Qt::AlignTop, {c.inkFaint, 11});
}

void ScenePainter::paintPlanGround()
{
    const Colours& c = m_colours;
    const Site& site = m_content.site;
    for (const Water& w : site.waters)
        m_sketch.painter().fillPath(outlinePath(w.outline), c.skyPale);
    if (site.boundary.size() >= 3) {
        m_sketch.painter().fillPath(outlinePath(site.boundary), c.panel);
        m_sketch.painter().setBrush(Qt::NoBrush);
        m_sketch.painter().setPen(QPen(c.inkFaint, 1.5));
        m_sketch.painter().drawPath(outlinePath(site.boundary));
    }
    for (const Building& b : site.buildings) {
        m_sketch.painter().setPen(QPen(c.inkFaint, 1.0));
        m_sketch.painter().setBrush(c.fill);
        m_sketch.painter().drawPath(outlinePath(b.outline));
    }
    if (site.powerLine)
        paintPowerLine(*site.powerLine);
    if (m_content.view == SceneView::Turn) { // shadows on the ground show where a wire is
        for (const Wire& w : built().model.wires)
            for (std::size_t i = 1; i < w.points.size(); ++i)
                m_sketch.line(m_camera.project({w.points[i - 1].x, w.points[i - 1].y, 0}),
                              m_camera.project({w.points[i].x, w.points[i].y, 0}), c.hairline, 2.0);
    }
}

/// With the zone that nothing of this antenna may come into: as wide as its highest wire is high, and two metres.
void ScenePainter::paintPowerLine(const PowerLine& line)
{
    constexpr double margin = 2.0; // m
    double highest = 0.0;
    for (const Wire& w : built().model.wires)
        for (Vec3 p : w.points)
            highest = std::max(highest, p.z);
    const double x = line.to.x - line.from.x, y = line.to.y - line.from.y, length = std::hypot(x, y), wide = highest + margin;
    if (!(length > 0.0))
        return;
    const double ax = wide * y / length, ay = -wide * x / length; // across it
    QPainterPath zone;
    zone.moveTo(m_camera.project({line.from.x + ax, line.from.y + ay, 0}));
    for (const PlanPoint p : {PlanPoint{line.to.x + ax, line.to.y + ay}, PlanPoint{line.to.x - ax, line.to.y - ay},
                              PlanPoint{line.from.x - ax, line.from.y - ay}})
        zone.lineTo(m_camera.project({p.x, p.y, 0}));
    zone.closeSubpath();
    m_sketch.hatch(zone, Theme::withAlpha(m_colours.brick, 90));
    const QPointF a = m_camera.project({line.from.x, line.from.y, 0}), b = m_camera.project({line.to.x, line.to.y, 0});
    m_sketch.line(a, b, m_colours.brick, 2.0);
    m_sketch.label(0.5 * (a + b), tr("power line: nothing within %1").arg(lengthWords(wide, m_content.system, 1)),
                   Qt::AlignHCenter | Qt::AlignTop, {m_colours.brick, 12, false, m_colours.paper});
}

void ScenePainter::paintBuildings()
{
    const Colours& c = m_colours;
    const Site& site = m_content.site;
    if (m_content.view == SceneView::Side)
        for (const Building& b : site.buildings) {
            double u0 = HUGE_VAL, u1 = -HUGE_VAL;
            for (PlanPoint p : b.outline) {
                const double u = m_camera.project({p.x, p.y, 0.0}).x();
                u0 = std::min(u0, u), u1 = std::max(u1, u);
            }
            const double ground = m_camera.project({0, 0, 0}).y(), eaves = ground - m_camera.scale * b.eaves,
                         ridge = ground - m_camera.scale * b.ridge;
            if (u1 < marginLeft + 20.0 || u0 > m_size.width() - 28.0)
                continue;
            m_sketch.painter().save();
            m_sketch.painter().setClipRect(QRectF(marginLeft, 0, m_size.width() - marginLeft - 8.0, ground));
            QPolygonF house;
            house << QPointF(u0, ground) << QPointF(u0, eaves) << QPointF(0.5 * (u0 + u1), ridge) << QPointF(u1, eaves)
                  << QPointF(u1, ground);
            m_sketch.painter().setPen(QPen(c.hairline, 1.0));
            m_sketch.painter().setBrush(c.panel);
            m_sketch.painter().drawPolygon(house);
            m_sketch.painter().restore();
            m_sketch.label({std::clamp(0.5 * (u0 + u1), marginLeft + 24, m_size.width() - 40.0), ground - 32},
                           QString::fromStdString(b.name), Qt::AlignHCenter | Qt::AlignVCenter, {c.inkFaint, 11});
        }
}

void ScenePainter::paintSupports()
{
    for (const Support* s : supportsInSight(m_content.site, built(), m_content.view))
        paintSupport(*s);
}

/// What names keep clear of, whichever is painted first.
void ScenePainter::reserveHandles()
{
    constexpr double ring = 11.0; // px
    for (const shapes::Handle& h : built().handles) {
        const QPointF at = m_camera.project(h.at);
        m_sketch.reserve({at.x() - ring, at.y() - ring, 2 * ring, 2 * ring});
    }
    for (const Wire& w : built().model.wires)
        for (std::size_t i = 1; i < w.points.size(); ++i)
            m_sketch.reserveLine(m_camera.project(w.points[i - 1]), m_camera.project(w.points[i]));
}

void ScenePainter::paintRopes()
{
    for (const Rope& rope : ropesOf(m_content.site, built().model))
        m_sketch.line(m_camera.project(rope.from), m_camera.project(rope.to), m_colours.leafMid, 1.2, Qt::DashLine);
}

void ScenePainter::paintSupport(const Support& s)
{
    const Colours& c = m_colours;
    const QPointF foot = m_camera.project({s.at.x, s.at.y, 0.0}), top = m_camera.project({s.at.x, s.at.y, s.height});
    if (foot.x() < marginLeft + 4 || foot.x() > m_size.width() - 12.0 || foot.y() < 0 || foot.y() > m_size.height())
        return;
    const QString name = tr("%1 %2").arg(QString::fromStdString(s.name), heightWords(s.height, m_content.system));
    if (m_content.view == SceneView::Plan) {
        m_sketch.painter().setPen(QPen(c.ink, 1.3));
        m_sketch.painter().setBrush(c.card);
        m_sketch.painter().drawEllipse(foot, 5, 5);
        m_sketch.name(foot, 9.0, name, {c.inkSoft, 11});
        return;
    }
    if (m_content.view == SceneView::Turn) { // it stands among the solids
        m_sketch.name(top, 8.0, name, {c.inkSoft, 11}, false);
        return;
    }
    const double half = s.kind == SupportKind::Tower ? 6.0 : 2.0;
    m_sketch.painter().setPen(QPen(c.inkFaint, 1.0));
    m_sketch.painter().setBrush(s.kind == SupportKind::Tower ? QBrush(c.panel) : QBrush(c.fill));
    m_sketch.painter().drawRect(QRectF(QPointF(top.x() - half, top.y()), QPointF(foot.x() + half, foot.y())));
    if (s.kind == SupportKind::Tower) // coursed stone
        for (double y = foot.y() - 9; y > top.y(); y -= 9)
            m_sketch.line({foot.x() - half, y}, {foot.x() + half, y}, c.hairline);
    if (s.kind == SupportKind::Tree) {
        const double crown = 0.3 * (foot.y() - top.y());
        m_sketch.painter().setPen(QPen(c.leafMid, 1.0));
        m_sketch.painter().setBrush(Qt::NoBrush);
        m_sketch.painter().drawEllipse(QPointF(top.x(), top.y() + crown), 0.7 * crown, crown);
    }
    m_sketch.name(top,
                  std::any_of(built().handles.begin(), built().handles.end(),
                              [&](const shapes::Handle& h) { return QLineF(m_camera.project(h.at), top).length() < 14.0; })
                      ? 14.0
                      : 5.0,
                  name, {c.inkSoft, 11});
}

void ScenePainter::paintRibbon()
{
    constexpr int pieces = study::ribbonPieces;
    const study::Detail* detail = m_content.detail.get();
    const study::Spot* spot = detail ? detail->spot() : nullptr;
    if (!spot || spot->solution.model->wires.size() != built().model.wires.size())
        return;
    const std::vector<std::vector<double>>& ribbon = m_content.voltage ? detail->voltage : detail->ribbon;
    const QColor colour = m_content.voltage ? m_colours.skyPale : m_colours.leafPale;
    m_sketch.painter().setPen(QPen(colour, 0.8)); // closes the seams between elements
    m_sketch.painter().setBrush(colour);
    for (std::size_t e = 0; e < ribbon.size(); ++e) {
        const em::Element& el = spot->solution.mesh->elements[e];
        const Wire& now = built().model.wires[el.wire]; // drawn along the present wire, which may be a drag ahead
        const double stretch = now.length() / spot->solution.model->wires[el.wire].length();
        const QPointF a = placeOf(now.pointAt(el.from * stretch)), b = placeOf(now.pointAt(el.to * stretch));
        const double length = std::hypot(b.x() - a.x(), b.y() - a.y());
        if (length < 1e-3)
            continue;
        const QPointF across((a.y() - b.y()) / length, (b.x() - a.x()) / length);
        std::array<QPointF, 2 * (pieces + 1)> edge; // there on one side, back on the other
        for (int i = 0; i <= pieces; ++i) {
            const QPointF middle = a + (b - a) * (double(i) / pieces);
            const QPointF half = 0.5 * ribbonWidth * ribbon[e][std::size_t(i)] * across;
            edge[std::size_t(i)] = middle + half;
            edge[edge.size() - 1 - std::size_t(i)] = middle - half;
        }
        m_sketch.painter().drawPolygon(edge.data(), int(edge.size()));
    }
    const double volts = detail->strongestVoltsAtOneWatt * std::sqrt(m_content.power);
    if (m_content.voltage)
        m_sketch.text({m_size.width() - 8.0, 2.0},
                      (volts < 1000.0 ? tr("voltage, widest: some %1 V peak at %2 W").arg(10.0 * std::round(volts / 10.0))
                                      : tr("voltage, widest: some %1 kV peak at %2 W").arg(volts / 1000.0, 0, 'f', 1))
                          .arg(m_content.power),
                      Qt::AlignRight | Qt::AlignTop, {m_colours.sky, 11});
}

void ScenePainter::paintWires(const WireModel& model, const QPen& pen)
{
    m_sketch.painter().setPen(pen);
    for (const Wire& w : model.wires)
        for (std::size_t i = 1; i < w.points.size(); ++i)
            m_sketch.painter().drawLine(placeOf(w.points[i - 1]), placeOf(w.points[i]));
}

QPointF ScenePainter::placeOf(Vec3 p) const { return m_camera.shown(p, m_content.view); }

/// Hatches under level wires in the soil, and their depth: the line itself shows it to scale only where it is deep.
void ScenePainter::paintDugIn(const WireModel& model)
{
    constexpr double apart = 9.0, slant = 4.0;     // px
    std::map<int, std::pair<double, double>> rows; // px, many radials lie in one
    double deepest = 0.0;
    for (const Wire& w : model.wires)
        for (std::size_t i = 1; i < w.points.size(); ++i) {
            const Vec3 a = w.points[i - 1], b = w.points[i];
            if (std::max(a.z, b.z) > -jointTolerance)
                continue;
            const QPointF from = placeOf(a), to = placeOf(b);
            auto& [low, high] = rows.try_emplace(int(std::lround(0.5 * (from.y() + to.y()))), HUGE_VAL, -HUGE_VAL).first->second;
            low = std::min({low, from.x(), to.x()}), high = std::max({high, from.x(), to.x()});
            if (a.z == b.z)
                deepest = std::max(deepest, -a.z);
        }
    for (const auto& [y, span] : rows)
        for (double x = span.first; x < span.second; x += apart)
            m_sketch.line({x, y + 2.0}, {x - slant, y + 2.0 + slant}, m_colours.leafMid);
    if (deepest > 0.0 && !rows.empty())
        m_sketch.label({rows.begin()->second.first, m_camera.project({0.0, 0.0, 0.0}).y() - 4.0},
                       tr("%1 deep").arg(lengthWords(deepest, m_content.system)), Qt::AlignLeft | Qt::AlignBottom, {m_colours.inkSoft, 11});
}

/// Thin and dashed, under its name.
void ScenePainter::paintPinned()
{
    QPen pen(m_colours.inkSoft, 1.0);
    pen.setDashPattern({4, 3});
    pen.setCapStyle(Qt::RoundCap);
    const WireModel& model = m_content.pinned->built->model;
    paintWires(model, pen);
    if (model.wires.empty() || m_content.pinnedName.isEmpty())
        return;
    const Wire& first = model.wires.front();
    constexpr double outward = 0.75; // of the wire, away from the middle where dimensions stand
    m_sketch.label(m_camera.project(first.pointAt(outward * first.length())) + QPointF(0, 6), tr("pinned: %1").arg(m_content.pinnedName),
                   Qt::AlignHCenter | Qt::AlignTop, {m_colours.inkSoft, 11});
}

/// Of a coil that has a length in the model; 0 of one in a point.
double ScenePainter::lengthOnScreen(const shapes::CoilPlace& coil) const
{
    constexpr double there = 1e-6; // m
    const WireModel& model = built().model;
    for (const Load& load : model.loads) {
        const Wire& wire = model.wires[load.wire];
        if (!load.size.inPoint() && distance(wire.pointAt(load.at), coil.at) < there) {
            const QPointF along = m_camera.project(wire.pointAt(load.to())) - m_camera.project(wire.pointAt(load.from()));
            return std::hypot(along.x(), along.y());
        }
    }
    return 0.0;
}

void ScenePainter::paintFittings()
{
    const shapes::BuiltAntenna& antenna = built();
    for (Vec3 p : antenna.insulators)
        m_sketch.insulator(m_camera.project(p), 0.0);
    const auto angle = [&](Vec3 at, Vec3 along) {
        const QPointF on = m_camera.project(at + along) - m_camera.project(at);
        return degrees(std::atan2(on.y(), on.x()));
    };
    for (const shapes::CoilPlace& c : antenna.coils)
        m_sketch.coil(m_camera.project(c.at), angle(c.at, c.along), lengthOnScreen(c));
    for (const shapes::CoilPlace& c : antenna.traps)
        m_sketch.trap(m_camera.project(c.at), angle(c.at, c.along));
    for (const shapes::CoilPlace& c : antenna.resistors)
        m_sketch.resistor(m_camera.project(c.at), angle(c.at, c.along));
    for (const shapes::LinkPlace& l : antenna.links)
        m_sketch.link(m_camera.project(l.at), angle(l.at, l.along), l.open);
    for (std::size_t i = 0; m_content.handles && i < antenna.handles.size(); ++i)
        m_sketch.handle(placeOf(antenna.handles[i].at), int(i) == m_content.hot || int(i) == m_content.dragged);
    m_sketch.feed(m_camera.project(antenna.feedPoint));
}

/// A mark at each place where the model leaves the range in which it is right to a percent; the page says the words.
void ScenePainter::paintRangeNotes()
{
    const Colours& c = m_colours;
    for (const RangeNote& note : m_content.model.notes) {
        const QPointF at = noteAt(note);
        m_sketch.painter().setPen(QPen(c.brick, 1.6));
        m_sketch.painter().setBrush(c.panel);
        m_sketch.painter().drawEllipse(at, 9.0, 9.0);
        m_sketch.text(at, QStringLiteral("!"), Qt::AlignCenter, {c.brick, 13, true});
    }
}

/// Beside the wires they measure: below a single one, else outside the bend, where they do not cross.
void ScenePainter::planLengths(std::vector<Sketch::Dimension>& planned)
{
    constexpr double foreshortened = 0.6; // of its length: the line would tell another one than its words
    const auto system = m_content.system;
    const auto& dimensions = built().dimensions;
    QPointF middle;
    for (const shapes::Dimension& d : dimensions)
        middle += 0.5 * (m_camera.project(d.from) + m_camera.project(d.to)) / double(dimensions.size());
    for (const shapes::Dimension& d : dimensions) {
        const QPointF a = m_camera.project(d.from), b = m_camera.project(d.to);
        const double length = std::hypot(b.x() - a.x(), b.y() - a.y());
        if (length < 30.0 || (m_content.view == SceneView::Plan && length < foreshortened * distance(d.from, d.to) * m_camera.scale))
            continue;
        QPointF across((b.y() - a.y()) / length, (a.x() - b.x()) / length);
        const QPointF outward = 0.5 * (a + b) - middle;
        if (dimensions.size() == 1 ? across.y() < 0.0 : QPointF::dotProduct(across, outward) < 0.0)
            across = -across;
        const QPointF aside = (dimensions.size() == 3 ? 24.0 : 28.0) * across;
        planned.push_back(m_sketch.plan(a + aside, b + aside, lengthWords(distance(d.from, d.to), system)));
    }
}

void ScenePainter::planHeights(std::vector<Sketch::Dimension>& planned)
{
    const Colours& c = m_colours;
    const auto system = m_content.system;
    const auto& handles = built().handles;
    std::vector<Vec3> points; // of each height the one farthest out, so that no line crosses a wire
    for (const shapes::Handle& h : handles) {
        const auto same = std::find_if(points.begin(), points.end(), [&](Vec3 p) { return std::abs(p.z - h.at.z) < 0.05; });
        if (same == points.end())
            points.push_back(h.at);
        else if (m_camera.project(h.at).x() > m_camera.project(*same).x())
            *same = h.at;
    }
    std::sort(points.begin(), points.end(), [](Vec3 a, Vec3 b) { return a.z < b.z; });
    double x = m_size.width() - marginRight + 8.0;
    const double ground = m_camera.project({0, 0, 0}).y();
    for (Vec3 p : points) {
        const QPointF at = m_camera.project(p);
        const QString words = lengthWords(p.z, system);
        if (ground - at.y() < m_sketch.theme().typeset(words, 12).size.width() + 14.0 || x > m_size.width() - 12.0)
            continue;
        m_sketch.line({at.x() + 14, at.y()}, {x + 6, at.y()}, c.hairline);
        planned.push_back(m_sketch.plan({x, ground}, {x, at.y()}, words));
        x += 24.0;
    }
}

/// How far the ends are from the feed, measured on the ground, where a tape lies.
void ScenePainter::planGroundDistances(std::vector<Sketch::Dimension>& planned)
{
    constexpr double lowest = 1.0, nearest = 0.5, above = 13.0, apart = 15.0; // m, m, px, px
    const double ground = m_camera.project({0, 0, 0}).y();
    int rows[2] = {0, 0}; // of the ends to the left and to the right, one above the other
    const QPointF feed = m_camera.project(built().feedPoint);
    for (const shapes::Handle& h : built().handles) {
        const double out = std::hypot(h.at.x - built().feedPoint.x, h.at.y - built().feedPoint.y);
        const QPointF at = m_camera.project(h.at);
        const bool isEnd =
            std::any_of(built().insulators.begin(), built().insulators.end(), [&](Vec3 p) { return distance(p, h.at) < 0.01; });
        const bool level = std::abs(std::abs(at.x() - feed.x()) - out * m_camera.scale) < 2.0; // else the line would show another length
        if (!isEnd || !level || out < nearest || h.at.z < lowest || ground - at.y() < 3.0 * above)
            continue;
        m_sketch.line(at + QPointF(0, 12), {at.x(), ground}, m_colours.hairline, 1.0, Qt::DashLine);
        const double y = ground - above - apart * rows[at.x() > feed.x()]++;
        planned.push_back(m_sketch.plan({feed.x(), y}, {at.x(), y}, lengthWords(out, m_content.system)));
    }
}

void ScenePainter::paintDragValue()
{
    if (m_content.dragged < 0 || m_content.dragged >= int(built().handles.size()))
        return;
    const shapes::Handle& handle = built().handles[std::size_t(m_content.dragged)];
    const shapes::AntennaShape& shape = m_content.model.shape;
    const shapes::Family& family = shapes::familyOf(shape);
    QStringList words;
    for (const std::string& key : handle.parameters)
        if (const shapes::ParameterSpec* spec = family.spec(shape, key))
            words << QStringLiteral("%1 %2").arg(coreWords(spec->label).toLower(),
                                                 valueWords(family.value(shape, key), spec->quantity, m_content.system));
    m_sketch.card(m_camera.project(handle.at) + QPointF(18, -40), words, QRectF({0, 0}, m_size));
}

} // namespace vetchling::app
