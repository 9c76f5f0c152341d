#include "bench/window.h"

#include "app/window/main_window.h"
#include "app/window/start.h"
#include "core/design/variants.h"
#include "core/files/data_folder.h"
#include "core/files/design_file.h"
#include "core/study/comparison.h"
#include "core/study/map_run.h"
#include "core/study/settings.h"

#include <QAbstractButton>
#include <QAbstractEventDispatcher>
#include <QApplication>
#include <QElapsedTimer>
#include <QEventLoop>
#include <QProcess>
#include <QStandardPaths>
#include <QTemporaryDir>
#include <QTimer>

#include <algorithm>
#include <chrono>
#include <functional>
#include <thread>

namespace vetchling::bench {
namespace {

constexpr double coarseMapGoal = 300.0, coldMapGoal = 8000.0, warmMapGoal = 2000.0, settingsGoal = 2000.0;
constexpr double coldSpreadGoal = 3000.0, warmSpreadGoal = 1000.0, variantsGoal = 2000.0, switchGoal = 50.0;
constexpr double galleryGoal = 5000.0, turnGoal = 50.0, adviseFirstGoal = 2000.0, adviseGoal = 15000.0;
constexpr double frameGoal = 16.0, fanGoal = 50.0, radialsGoal = 33.0, emptyStripGoal = 600.0; // ms
constexpr double dragGoal = 33.0, drag95Goal = 60.0, ratioGoal = 10.0, firstStripGoal = 500.0; // ms

/// The program with its window in a home of its own.
struct Program {
    int count = 1;
    char name[6] = "bench";
    char* arguments[2] = {name, nullptr};
    QApplication application{count, arguments};
    QTemporaryDir home;
    app::MainWindow window{app::findDataFolder(), home.path()};
};

/// Runs the event loop, which sleeps while there is nothing to do, until the strip has painted a new trace.
double waitForTrace(app::MainWindow& window, QElapsedTimer& timer)
{
    QEventLoop loop;
    QObject::connect(window.findChild<app::BandStrip*>(), &app::BandStrip::traced, &loop, &QEventLoop::quit);
    QTimer::singleShot(20000, &loop, &QEventLoop::quit);
    loop.exec();
    return double(timer.nsecsElapsed()) / 1e6;
}

std::string slug(std::string name)
{
    for (char& c : name)
        c = std::isalnum(static_cast<unsigned char>(c)) ? char(std::tolower(c)) : '-';
    return name;
}

class Dragger {
public:
    explicit Dragger(app::MainWindow& window, int steps) : m_window(window), m_steps(steps) {}

