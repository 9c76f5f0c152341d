#pragma once
/// Work sent to the queue whose outcome comes back to the window's thread: what is known so far, and at last the answer or why there is
/// none. What the work throws is a fault like others; what was stopped while the person waited begins again.

#include "app/document/solve_service.h"
#include "core/work/outcome.h"

#include <QApplication>
#include <QPointer>

#include <functional>

namespace vetchling::app {

template <class Answer> struct Errand {
    using SoFar = std::function<void(Answer)>;
    std::function<Result<Answer>(const Watch&, const SoFar&)> work; ///< on a computing thread
    std::function<void(Result<Answer>, bool last)> deliver;         ///< on the window's
};

/// Null when the program ends. @param receiver nothing is delivered once it is gone; whoever cancels the ticket may still be handed what
/// was on its way
template <class Answer> work::Queue::Ticket send(SolveService& solver, QObject* receiver, Errand<Answer> errand)
{
    const auto handOver = [guard = QPointer<QObject>(receiver), deliver = std::move(errand.deliver)](Result<Answer> answer, bool last) {
        QMetaObject::invokeMethod(
            qApp,
            [guard, deliver, answer = std::move(answer), last] {
                if (guard)
                    deliver(answer, last);
            },
            Qt::QueuedConnection);
    };
    return solver.inBackground([work = std::move(errand.work), handOver, probe = solver.probe()](const Watch& watch) {
        const auto soFar = [&](Answer part) {
            if (!watch.stopped())
                handOver(std::move(part), false);
        };
        Result<Answer> answer = work::outcomeOf<Answer>([&] {
            if (probe)
                probe();
            return work(watch, soFar);
        });
        if (watch.stopped())
            return false;
        handOver(std::move(answer), true);
        return true;
    });
}

} // namespace vetchling::app
