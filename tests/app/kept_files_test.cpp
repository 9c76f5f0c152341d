/// Files that are damaged, changed by others, or of strangers: what is said, and that nothing is lost.
#include "app/document/pictures.h"
#include "app/document/watched_folder.h"
#include "app/stages/trim/log_board.h"
#include "tests/app/app_fixture.h"
#include "tests/damage.h"

#include <QMenu>
#include <QMessageBox>
#include <QPlainTextEdit>

#include <csignal>
#include <malloc.h>
#include <sys/resource.h>
#include <sys/stat.h>
#include <unistd.h>

namespace vetchling::app {
namespace {

using vetchling::testing::damagedText;
using vetchling::testing::Doc;
using vetchling::testing::Place;

class KeptFiles : public WindowTest {
protected:
    void SetUp() override
    {
        WindowTest::SetUp();
        QObject::connect(&window().fileDesk(), &FileDesk::said, &window(), [this](const QString& words) { m_said = words; });
    }
    QByteArray contentOf(const QString& path)
    {
        QFile in(path);
        EXPECT_TRUE(in.open(QIODevice::ReadOnly)) << path.toStdString();
        return in.readAll();
    }
    void put(const QString& path, const QByteArray& content)
    {
        QFile out(path);
        ASSERT_TRUE(out.open(QIODevice::WriteOnly));
        out.write(content);
    }
    Doc gardenJson() { return Doc::parse(contentOf(garden()).toStdString()); }
    /// Presses a button of the next message box.
    void answer(const char* button)
    {
        auto* look = new QTimer(&window());
        QObject::connect(look, &QTimer::timeout, look, [this, look, button] {
            auto* box = qobject_cast<QMessageBox*>(QApplication::activeModalWidget());
            if (!box)
                return;
            look->deleteLater();
            look->stop();
            m_asked = box->text();
            auto* wanted = box->findChild<QPushButton*>(QLatin1String(button));
            EXPECT_TRUE(wanted) << button;
            wanted ? wanted->click() : box->reject();
        });
        look->start(20);
    }
    void editNotes(const char* words)
    {
        document().edit(QStringLiteral("note"), {}, [&](Design& d) { d.site.notes = words; });
    }

