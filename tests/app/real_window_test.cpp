/// The program itself in a real window on a virtual display: starts, shows the demo, takes keys, recovers after a kill.
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

namespace {

class RealWindow : public ::testing::Test {
protected:
    void SetUp() override
    {
        if (QStandardPaths::findExecutable(QStringLiteral("Xvfb")).isEmpty())
            GTEST_SKIP() << "Xvfb is not installed";
        static int used = 0; // each test its own display: the socket of a stopped server may linger
        m_number = 100 + int(QCoreApplication::applicationPid() % 3000) * 8 + used++;
        m_server.start(QStringLiteral("Xvfb"), {QStringLiteral(":%1").arg(m_number), QStringLiteral("-screen"), QStringLiteral("0"),
                                                QStringLiteral("1280x800x24"), QStringLiteral("-nolisten"), QStringLiteral("tcp"),
                                                QStringLiteral("-noreset")}); // a reset after a client goes refuses the next one
        ASSERT_TRUE(m_server.waitForStarted());
        // the socket is there before the server answers
        ASSERT_TRUE(QTest::qWaitFor([this] { return !xdotool({QStringLiteral("getdisplaygeometry")}).isEmpty(); }, 20000));
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

    /// Keys need the focus, which no window manager gives here.
    void press(const char* keys)
    {
        const QString window =
            xdotool({QStringLiteral("search"), QStringLiteral("--onlyvisible"), QStringLiteral("--name"), QStringLiteral("Vetchling")})
                .section(QLatin1Char('\n'), 0, 0);
        xdotool({QStringLiteral("windowfocus"), window});
        QTest::qWait(300);
        xdotool({QStringLiteral("key"), QLatin1String(keys)});
    }

    bool windowAppears()
    {
        return QTest::qWaitFor(
            [this] {
                return !xdotool({QStringLiteral("search"), QStringLiteral("--name"), QStringLiteral("Vetchling")}).isEmpty();
            },
            30000);
    }

    std::string complaint() { return std::to_string(m_program.state()) + " " + m_program.readAllStandardError().toStdString(); }

    QString autosaved()
    {
        const QDir folder(m_home.filePath(QStringLiteral("data/vetchling/Vetchling/autosave")));
        const QStringList files = folder.entryList({QStringLiteral("*.unsaved")}, QDir::Files);
        return files.isEmpty() ? QString() : folder.filePath(files.front());
    }

    int m_number = 0;
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
    QTest::qWait(1500);
    press("ctrl+u"); // metres to feet: an edit
    ASSERT_TRUE(QTest::qWaitFor([this] { return !autosaved().isEmpty(); }, 20000));
    m_program.kill();
    m_program.waitForFinished();
    ASSERT_FALSE(autosaved().isEmpty());
    const QString left = autosaved();
    ASSERT_TRUE(start({}));
    ASSERT_TRUE(QTest::qWaitFor([&] { return !autosaved().isEmpty() && autosaved() != left; }, 30000)); // taken over as its own
    QFile copy(autosaved());
    ASSERT_TRUE(copy.open(QIODevice::ReadOnly));
    EXPECT_TRUE(copy.readAll().contains("imperial"));
}

TEST_F(RealWindow, AVariantAndACornerAreMadeByKeysAndSaved)
{
    const QString path = m_home.filePath(QStringLiteral("garden.vetchling"));
    ASSERT_TRUE(QFile::copy(QStringLiteral(VETCHLING_TEST_DATA "/garden.vetchling"), path));
    QFile::setPermissions(path, QFile::ReadOwner | QFile::WriteOwner);
    ASSERT_TRUE(start({path}));
    ASSERT_TRUE(windowAppears()) << complaint();
    QTest::qWait(1500);
    const auto saved = [&](const char* words) {
        press("ctrl+s");
        QTest::qWait(500);
        QFile file(path);
        return file.open(QIODevice::ReadOnly) && file.readAll().contains(words);
    };
    press("v");
    EXPECT_TRUE(QTest::qWaitFor([&] { return saved("\"variants\""); }, 15000)) << complaint();
    press("ctrl+1");
    xdotool({QStringLiteral("mousemove"), QStringLiteral("250"), QStringLiteral("590"), QStringLiteral("click"), QStringLiteral("1")});
    for (int i = 0; i < 5; ++i) // four supports, then the cottage
        press("space");
    press("c");
    press("Insert");
    press("shift+Up");
    QTest::qWait(500);
    ASSERT_TRUE(QTest::qWaitFor([&] { return saved("variants"); }, 15000));
    QFile file(path);
    ASSERT_TRUE(file.open(QIODevice::ReadOnly));
    const QJsonObject site = QJsonDocument::fromJson(file.readAll()).object()[QStringLiteral("site")].toObject();
    const QJsonArray outline = site[QStringLiteral("buildings")].toArray().first().toObject()[QStringLiteral("outline_m")].toArray();
    ASSERT_EQ(outline.size(), 5);
    EXPECT_EQ(outline[1].toArray()[1].toDouble(), 2.5) << "a metre up from the middle of the south wall";
}

// Pieces ticked off with cold fingers: a click into the list, then arrows and the space bar.
TEST_F(RealWindow, PiecesAreTickedByKeysAndSaved)
{
    const QString path = m_home.filePath(QStringLiteral("garden.vetchling"));
    ASSERT_TRUE(QFile::copy(QStringLiteral(VETCHLING_TEST_DATA "/garden.vetchling"), path));
    QFile::setPermissions(path, QFile::ReadOwner | QFile::WriteOwner);
    ASSERT_TRUE(start({path}));
    ASSERT_TRUE(windowAppears()) << complaint();
    QTest::qWait(1500);
    press("ctrl+6");
    QTest::qWait(300);
    xdotool({QStringLiteral("mousemove"), QStringLiteral("600"), QStringLiteral("170"), QStringLiteral("click"), QStringLiteral("1")});
    for (int i = 0; i < 6; ++i) // to the cut list, wherever the focus went
        press("Tab");
    const auto pieces = [&] {
        press("ctrl+s");
        QTest::qWait(500);
        QFile file(path);
        return file.open(QIODevice::ReadOnly) ? QJsonDocument::fromJson(file.readAll())
                                                    .object()[QStringLiteral("antennas")]
                                                    .toArray()
                                                    .first()
                                                    .toObject()[QStringLiteral("workshop")]
                                                    .toObject()[QStringLiteral("pieces")]
                                                    .toObject()
                                              : QJsonObject();
    };
    xdotool({QStringLiteral("mousemove"), QStringLiteral("330"), QStringLiteral("245"), QStringLiteral("click"), QStringLiteral("1")});
    press("Down");
    press("space");
    QTest::qWait(300);
    EXPECT_TRUE(QTest::qWaitFor([&] { return pieces().contains(QStringLiteral("leg/2")); }, 15000)) << complaint();
}

// A chain of three parts from an antenna that had none, by keys alone.
TEST_F(RealWindow, AChainIsBuiltByKeysAndSaved)
{
    const QString path = m_home.filePath(QStringLiteral("garden.vetchling"));
    ASSERT_TRUE(QFile::copy(QStringLiteral(VETCHLING_TEST_DATA "/garden.vetchling"), path));
    QFile::setPermissions(path, QFile::ReadOwner | QFile::WriteOwner);
    ASSERT_TRUE(start({path}));
    ASSERT_TRUE(windowAppears()) << complaint();
    QTest::qWait(1500);
    press("ctrl+5");
    xdotool({QStringLiteral("mousemove"), QStringLiteral("600"), QStringLiteral("560"), QStringLiteral("click"), QStringLiteral("1")});
    QTest::qWait(300);
    for (int part = 0; part < 3; ++part) { // each before the one before: choke, line, transformer by their places in the menu
        press("Insert");
        QTest::qWait(400);
        for (int i = 0; i < 3 - part; ++i)
            press("Down");
        press("Return");
        QTest::qWait(400);
    }
    const auto kinds = [&] {
        press("ctrl+s");
        QTest::qWait(500);
        QFile file(path);
        QStringList all;
        if (!file.open(QIODevice::ReadOnly))
            return all;
        const QJsonObject antenna =
            QJsonDocument::fromJson(file.readAll()).object()[QStringLiteral("antennas")].toArray().first().toObject();
        const QJsonArray chains = antenna[QStringLiteral("feed")].toObject()[QStringLiteral("chains")].toArray();
        for (const QJsonValue& part : chains.first().toObject()[QStringLiteral("parts")].toArray())
            all << part.toObject()[QStringLiteral("kind")].toString();
        return all;
    };
    const QStringList wanted{QStringLiteral("transformer"), QStringLiteral("choke"), QStringLiteral("line")};
    QStringList found;
    EXPECT_TRUE(QTest::qWaitFor([&] { return (found = kinds()) == wanted; }, 15000))
        << found.join(QLatin1Char(' ')).toStdString() << complaint();
    press("Delete"); // the transformer, which is chosen
    EXPECT_TRUE(QTest::qWaitFor([&] { return (found = kinds()) == wanted.mid(1); }, 15000)) << found.join(QLatin1Char(' ')).toStdString();
    press("ctrl+z");
    EXPECT_TRUE(QTest::qWaitFor([&] { return (found = kinds()) == wanted; }, 15000)) << found.join(QLatin1Char(' ')).toStdString();
}

TEST_F(RealWindow, QuitsByKeyWithoutLeavingACopy)
{
    ASSERT_TRUE(start({QStringLiteral("--demo")}));
    ASSERT_TRUE(windowAppears()) << complaint();
    QTest::qWait(1500);
    for (int i = 0; i < 10 && m_program.state() == QProcess::Running; ++i) { // a key before the window has the focus is lost
        press("ctrl+q");
        m_program.waitForFinished(2000);
    }
    EXPECT_EQ(m_program.state(), QProcess::NotRunning);
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
