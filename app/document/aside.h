#pragma once
/// Work that may take longer than a turn of the event loop and that somebody waits for, a file for the most part: done on a thread of its
/// own. What is soon over is waited for; else this thread goes on painting, and what is pressed or typed meanwhile waits its turn.

#include <QApplication>
#include <QEventLoop>
#include <QTimer>

#include <chrono>
#include <future>

namespace vetchling::app {

/// The pointer shows that one has to wait, from a moment on.
class WaitCursor {
public:
    WaitCursor()
    {
        constexpr int moment = 300; // ms
        m_soon.setSingleShot(true);
        QObject::connect(&m_soon, &QTimer::timeout, [this] {
            if (!qobject_cast<QApplication*>(QCoreApplication::instance()))
                return;
            QApplication::setOverrideCursor(Qt::WaitCursor);
            m_shown = true;
        });
        m_soon.start(moment);
    }
    ~WaitCursor()
    {
        if (m_shown)
            QApplication::restoreOverrideCursor();
    }

private:
    QTimer m_soon;
    bool m_shown = false;
};

/// @param work must not touch what belongs to this thread; what it throws is thrown here
template <class Work> auto aside(Work work) -> std::invoke_result_t<Work>
{
    QEventLoop loop;
    const WaitCursor cursor;
    std::future<std::invoke_result_t<Work>> done = std::async(std::launch::async, [&loop, work = std::move(work)] {
        struct End {
            QEventLoop& loop;
            ~End() { QMetaObject::invokeMethod(&loop, &QEventLoop::quit, Qt::QueuedConnection); }
        } end{loop};
        return work();
    });
    constexpr std::chrono::milliseconds bearable{25}; // events that are put off come in another order: not for a small file
    if (done.wait_for(bearable) != std::future_status::ready)
        loop.exec(QEventLoop::ExcludeUserInputEvents);
    return done.get();
}

} // namespace vetchling::app
