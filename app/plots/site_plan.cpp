#include "app/plots/site_plan.h"

#include "app/view/words.h"
#include "core/shapes/hang.h"

#include <QKeyEvent>
#include <QMouseEvent>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr double margin = 46.0;                                                    // px round what is shown
constexpr double grabThing = 13.0, grabHandle = 10.0, grabWire = 9.0, snap = 14.0; // px
constexpr double tenth = 0.1, handful = 1.0;                                       // m, steps of the keys

double apart(QPointF a, QPointF b) { return std::hypot(a.x() - b.x(), a.y() - b.y()); }
double toSegment(QPointF p, QPointF a, QPointF b) { return distanceToSegment({p.x(), p.y()}, {a.x(), a.y()}, {b.x(), b.y()}); }
double rounded(double metres) { return std::round(10.0 * metres) / 10.0; }

} // namespace

SitePlan::SitePlan(ViewContext& context) : Canvas(context)
{
    setObjectName(QStringLiteral("sitePlan"));
    setAccessibleName(tr("Plan of the site"));
    setAccessibleDescription(tr("Space chooses the next thing, C its next corner, Insert adds a corner, arrows move, F2 renames and Delete "
                                "removes"));
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    connect(&context.document, &Document::designChanged, this, [this] {
        if (m_selected.any() && !isThere(m_context.document.design(), m_selected))
            select({});
        update();
    });
    connect(&context.document, &Document::currentChanged, this, [this] {
        m_hot = m_draggedHandle = -1;
        m_draggedAntenna.clear();
        update();
    });
}

void SitePlan::select(const SiteThing& thing)
{
    m_selected = thing;
    update();
    emit selectionChanged();
}

QPointF SitePlan::handlePlace(std::size_t handle) const
{
    return m_camera.project(soundAntenna(m_context, m_context.document.current())->handles.at(handle).at);
}

void SitePlan::aim(const QSizeF& size)
{
    if (m_frozen)
        return;
    m_camera = aimedAt(m_context, size, margin);
}

void SitePlan::render(Sketch& sketch, const QSizeF& size)
{
    aim(size);
    SitePainter(sketch, m_camera, size, m_context, onScreen() ? PlanMarks{m_selected, m_hot, m_draggedHandle, true} : PlanMarks{}).paint();
    if (drawing() && onScreen()) {
        QPolygonF line;
        for (PlanPoint p : m_drawn)
            line << m_camera.project(p);
        if (!line.isEmpty())
            line << m_pointer;
        sketch.painter().setBrush(Qt::NoBrush);
        sketch.painter().setPen(QPen(sketch.colours().petal, 2.0, Qt::DashLine));
        sketch.painter().drawPolyline(line);
        for (PlanPoint p : m_drawn)
            sketch.handle(m_camera.project(p), false);
    }
}

SiteThing SitePlan::thingAt(QPointF p) const
{
    const Design& design = m_context.document.design();
    if (const Outline* outline = isThere(design, m_selected) ? outlineOf(design, m_selected) : nullptr) // its corners come first
        for (std::size_t i = 0; i < outline->size(); ++i)
            if (apart(m_camera.project((*outline)[i]), p) < grabHandle)
                return {m_selected.kind, m_selected.id, int(i)};
    for (const SiteThing& thing : thingsOf(design))
        if (!outlineOf(design, thing) && apart(m_camera.project(placeOf(design, thing)), p) < grabThing)
            return thing;
    return {};
}

int SitePlan::handleAt(QPointF p) const
{
    const shapes::BuiltAntenna* built = soundAntenna(m_context, m_context.document.current());
    for (std::size_t i = 0; built && i < built->handles.size(); ++i)
        if (apart(m_camera.project(built->handles[i].at), p) < grabHandle)
            return int(i);
    return -1;
}

