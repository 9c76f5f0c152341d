#include "app/view/old_figures.h"

#include "app/document/solve_service.h"

#include <QGraphicsOpacityEffect>
#include <QWidget>

namespace vetchling::app {

void paleWhileOld(const SolveService& solver, QWidget* widget)
{
    constexpr double pale = 0.4;
    const auto follow = [&solver, widget] {
        if (!solver.figuresAreOld()) {
            widget->setGraphicsEffect(nullptr);
        } else if (!widget->graphicsEffect()) {
            auto* effect = new QGraphicsOpacityEffect(widget);
            effect->setOpacity(pale);
            widget->setGraphicsEffect(effect);
        }
    };
    QObject::connect(&solver, &SolveService::figuresAged, widget, follow);
    follow();
}

} // namespace vetchling::app
