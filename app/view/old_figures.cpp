#include "app/view/old_figures.h"

#include "app/document/solve_service.h"

#include <QGraphicsOpacityEffect>
#include <QTimer>
#include <QWidget>

#include <algorithm>

namespace vetchling::app {

namespace {

void setPale(QWidget* widget, bool pale)
{
    constexpr double opacity = 0.4;
    if (!pale) {
        widget->setGraphicsEffect(nullptr);
    } else if (!widget->graphicsEffect()) {
        auto* effect = new QGraphicsOpacityEffect(widget);
        effect->setOpacity(opacity);
        widget->setGraphicsEffect(effect);
    }
}

} // namespace

void paleWhileOld(const SolveService& solver, QWidget* widget)
{
    const auto follow = [&solver, widget] { setPale(widget, solver.figuresAreOld()); };
    QObject::connect(&solver, &SolveService::figuresAged, widget, follow);
    follow();
}

void paleWhileOld(std::vector<NamedWaiting> answers, QWidget* widget)
{
    constexpr int look = 150, looks = 2; // ms; what is soon answered does not flicker
    auto* timer = new QTimer(widget);
    QObject::connect(timer, &QTimer::timeout, widget, [widget, answers = std::move(answers), seen = 0]() mutable {
        const bool old = std::any_of(answers.begin(), answers.end(), [](const NamedWaiting& w) { return w.waiting.old && w.waiting.old(); });
        seen = old && widget->isVisible() ? seen + 1 : 0;
        setPale(widget, seen >= looks);
    });
    timer->start(look);
}

} // namespace vetchling::app
