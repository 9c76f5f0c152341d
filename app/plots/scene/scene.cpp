#include "app/plots/scene/scene.h"

#include "app/view/sketch.h"
#include "app/view/words.h"
#include "core/shapes/hang.h"

#include <QKeyEvent>
#include <QMouseEvent>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr double grabRadius = 14.0, snapRadius = 12.0; // px

} // namespace

Scene::Scene(ViewContext& context, QWidget* parent) : Canvas(context, parent)
{
    setObjectName(QStringLiteral("shapeScene"));
    setAccessibleName(tr("Antenna to scale over the ground"));
    setMouseTracking(true);
    setAccessibleDescription(tr("Space chooses the next ring, arrows move it"));
    setFocusPolicy(Qt::StrongFocus);
    connect(&context.document, &Document::designChanged, this, qOverload<>(&QWidget::update));
    connect(&context.document, &Document::currentChanged, this, [this] {
        endDrag(); // the handles are others now
        m_hot = -1;
        update();
    });
    connect(&context.solver, &SolveService::detailReady, this, qOverload<>(&QWidget::update));
    connect(&context.solver, &SolveService::pinChanged, this, qOverload<>(&QWidget::update));
}

void Scene::setView(SceneView view)
{
    m_view = view;
    m_turn.zoom = 1.0;
    update();
}

void Scene::setVoltage(bool on)
{
    m_voltage = on;
    update();
}

const shapes::BuiltAntenna* Scene::built() const
{
    const AntennaModel* model = m_context.models.current();
    return model ? model->built.get() : nullptr;
}

void Scene::aim(const QSizeF& size)
{
    if (m_frozen) {
        m_camera = *m_frozen;
        return;
    }
    std::vector<Vec3> others;
    if (m_view == SceneView::Side)
        for (const Support* s : supportsInSight(m_context.document.design().site, *built(), m_view))
            for (double z : {0.0, s->height})
                others.push_back({s->at.x, s->at.y, z});
    if (const CurvePointer pinned = m_context.solver.pinnedCurve())
        for (const Wire& w : pinned->built->model.wires)
            others.insert(others.end(), w.points.begin(), w.points.end());
    m_camera = aimedAt(built()->model, m_view, m_turn, size, others);
}

void Scene::render(Sketch& sketch, const QSizeF& size)
{
    const Colours& c = sketch.colours();
    sketch.painter().fillRect(QRectF({0, 0}, size), c.paper);
    const AntennaModel* model = m_context.models.current();
    if (!model || !model->built) {
        const QString words =
            model && model->fault ? coreWords(model->fault->message, m_context.system()) : tr("No antenna yet: add one with + at the top.");
        sketch.text({0.5 * size.width(), 0.5 * size.height()}, words, Qt::AlignCenter, {c.inkSoft, 14});
        return;
    }
    aim(size);
    ScenePainter(sketch, m_camera, size,
                 {m_context.document.design().site, m_context.system(), *model, m_context.solver.detail(), m_context.solver.pinnedCurve(),
                  m_context.solver.pinnedName(), m_view, m_voltage, m_context.document.design().operation.power, onScreen(),
                  onScreen() ? m_hot : -1, onScreen() ? m_dragged : -1})
        .paint();
}

int Scene::handleAt(QPointF p) const
{
    if (!built())
        return -1;
    for (std::size_t i = 0; i < built()->handles.size(); ++i) {
        const QPointF d = m_camera.shown(built()->handles[i].at, m_view) - p;
        if (std::hypot(d.x(), d.y()) <= grabRadius)
            return int(i);
    }
    return -1;
}

std::optional<QPointF> Scene::handlePosition(const std::string& name)
{
    if (!built())
        return std::nullopt;
    aim(size());
    for (const shapes::Handle& h : built()->handles)
        if (h.name == name)
            return m_camera.project(h.at);
    return std::nullopt;
}

