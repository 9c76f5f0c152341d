/// The bench as it is used: ticks, measures, allowances, parts, cores, limits, and what comes out on paper.
#include "app/document/build_desk.h"
#include "app/plots/scene/camera.h"
#include "app/stages/build/build_drawings.h"
#include "app/stages/build/choke_board.h"
#include "app/stages/build/cut_board.h"
#include "app/stages/build/parts_board.h"
#include "app/stages/build/safety_board.h"
#include "app/window/sheet_writer.h"
#include "core/files/workshop_file.h"
#include "core/line/parts.h"
#include "core/trim/next_step.h"
#include "tests/app/app_fixture.h"
#include "tests/long_form.h"

#include <QFileDialog>

namespace vetchling::app {
namespace {

class BuildTest : public WindowTest {
protected:
    void SetUp() override
    {
        WindowTest::SetUp();
        show("build");
    }
    void view(const char* name) { find<QToolButton>(name)->click(); }
    CutBoard& cut() { return *find<CutBoard>("cutBoard"); }
    const Workshop& workshop() { return document().antenna().workshop; }
    QString table() { return window().stage(QStringLiteral("build"))->tableText(); }

    /// The design as it is, in a file.
    QString saved()
    {
        EXPECT_TRUE(document().save(file("as-it-is.vetchling")).empty());
        return file("as-it-is.vetchling");
    }
    /// To the next dialog that asks for a file.
    void answerFileDialog(const QString& path)
    {
        auto* look = new QTimer(&window());
        QObject::connect(look, &QTimer::timeout, &window(), [this, look, path] {
            auto* dialog = window().findChild<QFileDialog*>();
            if (!dialog || !dialog->isVisible())
                return;
            look->deleteLater();
            dialog->selectFile(path);
            static_cast<QDialog*>(dialog)->accept();
        });
        look->start(20);
    }

