#include "app/window/start.h"

#include "app/document/stand_in.h"
#include "app/stages/site/ground_panel.h"
#include "app/window/main_window.h"
#include "app/window/sheet_writer.h"
#include "core/files/data_folder.h"

#include <QApplication>
#include <QCommandLineParser>
#include <QDir>
#include <QStandardPaths>
#include <QTimer>
#include <QToolButton>
#include <QTranslator>

#include <cstdio>

namespace vetchling::app {
namespace {

constexpr int longestWait = 300000; // ms for a picture's results

/// Takes one picture of the whole window for each stage once its results are in.
class Photographer : public QObject {
    Q_OBJECT
public:
    struct Shot {
        QString file;
        int stage = 1;
        std::size_t antenna = 0; ///< place in the demo
        Theme::Mode mode = Theme::Mode::Day;
        QString view = {};      ///< name of the button that shows it; "gallery" for the gallery
        QStringList then = {};  ///< buttons pressed after it, each when all is at rest
        bool onHeights = false; ///< over the ground of the demo's file of heights; those after it stay there
    };

    Photographer(MainWindow& window, QString folder, std::vector<Shot> shots)
        : m_window(window), m_folder(std::move(folder)), m_shots(std::move(shots))
    {
        m_poll.setInterval(60);
        connect(&m_poll, &QTimer::timeout, this, &Photographer::step);
        QTimer::singleShot(longestWait, this, [] { qApp->exit(1); });
        prepare();
        m_poll.start();
    }

private:
    void prepare()
    {
        const Shot& shot = m_shots[m_next];
        m_window.theme().setMode(shot.mode);
        if (shot.onHeights)
            m_window.findChild<GroundPanel*>()->takeHeights(findDataFolder() + QStringLiteral("/demo/gannet-skerry-heights.txt"));
        m_window.document().setCurrent(m_window.document().design().antennas[shot.antenna].id);
        m_window.showStage(shot.stage);
        if (shot.view == QLatin1String("gallery"))
            m_window.addAntenna();
        else if (auto* button = m_window.findChild<QToolButton*>(shot.view); button && !shot.view.isEmpty())
            button->click();
        m_settled = 0;
    }

    /// Nothing is being computed any more.
    bool isSettled() const { return !m_window.solver().busy() && m_window.solver().detail() && !m_window.solver().busyInBackground(); }

    void step()
    {
        constexpr int looks = 26; // longer than what is computed by itself waits for a pause
        m_settled = isSettled() ? m_settled + 1 : 0;
        if (m_settled < looks)
            return;
        const Shot& shot = m_shots[m_next];
        if (m_pressed < shot.then.size()) {
            if (auto* button = m_window.findChild<QAbstractButton*>(shot.then[m_pressed++]))
                button->click();
            m_settled = 0;
            return;
        }
        m_pressed = 0;
        m_window.grab().save(QDir(m_folder).filePath(shot.file));
        if (++m_next == m_shots.size())
            qApp->exit(0);
        else
            prepare();
    }

