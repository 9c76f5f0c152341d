#include "app/stages/gallery/answer_chart.h"

#include "app/plots/miniature.h"
#include "app/view/sketch.h"
#include "app/view/words.h"

#include <QHelpEvent>
#include <QMouseEvent>
#include <QToolTip>

#include <algorithm>
#include <cmath>
#include <set>

namespace vetchling::app {
namespace {

constexpr double first = 17.0, answer = 13.0, other = 9.0; // px of radius
constexpr double foot = 0.3048;                            // m

} // namespace

AnswerChart::AnswerChart(ViewContext& context, QWidget* parent) : Canvas(context, parent)
{
    setObjectName(QStringLiteral("answerChart"));
    setAccessibleName(tr("What each answer brings, over the wire it takes"));
    setMinimumHeight(190);
    setMouseTracking(true);
}

void AnswerChart::show(advice::AdvicePointer advice, const std::string& chosen)
{
    m_chosen = chosen;
    if (advice != m_advice) {
        m_advice = std::move(advice);
        m_points.clear();
        std::set<std::string> seen;
        if (m_advice) {
            for (std::size_t i = 0; i < m_advice->answers.size(); ++i) {
                const advice::Answer& a = m_advice->answers[i];
                QStringList names;
                for (const advice::TriedPointer& t : a.antennas)
                    names << QString::fromStdString(t->antenna.name);
                m_points.push_back({a.key(), {}, names.join(QStringLiteral(" + ")), a.antennas, a.takes.wire, a.wish, i + 1, {}, 0.0});
                if (a.antennas.size() == 1)
                    seen.insert(a.antennas.front()->antenna.shape.family);
            }
            for (const advice::Row& row : m_advice->rows) { // each family's best
                if (!row.judged || row.rank > 0 || !seen.insert(row.family).second)
                    continue;
                const auto tried = std::find_if(m_advice->tried.begin(), m_advice->tried.end(),
                                                [&](const advice::TriedPointer& t) { return t->key == row.key; });
                m_points.push_back({row.key, row.family, QString::fromStdString(row.name), {*tried}, row.wire, row.wish, 0, {}, 0.0});
            }
        }
        std::stable_sort(m_points.begin(), m_points.end(),
                         [](const Point& a, const Point& b) { return (a.rank == 0 ? 1000 : a.rank) > (b.rank == 0 ? 1000 : b.rank); });
        double most = 20.0;
        for (const Point& p : m_points)
            most = std::max(most, p.wire);
        m_most = 1.06 * most;
    }
    update();
}

void AnswerChart::place(const QRectF& plot)
{
    for (Point& p : m_points) {
        p.at = {plot.left() + plot.width() * p.wire / m_most, plot.bottom() - plot.height() * std::clamp(p.wish, 0.0, 1.0)};
        p.radius = p.rank == 0 ? other : p.rank <= 3 ? first : answer;
    }
}

void AnswerChart::paintAxes(Sketch& sketch, const QRectF& plot) const
{
    const Colours& c = sketch.colours();
    for (int percent = 0; percent <= 100; percent += 25) {
        const double y = plot.bottom() - plot.height() * percent / 100.0;
        sketch.line({plot.left(), y}, {plot.right(), y}, c.hairline);
        sketch.text({plot.left() - 8.0, y}, tr("%1 %").arg(percent), Qt::AlignRight | Qt::AlignVCenter, {c.inkSoft, 12});
    }
    const bool metric = m_context.system() == units::System::Metric;
    const double unit = metric ? 1.0 : foot, span = m_most / unit;
    double step = metric ? 10.0 : 25.0;
    while (span / step > 6.0)
        step *= 2.0;
    const QString name = metric ? tr("m of wire and tube") : tr("ft of wire and tube");
    const double nameFrom = plot.right() - QFontMetricsF(sketch.theme().font(12)).horizontalAdvance(name) - 10.0;
    for (double v = 0.0; v <= span; v += step)
        if (const double x = plot.left() + plot.width() * v / span; x < nameFrom)
            sketch.text({x, plot.bottom() + 6.0}, QString::number(v, 'f', 0), Qt::AlignHCenter | Qt::AlignTop, {c.inkSoft, 12});
    sketch.text({plot.right(), plot.bottom() + 6.0}, name, Qt::AlignRight | Qt::AlignTop, {c.inkSoft, 12});
    sketch.text({plot.left(), plot.top() - 8.0}, tr("of what you want, by weight"), Qt::AlignLeft | Qt::AlignBottom, {c.inkSoft, 12});
}

/// Those that nothing beats with as little wire.
void AnswerChart::paintFront(Sketch& sketch) const
{
    std::vector<const Point*> sorted;
    for (const Point& p : m_points)
        sorted.push_back(&p);
    std::sort(sorted.begin(), sorted.end(), [](const Point* a, const Point* b) { return a->wire < b->wire; });
    const Point* before = nullptr;
    double best = -1.0;
    for (const Point* p : sorted) {
        if (p->wish <= best)
            continue;
        best = p->wish;
        if (before)
            sketch.line(before->at, p->at, sketch.colours().leafMid, 1.5, Qt::DashLine);
        before = p;
    }
}

void AnswerChart::paintPoint(Sketch& sketch, const Point& point) const
{
    const Colours& c = sketch.colours();
    QPainter& p = sketch.painter();
    const bool chosen = point.key == m_chosen;
    p.setPen(QPen(point.rank == 0 ? c.hairline : c.leaf, chosen ? 2.6 : 1.4));
    p.setBrush(point.rank == 0 ? c.card : point.rank <= 3 || chosen ? c.leafPale : c.card);
    p.drawEllipse(point.at, point.radius, point.radius);
    const double half = 0.66 * point.radius, each = 2.0 * half / double(point.antennas.size());
    p.setPen(QPen(point.rank == 0 ? c.inkFaint : c.leaf, point.rank == 0 ? 1.0 : 1.6, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
    p.setBrush(Qt::NoBrush);
    for (std::size_t i = 0; i < point.antennas.size(); ++i)
        if (point.antennas[i]->built)
            for (const auto& line : miniature(point.antennas[i]->built->model, {each + 2.0, 2.0 * half})) {
                QPolygonF polygon;
                for (QPointF q : line)
                    polygon << point.at + QPointF(-half - 1.0 + double(i) * each, -half) + q;
                p.drawPolyline(polygon);
            }
    if (point.rank > 0 && point.rank <= 3) {
        const QPointF badge = point.at + QPointF(0.75 * point.radius, -0.75 * point.radius);
        p.setPen(Qt::NoPen);
        p.setBrush(c.leaf);
        p.drawEllipse(badge, 7.5, 7.5);
        sketch.text(badge, QString::number(point.rank), Qt::AlignCenter, {c.paper, 11, true});
    }
}

void AnswerChart::render(Sketch& sketch, const QSizeF& size)
{
    const Colours& c = sketch.colours();
    sketch.painter().fillRect(QRectF({0, 0}, size), c.paper);
    const QRectF plot(52.0, 28.0, size.width() - 52.0 - 16.0, size.height() - 28.0 - 28.0);
    place(plot);
    paintAxes(sketch, plot);
    paintFront(sketch);
    for (const Point& p : m_points)
        paintPoint(sketch, p);
    sketch.keepWithin(QRectF({0, 0}, size));
    for (const Point& p : m_points)
        sketch.reserve({p.at.x() - p.radius, p.at.y() - p.radius, 2.0 * p.radius, 2.0 * p.radius});
    for (std::size_t rank = 1; rank <= 3; ++rank)
        for (const Point& p : m_points)
            if (p.rank == rank)
                sketch.name(p.at, p.radius + 2.0, sketch.theme().elided(p.name, 250.0, 12, true), {c.ink, 12, true, c.paper}, false);
    if (m_points.empty())
        sketch.text(plot.center(), tr("the first places are being tried"), Qt::AlignCenter, {c.inkSoft, 13});
}

const AnswerChart::Point* AnswerChart::pointAt(QPointF at) const
{
    for (auto p = m_points.rbegin(); p != m_points.rend(); ++p)
        if (std::hypot(p->at.x() - at.x(), p->at.y() - at.y()) <= p->radius)
            return &*p;
    return nullptr;
}

void AnswerChart::mousePressEvent(QMouseEvent* event)
{
    if (const Point* p = pointAt(event->position()))
        p->rank > 0 ? emit chosen(p->key) : emit asked(p->family);
}

bool AnswerChart::event(QEvent* event)
{
    if (event->type() == QEvent::ToolTip) {
        const auto* help = static_cast<QHelpEvent*>(event);
        if (const Point* p = pointAt(help->pos()))
            QToolTip::showText(help->globalPos(), tr("%1\n%2 % of what you want, %3 of wire and tube")
                                                      .arg(p->name)
                                                      .arg(std::lround(100.0 * p->wish))
                                                      .arg(lengthWords(p->wire, m_context.system(), 1)));
        else
            QToolTip::hideText();
        return true;
    }
    return Canvas::event(event);
}

} // namespace vetchling::app
