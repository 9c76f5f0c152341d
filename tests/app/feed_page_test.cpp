/// The Feed page in feet, at small sizes, as pictures and as tables; typed with units and with nonsense.
#include "app/stages/feed/choice_board.h"
#include "app/stages/feed/loss_board.h"
#include "app/stages/feed/shield_chart.h"
#include "tests/app/app_fixture.h"

#include <QImage>

namespace vetchling::app {
namespace {

class FeedPageTest : public WindowTest {
protected:
    void SetUp() override
    {
        WindowTest::SetUp();
        document().edit(QStringLiteral("bands"), {}, [](Design& d) {
            for (WantedBand& w : d.operation.bands)
                w.wish = w.band.name == "40 m" ? Wish::Must : w.band.name == "30 m" ? Wish::Nice : Wish::No;
        });
        document().editAntenna(QStringLiteral("chain"), {}, [](Antenna& a) {
            ownChain(a).parts = {newPart(part::choke), newPart(part::line), newPart(part::tuner)};
            settleFeed(a, {});
        });
        show("feed");
    }
    Stage& feed() { return *window().stage(QStringLiteral("feed")); }
    bool worked()
    {
        return settle() && waitedFor([&] { return feed().tableText().split(QLatin1Char('\n')).size() >= 4; }, 60000);
    }
    void selectLine()
    {
        auto* board = find<LossBoard>("lossBoard");
        board->choose(chainParts(document().antenna())[1].id);
    }
};

TEST_F(FeedPageTest, LengthsAreTypedAndToldInFeet)
{
    ASSERT_TRUE(worked());
    window().toggleUnits();
    selectLine();
    type("part length_m", QStringLiteral("60"));
    EXPECT_NEAR(chainParts(document().antenna())[1].values.at("length_m"), 60 * 0.3048, 1e-9);
    type("part length_m", QStringLiteral("33ft 4in"));
    EXPECT_NEAR(chainParts(document().antenna())[1].values.at("length_m"), 33.0 * 0.3048 + 4 * 0.0254, 1e-9);
    type("part length_m", QStringLiteral("12 m"));
    EXPECT_NEAR(chainParts(document().antenna())[1].values.at("length_m"), 12.0, 1e-9);
    bool told = false;
    for (const auto& place : find<LossBoard>("lossBoard")->drawing().places())
        told = told || place.figure.contains(QStringLiteral("ft"));
    EXPECT_TRUE(told);
}

TEST_F(FeedPageTest, NonsenseIsSaidAndChangesNothing)
{
    ASSERT_TRUE(worked());
    selectLine();
    const std::vector<ChainPart> before = chainParts(document().antenna());
    for (const auto& [field, text] : {std::pair("part length_m", "long"),
                                      {"part impedance_ohm", "0"},
                                      {"part velocity_factor", "2"},
                                      {"part k1_dB_per_100m", "-4"},
                                      {"part length_m", "-3"}}) {
        type(field, QLatin1String(text));
        EXPECT_EQ(chainParts(document().antenna()), before) << field << text;
        bool said = false;
        for (QLabel* label : feed().ledger()->findChildren<QLabel*>())
            said = said || (label->isVisible() && label->property("role") == QLatin1String("caution") && !label->text().isEmpty()) ||
                   (label->isVisible() &&
                    (label->text().contains(QStringLiteral("write")) || label->text().contains(QStringLiteral("between")) ||
                     label->text().contains(QStringLiteral("outside"))));
        EXPECT_TRUE(said) << field << text;
        QTest::keyClick(find<QLineEdit>(field), Qt::Key_Escape);
    }
}

TEST_F(FeedPageTest, EveryViewIsAPictureAndATable)
{
    ASSERT_TRUE(worked());
    std::set<QByteArray> pictures;
    for (const char* view : {"feedLosses", "feedReflection", "feedWhich", "feedShield"}) {
        click(view);
        if (QLatin1String(view) == QLatin1String("feedShield")) {
            ASSERT_TRUE(waitedFor([&] { return find<QPushButton>("chokeBest")->isEnabled(); }, 60000));
        }
        const QString path = file("view.png");
        ASSERT_TRUE(window().exports().picture(path)) << view;
        const QImage image(path);
        EXPECT_GT(image.width(), 400) << view;
        pictures.insert(QByteArray(reinterpret_cast<const char*>(image.constBits()), image.sizeInBytes()));
        const QStringList lines = feed().tableText().split(QLatin1Char('\n'), Qt::SkipEmptyParts);
        ASSERT_GE(lines.size(), 3) << view;
        for (const QString& line : lines)
            EXPECT_EQ(line.count(QLatin1Char('\t')), lines.first().count(QLatin1Char('\t'))) << view << line.toStdString();
    }
    EXPECT_EQ(pictures.size(), 4u);
}

TEST_F(FeedPageTest, SmallWindowsPaintToo)
{
    ASSERT_TRUE(worked());
    for (const QSize size : {QSize(900, 600), QSize(1366, 768), QSize(1920, 1080)}) {
        window().resize(size);
        for (const char* view : {"feedLosses", "feedReflection", "feedWhich", "feedShield"}) {
            click(view);
            EXPECT_FALSE(feed().canvas()->grab().isNull()) << view;
        }
    }
}

// 2026-11: "What you have serves best" stood beside "Take 56 : 1".
TEST_F(FeedPageTest, TheChoiceOnOfferIsTheOneTheSentenceNames)
{
    ASSERT_TRUE(worked());
    click("feedWhich");
    auto* board = find<ChoiceBoard>("choiceBoard");
    auto* take = find<QPushButton>("takeChoice");
    for (double ratio : {1.0, 4.0, 49.0}) {
        document().editAntenna(QStringLiteral("ratio"), {}, [&](Antenna& a) {
            ChainPart transformer = newPart(part::transformer);
            transformer.values["ratio"] = ratio;
            ownChain(a).parts = {transformer, newPart(part::line)};
            settleFeed(a, {});
        });
        ASSERT_TRUE(worked());
        ASSERT_TRUE(board->chosen());
        EXPECT_TRUE(board->chosen()->best) << ratio;
        EXPECT_EQ(take->isEnabled(), !board->chosen()->now) << ratio;
        EXPECT_EQ(pageSentence().startsWith(QStringLiteral("What you have")), board->chosen()->now) << pageSentence().toStdString();
    }
    QTest::keyClick(board, Qt::Key_Down); // picked by hand: it stays, and the sentence tells of it
    const double picked = board->chosen()->ratio;
    feed().refresh();
    EXPECT_EQ(board->chosen()->ratio, picked);
}

TEST_F(FeedPageTest, TrailBandsAndFeedCountAlike)
{
    ASSERT_TRUE(worked());
    const QString counted = window().stage(QStringLiteral("bands"))->summary();
    EXPECT_TRUE(counted.contains(QStringLiteral("of 2 served"))) << counted.toStdString();
    click("feedWhich");
    const auto now = [&] {
        const auto lines = feed().tableText().split(QLatin1Char('\n'), Qt::SkipEmptyParts);
        for (const QString& line : lines)
            if (line.startsWith(QStringLiteral("1 : 1")))
                return line.split(QLatin1Char('\t'));
        return QStringList();
    }();
    ASSERT_GE(now.size(), 4);
    EXPECT_TRUE(counted.startsWith(now[now.size() - 3] + QStringLiteral(" of 2"))) << counted.toStdString() << now.join(' ').toStdString();
    // with no loss allowed nothing is served, on both
    document().edit(QStringLiteral("strict"), {}, [](Design& d) { d.operation.lossLimit = 0.01; });
    EXPECT_TRUE(window().stage(QStringLiteral("bands"))->summary().startsWith(QStringLiteral("0 of 2 served")));
}

// 2026-11: P typed anywhere pinned the antenna.
TEST_F(FeedPageTest, LettersActInTheDrawingAlone)
{
    ASSERT_TRUE(worked());
    window().activateWindow();
    ASSERT_TRUE(QTest::qWaitForWindowActive(&window()));
    click("feedWhich");
    auto* choice = find<QComboBox>("whichChoice");
    choice->setFocus();
    ASSERT_TRUE(waitedFor([&] { return QApplication::focusWidget() == choice; }, 2000));
    QTest::keyClick(choice, Qt::Key_P);
    QTest::keyClick(choice, Qt::Key_V);
    QTest::keyClick(choice, Qt::Key_R);
    EXPECT_FALSE(solver().pinned());
    EXPECT_TRUE(document().antenna().variants.empty());
    EXPECT_EQ(solver().plane(), SolveService::Plane::Feedpoint);
    auto* board = find<ChoiceBoard>("choiceBoard");
    board->setFocus();
    ASSERT_TRUE(waitedFor([&] { return QApplication::focusWidget() == board; }, 2000));
    QTest::keyClick(board, Qt::Key_P);
    EXPECT_TRUE(solver().pinned());
}

TEST_F(FeedPageTest, TheTrailTellsTheWorstBand)
{
    ASSERT_TRUE(worked());
    EXPECT_TRUE(feed().summary().contains(QStringLiteral("dB lost, "))) << feed().summary().toStdString();
    document().editAntenna(QStringLiteral("none"), {}, [](Antenna& a) { ownChain(a).parts.clear(); });
    EXPECT_EQ(feed().summary(), QStringLiteral("straight to the radio"));
}

} // namespace
} // namespace vetchling::app
