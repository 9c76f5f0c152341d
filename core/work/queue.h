#pragma once
/// Who computes when: what a person waits for comes first and the newest request wins; batches fill the rest of the time.
///
/// One thread serves the person, as many as there are cores serve the batches. A batch's work is told to stop while the person waits
/// and starts again afterwards; what it had kept in a Library is not computed twice. Work may throw: the queue survives it.

#include "core/work/watch.h"

#include <atomic>
#include <condition_variable>
#include <deque>
#include <functional>
#include <memory>
#include <mutex>
#include <string>
#include <thread>
#include <vector>

namespace vetchling::work {

class Queue {
public:
    /// False: it was told to stop before it had finished.
    using Work = std::function<bool(const Watch&)>;

    class Job {
    public:
        explicit Job(Work work) : m_work(std::move(work)) {}
        void cancel() { m_cancelled = true; }
        [[nodiscard]] bool cancelled() const { return m_cancelled; }
        [[nodiscard]] bool finished() const { return m_finished; } ///< done, given up, or failed
        [[nodiscard]] double progress() const { return m_progress; }
        /// What the work threw; empty if it did not.
        [[nodiscard]] std::string failure() const;

    private:
        friend class Queue;
        Work m_work;
        std::atomic<bool> m_cancelled{false}, m_finished{false};
        std::atomic<double> m_progress{0.0};
        mutable std::mutex m_mutex;
        std::string m_failure;
    };
    using Ticket = std::shared_ptr<Job>;

    /// @param batchThreads 0: one a core
    explicit Queue(unsigned batchThreads = 0);
    /// Cancels everything and waits for what is under way to look at its watch.
    ~Queue();
    Queue(const Queue&) = delete;
    Queue& operator=(const Queue&) = delete;

    /// Cancels the interactive work before it.
    Ticket interactive(Work work);
    Ticket batch(Work work);
    /// Waits until all have finished; cancels them when told to stop. Reports the share that has finished.
    void wait(const std::vector<Ticket>& tickets, const Watch& watch = {});

private:
    void serve(bool interactive);
    Ticket next(bool interactive, std::unique_lock<std::mutex>& lock);
    /// True if it has ended for good.
    bool run(Job& job, bool interactive);

    std::mutex m_mutex;
    std::condition_variable m_wake, m_ended;
    Ticket m_waiting; ///< interactive
    Ticket m_current; ///< interactive, under way or waiting
    std::deque<Ticket> m_batch;
    std::atomic<bool> m_personWaits{false}, m_closing{false};
    std::vector<std::thread> m_threads;
};

} // namespace vetchling::work