    QString m_said, m_asked;
};

TEST_F(KeptFiles, ADamagedMeasurementIsSaidAndStaysInTheFile)
{
    Doc garden = gardenJson();
    garden["antennas"][0]["trim"]["measurements"] = Doc::parse(R"([{"dip_Hz":7.05e6,"sweep":[[7e6,1.2]]},{"dip_Hz":7.06e6}])");
    const QString path = file("damaged.vetchling");
    put(path, QByteArray::fromStdString(damagedText(garden, Place("/antennas/0/trim/measurements/0/sweep/0/1"), "nan")));
    ASSERT_TRUE(window().fileDesk().openFile(path));
    EXPECT_EQ(document().design().antennas.size(), garden["antennas"].size());
    EXPECT_EQ(document().antenna().trim.measurements.size(), 1U);
    EXPECT_TRUE(m_said.contains(QStringLiteral("measurement 1"))) << m_said.toStdString();
    EXPECT_TRUE(m_said.contains(QString::fromStdString(garden["antennas"][0]["name"]))) << m_said.toStdString();
    editNotes("windy");
    ASSERT_TRUE(window().fileDesk().save());
    const QByteArray saved = contentOf(path);
    EXPECT_TRUE(saved.contains("NaN"));
    EXPECT_TRUE(saved.contains("windy"));
}

TEST_F(KeptFiles, NothingIsCutByALogThatIsNotWhole)
{
    Doc garden = gardenJson();
    garden["antennas"][0]["trim"]["measurements"] = Doc::parse(R"([{"dip_Hz":7.05e6,"cut_each_end_m":0.1},{"dip_Hz":7.06e6}])");
    const QString path = file("damaged.vetchling");
    put(path, QByteArray::fromStdString(damagedText(garden, Place("/antennas/0/trim/measurements/0/cut_each_end_m"), "text")));
    ASSERT_TRUE(window().fileDesk().openFile(path));
    auto* strip = find<DamageStrip>("damageStrip");
    for (int i = 0; i < window().stageCount(); ++i) {
        window().showStage(i);
        EXPECT_TRUE(strip->isVisible()) << i;
    }
    EXPECT_TRUE(strip->words().contains(QStringLiteral("antennas[0].trim.measurements[0]"))) << strip->words().toStdString();
    EXPECT_TRUE(find<LogBoard>("logBoard")->sentence().contains(QStringLiteral("antennas[0].trim")));
    document().setCurrent(document().design().antennas[1].id);
    EXPECT_FALSE(strip->isVisible()) << "another antenna";
    document().setCurrent(document().design().antennas[0].id);
    EXPECT_TRUE(strip->isVisible());
    find<QPushButton>("showDamage")->click();
    find<QPushButton>("forgetDamage")->click();
    window().showStage(0);
    EXPECT_FALSE(strip->isVisible());
}

TEST_F(KeptFiles, WhatCouldNotBeReadIsListedAndCanBeDropped)
{
    const QString path = file("damaged.vetchling");
    put(path, QByteArray::fromStdString(damagedText(gardenJson(), Place("/operation/power_W"), "text")));
    ASSERT_TRUE(window().fileDesk().openFile(path));
    find<QAction>("actionDamage")->trigger();
    EXPECT_TRUE(find<QPlainTextEdit>("damageList")->toPlainText().contains(QStringLiteral("power_W")));
    find<QPushButton>("forgetDamage")->click();
    EXPECT_FALSE(document().damage());
    ASSERT_TRUE(window().fileDesk().save());
    EXPECT_EQ(Doc::parse(contentOf(path).toStdString())["operation"]["power_W"], 100.0);
    document().undoStack().undo();
    EXPECT_TRUE(document().damage());
}

TEST_F(KeptFiles, ACutFileIsOpenedAndNotWrittenOver)
{
    const QString path = file("cut.vetchling");
    const QByteArray whole = contentOf(garden()), cut = whole.left(whole.size() - 400);
    put(path, cut);
    ASSERT_TRUE(window().fileDesk().openFile(path));
    EXPECT_TRUE(m_said.contains(QStringLiteral("not whole"))) << m_said.toStdString();
    EXPECT_EQ(document().design().antennas.size(), gardenJson()["antennas"].size() - 1);
    editNotes("windy");
    EXPECT_FALSE(window().fileDesk().saveTo(path));
    EXPECT_EQ(contentOf(path), cut);
    Autosave copies(document(), file("copies"));
    copies.write();
    copies.finish();
    EXPECT_TRUE(contentOf(copies.path()).startsWith('\n')) << "nor after a crash";
    ASSERT_TRUE(window().fileDesk().saveTo(file("rest.vetchling")));
    editNotes("calm");
    EXPECT_TRUE(window().fileDesk().save()) << "under its new name it is a file like others";
    EXPECT_TRUE(contentOf(file("rest.vetchling")).contains("calm"));
}

TEST_F(KeptFiles, TwoWindowsOnOneFileKeepBothVersions)
{
    const QString path = file("both.vetchling");
    put(path, contentOf(garden()));
    ASSERT_TRUE(window().fileDesk().openFile(path));
    Document other;
    ASSERT_TRUE(other.open(path).empty());
    other.edit(QStringLiteral("12 m"), {}, [](Design& d) { d.site.notes = "12 m"; });
    ASSERT_TRUE(other.save(path).empty());
    editNotes("11 m");
    answer("cancelSave");
    EXPECT_FALSE(window().fileDesk().save());
    EXPECT_TRUE(m_asked.contains(QStringLiteral("was changed by another"))) << m_asked.toStdString();
    EXPECT_TRUE(contentOf(path).contains("12 m"));
    answer("keepBoth");
    EXPECT_TRUE(window().fileDesk().save());
    EXPECT_TRUE(contentOf(path).contains("11 m"));
    EXPECT_TRUE(contentOf(file("both-1.vetchling")).contains("12 m"));
    editNotes("10 m");
    EXPECT_TRUE(window().fileDesk().save()) << "its own saving is no change by others";
}

TEST_F(KeptFiles, AFolderThatCannotBeWrittenIsSaid)
{
    QDir().mkpath(file("stick"));
    const QString path = file("stick/a.vetchling");
    put(path, contentOf(garden()));
    ASSERT_TRUE(window().fileDesk().openFile(path));
    ASSERT_TRUE(QDir().rename(file("stick"), file("pulled out")));
    editNotes("windy");
    EXPECT_FALSE(window().fileDesk().save());
    EXPECT_TRUE(m_said.contains(QStringLiteral("cannot be written"))) << m_said.toStdString();
    EXPECT_TRUE(document().modified());
    ASSERT_TRUE(QDir().rename(file("pulled out"), file("stick")));
    EXPECT_TRUE(window().fileDesk().save());
    EXPECT_TRUE(contentOf(path).contains("windy"));
}

TEST_F(KeptFiles, AFullDiskLeavesTheOldFileAndIsSaid)
{
    const QString path = file("full.vetchling");
    put(path, contentOf(garden()));
    ASSERT_TRUE(window().fileDesk().openFile(path));
    editNotes("windy");
    const struct rlimit small {
        100, RLIM_INFINITY
    };
    struct rlimit before {};
    ASSERT_EQ(::getrlimit(RLIMIT_FSIZE, &before), 0);
    ::signal(SIGXFSZ, SIG_IGN);
    ASSERT_EQ(::setrlimit(RLIMIT_FSIZE, &small), 0);
    const bool saved = window().fileDesk().save();
    ASSERT_EQ(::setrlimit(RLIMIT_FSIZE, &before), 0);
    EXPECT_FALSE(saved);
    EXPECT_EQ(contentOf(path), contentOf(garden()));
    EXPECT_FALSE(m_said.isEmpty());
    EXPECT_TRUE(document().modified());
    EXPECT_TRUE(window().fileDesk().save());
}

/// A copy that a run left behind which did not end well.
QString leaveCopy(const QString& folder, const QByteArray& original, const QByteArray& design)
{
    QDir().mkpath(folder);
    const QString path = folder + QStringLiteral("/1-1.unsaved");
    QFile out(path);
    EXPECT_TRUE(out.open(QIODevice::WriteOnly));
    out.write(original + '\n' + design);
    return path;
}

TEST_F(KeptFiles, ADamagedRecoveryCopyIsSaidAndStays)
{
    const QString copy = leaveCopy(file("autosave"), "", "this is no design");
    answer("leaveCopy");
    EXPECT_FALSE(window().fileDesk().recover());
    EXPECT_TRUE(m_asked.contains(QStringLiteral("damaged"))) << m_asked.toStdString();
    EXPECT_TRUE(QFile::exists(copy));
}

// What is left of it must not be saved over the design that is whole.
TEST_F(KeptFiles, ACutRecoveryCopyIsOpenedUnderNoName)
{
    const QByteArray whole = contentOf(garden());
    const QString path = file("mine.vetchling");
    put(path, whole);
    const QString copy = leaveCopy(file("autosave"), path.toUtf8(), whole.left(whole.size() - 400));
    answer("openDamagedCopy");
    EXPECT_TRUE(window().fileDesk().recover());
    EXPECT_TRUE(document().path().isEmpty());
    EXPECT_TRUE(document().modified());
    EXPECT_TRUE(QFile::exists(copy));
    EXPECT_EQ(contentOf(path), whole);
}

// 2026-11: a copy older than its file was passed over without a word, and when it was opened it was saved over the newer file.
TEST_F(KeptFiles, ACopyThatIsOlderThanItsFileIsOfferedAndNotSavedOverIt)
{
    const QString path = file("mine.vetchling");
    Doc changed = gardenJson();
    changed["site"]["notes"] = "from the copy";
    const QString copy = leaveCopy(file("autosave"), path.toUtf8(), QByteArray::fromStdString(changed.dump()));
    QTest::qWait(20);
    put(path, contentOf(garden()));
    answer("keepCopy");
    ASSERT_TRUE(window().fileDesk().openFile(path));
    EXPECT_TRUE(m_asked.contains(QStringLiteral("saved later"))) << m_asked.toStdString();
    EXPECT_TRUE(QFile::exists(copy));
    answer("takeCopy");
    ASSERT_TRUE(window().fileDesk().openFile(path));
    EXPECT_EQ(document().design().site.notes, "from the copy");
    answer("keepBoth");
    EXPECT_TRUE(window().fileDesk().save());
    EXPECT_TRUE(contentOf(path).contains("from the copy"));
    EXPECT_EQ(contentOf(file("mine-1.vetchling")), contentOf(garden()));
}

TEST_F(KeptFiles, ARecoveryCopyWithADamagedPartOpensWithTheRest)
{
    leaveCopy(file("autosave"), "", QByteArray::fromStdString(damagedText(gardenJson(), Place("/antennas/1/parameters"), "null")));
    ASSERT_TRUE(window().fileDesk().recover());
    EXPECT_EQ(document().design().antennas.size(), gardenJson()["antennas"].size() - 1);
    EXPECT_TRUE(m_said.contains(QString::fromStdString(gardenJson()["antennas"][1]["name"]))) << m_said.toStdString();
}

// 2026-11: sixty sweeps of a thousand points and five hundred steps made a gigabyte.
TEST(UndoSteps, FiveHundredOfThemHoldSixtySweepsOnce)
{
    Document document;
    ASSERT_TRUE(document.open(QStringLiteral(VETCHLING_TEST_DATA "/garden.vetchling")).empty());
    Measurement m;
    m.dip = 7.05e6;
    m.sweep = std::vector<std::pair<double, double>>(1000, {7e6, 1.5});
    m.impedance = std::vector<Complex>(1000, {50.0, 1.0});
    document.editAntenna(QStringLiteral("measure"), {}, [&](Antenna& a) {
        for (int i = 0; i < 60; ++i) {
            m.id = "m" + std::to_string(i);
            m.sweep = std::vector<std::pair<double, double>>(1000, {7e6 + i, 1.5});
            a.trim.measurements.push_back(m);
        }
    });
    const auto* held = document.antenna().trim.measurements.back().sweep.list().data();
    const std::size_t before = ::mallinfo2().uordblks;
    for (int i = 0; i < 500; ++i)
        document.edit(QStringLiteral("note"), {}, [&](Design& d) { d.site.notes = std::to_string(i); });
    EXPECT_EQ(document.undoStack().count(), 500);
    EXPECT_LT(double(::mallinfo2().uordblks) - double(before), 60e6);
    EXPECT_EQ(document.antenna().trim.measurements.back().sweep.list().data(), held);
    for (int i = 0; i < 400; ++i)
        document.undoStack().undo();
    EXPECT_EQ(document.design().site.notes, "99");
    EXPECT_GE(document.antenna().trim.measurements.size(), 60U);
}

// ---- pictures

class Pictures : public ::testing::Test {
protected:
    Pictures()
    {
        QDir(m_home.path()).mkpath(QStringLiteral("site/pictures"));
        QImage image(40, 30, QImage::Format_RGB32);
        image.fill(Qt::darkGreen);
        for (const char* name : {"site/pictures/in.png", "site/beside.png", "outside.png"})
            EXPECT_TRUE(image.save(path(name)));
    }
    QString path(const char* name) { return m_home.filePath(QLatin1String(name)); }
    Picture found(const std::string& kept) { return findPicture(path("site/a.vetchling"), kept); }

