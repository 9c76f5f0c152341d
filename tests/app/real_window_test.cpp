/// The program itself in a real window on a virtual display: starts, shows the demo, takes keys, recovers after a kill.
#include "app/window/main_window.h"
#include "core/files/design_file.h"
#include "tests/app/patience.h"

#include <QDir>
#include <QFile>
#include <QImage>
#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <QProcess>
#include <QStandardPaths>
#include <QTemporaryDir>
#include <QtTest>

#include <gtest/gtest.h>

namespace vetchling {
namespace {

class RealWindow : public ::testing::Test {
protected:
    void SetUp() override
    {
        if (QStandardPaths::findExecutable(QStringLiteral("Xvfb")).isEmpty())
            GTEST_SKIP() << "Xvfb is not installed";
        m_server.start(QStringLiteral("Xvfb"),
                       {QStringLiteral("-displayfd"), QStringLiteral("1"), QStringLiteral("-screen"), QStringLiteral("0"),
                        QStringLiteral("1280x800x24"), QStringLiteral("-nolisten"), QStringLiteral("tcp"),
                        QStringLiteral("-noreset")}); // a reset after a client goes refuses the next one
        ASSERT_TRUE(m_server.waitForStarted());
        QByteArray number; // a free one, which the server picks
        ASSERT_TRUE(app::waitedFor([&] { return (number += m_server.readAllStandardOutput()).endsWith('\n'); }, 30000));
        m_number = number.trimmed().toInt();
        // the socket is there before the server answers
        ASSERT_TRUE(app::waitedFor([this] { return !xdotool({QStringLiteral("getdisplaygeometry")}).isEmpty(); }, 20000));
    }
    void TearDown() override
    {
        m_program.kill();
        m_program.waitForFinished(5000);
        m_server.terminate();
        m_server.waitForFinished(5000);
    }

    QProcessEnvironment environment()
    {
        QProcessEnvironment e = QProcessEnvironment::systemEnvironment();
        e.insert(QStringLiteral("DISPLAY"), QStringLiteral(":%1").arg(m_number));
        e.insert(QStringLiteral("QT_QPA_PLATFORM"), QStringLiteral("xcb"));
        e.insert(QStringLiteral("HOME"), m_home.path());
        e.insert(QStringLiteral("XDG_CONFIG_HOME"), m_home.filePath(QStringLiteral("config")));
        e.insert(QStringLiteral("XDG_DATA_HOME"), m_home.filePath(QStringLiteral("data")));
        e.insert(QStringLiteral("XDG_CACHE_HOME"),
                 e.value(QStringLiteral("VETCHLING_TEST_TABLES"), m_home.filePath(QStringLiteral("cache"))));
        e.insert(QStringLiteral("XDG_RUNTIME_DIR"), m_home.path());
        return e;
    }

    bool start(const QStringList& arguments)
    {
        m_program.setProcessEnvironment(environment());
        m_program.start(QStringLiteral(VETCHLING_PROGRAM), arguments);
        return m_program.waitForStarted();
    }

    QString xdotool(const QStringList& arguments)
    {
        QProcess tool;
        tool.setProcessEnvironment(environment());
        tool.start(QStringLiteral("xdotool"), arguments);
        tool.waitForFinished(10000);
        return QString::fromUtf8(tool.readAllStandardOutput()).trimmed();
    }

    /// Number of the program's window; empty while it shows none.
    QString shownWindow()
    {
        return xdotool({QStringLiteral("search"), QStringLiteral("--onlyvisible"), QStringLiteral("--name"), QStringLiteral("Vetchling")})
            .section(QLatin1Char('\n'), 0, 0);
    }

    /// Clock ticks that the program has computed so far.
    QByteArray computed()
    {
        QFile file(QStringLiteral("/proc/%1/stat").arg(m_program.processId()));
        return file.open(QIODevice::ReadOnly) ? file.readAll().split(' ').mid(13, 2).join(' ') : QByteArray();
    }

