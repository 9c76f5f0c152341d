/// The line to an instrument: silent ones, broken lines, answers that come late; and the program of the stand-ins by itself.
#include "app/document/instrument_link.h"
#include "app/document/stand_in.h"
#include "core/files/design_file.h"
#include "tests/app/patience.h"

#include <QLocalServer>
#include <QLocalSocket>
#include <QtTest>

#include <gtest/gtest.h>

namespace vetchling::app {
namespace {

/// A server that a test plays the instrument at.
class InstrumentTest : public ::testing::Test {
protected:
    void SetUp() override
    {
        ASSERT_TRUE(m_server.listen(m_folder.filePath(QStringLiteral("instrument"))));
        auto socket = std::make_unique<QLocalSocket>();
        socket->connectToServer(m_server.fullServerName());
        ASSERT_TRUE(socket->waitForConnected(2000));
        ASSERT_TRUE(m_server.waitForNewConnection(2000));
        m_far = m_server.nextPendingConnection();
        m_link = std::make_unique<InstrumentLink>(std::move(socket));
    }
    QString heard()
    {
        EXPECT_TRUE(waitedFor([&] { return m_far->canReadLine(); }, 2000));
        return QString::fromUtf8(m_far->readAll());
    }
    void answer(const char* words)
    {
        m_far->write(words);
        m_far->flush();
    }