Id SitePlan::antennaAt(QPointF p) const
{
    Id best;
    double nearest = grabWire;
    for (const Antenna& a : m_context.document.design().antennas)
        if (const shapes::BuiltAntenna* built = soundAntenna(m_context, a.id))
            for (const Wire& w : built->model.wires)
                for (std::size_t k = 1; k < w.points.size(); ++k)
                    if (const double d = toSegment(p, m_camera.project(w.points[k - 1]), m_camera.project(w.points[k])); d < nearest)
                        nearest = d, best = a.id;
    return best;
}

/// A support first, with what is tied to it; then the shown antenna's ends, wires, and areas.
void SitePlan::mousePressEvent(QMouseEvent* event)
{
    const QPointF p = event->position();
    if (drawing()) {
        drawCorner(p, false);
        return;
    }
    m_grab = m_camera.unproject(p);
    m_draggedThing = thingAt(p);
    m_draggedHandle = m_draggedThing.any() ? -1 : handleAt(p);
    m_draggedAntenna = m_draggedThing.any() || m_draggedHandle >= 0 ? Id() : antennaAt(p);
    if (!m_draggedThing.any() && m_draggedHandle < 0 && m_draggedAntenna.empty()) {
        const Site& site = m_context.document.design().site;
        const Design& design = m_context.document.design();
        const bool onEdge = isThere(design, m_selected) && nearestEdge(design, m_selected, m_grab).second * m_camera.scale < grabWire;
        if (onEdge)
            m_draggedThing = m_selected.whole();
        for (const Water& w : site.waters)
            if (!onEdge && inside(w.outline, m_grab))
                m_draggedThing = {SiteThing::Kind::Water, w.id};
        for (const Building& b : site.buildings)
            if (!onEdge && inside(b.outline, m_grab))
                m_draggedThing = {SiteThing::Kind::Building, b.id};
        for (SiteThing::Kind kind : {SiteThing::Kind::Boundary, SiteThing::Kind::Coax}) // by their lines, not by what they hold
            if (!onEdge && nearestEdge(design, {kind}, m_grab).second * m_camera.scale < grabWire)
                m_draggedThing = {kind};
    }
    select(m_draggedThing);
    if (const Id antenna = m_draggedAntenna; !antenna.empty()) {
        m_context.document.setCurrent(antenna);
        m_draggedAntenna = antenna;
    }
    m_frozen = m_draggedThing.any() || m_draggedHandle >= 0 || !m_draggedAntenna.empty();
}

void SitePlan::mouseMoveEvent(QMouseEvent* event)
{
    const QPointF p = event->position();
    m_pointer = p;
    if (drawing()) {
        update();
        return;
    }
    if (!(event->buttons() & Qt::LeftButton)) {
        const bool thing = thingAt(p).any();
        const int hot = thing ? -1 : handleAt(p);
        setCursor(thing || hot >= 0 || !antennaAt(p).empty() ? Qt::SizeAllCursor : Qt::ArrowCursor);
        if (hot != m_hot) {
            m_hot = hot;
            update();
        }
        return;
    }
    if (m_draggedHandle >= 0) {
        dragHandle(p);
        return;
    }
    if (m_draggedThing.corner >= 0) {
        const PlanPoint to = snapped(m_context.document.design(), m_draggedThing, m_camera.unproject(p), grabHandle / m_camera.scale);
        m_context.document.edit(tr("move a corner"), QStringLiteral("move corner %1").arg(m_draggedThing.corner),
                                [&](Design& d) { moveTo(d, m_draggedThing, to); });
        return;
    }
    const PlanPoint now = m_camera.unproject(p), by{rounded(now.x - m_grab.x), rounded(now.y - m_grab.y)};
    if (by == PlanPoint{})
        return;
    if (m_draggedThing.any())
        dragThing(by);
    else if (!m_draggedAntenna.empty())
        dragAntenna(by);
    m_grab = {m_grab.x + by.x, m_grab.y + by.y};
}

