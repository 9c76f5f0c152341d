#include "app/plots/scene.h"

#include "core/wire/range.h"

#include "app/plots/sketch.h"

#include <QMouseEvent>
#include <QToolTip>

#include <algorithm>
#include <cmath>

namespace vetchling::app {
namespace {

constexpr double grabRadius = 14.0;  // px
constexpr double groundBand = 28.0;  // px of soil shown below the surface
constexpr double ribbonWidth = 34.0; // px of the strongest current
constexpr double marginLeft = 40.0, marginRight = 70.0, marginTop = 26.0, marginBottom = 58.0;

constexpr double carriesWithin = 3.0; // m; supports farther from every wire only clutter the side view

double planDistanceTo(const WireModel& model, PlanPoint p)
{
    double nearest = HUGE_VAL;
    for (const Wire& w : model.wires)
        for (std::size_t i = 1; i < w.points.size(); ++i)
            nearest = std::min(nearest, distanceToSegment(p, {w.points[i - 1].x, w.points[i - 1].y}, {w.points[i].x, w.points[i].y}));
    return nearest;
}

double niceStep(double span, int most)
{
    const double raw = span / most, power = std::pow(10.0, std::floor(std::log10(raw)));
    for (double f : {1.0, 2.0, 5.0, 10.0})
        if (f * power >= raw)
            return f * power;
    return raw;
}

/// The horizontal direction in which an antenna is widest.
Vec3 widestDirection(const WireModel& model)
{
    Vec3 best{1.0, 0.0, 0.0};
    double longest = 1e-3;
    std::vector<Vec3> points;
    for (const Wire& w : model.wires)
        points.insert(points.end(), w.points.begin(), w.points.end());
    for (const Vec3& a : points)
        for (const Vec3& b : points)
            if (const double d = std::hypot(a.x - b.x, a.y - b.y); d > longest)
                longest = d, best = Vec3{b.x - a.x, b.y - a.y, 0.0};
    best = unit(best);
    return best.x < -1e-9 || (std::abs(best.x) < 1e-9 && best.y < 0.0) ? -1.0 * best : best;
}

} // namespace

QPointF Camera::project(Vec3 p) const
{
    const Vec3 d = p - target;
    return centre + QPointF(scale * dot(d, right), -scale * dot(d, up));
}

Scene::Scene(StageContext& context, QWidget* parent) : Canvas(context, parent)
{
    setObjectName(QStringLiteral("shapeScene"));
    setAccessibleName(tr("Antenna to scale over the ground"));
    setMouseTracking(true);
    setFocusPolicy(Qt::ClickFocus);
    const auto again = [this] {
        refreshGeometry();
        update();
    };
    connect(&context.document, &Document::designChanged, this, again);
    connect(&context.document, &Document::currentChanged, this, again);
    connect(&context.solver, &SolveService::detailReady, this, qOverload<>(&QWidget::update));
    connect(&context.solver, &SolveService::pinChanged, this, qOverload<>(&QWidget::update));
    again();
}

void Scene::setView(View view)
{
    m_view = view;
    m_zoom = 1.0;
    update();
}

const shapes::BuiltAntenna* Scene::built() const { return m_built ? &*m_built : nullptr; }

void Scene::refreshGeometry()
{
    if (!m_context.document.hasAntenna()) {
        m_built.reset();
        return;
    }
    auto built = shapes::buildOver(m_context.document.antenna().shape, m_context.document.design().site.soil.ground());
    if (built)
        m_built = std::move(built).value(); // an impossible shape leaves the last possible one on show
}

void Scene::aim(const QSizeF& size)
{
    if (m_frozen) {
        m_camera = *m_frozen;
        return;
    }
    const WireModel& model = built()->model;
    if (m_view == View::Side) {
        m_camera.right = widestDirection(model);
        m_camera.up = {0.0, 0.0, 1.0};
    } else if (m_view == View::Plan) {
        m_camera.right = {1.0, 0.0, 0.0};
        m_camera.up = {0.0, 1.0, 0.0};
    } else {
        const double cy = std::cos(m_yaw), sy = std::sin(m_yaw), cp = std::cos(m_pitch), sp = std::sin(m_pitch);
        m_camera.right = {cy, sy, 0.0};
        m_camera.up = {-sy * sp, cy * sp, cp};
    }
    double u0 = HUGE_VAL, u1 = -HUGE_VAL, v0 = HUGE_VAL, v1 = -HUGE_VAL;
    const auto include = [&](Vec3 p) {
        const double u = dot(p, m_camera.right), v = dot(p, m_camera.up);
        u0 = std::min(u0, u), u1 = std::max(u1, u), v0 = std::min(v0, v), v1 = std::max(v1, v);
    };
    for (const Wire& w : model.wires)
        for (Vec3 p : w.points) {
            include(p);
            if (m_view != View::Plan)
                include({p.x, p.y, 0.0});
        }
    const double pad = m_view == View::Side ? 0.16 : 0.12;
    const double spanU = std::max(u1 - u0, 0.5), spanV = std::max(m_view == View::Side ? 1.12 * v1 : v1 - v0, 0.5);
    const double width = size.width() - marginLeft - marginRight, height = size.height() - marginTop - marginBottom;
    m_camera.scale = m_zoom * std::min(width / (spanU * (1.0 + 2.0 * pad)), height / spanV);
    const double middleU = 0.5 * (u0 + u1), middleV = m_view == View::Side ? 0.5 * spanV : 0.5 * (v0 + v1);
    m_camera.target = middleU * m_camera.right + middleV * m_camera.up;
    m_camera.centre = {marginLeft + 0.5 * width, marginTop + 0.5 * height};
    if (m_view == View::Side) // the ground stays at the bottom whatever the scale
        m_camera.centre.setY(size.height() - marginBottom - m_camera.scale * middleV);
}

double Scene::bearingOfView() const
{
    const Vec3 into = cross(m_camera.up, m_camera.right); // away from the viewer
    return bearingOf(std::atan2(into.y, into.x));
}

void Scene::render(Sketch& sketch, const QSizeF& size)
{
    const Colours& c = sketch.colours();
    sketch.painter().fillRect(QRectF({0, 0}, size), c.paper);
    if (!built()) {
        sketch.text({0.5 * size.width(), 0.5 * size.height()}, tr("No antenna yet: add one with + at the top."), Qt::AlignCenter,
                    {c.inkSoft, 14});
        return;
    }
    aim(size);
    if (m_view == View::Side)
        paintGround(sketch, size);
    else
        paintPlanGround(sketch);
    paintBuildings(sketch);
    paintRibbon(sketch);
    const std::vector<DimensionLine> dimensions = dimensionLines();
    for (const DimensionLine& d : dimensions)
        sketch.reserveLine(d.a, d.b); // names of supports keep clear of what is drawn over them later
    paintSupports(sketch);
    if (const CurvePointer pinned = m_context.solver.pinnedCurve())
        paintWires(sketch, pinned->built.model, true);
    paintWires(sketch, built()->model, false);
    paintFittings(sketch);
    if (m_view == View::Side)
        paintHeights(sketch, size);
    for (const DimensionLine& d : dimensions)
        sketch.dimension(d.a, d.b, d.words);
    paintRangeNotes(sketch);
    paintDragValue(sketch);
}

void Scene::paintGround(Sketch& sketch, const QSizeF& size) const
{
    const Colours& c = sketch.colours();
    const double ground = m_camera.project({m_camera.target.x, m_camera.target.y, 0.0}).y();
    const double left = marginLeft, right = size.width() - 8.0;
    const bool metric = m_context.document.design().operation.system == units::System::Metric;
    const double unitLength = metric ? 1.0 : 0.3048;
    const double topMetres = (ground - marginTop) / m_camera.scale / unitLength;
    const double step = niceStep(topMetres, 8);
    sketch.text({4.0, 2.0}, metric ? tr("m above ground") : tr("ft above ground"), Qt::AlignLeft | Qt::AlignTop, {c.inkFaint, 11});
    for (double h = 0.0; h <= topMetres; h += step) {
        const double y = ground - h * unitLength * m_camera.scale;
        if (h > 0.0)
            sketch.line({left, y}, {right, y}, c.fill);
        sketch.text({left - 8, y}, QString::number(h), Qt::AlignRight | Qt::AlignVCenter, {c.inkFaint, 12});
    }
    sketch.painter().fillRect(QRectF(left, ground, right - left, groundBand), c.fill);
    for (int row = 0; row < 3; ++row) // grains, as squares: dashes with round caps took half of a repaint
        for (double x = left + 7 * row; x < right; x += 7.4 + 2.1 * row)
            sketch.painter().fillRect(QRectF(x, ground + 6.3 + 7 * row, 1.5, 1.5), c.inkFaint);
    sketch.line({left, ground}, {right, ground}, c.inkSoft, 1.5);
    const Soil& s = m_context.document.design().site.soil;
    sketch.text({left, ground + groundBand + 6},
                tr("%1, ε %2, %3 S/m").arg(QString::fromStdString(s.name)).arg(s.relativePermittivity).arg(s.conductivity),
                Qt::AlignLeft | Qt::AlignTop, {c.inkSoft, 12});
    sketch.text(
        {right, ground + groundBand + 6},
        tr("looking %1°; lines %2 %3 apart").arg(bearingOfView(), 3, 'f', 0, QLatin1Char('0')).arg(step).arg(metric ? tr("m") : tr("ft")),
        Qt::AlignRight | Qt::AlignTop, {c.inkFaint, 11});
}

void Scene::paintPlanGround(Sketch& sketch) const
{
    const Colours& c = sketch.colours();
    const Site& site = m_context.document.design().site;
    const auto outlinePath = [&](const Outline& outline) {
        QPolygonF polygon;
        for (PlanPoint p : outline)
            polygon << m_camera.project({p.x, p.y, 0.0});
        QPainterPath path;
        path.addPolygon(polygon);
        path.closeSubpath();
        return path;
    };
    for (const Water& w : site.waters)
        sketch.painter().fillPath(outlinePath(w.outline), c.skyPale);
    if (site.boundary.size() >= 3) {
        sketch.painter().fillPath(outlinePath(site.boundary), c.panel);
        sketch.painter().setBrush(Qt::NoBrush);
        sketch.painter().setPen(QPen(c.inkFaint, 1.5));
        sketch.painter().drawPath(outlinePath(site.boundary));
    }
    for (const Building& b : site.buildings) {
        sketch.painter().setPen(QPen(c.inkFaint, 1.0));
        sketch.painter().setBrush(c.fill);
        sketch.painter().drawPath(outlinePath(b.outline));
    }
    if (m_view == View::Turn) { // shadows on the ground show where a wire is
        for (const Wire& w : built()->model.wires)
            for (std::size_t i = 1; i < w.points.size(); ++i)
                sketch.line(m_camera.project({w.points[i - 1].x, w.points[i - 1].y, 0}),
                            m_camera.project({w.points[i].x, w.points[i].y, 0}), c.hairline, 2.0);
        sketch.text({4, 2}, tr("drag the background to turn, wheel to come closer"), Qt::AlignLeft | Qt::AlignTop, {c.inkFaint, 11});
    } else {
        sketch.text({4, 2}, tr("north is up"), Qt::AlignLeft | Qt::AlignTop, {c.inkFaint, 11});
    }
}

void Scene::paintBuildings(Sketch& sketch) const
{
    const Colours& c = sketch.colours();
    const Site& site = m_context.document.design().site;
    if (m_view == View::Side)
        for (const Building& b : site.buildings) {
            double u0 = HUGE_VAL, u1 = -HUGE_VAL;
            for (PlanPoint p : b.outline) {
                const double u = m_camera.project({p.x, p.y, 0.0}).x();
                u0 = std::min(u0, u), u1 = std::max(u1, u);
            }
            const double ground = m_camera.project({0, 0, 0}).y(), eaves = ground - m_camera.scale * b.eaves,
                         ridge = ground - m_camera.scale * b.ridge;
            if (u1 < marginLeft + 20.0 || u0 > width() - 28.0)
                continue;
            sketch.painter().save();
            sketch.painter().setClipRect(QRectF(marginLeft, 0, width() - marginLeft - 8.0, ground));
            QPolygonF house;
            house << QPointF(u0, ground) << QPointF(u0, eaves) << QPointF(0.5 * (u0 + u1), ridge) << QPointF(u1, eaves)
                  << QPointF(u1, ground);
            sketch.painter().setPen(QPen(c.hairline, 1.0));
            sketch.painter().setBrush(c.panel);
            sketch.painter().drawPolygon(house);
            sketch.painter().restore();
            sketch.label({std::clamp(0.5 * (u0 + u1), marginLeft + 24, width() - 40.0), ground - 14}, QString::fromStdString(b.name),
                         Qt::AlignHCenter | Qt::AlignVCenter, {c.inkFaint, 11});
        }
}

void Scene::paintSupports(Sketch& sketch) const
{
    const Site& site = m_context.document.design().site;
    for (const Support& s : site.supports)
        if (m_view != View::Side || planDistanceTo(built()->model, s.at) < carriesWithin)
            paintSupport(sketch, s);
}

void Scene::paintSupport(Sketch& sketch, const Support& s) const
{
    const Colours& c = sketch.colours();
    const QPointF foot = m_camera.project({s.at.x, s.at.y, 0.0}), top = m_camera.project({s.at.x, s.at.y, s.height});
    if (foot.x() < marginLeft + 4 || foot.x() > width() - 12.0 || foot.y() < 0 || foot.y() > height())
        return;
    const QString name =
        tr("%1 %2").arg(QString::fromStdString(s.name),
                        QString::fromStdString(units::formatLength(s.height, m_context.document.design().operation.system, 0)));
    if (m_view == View::Plan) {
        sketch.painter().setPen(QPen(c.ink, 1.3));
        sketch.painter().setBrush(c.card);
        sketch.painter().drawEllipse(foot, 5, 5);
        sketch.label(foot + QPointF(9, 0), name, Qt::AlignLeft | Qt::AlignVCenter, {c.inkSoft, 11});
        return;
    }
    const double half = s.kind == SupportKind::Tower ? 6.0 : 2.0;
    sketch.painter().setPen(QPen(c.inkFaint, 1.0));
    sketch.painter().setBrush(s.kind == SupportKind::Tower ? QBrush(c.panel) : QBrush(c.fill));
    sketch.painter().drawRect(QRectF(QPointF(top.x() - half, top.y()), QPointF(foot.x() + half, foot.y())));
    if (s.kind == SupportKind::Tower) // coursed stone
        for (double y = foot.y() - 9; y > top.y(); y -= 9)
            sketch.line({foot.x() - half, y}, {foot.x() + half, y}, c.hairline);
    if (s.kind == SupportKind::Tree) {
        const double crown = 0.3 * (foot.y() - top.y());
        sketch.painter().setPen(QPen(c.leafMid, 1.0));
        sketch.painter().setBrush(Qt::NoBrush);
        sketch.painter().drawEllipse(QPointF(top.x(), top.y() + crown), 0.7 * crown, crown);
    }
    sketch.label({top.x(), top.y() - 4}, name, Qt::AlignHCenter | Qt::AlignBottom, {c.inkSoft, 11});
}

/// Magnitudes of the current at even steps along each element, 1 at the strongest.
void Scene::measureRibbon(const em::Solution& solution)
{
    const em::Mesh& mesh = *solution.mesh;
    double strongest = 0.0;
    m_ribbon.clear();
    for (std::size_t e = 0; e < mesh.elements.size(); ++e) {
        const std::vector<Complex> local = solution.elementCurrents(e);
        std::array<double, ribbonPieces + 1> at{};
        for (int i = 0; i <= ribbonPieces; ++i) {
            double f[em::largestDegree + 1];
            em::localCurrents(2.0 * i / ribbonPieces - 1.0, mesh.degree, f);
            Complex sum = 0.0;
            for (int k = 0; k <= mesh.degree; ++k)
                sum += local[std::size_t(k)] * f[k];
            at[std::size_t(i)] = std::abs(sum);
            strongest = std::max(strongest, at[std::size_t(i)]);
        }
        m_ribbon.push_back(at);
    }
    for (auto& at : m_ribbon)
        for (double& a : at)
            a = strongest > 0.0 ? a / strongest : 0.0;
}

void Scene::paintRibbon(Sketch& sketch)
{
    const DetailPointer detail = m_context.solver.detail();
    const SpotResult* spot = detail ? detail->spot() : nullptr;
    if (!spot || spot->solution.model->wires.size() != built()->model.wires.size())
        return;
    if (m_ribbonOf != detail)
        measureRibbon(spot->solution);
    m_ribbonOf = detail;
    const Colours& c = sketch.colours();
    sketch.painter().setPen(QPen(c.leafPale, 0.8)); // closes the seams between elements
    sketch.painter().setBrush(c.leafPale);
    for (std::size_t e = 0; e < m_ribbon.size(); ++e) {
        const em::Element& el = spot->solution.mesh->elements[e];
        const Wire& now = built()->model.wires[el.wire]; // drawn along the present wire, which may be a drag ahead
        const double stretch = now.length() / spot->solution.model->wires[el.wire].length();
        const QPointF a = m_camera.project(now.pointAt(el.from * stretch)), b = m_camera.project(now.pointAt(el.to * stretch));
        const double length = std::hypot(b.x() - a.x(), b.y() - a.y());
        if (length < 1e-3)
            continue;
        const QPointF across((a.y() - b.y()) / length, (b.x() - a.x()) / length);
        std::array<QPointF, 2 * (ribbonPieces + 1)> edge; // there on one side, back on the other
        for (int i = 0; i <= ribbonPieces; ++i) {
            const QPointF middle = a + (b - a) * (double(i) / ribbonPieces);
            const QPointF half = 0.5 * ribbonWidth * m_ribbon[e][std::size_t(i)] * across;
            edge[std::size_t(i)] = middle + half;
            edge[edge.size() - 1 - std::size_t(i)] = middle - half;
        }
        sketch.painter().drawPolygon(edge.data(), int(edge.size()));
    }
}

void Scene::paintWires(Sketch& sketch, const WireModel& model, bool pinned) const
{
    const Colours& c = sketch.colours();
    QPen pen(pinned ? c.inkSoft : c.leaf, pinned ? 1.0 : 2.5);
    if (pinned)
        pen.setDashPattern({4, 3});
    pen.setCapStyle(Qt::RoundCap);
    for (const Wire& w : model.wires)
        for (std::size_t i = 1; i < w.points.size(); ++i) {
            sketch.painter().setPen(pen);
            const QPointF a = m_camera.project(w.points[i - 1]), b = m_camera.project(w.points[i]);
            sketch.painter().drawLine(a, b);
            if (!pinned)
                sketch.reserveLine(a, b);
        }
}

void Scene::paintFittings(Sketch& sketch) const
{
    const shapes::BuiltAntenna& antenna = *built();
    for (Vec3 p : antenna.insulators)
        sketch.insulator(m_camera.project(p), 0.0);
    const WireModel& model = antenna.model;
    for (std::size_t i = 0; i < antenna.coils.size() && i < model.loads.size(); ++i) {
        const Load& load = model.loads[i];
        const QPointF a = m_camera.project(model.wires[load.wire].pointAt(load.at - 0.05)),
                      b = m_camera.project(model.wires[load.wire].pointAt(load.at + 0.05));
        sketch.coil(m_camera.project(antenna.coils[i]), degrees(std::atan2(b.y() - a.y(), b.x() - a.x())));
    }
    for (std::size_t i = 0; i < antenna.handles.size(); ++i)
        sketch.handle(m_camera.project(antenna.handles[i].at), int(i) == m_hot || int(i) == m_dragged);
    sketch.feed(m_camera.project(antenna.feedPoint));
}

/// A mark at each place where the model leaves the range in which it is right to a percent; the page says the words.
void Scene::paintRangeNotes(Sketch& sketch) const
{
    const Colours& c = m_context.theme.colours();
    for (const RangeNote& note : rangeNotes(built()->model, m_context.document.antenna().shape.designFrequency)) {
        const QPointF at = m_camera.project(note.at) + QPointF(26.0, -6.0);
        sketch.painter().setPen(QPen(c.brick, 1.6));
        sketch.painter().setBrush(c.panel);
        sketch.painter().drawEllipse(at, 9.0, 9.0);
        sketch.text(at, QStringLiteral("!"), Qt::AlignCenter, {c.brick, 13, true});
    }
}

/// Beside the wires they measure: below a single one, else outside the bend, where they do not cross.
std::vector<Scene::DimensionLine> Scene::dimensionLines() const
{
    const auto system = m_context.document.design().operation.system;
    const auto& dimensions = built()->dimensions;
    QPointF middle;
    for (const shapes::Dimension& d : dimensions)
        middle += 0.5 * (m_camera.project(d.from) + m_camera.project(d.to)) / double(dimensions.size());
    std::vector<DimensionLine> lines;
    for (const shapes::Dimension& d : dimensions) {
        const QPointF a = m_camera.project(d.from), b = m_camera.project(d.to);
        const double length = std::hypot(b.x() - a.x(), b.y() - a.y());
        if (length < 30.0)
            continue;
        QPointF across((b.y() - a.y()) / length, (a.x() - b.x()) / length);
        const QPointF outward = 0.5 * (a + b) - middle;
        if (dimensions.size() == 1 ? across.y() < 0.0 : QPointF::dotProduct(across, outward) < 0.0)
            across = -across;
        const QPointF aside = (dimensions.size() == 3 ? 24.0 : 28.0) * across;
        lines.push_back({a + aside, b + aside, QString::fromStdString(units::formatLength(distance(d.from, d.to), system))});
    }
    return lines;
}

void Scene::paintHeights(Sketch& sketch, const QSizeF& size) const
{
    const Colours& c = sketch.colours();
    const auto system = m_context.document.design().operation.system;
    const auto& handles = built()->handles;
    std::vector<Vec3> points;
    for (const shapes::Handle& h : handles)
        if (std::none_of(points.begin(), points.end(), [&](Vec3 p) { return std::abs(p.z - h.at.z) < 0.05; }))
            points.push_back(h.at);
    std::sort(points.begin(), points.end(), [](Vec3 a, Vec3 b) { return a.z < b.z; });
    double x = size.width() - marginRight + 8.0;
    const double ground = m_camera.project({0, 0, 0}).y();
    for (Vec3 p : points) {
        const QPointF at = m_camera.project(p);
        if (ground - at.y() < 30.0 || x > size.width() - 12.0)
            continue;
        sketch.line({at.x() + 14, at.y()}, {x + 6, at.y()}, c.hairline);
        sketch.dimension({x, ground}, {x, at.y()}, QString::fromStdString(units::formatLength(p.z, system)));
        x += 24.0;
    }
}

void Scene::paintDragValue(Sketch& sketch) const
{
    if (m_dragged < 0 || m_dragged >= int(built()->handles.size()))
        return;
    const Colours& c = sketch.colours();
    const shapes::Handle& handle = built()->handles[std::size_t(m_dragged)];
    const Antenna& antenna = m_context.document.antenna();
    const shapes::Family* family = shapes::findFamily(antenna.shape.family);
    QStringList words;
    for (const std::string& key : handle.parameters) {
        const shapes::ParameterSpec* spec = family->spec(key);
        words << QStringLiteral("%1 %2").arg(QString::fromStdString(spec->label).toLower(),
                                             QString::fromStdString(units::format(family->value(antenna.shape, key), spec->quantity,
                                                                                  m_context.document.design().operation.system)));
    }
    const QPointF at = m_camera.project(handle.at) + QPointF(18, -30);
    double widest = 0.0;
    for (const QString& w : words)
        widest = std::max(widest, sketch.theme().typeset(w, 12, true).size.width());
    const double left = std::min(at.x(), width() - widest - 26.0);
    sketch.painter().setPen(QPen(c.hairline, 1.0));
    sketch.painter().setBrush(c.card);
    sketch.painter().drawRoundedRect(QRectF(left, at.y() - 10, widest + 18, 8 + 17 * words.size()), 4, 4);
    for (int i = 0; i < words.size(); ++i)
        sketch.text({left + 9, at.y() - 5 + 17 * i}, words[i], Qt::AlignLeft | Qt::AlignTop, {c.ink, 12, true});
}

int Scene::handleAt(QPointF p) const
{
    if (!built())
        return -1;
    for (std::size_t i = 0; i < built()->handles.size(); ++i) {
        const QPointF d = m_camera.project(built()->handles[i].at) - p;
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

/// Moves the handle's parameters so that it follows the pointer, by the slopes of its place on the screen.
void Scene::dragTo(QPointF p)
{
    const Document& document = m_context.document;
    const shapes::AntennaShape shape = document.antenna().shape;
    const shapes::Family* family = shapes::findFamily(shape.family);
    const shapes::Handle handle = built()->handles[std::size_t(m_dragged)];
    const QPointF gap = p - m_camera.project(handle.at);
    std::vector<QPointF> slopes;
    for (const std::string& key : handle.parameters) {
        constexpr double nudge = 1e-3;
        shapes::AntennaShape moved = shape;
        moved.parameters[key] = family->value(shape, key) + nudge;
        const auto there = shapes::buildOver(moved, {});
        slopes.push_back(there ? (m_camera.project(there->handles[std::size_t(m_dragged)].at) - m_camera.project(handle.at)) / nudge
                               : QPointF());
    }
    // Least squares with a little damping, so that a parameter without effect in this view stays.
    const double damping = 1e-4 * m_camera.scale * m_camera.scale;
    double aa = damping, ab = 0.0, bb = damping, ga = 0.0, gb = 0.0;
    aa += QPointF::dotProduct(slopes[0], slopes[0]);
    ga = QPointF::dotProduct(slopes[0], gap);
    if (slopes.size() > 1) {
        bb += QPointF::dotProduct(slopes[1], slopes[1]);
        ab = QPointF::dotProduct(slopes[0], slopes[1]);
        gb = QPointF::dotProduct(slopes[1], gap);
    }
    const double determinant = aa * bb - ab * ab;
    const double change[] = {(ga * bb - gb * ab) / determinant, (gb * aa - ga * ab) / determinant};
    shapes::AntennaShape next = shape;
    for (std::size_t i = 0; i < handle.parameters.size() && i < 2; ++i) {
        const shapes::ParameterSpec* spec = family->spec(handle.parameters[i]);
        next.parameters[spec->key] =
            std::clamp(std::round((family->value(shape, spec->key) + change[i]) * 100.0) / 100.0, spec->lowest, spec->highest);
    }
    if (next == shape || !shapes::buildOver(next, document.design().site.soil.ground()))
        return;
    m_context.document.editAntenna(tr("drag %1").arg(QString::fromStdString(handle.name)), QStringLiteral("drag handle"), [&](Antenna& a) {
        a.shape.parameters = next.parameters;
        for (const std::string& key : handle.parameters)
            a.typed.erase(key);
    });
}

void Scene::mousePressEvent(QMouseEvent* event)
{
    m_last = event->position();
    m_dragged = handleAt(event->position());
    m_turning = m_dragged < 0 && m_view == View::Turn;
    if (m_dragged >= 0) {
        m_frozen = m_camera;
        emit draggingChanged(true);
        update();
    }
}

void Scene::mouseMoveEvent(QMouseEvent* event)
{
    if (m_dragged >= 0) {
        dragTo(event->position());
    } else if (m_turning) {
        m_yaw -= 0.008 * (event->position().x() - m_last.x());
        m_pitch = std::clamp(m_pitch + 0.006 * (event->position().y() - m_last.y()), 0.05, 1.45);
        update();
    } else {
        const int hot = handleAt(event->position());
        setCursor(hot >= 0 ? Qt::SizeAllCursor : m_view == View::Turn ? Qt::OpenHandCursor : Qt::ArrowCursor);
        if (hot != m_hot) {
            m_hot = hot;
            setToolTip(hot >= 0 ? tr("drag: %1").arg(QString::fromStdString(built()->handles[std::size_t(hot)].name)) : QString());
            update();
        }
    }
    m_last = event->position();
}

void Scene::mouseReleaseEvent(QMouseEvent*)
{
    if (m_dragged >= 0) {
        m_context.document.endDrag();
        emit draggingChanged(false);
    }
    m_dragged = -1;
    m_turning = false;
    m_frozen.reset();
    update();
}

void Scene::wheelEvent(QWheelEvent* event)
{
    if (m_view != View::Turn) {
        event->ignore();
        return;
    }
    m_zoom = std::clamp(m_zoom * (event->angleDelta().y() > 0 ? 1.1 : 0.9), 0.3, 6.0);
    update();
}

} // namespace vetchling::app
