/// The stage Feed as a user meets it: chains built, reordered, undone and saved by mouse and by keyboard.
#include "app/document/feed_desk.h"
#include "app/stages/feed/choice_board.h"
#include "app/stages/feed/loss_board.h"
#include "app/stages/feed/reflection_disk.h"
#include "app/stages/feed/shield_chart.h"
#include "tests/app/app_fixture.h"

#include <QAction>
#include <QMenu>
#include <QRegularExpression>

namespace vetchling::app {
namespace {

class FeedTest : public WindowTest {
protected:
    void SetUp() override
    {
        WindowTest::SetUp();
        window().resize(1280, 800);
        show("feed");
    }
    bool waitFor(const std::function<bool()>& what, int ms = 60000) { return waitedFor(what, ms); }
    LossBoard& board() { return *find<LossBoard>("lossBoard"); }
    std::vector<std::string> kinds()
    {
        std::vector<std::string> all;
        for (const ChainPart& p : chainParts(document().antenna()))
            all.push_back(p.kind);
        return all;
    }
    /// The entry of the menu that is open.
    void pick(const char* kind)
    {
        ASSERT_TRUE(waitFor([&] { return window().findChild<QMenu*>(QStringLiteral("partKinds")) != nullptr; }, 3000));
        auto* menu = window().findChild<QMenu*>(QStringLiteral("partKinds"));
        auto* action = menu->findChild<QAction*>(QStringLiteral("add ") + QLatin1String(kind));
        ASSERT_TRUE(action) << kind;
        action->trigger();
        menu->close();
        ASSERT_TRUE(waitFor([&] { return window().findChild<QMenu*>(QStringLiteral("partKinds")) == nullptr; }, 3000));
    }
    bool worked()
    {
        return settle() && waitFor([&] {
                   return board().drawing().places().size() >= 2 && !pageSentence().contains(QStringLiteral("What the radio sees"));
               });
    }
    QPoint centreOf(const std::string& kind)
    {
        const auto& places = board().drawing().places();
        for (std::size_t i = 0; i < places.size(); ++i)
            if (places[i].what.kind == kind)
                return board().drawing().centreOf(i).toPoint();
        ADD_FAILURE() << kind;
        return {};
    }
    void paint() { board().grab(); } // lays the drawing out
};

TEST_F(FeedTest, AChainIsBuiltReorderedAndTakenApartByKeys)
{
    ASSERT_TRUE(worked());
    board().setFocus();
    for (const char* kind : {"choke", "line", "tuner"}) {
        QTest::keyClick(&board(), Qt::Key_Escape);
        QTest::keyClick(&board(), Qt::Key_Insert);
        pick(kind);
    }
    EXPECT_EQ(kinds(), (std::vector<std::string>{"choke", "line", "tuner"}));
    QTest::keyClick(&board(), Qt::Key_Left); // from the tuner to the line
    QTest::keyClick(&board(), Qt::Key_Left, Qt::ShiftModifier);
    EXPECT_EQ(kinds(), (std::vector<std::string>{"line", "choke", "tuner"}));
    QTest::keyClick(&board(), Qt::Key_Right);
    QTest::keyClick(&board(), Qt::Key_Delete);
    EXPECT_EQ(kinds(), (std::vector<std::string>{"line", "tuner"}));
    for (int i = 0; i < 2; ++i)
        document().undoStack().undo();
    EXPECT_EQ(kinds(), (std::vector<std::string>{"choke", "line", "tuner"}));
    document().undoStack().redo();
    EXPECT_EQ(kinds(), (std::vector<std::string>{"line", "choke", "tuner"}));
    const QString path = file("chain.vetchling");
    ASSERT_TRUE(document().save(path).empty());
    ASSERT_TRUE(document().open(path).empty());
    EXPECT_EQ(kinds(), (std::vector<std::string>{"line", "choke", "tuner"}));
}

TEST_F(FeedTest, AChainIsBuiltAndReorderedByMouse)
{
    ASSERT_TRUE(worked());
    for (const char* kind : {"choke", "line", "meter"}) {
        board().choose({});
        click("addPart");
        pick(kind);
    }
    ASSERT_TRUE(worked());
    paint();
    const QPoint from = centreOf("choke"), to = centreOf("meter") + QPoint(8, 0);
    QTest::mousePress(&board(), Qt::LeftButton, {}, from);
    QTest::mouseMove(&board(), (from + to) / 2);
    QTest::mouseMove(&board(), to);
    QTest::mouseRelease(&board(), Qt::LeftButton, {}, to);
    EXPECT_EQ(kinds(), (std::vector<std::string>{"line", "meter", "choke"}));
    paint();
    QTest::mouseClick(&board(), Qt::LeftButton, {}, centreOf("meter"));
    click("removePart");
    EXPECT_EQ(kinds(), (std::vector<std::string>{"line", "choke"}));
    document().undoStack().undo();
    document().undoStack().undo();
    EXPECT_EQ(kinds(), (std::vector<std::string>{"choke", "line", "meter"}));
}

TEST_F(FeedTest, ALongerLineLosesMoreAtOnce)
{
    ASSERT_TRUE(worked());
    click("addPart");
    pick("line");
    ASSERT_TRUE(worked());
    const QString before = window().stage(QStringLiteral("feed"))->summary();
    const CurvePointer curve = solver().curve();
    type("part length_m", QStringLiteral("150"));
    EXPECT_EQ(chainParts(document().antenna())[0].values.at("length_m"), 150.0);
    EXPECT_NE(window().stage(QStringLiteral("feed"))->summary(), before) << "without waiting for anything";
    EXPECT_EQ(solver().curve(), curve) << "nothing is solved anew for a line";
    type("part length_m", QStringLiteral("far"));
    EXPECT_EQ(chainParts(document().antenna())[0].values.at("length_m"), 150.0) << "nonsense changes nothing";
    choose("partType", 3);
    EXPECT_FALSE(chainParts(document().antenna())[0].type.empty());
    choose("partBasis", 2);
    EXPECT_EQ(chainParts(document().antenna())[0].basis, Basis::Measured);
    type("part k1_dB_per_100m", QStringLiteral("9"));
    EXPECT_TRUE(chainParts(document().antenna())[0].type.empty()) << "other figures are no longer that type's";
}

TEST_F(FeedTest, ALossByFrequencyIsTypedOrRefused)
{
    ASSERT_TRUE(worked());
    click("addPart");
    pick("loss");
    type("partLossTable", QStringLiteral("3.5: 0.8; 7: 0.4"));
    ASSERT_EQ(chainParts(document().antenna())[0].lossTable.size(), 2u);
    EXPECT_NEAR(chainParts(document().antenna())[0].lossTable[1].first, 7e6, 1.0);
    type("partLossTable", QStringLiteral("7: 0.4; 3.5: 0.8"));
    EXPECT_EQ(chainParts(document().antenna())[0].lossTable[0].first, 3.5e6) << "falling frequencies are refused";
}

TEST_F(FeedTest, SwrIsToldAtTheFeedpointOrAtTheRadioByOneSwitch)
{
    ASSERT_TRUE(worked());
    click("addPart");
    pick("line");
    type("part length_m", QStringLiteral("60"));
    ASSERT_TRUE(settle());
    const double f = solver().curve()->question.bands[2].band.from;
    const double atFeedpoint = solver().curve()->swrAt(f);
    window().findChild<QAction*>(QStringLiteral("actionPlane"))->trigger();
    ASSERT_TRUE(waitFor([&] { return solver().curve()->question.towardsRadio.size() == 1; }));
    EXPECT_LT(solver().curve()->swrAt(f), atFeedpoint);
    show("bands");
    ASSERT_TRUE(settle());
    EXPECT_TRUE(waitFor([&] { return pageSentence().startsWith(QStringLiteral("At the radio")); }));
    window().findChild<QAction*>(QStringLiteral("actionPlane"))->trigger();
    ASSERT_TRUE(waitFor([&] { return solver().curve()->question.towardsRadio.empty(); }));
    EXPECT_NEAR(solver().curve()->swrAt(f), atFeedpoint, 1e-9);
}

TEST_F(FeedTest, AChoiceIsTakenByKeysAndByMouse)
{
    ASSERT_TRUE(worked());
    click("feedWhich");
    auto* choices = find<ChoiceBoard>("choiceBoard");
    ASSERT_TRUE(waitFor([&] { return choices->cells().size() > 5; }));
    choices->setFocus();
    for (int i = 0; i < 12; ++i)
        QTest::keyClick(choices, Qt::Key_Up);
    for (int i = 0; i < 2; ++i)
        QTest::keyClick(choices, Qt::Key_Down);
    QTest::keyClick(choices, Qt::Key_Return); // 4:1
    const auto ratio = [&] {
        return wholeChain(document().antenna()).empty() ? 1.0 : partValue(wholeChain(document().antenna())[0], "ratio");
    };
    EXPECT_EQ(ratio(), 4.0);
    document().undoStack().undo();
    EXPECT_EQ(ratio(), 1.0);
    choose("whichChoice", 1);
    ASSERT_TRUE(waitFor([&] { return choices->cells().size() == 5; }));
    QTest::keyClick(choices, Qt::Key_Up);
    for (int i = 0; i < 4; ++i)
        QTest::keyClick(choices, Qt::Key_Down);
    click("takeChoice");
    EXPECT_EQ(kinds(), (std::vector<std::string>{"tuner"}));
}

TEST_F(FeedTest, ACapacitorIsChosenForTheTransformerThereIs)
{
    ASSERT_TRUE(worked());
    click("feedWhich");
    auto* choices = find<ChoiceBoard>("choiceBoard");
    choose("whichChoice", 4);
    EXPECT_TRUE(choices->cells().empty()) << "there is no transformer";
    click("feedLosses");
    click("addPart");
    pick("transformer");
    ASSERT_TRUE(settle());
    click("feedWhich");
    choose("whichChoice", 4);
    ASSERT_TRUE(waitFor([&] { return choices->cells().size() > 5; }));
    choices->setFocus();
    for (int i = 0; i < 12; ++i)
        QTest::keyClick(choices, Qt::Key_Up);
    QTest::keyClick(choices, Qt::Key_Down);
    QTest::keyClick(choices, Qt::Key_Down);
    click("takeChoice");
    const auto parts = wholeChain(document().antenna());
    const auto transformer = std::find_if(parts.begin(), parts.end(), [](const ChainPart& p) { return p.kind == part::transformer; });
    ASSERT_NE(transformer, parts.end());
    EXPECT_GT(partValue(*transformer, "capacitance_F"), 0.0);
    document().undoStack().undo();
    EXPECT_EQ(partValue(wholeChain(document().antenna())[std::size_t(transformer - parts.begin())], "capacitance_F"), 0.0);
}

TEST_F(FeedTest, ACureIsTakenByKeys)
{
    ASSERT_TRUE(worked());
    document().setParameter("leg_m", 0.93 * parameter("leg_m"), {});
    ASSERT_TRUE(settle());
    click("feedReflection");
    auto* disk = find<ReflectionDisk>("reflectionDisk");
    disk->grab();
    disk->setFocus();
    const int before = document().undoStack().index();
    QTest::keyClick(disk, Qt::Key_Down);
    QTest::keyClick(disk, Qt::Key_Return);
    EXPECT_EQ(document().undoStack().index(), before + 1);
    type("reflectionFrequency", QStringLiteral("7.05"));
    EXPECT_TRUE(find<QLineEdit>("reflectionFrequency")->text().startsWith(QStringLiteral("7.05")));
    QTest::keyClick(disk, Qt::Key_Right);
    EXPECT_TRUE(find<QLineEdit>("reflectionFrequency")->text().startsWith(QStringLiteral("7.054"))) << "a fiftieth of the band further";
}

TEST_F(FeedTest, AnotherChainIsMadeUsedAndRemoved)
{
    ASSERT_TRUE(worked());
    click("addPart");
    pick("line");
    board().choose({});
    click("addChain");
    ASSERT_EQ(document().antenna().feed.chains.size(), 2u);
    EXPECT_EQ(usedChain(document().antenna())->id, document().antenna().feed.chains[1].id);
    choose("feedChain", 0);
    EXPECT_EQ(usedChain(document().antenna())->id, document().antenna().feed.chains[0].id);
    type("chainName", QStringLiteral("the old one"));
    EXPECT_EQ(usedChain(document().antenna())->name, "the old one");
    click("removeChain");
    EXPECT_EQ(document().antenna().feed.chains.size(), 1u);
    document().undoStack().undo();
    EXPECT_EQ(document().antenna().feed.chains.size(), 2u);
}

TEST_F(FeedTest, WhatItIsHeldAgainstIsChosen)
{
    ASSERT_TRUE(worked());
    choose("feedAgainst", 2);
    type("feedOwnGain", QStringLiteral("-3"));
    EXPECT_EQ(document().design().operation.against.gain, -3.0);
    ASSERT_TRUE(waitFor([&] { return pageSentence().contains(QStringLiteral("of your own")); })) << pageSentence().toStdString();
    choose("feedAgainst", 4);
    EXPECT_EQ(document().design().operation.against.kind, Against::Kind::Antenna);
    choose("feedAgainst", 3); // nothing is pinned: said so, and the vertical stands in
    ASSERT_TRUE(waitFor([&] { return pageSentence().contains(QStringLiteral("vertical")); })) << pageSentence().toStdString();
    type("feedSector", QStringLiteral("500"));
    EXPECT_EQ(document().design().operation.aimSector, 0.0) << "a sector is no more than all round";
}

TEST_F(FeedTest, TheShieldFindsAPlaceForTheChoke)
{
    ASSERT_TRUE(worked());
    // one band is enough for a test
    document().edit(QStringLiteral("one band"), {}, [](Design& d) {
        for (WantedBand& w : d.operation.bands)
            w.wish = w.band.name == "40 m" ? Wish::Must : Wish::No;
    });
    ASSERT_TRUE(worked());
    click("feedShield");
    auto* chart = find<ShieldChart>("shieldChart");
    ASSERT_TRUE(waitFor([&] { return find<QPushButton>("chokeBest")->isEnabled(); })) << pageSentence().toStdString();
    EXPECT_EQ(chart->cells().size(), 2u);
    const QString schools = find<QLabel>("shieldSchools")->text();
    EXPECT_TRUE(
        QRegularExpression(QStringLiteral("on 40 m: [0-9]+ mA at the radio and −?[0-9.]+ dBi without one, [0-9]+ mA and −?[0-9.]+ dBi"))
            .match(schools)
            .hasMatch())
        << schools.toStdString();
    click("chokeBest");
    ASSERT_EQ(kinds(), (std::vector<std::string>{"choke"}));
    EXPECT_GT(chainParts(document().antenna())[0].values.at("at_m"), 0.0);
    chart->setFocus();
    const double at = chainParts(document().antenna())[0].values.at("at_m");
    QTest::keyClick(chart, Qt::Key_Left);
    QTest::keyClick(chart, Qt::Key_Return);
    EXPECT_NE(chainParts(document().antenna())[0].values.at("at_m"), at);
    type("chokePlace", QStringLiteral("2.5"));
    EXPECT_EQ(chainParts(document().antenna())[0].values.at("at_m"), 2.5);
}

// 2026-11: lengths and ohms of a table that was gone already stood there.
TEST_F(FeedTest, TheCounterpoisesOfAnEndFedAreTold)
{
    Antenna endFed = newAntenna(*shapes::findFamily("end-fed"), 7.1e6, document().design().site);
    endFed.shape.parameters["return_kind"] = 0.0;
    document().addAntenna(endFed);
    document().edit(QStringLiteral("one band"), {}, [](Design& d) {
        for (WantedBand& w : d.operation.bands)
            w.wish = w.band.name == "40 m" ? Wish::Must : Wish::No;
    });
    ASSERT_TRUE(worked());
    click("feedShield");
    auto* table = find<QLabel>("counterpoiseTable");
    ASSERT_TRUE(waitFor([&] { return find<QPushButton>("chokeBest")->isEnabled(); })) << pageSentence().toStdString();
    const QStringList lines = table->text().split(QLatin1Char('\n'));
    ASSERT_EQ(lines.size(), 6) << table->text().toStdString();
    for (int i = 1; i < 6; ++i)
        EXPECT_TRUE(QRegularExpression(QStringLiteral("^[0-9.]{3,4} m: [0-9.]+k? [+−] j[0-9.]+k? Ω, [0-9]+ mA, −?[0-9.]+ dBi$"))
                        .match(lines[i])
                        .hasMatch())
            << lines[i].toStdString();
    document().setParameter("return_kind", 1.0, {});
    EXPECT_TRUE(waitFor([&] { return table->text().contains(QStringLiteral("the coax up to its choke is the return")); }))
        << table->text().toStdString();
}

TEST_F(FeedTest, AnEmptySiteSaysWhatToDo)
{
    window().fileDesk().openNew(window().emptyDesign());
    show("feed");
    EXPECT_TRUE(waitFor([&] { return pageSentence().contains(QStringLiteral("Add an antenna")); })) << pageSentence().toStdString();
    for (const char* view : {"feedReflection", "feedWhich", "feedShield", "feedLosses"})
        click(view);
    EXPECT_FALSE(window().stage(QStringLiteral("feed"))->summary().isEmpty());
}

} // namespace
} // namespace vetchling::app