void SitePlan::dragThing(PlanPoint by)
{
    const SiteThing thing = m_draggedThing.any() ? m_draggedThing : m_selected;
    m_context.document.edit(tr("move %1").arg(nameOf(m_context.document.design(), thing)),
                            QStringLiteral("move thing %1 %2").arg(QString::fromStdString(thing.id)).arg(thing.corner), [&](Design& d) {
                                const PlanPoint at = placeOf(d, thing);
                                moveTo(d, thing, {at.x + by.x, at.y + by.y});
                            });
}

void SitePlan::dragAntenna(PlanPoint by)
{
    const Id id = m_draggedAntenna.empty() ? m_context.document.current() : m_draggedAntenna;
    const Antenna* antenna = findAntenna(m_context.document.design(), id);
    if (!antenna)
        return;
    shapes::AntennaShape shape = antenna->shape;
    shape.parameters["x_m"] += by.x;
    shape.parameters["y_m"] += by.y;
    m_context.document.setShape(tr("move the antenna"), QStringLiteral("drag antenna ") + QString::fromStdString(id), id, shape);
}

/// To the pointer, or tied to a support near it.
void SitePlan::dragHandle(QPointF to)
{
    const Design& design = m_context.document.design();
    const PlanPoint at = m_camera.unproject(to);
    const shapes::Hung hung = shapes::hangAt(design.site, m_context.document.antenna().shape, std::size_t(m_draggedHandle),
                                             {rounded(at.x), rounded(at.y)}, snap / m_camera.scale);
    if (m_draggedHandle > 0 && !hung.support) { // across the feed an end would turn to the other side, out of what it hangs in
        constexpr double nearest = 0.12;        // of its distance when it was grabbed
        const Vec3 feed = soundAntenna(m_context, m_context.document.current())->feedPoint;
        const double away = std::hypot(at.x - feed.x, at.y - feed.y), was = std::hypot(m_grab.x - feed.x, m_grab.y - feed.y);
        if (was > 0.0 && away < nearest * was)
            return;
    }
    m_context.document.setShape(hung.support ? tr("tie to %1").arg(QString::fromStdString(hung.support->name)) : tr("turn the antenna"),
                                QStringLiteral("hang"), m_context.document.current(), hung.shape);
}

void SitePlan::mouseReleaseEvent(QMouseEvent*)
{
    m_context.document.endDrag();
    m_frozen = false;
    m_draggedThing = {};
    m_draggedHandle = -1;
    m_draggedAntenna.clear();
    update();
}

void SitePlan::mouseDoubleClickEvent(QMouseEvent* event)
{
    if (drawing()) {
        drawCorner(event->position(), true);
        return;
    }
    const SiteThing before = m_selected;
    mousePressEvent(event);
    const double reach = grabWire / m_camera.scale;
    if (outlineOf(m_context.document.design(), before) && nearestEdge(m_context.document.design(), before, m_grab).second < reach)
        addCornerAt(event->position());
    else if (isNamed(m_selected))
        emit renameWanted();
}

/// On the edge of the chosen outline that is nearest.
void SitePlan::addCornerAt(QPointF p)
{
    const PlanPoint at = m_camera.unproject(p);
    SiteThing thing = m_selected;
    const int edge = nearestEdge(m_context.document.design(), thing, at).first;
    if (edge < 0)
        return;
    m_context.document.edit(tr("add a corner"), {}, [&](Design& d) { thing = addCorner(d, thing, edge, {rounded(at.x), rounded(at.y)}); });
    select(thing);
    m_draggedThing = thing; // the press that is held goes on moving it
}

/// Half-way from the chosen corner to the next one.
void SitePlan::addCornerByKey()
{
    const Outline* outline =
        isThere(m_context.document.design(), m_selected) ? outlineOf(m_context.document.design(), m_selected) : nullptr;
    if (!outline || outline->empty())
        return;
    const std::size_t from = std::size_t(std::max(0, m_selected.corner)), to = (from + 1) % outline->size();
    const PlanPoint a = (*outline)[from], b = (*outline)[to];
    SiteThing thing = m_selected;
    m_context.document.edit(tr("add a corner"), {}, [&](Design& d) {
        thing = addCorner(d, thing, int(from), {rounded(0.5 * (a.x + b.x)), rounded(0.5 * (a.y + b.y))});
    });
    select(thing);
}

