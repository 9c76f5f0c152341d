/// Distances to keep: against the far field, a dense scan of the fields, and the published tables.
#include "core/files/limits_file.h"
#include "core/shapes/family.h"
#include "tests/temp_folder.h"

#include <gtest/gtest.h>

#include <cmath>
#include <fstream>
#include <random>

namespace vetchling {
namespace {

WireModel dipole(double frequency, double height, const Ground& ground)
{
    const double half = 0.2375 * wavelength(frequency);
    WireModel model;
    model.ground = ground;
    Wire wire;
    wire.id = "a";
    wire.points = {{0, -half, height}, {0, half, height}};
    wire.radius = 1e-3;
    model.wires = {wire};
    model.feeds = {{0, half, 1.0}};
    return model;
}

const LimitSet& setOf(const std::vector<LimitSet>& all, const std::string& id)
{
    return *std::find_if(all.begin(), all.end(), [&](const LimitSet& s) { return s.id == id; });
}

std::vector<LimitSet> shipped() { return *files::readLimits(VETCHLING_DATA "/limits.json"); }

// Values as published, quoted with a confidence each; see the sources in the file.
TEST(Limits, AreThePublishedOnes)
{
    const auto all = shipped();
    const auto at = [&](const char* id, double megahertz) {
        const LimitRange* r = setOf(all, id).range(1e6 * megahertz);
        return std::pair(r->electric->at(1e6 * megahertz), r->magnetic->at(1e6 * megahertz));
    };
    EXPECT_NEAR(at("icnirp-2020-public", 7.1).first, 76.07473, 1e-4);
    EXPECT_NEAR(at("icnirp-2020-public", 7.1).second, 0.3098592, 1e-6);
    EXPECT_NEAR(at("icnirp-2020-occupational", 1.8).first, 437.3742, 1e-3);
    EXPECT_NEAR(at("icnirp-2020-public-local", 14.2).first, 104.742, 1e-3);
    EXPECT_NEAR(at("us-uncontrolled", 28.5).first, 28.91228, 1e-4);
    EXPECT_NEAR(at("us-controlled", 3.5).second, 1.397143, 1e-5);
    EXPECT_NEAR(at("icnirp-2020-public", 435).first, 28.6779, 1e-3);
    EXPECT_EQ(at("icnirp-2010-public-nerve", 3.5).first, 83.0);
    EXPECT_EQ(setOf(all, "icnirp-2010-public-nerve").range(14e6), nullptr);
    EXPECT_NEAR(setOf(all, "us-uncontrolled").range(435e6)->powerFlux->at(435e6), 2.9, 1e-9); // 0.29 mW/cm2
    for (const LimitSet& s : all) {
        EXPECT_FALSE(s.source.empty()) << s.id;
        EXPECT_GT(s.year, 1990) << s.id;
    }
}

// Farther than a wavelength E = sqrt(30 P G) / d.
TEST(KeepAway, IsTheFarFieldsFarAway)
{
    const double frequency = 145e6, power = 400.0;
    em::GroundTableCache tables;
    const auto solution =
        em::solve(std::make_shared<const WireModel>(dipole(frequency, 0.0, {GroundKind::FreeSpace, 1, 0})), frequency, tables);
    ASSERT_TRUE(solution.ok());
    LimitRange range{1e6, 1e9, LimitCurve{27.7, 0.0}, LimitCurve{1e3, 0.0}, {}};
    const auto keep = keepAway(*solution, tables, range, power);
    ASSERT_TRUE(keep.ok());
    EXPECT_NEAR(keep->fromWires, std::sqrt(30.0 * power * 1.64) / 27.7, 0.04 * keep->fromWires);
    EXPECT_TRUE(keep->bounded);
    // four times the power, twice the distance
    EXPECT_NEAR(keepAway(*solution, tables, range, 4.0 * power)->fromWires / keep->fromWires, 2.0, 0.03);
    // a plane wave's power flux says the same as its field
    LimitRange flux{1e6, 1e9, {}, {}, LimitCurve{27.7 * 27.7 / waveImpedance, 0.0}};
    EXPECT_NEAR(keepAway(*solution, tables, flux, power)->fromWires / keep->fromWires, 1.0, 0.02);
}

// Points thrown all round a dipole near the soil: hardly any that exceeds is farther, and some exceed nearly as far.
TEST(KeepAway, AgreesWithPointsThrownAtRandom)
{
    const double frequency = 14.2e6, height = 5.0;
    em::GroundTableCache tables;
    const WireModel model = dipole(frequency, height, {GroundKind::Real, 13.0, 0.005});
    const auto solution = em::solve(std::make_shared<const WireModel>(model), frequency, tables);
    ASSERT_TRUE(solution.ok());
    const auto all = shipped();
    const LimitRange& range = *setOf(all, "icnirp-2020-public").range(frequency);
    const double electric = range.electric->at(frequency), magnetic = range.magnetic->at(frequency);
    const em::NearField near(*solution, tables);
    const auto scan = ExposureScan::of(*solution, tables);
    ASSERT_TRUE(scan.ok());
    std::mt19937 dice(3);
    for (const double power : {60.0, 800.0}) {
        const double root = std::sqrt(power / solution->inputPower), reach = scan->keepAway(range, power).fromWires;
        const double span = 1.5 * reach, half = model.wires[0].points[1].y;
        std::uniform_real_distribution<double> x(-span, span), y(-half - span, half + span),
            z(std::max(0.03, height - span), height + span);
        double farthest = 0.0;
        for (int tried = 0; tried < 2500;) {
            const Vec3 p{x(dice), y(dice), z(dice)};
            const double away = segmentDistance(p, p, model.wires[0].points[0], model.wires[0].points[1]);
            if (away < 0.85 * reach || away > 1.4 * reach)
                continue;
            ++tried;
            const auto field = near.at(p);
            if (field && root * std::max(field->electric() / electric, field->magnetic() / magnetic) >= 1.0)
                farthest = std::max(farthest, away);
        }
        EXPECT_GT(farthest, 0.9 * reach) << power;
        EXPECT_LT(farthest, 1.05 * reach) << power;
    }
}

// The fan of the demo up to 20 kW: no point of a fine grid of directions and distances that exceeds lies farther than is told.
TEST(KeepAway, HoldsOnAGridUpToTwentyKilowatts)
{
    const double frequency = 24.94e6;
    em::GroundTableCache tables;
    shapes::AntennaShape fan = shapes::findFamily("fan-dipole")->standardShape(frequency);
    const auto built = shapes::buildOver(fan, {GroundKind::Real, 30.0, 0.05});
    ASSERT_TRUE(built.ok()) << built.firstFault();
    const auto solution = em::solve(std::make_shared<const WireModel>(built->model), frequency, tables);
    ASSERT_TRUE(solution.ok());
    const auto all = shipped();
    const LimitRange& range = *setOf(all, "icnirp-2020-public").range(frequency);
    const double electric = range.electric->at(frequency), magnetic = range.magnetic->at(frequency);
    const auto scan = ExposureScan::of(*solution, tables);
    ASSERT_TRUE(scan.ok());
    const em::NearField near(*solution, tables);
    const auto away = [&](Vec3 p) {
        double least = HUGE_VAL;
        for (const Wire& w : built->model.wires)
            for (std::size_t i = 1; i < w.points.size(); ++i)
                least = std::min(least, segmentDistance(p, p, w.points[i - 1], w.points[i]));
        return least;
    };
    const auto exceeds = [&](Vec3 p, double root) {
        const auto field = near.at(p);
        return field && root * std::max(field->electric() / electric, field->magnetic() / magnetic) >= 1.0;
    };
    for (const double power : {1500.0, 6000.0, 20000.0}) {
        const KeepAway told = scan->keepAway(range, power);
        const double root = std::sqrt(power / solution->inputPower);
        double farthest = 0.0, onGround = 0.0;
        for (int a = 0; a < 30; ++a) {
            const double azimuth = 2.0 * pi * (a + 0.3) / 30.0, east = std::cos(azimuth), north = std::sin(azimuth);
            for (int e = 0; e < 24; ++e)
                for (int k = 14; k-- > 0;) { // from outside, to the first that exceeds
                    const double t = told.fromWires * (0.96 + 0.02 * k), elevation = 0.06 * (e + 0.3);
                    const Vec3 p{built->feedPoint.x + t * std::cos(elevation) * east, built->feedPoint.y + t * std::cos(elevation) * north,
                                 0.1 + t * std::sin(elevation)};
                    if (!exceeds(p, root))
                        continue;
                    farthest = std::max(farthest, away(p));
                    break;
                }
            for (double t = 1.3 * told.fromWires; t > told.onGround; t -= 0.03 * told.fromWires)
                if (const Vec3 p{built->feedPoint.x + t * east, built->feedPoint.y + t * north, 1.9}; exceeds(p, root)) {
                    onGround = std::max(onGround, away({p.x, p.y, built->feedPoint.z}));
                    break;
                }
        }
        EXPECT_LE(farthest, told.fromWires) << power << " W";
        EXPECT_LE(onGround, told.onGround) << power << " W";
        EXPECT_TRUE(told.bounded);
    }
}

TEST(KeepAway, OnTheGroundIsNoFartherThanFromTheWires)
{
    const double frequency = 7.1e6;
    em::GroundTableCache tables;
    const auto high =
        em::solve(std::make_shared<const WireModel>(dipole(frequency, 12.0, {GroundKind::Real, 13.0, 0.005})), frequency, tables);
    const auto low =
        em::solve(std::make_shared<const WireModel>(dipole(frequency, 2.5, {GroundKind::Real, 13.0, 0.005})), frequency, tables);
    const auto all = shipped();
    const LimitRange& range = *setOf(all, "icnirp-2020-public").range(frequency);
    const auto above = keepAway(*high, tables, range, 100.0), near = keepAway(*low, tables, range, 100.0);
    EXPECT_EQ(above->onGround, 0.0); // nobody reaches up there
    EXPECT_GT(above->fromWires, 0.1);
    EXPECT_GT(near->onGround, 0.0);
    EXPECT_LE(near->onGround, near->fromWires + 1e-9);
    // at every moment, with nothing averaged: nerves are the stricter limit below some 6 MHz
    int asked = 0;
    const Watch watch([&] { return ++asked > 2; });
    EXPECT_FALSE(keepAway(*high, tables, range, 100.0, watch).ok());
}

// What stands at a boundary, and what the file refuses.
TEST(Limits, RangesJoinWithoutAGap)
{
    const auto sets = shipped();
    ASSERT_GE(sets.size(), 2u);
    std::size_t joints = 0;
    for (const LimitSet& set : sets) {
        ASSERT_FALSE(set.ranges.empty()) << set.id;
        joints += set.ranges.size() - 1;
        for (std::size_t i = 1; i < set.ranges.size(); ++i) {
            EXPECT_EQ(set.ranges[i].from, set.ranges[i - 1].to) << set.id;
            EXPECT_EQ(set.range(set.ranges[i].from), &set.ranges[i - 1]) << set.id;
            EXPECT_EQ(set.range(set.ranges[i].from * 1.0001), &set.ranges[i]) << set.id;
        }
    }
    EXPECT_GE(joints, 4u);
    const testing::TempFolder folder;
    const std::string path = folder.file("limits.json");
    for (const char* range :
         {R"({"from_MHz":3,"to_MHz":1,"E_V_per_m":[1,0],"H_A_per_m":[1,0]})", R"({"from_MHz":1,"to_MHz":3,"E_V_per_m":[1,0]})",
          R"({"from_MHz":1,"to_MHz":3,"S_W_per_m2":[-1,0]})", R"({"from_MHz":1,"to_MHz":3,"S_W_per_m2":[1]})"}) {
        std::ofstream(path) << R"({"limits":[{"id":"a","name":"a","source":"s","year":2020,"ranges":[)" << range << "]}]}";
        const auto limits = files::readLimits(path);
        ASSERT_FALSE(limits.ok()) << range;
        EXPECT_NE(limits.firstFault().find("limits[0].ranges[0]"), std::string::npos) << limits.firstFault();
    }
}

TEST(KeepAway, GrowsWithThePowerAndShrinksWithTheLimit)
{
    const double frequency = 10.12e6;
    em::GroundTableCache tables;
    const auto solution =
        em::solve(std::make_shared<const WireModel>(dipole(frequency, 7.0, {GroundKind::Real, 13.0, 0.005})), frequency, tables);
    const auto scan = ExposureScan::of(*solution, tables);
    ASSERT_TRUE(scan.ok());
    const auto all = shipped();
    double before = 0.0;
    for (const double power : {1.0, 10.0, 100.0, 400.0, 1500.0}) {
        const KeepAway open = scan->keepAway(*setOf(all, "icnirp-2020-public").range(frequency), power),
                       strict = scan->keepAway(*setOf(all, "icnirp-2020-occupational").range(frequency), power);
        EXPECT_GT(open.fromWires, before) << power;
        EXPECT_LE(strict.fromWires, open.fromWires) << power;
        EXPECT_TRUE(open.bounded);
        before = open.fromWires;
    }
    EXPECT_EQ(scan->keepAway(*setOf(all, "icnirp-2020-public").range(frequency), 0.0).fromWires, 0.0);
}

} // namespace
} // namespace vetchling
