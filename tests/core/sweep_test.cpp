#include "core/em/sweep.h"

#include "core/em/rational.h"
#include "core/files/sweep_file.h"
#include "tests/core/helpers.h"

#include <nlohmann/json.hpp>

#include <sstream>

namespace vetchling::em {
namespace {

using namespace vetchling::testing;

// A rational function of degree 3 is recovered exactly from enough points.
TEST(RationalFit, RecoversARationalFunction)
{
    const auto g = [](double x) { return (1.0 + Complex{0, 2} * x) / ((x - Complex{0.3, 0.1}) * (x - Complex{0.7, 0.05})); };
    std::vector<double> x;
    std::vector<Complex> y;
    for (int i = 0; i <= 14; ++i)
        x.push_back(i / 14.0), y.push_back(g(x.back()));
    const RationalFit fit(x, y, 1e-10);
    EXPECT_LE(fit.supportCount(), 5u);
    for (double p = 0.01; p < 1.0; p += 0.037)
        EXPECT_LT(relative(fit.at(p), g(p)), 1e-7);
}

TEST(RationalFit, GoesThroughItsSupportPoints)
{
    const std::vector<double> x{0.0, 0.25, 0.5, 0.75, 1.0};
    const std::vector<Complex> y{1.0, Complex{0, 1}, -1.0, 2.0, 0.5};
    const RationalFit fit(x, y, 0.0);
    int exact = 0;
    for (std::size_t i = 0; i < x.size(); ++i)
        exact += std::abs(fit.at(x[i]) - y[i]) < 1e-12;
    EXPECT_GE(exact, 3);
}

TEST(RationalFit, OfOnePointIsConstant)
{
    const RationalFit fit({0.5}, {Complex{2, 3}}, 0.0);
    EXPECT_EQ(fit.at(0.5), (Complex{2, 3}));
    EXPECT_EQ(fit.at(0.9), (Complex{2, 3}));
}

struct SweepCase {
    const char* name;
    WireModel model;
    double reference;
};

WireModel shortLoaded()
{
    WireModel model = dipole(8, 7, averageSoil);
    for (double at : {2.0, 6.0}) {
        Load coil;
        coil.at = at;
        coil.inductance = 14e-6;
        coil.q = 300;
        model.loads.push_back(coil);
    }
    return model;
}

WireModel endFed()
{
    WireModel model = fedWire({{0, 0, 2.5}, {20.2, 0, 8}}, 0.0, averageSoil);
    model.wires.push_back(wire("c", {{0, 0, 2.5}, {-2, 0, 2.5}}));
    return model;
}

class BruteSweep : public ::testing::TestWithParam<int> {};

// Against solves at many frequencies between: SWR within 1 % wherever it is below 10.
TEST_P(BruteSweep, CurveKeepsOnePercent)
{
    const SweepCase cases[] = {{"inverted V", fedWire({{-8, 0, 8}, {0, 0, 13}, {8, 0, 8}}, std::hypot(8, 5), averageSoil), 50.0},
                               {"loaded", shortLoaded(), 50.0},
                               {"end-fed", endFed(), 2450.0}};
    const SweepCase& c = cases[GetParam()];
    GroundTableCache tables;
    SweepOptions options{1.8e6, 30e6};
    options.reference = c.reference;
    const auto model = std::make_shared<const WireModel>(c.model);
    const auto curve = sweep(model, options, tables);
    ASSERT_TRUE(curve.ok()) << curve.firstFault();
    EXPECT_TRUE(curve->converged);
    EXPECT_LE(curve->solves, 72);
    double worst = 0.0;
    int judged = 0;
    for (int i = 1; i < 140; ++i) {
        const double f = options.from * std::pow(options.to / options.from, (i + 0.37) / 140.0);
        const auto exact = solve(model, f, tables);
        ASSERT_TRUE(exact.ok());
        const double truth = swr(exact->impedance, c.reference);
        if (truth > 10.0)
            continue;
        ++judged;
        worst = std::max(worst, std::abs(curve->swrAt(f) / truth - 1.0));
    }
    EXPECT_LT(worst, 0.01) << c.name << " from " << judged << " points";
}

INSTANTIATE_TEST_SUITE_P(Antennas, BruteSweep, ::testing::Values(0, 1, 2));

TEST(Sweep, DisplayPointsKeepStraightLinesTrue)
{
    GroundTableCache tables;
    const auto curve = sweep(std::make_shared<const WireModel>(shortLoaded()), {1.8e6, 30e6}, tables);
    ASSERT_TRUE(curve.ok());
    const std::vector<double> f = curve->displayFrequencies(1.8e6, 30e6);
    ASSERT_TRUE(std::is_sorted(f.begin(), f.end()));
    EXPECT_EQ(f.front(), 1.8e6);
    EXPECT_NEAR(f.back(), 30e6, 1.0);
    for (std::size_t i = 1; i < f.size(); ++i)
        for (double part : {0.2, 0.5, 0.8}) {
            const double truth = curve->swrAt(f[i - 1] + part * (f[i] - f[i - 1]));
            if (truth > 9.5)
                continue;
            const double line = (1 - part) * curve->swrAt(f[i - 1]) + part * curve->swrAt(f[i]);
            EXPECT_NEAR(line / truth, 1.0, 0.01) << f[i];
        }
}

TEST(Sweep, RefusesBadRanges)
{
    GroundTableCache tables;
    const auto model = std::make_shared<const WireModel>(dipole(10, 5));
    for (auto [from, to] :
         {std::pair(10e6, 5e6), std::pair(0.0, 5e6), std::pair(5e6, 1e13), std::pair(7e6, 7e6), std::pair(std::nan(""), 7e6)}) {
        SweepOptions options{1.8e6, 30e6};
        options.from = from;
        options.to = to;
        EXPECT_FALSE(sweep(model, options, tables).ok());
    }
}

TEST(RationalFit, OfValuesThatAreNoNumbersIsNoCrash)
{
    const double none = std::numeric_limits<double>::quiet_NaN();
    std::vector<double> points;
    std::vector<Complex> values;
    for (int i = 0; i < 9; ++i) {
        points.push_back(i);
        values.emplace_back(i % 3 == 1 ? none : i, 0.0);
    }
    const RationalFit fit(points, values, 1e-6);
    EXPECT_NO_THROW((void)fit.at(2.5));
}

TEST(Sweep, StopsBetweenSolves)
{
    GroundTableCache tables;
    int solves = 0;
    const Watch watch([&] { return solves >= 3; });
    const auto result =
        sweep(std::make_shared<const WireModel>(dipole(10, 5)), {1.8e6, 30e6}, tables, watch, [&](const Solution&) { ++solves; });
    ASSERT_FALSE(result.ok());
    EXPECT_GE(solves, 3);
    EXPECT_LE(solves, 6); // those under way on other threads may still end
}

TEST(Sweep, TellsEverySolveAndReportsProgress)
{
    GroundTableCache tables;
    int solves = 0;
    double last = 0.0;
    const Watch watch = Watch().with([&](double done) {
        EXPECT_GE(done, last - 1e-12);
        last = done;
    });
    const auto curve =
        sweep(std::make_shared<const WireModel>(dipole(10, 5)), {1.8e6, 30e6}, tables, watch, [&](const Solution&) { ++solves; });
    ASSERT_TRUE(curve.ok());
    EXPECT_EQ(solves, curve->solves);
    EXPECT_EQ(last, 1.0);
}

TEST(SweepFile, ThreeFormatsHoldTheSameCurve)
{
    GroundTableCache tables;
    const auto curve = sweep(std::make_shared<const WireModel>(dipole(10, 5)), {1.8e6, 30e6}, tables);
    ASSERT_TRUE(curve.ok());
    const files::SweepTable table = files::sweepTable(*curve, 10e6, 20e6);
    const auto json = nlohmann::json::parse(files::sweepJson(table));
    EXPECT_EQ(json["format"], "vetchling-sweep");
    ASSERT_EQ(json["frequency_Hz"].size(), table.frequency.size());
    EXPECT_EQ(json["solves"], curve->solves);

    std::stringstream csv(files::sweepCsv(table));
    std::string line;
    std::getline(csv, line);
    EXPECT_EQ(line, "frequency_Hz,r_ohm,x_ohm,swr_50");
    std::size_t rows = 0;
    while (std::getline(csv, line))
        ++rows;
    EXPECT_EQ(rows, table.frequency.size());

    std::stringstream touchstone(files::sweepTouchstone(table));
    std::getline(touchstone, line);
    EXPECT_EQ(line[0], '!');
    std::getline(touchstone, line);
    EXPECT_EQ(line, "# Hz S RI R 50");
    double f = 0.0, re = 0.0, im = 0.0;
    touchstone >> f >> re >> im;
    const Complex s{re, im}, z = 50.0 * (1.0 + s) / (1.0 - s);
    EXPECT_LT(relative(z, table.impedance.front()), 1e-4);
    EXPECT_NEAR(json["swr_50"][0], swr(z), 1e-3 * swr(z));
}

TEST(Swr, HasItsKnownValues)
{
    EXPECT_DOUBLE_EQ(swr(50.0), 1.0);
    EXPECT_NEAR(swr(100.0), 2.0, 1e-12);
    EXPECT_NEAR(swr(25.0), 2.0, 1e-12);
    EXPECT_NEAR(swr({50.0, 50.0}), 2.618, 1e-3);
    EXPECT_TRUE(std::isinf(swr({0.0, 30.0})));
    EXPECT_TRUE(std::isinf(swr({-5.0, 0.0})));
}

} // namespace
} // namespace vetchling::em