/// The support whose top is under the pointer, in a view that shows tops; null if none is.
const Support* Scene::supportUnder(QPointF p) const
{
    for (const Support* s : supportsInSight(m_context.document.design().site, *built(), m_view)) {
        const QPointF top = m_camera.project({s->at.x, s->at.y, s->height}) - p;
        if (std::hypot(top.x(), top.y()) <= snapRadius)
            return s;
    }
    return nullptr;
}

/// Tied to a support that is under the pointer.
void Scene::dragTo(QPointF p)
{
    if (!built() || m_dragged >= int(built()->handles.size()))
        return;
    const shapes::Handle handle = built()->handles[std::size_t(m_dragged)];
    const QPointF gap = (p - m_camera.project(handle.at)) / m_camera.scale;
    if (const Support* s = supportUnder(p)) {
        const shapes::Hung hung = shapes::hangAt(m_context.document.design().site, m_grabbed, std::size_t(m_dragged), s->at, 0.01);
        m_context.document.setShape(tr("tie to %1").arg(QString::fromStdString(s->name)), QStringLiteral("drag handle"),
                                    m_context.document.current(), hung.shape);
        return;
    }
    if (dragBy({m_camera.right, m_camera.up, gap.x(), -gap.y()}) || m_view != SceneView::Plan)
        return;
    const Vec3 to = handle.at + gap.x() * m_camera.right - gap.y() * m_camera.up; // nothing of its own moves it there: the whole goes along
    const shapes::Hung hung =
        shapes::hangAt(m_context.document.design().site, m_context.document.antenna().shape, std::size_t(m_dragged), {to.x, to.y}, 0.0);
    m_context.document.setShape(tr("move the antenna"), QStringLiteral("drag handle"), m_context.document.current(), hung.shape);
}

/// False if nothing changed.
bool Scene::dragBy(const shapes::ViewMove& move)
{
    const shapes::AntennaShape& shape = m_context.document.antenna().shape;
    const shapes::AntennaShape next =
        shapes::dragged(shape, groundUnder(m_context.document.design(), m_context.document.antenna()), std::size_t(m_dragged), move);
    if (next == shape)
        return false;
    m_context.document.setShape(tr("drag %1").arg(coreWords(built()->handles[std::size_t(m_dragged)].name)), QStringLiteral("drag handle"),
                                m_context.document.current(), next);
    return true;
}

void Scene::mousePressEvent(QMouseEvent* event)
{
    m_last = event->position();
    m_dragged = handleAt(event->position());
    m_turning = m_dragged < 0 && m_view == SceneView::Turn;
    if (m_dragged >= 0) {
        m_frozen = m_camera;
        m_grabbed = m_context.document.antenna().shape;
        emit draggingChanged(true);
        update();
    }
}

void Scene::mouseMoveEvent(QMouseEvent* event)
{
    if (m_dragged >= 0) {
        dragTo(event->position());
    } else if (m_turning) {
        m_turn.yaw -= 0.008 * (event->position().x() - m_last.x());
        m_turn.pitch = std::clamp(m_turn.pitch + 0.006 * (event->position().y() - m_last.y()), 0.05, 1.45);
        update();
    } else {
        const int hot = handleAt(event->position());
        setCursor(hot >= 0 ? Qt::SizeAllCursor : m_view == SceneView::Turn ? Qt::OpenHandCursor : Qt::ArrowCursor);
        if (hot != m_hot) {
            m_hot = hot;
            setToolTip(hot >= 0 ? tr("drag: %1").arg(coreWords(built()->handles[std::size_t(hot)].name)) : QString());
            update();
        }
    }
    m_last = event->position();
}

void Scene::endDrag()
{
    if (m_dragged >= 0) {
        m_context.document.endDrag();
        emit draggingChanged(false);
    }
    m_dragged = -1;
    m_turning = false;
    m_frozen.reset();
}

void Scene::mouseReleaseEvent(QMouseEvent*)
{
    endDrag();
    update();
}