    /// Text of a PDF as a reader finds it.
    static QString textOf(const QString& pdf)
    {
        QProcess reader;
        reader.start(QStringLiteral("pdftotext"), {QStringLiteral("-layout"), pdf, QStringLiteral("-")});
        EXPECT_TRUE(reader.waitForFinished(20000));
        return QString::fromUtf8(reader.readAllStandardOutput());
    }
    static int pagesOf(const QString& pdf)
    {
        QProcess reader;
        reader.start(QStringLiteral("pdfinfo"), {pdf});
        EXPECT_TRUE(reader.waitForFinished(20000));
        const QString words = QString::fromUtf8(reader.readAllStandardOutput());
        return QRegularExpression(QStringLiteral("Pages:\\s+(\\d+)")).match(words).captured(1).toInt();
    }
};

TEST_F(BuildTest, AllowancesChangeTheCutListAndAreUndone)
{
    const QString before = table();
    type("allowFold", QStringLiteral("50 cm"));
    EXPECT_NE(table(), before);
    EXPECT_NEAR(document().antenna().allowances.fold, 0.5, 1e-12);
    EXPECT_TRUE(table().contains(QStringLiteral("leg\t2"))) << table().toStdString();
    document().undoStack().undo();
    EXPECT_EQ(table(), before);
}

// The trail beside the page is narrow: whole feet, and whole metres where there are many.
TEST_F(BuildTest, TheTrailTellsTheWireInFewSigns)
{
    const auto words = [&] {
        EXPECT_TRUE(
            waitedFor([&] { return window().stage(QStringLiteral("build"))->summary().contains(QStringLiteral("of wire")); }, 20000));
        return window().stage(QStringLiteral("build"))->summary();
    };
    EXPECT_TRUE(words().contains(QRegularExpression(QStringLiteral("^\\d+\\.\\d m of wire")))) << words().toStdString();
    document().edit(QStringLiteral("units"), {}, [](Design& d) { d.operation.system = units::System::Imperial; });
    EXPECT_TRUE(words().contains(QRegularExpression(QStringLiteral("^\\d+ ft of wire")))) << words().toStdString();
    document().edit(QStringLiteral("units"), {}, [](Design& d) { d.operation.system = units::System::Metric; });
    document().setParameter("leg_m", 80.0, {});
    EXPECT_TRUE(words().contains(QRegularExpression(QStringLiteral("^1\\d\\d m of wire")))) << words().toStdString();
}

TEST_F(BuildTest, APieceIsTickedByMouseAndByKeysAndUndone)
{
    cut().grab(); // painted once
    const QRectF box = cut().boxOf("leg/2");
    ASSERT_FALSE(box.isNull());
    QTest::mouseClick(&cut(), Qt::LeftButton, {}, box.center().toPoint());
    EXPECT_TRUE(workshop().pieces.at("leg/2").done);
    EXPECT_TRUE(waitedFor([&] { return pageSentence().contains(QStringLiteral("1 of 2 done")); })) << pageSentence().toStdString();
    cut().setFocus();
    QTest::keyClick(&cut(), Qt::Key_Up);
    EXPECT_EQ(cut().chosen(), "leg/1");
    QTest::keyClick(&cut(), Qt::Key_Space);
    EXPECT_TRUE(workshop().pieces.at("leg/1").done);
    document().undoStack().undo();
    document().undoStack().undo();
    EXPECT_TRUE(workshop().pieces.empty());
    click("pieceDone");
    EXPECT_TRUE(workshop().pieces.at("leg/1").done);
}

TEST_F(BuildTest, AMeasuredPieceThatIsOffIsTold)
{
    QTest::keyClick(&cut(), Qt::Key_Down);
    const std::string key = cut().chosen();
    type("pieceMeasured", QStringLiteral("9.5 m"));
    EXPECT_NEAR(*workshop().pieces.at(key).measured, 9.5, 1e-12);
    bool told = false;
    for (QLabel* label : window().stage(QStringLiteral("build"))->ledger()->findChildren<QLabel*>())
        told |= label->text().contains(QStringLiteral("short:"));
    EXPECT_TRUE(told);
    type("pieceMeasured", QStringLiteral("nonsense"));
    EXPECT_NEAR(*workshop().pieces.at(key).measured, 9.5, 1e-12);
    type("pieceMeasured", QStringLiteral("0"));
    EXPECT_TRUE(workshop().pieces.empty()) << "nothing measured, nothing kept";
}

TEST_F(BuildTest, TheSpoolSaysWhatIsLeft)
{
    type("spool", QStringLiteral("100 m"));
    EXPECT_EQ(*workshop().spool, 100.0);
    const auto says = [&](const char* words) {
        for (QLabel* label : window().stage(QStringLiteral("build"))->ledger()->findChildren<QLabel*>())
            if (label->text().contains(QLatin1String(words)))
                return true;
        return false;
    };
    EXPECT_TRUE(waitedFor([&] { return says("no joint needed"); }));
    type("spool", QStringLiteral("12 m"));
    EXPECT_TRUE(waitedFor([&] { return says("too little"); }));
    type("tapeOffset", QStringLiteral("3 cm"));
    EXPECT_NEAR(workshop().tapeOffset, 0.03, 1e-12);
}

TEST_F(BuildTest, PartsAreChangedAddedAndLeftOutByKeys)
{
    view("buildParts");
    auto* parts = find<PartsBoard>("partsBoard");
    QTest::keyClick(parts, Qt::Key_Down);
    const std::string key = parts->chosen();
    type("partPrice", QStringLiteral("2.50"));
    EXPECT_EQ(*workshop().parts.at(key).price, 2.5);
    EXPECT_TRUE(table().contains(QStringLiteral("2.50")));
    QTest::keyClick(parts, Qt::Key_Delete);
    EXPECT_TRUE(workshop().parts.at(key).leftOut);
    EXPECT_TRUE(table().contains(QStringLiteral("left out")));
    QTest::keyClick(parts, Qt::Key_Delete);
    EXPECT_FALSE(workshop().parts.at(key).leftOut) << "and taken back in";
    auto* own = find<QLineEdit>("partOwn");
    own->setFocus();
    QTest::keyClicks(own, QStringLiteral("flags"));
    QTest::keyClick(own, Qt::Key_Return);
    EXPECT_EQ(parts->chosen(), "own-1");
    EXPECT_TRUE(table().contains(QStringLiteral("flags")));
    click("partRemove");
    EXPECT_FALSE(table().contains(QStringLiteral("flags")));
}

TEST_F(BuildTest, WeatherIsJudgedAndAPulleyHelps)
{
    view("buildParts");
    type("rigWind", QStringLiteral("60"));
    type("rigIce", QStringLiteral("10 mm"));
    EXPECT_TRUE(waitedFor([&] { return pageSentence().contains(QStringLiteral("does not hold")); }));
    choose("rigHangs", 1);
    EXPECT_TRUE(workshop().rigging.weight);
    EXPECT_TRUE(waitedFor([&] { return !pageSentence().contains(QStringLiteral("does not hold")); }));
    type("rigPull", QStringLiteral("-3"));
    EXPECT_GT(workshop().rigging.pull, 0.0) << "no pull below nothing";
}

TEST_F(BuildTest, AChokeIsWoundOtherwiseAndGivenToFeed)
{
    view("buildChoke");
    auto* board = find<ChokeBoard>("chokeBoard");
    const QString before = pageSentence();
    type("chokeTurns", QStringLiteral("6"));
    EXPECT_EQ(workshop().choke.turns, 6);
    EXPECT_NE(pageSentence(), before);
    EXPECT_TRUE(board->headline().contains(QStringLiteral("6 turns")));
    board->grab();
    board->setFocus();
    QTest::keyClick(board, Qt::Key_Down);
    QTest::keyClick(board, Qt::Key_Return);
    EXPECT_NE(workshop().choke.mix, CoreWinding().mix) << "another ferrite by keys";
    click("giveChoke");
    const auto parts = wholeChain(document().antenna());
    const auto choke = std::find_if(parts.begin(), parts.end(), [](const ChainPart& p) { return p.kind == part::choke; });
    ASSERT_NE(choke, parts.end());
    EXPECT_EQ(choke->basis, Basis::Computed);
    EXPECT_GT(choke->values.at("choking_ohm"), 10.0);
    document().undoStack().undo();
    choose("chokeRing", 3);
    EXPECT_EQ(workshop().choke.ring, "61");
}

TEST_F(BuildTest, SafetyFollowsLimitAndMode)
{
    while (document().design().operation.bands.size() > 1) // one band is enough and quickly followed
        document().edit(QStringLiteral("less"), {}, [](Design& d) { d.operation.bands.pop_back(); });
    document().edit(QStringLiteral("wish"), {}, [](Design& d) { d.operation.bands.front().wish = Wish::Must; });
    view("buildSafety");
    ASSERT_TRUE(waitedFor(
        [&] { return pageSentence().startsWith(QStringLiteral("Keep")) || pageSentence().contains(QStringLiteral("nowhere")); }, 60000))
        << pageSentence().toStdString();
    const QString speech = table();
    choose("safetyMode", 4);
    EXPECT_EQ(workshop().mode, "carrier");
    EXPECT_NE(table(), speech) << "five times the power on the average";
    choose("safetyLimit", 1);
    EXPECT_NE(workshop().limit, Workshop().limit);
    type("safetySending", QStringLiteral("50"));
    EXPECT_NEAR(workshop().sending, 0.5, 1e-12);
    find<SafetyBoard>("safetyBoard")->grab();
    EXPECT_TRUE(table().contains(QStringLiteral("kV")) || table().contains(QStringLiteral(" V"))) << table().toStdString();
}

TEST_F(BuildTest, CuttingAsksForEyesAndGlovesWhereItStands)
{
    const auto caution = [&] { return find<QLabel>("cutCautions")->text(); }; // the ledger is made anew with each antenna
    ASSERT_TRUE(settle());
    view("buildCut");
    EXPECT_TRUE(caution().contains(QStringLiteral("springy wire"))) << caution().toStdString();
    document().addAntenna(newAntenna(*shapes::findFamily("mobile-whip"), 14.1e6, document().design().site));
    ASSERT_TRUE(settle());
    EXPECT_TRUE(waitedFor([&] { return caution().contains(QStringLiteral("where tube is sawn")); }, 10000)) << caution().toStdString();
    view("buildParts");
    EXPECT_FALSE(table().contains(QStringLiteral("lay the wire")));
    EXPECT_TRUE(find<QLabel>("benchCards")->text().contains(QStringLiteral("A rod to a rod")));
}

TEST_F(BuildTest, WhatIsDugInBringsItsCautionAndItsPicture)
{
    const auto cautions = [&] {
        QString all;
        for (const auto& [heading, words] : cautionsOf(*window().findChild<BuildDesk*>(), document(), units::System::Metric))
            all += heading + QLatin1Char(' ') + words + QLatin1Char('\n');
        return all;
    };
    EXPECT_FALSE(cautions().contains(QStringLiteral("cables and pipes")));
    Antenna vertical = newAntenna(*shapes::findFamily("vertical"), 7.1e6, document().design().site);
    vertical.shape.parameters["radial_depth_m"] = 0.05;
    vertical.shape.parameters["rod_m"] = 1.5;
    document().addAntenna(vertical);
    ASSERT_TRUE(settle());
    EXPECT_TRUE(cautions().contains(QStringLiteral("cables and pipes"))) << cautions().toStdString();
    EXPECT_TRUE(table().contains(QStringLiteral("lead to earth"))) << table().toStdString();
    Camera camera; // from the side, level wires lie so far below the line that they are seen
    camera.scale = 20.0;
    EXPECT_NEAR(camera.shown({1, 0, -0.05}, SceneView::Side).y() - camera.shown({1, 0, 0.0}, SceneView::Side).y(), 9.0, 1e-9);
    EXPECT_NEAR(camera.shown({1, 0, -1.5}, SceneView::Side).y() - camera.shown({1, 0, 0.0}, SceneView::Side).y(), 30.0, 1e-9);
    EXPECT_EQ(camera.shown({1, 0, -0.05}, SceneView::Turn), camera.project({1, 0, -0.05}));
    show("shape");
    window().grab();
}

TEST_F(BuildTest, WithoutAnAntennaEveryViewAsksForOne)
{
    while (document().hasAntenna())
        document().removeCurrentAntenna();
    for (const char* name : {"buildCut", "buildCoil", "buildChoke", "buildParts", "buildSafety"}) {
        view(name);
        EXPECT_TRUE(pageSentence().contains(QStringLiteral("Add an antenna"))) << name;
        window().stage(QStringLiteral("build"))->canvas()->grab();
    }
}

// 2026-11: "fl" and "fi" were glyphs that no search found, and the sheet did not say what it was of.
TEST_F(BuildTest, TheSheetIsTwoPagesOfSearchableText)
{
    const Result<Design> demo = files::readDesign(VETCHLING_SOURCE_DATA "/demo/gannet-skerry.vetchling");
    ASSERT_EQ(demo->antennas.size(), 7u);
    std::size_t number = 0;
    for (const auto& [paper, pages] : {std::pair(SheetPaper::A4, 2), std::pair(SheetPaper::Letter, 2)})
        for (const Antenna& a : demo->antennas) {
            if (!testing::tried(number++, 5))
                continue;
            const QString path = file("sheet.pdf");
            const Faults faults = writeSheet(findDataFolder(), {QStringLiteral(VETCHLING_SOURCE_DATA "/demo/gannet-skerry.vetchling"),
                                                                QString::fromStdString(a.name),
                                                                path,
                                                                {},
                                                                paper,
                                                                true});
            ASSERT_TRUE(faults.empty()) << faults.front().text();
            EXPECT_EQ(pagesOf(path), pages) << a.name;
            const QString words = textOf(path);
            for (const QString& expected :
                 {QString::fromStdString(a.name), QStringLiteral("Gannet Skerry"), QStringLiteral("Cut"), QStringLiteral("fold"),
                  QStringLiteral("cut to"), QStringLiteral("Parts"), QStringLiteral("What it has to stand"), QStringLiteral("Touching"),
                  QStringLiteral("licensed"), QStringLiteral("Put it up")})
                EXPECT_TRUE(words.contains(expected)) << a.name << ": " << expected.toStdString() << "\n" << words.toStdString();
        }
}

TEST_F(BuildTest, TheSheetTellsWhatWasSolvedAndFitsAPhone)
{
    document().edit(QStringLiteral("less"), {}, [](Design& d) {
        d.operation.bands.resize(1);
        d.operation.bands.front().wish = Wish::Must;
    });
    ASSERT_TRUE(document().save(file("one.vetchling")).empty());
    const QString path = file("phone.pdf");
    const Faults faults = writeSheet(findDataFolder(), {file("one.vetchling"), {}, path, {}, SheetPaper::Phone, false});
    ASSERT_TRUE(faults.empty()) << faults.front().text();
    const QString words = textOf(path).simplified();
    EXPECT_TRUE(words.contains(QStringLiteral("from wires"))) << words.toStdString();
    EXPECT_LE(pagesOf(path), 5);
    EXPECT_FALSE(writeSheet(findDataFolder(), {file("one.vetchling"), QStringLiteral("nobody"), path, {}, SheetPaper::A4, true}).empty());
    EXPECT_FALSE(writeSheet(findDataFolder(), {file("none.vetchling"), {}, path, {}, SheetPaper::A4, true}).empty());
    EXPECT_FALSE(
        writeSheet(findDataFolder(), {file("one.vetchling"), {}, QStringLiteral("/nowhere/a.pdf"), {}, SheetPaper::A4, true}).empty());
}

// 2026-11: the sheet had the distances of the antenna before the change, or none, and said nothing of it.
TEST_F(BuildTest, TheSheetWaitsForWhatIsWorkedOut)
{
    document().edit(QStringLiteral("less"), {}, [](Design& d) {
        d.operation.bands.resize(1);
        d.operation.bands.front().wish = Wish::Must;
    });
    view("buildSafety");
    ASSERT_TRUE(waitedFor([&] { return pageSentence().startsWith(QStringLiteral("Keep")); }, 60000));
    view("buildCut");
    document().setParameter("apex_height_m", parameter("apex_height_m") - 4.0, {});
    const QString path = file("waits.pdf");
    answerFileDialog(path);
    click("savePdf");
    EXPECT_FALSE(QFile::exists(path)) << "nothing is known of the antenna as it hangs now";
    ASSERT_TRUE(waitedFor([&] { return QFile::exists(path); }, 60000));
    const QString now = textOf(path).simplified();
    ASSERT_TRUE(writeSheet(findDataFolder(), {saved(), {}, file("own.pdf"), {}, SheetPaper::A4, false}).empty());
    const QRegularExpression distances(QStringLiteral("\\d+ m: [^:;]* from wires, [^:;]* peak"));
    ASSERT_TRUE(distances.match(now).hasMatch()) << now.toStdString();
    EXPECT_EQ(distances.match(now).captured(), distances.match(textOf(file("own.pdf")).simplified()).captured())
        << "as a program that never saw the antenna before";
    ASSERT_TRUE(writeSheet(findDataFolder(), {saved(), {}, file("quick.pdf"), {}, SheetPaper::A4, true}).empty());
    EXPECT_TRUE(textOf(file("quick.pdf")).simplified().contains(QStringLiteral("not worked out for this sheet")));
}

// 2026-11: only the next change of the design brought them.
TEST_F(BuildTest, PricesOfTheShedAreThoseOfThePartsAtOnce)
{
    view("buildParts");
    const QString before = table();
    window().shed().edit([](Shed& shed) {
        StockItem wire;
        wire.id = "w1";
        wire.name = "wire";
        wire.kind = StockKind::Wire;
        wire.price = 4321.0;
        shed.items.push_back(wire);
    });
    EXPECT_NE(table(), before);
}

TEST_F(BuildTest, TemplatesAreDrawnAtFullSize)
{
    const QString demo = QStringLiteral(VETCHLING_SOURCE_DATA "/demo/gannet-skerry.vetchling");
    ASSERT_TRUE(writeSheet(findDataFolder(), {demo, {}, {}, file("plates.svg"), SheetPaper::A4, true}).empty());
    QFile svg(file("plates.svg"));
    ASSERT_TRUE(svg.open(QIODevice::ReadOnly));
    EXPECT_TRUE(QString::fromUtf8(svg.readAll()).contains(QStringLiteral("link insulator")));
    ASSERT_TRUE(writeSheet(findDataFolder(), {demo, {}, {}, file("plates.pdf"), SheetPaper::A4, true}).empty());
    EXPECT_TRUE(textOf(file("plates.pdf")).contains(QStringLiteral("50 mm: measure this bar")));
    EXPECT_TRUE(textOf(file("plates.pdf")).contains(QStringLiteral("90 × 70 mm")));
}

TEST_F(BuildTest, ARecipeIsKeptAndBuiltFromOnAnotherWire)
{
    BuildDesk own(document(), window().models(), window().shed(), solver(), findDataFolder());
    const study::Recipe recipe =
        study::recipeOf(document().design(), document().antenna(), asLogged(document().antenna()), {}, "2026-11-27");
    const std::size_t before = document().design().antennas.size();
    QString said;
    QObject::connect(&own, &BuildDesk::recipeReady, [&](const QString& words) { said = words; });
    own.copyRecipe(recipe);
    ASSERT_TRUE(waitedFor([&] { return !said.isEmpty(); }, 60000));
    EXPECT_TRUE(said.startsWith(QStringLiteral("Added"))) << said.toStdString();
    EXPECT_EQ(document().design().antennas.size(), before + 1);
    EXPECT_NEAR(parameter("leg_m"), recipe.shape.parameters.at("leg_m"), 0.05) << "the same wire and soil";
    document().undoStack().undo();
    EXPECT_EQ(document().design().antennas.size(), before);
}

// 2026-11: the sheet drew no tower, and told the height of one of two links.
TEST(BuildSheet, KnowsWhatStandsBesideTheWiresAndBothLinks)
{
    const Result<Design> demo = files::readDesign(VETCHLING_SOURCE_DATA "/demo/gannet-skerry.vetchling");
    ASSERT_TRUE(demo.ok());
    const Antenna& linked = demo->antennas.front();
    const auto built = shapes::buildOver(linked.shape, demo->site.soil.ground());
    ASSERT_TRUE(built.ok());
    ASSERT_EQ(built->links.size(), 2u);
    std::vector<double> links;
    for (const auto& [name, at] : heightsOf(*built))
        if (name == "link")
            links.push_back(at.z);
    ASSERT_EQ(links.size(), 2u);
    for (const shapes::LinkPlace& link : built->links)
        EXPECT_TRUE(std::any_of(links.begin(), links.end(), [&](double z) { return std::abs(z - link.at.z) < 1e-6; }));
    const BuildFacts facts = buildFactsOf(*demo, linked, *built, *files::readWorkshopData(VETCHLING_SOURCE_DATA "/workshop.json"));
    const auto stands = [&](const char* name) {
        return std::any_of(facts.supports.begin(), facts.supports.end(), [&](const Support& s) { return s.name == name; });
    };
    EXPECT_TRUE(stands("stone tower"));
    EXPECT_FALSE(stands("flagpole")) << "it has nothing to do with this one";
}

} // namespace
} // namespace vetchling::app
