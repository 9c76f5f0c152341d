#pragma once
/// One question at a time answered in the background: a newer one takes the place of the one before; an old answer stays until then.

#include "app/document/solve_service.h"
#include "core/result.h"

#include <QApplication>

#include <functional>
#include <memory>

namespace vetchling::app {

template <class Answer> class Backgrounded {
public:
    /// Hands an answer over; may be called several times, each one more complete.
    using Publish = std::function<void(Result<Answer>)>;
    using Work = std::function<void(const Watch&, const Publish&)>;

    /// @param ready called on the window's thread after each answer
    Backgrounded(SolveService& solver, std::function<void()> ready) : m_solver(solver), m_state(std::make_shared<State>())
    {
        m_state->ready = std::move(ready);
    }
    ~Backgrounded() { cancel(); }
    Backgrounded(const Backgrounded&) = delete;
    Backgrounded& operator=(const Backgrounded&) = delete;

    void ask(Work work)
    {
        cancel();
        m_state->busy = true;
        m_state->faults.clear();
        m_job = m_solver.inBackground(
            [work = std::move(work), state = std::weak_ptr<State>(m_state), round = ++m_state->round](const Watch& watch) {
                work(watch, [&](Result<Answer> answer) {
                    if (!watch.stopped())
                        deliver(state, round, std::move(answer), false);
                });
                if (watch.stopped())
                    return false;
                deliver(state, round, std::nullopt, true);
                return true;
            });
    }
    void cancel()
    {
        if (m_job)
            m_job->cancel();
        m_job.reset();
        ++m_state->round;
        m_state->busy = false;
    }
    void forget()
    {
        cancel();
        m_state->answer.reset();
        m_state->faults.clear();
    }

    /// Null before the first.
    [[nodiscard]] std::shared_ptr<const Answer> answer() const { return m_state->answer; }
    [[nodiscard]] const Faults& faults() const { return m_state->faults; }
    [[nodiscard]] bool busy() const { return m_state->busy; }

private:
    struct State {
        std::function<void()> ready;
        std::shared_ptr<const Answer> answer;
        Faults faults;
        unsigned long round = 0;
        bool busy = false;
    };

    static void deliver(const std::weak_ptr<State>& receiver, unsigned long round, std::optional<Result<Answer>> answer, bool last)
    {
        QMetaObject::invokeMethod(
            qApp,
            [receiver, round, answer = std::move(answer), last] {
                const std::shared_ptr<State> state = receiver.lock();
                if (!state || state->round != round)
                    return;
                state->busy = !last;
                if (answer && *answer)
                    state->answer = std::make_shared<const Answer>(**answer);
                else if (answer)
                    state->faults = answer->faults();
                state->ready();
            },
            Qt::QueuedConnection);
    }

    SolveService& m_solver;
    std::shared_ptr<State> m_state;
    study::Queue::Ticket m_job;
};

} // namespace vetchling::app