    QTemporaryDir m_home;
};

TEST_F(Pictures, OnlyThoseBesideTheDesignAreShown)
{
    EXPECT_FALSE(found("pictures/in.png").path.isEmpty());
    EXPECT_FALSE(found("beside.png").path.isEmpty());
    EXPECT_FALSE(smallPicture(found("beside.png"), {10, 10}).isNull());
    EXPECT_FALSE(found(path("site/beside.png").toStdString()).path.isEmpty()) << "an older design tells the whole path";
    for (const std::string strange : {"../outside.png", "/etc/passwd", "nowhere.png", ""}) {
        EXPECT_TRUE(found(strange).path.isEmpty()) << strange;
        EXPECT_FALSE(found(strange).trouble.isEmpty()) << strange;
    }
    QFile::link(path("outside.png"), path("site/link.png"));
    EXPECT_TRUE(found("link.png").path.isEmpty()) << "a link leads out";
    EXPECT_TRUE(findPicture({}, path("outside.png").toStdString()).path.isEmpty());
}

TEST_F(Pictures, PipesTextsAndHugeOnesAreRefusedInWords)
{
    ASSERT_EQ(::mkfifo(QFile::encodeName(path("site/pipe.png")).constData(), 0600), 0);
    EXPECT_TRUE(found("pipe.png").trouble.contains(QStringLiteral("no ordinary file")));
    QFile text(path("site/text.png"));
    ASSERT_TRUE(text.open(QIODevice::WriteOnly));
    text.write("#!/bin/sh\n");
    text.close();
    EXPECT_TRUE(found("text.png").trouble.contains(QStringLiteral("no picture")));
    QFile huge(path("site/huge.ppm")); // its head alone says how large it is
    ASSERT_TRUE(huge.open(QIODevice::WriteOnly));
    huge.write("P6\n20000 20000\n255\n");
    huge.close();
    EXPECT_TRUE(found("huge.ppm").trouble.contains(QStringLiteral("400 million pixels"))) << found("huge.ppm").trouble.toStdString();
}

TEST_F(Pictures, OneFromElsewhereIsCopiedBesideTheDesign)
{
    const QString design = path("site/a.vetchling");
    EXPECT_EQ(keepPicture(design, path("site/pictures/in.png")).kept, "pictures/in.png");
    EXPECT_EQ(keepPicture(design, path("outside.png")).kept, "outside.png");
    EXPECT_TRUE(QFile::exists(path("site/outside.png")));
    EXPECT_EQ(keepPicture(design, path("outside.png")).kept, "outside-1.png") << "what is there is not written over";
    EXPECT_FALSE(keepPicture({}, path("outside.png")).trouble.isEmpty());
    EXPECT_FALSE(keepPicture(design, path("nowhere.png")).trouble.isEmpty());
}

TEST_F(Pictures, GoAlongWhenTheDesignIsSavedElsewhere)
{
    Design design;
    design.site.pictures = {"pictures/in.png", "nowhere.png", "../outside.png"};
    QDir(m_home.path()).mkpath(QStringLiteral("other"));
    EXPECT_TRUE(carryPictures(design, path("site/a.vetchling"), path("other/a.vetchling")).isEmpty());
    EXPECT_TRUE(QFile::exists(path("other/pictures/in.png")));
    EXPECT_FALSE(findPicture(path("other/a.vetchling"), "pictures/in.png").path.isEmpty());
}

// ---- a watched folder

class Watched : public ::testing::Test {
protected:
    Watched()
    {
        m_folder.setPauses(60, 60);
        QObject::connect(&m_folder, &WatchedFolder::saved, [this](const QString& path) {
            QFile file(path);
            EXPECT_TRUE(file.open(QIODevice::ReadOnly));
            m_told << file.readAll();
        });
    }
    void put(const char* content, QIODevice::OpenMode mode = QIODevice::WriteOnly)
    {
        QFile out(m_home.filePath(QStringLiteral("a.csv")));
        ASSERT_TRUE(out.open(mode));
        out.write(content);
    }
    bool told(int count)
    {
        return waitedFor([&] { return m_told.size() >= count; }, 5000);
    }