    /// Shows its window, and has nothing left to do: it listens.
    bool windowAppears()
    {
        if (!app::waitedFor([this] { return !shownWindow().isEmpty(); }, 60000))
            return false;
        constexpr int samples = 4;
        QByteArray last;
        int same = 0;
        return app::waitedFor(
            [&] {
                QThread::msleep(100);
                const QByteArray now = computed();
                same = now == last ? same + 1 : 0;
                last = now;
                return same >= samples;
            },
            60000);
    }

    /// Number of the window behind all others.
    QString rootWindow()
    {
        QProcess tool;
        tool.setProcessEnvironment(environment());
        tool.start(QStringLiteral("xwininfo"), {QStringLiteral("-root"), QStringLiteral("-int")});
        tool.waitForFinished(10000);
        return QString::fromUtf8(tool.readAllStandardOutput()).section(QStringLiteral("Window id: "), 1).section(QLatin1Char(' '), 0, 0);
    }

    /// Keys need the focus, which no window manager gives here; they are taken in their order, however slow the program is. It is taken
    /// away and given anew: a program that was not yet listening when it came never knew of it.
    void press(const QStringList& keys)
    {
        const QString window = shownWindow();
        xdotool({QStringLiteral("windowfocus"), rootWindow()});
        const bool focused = app::waitedFor(
            [&] {
                xdotool({QStringLiteral("windowfocus"), window});
                return xdotool({QStringLiteral("getwindowfocus")}) == window;
            },
            20000);
        EXPECT_TRUE(focused) << complaint();
        xdotool(QStringList{QStringLiteral("key")} + keys);
    }
    void press(const char* keys) { press(QStringList{QLatin1String(keys)}); }

    /// Where something stands in a window of this size: asked of one that is not shown.
    static QPoint placeOf(int stage, const char* widget, double acrossShare, double downShare)
    {
        const QTemporaryDir home;
        app::MainWindow window(QStringLiteral(VETCHLING_SOURCE_DATA), home.filePath(QStringLiteral("autosave")));
        window.fileDesk().openNew(*files::readDesign(VETCHLING_TEST_DATA "/garden.vetchling"));
        window.resize(1280, 800);
        window.show();
        window.showStage(stage);
        QCoreApplication::processEvents();
        const auto* found = window.findChild<QWidget*>(QLatin1String(widget));
        EXPECT_TRUE(found && found->isVisible()) << widget;
        const QPoint place =
            found ? found->mapTo(&window, QPoint(int(acrossShare * found->width()), int(downShare * found->height()))) : QPoint();
        window.document().undoStack().setClean();
        return place;
    }
    void click(QPoint place)
    {
        xdotool({QStringLiteral("mousemove"), QString::number(place.x()), QString::number(place.y()), QStringLiteral("click"),
                 QStringLiteral("1")});
    }

    /// A copy of the garden, opened by the program.
    void openGarden()
    {
        m_path = m_home.filePath(QStringLiteral("garden.vetchling"));
        ASSERT_TRUE(QFile::copy(QStringLiteral(VETCHLING_TEST_DATA "/garden.vetchling"), m_path));
        QFile::setPermissions(m_path, QFile::ReadOwner | QFile::WriteOwner);
        ASSERT_TRUE(start({m_path}));
        ASSERT_TRUE(windowAppears()) << complaint();
    }

    /// Saves until the file is as wanted.
    bool savedWhen(const std::function<bool(const QJsonObject&)>& wanted)
    {
        QElapsedTimer since;
        since.start();
        while (since.elapsed() < 30000) {
            press("ctrl+s");
            const bool now = app::waitedFor(
                [&] {
                    QFile file(m_path);
                    return file.open(QIODevice::ReadOnly) && wanted(QJsonDocument::fromJson(file.readAll()).object());
                },
                1000);
            if (now)
                return true;
        }
        return false;
    }
    static QJsonObject firstAntenna(const QJsonObject& design) { return design[QStringLiteral("antennas")].toArray().first().toObject(); }