    MainWindow& m_window;
    QString m_folder;
    std::vector<Shot> m_shots;
    std::size_t m_next = 0;
    int m_settled = 0;
    qsizetype m_pressed = 0;
    QTimer m_poll;
};

/// Ends the program at a moment, for measuring how long it takes until then.
void quitAt(const QString& moment, MainWindow& window)
{
    if (moment == QLatin1String("strip")) {
        QObject::connect(window.findChild<BandStrip*>(), &BandStrip::traced, qApp, [] { qApp->exit(0); });
        return;
    }
    auto* poll = new QTimer(&window);
    QObject::connect(poll, &QTimer::timeout, &window, [&window] {
        if (window.solver().atRest())
            qApp->exit(0);
    });
    poll->start(20);
}

std::vector<Photographer::Shot> documentationShots()
{
    using Mode = Theme::Mode;
    return {{"site.png", 0, 0, Mode::Day},
            {"shape.png", 1, 0, Mode::Day},
            {"bands.png", 2, 0, Mode::Day},
            {"feed.png", 4, 1, Mode::Day},
            {"feed-reflection.png", 4, 3, Mode::Day, QStringLiteral("feedReflection")},
            {"feed-shield.png", 4, 1, Mode::Night, QStringLiteral("feedShield")},
            {"build.png", 5, 0, Mode::Day},
            {"build-coil.png", 5, 4, Mode::Day, QStringLiteral("buildCoil")},
            {"trim.png", 6, 0, Mode::Day},
            {"trim-log.png", 6, 3, Mode::Day, QStringLiteral("trimLog")},
            {"trim-yard.png",
             6,
             0,
             Mode::Day,
             QStringLiteral("trimYard"),
             {QStringLiteral("yardLevel-will-not-come-down"), QStringLiteral("yardSweep"), QStringLiteral("yardSweep"),
              QStringLiteral("yardLoad"), QStringLiteral("yardHand")}},
            {"build-parts.png", 5, 0, Mode::Night, QStringLiteral("buildParts")},
            {"gallery.png", 1, 0, Mode::Day, QStringLiteral("gallery")},
            {"which-one.png", 1, 0, Mode::Night, QStringLiteral("gallery"), {QStringLiteral("galleryWhich")}},
            {"bands-map.png", 2, 1, Mode::Day, QStringLiteral("bands map")},
            {"left.png", 7, 2, Mode::Day},
            {"sky-all-round.png", 3, 0, Mode::Day, QStringLiteral("skyRound")},
            {"shape-variants.png", 1, 0, Mode::Day, QStringLiteral("viewVariants")},
            {"sky.png", 3, 3, Mode::Day, QStringLiteral("skyCut"), {QStringLiteral("lookLow")}, true}};
}

} // namespace

QString findDataFolder() { return QString::fromStdString(files::findDataFolder()); }

namespace {

struct Options {
    QCommandLineParser parser;
    QCommandLineOption demo{QStringLiteral("demo"), QObject::tr("open the demo, Gannet Skerry")};
    QCommandLineOption shots{QStringLiteral("shots"), QObject::tr("write pictures of every stage into a folder and quit"),
                             QStringLiteral("folder")};
    QCommandLineOption picture{QStringLiteral("picture"), QObject::tr("write one picture of the window into a folder and quit"),
                               QStringLiteral("folder")};
    QCommandLineOption quit{QStringLiteral("quit-at"), QObject::tr("quit at a moment, for measuring: strip or rest"),
                            QStringLiteral("moment")};
    QCommandLineOption sheet{QStringLiteral("sheet"), QObject::tr("write the build sheet of the design as a PDF and quit"),
                             QStringLiteral("file")};
    QCommandLineOption templates{QStringLiteral("templates"), QObject::tr("write its drilling templates, PDF or SVG, and quit"),
                                 QStringLiteral("file")};
    QCommandLineOption antenna{QStringLiteral("antenna"), QObject::tr("name or id of the antenna; the first one if left out"),
                               QStringLiteral("name")};
    QCommandLineOption paper{QStringLiteral("paper"), QObject::tr("a4, letter or phone"), QStringLiteral("paper"), QStringLiteral("a4")};
    QCommandLineOption quick{QStringLiteral("quick"), QObject::tr("leave out what has to be solved: coil and distances")};

