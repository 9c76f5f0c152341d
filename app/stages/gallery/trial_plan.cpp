#include "app/stages/gallery/trial_plan.h"

#include "app/plots/site_painter.h"
#include "app/view/words.h"

#include <set>

namespace vetchling::app {

TrialPlan::TrialPlan(ViewContext& context, QWidget* parent) : Canvas(context, parent)
{
    setObjectName(QStringLiteral("trialPlan"));
    setAccessibleName(tr("Plan with the chosen answer on trial"));
}

void TrialPlan::show(std::vector<advice::TriedPointer> antennas)
{
    m_antennas = std::move(antennas);
    update();
}

void TrialPlan::render(Sketch& sketch, const QSizeF& size)
{
    constexpr double margin = 26.0; // px
    const Colours& c = sketch.colours();
    const PlanCamera camera = aimedAt(m_context, size, margin);
    sketch.setWordless(true);
    SitePainter(sketch, camera, size, m_context, {}).paint();
    sketch.setWordless(false);
    QPainter& p = sketch.painter();
    for (const advice::TriedPointer& t : m_antennas) {
        for (const advice::NewPole& pole : t->place.poles) {
            p.setPen(QPen(c.petal, 2.0, Qt::DotLine));
            p.setBrush(c.paper);
            p.drawEllipse(camera.project(pole.at), 5.0, 5.0);
        }
        if (!t->built)
            continue;
        p.setPen(QPen(c.leaf, 2.4, Qt::DashLine, Qt::RoundCap, Qt::RoundJoin));
        for (const Wire& w : t->built->model.wires) {
            QPolygonF line;
            for (Vec3 at : w.points)
                line << camera.project(at);
            p.drawPolyline(line);
        }
        sketch.feed(camera.project(t->built->feedPoint));
    }
    nameWhatHolds(sketch, camera, size);
}

void TrialPlan::nameWhatHolds(Sketch& sketch, const PlanCamera& camera, const QSizeF& size) const
{
    sketch.keepWithin(QRectF({0, 0}, size));
    std::set<Id> named;
    for (const advice::TriedPointer& t : m_antennas)
        for (const Id& id : t->place.supports)
            if (const Support* s = findSupport(m_context.document.design(), id); s && named.insert(id).second)
                sketch.name(camera.project(s->at), 8.0,
                            tr("%1 %2").arg(QString::fromStdString(s->name), heightWords(s->height, m_context.system())),
                            {sketch.colours().ink, 11, false, sketch.colours().paper});
}

} // namespace vetchling::app
