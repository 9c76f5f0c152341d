#include "core/work/queue.h"

#include <algorithm>
#include <chrono>
#include <exception>

namespace vetchling::work {

std::string Queue::Job::failure() const
{
    const std::lock_guard lock(m_mutex);
    return m_failure;
}

Queue::Queue(unsigned batchThreads)
{
    const unsigned count = batchThreads > 0 ? batchThreads : std::max(1u, std::thread::hardware_concurrency());
    m_threads.emplace_back([this] { serve(true); });
    for (unsigned i = 0; i < count; ++i)
        m_threads.emplace_back([this] { serve(false); });
}

Queue::~Queue()
{
    {
        const std::lock_guard lock(m_mutex);
        m_closing = true;
        if (m_current)
            m_current->cancel();
        for (const Ticket& job : m_batch)
            job->cancel();
    }
    m_wake.notify_all();
    for (std::thread& thread : m_threads)
        thread.join();
}

Queue::Ticket Queue::interactive(Work work)
{
    auto job = std::make_shared<Job>(std::move(work));
    {
        const std::lock_guard lock(m_mutex);
        if (m_current)
            m_current->cancel();
        if (m_waiting)
            m_waiting->m_finished = true; // it never started
        m_waiting = m_current = job;
        m_personWaits = true;
    }
    m_wake.notify_all();
    m_ended.notify_all();
    return job;
}

Queue::Ticket Queue::batch(Work work)
{
    auto job = std::make_shared<Job>(std::move(work));
    {
        const std::lock_guard lock(m_mutex);
        m_batch.push_back(job);
    }
    m_wake.notify_all();
    return job;
}

Queue::Ticket Queue::next(bool interactive, std::unique_lock<std::mutex>& lock)
{
    m_wake.wait(lock, [&] { return m_closing || (interactive ? m_waiting != nullptr : !m_batch.empty() && !m_personWaits); });
    if (m_closing)
        return nullptr;
    if (interactive)
        return std::move(m_waiting);
    Ticket job = std::move(m_batch.front());
    m_batch.pop_front();
    return job;
}

bool Queue::run(Job& job, bool interactive)
{
    const Watch watch([&] { return job.m_cancelled || m_closing || (!interactive && m_personWaits); },
                      [&](double done) { job.m_progress = done; });
    try {
        return (!job.m_cancelled && job.m_work(watch)) || job.m_cancelled || interactive;
    } catch (const std::exception& e) {
        const std::lock_guard lock(job.m_mutex);
        job.m_failure = e.what();
    } catch (...) {
        const std::lock_guard lock(job.m_mutex);
        job.m_failure = "failed for an unknown reason";
    }
    return true;
}

void Queue::serve(bool interactive)
{
    std::unique_lock lock(m_mutex);
    while (Ticket job = next(interactive, lock)) {
        lock.unlock();
        const bool ended = run(*job, interactive);
        lock.lock();
        if (!ended)
            m_batch.push_front(job);
        else
            job->m_finished = true;
        if (interactive && !m_waiting) {
            m_personWaits = false;
            m_wake.notify_all();
        }
        m_ended.notify_all();
    }
}

void Queue::wait(const std::vector<Ticket>& tickets, const Watch& watch)
{
    using namespace std::chrono_literals;
    std::unique_lock lock(m_mutex);
    for (;;) {
        const auto done = std::count_if(tickets.begin(), tickets.end(), [](const Ticket& t) { return t->finished(); });
        watch.report(tickets.empty() ? 1.0 : double(done) / double(tickets.size()));
        if (done == std::ptrdiff_t(tickets.size()))
            return;
        if (watch.stopped()) {
            for (const Ticket& t : tickets)
                t->cancel();
            m_wake.notify_all();
        }
        m_ended.wait_for(lock, 20ms);
    }
}

} // namespace vetchling::work
