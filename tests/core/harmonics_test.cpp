#include "core/bands/free_lengths.h"
#include "core/bands/multiples.h"
#include "core/bands/wanted.h"
#include "core/em/sweep.h"
#include "core/study/compensation.h"
#include "core/study/map_run.h"
#include "core/study/operating.h"
#include "core/study/ratios.h"
#include "core/study/settings.h"
#include "core/study/skies.h"
#include "core/study/sky.h"

#include "tests/core/demo.h"
#include "tests/core/shape_helpers.h"

#include <algorithm>
#include <atomic>
#include <chrono>
#include <thread>

namespace vetchling {
namespace {

using namespace vetchling::testing;
using shapes::Multiples;
using shapes::shapeOf;

// ---- plain multiples

const Band sixtyThroughTen[] = {
    {"80 m", 3.5e6, 3.8e6}, {"40 m", 7e6, 7.2e6}, {"20 m", 14e6, 14.35e6}, {"15 m", 21e6, 21.45e6}, {"10 m", 28e6, 29.7e6}};

// Independent table: 3573 kHz lands on 80, 40, 20, 15 and 10 m with n = 1, 2, 4, 6, 8.
TEST(Multiples, LandWhereATableSays)
{
    const int expected[] = {1, 2, 4, 6, 8};
    for (std::size_t i = 0; i < std::size(expected); ++i)
        EXPECT_EQ(multiplesIn(sixtyThroughTen[i], 3.573e6), std::vector<int>{expected[i]}) << sixtyThroughTen[i].name;
    EXPECT_TRUE(multiplesIn({"30 m", 10.1e6, 10.15e6}, 3.573e6).empty());
}

TEST(Multiples, EdgesBelongToTheBandAndOddOnesCanBeAskedFor)
{
    EXPECT_EQ(multiplesIn({"", 14e6, 14.35e6}, 7e6), std::vector<int>{2});
    EXPECT_EQ(multiplesIn({"", 14e6, 14.35e6}, 7.175e6), std::vector<int>{2});
    EXPECT_TRUE(multiplesIn({"", 14e6, 14.35e6}, 7e6, Multiples::Odd).empty());
    EXPECT_EQ(multiplesIn({"", 21e6, 21.45e6}, 7.05e6, Multiples::Odd), std::vector<int>{3});
    EXPECT_TRUE(multiplesIn({"", 21e6, 21.45e6}, 0.0).empty());
}

// ---- lengths that are no half wave

std::vector<Band> bandsOf(std::initializer_list<std::pair<double, double>> kilohertz)
{
    std::vector<Band> bands;
    for (const auto& [from, to] : kilohertz)
        bands.push_back({"", 1e3 * from, 1e3 * to});
    return bands;
}

const std::vector<Band> sevenBands =
    bandsOf({{7000, 7200}, {10100, 10150}, {14000, 14350}, {18068, 18168}, {21000, 21450}, {24890, 24990}, {28000, 29700}});
const std::vector<Band> fourBands = bandsOf({{14000, 14350}, {21000, 21450}, {28000, 29700}, {50000, 52000}});

struct LengthCase {
    const std::vector<Band>& bands;
    double velocity, margin;
    DistanceMeasure measure;
    std::size_t count;
    FreeInterval first, second;
};

// Figures by exact rational arithmetic, worked out independently.
TEST(FreeLengths, MeetIndependentFigures)
{
    const LengthCase cases[] = {
        {sevenBands,
         0.97,
         6.0,
         DistanceMeasure::HalfWave,
         13,
         {3.0, 4.6018647, 3.0, 38.720493026},
         {36.661405551, 38.871069916, 37.175968158, 15.909090909}},
        {sevenBands,
         0.97,
         6.0,
         DistanceMeasure::Multiple,
         5,
         {3.0, 4.6018647, 3.0, 38.720493026},
         {8.530180577, 9.203729401, 8.834032574, 9.77580655}},
    };
    for (const LengthCase& c : cases) {
        FreeLengthOptions options;
        options.lowestVelocity = options.highestVelocity = c.velocity;
        options.marginPercent = c.margin;
        options.measure = c.measure;
        const auto found = freeLengths(c.bands, options);
        ASSERT_TRUE(found.ok());
        ASSERT_EQ(found->size(), c.count);
        for (const auto& [is, expected] : {std::pair((*found)[0], c.first), std::pair((*found)[1], c.second)}) {
            EXPECT_NEAR(is.from, expected.from, 1e-8);
            EXPECT_NEAR(is.to, expected.to, 1e-8);
            EXPECT_NEAR(is.best, expected.best, 1e-8);
            EXPECT_NEAR(is.distancePercent, expected.distancePercent, 1e-7);
        }
    }
}

// What the definition says, tried at many lengths by counting multiples one by one.
TEST(FreeLengths, KeepTheirMarginEverywhereAndLeaveNothingOut)
{
    FreeLengthOptions options;
    options.lowestVelocity = 0.94;
    options.highestVelocity = 0.98;
    options.marginPercent = 5.0;
    const auto found = freeLengths(fourBands, options);
    ASSERT_TRUE(found.ok() && !found->empty());
    const auto isFree = [&](double length) {
        for (const Band& b : fourBands)
            for (double f = b.from; f <= b.to + 1.0; f += 0.02 * (b.to - b.from))
                for (double v = options.lowestVelocity; v <= options.highestVelocity + 1e-9; v += 0.004) {
                    const double waves = length / (0.5 * v * speedOfLight / f), n = std::max(1.0, std::round(waves));
                    if (std::abs(waves - n) < 0.01 * options.marginPercent - 1e-9)
                        return false;
                }
        return true;
    };
    for (double length = 3.01; length < 60.0; length += 0.0437) {
        const bool listed =
            std::any_of(found->begin(), found->end(), [&](const FreeInterval& i) { return length >= i.from && length <= i.to; });
        const bool nearAnEdge = std::any_of(found->begin(), found->end(), [&](const FreeInterval& i) {
            return std::min(std::abs(length - i.from), std::abs(length - i.to)) < 0.02;
        });
        if (!nearAnEdge) {
            EXPECT_EQ(listed, isFree(length)) << length;
        }
    }
    for (const FreeInterval& i : *found)
        EXPECT_GE(i.distancePercent, options.marginPercent - 1e-9);
}

TEST(HalfWaveZones, AreTheMultiplesWithTheirMargin)
{
    FreeLengthOptions options;
    options.lowestVelocity = 0.95;
    options.highestVelocity = 1.0;
    options.marginPercent = 10.0;
    options.to = 45.0;
    const auto zones = halfWaveZones({"40 m", 7e6, 7.2e6}, options);
    ASSERT_EQ(zones.size(), 2u);
    EXPECT_NEAR(zones[1].from, 1.9 * 0.95 * speedOfLight / 14.4e6, 1e-9);
    EXPECT_NEAR(zones[1].to, 2.1 * speedOfLight / 14e6, 1e-9);
    options.measure = DistanceMeasure::Multiple;
    EXPECT_NEAR(halfWaveZones({"40 m", 7e6, 7.2e6}, options)[1].to, 2.2 * speedOfLight / 14e6, 1e-9);
}

TEST(FreeLengths, SayWhatMakesNoSense)
{
    EXPECT_FALSE(freeLengths({}).ok());
    FreeLengthOptions options;
    options.from = 20.0;
    options.to = 10.0;
    EXPECT_FALSE(freeLengths(sevenBands, options).ok());
    options = {};
    options.lowestVelocity = 1.2;
    EXPECT_FALSE(freeLengths(sevenBands, options).ok());
    EXPECT_FALSE(freeLengths({{"", 7.2e6, 7.0e6}}).ok());
}

// ---- odd and even: where antennas really work again

/// Frequencies without reactance and with little resistance, in free space.
std::vector<double> lowResonances(const WireModel& wire, double to, double highest)
{
    em::GroundTableCache tables;
    const auto model = std::make_shared<const WireModel>(wire);
    const auto curve = em::sweep(model, {0.5 * to / 8.0, to, 50.0, 0.004, 72, {}}, tables);
    std::vector<double> all;
    if (curve)
        for (const Resonance& r : resonances([&](double f) { return curve->at(f); }, curve->from, curve->to))
            if (r.resistance < highest)
                all.push_back(r.frequency);
    return all;
}

WireModel straightDipole(double length, double radius)
{
    WireModel model;
    Wire wire;
    wire.id = "w";
    wire.points = {{-0.5 * length, 0, 0}, {0.5 * length, 0, 0}};
    wire.radius = radius;
    model.wires = {wire};
    model.feeds = {{0, 0.5 * length, 1.0}};
    model.ground.kind = GroundKind::FreeSpace;
    return model;
}

/// Sine integral.
double sineIntegral(double x)
{
    constexpr int steps = 4000;
    double sum = 0.0;
    for (int i = 0; i < steps; ++i) {
        const double t = x * (i + 0.5) / steps;
        sum += std::sin(t) / t * x / steps;
    }
    return sum;
}

// End effect: the sinusoidal current's reactance 30 Si(2 pi n) ohm (Jordan & Balmain 1968, sec. 14.04) against the slope of the wire's mean
// impedance 120 (ln(2h/a) - 1) (Schelkunoff 1943, ch. 11): f = c/2L (n - 2/pi X/Z).
TEST(OddResonances, OfAThinWireLieWithinOnePercentOfTheEndEffectFormula)
{
    constexpr double length = 20.0, radius = 0.5e-3;
    const double mean = 120.0 * (std::log(length / radius) - 1.0);
    const std::vector<double> found = lowResonances(straightDipole(length, radius), 56e6, 400.0);
    ASSERT_GE(found.size(), 4u);
    for (int i = 0; i < 4; ++i) {
        const int n = 2 * i + 1;
        const double formula = (n - 2.0 / pi * 30.0 * sineIntegral(2.0 * pi * n) / mean) * speedOfLight / (2.0 * length);
        EXPECT_NEAR(found[std::size_t(i)] / formula, 1.0, 0.01) << n;
    }
}

/// Dips near each multiple of the lowest one, of an antenna as its own family draws it, seen at the line.
std::vector<bool> worksAt(const shapes::AntennaShape& shape, int most)
{
    study::Library library;
    study::Question question{{shape, {GroundKind::FreeSpace, 1.0, 0.0}, 0}, {}, 3.0, {}, shapes::TuneGoal::Resonance};
    for (int n = 1; n <= most; ++n)
        question.bands.push_back(
            {{std::to_string(n), 0.93 * n * shape.designFrequency, 1.09 * n * shape.designFrequency}, Wish::Must, std::to_string(n), {}});
    const auto curve = study::curveOf(library, question);
    std::vector<bool> works;
    for (std::size_t i = 0; curve && i < (*curve)->bands.size(); ++i)
        works.push_back((*curve)->bands[i].lowestSwr < 8.0); // a loop is near 250 ohm on even ones
    return works;
}

TEST(Families, WorkAgainAtTheMultiplesTheySay)
{
    const std::vector<bool> odd{true, false, true, false}, all{true, true, true, true};
    EXPECT_EQ(worksAt(shapeOf("dipole", {{"apex_height_m", 20}, {"end_height_m", 20}}, 7.1e6), 4), odd);
    EXPECT_EQ(worksAt(shapeOf("vertical", {{"base_height_m", 3}, {"radial_end_height_m", 3}}, 7.1e6), 4), odd);
    EXPECT_EQ(worksAt(shapeOf("end-fed", {}, 7.1e6), 4), all);
    EXPECT_EQ(worksAt(shapeOf("delta-loop", {}, 7.1e6), 4), all);
    for (const char* family : {"dipole", "vertical"})
        EXPECT_EQ(shapes::findFamily(family)->multiples(), Multiples::Odd) << family;
    for (const char* family : {"end-fed", "delta-loop", "loop", "off-centre-dipole"})
        EXPECT_EQ(shapes::findFamily(family)->multiples(), Multiples::All) << family;
}

TEST(RuleFundamental, GoesAsOneOverTheLength)
{
    const shapes::AntennaShape shape = shapeOf("end-fed", {}, 7.0e6);
    const double half = 468.0 * 0.3048 / 7.0;
    EXPECT_NEAR(ruleFundamental(shape, "length_m", half), 7.0e6, 1.0);
    EXPECT_NEAR(ruleFundamental(shape, "length_m", 2.0 * half), 3.5e6, 1.0);
    EXPECT_EQ(ruleFundamental(shape, "feed_height_m", 5.0), 0.0);
}

// ---- the map

std::shared_ptr<const study::LengthMap> mapOf(const study::MapQuestion& question)
{
    work::Queue queue;
    study::MapRun run(
        std::make_shared<em::GroundTableCache>(), [&](work::Queue::Work work) { return queue.batch(std::move(work)); }, question);
    run.wait(queue);
    EXPECT_TRUE(run.finished());
    return run.map();
}

// Each value is that of a direct solve of the antenna with that length: 0.02 + 1 % of the SWR, 0.05 dB.
TEST(LengthMap, IsTheSolvedAntennaWithThatLength)
{
    const Demo demo;
    const Antenna& antenna = demo.antenna("Wall end-fed 40");
    const auto question = study::mapQuestionOf(demo.design, antenna, {}, 18.5, 22.0, 4);
    ASSERT_TRUE(question.ok());
    const auto map = mapOf(*question);
    ASSERT_EQ(map->columns.size(), 4u);
    EXPECT_EQ(map->progress(), 1.0);
    study::Library library;
    for (const study::MapColumn& column : map->columns) {
        Antenna changed = antenna;
        changed.shape.parameters["length_m"] = column.value;
        const auto curve = study::curveOf(library, study::questionOf(demo.design, changed));
        const auto studied = library.study({changed.shape, demo.design.site.soil.ground(), 0});
        ASSERT_TRUE(curve.ok() && studied.ok());
        for (std::size_t i = 0; i < column.cells.size(); ++i) {
            const Coverage& c = (*curve)->bands[i];
            ASSERT_EQ(column.cells[i].solved, c.solved());
            if (!c.solved())
                continue;
            if (c.lowestSwr < 10.0) {
                EXPECT_NEAR(column.cells[i].lowestSwr, c.lowestSwr, 0.02 + 0.01 * c.lowestSwr) << c.band.name << ' ' << column.value;
            }
            const auto spot = studied->study->spot(c.band.centre());
            ASSERT_TRUE(spot.ok());
            const double passed = studied->built->transformer->at(c.band.centre()).efficiency((*spot)->solution.impedance);
            const double gain = study::gainTowards(*(*spot)->field, question->aim) + 10.0 * std::log10(passed);
            EXPECT_NEAR(column.cells[i].gain, gain, 0.05) << c.band.name << ' ' << column.value;
        }
    }
}

study::MapCell cell(double swr, double share, double gain) { return {true, swr, 0.0, share, {}, gain, 0, false}; }

TEST(LengthMap, BestIsByScoreThenGainAndTheFavouriteByItsOwnShare)
{
    study::LengthMap map;
    map.question.question.bands = {
        {{"a", 1e6, 2e6}, Wish::Must, "a", {}}, {{"b", 3e6, 4e6}, Wish::Nice, "b", {}}, {{"c", 5e6, 6e6}, Wish::No, "c", {}}};
    map.question.favourite = "b";
    map.question.aim.elevation = radians(20);
    const auto column = [&](double value, std::vector<study::MapCell> cells) {
        study::MapColumn c;
        c.value = value;
        c.cells = std::move(cells);
        c.score = 3.0 * c.cells[0].share + c.cells[1].share;
        map.columns.push_back(c);
    };
    column(10.0, {cell(1.2, 1.0, 1.0), cell(5.0, 0.0, 1.0), cell(1.0, 1.0, 9.0)});
    column(11.0, {cell(1.2, 1.0, 2.0), cell(5.0, 0.0, 1.0), cell(9.0, 0.0, 0.0)});
    column(12.0, {cell(4.0, 0.0, 2.0), cell(1.5, 0.8, 1.0), cell(9.0, 0.0, 0.0)});
    judgeMap(map);
    ASSERT_TRUE(map.bestAllRound && map.bestFavourite);
    EXPECT_EQ(map.columns[*map.bestAllRound].value, 11.0);
    EXPECT_EQ(map.columns[*map.bestFavourite].value, 12.0);
}

// A vertical's lobe on its highest band leaves the horizon between 5/8 and 3/4 of a wave.
TEST(LengthMap, TheLobeOfAVerticalRisesBetweenFiveEighthsAndThreeQuarters)
{
    Design design;
    design.site.soil.relativePermittivity = 20.0;
    design.site.soil.conductivity = 0.03;
    design.operation.bands = {{{"10 m", 28e6, 28.6e6}, Wish::Must, "ten", {}}};
    design.operation.aimElevation = 10.0;
    Antenna antenna = newAntenna(*shapes::findFamily("vertical"), 28.3e6);
    const double wave = wavelength(28.3e6);
    const auto question = study::mapQuestionOf(design, antenna, "radiator_m", 0.2 * wave, 0.95 * wave, 31);
    ASSERT_TRUE(question.ok());
    const auto map = mapOf(*question);
    ASSERT_TRUE(map->lobeCeiling.has_value());
    EXPECT_GT(*map->lobeCeiling, 0.6 * wave);
    EXPECT_LT(*map->lobeCeiling, 0.8 * wave);
}

TEST(LengthMap, SaysWhatItCannotVary)
{
    const Demo demo;
    EXPECT_FALSE(study::mapQuestionOf(demo.design, demo.antenna("Loop 17"), "nonsense").ok());
    EXPECT_FALSE(study::mapQuestionOf(demo.design, demo.antenna("Loop 17"), {}, 9.0, 4.0).ok());
    EXPECT_FALSE(study::mapQuestionOf(demo.design, demo.antenna("Loop 17"), {}, 4.0, 9.0, 1).ok());
}

// What cannot be built is a column that says so, and the others stand.
TEST(LengthMap, AColumnThatCannotBeBuiltSaysWhy)
{
    const Demo demo;
    const auto question = study::mapQuestionOf(demo.design, demo.antenna("Walking whip 17"), "whip_m", 3.0, 9.0, 3);
    ASSERT_TRUE(question.ok());
    const auto map = mapOf(*question);
    EXPECT_TRUE(map->columns[0].fault.empty());
    EXPECT_FALSE(map->columns[2].fault.empty());
    ASSERT_TRUE(map->bestAllRound.has_value());
    EXPECT_LT(*map->bestAllRound, 2u);
}

// Told to stop, a map keeps what it has and ends; what it has is judged.
TEST(LengthMap, IsCancelledAndKeepsWhatItHas)
{
    const Demo demo;
    const auto question = study::mapQuestionOf(demo.design, demo.antenna("Wall end-fed 40"), {}, 15.0, 25.0, 200);
    ASSERT_TRUE(question.ok());
    work::Queue queue;
    std::atomic<int> changes{0};
    study::MapRun run(
        std::make_shared<em::GroundTableCache>(), [&](work::Queue::Work work) { return queue.batch(std::move(work)); }, *question,
        [&] { ++changes; });
    while (changes < 3)
        std::this_thread::sleep_for(std::chrono::milliseconds(2));
    run.cancel();
    for (int i = 0; i < 5000 && !run.finished(); ++i)
        std::this_thread::sleep_for(std::chrono::milliseconds(2));
    EXPECT_TRUE(run.finished());
    const auto map = run.map();
    const auto computed = std::count_if(map->columns.begin(), map->columns.end(), [](const study::MapColumn& c) { return c.computed(); });
    EXPECT_GE(computed, 3);
    EXPECT_LT(map->progress(), 1.0);
    EXPECT_TRUE(map->bestAllRound.has_value());
}

TEST(Configurations, EachBandIsTakenWhereItsSwrIsLowest)
{
    const auto curveOf = [](std::vector<double> swrs) {
        auto curve = std::make_shared<study::Curve>();
        for (double swr : swrs) {
            Coverage c;
            c.lowestSwr = swr;
            c.verdict = swr > 0.0 ? Verdict::Partly : Verdict::OnRequest;
            curve->bands.push_back(c);
        }
        return study::CurvePointer(curve);
    };
    const auto best = study::bestByBand({curveOf({1.2, 9.0, 0.0}), curveOf({3.0, 1.5, 4.0})});
    ASSERT_EQ(best.size(), 3u);
    EXPECT_EQ(best[0].configuration, 0u);
    EXPECT_EQ(best[1].configuration, 1u);
    EXPECT_EQ(best[2].configuration, 1u) << "one that was not solved is worse than any that was";
}

TEST(Aim, WithoutABearingIsWhereItIsStrongest)
{
    const em::Solution solution = solved(dipole(20.3, 12.0, averageSoil), 7.1e6); // along x: broadside is y
    const em::FarField field(solution);
    study::Aim aim{radians(30), {}};
    EXPECT_NEAR(std::abs(std::sin(study::azimuthTowards(field, aim))), 1.0, 1e-6);
    EXPECT_NEAR(study::gainTowards(field, aim), field.gain(radians(30), 0.5 * pi), 1e-9);
    aim.azimuth = 0.0;
    EXPECT_LT(study::gainTowards(field, aim), field.gain(radians(30), 0.5 * pi));
    EXPECT_NEAR(study::passedThrough(1.0), 1.0, 1e-12);
    EXPECT_NEAR(study::passedThrough(3.0), 0.75, 1e-12);
    EXPECT_EQ(study::passedThrough(HUGE_VAL), 0.0);
    Operation operation;
    operation.aimElevation = 12.0;
    EXPECT_FALSE(study::aimOf(operation).azimuth.has_value());
    operation.aimBearing = 90.0;
    EXPECT_NEAR(*study::aimOf(operation).azimuth, 0.0, 1e-12); // east
}

// ---- ratios

TEST(Ratios, TheBestOneBringsTheWorstBandNearest)
{
    study::LengthMap map;
    map.question.question.bands = {{{"a", 1e6, 2e6}, Wish::Must, "a", {}}, {{"b", 3e6, 4e6}, Wish::Must, "b", {}}};
    study::MapColumn column;
    column.cells = {cell(1, 0, 0), cell(1, 0, 0)};
    column.cells[0].port = 150.0;
    column.cells[1].port = 300.0;
    map.columns = {column};
    EXPECT_NEAR(study::worstSwr(map, 0, 4.0), 1.5, 1e-9); // 37.5 and 75 ohm
    EXPECT_NEAR(study::worstSwr(map, 0, 1.0), 6.0, 1e-9);
    const auto best = study::bestRatios(map);
    ASSERT_FALSE(best.empty());
    EXPECT_EQ(best.front().ratio, 4.0);
    EXPECT_NEAR(best.front().lowestResistance, 37.5, 1e-9);
    EXPECT_NEAR(best.front().highestResistance, 75.0, 1e-9);
}

} // namespace
} // namespace vetchling
