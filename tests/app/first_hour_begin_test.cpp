/// A stranger's first hour: from nothing to an antenna on a site of one's own.
#include "tests/app/first_hour.h"

namespace vetchling::app {
namespace {

// From nothing to a tuned inverted V with its apex on a pole and one end to a tree. An action is a click, a drag, a key or a value.
TEST_F(FirstHour, ANewSiteToATunedDipoleInTwelveActions)
{
    int actions = 0;
    const auto act = [&] { return ++actions; };
    whenOpen("newSiteDialog", [&](QWidget& dialog) {
        act(), typeInto(dialog, "siteName", QStringLiteral("Rectory"));
        act(), QTest::mouseClick(dialog.findChild<QToolButton*>(QStringLiteral("siteBand 20 m")), Qt::LeftButton);
        act(), QTest::mouseClick(dialog.findChild<QPushButton*>(QStringLiteral("siteAddSupport")), Qt::LeftButton);
        act(), typeInto(dialog, "siteHeight2", QStringLiteral("7.5"));
        act(), typeInto(dialog, "siteNorth2", QStringLiteral("10"));
        act(), QTest::mouseClick(dialog.findChild<QPushButton*>(QStringLiteral("makeSite")), Qt::LeftButton);
    });
    act(), QTest::keyClick(&window(), Qt::Key_N, Qt::ControlModifier);
    act(), takeProposal("dipole");
    ASSERT_EQ(document().design().antennas.size(), 1u);
    EXPECT_EQ(QString::fromStdString(document().antenna().name).toLower(), QStringLiteral("20 m inverted v"));
    EXPECT_EQ(parameter("apex_height_m"), 10.0) << "hung from the pole";
    EXPECT_EQ(findBand(document().design(), document().selectedBand())->band.name, "20 m");
    ASSERT_TRUE(settle());

    auto* scene = find<Scene>("shapeScene");
    scene->grab();
    const QPoint end = scene->handlePosition("first end")->toPoint(), top = scene->pointOf({27, 10, 7.5}).toPoint();
    act();
    QTest::mousePress(scene, Qt::LeftButton, {}, end);
    QTest::mouseMove(scene, (end + top) / 2);
    QTest::mouseMove(scene, top);
    QTest::mouseRelease(scene, Qt::LeftButton, {}, top);
    ASSERT_TRUE(settle());
    act(), click("tuneButton");
    ASSERT_TRUE(settle());

    EXPECT_LE(actions, 12);
    EXPECT_NEAR(solver().curve()->resonance->frequency, 14.175e6, 10e3);
    EXPECT_LT(solver().curve()->band(document().selectedBand())->lowestSwr, 1.6);
    const auto& built = *solver().curve()->built;
    const Support* held = nullptr;
    for (const shapes::Handle& h : built.handles)
        if (h.name == "first end")
            held = ropeHold(document().design().site, built.feedPoint, h.at);
    ASSERT_TRUE(held);
    EXPECT_EQ(held->name, "tree");
}

TEST_F(FirstHour, AnEmptySiteSaysEverywhereWhatIsMissing)
{
    window().fileDesk().openNew(Design{}); // no bands, no antenna, no supports
    for (int stage = 0; stage < window().stageCount(); ++stage) {
        window().showStage(stage);
        window().grab();
        const QString words = pageSentence() + window().currentStage()->summary();
        EXPECT_FALSE(words.contains(QStringLiteral("comput"))) << stage << words.toStdString();
        EXPECT_FALSE(pageSentence().isEmpty()) << stage;
    }
    EXPECT_FALSE(solver().busy());
    show("bands");
    click("putPlan");
    EXPECT_GT(document().design().operation.bands.size(), 10u);
    for (const char* name : {"actionDuplicate", "actionRemove", "actionRename", "actionPin", "actionSweep"})
        action(name); // nothing to do it to, and no crash
}

TEST_F(FirstHour, AnAntennaIsJudgedOnTheBandItIsCutFor)
{
    action("actionAdd");
    type("galleryFrequency", QStringLiteral("20 m"));
    takeProposal("dipole");
    const WantedBand* band = findBand(document().design(), document().selectedBand());
    EXPECT_EQ(band->band.name, "20 m");
    EXPECT_EQ(band->wish, Wish::No) << "the island has said what it wants; an antenna adds nothing to it";
    EXPECT_NEAR(document().antenna().shape.designFrequency, band->band.centre(), 1.0);
    type("designFrequency", QStringLiteral("10.12"));
    EXPECT_EQ(findBand(document().design(), document().selectedBand())->band.name, "30 m");
    document().undoStack().undo();
    EXPECT_EQ(findBand(document().design(), document().selectedBand())->band.name, "20 m");
    chooseAntenna(0);
    EXPECT_EQ(findBand(document().design(), document().selectedBand())->band.name, "40 m");
}

TEST_F(FirstHour, ARefusedFrequencyMakesNoAntenna)
{
    const std::size_t before = document().design().antennas.size();
    action("actionAdd");
    type("galleryFrequency", QStringLiteral("banana"));
    EXPECT_TRUE(find<QLabel>("galleryComplaint")->text().contains(QStringLiteral("banana")));
    EXPECT_TRUE(find<QLabel>("galleryComplaint")->isVisible());
    QTest::keyClick(&window().gallery(), Qt::Key_Escape);
    EXPECT_FALSE(window().galleryOpen());
    EXPECT_EQ(document().design().antennas.size(), before);
}

TEST_F(FirstHour, ThingsOfASiteAreMadeChangedRenamedAndRemoved)
{
    makeGarden();
    show("site");
    auto* plan = find<SitePlan>("sitePlan");
    click("addTree");
    EXPECT_EQ(document().design().site.supports.back().name, "tree 2");
    EXPECT_EQ(plan->selectedSupport(), document().design().site.supports.back().id);
    plan->setFocus();
    const PlanPoint before = document().design().site.supports.back().at;
    QTest::keyClick(plan, Qt::Key_Right);
    EXPECT_NEAR(document().design().site.supports.back().at.x, before.x + 0.1, 1e-9);
    action("actionRename");
    EXPECT_EQ(QApplication::focusWidget(), find<NameEdit>("thingName"));
    type("thingName", QStringLiteral("pole"));
    EXPECT_EQ(document().design().site.supports.back().name, "pole 2") << "the name was taken";
    click("addBuilding");
    type("thingWidth", QStringLiteral("9"));
    EXPECT_DOUBLE_EQ(extentOf(document().design().site.buildings.front().outline).x, 9.0);
    click("addWater");
    EXPECT_EQ(document().design().site.waters.size(), 1u);
    plan->setFocus();
    QTest::keyClick(plan, Qt::Key_Delete);
    EXPECT_TRUE(document().design().site.waters.empty());
    type("siteNameEdit", QStringLiteral("Vicarage"));
    EXPECT_EQ(document().design().site.name, "Vicarage");
    document().undoStack().undo();
    EXPECT_EQ(document().design().site.name, "Rectory");
}

TEST_F(FirstHour, AntennasAreRenamedInPlace)
{
    action("actionRename");
    auto* edit = find<NameEdit>("antennaName");
    QTest::keyClicks(edit, QStringLiteral("Loop 17"));
    QTest::keyClick(edit, Qt::Key_Return);
    EXPECT_EQ(document().antenna().name, "Loop 17 (2)") << "that name is another's";
    document().undoStack().undo();
    EXPECT_EQ(document().antenna().name, "Tower V 40");
}

TEST_F(FirstHour, WhatIsTiedToASupportFollowsIt)
{
    makeGarden();
    show("site");
    type("siteWidth", QStringLiteral("31"));
    find<SitePlan>("sitePlan")->selectSupport(document().design().site.supports[0].id);
    type("supportHeight", QStringLiteral("12"));
    EXPECT_EQ(parameter("apex_height_m"), 12.0);
    type("supportEast", QStringLiteral("14"));
    EXPECT_EQ(parameter("x_m"), 14.0);
    document().undoStack().undo();
    EXPECT_EQ(parameter("x_m"), 15.0);
}

TEST_F(FirstHour, AnEndIsTiedOnThePlan)
{
    makeGarden();
    show("site");
    auto* plan = find<SitePlan>("sitePlan");
    click("addTree"); // where it is free, then moved
    type("supportEast", QStringLiteral("15"));
    type("supportNorth", QStringLiteral("19"));
    plan->grab();
    const QPoint end = plan->handlePlace(1).toPoint(), tree = plan->place({15, 19}).toPoint();
    QTest::mousePress(plan, Qt::LeftButton, {}, end);
    QTest::mouseMove(plan, tree + QPoint(-3, 3));
    QTest::mouseRelease(plan, Qt::LeftButton, {}, tree + QPoint(-3, 3));
    const auto built = shapes::buildOver(document().antenna().shape, {});
    EXPECT_NEAR(built->handles[1].at.x, 15.0, 1e-6) << "due north, at the tree and not at the pointer";
    EXPECT_TRUE(document().undoStack().undoText().contains(QStringLiteral("tie to tree")));
}

TEST_F(FirstHour, TheFirstStartTakesItsUnitsFromTheLocale)
{
    const QLocale before;
    for (const auto& [locale, system] : {std::pair("en_US", units::System::Imperial), std::pair("de_DE", units::System::Metric)}) {
        QLocale::setDefault(QLocale(QLatin1String(locale)));
        window().fileDesk().openDemo();
        EXPECT_EQ(document().design().operation.system, system) << locale;
        EXPECT_FALSE(document().modified());
        EXPECT_EQ(empty().operation.bandPlan, system == units::System::Imperial ? "itu-r2" : "itu-r1");
    }
    QLocale::setDefault(before);
    action("actionUnits"); // from then on it is what was chosen
    window().fileDesk().openDemo();
    EXPECT_EQ(document().design().operation.system, units::System::Imperial);
}

TEST(Program, TellsItsVersionWithoutAScreen)
{
    for (const char* option : {"--version", "--help"}) {
        QProcess program;
        QProcessEnvironment bare = QProcessEnvironment::systemEnvironment();
        for (const char* name : {"DISPLAY", "WAYLAND_DISPLAY", "QT_QPA_PLATFORM"})
            bare.remove(QLatin1String(name));
        program.setProcessEnvironment(bare);
        program.start(QStringLiteral(VETCHLING_PROGRAM), {QLatin1String(option)});
        ASSERT_TRUE(program.waitForFinished(20000));
        EXPECT_EQ(program.exitCode(), 0);
        EXPECT_TRUE(program.readAllStandardOutput().toLower().contains("vetchling")) << option;
    }
}

TEST_F(FirstHour, ABrokenFileIsNotHiddenBehindTheDemo)
{
    const QString path = file("broken.vetchling");
    QFile broken(path);
    ASSERT_TRUE(broken.open(QIODevice::WriteOnly));
    broken.write(R"({"format":"vetchling","version":2,"site":{"soil":{"relative_permittivity":"wet"}}})");
    broken.close();
    window().fileDesk().openNew(empty());
    EXPECT_FALSE(window().fileDesk().openFile(path));
    EXPECT_TRUE(said().contains(QStringLiteral("broken.vetchling")) && said().contains(QStringLiteral("newer program")))
        << said().toStdString();
    EXPECT_FALSE(find<QLabel>("message")->isHidden());
    EXPECT_TRUE(document().design().antennas.empty());
}

} // namespace
} // namespace vetchling::app