void SitePlan::stepCorner(int direction)
{
    const Outline* outline =
        isThere(m_context.document.design(), m_selected) ? outlineOf(m_context.document.design(), m_selected) : nullptr;
    if (!outline || outline->empty())
        return;
    const int count = int(outline->size());
    const int next = m_selected.corner < 0 ? (direction > 0 ? 0 : count - 1) : (m_selected.corner + direction + count) % count;
    select({m_selected.kind, m_selected.id, next});
}

/// A corner, else the thing.
void SitePlan::removeSelected()
{
    if (m_selected.corner < 0) {
        emit removeWanted();
        return;
    }
    const SiteThing thing = m_selected;
    select(thing.whole());
    m_context.document.edit(tr("remove a corner"), {}, [&](Design& d) { removeCorner(d, thing); });
}

void SitePlan::startDrawing(SiteThing::Kind kind)
{
    m_drawing = kind;
    m_drawn.clear();
    select({});
    setCursor(Qt::CrossCursor);
    setFocus();
    emit drawingChanged();
}

void SitePlan::drawCorner(QPointF p, bool last)
{
    const bool closes = m_drawn.size() > 2 && apart(m_camera.project(m_drawn.front()), p) < grabHandle;
    if (!closes && !last)
        m_drawn.push_back(snapped(m_context.document.design(), {}, m_camera.unproject(p), grabHandle / m_camera.scale));
    if (closes || last)
        finishDrawing(true);
    update();
}

void SitePlan::finishDrawing(bool keep)
{
    const SiteThing::Kind kind = m_drawing;
    const std::size_t least = kind == SiteThing::Kind::Coax ? 1 : 3;
    Outline outline;
    outline.swap(m_drawn);
    m_drawing = SiteThing::Kind::None;
    setCursor(Qt::ArrowCursor);
    update();
    emit drawingChanged();
    if (keep && outline.size() >= least)
        emit drawn(kind, outline);
}

void SitePlan::stepSelection(int direction)
{
    const std::vector<SiteThing> all = thingsOf(m_context.document.design());
    const auto now = std::find(all.begin(), all.end(), m_selected.whole());
    const int count = int(all.size()), place = now == all.end() ? (direction > 0 ? -1 : 0) : int(now - all.begin());
    select(all[std::size_t((place + direction + count) % count)]);
}

/// What is chosen, else the shown antenna.
void SitePlan::nudge(double east, double north)
{
    if (m_selected.any())
        dragThing({east, north});
    else if (m_context.document.hasAntenna())
        dragAntenna({east, north});
}

void SitePlan::keyPressEvent(QKeyEvent* event)
{
    const double step = event->modifiers() & Qt::ShiftModifier ? handful : tenth;
    if (drawing() && (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter || event->key() == Qt::Key_Escape)) {
        finishDrawing(event->key() != Qt::Key_Escape);
        return;
    }
    switch (event->key()) {
    case Qt::Key_Left: nudge(-step, 0.0); break;
    case Qt::Key_Right: nudge(step, 0.0); break;
    case Qt::Key_Up: nudge(0.0, step); break;
    case Qt::Key_Down: nudge(0.0, -step); break;
    case Qt::Key_Space: stepSelection(event->modifiers() & Qt::ShiftModifier ? -1 : 1); break;
    case Qt::Key_Escape: select({}); break;
    case Qt::Key_C: stepCorner(event->modifiers() & Qt::ShiftModifier ? -1 : 1); break;
    case Qt::Key_Insert: addCornerByKey(); break;
    case Qt::Key_Delete:
    case Qt::Key_Backspace: removeSelected(); break;
    default: Canvas::keyPressEvent(event);
    }
}

} // namespace vetchling::app