    std::string complaint() { return std::to_string(m_program.state()) + " " + m_program.readAllStandardError().toStdString(); }

    QString autosaved()
    {
        const QDir folder(m_home.filePath(QStringLiteral("data/vetchling/Vetchling/autosave")));
        const QStringList files = folder.entryList({QStringLiteral("*.unsaved")}, QDir::Files);
        return files.isEmpty() ? QString() : folder.filePath(files.front());
    }

    int m_number = 0;
    QString m_path; ///< of the design that is open
    QTemporaryDir m_home;
    QProcess m_server, m_program;
};

TEST_F(RealWindow, ShowsTheDemoAndTakesAPicture)
{
    ASSERT_TRUE(start({QStringLiteral("--demo"), QStringLiteral("--picture"), m_home.path()}));
    ASSERT_TRUE(m_program.waitForFinished(90000));
    EXPECT_EQ(m_program.exitCode(), 0);
    const QImage picture(m_home.filePath(QStringLiteral("window.png")));
    ASSERT_FALSE(picture.isNull());
    EXPECT_EQ(picture.size(), QSize(1280, 800));
    QSet<QRgb> colours;
    for (int y = 0; y < picture.height(); y += 3)
        for (int x = 0; x < picture.width(); x += 3)
            colours.insert(picture.pixel(x, y));
    EXPECT_GT(colours.size(), 60); // a drawn window, not an empty one
}

TEST_F(RealWindow, UnsavedWorkComesBackAfterAKill)
{
    ASSERT_TRUE(start({QStringLiteral("--demo")}));
    ASSERT_TRUE(windowAppears()) << complaint();
    press("ctrl+u"); // metres to feet: an edit
    ASSERT_TRUE(app::waitedFor([this] { return !autosaved().isEmpty(); }, 20000));
    m_program.kill();
    m_program.waitForFinished();
    ASSERT_FALSE(autosaved().isEmpty());
    const QString left = autosaved();
    ASSERT_TRUE(start({}));
    ASSERT_TRUE(app::waitedFor([&] { return !autosaved().isEmpty() && autosaved() != left; }, 30000)); // taken over as its own
    QFile copy(autosaved());
    ASSERT_TRUE(copy.open(QIODevice::ReadOnly));
    EXPECT_TRUE(copy.readAll().contains("imperial"));
}

TEST_F(RealWindow, AVariantAndACornerAreMadeByKeysAndSaved)
{
    openGarden();
    press("v");
    EXPECT_TRUE(savedWhen([](const QJsonObject& d) { return firstAntenna(d).contains(QStringLiteral("variants")); })) << complaint();
    press("ctrl+1");
    click(placeOf(0, "sitePlan", 0.04, 0.85));
    const QString space = QStringLiteral("space"); // four supports, then the cottage
    press({space, space, space, space, space, QStringLiteral("c"), QStringLiteral("Insert"), QStringLiteral("shift+Up")});
    const auto outline = [](const QJsonObject& design) {
        return design[QStringLiteral("site")]
            .toObject()[QStringLiteral("buildings")]
            .toArray()
            .first()
            .toObject()[QStringLiteral("outline_m")]
            .toArray();
    };
    EXPECT_TRUE(savedWhen([&](const QJsonObject& d) { return outline(d).size() == 5 && outline(d)[1].toArray()[1].toDouble() == 2.5; }))
        << "a metre up from the middle of the south wall" << complaint();
}

// Pieces ticked off with cold fingers: a click into the list, then arrows and the space bar.
TEST_F(RealWindow, PiecesAreTickedByKeysAndSaved)
{
    openGarden();
    press("ctrl+6");
    click(placeOf(5, "cutBoard", 0.01, 0.01));
    press({QStringLiteral("Down"), QStringLiteral("space")});
    const auto pieces = [](const QJsonObject& design) {
        return firstAntenna(design)[QStringLiteral("workshop")].toObject()[QStringLiteral("pieces")].toObject();
    };
    EXPECT_TRUE(savedWhen([&](const QJsonObject& d) { return pieces(d).contains(QStringLiteral("leg/2")); })) << complaint();
}

// A chain of three parts from an antenna that had none, by keys alone.
TEST_F(RealWindow, AChainIsBuiltByKeysAndSaved)
{
    openGarden();
    press("ctrl+5");
    click(placeOf(4, "lossBoard", 0.5, 0.9));
    QStringList keys;
    for (int part = 0; part < 3; ++part) { // each before the one before: choke, line, transformer by their places in the menu
        keys << QStringLiteral("Insert");
        for (int i = 0; i < 3 - part; ++i)
            keys << QStringLiteral("Down");
        keys << QStringLiteral("Return");
    }
    press(keys);
    QStringList found;
    const auto has = [&](const QStringList& wanted) {
        return [&found, wanted](const QJsonObject& design) {
            found.clear();
            const QJsonArray chains = firstAntenna(design)[QStringLiteral("feed")].toObject()[QStringLiteral("chains")].toArray();
            for (const QJsonValue& part : chains.first().toObject()[QStringLiteral("parts")].toArray())
                found << part.toObject()[QStringLiteral("kind")].toString();
            return found == wanted;
        };
    };
    const QStringList wanted{QStringLiteral("transformer"), QStringLiteral("choke"), QStringLiteral("line")};
    EXPECT_TRUE(savedWhen(has(wanted))) << found.join(QLatin1Char(' ')).toStdString() << complaint();
    press("Delete"); // the transformer, which is chosen
    EXPECT_TRUE(savedWhen(has(wanted.mid(1)))) << found.join(QLatin1Char(' ')).toStdString();
    press("ctrl+z");
    EXPECT_TRUE(savedWhen(has(wanted))) << found.join(QLatin1Char(' ')).toStdString();
}

TEST_F(RealWindow, QuitsByKeyWithoutLeavingACopy)
{
    ASSERT_TRUE(start({QStringLiteral("--demo")}));
    ASSERT_TRUE(windowAppears()) << complaint();
    press("ctrl+q");
    EXPECT_TRUE(m_program.waitForFinished(20000)) << complaint();
    EXPECT_EQ(m_program.exitCode(), 0);
    EXPECT_TRUE(autosaved().isEmpty());
}

// 2026-11: the demo opened in place of a file that was moved away, and its opening wiped off the words.
TEST_F(RealWindow, SaysSoWhenTheFileUsedLastIsGone)
{
    const QString folder = m_home.filePath(QStringLiteral("config/vetchling"));
    ASSERT_TRUE(QDir().mkpath(folder));
    QSettings(folder + QStringLiteral("/Vetchling.conf"), QSettings::IniFormat)
        .setValue(QStringLiteral("recentFiles"), QStringList{QStringLiteral("/gone/garden.vetchling")});
    ASSERT_TRUE(start({QStringLiteral("--quit-at"), QStringLiteral("rest")}));
    ASSERT_TRUE(m_program.waitForFinished(60000));
    EXPECT_TRUE(m_program.readAllStandardError().contains("/gone/garden.vetchling could not be opened"));
}

TEST_F(RealWindow, TellsItsVersionAndOptions)
{
    ASSERT_TRUE(start({QStringLiteral("--help")}));
    ASSERT_TRUE(m_program.waitForFinished(20000));
    const QString words = QString::fromUtf8(m_program.readAllStandardOutput());
    EXPECT_TRUE(words.contains(QStringLiteral("--demo")));
    EXPECT_TRUE(words.contains(QStringLiteral("[file]")));
}

} // namespace
} // namespace vetchling