    /// Sorted times of changes to one parameter around its value.
    std::vector<double> drag(const std::string& key, double relativeStep)
    {
        const shapes::AntennaShape shape = m_window.document().antenna().shape;
        const double value = shapes::familyOf(shape).value(shape, key);
        std::vector<double> times;
        QElapsedTimer timer;
        for (int i = -warmUp; i < m_steps; ++i) {
            timer.start();
            m_window.document().setParameter(key, value * (1.0 + relativeStep * (i % 40 + warmUp + 1)), {}, true);
            const double time = waitForTrace(m_window, timer);
            if (i >= 0)
                times.push_back(time);
        }
        m_window.document().setParameter(key, value, {});
        waitForTrace(m_window, timer);
        std::sort(times.begin(), times.end());
        return times;
    }

private:
    static constexpr int warmUp = 3;
    app::MainWindow& m_window;
    int m_steps;
};

/// The gallery filled again for a frequency whose tables are there, ms.
double fillGallery(app::MainWindow& window)
{
    QElapsedTimer timer;
    for (double frequency : {14.2e6, 14.25e6, 14.2e6}) { // another one in between, so that the same antennas are not merely remembered
        timer.start();
        window.gallery().desk().open(frequency);
        while (window.gallery().desk().unanswered() > 0)
            QCoreApplication::processEvents(QEventLoop::WaitForMoreEvents, 50);
    }
    window.gallery().close();
    return double(timer.nsecsElapsed()) / 1e6;
}

/// Which antenna for the demo's site without its antennas: to the first answer, and to the last word of it, ms; tables warm.
std::pair<double, double> advise(app::MainWindow& window)
{
    window.document().edit({}, {}, [](Design& d) { d.antennas.clear(); });
    app::AdvisorDesk& desk = window.gallery().advisor();
    double first = 0.0;
    QElapsedTimer timer;
    for (int antennas : {1, 2}) { // once for the tables
        timer.start();
        advice::AdviceWish wish = desk.wish();
        wish.antennas = antennas;
        desk.setWish(wish);
        const auto before = desk.advice();
        first = 0.0;
        while (desk.busy()) {
            QCoreApplication::processEvents(QEventLoop::WaitForMoreEvents, 50);
            if (first == 0.0 && desk.advice() != before && !desk.advice()->answers.empty())
                first = double(timer.nsecsElapsed()) / 1e6;
        }
    }
    const double all = double(timer.nsecsElapsed()) / 1e6;
    window.document().undoStack().undo();
    return {first, all};
}

/// A value of the chain's first part of a kind changed step by step, from the edit to the repainted strip, SWR being told at the radio.
std::vector<double> changePart(app::MainWindow& window, const char* kind, const char* key, double step, int steps)
{
    app::Document& document = window.document();
    QElapsedTimer timer;
    std::vector<double> times;
    for (int i = 0; i < steps; ++i) {
        timer.start();
        document.editAntenna(QStringLiteral("change a part"), QStringLiteral("part"), [&](Antenna& a) {
            for (ChainPart& p : ownChain(a).parts)
                if (p.kind == kind)
                    p.values[key] = partValue(p, key) + step;
        });
        times.push_back(waitForTrace(window, timer));
    }
    document.endDrag();
    std::sort(times.begin(), times.end());
    return times;
}

double part(const std::vector<double>& sorted, double share) { return sorted[std::size_t(share * double(sorted.size() - 1))]; }

/// One run of the program that ends at a moment, ms.
double runUntil(const QString& moment, const QString& cache, const QString& home)
{
    QProcess process;
    QProcessEnvironment environment = QProcessEnvironment::systemEnvironment();
    environment.insert(QStringLiteral("XDG_CACHE_HOME"), cache);
    environment.insert(QStringLiteral("XDG_CONFIG_HOME"), home);
    environment.insert(QStringLiteral("XDG_DATA_HOME"), home);
    environment.insert(QStringLiteral("QT_QPA_PLATFORM"), QStringLiteral("offscreen"));
    process.setProcessEnvironment(environment);
    QElapsedTimer timer;
    timer.start();
    process.start(QStringLiteral(VETCHLING_PROGRAM), {QStringLiteral("--demo"), QStringLiteral("--quit-at"), moment});
    process.waitForFinished(60000);
    return double(timer.nsecsElapsed()) / 1e6;
}

double medianOf(int runs, const std::function<double()>& measure)
{
    std::vector<double> times;
    for (int i = 0; i < runs; ++i)
        times.push_back(measure());
    std::sort(times.begin(), times.end());
    return part(times, 0.5);
}

const Antenna& byName(const Design& design, const std::string& name)
{
    return *std::find_if(design.antennas.begin(), design.antennas.end(), [&](const Antenna& a) { return a.name == name; });
}

constexpr const char *mappedAntenna = "Wall end-fed 40", *setAntenna = "Walking whip 17";

struct MapTimes {
    double coarse = 0.0, whole = 0.0; ///< ms
};

MapTimes timeMap(const std::shared_ptr<em::GroundTableCache>& tables, const study::MapQuestion& question)
{
    constexpr std::ptrdiff_t coarseColumns = 15;
    work::Queue queue;
    QElapsedTimer timer;
    timer.start();
    study::MapRun run(
        tables, [&](work::Queue::Work work) { return queue.batch(std::move(work)); }, question);
    MapTimes times;
    const auto elapsed = [&] { return double(timer.nsecsElapsed()) / 1e6; };
    while (!run.finished()) {
        const auto map = run.map();
        if (times.coarse == 0.0 &&
            std::count_if(map->columns.begin(), map->columns.end(), [](const auto& c) { return c.computed(); }) >= coarseColumns)
            times.coarse = elapsed();
        std::this_thread::sleep_for(std::chrono::milliseconds(3));
    }
    times.whole = elapsed();
    return times;
}

/// A length dragged while a map of it is being computed, sorted ms.
std::vector<double> dragBesideMap(app::MainWindow& window, Dragger& dragger)
{
    const Antenna& antenna = byName(window.document().design(), mappedAntenna);
    const auto question = study::mapQuestionOf(window.document().design(), antenna, {}, 0.0, 0.0, 400);
    study::MapRun run(
        window.solver().library().sharedTables(), [&](work::Queue::Work work) { return window.solver().inBackground(std::move(work)); },
        *question);
    std::vector<double> times = dragger.drag("length_m", 0.0005);
    run.cancel();
    return times;
}

} // namespace

std::vector<Wait> measureBands()
{
    const auto design = files::readDesign(files::findDataFolder() + "/demo/gannet-skerry.vetchling");
    const auto question = study::mapQuestionOf(*design, byName(*design, mappedAntenna));
    const auto tables = std::make_shared<em::GroundTableCache>();
    const MapTimes cold = timeMap(tables, *question), warm = timeMap(tables, *question);
    study::Library library(tables, 64);
    study::Question whip = study::questionOf(*design, byName(*design, setAntenna));
    QElapsedTimer timer;
    timer.start();
    const auto chart = study::settingsOf(library, whip);
    const double settings = chart ? double(timer.nsecsElapsed()) / 1e6 : 0.0;
    return {{"map-coarse-warm", warm.coarse, coarseMapGoal},
            {"map-cold", cold.whole, coldMapGoal},
            {"map-warm", warm.whole, warmMapGoal},
            {"settings", settings, settingsGoal}};
}

std::vector<Wait> measureSpread()
{
    const auto design = files::readDesign(files::findDataFolder() + "/demo/gannet-skerry.vetchling");
    const study::SpreadQuestion asked = study::spreadQuestionOf(*design, design->antennas.front());
    const auto tables = std::make_shared<em::GroundTableCache>();
    const auto time = [&](const auto& work) {
        QElapsedTimer timer;
        timer.start();
        study::Library library(tables, 64);
        work(library);
        return double(timer.nsecsElapsed()) / 1e6;
    };
    const auto spread = [&](study::Library& library) { (void)study::spreadOf(library, asked); };
    const double cold = time(spread), warm = time(spread);
    Antenna varied = design->antennas.front();
    for (int i = 1; i < 10; ++i) {
        const Id variant = addVariant(varied, {}, "variant");
        findVariant(varied, variant)->values["end_height_m"] = 6.0 + 0.3 * i;
    }
    const study::ComparisonQuestion ten = study::comparisonOf(*design, varied, "as drawn");
    const double compared = time([&](study::Library& library) {
        for (std::size_t row = 0; row < ten.antennas.size(); ++row)
            (void)study::comparedOf(library, ten, row);
    });
    return {{"spread-cold", cold, coldSpreadGoal}, {"spread-warm", warm, warmSpreadGoal}, {"ten-variants", compared, variantsGoal}};
}

std::vector<Wait> measureDrags(int steps)
{
    QStandardPaths::setTestModeEnabled(true);
    Program program;
    app::MainWindow& window = program.window;
    window.fileDesk().openDemo();
    window.show();
    QElapsedTimer timer;
    timer.start();
    waitForTrace(window, timer);
    std::vector<Wait> waits;
    Dragger dragger(window, steps);
    const std::vector<double> height = dragger.drag("apex_height_m", -0.0008);
    waits.push_back({"drag", part(height, 0.5), frameGoal});
    waits.push_back({"drag-95", part(height, 0.95), drag95Goal});
    for (const auto& [family, key, count, goal] :
         {std::tuple("fan-dipole", "pair_count", 5.0, fanGoal), std::tuple("vertical", "radial_count", 16.0, radialsGoal)}) {
        Antenna large = newAntenna(*shapes::findFamily(family), 7.08e6, window.document().design().site);
        large.name = std::string(family) + "-" + std::to_string(int(count));
        large.shape.parameters[key] = count;
        window.document().addAntenna(large);
        waitForTrace(window, timer);
        const std::string length = shapes::familyOf(large.shape).tuned(large.shape).front().parameter;
        waits.push_back({"drag-" + slug(large.name), part(dragger.drag(length, 0.0005), 0.5), goal});
        window.document().removeCurrentAntenna();
    }
    for (const Antenna& antenna : std::vector<Antenna>(window.document().design().antennas)) {
        if (antenna.id != window.document().current()) {
            window.document().setCurrent(antenna.id);
            waitForTrace(window, timer);
        }
        const std::string key = shapes::familyOf(antenna.shape).tuned(antenna.shape).front().parameter;
        waits.push_back({"drag-" + slug(antenna.name), part(dragger.drag(key, 0.0005), 0.5), dragGoal});
        if (shapes::familyOf(antenna.shape).spec(antenna.shape, "transformer_ratio"))
            waits.push_back({"ratio-" + slug(antenna.name), part(dragger.drag("transformer_ratio", 0.005), 0.5), ratioGoal});
    }
    window.document().setCurrent(window.document().design().antennas.front().id);
    waitForTrace(window, timer);
    std::vector<double> switches;
    for (int i = 0; i < 24; ++i) { // to and fro; the first rounds compute what the others find
        timer.start();
        window.document().stepVariant(1);
        const double took = waitForTrace(window, timer);
        if (i >= 6)
            switches.push_back(took);
    }
    std::sort(switches.begin(), switches.end());
    waits.push_back({"switch-variant", part(switches, 0.5), switchGoal});
    window.document().setCurrent(byName(window.document().design(), mappedAntenna).id);
    waitForTrace(window, timer);
    window.solver().setPlane(app::SolveService::Plane::Radio);
    waitForTrace(window, timer);
    waits.push_back({"chain-line", part(changePart(window, vetchling::part::line, "length_m", 0.1, steps), 0.5), ratioGoal});
    waits.push_back({"chain-tuner", part(changePart(window, vetchling::part::tuner, "inductor_q", 1.0, steps), 0.5), ratioGoal});
    waits.push_back({"chain-ratio", part(dragger.drag("transformer_ratio", 0.005), 0.5), ratioGoal});
    window.solver().setPlane(app::SolveService::Plane::Feedpoint);
    waitForTrace(window, timer);
    waits.push_back({"drag-beside-map", part(dragBesideMap(window, dragger), 0.5), dragGoal});
    waits.push_back({"gallery", fillGallery(window), galleryGoal});
    const auto [first, all] = advise(window);
    waits.push_back({"advise-first", first, adviseFirstGoal});
    waits.push_back({"advise-all", all, adviseGoal});
    window.document().undoStack().setClean();
    return waits;
}

namespace {

/// Times each turn of the event loop: from waking up to falling asleep again.
class Turns : public QObject {
public:
    Turns()
    {
        auto* dispatcher = QAbstractEventDispatcher::instance();
        connect(dispatcher, &QAbstractEventDispatcher::awake, this, [this] { begin(); });
        connect(dispatcher, &QAbstractEventDispatcher::aboutToBlock, this, [this] { end(); });
    }
    /// Does something in a turn of its own and lets everything come to rest; the longest turn of it, ms.
    double during(app::MainWindow& window, const std::function<void()>& step)
    {
        m_longest = 0.0;
        QEventLoop loop;
        QElapsedTimer since;
        since.start();
        QTimer::singleShot(0, &loop, [&] {
            begin();
            step();
        });
        QTimer look;
        connect(&look, &QTimer::timeout, &loop, [&] {
            const bool atRest = !window.solver().busy() && !window.solver().busyInBackground() && window.gallery().desk().unanswered() == 0;
            if ((atRest && since.elapsed() > restMilliseconds) || since.elapsed() > longestMilliseconds)
                loop.quit();
        });
        look.start(50);
        loop.exec();
        return m_longest;
    }

private:
    static constexpr int restMilliseconds = 400, longestMilliseconds = 20000;
    void begin()
    {
        if (!m_turn.isValid())
            m_turn.start();
    }
    void end()
    {
        if (m_turn.isValid())
            m_longest = std::max(m_longest, double(m_turn.nsecsElapsed()) / 1e6);
        m_turn.invalidate();
    }
    QElapsedTimer m_turn;
    double m_longest = 0.0;
};

} // namespace

std::vector<Wait> measureTurns()
{
    QStandardPaths::setTestModeEnabled(true);
    Program program;
    app::MainWindow& window = program.window;
    window.show();
    Turns turns;
    std::vector<Wait> waits;
    const auto step = [&](const std::string& what, const std::function<void()>& does) {
        waits.push_back({"turn-" + what, turns.during(window, does), turnGoal});
    };
    const auto press = [&](const char* button) {
        return [&window, button] {
            if (auto* found = window.findChild<QAbstractButton*>(QLatin1String(button)))
                found->click();
        };
    };
    step("open-demo", [&] { window.fileDesk().openDemo(); });
    for (int i = 0; i < window.stageCount(); ++i)
        step("stage-" + std::to_string(i), [&window, i] { window.showStage(i); });
    for (const auto& [stage, button] : std::initializer_list<std::pair<int, const char*>>{{1, "viewVariants"},
                                                                                          {2, "bands map"},
                                                                                          {2, "bands settings"},
                                                                                          {3, "skyRound"},
                                                                                          {3, "skyAgainst"},
                                                                                          {4, "feedReflection"},
                                                                                          {4, "feedWhich"},
                                                                                          {4, "feedShield"},
                                                                                          {5, "buildCoil"},
                                                                                          {5, "buildParts"},
                                                                                          {5, "buildSafety"},
                                                                                          {6, "trimLog"},
                                                                                          {6, "trimYard"}}) {
        window.showStage(stage);
        step(slug(button), press(button));
    }
    window.showStage(1);
    step("change", [&] { window.document().setParameter("apex_height_m", 9.0, {}); });
    step("undo", [&] { window.document().undoStack().undo(); });
    step("next-antenna", [&] { window.document().stepCurrent(1); });
    step("gallery", [&] { window.addAntenna(); });
    window.gallery().close();
    const QString path = program.home.filePath(QStringLiteral("journey.vetchling"));
    step("save", [&] { window.fileDesk().saveTo(path); });
    step("open", [&] { window.fileDesk().openFile(path); });
    step("night", [&] { window.toggleTheme(); });
    window.document().undoStack().setClean();
    return waits;
}

std::vector<Wait> measureFirstStrip(int runs)
{
    QTemporaryDir cache, home;
    const double kept = [&] {
        runUntil(QStringLiteral("rest"), cache.path(), home.path());
        return medianOf(runs, [&] { return runUntil(QStringLiteral("strip"), cache.path(), home.path()); });
    }();
    const double empty = medianOf(runs, [&] {
        QTemporaryDir nothing;
        return runUntil(QStringLiteral("strip"), nothing.path(), home.path());
    });
    return {{"first-strip", kept, firstStripGoal}, {"first-strip-empty", empty, emptyStripGoal}};
}

} // namespace vetchling::bench
