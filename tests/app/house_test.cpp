/// What the rooms promise each other: one set of figures, ids that last, words in any language.
#include "tests/app/app_fixture.h"

#include "app/plots/scene/scene.h"
#include "app/stages/trim/log_model.h"
#include "app/view/axis.h"
#include "app/view/words.h"
#include "core/files/design_file.h"
#include "core/files/json_reader.h"

#include <QAbstractItemModelTester>
#include <QProcess>
#include <QTranslator>

namespace vetchling::app {
namespace {

Id bandNamed(const Design& design, const std::string& name)
{
    for (const WantedBand& w : design.operation.bands)
        if (w.band.name == name)
            return w.id;
    return {};
}

// ---- one set of figures

TEST_F(WindowTest, WindowAndCommandLineTellTheSameFigures)
{
    for (const Antenna& antenna : std::vector<Antenna>(document().design().antennas)) {
        document().setCurrent(antenna.id);
        ASSERT_TRUE(settle());
        QProcess cli;
        cli.start(QStringLiteral(VETCHLING_CLI),
                  {QStringLiteral("bands"), garden(), QStringLiteral("--antenna"), QString::fromStdString(antenna.name)});
        ASSERT_TRUE(cli.waitForFinished(120000));
        const auto json = files::parseJson(cli.readAllStandardOutput().toStdString());
        ASSERT_TRUE(json.ok()) << cli.readAllStandardError().toStdString();
        const auto& bands = solver().curve()->bands;
        ASSERT_EQ(json->size(), bands.size());
        for (std::size_t i = 0; i < bands.size(); ++i) {
            const auto& row = (*json)[i];
            EXPECT_EQ(row["lowest_swr"].get<double>(), bands[i].lowestSwr) << antenna.name << ' ' << bands[i].band.name;
            EXPECT_EQ(row["at_Hz"].get<double>(), bands[i].at);
            EXPECT_EQ(row["impedance_ohm"][1].get<double>(), bands[i].impedance.imag());
            EXPECT_EQ(row["multiple"].get<double>(), bands[i].harmonic);
        }
    }
}

// A whip of 2 m and a dipole of 160 m live in one design; what is far comes after what is near.
TEST_F(WindowTest, AWhipAndALongDipoleInOneDesign)
{
    Design design;
    design.site.soil = document().design().site.soil;
    design.operation.bands = {{{"160 m", 1.81e6, 2.0e6}, Wish::Must, {}, {}}, {{"2 m", 144e6, 146e6}, Wish::No, {}, {}}};
    for (const auto& [family, frequency] : {std::pair("vertical", 145e6), std::pair("dipole", 1.9e6)}) {
        Antenna a;
        a.name = family;
        a.shape = shapes::findFamily(family)->standardShape(frequency);
        design.antennas.push_back(a);
    }
    document().setDesign(design, {});
    ASSERT_TRUE(settle());
    EXPECT_TRUE(solver().curve()->complete);
    EXPECT_EQ(document().selectedBand(), bandNamed(document().design(), "2 m"));
    EXPECT_LT(solver().curve()->band(document().selectedBand())->lowestSwr, 3.5);
    chooseAntenna(1);
    ASSERT_TRUE(settle());
    EXPECT_LT(solver().curve()->band(bandNamed(document().design(), "160 m"))->lowestSwr, 5.0);
    const Id high = bandNamed(document().design(), "2 m");
    EXPECT_EQ(solver().curve()->band(high)->verdict, Verdict::OnRequest); // nobody wants 38 wavelengths there
    for (int stage = 0; stage < window().stageCount(); ++stage)
        window().showStage(stage);
}

TEST_F(WindowTest, AFailureOfTheProgramIsSaidAndSurvived)
{
    ASSERT_TRUE(settle());
    solver().setProbe([] { throw std::runtime_error("a broken invariant"); });
    document().setParameter("apex_height_m", 12.0, {});
    ASSERT_TRUE(waitedFor([&] { return !solver().faults().empty(); }, 20000));
    EXPECT_TRUE(pageSentence().contains(QStringLiteral("a broken invariant"))) << pageSentence().toStdString();
    solver().setProbe({});
    document().setParameter("apex_height_m", 12.5, {});
    ASSERT_TRUE(settle());
    EXPECT_TRUE(solver().faults().empty());
}

TEST_F(WindowTest, ClosingWhileSolvingComesBack)
{
    document().setParameter("apex_height_m", 12.0, {});
    solver().stop();                                    // joins the threads; hangs if a solve heeds no stop
    document().setParameter("apex_height_m", 12.5, {}); // and nothing is started any more
    QTest::qWait(400);
    EXPECT_FALSE(solver().detail());
    EXPECT_FALSE(solver().curve() && solver().curve()->question.subject.shape.parameters.at("apex_height_m") == 12.5);
}

// ---- a head start

/// A service for a document of its own, as a program that starts has it.
struct Starting {
    Document document;
    SolveService solver{document};
    bool opens(const QString& path)
    {
        document.setDesign(*files::readDesign(path.toStdString()), path);
        return waitedFor([&] { return solver.curve() != nullptr; }, 60000);
    }
};

TEST_F(WindowTest, WhatIsBegunBeforeTheFileIsOpenIsTakenAndTheSame)
{
    Starting ahead, plain;
    ahead.solver.beginWith(ahead.document.expect(garden()));
    EXPECT_TRUE(ahead.solver.isAhead());
    ASSERT_TRUE(ahead.opens(garden()) && plain.opens(garden()));
    EXPECT_FALSE(ahead.solver.isAhead()) << "it was asked for";
    EXPECT_EQ(ahead.solver.curve()->question, plain.solver.curve()->question);
    const double f = ahead.solver.curve()->parts.front()->from * 1.1;
    EXPECT_EQ(ahead.solver.curve()->swrAt(f), plain.solver.curve()->swrAt(f));
}

TEST_F(WindowTest, AnotherFileThanExpectedIsOpenedAsEver)
{
    Starting starting;
    starting.solver.beginWith(starting.document.expect(QStringLiteral(VETCHLING_SOURCE_DATA "/demo/gannet-skerry.vetchling")));
    ASSERT_TRUE(starting.opens(garden()));
    EXPECT_FALSE(starting.solver.isAhead());
    EXPECT_EQ(starting.solver.curve()->question.subject.shape.family, starting.document.antenna().shape.family);
    starting.solver.beginWith(starting.document.expect(QStringLiteral("/nowhere/at all.vetchling")));
    EXPECT_TRUE(waitedFor([&] { return !starting.solver.isAhead(); })) << "who opens it will say so";
    Starting closed;
    closed.solver.beginWith(closed.document.expect(garden()));
    closed.solver.stop(); // while it computes
    EXPECT_FALSE(closed.solver.isAhead());
}

// ---- ids

// 2026-11: another range moved the selection to its neighbour, since it was a place in the list.
TEST_F(WindowTest, AnotherRangeLeavesTheSelectedBand)
{
    const Id forty = bandNamed(document().design(), "40 m");
    ASSERT_EQ(document().selectedBand(), forty);
    show("bands");
    type("ownFrom", QStringLiteral("4.0"));
    type("ownTo", QStringLiteral("4.2"));
    click("addRange");
    EXPECT_EQ(document().design().operation.bands.size(), 10u);
    EXPECT_EQ(document().selectedBand(), forty);
    ASSERT_TRUE(settle());
    EXPECT_EQ(solver().curve()->band(forty)->band.name, "40 m");
}

// 2026-11: with another range a pinned design was compared on the wrong band.
TEST_F(WindowTest, APinIsComparedOnTheSameBand)
{
    ASSERT_TRUE(settle());
    solver().pin();
    document().edit(QStringLiteral("range"), {}, [](Design& d) {
        d.operation.bands.insert(d.operation.bands.begin(), {{"own", 2.5e6, 2.6e6}, Wish::Must, {}, {}});
    });
    ASSERT_TRUE(settle());
    const study::Spot* here = solver().detail()->spot();
    const study::Spot* pinned = solver().pinnedDetail()->spotOfBand(here->band);
    ASSERT_TRUE(pinned);
    EXPECT_NEAR(pinned->solution.frequency, here->solution.frequency, 1e3);
    show("sky");
    EXPECT_TRUE(waitedFor(
        [&] {
            for (QLabel* label : window().findChildren<QLabel*>())
                if (label->text().contains(QStringLiteral("0.0 dB stronger than Tower V 40")))
                    return true;
            return false;
        },
        5000));
}

TEST_F(WindowTest, IdsSurviveRemovalUndoAndReordering)
{
    chooseAntenna(2);
    const Id id = document().current();
    document().removeCurrentAntenna();
    EXPECT_NE(document().current(), id);
    EXPECT_FALSE(findAntenna(document().design(), id));
    document().undoStack().undo();
    EXPECT_EQ(document().current(), id);
    EXPECT_EQ(document().antenna().name, "Marsh vertical 30");
    document().edit(QStringLiteral("reorder"), {}, [](Design& d) { std::reverse(d.antennas.begin(), d.antennas.end()); });
    EXPECT_EQ(document().current(), id);
    EXPECT_EQ(document().antenna().name, "Marsh vertical 30");
    EXPECT_EQ(find<AntennaBar>("antennaBar")->tabData(find<AntennaBar>("antennaBar")->currentIndex()).toString().toStdString(), id);
    const QString path = file("ids.vetchling");
    ASSERT_TRUE(window().fileDesk().saveTo(path));
    ASSERT_TRUE(window().fileDesk().openFile(path));
    EXPECT_TRUE(findAntenna(document().design(), id));
}

TEST_F(WindowTest, SwitchingWhileDraggingEndsTheDrag)
{
    ASSERT_TRUE(settle());
    auto* scene = find<Scene>("shapeScene");
    scene->grab();
    const QPoint at = scene->handlePosition("centre")->toPoint();
    QTest::mousePress(scene, Qt::LeftButton, {}, at);
    QTest::mouseMove(scene, at + QPoint(0, 20));
    chooseAntenna(4);
    const Design before = document().design();
    QTest::mouseMove(scene, at + QPoint(0, 60));
    QTest::mouseRelease(scene, Qt::LeftButton, {}, at + QPoint(0, 60));
    EXPECT_TRUE(document().design() == before);
    document().undoStack().undo();
    ASSERT_TRUE(settle());
}

// ---- families of the future

TEST_F(WindowTest, AnAntennaOfTheFutureIsShownAsSuchAndKept)
{
    std::string text = files::writeDesign(document().design());
    const auto at = text.find("\"family\": \"delta-loop\"");
    ASSERT_NE(at, std::string::npos);
    text.replace(at, std::string("\"family\": \"delta-loop\"").size(), "\"family\": \"moebius\"");
    ASSERT_TRUE(document().openText(text, {}).empty());
    chooseAntenna(3);
    ASSERT_TRUE(waitedFor([&] { return !solver().busy() && !solver().faults().empty(); }, 20000));
    for (const char* stage : {"site", "shape", "bands", "sky", "build", "trim"}) {
        show(stage);
        EXPECT_FALSE(window().stage(QLatin1String(stage))->summary().isEmpty()) << stage;
        window().grab();
    }
    show("shape");
    EXPECT_TRUE(pageSentence().contains(QStringLiteral("'moebius' is no family that this program knows"))) << pageSentence().toStdString();
    const auto back = files::parseDesign(files::writeDesign(document().design()));
    ASSERT_TRUE(back.ok());
    EXPECT_EQ(back->antennas[3].shape.family, "moebius");
    chooseAntenna(0);
    ASSERT_TRUE(settle());
    EXPECT_TRUE(solver().faults().empty());
}

TEST_F(WindowTest, MorePairsGiveTheFanMoreInputs)
{
    Antenna fan;
    fan.name = "fan";
    fan.shape = shapes::findFamily("fan-dipole")->standardShape(7.1e6);
    document().addAntenna(fan);
    show("shape");
    EXPECT_TRUE(find<QLineEdit>("leg_2_m"));
    EXPECT_FALSE(window().findChild<QLineEdit*>(QStringLiteral("leg_3_m")));
    type("pair_count", QStringLiteral("3"));
    ASSERT_TRUE(settle());
    EXPECT_TRUE(find<QLineEdit>("leg_3_m"));
    type("leg_3_m", QStringLiteral("2.4"));
    EXPECT_DOUBLE_EQ(parameter("leg_3_m"), 2.4);
    ASSERT_TRUE(settle());
    ASSERT_EQ(solver().detail()->lengths.size(), 3u);
    click("tuneButton");
    for (const study::Length& l : solver().detail()->lengths)
        EXPECT_DOUBLE_EQ(parameter(l.what.parameter.c_str()), *l.solved);
    document().undoStack().undo(); // one step
    EXPECT_DOUBLE_EQ(parameter("leg_3_m"), 2.4);
}

TEST_F(WindowTest, APartCanHaveATubeOfItsOwn)
{
    chooseAntenna(2); // the vertical
    ASSERT_TRUE(settle());
    show("shape");
    choose("wirePart", 1); // the radiator
    type("wireDiameter", QStringLiteral("30 mm"));
    EXPECT_DOUBLE_EQ(document().antenna().shape.partWires.at("radiator").diameter, 0.03);
    EXPECT_LT(document().antenna().shape.wire.diameter, 0.02);
    choose("wirePart", 0);
    EXPECT_NE(find<QLineEdit>("wireDiameter")->text(), QStringLiteral("30.00 mm"));
}

// ---- words

/// Shouts every text of the core, as a language pack would replace it.
class Shouting : public QTranslator {
public:
    using QTranslator::QTranslator;
    bool isEmpty() const override { return false; }
    QString translate(const char* context, const char* text, const char*, int) const override
    {
        return qstrcmp(context, "core") == 0 ? QString::fromUtf8(text).toUpper() : QString();
    }
};

TEST(CoreWords, AreTranslatedInWholeSentencesWithValuesInTheShownUnits)
{
    const Text text(coreText("core", "the end would hang %1 below the centre, but a side is only %2 long; raise the end"),
                    Measure{3.048, units::Quantity::Length}, Measure{1.0, units::Quantity::Length});
    EXPECT_EQ(text.english(), "the end would hang 3.05 m below the centre, but a side is only 1.00 m long; raise the end");
    EXPECT_TRUE(coreWords(text, units::System::Imperial).contains(QStringLiteral("hang 10 ft below")));
    Shouting translator;
    QCoreApplication::installTranslator(&translator);
    EXPECT_TRUE(coreWords(text, units::System::Metric).startsWith(QStringLiteral("THE END WOULD HANG 3.05 m BELOW")));
    EXPECT_EQ(coreWords(std::string(shapes::standsGroup)), QStringLiteral("WHERE IT STANDS"));
    QCoreApplication::removeTranslator(&translator);
}

TEST_F(WindowTest, ALanguageReachesEveryFamilysInputs)
{
    Shouting translator;
    QCoreApplication::installTranslator(&translator);
    show("shape");
    for (const shapes::Family* family : shapes::families()) {
        Antenna a;
        a.name = family->id();
        a.shape = family->standardShape(14.1e6);
        document().addAntenna(a);
        window().stage(QStringLiteral("shape"))->refresh();
        for (const shapes::ParameterSpec& spec : family->specs(a.shape)) {
            auto* input = window().findChild<QWidget*>(QString::fromStdString(spec.key));
            ASSERT_TRUE(input) << family->id() << ' ' << spec.key;
            EXPECT_EQ(input->accessibleName(), input->accessibleName().toUpper()) << spec.key;
        }
    }
    QCoreApplication::removeTranslator(&translator);
}

// 2026-11: "end_height_m: the end would hang ..." stood on the page.
TEST_F(WindowTest, NoKeyOfAFileStandsOnAScreen)
{
    show("shape");
    document().setParameter("end_height_m", 0.1, {});
    ASSERT_TRUE(waitedFor([&] { return !solver().faults().empty(); }, 20000));
    for (int stage = 0; stage < window().stageCount(); ++stage) {
        window().showStage(stage);
        for (QLabel* label : window().findChildren<QLabel*>())
            EXPECT_FALSE(label->text().contains(QRegularExpression(QStringLiteral("[a-z]_(m|deg|H|Hz|percent)\\b"))))
                << label->text().toStdString();
    }
    document().setParameter("end_height_m", 8.0, {});
    show("shape");
    type("designFrequency", QStringLiteral("50 MHz")); // a side for that is too short to reach the ends' height
    ASSERT_TRUE(settle());
    EXPECT_FALSE(solver().detail()->lengths.at(0).solved);
    for (QLabel* label : window().findChildren<QLabel*>())
        EXPECT_FALSE(label->text().contains(QStringLiteral("_m"))) << label->text().toStdString();
    EXPECT_TRUE(find<QLabel>("lengthNote")->text().contains(QStringLiteral("the end would hang")))
        << find<QLabel>("lengthNote")->text().toStdString();
}

// ---- standard parts

TEST_F(WindowTest, ItemModelsAreSound)
{
    for (QAbstractItemView* view : window().findChildren<QAbstractItemView*>())
        if (view->objectName() == QLatin1String("trail") || view->objectName() == QLatin1String("logTable"))
            new QAbstractItemModelTester(view->model(), QAbstractItemModelTester::FailureReportingMode::Fatal, view);
    EXPECT_EQ(find<QTableView>("logTable")->model()->rowCount(), 3);
    chooseAntenna(4);
    EXPECT_EQ(find<QTableView>("logTable")->model()->rowCount(), 0);
    document().removeCurrentAntenna();
    auto* trail = find<QListView>("trail");
    EXPECT_TRUE(trail->model()->index(1, 0).data(Qt::AccessibleTextRole).toString().startsWith(QStringLiteral("Shape: ")));
}

TEST_F(WindowTest, TrailAndShelfWorkByKeyboard)
{
    auto* trail = find<QListView>("trail");
    trail->setFocus();
    QTest::keyClick(trail, Qt::Key_Down);
    EXPECT_EQ(window().currentStage()->id(), QStringLiteral("bands"));
    QTest::keyClick(trail, Qt::Key_Home);
    EXPECT_EQ(window().currentStage()->id(), QStringLiteral("site"));
    auto* bar = find<AntennaBar>("antennaBar");
    bar->setFocus();
    QTest::keyClick(bar, Qt::Key_Right);
    EXPECT_EQ(document().antenna().name, "Wall end-fed 40");
}

TEST(Words, HeightsOfSupportsKeepTheirHalfMetres)
{
    EXPECT_EQ(heightWords(8.5, units::System::Metric), QStringLiteral("8.5 m"));
    EXPECT_EQ(heightWords(14.0, units::System::Metric), QStringLiteral("14 m"));
}

TEST(Axis, StepsAreRound)
{
    EXPECT_DOUBLE_EQ(niceStep(14.0, 8), 2.0);
    EXPECT_DOUBLE_EQ(niceStep(0.9, 8), 0.2);
    EXPECT_DOUBLE_EQ(niceStep(70.0, 8), 10.0);
    EXPECT_DOUBLE_EQ(niceStep(56.0, 8), 10.0);
    EXPECT_EQ(niceTicks(6.9, 7.3, 4).size(), 5u);
}

} // namespace
} // namespace vetchling::app
