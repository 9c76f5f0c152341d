/// Doubt stops the saw, how high, why another program says otherwise, feet with decimals, conditions of a report: as a user meets them.
#include "tests/app/trim_fixture.h"

#include "app/plots/pair_chart.h"
#include "app/stages/trim/log_book_model.h"

#include <QAction>

namespace vetchling::app {
namespace {

/// What is read through a cable that loses so many dB one way, the dip a part of the frequency lower than the model's.
Measurement readThrough(double loss, const study::Curve& curve, double lower)
{
    Measurement m;
    std::vector<std::pair<double, double>> sweep;
    double least = HUGE_VAL;
    for (double f = 6.6e6; f <= 7.5e6; f += 10e3) {
        const Complex z = curve.atLine(f * (1.0 + lower));
        const double g = std::abs((z - 50.0) / (z + 50.0)) * std::pow(10.0, -loss / 10.0), swr = (1.0 + g) / (1.0 - g);
        sweep.emplace_back(f, swr);
        if (swr < least)
            least = swr, m.dip = f, m.dipSwr = swr;
    }
    m.sweep = sweep;
    m.id = loss > 0.0 ? "lossy" : "good";
    m.when = "2026-05-12T10:40";
    return m;
}

TEST_F(TrimTest, DoubtKeepsTheLengthBehindOneClick)
{
    const CurvePointer curve = solver().curve();
    ASSERT_TRUE(curve && curve->covers(6.6e6) && curve->covers(7.6e6));
    const auto write = [&](const Measurement& m) {
        document().editAntenna(QStringLiteral("measure"), {}, [&](Antenna& a) { a.trim.measurements = {m}; });
    };
    auto* button = find<QPushButton>("believe");
    write(readThrough(0.0, *curve, 0.02));
    ASSERT_TRUE(waitedFor([&] { return advice().startsWith(QStringLiteral("Cut")); }, 30000)) << advice().toStdString();
    EXPECT_FALSE(button->isVisibleTo(&window()));
    const QString length = advice();
    write(readThrough(3.0, *curve, 0.02));
    ASSERT_TRUE(waitedFor([&] { return advice().startsWith(QStringLiteral("Look before you cut")); }, 30000)) << advice().toStdString();
    EXPECT_EQ(trim()->summary(), QStringLiteral("look before cutting"));
    ASSERT_TRUE(button->isVisibleTo(&window()));
    const auto card = find<TrimBoard>("trimBoard")->explanation() + find<TrimBoard>("trimBoard")->beside();
    EXPECT_FALSE(card.contains(QStringLiteral(" cm"))) << card.toStdString() << ": no length where there is doubt";
    QTest::keyClick(button, Qt::Key_Space);
    EXPECT_EQ(advice().left(3), QStringLiteral("Cut"));
    EXPECT_FALSE(button->isVisibleTo(&window()));
    EXPECT_TRUE(trim()->summary().startsWith(QStringLiteral("cut"))) << trim()->summary().toStdString();
    Measurement again = readThrough(3.0, *curve, 0.015);
    again.id = "again";
    write(again);
    ASSERT_TRUE(waitedFor([&] { return advice().startsWith(QStringLiteral("Look before you cut")); }, 30000))
        << "believed was the one before";
}

TEST_F(TrimTest, AReportTakesTheConditionsItIsWeighedBy)
{
    click("trimLog");
    type("reportFrequency", QStringLiteral("7.09"));
    type("reportSolarFlux", QStringLiteral("900"));
    type("reportText", QStringLiteral("57"));
    click("addReport");
    EXPECT_TRUE(document().antenna().trim.reports.empty()) << "no sun shines so";
    type("reportSolarFlux", QStringLiteral("142"));
    type("reportKIndex", QStringLiteral("3"));
    choose("reportFading", 2);
    click("addReport");
    ASSERT_EQ(document().antenna().trim.reports.size(), 1u);
    const AirReport& r = document().antenna().trim.reports.front();
    EXPECT_EQ(r.solarFlux, 142.0);
    EXPECT_EQ(r.kIndex, 3.0);
    EXPECT_EQ(r.fading, Fading::Slow);
    const auto* rows = window().findChild<LogBookModel*>();
    ASSERT_TRUE(rows);
    QString told;
    for (int i = 0; i < rows->columnCount(); ++i)
        told += rows->data(rows->index(0, i), Qt::DisplayRole).toString() + QLatin1Char('|');
    EXPECT_TRUE(told.contains(QStringLiteral("solar flux 142, K 3, fading: slow"))) << told.toStdString();
}

TEST_F(WindowTest, TheMapTellsHowHigh)
{
    show("bands");
    ASSERT_TRUE(settle());
    click("bands map");
    auto* what = find<QComboBox>("mapVary");
    const int place = what->findText(QStringLiteral("Height of all supports"));
    ASSERT_GE(place, 0);
    choose("mapVary", place);
    const auto sentence = [&] { return pageSentence(); };
    ASSERT_TRUE(waitedFor([&] { return sentence().contains(QStringLiteral("half a wave is")); }, 60000)) << sentence().toStdString();
    EXPECT_TRUE(sentence().contains(QStringLiteral("dBi straight up as it hangs"))) << sentence().toStdString();
    auto* chart = find<PairChart>("mapCurves");
    ASSERT_TRUE(chart->isVisibleTo(&window()) && chart->filled());
    const double before = document().antenna().shape.parameters.at("apex_height_m");
    for (int i = 0; i < 5; ++i)
        QTest::keyClick(chart, Qt::Key_Right);
    QTest::keyClick(chart, Qt::Key_Return);
    EXPECT_NE(document().antenna().shape.parameters.at("apex_height_m"), before) << "hung there";
    document().undoStack().undo();
    EXPECT_EQ(document().antenna().shape.parameters.at("apex_height_m"), before);
    type("mapFrom", QStringLiteral("nonsense"));
    EXPECT_FALSE(find<ValueEdit>("mapFrom")->complaint().isEmpty());
}

TEST_F(WindowTest, SkySaysWhyAnotherProgramSaysOtherwise)
{
    show("sky");
    ASSERT_TRUE(settle());
    auto* whose = find<QLabel>("gainWhose");
    ASSERT_TRUE(waitedFor([&] { return solver().detail() && whose->text().startsWith(QStringLiteral("Type")); }, 30000))
        << whose->text().toStdString();
    const double perfect = solver().detail()->elsewhere->strongestPerfect;
    type("gainTheirs", QLocale::c().toString(perfect, 'f', 1));
    EXPECT_TRUE(whose->text().contains(QStringLiteral("over perfect ground"))) << whose->text().toStdString();
    type("gainTheirs", QStringLiteral("60"));
    EXPECT_TRUE(whose->text().contains(QStringLiteral("none of these"))) << whose->text().toStdString();
    type("gainTheirs", QStringLiteral("much"));
    EXPECT_FALSE(find<ValueEdit>("gainTheirs")->complaint().isEmpty());
}

TEST_F(WindowTest, FeetAreToldWithDecimalsWhereThatIsChosen)
{
    show("bands");
    ASSERT_TRUE(settle());
    click("bands map");
    window().findChild<QAction*>(QStringLiteral("actionDecimalFeet"))->trigger();
    EXPECT_EQ(document().design().operation.system, units::System::DecimalFeet);
    EXPECT_TRUE(find<ValueEdit>("mapFrom")->text().endsWith(QStringLiteral(" ft"))) << find<ValueEdit>("mapFrom")->text().toStdString();
    window().findChild<QAction*>(QStringLiteral("actionUnits"))->trigger();
    EXPECT_EQ(document().design().operation.system, units::System::Metric);
    window().findChild<QAction*>(QStringLiteral("actionUnits"))->trigger();
    EXPECT_EQ(document().design().operation.system, units::System::DecimalFeet) << "as feet were told last";
    window().findChild<QAction*>(QStringLiteral("actionDecimalFeet"))->trigger();
    EXPECT_EQ(document().design().operation.system, units::System::Imperial);
}

} // namespace
} // namespace vetchling::app