    QTemporaryDir m_folder;
    QLocalServer m_server;
    QLocalSocket* m_far = nullptr;
    std::unique_ptr<InstrumentLink> m_link;
};

TEST_F(InstrumentTest, QuestionsAreAskedOneAfterTheOther)
{
    QStringList order;
    m_link->ask({QStringLiteral("FIRST 1"), QStringLiteral("FIRST?")},
                [&](const auto& a) { order << (a ? a->join(u'|') : QStringLiteral("none")); });
    m_link->ask({QStringLiteral("ONE?"), QStringLiteral("TWO?")},
                [&](const auto& a) { order << (a ? a->join(u'|') : QStringLiteral("none")); });
    EXPECT_EQ(heard(), QStringLiteral("FIRST 1\nFIRST?\n")) << "the second one waits for the answer to the first";
    answer("ready\n");
    EXPECT_EQ(heard(), QStringLiteral("ONE?\nTWO?\n"));
    answer("1\n");
    QTest::qWait(50);
    EXPECT_EQ(order.size(), 1) << "half an answer is none yet";
    answer("2\r\n");
    ASSERT_TRUE(waitedFor([&] { return order.size() == 2; }, 2000));
    EXPECT_EQ(order, (QStringList{QStringLiteral("ready"), QStringLiteral("1|2")}));
    EXPECT_FALSE(m_link->busy());
}

TEST_F(InstrumentTest, ASilentOneIsGivenUp)
{
    bool silent = false;
    QString later;
    m_link->ask(
        {QStringLiteral("SLOW?")}, [&](const auto& a) { silent = !a; }, 1);
    heard();
    ASSERT_TRUE(waitedFor([&] { return silent; }, 4000));
    answer("too late\n");
    QTest::qWait(50);
    m_link->ask({QStringLiteral("NEXT?")}, [&](const auto& a) { later = a ? a->first() : QString(); });
    EXPECT_EQ(heard(), QStringLiteral("*CLS\n*ESE 1\n*ESE?\n"));
    answer("later still\n1\n");
    EXPECT_EQ(heard(), QStringLiteral("NEXT?\n"));
    answer("42\n");
    ASSERT_TRUE(waitedFor([&] { return !later.isEmpty(); }, 2000));
    EXPECT_EQ(later, QStringLiteral("42")) << "a late answer is nobody's";
}

// 2026-11: an answer that came after the next question had been sent was taken for that one's.
TEST_F(InstrumentTest, AnInstrumentWithoutNumbersIsAskedAfterAWhileOfSilence)
{
    bool silent = false;
    QString later;
    m_link->setStepPatience(300);
    m_link->ask(
        {QStringLiteral("SLOW?")}, [&](const auto& a) { silent = !a; }, 1);
    heard();
    ASSERT_TRUE(waitedFor([&] { return silent; }, 4000));
    m_link->ask({QStringLiteral("NEXT?")}, [&](const auto& a) { later = a ? a->first() : QString(); });
    heard();
    answer("too late\n");
    EXPECT_EQ(heard(), QStringLiteral("NEXT?\n"));
    EXPECT_TRUE(later.isEmpty());
    answer("42\n");
    ASSERT_TRUE(waitedFor([&] { return !later.isEmpty(); }, 2000));
    EXPECT_EQ(later, QStringLiteral("42"));
}

TEST_F(InstrumentTest, ALineWithoutAnEndIsGivenUp)
{
    std::optional<bool> good;
    m_link->ask({QStringLiteral("Q?")}, [&](const auto& a) { good = a.has_value(); });
    heard();
    const QByteArray endless(1 << 20, '7');
    for (int i = 0; i < 6 && !good; ++i) {
        m_far->write(endless);
        QTest::qWait(20);
    }
    ASSERT_TRUE(waitedFor([&] { return good.has_value(); }, 4000));
    EXPECT_FALSE(*good);
}

TEST_F(InstrumentTest, ABrokenLineIsToldToEveryoneWaiting)
{
    int broken = 0, none = 0;
    QObject::connect(m_link.get(), &InstrumentLink::broken, m_link.get(), [&] { ++broken; });
    for (int i = 0; i < 3; ++i)
        m_link->ask({QStringLiteral("Q?")}, [&](const auto& a) { none += !a; });
    heard();
    m_far->disconnectFromServer();
    ASSERT_TRUE(waitedFor([&] { return broken == 1; }, 2000));
    EXPECT_EQ(none, 3);
    m_link->ask({QStringLiteral("Q?")}, [&](const auto& a) { none += !a; });
    EXPECT_EQ(none, 4) << "nothing waits on a line that is broken";
}

TEST_F(InstrumentTest, CommandsAloneWaitForNothing)
{
    bool done = false;
    m_link->ask({QStringLiteral("SET 1"), QStringLiteral("SET 2")}, [&](const auto& a) { done = a && a->isEmpty(); });
    EXPECT_TRUE(done);
    EXPECT_EQ(heard(), QStringLiteral("SET 1\nSET 2\n"));
}

// The link may be deleted by the answer that it hands over.
TEST_F(InstrumentTest, MayGoWhileItAnswers)
{
    m_link->ask({QStringLiteral("LAST?")}, [&](const auto&) { m_link.reset(); });
    heard();
    answer("gone\n");
    EXPECT_TRUE(waitedFor([&] { return !m_link; }, 2000));
}

// ---- the program

struct Ran {
    int code = -1;
    QString words;
};

Ran standIn(const QStringList& arguments)
{
    QProcess process;
    process.start(QFileInfo(QCoreApplication::applicationDirPath() + QStringLiteral("/vetchling-standin")).absoluteFilePath(), arguments);
    EXPECT_TRUE(process.waitForFinished(20000)) << arguments.join(u' ').toStdString();
    return {process.exitCode(), QString::fromUtf8(process.readAllStandardError())};
}

TEST(StandInProgram, RefusesInWords)
{
    const QString garden = QStringLiteral(VETCHLING_TEST_DATA "/garden.vetchling");
    for (const auto& [arguments, words] : std::initializer_list<std::pair<QStringList, const char*>>{
             {{}, "analyser or meter"},
             {{QStringLiteral("oven")}, "analyser or meter"},
             {{QStringLiteral("analyser"), QStringLiteral("--design"), QStringLiteral("/no/such.vetchling")}, "/no/such"},
             {{QStringLiteral("meter"), QStringLiteral("--design"), garden, QStringLiteral("--antenna"), QStringLiteral("nobody")},
              "none of that id"},
             {{QStringLiteral("meter"), QStringLiteral("--design"), garden, QStringLiteral("--listen"), QStringLiteral("/no/place/for/it")},
              "listen"}}) {
        const Ran ran = standIn(arguments);
        EXPECT_EQ(ran.code, 2) << arguments.join(u' ').toStdString();
        EXPECT_TRUE(ran.words.contains(QLatin1String(words))) << ran.words.toStdString();
    }
}

// Every line that can be sent leaves it alive and gets its own answer: nonsense fills the queue of faults and nothing else.
TEST(StandInProgram, OutlivesNonsenseAndLeavesWithItsWindow)
{
    Design design = *files::readDesign(VETCHLING_TEST_DATA "/garden.vetchling");
    StandIn standIn;
    std::unique_ptr<InstrumentLink> link;
    QString why;
    QObject::connect(&standIn, &StandIn::ready, &standIn, [&] { link = std::make_unique<InstrumentLink>(standIn.takeLine()); });
    QObject::connect(&standIn, &StandIn::stopped, &standIn, [&](const QString& words) { why = words; });
    standIn.start(QStringLiteral("analyser"), design, design.antennas.front().id);
    ASSERT_TRUE(waitedFor([&] { return link != nullptr; }, 20000)) << why.toStdString();
    std::optional<QStringList> answers;
    link->ask({QStringLiteral("nonsense"), QStringLiteral(":::"), QStringLiteral("SENS:FREQ:STAR minus"), QString(5000, u'x'),
               QStringLiteral("SYST:ERR?"), QStringLiteral("*IDN?")},
              [&](const auto& a) { answers = a; });
    ASSERT_TRUE(waitedFor([&] { return answers.has_value(); }, 10000));
    EXPECT_TRUE(answers->at(0).startsWith(QStringLiteral("-113")));
    EXPECT_TRUE(answers->at(1).startsWith(QStringLiteral("Vetchling")));
    link.reset();
    EXPECT_TRUE(waitedFor([&] { return why.contains(QStringLiteral("stopped")); }, 10000)) << "nobody is left who would ask";
    EXPECT_FALSE(standIn.running());
}

// What a killed program left is gone at the next start; what one that runs has, stays, and so does everything else.
TEST(StandInProgram, LeftoversOfTheDeadAreCleared)
{
    const auto made = [](const QString& name) {
        const QString path = QDir::temp().filePath(name);
        EXPECT_TRUE(QDir().mkpath(path));
        QFile inside(path + QStringLiteral("/as-planned.vetchling"));
        EXPECT_TRUE(inside.open(QIODevice::WriteOnly));
        return path;
    };
    QProcess gone;
    gone.start(QStringLiteral("/bin/true"), QStringList());
    ASSERT_TRUE(gone.waitForStarted());
    const qint64 dead = gone.processId();
    ASSERT_TRUE(gone.waitForFinished());
    const QString left = made(QStringLiteral("vetchling-standin-%1-abcdef").arg(dead)),
                  used = made(QStringLiteral("vetchling-standin-%1-abcdef").arg(QCoreApplication::applicationPid())),
                  strange = made(QStringLiteral("vetchling-standin-mine"));
    StandIn::clearLeftovers();
    EXPECT_FALSE(QFileInfo::exists(left));
    EXPECT_TRUE(QFileInfo::exists(used));
    EXPECT_TRUE(QFileInfo::exists(strange));
    QDir(used).removeRecursively();
    QDir(strange).removeRecursively();
}

} // namespace
} // namespace vetchling::app
