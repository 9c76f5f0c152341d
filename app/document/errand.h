#pragma once
/// Work sent to the queue whose outcome comes back to the window's thread: what is known so far, and at last the answer or why there is
/// none. What the work throws is a fault like others; what was stopped while the person waited begins again.

#include "app/document/solve_service.h"
#include "core/result.h"

#include <QApplication>
#include <QPointer>

#include <exception>
#include <functional>

namespace vetchling::app {

/// What a fault of the program itself becomes for whoever waits for an answer.
inline Fault brokenOff(const char* why)
{
    return {"", {coreText("core", "the computation broke off (%1); change a dimension and try again"), std::string(why)}};
}

/// What work comes to, whatever it throws.
template <class Answer, class Work> Result<Answer> outcomeOf(const Work& work)
{
    try {
        return work();
    } catch (const std::exception& e) {
        return brokenOff(e.what());
    } catch (...) {
        return brokenOff("?");
    }
}

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
    return solver.inBackground([work = std::move(errand.work), handOver](const Watch& watch) {
        const auto soFar = [&](Answer part) {
            if (!watch.stopped())
                handOver(std::move(part), false);
        };
        Result<Answer> answer = outcomeOf<Answer>([&] { return work(watch, soFar); });
        if (watch.stopped())
            return false;
        handOver(std::move(answer), true);
        return true;
    });
}

} // namespace vetchling::app
