#include "core/trim/readings.h"
#include "core/trim/trim.h"
#include "core/workshop/cut_list.h"

#include "core/em/solver.h"

#include "tests/core/helpers.h"

#include <random>

namespace vetchling {
namespace {

using namespace vetchling::testing;
using shapes::WireEnd;
using shapes::WireSection;

TEST(CutList, AddsWhatEachEndTakes)
{
    Allowances a;
    a.centre = 0.06;
    a.fold = 0.30;
    a.coilTail = 0.04;
    a.jointTail = 0.05;
    a.marginPercent = 2.0;
    const auto rows = cutList({{"leg", 2, 10.0, WireEnd::Centre, WireEnd::Insulator},
                               {"outer", 2, 3.0, WireEnd::Coil, WireEnd::Insulator},
                               {"radial", 8, 5.0, WireEnd::Joint, WireEnd::Insulator},
                               {"loop", 1, 20.0, WireEnd::Centre, WireEnd::Centre}},
                              a);
    ASSERT_EQ(rows.size(), 4u);
    EXPECT_NEAR(rows[0].cut, 10.0 + 0.36 + 0.2, 1e-12);
    EXPECT_NEAR(rows[1].ends, 0.34, 1e-12);
    EXPECT_NEAR(rows[2].ends, 0.35, 1e-12);
    EXPECT_NEAR(rows[3].cut, 20.0 + 0.12 + 0.4, 1e-12);
    EXPECT_NEAR(totalWire(rows), 2 * rows[0].cut + 2 * rows[1].cut + 8 * rows[2].cut + rows[3].cut, 1e-12);
}

TEST(CutList, WritesCsv)
{
    const std::string csv = cutListCsv(cutList({{"leg", 2, 10.0, WireEnd::Centre, WireEnd::Insulator}}, {}));
    EXPECT_EQ(csv, "cut,pieces,radiating_m,ends_m,margin_m,cut_to_m\nleg,2,10.000,0.360,0.140,10.500\n");
}

// A half-wave dipole at 100 W has about a kilovolt at its ends and 2 A peak in its middle.
TEST(EndVoltage, IsAboutAKilovoltAtAHundredWatts)
{
    const double volts = em::endVoltage(2.0, 20.0, 1e-3);
    EXPECT_GT(volts, 700.0);
    EXPECT_LT(volts, 1600.0);
}

std::vector<Measurement> logOf(std::vector<std::pair<double, double>> cutsAndDips)
{
    std::vector<Measurement> log;
    for (auto [cut, dip] : cutsAndDips) {
        Measurement m;
        m.cutSinceLast = cut;
        m.dip = dip;
        log.push_back(m);
    }
    return log;
}

constexpr double slope = 700e3; // Hz a metre
// Cuts pull the slope towards what they did, the more wire the more.
TEST(TrimSlope, LearnsFromTheCuts)
{
    const double little = correctedSlope(logOf({{0.0, 6.9e6}, {0.05, 6.9e6 + 0.05 * 600e3}}), slope);
    const double much = correctedSlope(logOf({{0.0, 6.8e6}, {0.30, 6.8e6 + 0.30 * 600e3}}), slope);
    EXPECT_LT(little, slope);
    EXPECT_LT(much, little);
    EXPECT_GT(much, 600e3);
    EXPECT_NEAR(little, 650e3, 1.0); // 5 cm against a prior worth 5 cm
}

TEST(TrimSlope, IgnoresAMisreadDip)
{
    EXPECT_DOUBLE_EQ(correctedSlope(logOf({{0.0, 6.9e6}, {0.05, 5.2e6}}), slope), slope);
    EXPECT_DOUBLE_EQ(correctedSlope(logOf({{0.0, 6.9e6}, {0.0, 6.93e6}}), slope), slope);
}

TEST(TrimSlope, LengtheningCountsToo)
{
    EXPECT_NEAR(correctedSlope(logOf({{0.0, 7.2e6}, {-0.05, 7.2e6 - 0.05 * 600e3}}), slope), 650e3, 1.0);
}

ImpedanceAt modelCurve(double f0)
{
    return [=](double f) { return Complex{45.0, 45.0 * 24.0 * (f / f0 - f0 / f)}; };
}

// Readings of an antenna whose dip lies elsewhere give that dip back.
TEST(SwrReadings, FindTheDip)
{
    const auto model = modelCurve(7.08e6);
    for (double shift : {-0.04, -0.01, 0.0, 0.02, 0.05}) {
        const auto real = modelCurve(7.08e6 * (1.0 + shift));
        std::vector<SwrReading> readings;
        for (double f : {7.0e6, 7.2e6})
            readings.push_back({f, swr(real(f))});
        const auto dip = dipFromReadings(readings, model, 7.08e6);
        ASSERT_TRUE(dip.ok()) << dip.firstFault();
        EXPECT_NEAR(*dip, 7.08e6 * (1.0 + shift), 8e3) << shift;
    }
}

// The lower channel better means too long, the higher one better too short.
TEST(SwrReadings, CompareTheChannels)
{
    const auto model = modelCurve(7.1e6);
    EXPECT_LT(*dipFromReadings({{7.0e6, 1.4}, {7.1e6, 2.1}, {7.2e6, 2.9}}, model, 7.1e6), 7.1e6);
    EXPECT_GT(*dipFromReadings({{7.0e6, 2.9}, {7.1e6, 2.1}, {7.2e6, 1.4}}, model, 7.1e6), 7.1e6);
}

TEST(SwrReadings, RefuseNonsense)
{
    const auto model = modelCurve(7.1e6);
    EXPECT_NE(dipFromReadings({{7.1e6, 1.5}}, model, 7.1e6).firstFault().find("second frequency"), std::string::npos);
    EXPECT_NE(dipFromReadings({{3.0e6, 1.0}, {3.1e6, 1.0}}, model, 7.1e6).firstFault().find("do not fit"), std::string::npos);
}

TEST(Measurement, IsCheckedAsTyped)
{
    Measurement m;
    m.dip = 7.03e6;
    EXPECT_TRUE(findMeasurementFaults(m).empty());
    m.dip = 0.0;
    EXPECT_TRUE(mentions(findMeasurementFaults(m), "dip", "such as 7.030"));
    m.dip = 7e6;
    m.dipSwr = 0.3;
    EXPECT_FALSE(findMeasurementFaults(m).empty());
    m.dipSwr = 1.3;
    m.cutSinceLast = std::nan("");
    EXPECT_FALSE(findMeasurementFaults(m).empty());
}

// The length card compared a folded dipole's side with all of its wire, and a whole wire with one of its sides.
TEST(CutFor, IsTheCutOfThatLengthOrNothing)
{
    const auto cutOf = [](const char* family, const char* key) {
        const shapes::AntennaShape shape = shapes::findFamily(family)->standardShape(14.1e6);
        const auto built = shapes::buildOver(shape, averageSoil);
        return cutFor(cutList(built->sections, {}), shape.parameters.at(key));
    };
    const double dipole = *cutOf("dipole", "leg_m"), rule = 0.5 * 468.0 * 0.3048 / 14.1;
    EXPECT_GT(dipole, rule);
    EXPECT_LT(dipole, 1.15 * rule);
    EXPECT_GT(*cutOf("off-centre-dipole", "length_m"), 2.0 * rule);
    EXPECT_LT(*cutOf("off-centre-dipole", "length_m"), 2.3 * rule);
    EXPECT_FALSE(cutOf("folded-dipole", "leg_m"));
}

} // namespace
} // namespace vetchling