    Options()
    {
        parser.setApplicationDescription(QObject::tr("Plans, models, cuts and trims wire antennas over your own ground."));
        parser.addHelpOption();
        parser.addVersionOption();
        parser.addPositionalArgument(QStringLiteral("file"), QObject::tr("design to open"), QStringLiteral("[file]"));
        parser.addOptions({demo, shots, picture, quit, sheet, templates, antenna, paper, quick});
    }
};

/// A file that cannot be opened leaves an empty site, with the words that say why.
void openNamed(MainWindow& window, const QString& file)
{
    window.fileDesk().openNew(window.emptyDesign());
    if (!window.fileDesk().openFile(file))
        std::fprintf(stderr, "%s could not be opened; the window says why\n", qPrintable(file));
}

/// What openFirst opens most likely.
QString likelyFirst(const QStringList& files, bool demo)
{
    if (!files.isEmpty())
        return files.front();
    const QStringList recent = Settings().recentFiles();
    return demo || recent.isEmpty() ? FileDesk::demoPath(findDataFolder()) : recent.front();
}

/// The file that was asked for, what an earlier run left unsaved, the file used last, or the demo.
void openFirst(MainWindow& window, const QStringList& files, bool demo)
{
    if (!files.isEmpty()) {
        openNamed(window, files.front());
        return;
    }
    if (!demo && window.fileDesk().recover())
        return;
    const QStringList recent = Settings().recentFiles();
    if (demo || recent.isEmpty())
        window.fileDesk().openDemo();
    else
        openNamed(window, recent.front());
}

} // namespace

namespace {

int writeSheetAsked(const Options& options)
{
    const QCommandLineParser& parser = options.parser;
    const std::optional<SheetPaper> paper = paperOf(parser.value(options.paper));
    Faults faults;
    if (parser.positionalArguments().size() != 1)
        faults = {{"", "name the design to make a sheet of"}};
    else if (!paper)
        faults = {{"--paper", "a4, letter or phone"}};
    else
        faults =
            writeSheet(findDataFolder(), {parser.positionalArguments().front(), parser.value(options.antenna), parser.value(options.sheet),
                                          parser.value(options.templates), *paper, parser.isSet(options.quick)});
    for (const Fault& fault : faults)
        std::fprintf(stderr, "%s\n", fault.text().c_str());
    return faults.empty() ? 0 : 2;
}

} // namespace

void answerWithoutWindow(QCoreApplication& application) { Options().parser.process(application); }

int start(QApplication& application)
{
    Options options;
    QCommandLineParser& parser = options.parser;
    parser.process(application);

    QTranslator language; // data/translations; ./dev texts
    if (language.load(QLocale(), QStringLiteral("vetchling"), QStringLiteral("_"), findDataFolder() + QStringLiteral("/translations")))
        QCoreApplication::installTranslator(&language);
    if (parser.isSet(options.sheet) || parser.isSet(options.templates))
        return writeSheetAsked(options);
    StandIn::clearLeftovers();
    const QString state = QStandardPaths::writableLocation(QStandardPaths::AppDataLocation) + QStringLiteral("/autosave");
    const QString tables = QStandardPaths::writableLocation(QStandardPaths::CacheLocation) + QStringLiteral("/soil-tables");
    MainWindow window(findDataFolder(), state, tables, likelyFirst(parser.positionalArguments(), parser.isSet(options.demo)));
    qApp->setProperty("yardSeed", parser.isSet(options.shots) ? QVariant(5u) : QVariant()); // the same picture each time
    const bool posing = parser.isSet(options.shots) || parser.isSet(options.picture);
    if (posing) {
        window.resize(1280, 800);
        window.theme().setMode(Theme::Mode::Day);
    }
    if (posing && parser.positionalArguments().isEmpty()) {
        window.fileDesk().openDemo(units::System::Metric);
    } else {
        openFirst(window, parser.positionalArguments(), parser.isSet(options.demo));
    }
    window.show();
    std::unique_ptr<Photographer> photographer;
    if (parser.isSet(options.shots))
        photographer = std::make_unique<Photographer>(window, parser.value(options.shots), documentationShots());
    else if (parser.isSet(options.picture))
        photographer = std::make_unique<Photographer>(window, parser.value(options.picture),
                                                      std::vector<Photographer::Shot>{{"window.png", 1, 0, Theme::Mode::Day}});
    if (parser.isSet(options.quit))
        quitAt(parser.value(options.quit), window);
    return application.exec();
}

} // namespace vetchling::app

#include "start.moc"
