/// Linked antennas at the mast: every word of the page is of the piece that is chosen, and a measurement stays of its own.
#include "tests/app/trim_fixture.h"

#include "app/stages/trim/log_model.h"

#include <QComboBox>
#include <QFile>

namespace vetchling::app {
namespace {

class LinksTest : public TrimTest {
protected:
    void SetUp() override
    {
        TrimTest::SetUp();
        document().editAntenna(QStringLiteral("begin"), {}, [](Antenna& a) {
            a.shape = shapes::findFamily("linked-dipole")->standardShape(7.08e6);
            a.shape.parameters["band_count"] = 2.0;
            a.shape.parameters["frequency_2_Hz"] = 5.359e6;
            a.typed.clear();
            a.trim = {};
        });
        ASSERT_TRUE(settle());
        for (const TrimTask& t : trimTasks(document().antenna()))
            m_goals.push_back(t.target);
        ASSERT_EQ(m_goals.size(), 2u);
        ASSERT_TRUE(waitedFor([&] { return find<QComboBox>("trimTask")->count() == 2 && advised(); }, 30000));
    }
    void chooseLinks(std::size_t configuration)
    {
        document().setConfiguration(configuration);
        ASSERT_TRUE(settle() && advised());
    }
    void writeDip(double dip, const char* cut = nullptr)
    {
        if (cut)
            type("trimCut", QLatin1String(cut));
        type("trimDip", QString::number(dip / 1e6, 'f', 4));
        const std::size_t before = log().size();
        click("addMeasurement");
        if (log().size() == before) // asked about
            click("addMeasurement");
        ASSERT_EQ(log().size(), before + 1);
        ASSERT_TRUE(advised());
    }
    QString logCell(int row, LogModel::Column column)
    {
        const LogModel* rows = window().findChild<LogModel*>();
        return rows->data(rows->index(row, column), Qt::DisplayRole).toString();
    }
    std::vector<double> m_goals;
};

// 40 m finished, 60 m chosen: the page told how far 40 m's dip was from the goal of 60 m.
TEST_F(LinksTest, EveryWordIsOfTheChosenBand)
{
    writeDip(m_goals[0] - 3e3);
    ASSERT_TRUE(advice().startsWith(QStringLiteral("Done"))) << advice().toStdString();
    chooseLinks(1);
    auto* board = find<TrimBoard>("trimBoard");
    EXPECT_DOUBLE_EQ(board->target(), m_goals[1]);
    EXPECT_DOUBLE_EQ(find<ValueEdit>("trimTarget")->value(), m_goals[1]);
    EXPECT_EQ(find<QComboBox>("trimTask")->currentIndex(), 1);
    EXPECT_TRUE(advice().contains(QStringLiteral("5.3"))) << advice().toStdString();
    EXPECT_FALSE(pageSentence().contains(QStringLiteral("goal: too"))) << pageSentence().toStdString();
    EXPECT_TRUE(find<QPushButton>("sweepNow")->text().contains(QStringLiteral("5.")))
        << find<QPushButton>("sweepNow")->text().toStdString();
    writeDip(m_goals[1] - 150e3);
    EXPECT_TRUE(pageSentence().contains(QStringLiteral("150 kHz below the goal"))) << pageSentence().toStdString();
    EXPECT_TRUE(advice().startsWith(QStringLiteral("Cut"))) << advice().toStdString();
    ASSERT_EQ(log().size(), 2u);
    EXPECT_EQ(log()[1].parameter, "leg_2_m");
    EXPECT_EQ(log()[1].configuration, std::optional<std::size_t>(1));
    chooseLinks(0);
    EXPECT_TRUE(pageSentence().contains(QStringLiteral("3 kHz below the goal"))) << pageSentence().toStdString();
    EXPECT_TRUE(advice().startsWith(QStringLiteral("Done"))) << advice().toStdString();
    choose("trimTask", 1); // by the piece in place of the links
    ASSERT_TRUE(settle() && advised());
    EXPECT_EQ(document().configuration(), 1u);
    EXPECT_TRUE(advice().startsWith(QStringLiteral("Cut"))) << advice().toStdString();
}

TEST_F(LinksTest, LinesKeepTheirBandWhateverGoalIsTyped)
{
    writeDip(m_goals[0] - 60e3);
    writeDip(m_goals[0] - 20e3, "5 cm");
    chooseLinks(1);
    writeDip(m_goals[1] - 100e3);
    const QStringList before{logCell(0, LogModel::Done), logCell(1, LogModel::Done), logCell(2, LogModel::Done)};
    EXPECT_TRUE(before[1].contains(QStringLiteral("40 m: cut 5.0 cm"))) << before[1].toStdString();
    EXPECT_TRUE(before[2].contains(QStringLiteral("60 m: hoisted as cut"))) << before[2].toStdString();
    EXPECT_TRUE(before[0].contains(QStringLiteral("by the cut list"))) << before[0].toStdString();
    EXPECT_TRUE(logCell(0, LogModel::When).contains(QString::number(QDate::currentDate().year())));
    type("trimTarget", QStringLiteral("5.40"));
    ASSERT_TRUE(advised());
    EXPECT_EQ((QStringList{logCell(0, LogModel::Done), logCell(1, LogModel::Done), logCell(2, LogModel::Done)}), before);
    const auto tasks = trimTasks(document().antenna());
    EXPECT_DOUBLE_EQ(tasks[0].target, m_goals[0]) << "the other goal stays";
    EXPECT_DOUBLE_EQ(tasks[1].target, 5.40e6);
}

// While 40 m is not finished 60 m is not cut.
TEST_F(LinksTest, TheOuterOneWaits)
{
    writeDip(m_goals[0] - 150e3);
    chooseLinks(1);
    writeDip(m_goals[1] - 150e3);
    EXPECT_TRUE(advice().startsWith(QStringLiteral("First finish"))) << advice().toStdString();
    EXPECT_EQ(trim()->summary(), QStringLiteral("first 40 m"));
}

// What was swept for one piece is not written down for another.
TEST_F(LinksTest, ASweepWaitsForItsOwnPiece)
{
    ASSERT_TRUE(sweeps());
    const double dip = find<ValueEdit>("trimDip")->value();
    chooseLinks(1);
    EXPECT_FALSE(find<ValueEdit>("trimDip")->hasValue());
    writeDip(m_goals[1] - 30e3);
    EXPECT_TRUE(log().back().sweep.empty());
    chooseLinks(0);
    ASSERT_TRUE(find<ValueEdit>("trimDip")->hasValue());
    EXPECT_DOUBLE_EQ(find<ValueEdit>("trimDip")->value(), dip);
    click("addMeasurement");
    ASSERT_EQ(log().size(), 2u);
    EXPECT_FALSE(log().back().sweep.empty());
    EXPECT_EQ(log().back().configuration, std::optional<std::size_t>(0));
}

// A sweep is not lost by a look at another antenna, nor does it follow there.
TEST_F(TrimTest, ASweepWaitsForItsOwnAntenna)
{
    ASSERT_TRUE(sweeps());
    const double dip = find<ValueEdit>("trimDip")->value();
    chooseAntenna(1);
    ASSERT_TRUE(settle());
    EXPECT_FALSE(find<ValueEdit>("trimDip")->hasValue());
    chooseAntenna(0);
    ASSERT_TRUE(settle());
    ASSERT_TRUE(find<ValueEdit>("trimDip")->hasValue());
    EXPECT_DOUBLE_EQ(find<ValueEdit>("trimDip")->value(), dip);
    openGarden(); // the same ids, another design
    ASSERT_TRUE(settle());
    EXPECT_FALSE(find<ValueEdit>("trimDip")->hasValue());
}

TEST_F(TrimTest, TheSweepsEdgeIsNoDip)
{
    const double goal = find<TrimBoard>("trimBoard")->target();
    QFile sweep(file("falling.csv"));
    ASSERT_TRUE(sweep.open(QIODevice::WriteOnly));
    sweep.write("freq MHz,swr\n");
    for (int i = 0; i <= 20; ++i)
        sweep.write(QStringLiteral("%1,%2\n").arg(goal / 1e6 + 0.01 * i, 0, 'f', 4).arg(1.5 + 0.1 * i, 0, 'f', 2).toLatin1());
    sweep.close();
    ASSERT_TRUE(QMetaObject::invokeMethod(trim(), "takeSweepFile", Q_ARG(QString, file("falling.csv"))));
    EXPECT_FALSE(find<ValueEdit>("trimDip")->hasValue());
    EXPECT_TRUE(find<QLabel>("sweepNote")->text().contains(QStringLiteral("lower edge")))
        << find<QLabel>("sweepNote")->text().toStdString();
    click("addMeasurement");
    EXPECT_TRUE(log().empty()) << "nothing is written down that was not read";
}

TEST_F(TrimTest, ARangeIsTypedAndSweptAsItIs)
{
    type("sweepFrom", QStringLiteral("6.5"));
    type("sweepTo", QStringLiteral("8"));
    EXPECT_TRUE(find<QPushButton>("sweepNow")->text().contains(QStringLiteral("6.50 to 8.00")))
        << find<QPushButton>("sweepNow")->text().toStdString();
    ASSERT_TRUE(sweeps());
    click("addMeasurement");
    ASSERT_EQ(log().size(), 1u);
    EXPECT_NEAR(log()[0].sweep.front().first, 6.5e6, 2e3);
    EXPECT_NEAR(log()[0].sweep.back().first, 8.0e6, 2e3);
    type("sweepFrom", QStringLiteral("9"));
    type("sweepTo", QStringLiteral("8"));
    EXPECT_FALSE(find<QPushButton>("sweepNow")->isEnabled()) << "upside down";
    EXPECT_FALSE(find<QLabel>("sweepRangeNote")->text().isEmpty());
}

TEST_F(TrimTest, ItHangsAsItWasCutAndSaysSince)
{
    auto* longer = find<ValueEdit>("trimAsCut");
    ASSERT_TRUE(longer->hasValue());
    const double byList = longer->value();
    EXPECT_GT(byList, 0.0);
    const double goal = find<TrimBoard>("trimBoard")->target();
    type("trimAsCut", QStringLiteral("20 cm"));
    EXPECT_EQ(document().antenna().trim.cutFrom, CutFrom::Typed);
    document().undoStack().undo();
    EXPECT_NEAR(longer->value(), byList, 1e-9);
    type("trimDip", QString::number(0.985e-6 * goal, 'f', 4));
    click("addMeasurement");
    ASSERT_EQ(log().size(), 1u);
    EXPECT_EQ(document().antenna().trim.cutFrom, CutFrom::CutList);
    EXPECT_NEAR(document().antenna().trim.asCut.begin()->second, byList, 1e-12);
    click("removeMeasurement");
    EXPECT_TRUE(document().antenna().trim.asCut.empty()) << "a log that was taken back has not begun";
}

TEST_F(TrimTest, AMendedDipThatCannotBeIsAskedAbout)
{
    const double goal = find<TrimBoard>("trimBoard")->target();
    type("trimDip", QString::number(0.99e-6 * goal, 'f', 4));
    click("addMeasurement");
    ASSERT_EQ(log().size(), 1u);
    auto* rows = window().findChild<LogModel*>();
    ASSERT_TRUE(waitedFor([&] { return rows->rowCount() == 1; }, 5000));
    rows->setData(rows->index(0, LogModel::Dip), QStringLiteral("140"), Qt::EditRole);
    EXPECT_NEAR(log()[0].dip, 0.99 * goal, 1e3);
    EXPECT_TRUE(pageSentence().contains(QStringLiteral("once more"))) << pageSentence().toStdString();
    rows->setData(rows->index(0, LogModel::Dip), QStringLiteral("140"), Qt::EditRole);
    EXPECT_NEAR(log()[0].dip, 140e6, 1.0);
}

} // namespace
} // namespace vetchling::app
