#pragma once
/// Progress and stop request of long work, as plain functions; and the promise that what was stopped is no answer.

#include "core/result.h"

#include <atomic>
#include <functional>
#include <memory>

namespace vetchling {

/// Copies look at one and the same request. Once it was seen it holds for good: a part of the work may have given up by it, so that
/// whoever hands an answer over must see it too, though nobody asks for the stop any more.
class Watch {
public:
    using Progress = std::function<void(double done)>; ///< 0..1, called on the computing thread
    using Stop = std::function<bool()>;                ///< polled often: cheap and thread-safe

    Watch() = default;
    explicit Watch(Stop stop, Progress progress = {})
        : m_request(std::make_shared<Request>(std::move(stop))), m_progress(std::move(progress))
    {
    }

    [[nodiscard]] bool stopped() const
    {
        if (!m_request)
            return false;
        if (!m_request->seen && m_request->asked())
            m_request->seen = true;
        return m_request->seen;
    }
    void report(double done) const
    {
        if (m_progress)
            m_progress(done);
    }
    /// The same for a part of the work, whose progress goes elsewhere or nowhere.
    [[nodiscard]] Watch with(Progress progress) const
    {
        Watch part = *this;
        part.m_progress = std::move(progress);
        return part;
    }

private:
    struct Request {
        explicit Request(Stop stop) : asked(std::move(stop)) {}
        Stop asked;
        std::atomic<bool> seen{false};
    };
    std::shared_ptr<Request> m_request; ///< null: it is never stopped
    Progress m_progress;
};

/// What was computed under a watch, unless it was stopped on the way.
template <class T> Result<T> unlessStopped(const Watch& watch, Result<T> answer)
{
    if (watch.stopped())
        return stoppedFault();
    return answer;
}
template <class T> Result<T> unlessStopped(const Watch& watch, T answer) { return unlessStopped(watch, Result<T>(std::move(answer))); }

} // namespace vetchling
