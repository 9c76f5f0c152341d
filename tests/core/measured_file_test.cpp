/// What instruments write: every form of Touchstone, CSV with any columns, and what a sweep says of itself.
#include "core/files/measured_file.h"
#include "core/trim/sense.h"

#include <gtest/gtest.h>

#include <fmt/format.h>

#include <cmath>
#include <random>

namespace vetchling {
namespace {

using namespace vetchling::files;

/// A resonant antenna in series form.
Complex antenna(double f, double f0 = 7.08e6, double r = 48.0, double q = 22.0) { return {r, r * q * (f / f0 - f0 / f)}; }

std::vector<double> places()
{
    std::vector<double> all;
    for (int i = 0; i <= 60; ++i)
        all.push_back(6.7e6 + 13e3 * i);
    return all;
}

std::string touchstone(const std::string& unit, const std::string& parameter, const std::string& form, double reference)
{
    const double hertz = unit == "Hz" ? 1.0 : unit == "kHz" ? 1e3 : unit == "MHz" ? 1e6 : 1e9;
    std::string text = fmt::format("! an instrument\n# {} {} {} R {}\n", unit, parameter, form, reference);
    for (double f : places()) {
        const Complex z = antenna(f);
        const Complex v = parameter == "S" ? (z - reference) / (z + reference) : parameter == "Z" ? z / reference : reference / z;
        const double angle = std::arg(v) * 180.0 / pi, size = form == "DB" ? 20.0 * std::log10(std::abs(v)) : std::abs(v);
        text += form == "RI" ? fmt::format("{:.12g} {:.12g} {:.12g} ! point\n", f / hertz, v.real(), v.imag())
                             : fmt::format("{:.12g}\t{:.12g}\t{:.12g}\r\n", f / hertz, size, angle);
    }
    return text;
}

TEST(Touchstone, EveryFormComesBackToTheSameImpedance)
{
    for (const char* unit : {"Hz", "kHz", "MHz", "GHz"})
        for (const char* parameter : {"S", "Z", "Y"})
            for (const char* form : {"RI", "MA", "DB"})
                for (double reference : {50.0, 75.0, 200.0}) {
                    const auto sweep = parseTouchstone(touchstone(unit, parameter, form, reference));
                    ASSERT_TRUE(sweep.ok()) << unit << parameter << form << sweep.firstFault();
                    ASSERT_EQ(sweep->points.size(), places().size());
                    for (const MeasuredPoint& p : sweep->points)
                        EXPECT_LT(std::abs(*p.impedance - antenna(p.frequency)) / std::abs(antenna(p.frequency)), 1e-8);
                    EXPECT_EQ(sweep->reference, reference);
                }
}

// 2026-11: a magnitude below nothing was taken for one half a turn on.
TEST(Touchstone, AMagnitudeBelowNothingIsNoMeasurement)
{
    for (const char* parameter : {"S", "Z"}) {
        const auto sweep = parseTouchstone(fmt::format("# MHz {} MA R 50\n7.0 0.5 10\n7.1 -0.5 10\n7.2 0.5 12\n", parameter));
        ASSERT_FALSE(sweep.ok()) << parameter;
        EXPECT_NE(sweep.firstFault().find("line 3"), std::string::npos) << sweep.firstFault();
        EXPECT_NE(sweep.firstFault().find("cannot have been measured"), std::string::npos) << sweep.firstFault();
    }
}

TEST(Touchstone, WithoutOptionsHasItsDefaults)
{
    const auto sweep = parseTouchstone("0.00708 0.5 180\n0.00709 0.5 0\n");
    ASSERT_TRUE(sweep.ok());
    EXPECT_NEAR(sweep->points[0].frequency, 7.08e6, 1e-3);
    EXPECT_NEAR(sweep->points[0].impedance->real(), 50.0 / 3.0, 1e-9);
    EXPECT_NEAR(sweep->points[1].impedance->real(), 150.0, 1e-9);
    EXPECT_NEAR(sweep->points[0].swr, 3.0, 1e-9);
}

TEST(Touchstone, TheSecondVersionKeepsOhms)
{
    const auto sweep = parseTouchstone("[Version] 2.0\n# MHz Z RI\n[Number of Ports] 1\n[Number of Frequencies] 2\n[Reference] 75\n"
                                       "[Network Data]\n7.0 40 -20\n7.1 42 3\n[End]\n");
    ASSERT_TRUE(sweep.ok()) << sweep.firstFault();
    EXPECT_EQ(*sweep->points[0].impedance, Complex(40.0, -20.0));
    EXPECT_EQ(sweep->reference, 75.0);
    EXPECT_FALSE(parseTouchstone("[Version] 2.0\n[Number of Ports] 3\n").ok());
}

TEST(Touchstone, NonsenseIsToldWithItsLine)
{
    const char* const bad[] = {"",
                               "! only words\n",
                               "# MHz S RI R 50\n7.0 0.1\n",
                               "# MHz S RI R 50\n7.0 0.1 0.2 0.3 0.4\n",
                               "# MHz S RI R 50\n7.1 0 0\n7.0 0 0\n7.2 0 0\n",
                               "# MHz S RI R 50\n7.1 0 0\n7.1 0 0\n",
                               "# MHz Z RI R 50\n7.1 1 0 0 0 0 0 1 0\n",
                               "# MHz S RI R 50\n7.0 1 0 0 0 0 0 1 0\n7.1 1 0\n",
                               "# MHz S RI R 50\n7.0 nan 0\n",
                               "# parsec S RI\n7 0 0\n",
                               "# MHz H RI\n7 0 0\n",
                               "# MHz S RI R -50\n7 0 0\n",
                               "hello\n"};
    for (const char* text : bad)
        EXPECT_FALSE(parseTouchstone(text).ok()) << text;
    EXPECT_NE(parseTouchstone("# MHz S RI R 50\n7.1 0 0\n7.0 0 0\n7.2 0 0\n").firstFault().find("line 4"), std::string::npos);
}

TEST(Touchstone, MayFallAndHaveTwoPorts)
{
    const auto fallen = parseTouchstone("# MHz S RI R 50\n7.2 0.2 0\n7.1 0 0\n7.0 0.5 0\n");
    ASSERT_TRUE(fallen.ok()) << fallen.firstFault();
    EXPECT_DOUBLE_EQ(fallen->points.front().frequency, 7.0e6);
    EXPECT_NEAR(fallen->points.front().swr, 3.0, 1e-9) << "each point keeps what was read there";
    // S11 S21 S12 S22, and the noise behind
    const auto two = parseTouchstone("# MHz S RI R 50\n7.0 0.5 0 0.1 0 0.1 0 0.9 0\n7.1 0.2 0 0.1 0 0.1 0 0.9 0\n2 4 0.5 80 0.3\n");
    ASSERT_TRUE(two.ok()) << two.firstFault();
    ASSERT_EQ(two->points.size(), 2u);
    EXPECT_NEAR(two->points[0].swr, 3.0, 1e-9);
    EXPECT_NEAR(two->points[1].swr, 1.5, 1e-9);
    EXPECT_TRUE(isTouchstone("a.S2P") && isTouchstone("b.s1p") && !isTouchstone("c.csv"));
    const auto csv = parseCsv("freq MHz,swr\n7.2,2\n7.1,1.5\n", guessCsv("freq MHz,swr\n7.2,2\n7.1,1.5\n"));
    ASSERT_TRUE(csv.ok()) << csv.firstFault();
    EXPECT_DOUBLE_EQ(csv->points.front().swr, 1.5);
}

TEST(Touchstone, AReflectionOfMoreThanAllIsBlamedOnItsLine)
{
    const auto wrong = parseTouchstone("# MHz S MA R 50\n7.0 0.4 10\n7.1 1.02 10\n7.2 14 10\n");
    ASSERT_FALSE(wrong.ok());
    EXPECT_NE(wrong.firstFault().find("line 4"), std::string::npos) << wrong.firstFault();
    EXPECT_TRUE(parseTouchstone("# MHz S MA R 50\n7.0 0.4 10\n7.1 1.02 10\n").ok()) << "a little is noise";
}

// 75 ohm reflect nothing into 75 ohm, and 1.5 into 50: by hand.
TEST(Touchstone, AnotherReferenceIsBroughtToTheLines)
{
    const auto sweep = parseTouchstone("# MHz S RI R 75\n7.0 0 0\n7.1 0.2 0\n");
    ASSERT_TRUE(sweep.ok());
    EXPECT_NEAR(sweep->points[0].swr, 1.0, 1e-9);
    const MeasuredSweep at50 = sweep->against(50.0);
    EXPECT_NEAR(at50.points[0].swr, 1.5, 1e-9);
    EXPECT_NEAR(at50.points[1].swr, 112.5 / 50.0, 1e-9) << "75 ohm times (1 + 0.2) over (1 - 0.2)";
    EXPECT_EQ(at50.reference, 50.0);
    MeasuredSweep alone;
    alone.points = {{7.0e6, std::nullopt, 1.7}};
    EXPECT_EQ(alone.against(75.0).points[0].swr, 1.7) << "what told the SWR alone is believed";
}

TEST(Touchstone, RandomBytesNeverBreakIt)
{
    std::mt19937 random(5);
    const std::string letters = "0123456789.-+eE #!\n\r\t[]RSIMHz,;\"NaN";
    for (int i = 0; i < 3000; ++i) {
        std::string text = i % 2 ? "# MHz S RI R 50\n" : "freq,swr\n";
        for (int k = 0; k < 80; ++k)
            text += letters[random() % letters.size()];
        const auto sweep = parseTouchstone(text);
        const auto csv = parseCsv(text, guessCsv(text));
        for (const auto* result : {&sweep, &csv})
            for (const MeasuredPoint& p : result->ok() ? (*result)->points : std::vector<MeasuredPoint>()) {
                EXPECT_TRUE(std::isfinite(p.frequency));
            }
    }
}

TEST(CsvSweep, HeadingsTellWhatTheColumnsAre)
{
    const struct {
        const char* head;
        const char* row;
    } forms[] = {{"Frequency (MHz),SWR", "7.08,1.5"},
                 {"freq_Hz;R_ohm;X_ohm", "7080000;75;0"},
                 {"f [kHz]\tReturn loss dB", "7080\t-13.9794"},
                 {"Freq(MHz), S11 real, S11 imag", "7.08, 0.2, 0"},
                 {"Zeit;Frequenz MHz;SWR", "12:00;7,08;1,5"}};
    for (const auto& form : forms) {
        const std::string text = std::string("made up\n") + form.head + "\n" + form.row + "\n";
        const CsvLayout layout = guessCsv(text);
        const auto sweep = parseCsv(text, layout);
        if (std::string(form.head).find("Zeit") == 0) { // words in the first column: told by hand
            CsvLayout own{{Column::Unknown, Column::Frequency, Column::Swr}, 1e6, ';', true, 2};
            const auto told = parseCsv(text, own);
            ASSERT_TRUE(told.ok()) << told.firstFault();
            EXPECT_NEAR(told->points[0].frequency, 7.08e6, 1e-3);
            EXPECT_NEAR(told->points[0].swr, 1.5, 1e-9);
            continue;
        }
        ASSERT_TRUE(sweep.ok()) << form.head << ": " << sweep.firstFault();
        ASSERT_EQ(sweep->points.size(), 1u) << form.head;
        EXPECT_NEAR(sweep->points[0].frequency, 7.08e6, 1e-3) << form.head;
        EXPECT_NEAR(sweep->points[0].swr, 1.5, 1e-4) << form.head;
    }
}

TEST(CsvSweep, WithoutHeadingsTwoColumnsAreSwrAndThreeAreRAndX)
{
    const auto two = parseCsv("7.0,2.1\n7.1,1.2\n", guessCsv("7.0,2.1\n7.1,1.2\n"));
    ASSERT_TRUE(two.ok());
    EXPECT_EQ(two->points[1].swr, 1.2);
    EXPECT_EQ(two->points[1].frequency, 7.1e6);
    const std::string text = "7000000,50,10\n7100000,51,0\n";
    const auto three = parseCsv(text, guessCsv(text));
    ASSERT_TRUE(three.ok());
    EXPECT_EQ(*three->points[0].impedance, Complex(50.0, 10.0));
    EXPECT_FALSE(parseCsv("swr\n1.5\n", guessCsv("swr\n1.5\n")).ok());
    EXPECT_FALSE(readMeasured("/no/such.s1p").ok());
}

TEST(Sweep, TheDipLiesBetweenThePoints)
{
    MeasuredSweep sweep;
    for (double f = 6.8e6; f < 7.4e6; f += 40e3) {
        const double swr = 1.2 + std::pow((f - 7.087e6) / 150e3, 2);
        sweep.points.push_back({f, std::nullopt, swr});
    }
    EXPECT_NEAR(sweep.dip()->frequency, 7.087e6, 10.0);
    EXPECT_NEAR(sweep.dip()->swr, 1.2, 1e-6);
    EXPECT_FALSE(sweep.dip()->atEdge);
    sweep.points.resize(4);
    EXPECT_TRUE(sweep.dip()->atEdge);
    EXPECT_FALSE(MeasuredSweep().dip());
}

// ---- does it make sense?

double swrOf(Complex z) { return (1.0 + std::abs((z - 50.0) / (z + 50.0))) / (1.0 - std::abs((z - 50.0) / (z + 50.0))); }
double model(double f) { return swrOf(antenna(f)); }

/// The antenna through a cable that loses so many dB one way.
MeasuredSweep through(double loss, const std::function<Complex(double)>& z, double from = 6.2e6, double to = 8.0e6)
{
    MeasuredSweep sweep;
    for (double f = from; f <= to; f += 20e3) {
        const Complex gamma = (z(f) - 50.0) / (z(f) + 50.0) * std::pow(10.0, -loss / 10.0);
        sweep.points.push_back({f, std::nullopt, (1.0 + std::abs(gamma)) / (1.0 - std::abs(gamma))});
    }
    return sweep;
}

bool tells(const std::vector<SenseRow>& rows, SenseSign sign)
{
    return std::any_of(rows.begin(), rows.end(), [&](const SenseRow& r) { return r.sign == sign; });
}

TEST(Sense, AGoodSweepFits)
{
    const auto rows = senseOf(through(0.0, [](double f) { return antenna(f, 7.02e6); }), model);
    ASSERT_EQ(rows.size(), 1u);
    EXPECT_TRUE(rows[0].good());
}

TEST(Sense, ALossyCableIsHalfOfWhatComesBackLess)
{
    for (double loss : {1.0, 2.0, 4.0}) {
        const auto rows = senseOf(through(loss, [](double f) { return antenna(f); }), model);
        ASSERT_TRUE(tells(rows, SenseSign::LossyCable)) << loss;
        EXPECT_NEAR(rows[0].value, loss, 0.15 * loss);
        EXPECT_FALSE(tells(senseOf(through(loss, [](double f) { return antenna(f); }), model, loss), SenseSign::LossyCable))
            << "that is known of";
    }
}

TEST(Sense, AWireThatIsTooLongIsNoLossyCable)
{
    // two and three percent below the model, swept more on one side
    for (double lower : {0.02, 0.03})
        for (const auto& [from, to] : {std::pair(6.4e6, 7.4e6), std::pair(6.6e6, 7.9e6), std::pair(6.2e6, 7.1e6)})
            for (double loss : {0.0, 3.0}) {
                const auto longer = [&](double f) { return antenna(f * (1.0 + lower)); };
                EXPECT_EQ(tells(senseOf(through(loss, longer, from, to), model), SenseSign::LossyCable), loss > 0.0)
                    << lower << " " << from << " " << loss;
            }
}

TEST(Sense, EachSignIsTold)
{
    EXPECT_TRUE(tells(senseOf(through(0.0, [](double) { return Complex{2.0, 300.0}; }), model), SenseSign::HighEverywhere));
    EXPECT_TRUE(tells(senseOf(through(0.0, [](double) { return Complex{55.0, 5.0}; }), model), SenseSign::FlatLow));
    EXPECT_TRUE(tells(senseOf(through(
                                  0.0, [](double f) { return antenna(f); }, 7.1e6, 8.0e6),
                              model),
                      SenseSign::DipAtEdge));
    EXPECT_TRUE(tells(senseOf(through(0.0, [](double f) { return antenna(f, 7.75e6); }), model), SenseSign::FarFromModel));
    EXPECT_TRUE(tells(senseOf(through(0.0, [](double f) { return antenna(f, 7.08e6, 110.0, 14.0); }), model), SenseSign::RaisedDip));
    const auto two = senseOf(through(0.0, [](double f) { return f < 7.25e6 ? antenna(f) : antenna(f, 7.45e6); }), model);
    EXPECT_TRUE(tells(two, SenseSign::TwoDips));
    MeasuredSweep wrong = through(0.0, [](double f) { return antenna(f); });
    for (MeasuredPoint& p : wrong.points)
        p.swr *= 0.5;
    EXPECT_TRUE(tells(senseOf(wrong, model), SenseSign::BelowOne));
    EXPECT_TRUE(senseOf({}, model).empty());
    MeasuredSweep negative = through(0.0, [](double f) { return antenna(f); });
    negative.points[3].impedance = Complex{-4.0, 80.0};
    EXPECT_TRUE(tells(senseOf(negative, model), SenseSign::FalseCalibration));
}

TEST(Sense, AMatchOnManyBandsOfOneDipoleAsksForTheCable)
{
    // dips at twice and two and a half times the frequency, where such a dipole has some thousand ohms
    const auto many = [](double f) { return f < 10e6 ? antenna(f) : f < 16e6 ? antenna(0.5 * f) : antenna(0.4 * f); };
    const auto dipole = [](double f) { return f < 10e6 ? model(f) : 30.0; };
    EXPECT_TRUE(tells(senseOf(through(0.0, many, 6.2e6, 19e6), dipole), SenseSign::GoodEverywhere));
    EXPECT_FALSE(tells(senseOf(through(0.0, many, 6.2e6, 8.0e6), dipole), SenseSign::GoodEverywhere)) << "one band alone";
    EXPECT_FALSE(tells(senseOf(through(0.0, many, 6.2e6, 19e6), [&](double f) { return swrOf(many(f)); }), SenseSign::GoodEverywhere))
        << "where the model has the same";
}

TEST(Sense, OnlySignsThatSayWhatToLookAtFirstStopTheSaw)
{
    for (SenseSign sign : {SenseSign::BelowOne, SenseSign::FalseCalibration, SenseSign::LossyCable, SenseSign::HighEverywhere,
                           SenseSign::FlatLow, SenseSign::GoodEverywhere, SenseSign::Jumped})
        EXPECT_TRUE((SenseRow{sign, 0.0, {}}.stops())) << int(sign);
    for (SenseSign sign : {SenseSign::Fits, SenseSign::SwrOnly, SenseSign::RaisedDip, SenseSign::OtherInstrument, SenseSign::DipAtEdge})
        EXPECT_FALSE((SenseRow{sign, 0.0, {}}.stops())) << int(sign);
}

Measurement readBy(const std::string& instrument, double dip, double cut = 0.0)
{
    Measurement m;
    m.instrument = instrument;
    m.dip = dip;
    m.cutSinceLast = cut;
    m.sweep = {{dip - 1e5, 2.0}, {dip + 1e5, 2.0}};
    return m;
}

TEST(Instruments, TwoThatReadOneStateTeachTheirDifference)
{
    const auto rows = senseBetween(readBy("bridge", 7.000e6), readBy("analyser", 7.014e6));
    ASSERT_EQ(rows.size(), 1u);
    EXPECT_EQ(rows[0].sign, SenseSign::OtherInstrument);
    EXPECT_NEAR(rows[0].value, 14e3, 1.0);
    EXPECT_EQ(senseBetween(readBy("bridge", 7.000e6), readBy("bridge", 7.040e6)).front().sign, SenseSign::Jumped) << "the same one twice";
    EXPECT_TRUE(senseBetween(readBy("bridge", 7.000e6), readBy("analyser", 7.040e6, 0.05)).empty()) << "something was cut";
    Measurement spring = readBy("bridge", 7.000e6), autumn = readBy("analyser", 7.040e6);
    spring.when = "2026-05-12T10:40", autumn.when = "2026-10-30T09:00";
    EXPECT_TRUE(senseBetween(spring, autumn).empty()) << "a summer went over it";
    EXPECT_EQ(asReadByOne({spring, autumn})[0].dip, 7.000e6);
    autumn.instrument = "bridge";
    EXPECT_TRUE(senseBetween(spring, autumn).empty()) << "a drift is no loose joint";
    // first hoist by the bridge, a cut, then both: all as the analyser reads
    const std::vector<Measurement> log{readBy("bridge", 6.900e6), readBy("bridge", 7.000e6, 0.1), readBy("analyser", 7.014e6)};
    const auto one = asReadByOne(log);
    EXPECT_NEAR(one[0].dip, 6.900e6 * 1.002, 1.0);
    EXPECT_NEAR(one[1].dip, 7.014e6, 1.0);
    EXPECT_NEAR(one[1].sweep[0].first, 6.9e6 * 1.002, 1.0);
    EXPECT_EQ(one[2].dip, 7.014e6);
    EXPECT_EQ(asReadByOne({readBy("bridge", 7.0e6), readBy("analyser", 7.1e6, 0.1)})[0].dip, 7.0e6) << "nothing links them";
}

} // namespace
} // namespace vetchling