/// The wires' point under the pointer; where there is none, the one there as deep in the picture as the last wire's end.
Vec3 Scene::pointOnWire(QPointF p) const
{
    constexpr double grab = 9.0; // px
    Vec3 nearest = built()->model.wires.front().points.back();
    double closest = HUGE_VAL;
    const auto& points = built()->model.wires.front().points;
    for (std::size_t i = 1; i < points.size(); ++i) {
        const QPointF a = m_camera.project(points[i - 1]), run = m_camera.project(points[i]) - a;
        const double length = QPointF::dotProduct(run, run), along = length > 0.0 ? QPointF::dotProduct(p - a, run) / length : 0.0;
        const QPointF away = a + std::clamp(along, 0.0, 1.0) * run - p;
        if (const double d = std::hypot(away.x(), away.y()); d < closest && d < grab) {
            closest = d;
            nearest = points[i - 1] + std::clamp(along, 0.0, 1.0) * (points[i] - points[i - 1]);
        }
    }
    if (closest <= grab)
        return nearest;
    const QPointF gap = (p - m_camera.project(nearest)) / m_camera.scale;
    return nearest + gap.x() * m_camera.right - gap.y() * m_camera.up;
}

/// A corner more, in what has corners.
void Scene::mouseDoubleClickEvent(QMouseEvent* event)
{
    if (!built() || built()->model.wires.empty() || handleAt(event->position()) >= 0)
        return;
    Vec3 at = pointOnWire(event->position());
    constexpr double lowest = 0.05; // m above ground
    at.z = std::max(at.z, lowest);
    if (const auto next = m_context.document.family().withCorner(m_context.document.antenna().shape, at))
        m_context.document.setShape(tr("add a corner"), {}, m_context.document.current(), *next);
}

bool Scene::removeCorner()
{
    if (!built() || m_hot < 0)
        return false;
    const auto next = m_context.document.family().withoutCorner(m_context.document.antenna().shape, std::size_t(m_hot));
    if (next) {
        m_hot = -1;
        m_context.document.setShape(tr("remove a corner"), {}, m_context.document.current(), *next);
    }
    return next.has_value();
}

/// Rings by keyboard: the chosen one is marked as one under the pointer is.
void Scene::keyPressEvent(QKeyEvent* event)
{
    const int count = built() ? int(built()->handles.size()) : 0;
    const double step = event->modifiers() & Qt::ShiftModifier ? 0.5 : 0.05; // m
    const auto nudge = [&](double right, double up) {
        if (count == 0)
            return;
        m_dragged = std::clamp(m_hot, 0, count - 1);
        m_hot = m_dragged;
        aim(size());
        const Vec3 upwards = m_view == SceneView::Plan ? m_camera.up : Vec3{0.0, 0.0, 1.0}; // however the view is turned
        dragBy({m_camera.right, upwards, right, up});
        m_dragged = -1;
        update();
    };
    switch (event->key()) {
    case Qt::Key_Space:
        m_hot = count > 0 ? (m_hot + (event->modifiers() & Qt::ShiftModifier ? count - 1 : 1) + count) % count : -1;
        update();
        break;
    case Qt::Key_Delete:
    case Qt::Key_Backspace:
        if (!removeCorner())
            Canvas::keyPressEvent(event);
        break;
    case Qt::Key_Left: nudge(-step, 0.0); break;
    case Qt::Key_Right: nudge(step, 0.0); break;
    case Qt::Key_Up: nudge(0.0, step); break;
    case Qt::Key_Down: nudge(0.0, -step); break;
    default: Canvas::keyPressEvent(event);
    }
}

void Scene::wheelEvent(QWheelEvent* event)
{
    if (m_view != SceneView::Turn) {
        event->ignore();
        return;
    }
    m_turn.zoom = std::clamp(m_turn.zoom * (event->angleDelta().y() > 0 ? 1.1 : 0.9), 0.3, 6.0);
    update();
}

} // namespace vetchling::app
