#include "bench/drag.h"

#include "app/window/main_window.h"
#include "app/window/start.h"

#include <QApplication>
#include <QElapsedTimer>
#include <QEventLoop>
#include <QStandardPaths>
#include <QTemporaryDir>
#include <QTimer>

#include <algorithm>
#include <vector>

namespace vetchling::bench {
namespace {

/// Runs the event loop, which sleeps while there is nothing to do, until the strip has painted a new trace.
double waitForTrace(app::MainWindow& window, QElapsedTimer& timer)
{
    QEventLoop loop;
    QObject::connect(window.findChild<app::BandStrip*>(), &app::BandStrip::traced, &loop, &QEventLoop::quit);
    QTimer::singleShot(20000, &loop, &QEventLoop::quit);
    loop.exec();
    return timer.nsecsElapsed() / 1e6;
}

} // namespace

DragTimes measureDrag(int steps)
{
    int argc = 1;
    char name[] = "bench";
    char* argv[] = {name, nullptr};
    QStandardPaths::setTestModeEnabled(true);
    QApplication application(argc, argv);
    QTemporaryDir home;
    app::MainWindow window(app::findDataFolder(), home.path());
    window.fileDesk().openDemo();
    window.show();
    QElapsedTimer timer;
    timer.start();
    waitForTrace(window, timer);
    std::vector<double> times;
    for (int i = 0; i < steps; ++i) {
        timer.restart();
        window.document().setParameter("apex_height_m", 13.2 - 0.01 * (i % 40 + 1), {}, true);
        times.push_back(waitForTrace(window, timer));
    }
    window.document().undoStack().setClean();
    std::sort(times.begin(), times.end());
    return {times[times.size() / 2], times[std::size_t(0.95 * double(times.size()))]};
}

} // namespace vetchling::bench