    QTemporaryDir m_home;
    WatchedFolder m_folder{{QStringLiteral("*.csv")}};
    QList<QByteArray> m_told;
};

TEST_F(Watched, AFileThatIsSavedAgainUnderItsNameIsToldAgain)
{
    put("old");
    ASSERT_TRUE(m_folder.watch(m_home.path()));
    QTest::qWait(300);
    EXPECT_TRUE(m_told.isEmpty());
    put("new");
    ASSERT_TRUE(told(1));
    put("newer");
    ASSERT_TRUE(told(2));
    EXPECT_EQ(m_told, (QList<QByteArray>{"new", "newer"}));
}

TEST_F(Watched, OneThatIsStillBeingWrittenIsToldWhenItIsWhole)
{
    m_folder.setPauses(250, 60);
    ASSERT_TRUE(m_folder.watch(m_home.path()));
    put("1");
    for (int i = 0; i < 8; ++i) {
        QTest::qWait(50);
        put("1", QIODevice::Append);
    }
    ASSERT_TRUE(told(1));
    EXPECT_EQ(m_told.first(), "111111111");
}

TEST_F(Watched, AFolderThatGoesIsSaid)
{
    QString lost;
    QObject::connect(&m_folder, &WatchedFolder::lost, [&](const QString& folder) { lost = folder; });
    QDir(m_home.path()).mkpath(QStringLiteral("gone"));
    ASSERT_TRUE(m_folder.watch(m_home.filePath(QStringLiteral("gone"))));
    QDir(m_home.path()).rmdir(QStringLiteral("gone"));
    EXPECT_TRUE(waitedFor([&] { return !lost.isEmpty(); }, 5000));
    EXPECT_FALSE(m_folder.watch(m_home.filePath(QStringLiteral("gone"))));
}

// 2026-12: the stack of changes told the window, which was half taken down by then, that nothing was unsaved any more.
TEST_F(WindowTest, EndsWithUnsavedChanges)
{
    document().edit(QStringLiteral("rename"), {}, [](Design& d) { d.site.name = "elsewhere"; });
    ASSERT_FALSE(document().undoStack().isClean());
    m_window.reset();
    m_window = std::make_unique<MainWindow>(QStringLiteral(VETCHLING_SOURCE_DATA), file("autosave"),
                                            qEnvironmentVariable("VETCHLING_TEST_TABLES"));
}

} // namespace
} // namespace vetchling::app
