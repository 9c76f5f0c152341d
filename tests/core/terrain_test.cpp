/// Waves over uneven ground: against independent solutions of hills, a cliff, a slope and the sea (tests/data/terrain), against Fresnel's
/// coefficients on flat and on tilted ground, and against itself from the other side.
#include "core/em/hankel_row.h"
#include "core/em/terrain.h"
#include "core/files/design_file.h"
#include "core/files/terrain_file.h"
#include "tests/core/demo.h"
#include "tests/validation/direct_terrain.h"

#include <fmt/format.h>
#include <gtest/gtest.h>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <atomic>
#include <cmath>
#include <fstream>
#include <random>

namespace vetchling::em {
namespace {

const Ground garden{GroundKind::Real, 13.0, 0.005}, sea{GroundKind::Real, 81.0, 5.0}, rock{GroundKind::Real, 4.0, 0.001};

double decibels(Complex a, Complex b) { return 20.0 * std::log10(std::abs(a / b)); }

TerrainField solved(const TerrainProfile& profile, double frequency, const std::vector<double>& heights)
{
    auto field = TerrainField::solve(profile, frequency, heights);
    EXPECT_TRUE(field.ok()) << field.firstFault();
    return std::move(field).value();
}

TEST(HankelRow, AgreesWithTheStandardLibrary)
{
    HankelRow row;
    const std::vector<double> x{1e-6, 0.01, 0.5, 2.0, 2.9999, 3.0001, 4.0, 7.0, 12.0, 100.0, 5000.0};
    row.fill(x);
    HankelRow far; // all of one kind
    far.fill({20.01, 25.0, 100.0, 5000.0});
    EXPECT_NEAR(far.re0[0], std::cyl_bessel_j(0.0, 20.01), 1e-9);
    EXPECT_NEAR(far.im1[1], -std::cyl_neumann(1.0, 25.0), 1e-9);
    EXPECT_NEAR(far.re1[2], std::cyl_bessel_j(1.0, 100.0), 1e-9);
    EXPECT_NEAR(far.im0[3], -std::cyl_neumann(0.0, 5000.0), 1e-9);
    for (std::size_t i = 0; i < x.size(); ++i) {
        const double size = 1e-9 * std::max(1.0, 1.0 / x[i]);
        EXPECT_NEAR(row.re0[i], std::cyl_bessel_j(0.0, x[i]), size) << x[i];
        EXPECT_NEAR(row.im0[i], -std::cyl_neumann(0.0, x[i]), size) << x[i];
        EXPECT_NEAR(row.re1[i], std::cyl_bessel_j(1.0, x[i]), size) << x[i];
        EXPECT_NEAR(row.im1[i], -std::cyl_neumann(1.0, x[i]), size) << x[i];
    }
}

class TerrainReference : public ::testing::TestWithParam<const char*> {};

TEST_P(TerrainReference, IsMet)
{
    constexpr double tolerance = 0.1, range = 15.0; // dB
    const std::string path = fmt::format("{}/terrain/{}.json", VETCHLING_TEST_DATA, GetParam());
    std::ifstream file(path);
    const nlohmann::json expected = nlohmann::json::parse(file);
    const auto one = files::readTerrainCase(path);
    ASSERT_TRUE(one.ok()) << one.firstFault();
    const TerrainField field = solved(one->profile, one->frequency, {one->height});
    const std::vector<double> level = expected["free_space_dB"], f = expected["F_dB"], unsure = expected["total_uncertainty_dB"];
    const double highest = *std::max_element(level.begin(), level.end());
    for (std::size_t i = 0; i < f.size(); ++i) {
        if (level[i] < highest - range)
            continue;
        const double e = radians(one->elevations[i]);
        const TerrainResponse got = field.responses(Side::Along, e).front(),
                              own = flatResponse(one->profile.soilAt(0.0), one->frequency, one->height, e);
        EXPECT_NEAR(one->vertical ? decibels(got.vertical, own.vertical) : decibels(got.across, own.across), f[i], tolerance + unsure[i])
            << one->elevations[i];
        EXPECT_NEAR(one->vertical ? decibels(got.vertical, std::cos(e)) : decibels(got.across, 1.0), level[i], tolerance + unsure[i])
            << one->elevations[i] << " over free space";
    }
}

INSTANTIATE_TEST_SUITE_P(Cases, TerrainReference,
                         ::testing::Values("cliff20_sea40_h10_14", "fall15_dry_v2_3", "fall5_h10_14", "flat_h10_14", "hilltop_h10_21",
                                           "mixed_sea100_v2_14", "ridge30_500m_v2_7"));

TEST(Terrain, FlatGroundIsFresnel)
{
    const TerrainField field = solved({{{-60.0, 0.0}, {35.0, 0.0}}, {garden, garden, garden}}, 10.1e6, {0.5, 7.0, 20.0});
    for (Side side : {Side::Along, Side::Against})
        for (double deg : {0.5, 5.0, 30.0, 70.0, 90.0}) {
            const auto all = field.responses(side, radians(deg));
            for (std::size_t h = 0; h < all.size(); ++h) {
                const TerrainResponse flat = flatResponse(garden, 10.1e6, field.heights()[h], radians(deg));
                EXPECT_LT(std::abs(all[h].across - flat.across), 1e-9) << deg;
                EXPECT_LT(std::abs(all[h].along - flat.along), 1e-9) << deg;
                EXPECT_LT(std::abs(all[h].vertical - flat.vertical), 1e-9) << deg;
            }
        }
}

// A long slope is a tilted plane: two rays with their own heights and Fresnel's coefficient at the tilted angle.
TEST(Terrain, ALongSlopeIsATiltedPlane)
{
    constexpr double frequency = 14.1e6, height = 12.0, tilt = 8.0;
    const double wave = wavelength(frequency), slope = std::tan(radians(tilt)), behind = -25.0 * wave, ahead = 100.0 * wave;
    const TerrainField field =
        solved({{{behind, -slope * behind}, {ahead, -slope * ahead}}, {garden, garden, garden}}, frequency, {height});
    for (double deg : {16.0, 25.0, 40.0}) { // steep enough for the plain beyond the foot to reflect nothing there
        const double tilted = radians(deg + tilt), above = height * std::cos(radians(tilt)); // of the source over the plane
        const Complex b = std::sqrt(garden.complexPermittivity(frequency) - std::pow(std::cos(tilted), 2));
        const Complex reflection = (std::sin(tilted) - b) / (std::sin(tilted) + b);
        const Complex expected = 1.0 + reflection * std::polar(1.0, -2.0 * waveNumber(frequency) * above * std::sin(tilted));
        EXPECT_NEAR(decibels(field.responses(Side::Along, radians(deg)).front().across, expected), 0.0, 0.05) << deg;
    }
}

TerrainProfile mirrored(const TerrainProfile& profile)
{
    TerrainProfile out;
    for (auto p = profile.corners.rbegin(); p != profile.corners.rend(); ++p)
        out.corners.push_back({-p->x, p->z});
    out.soils.assign(profile.soils.rbegin(), profile.soils.rend());
    return out;
}

/// Hills of up to 30 degrees, some of them rock or water.
TerrainProfile madeUp(unsigned seed)
{
    std::mt19937 random(seed);
    const auto in = [&](double from, double to) { return std::uniform_real_distribution<double>(from, to)(random); };
    TerrainProfile out;
    double x = in(-150.0, -60.0), z = in(-20.0, 20.0);
    while (x < 150.0) {
        out.corners.push_back({x, z});
        const double step = in(15.0, 60.0);
        x += step, z += step * in(-0.5, 0.5);
    }
    const Ground soils[] = {garden, rock, sea};
    for (std::size_t i = 0; i <= out.corners.size(); ++i)
        out.soils.push_back(soils[random() % 3]);
    return out;
}

TEST(Terrain, IsTheSameSeenFromTheOtherSide)
{
    for (unsigned seed = 1; seed <= 3; ++seed) {
        const TerrainProfile profile = madeUp(seed);
        const TerrainField one = solved(profile, 14.1e6, {3.0}), other = solved(mirrored(profile), 14.1e6, {3.0});
        for (double deg : {3.0, 20.0, 60.0}) {
            const TerrainResponse a = one.responses(Side::Along, radians(deg)).front(),
                                  b = other.responses(Side::Against, radians(deg)).front();
            EXPECT_LT(std::abs(a.across - b.across), 2e-3) << seed << " " << deg;
            EXPECT_LT(std::abs(a.along - b.along), 2e-3) << seed << " " << deg;
            EXPECT_LT(std::abs(a.vertical - b.vertical), 2e-3) << seed << " " << deg;
        }
    }
}

// From straight above there is one field, whichever end of the ground it is reckoned from.
TEST(Terrain, BothSidesMeetAtTheZenith)
{
    for (unsigned seed = 4; seed <= 6; ++seed) {
        const TerrainField field = solved(madeUp(seed), 10.1e6, {2.0, 11.0});
        const auto along = field.responses(Side::Along, radians(90.0)), against = field.responses(Side::Against, radians(90.0));
        for (std::size_t h = 0; h < along.size(); ++h) {
            EXPECT_LT(std::abs(along[h].across - against[h].across), 0.05) << seed;
            EXPECT_LT(std::abs(along[h].along - against[h].along), 0.05) << seed;
        }
    }
}

TEST(Terrain, ChangesLittleWithLittle)
{
    for (unsigned seed = 7; seed <= 9; ++seed) {
        const TerrainProfile profile = madeUp(seed);
        TerrainProfile shifted = profile;
        for (ProfilePoint& p : shifted.corners)
            p.x += 0.05;
        const TerrainField here = solved(profile, 7.1e6, {6.0, 6.05}), there = solved(shifted, 7.1e6, {6.0});
        Complex before;
        for (double deg = 1.0; deg < 60.0; deg += 0.5) {
            const auto all = here.responses(Side::Along, radians(deg));
            const TerrainResponse beside = there.responses(Side::Along, radians(deg)).front();
            EXPECT_TRUE(std::isfinite(std::abs(all[0].vertical)) && std::isfinite(std::abs(all[0].along)));
            EXPECT_LT(std::abs(all[0].across - all[1].across), 0.03) << "of height " << deg;
            EXPECT_LT(std::abs(std::abs(all[0].across) - std::abs(beside.across)), 0.03) << "of distance " << deg;
            if (deg > 1.0) {
                EXPECT_LT(std::abs(all[0].vertical - before), 0.2) << "of elevation " << deg;
            }
            before = all[0].vertical;
        }
    }
}

/// The demo's, towards the south-west.
TerrainProfile hillAndCliff(const Ground& soil)
{
    TerrainProfile line{{{-588.0, 0.3},
                         {-488.0, 3.5},
                         {-425.0, 10.0},
                         {-338.0, 23.2},
                         {-288.0, 26.8},
                         {-263.0, 26.5},
                         {-225.0, 23.0},
                         {-138.0, 9.7},
                         {-75.0, 2.8},
                         {0.0, 0.0},
                         {88.0, -0.7},
                         {113.0, -5.7},
                         {150.0, -17.9},
                         {163.0, -20.0},
                         {175.0, -20.0}},
                        std::vector<Ground>(16, soil)};
    line.soils.back() = sea;
    return line;
}

// What lies a kilometre off does not ripple the lobes that go up: panels must be short where waves come back from shores and cliffs.
TEST(Terrain, FarShoresDoNotRippleSteepAngles)
{
    TerrainProfile line = hillAndCliff(garden);
    line.corners.insert(line.corners.begin(), {{-1413.0, -20.0}, {-1075.0, 0.0}});
    line.soils.insert(line.soils.begin(), {sea, garden});
    const TerrainField field = solved(line, 7.08e6, {8.0});
    std::vector<double> over;
    for (double deg = 40.0; deg <= 90.0; deg += 1.0)
        over.push_back(
            decibels(field.responses(Side::Along, radians(deg)).front().across, flatResponse(garden, 7.08e6, 8.0, radians(deg)).across));
    for (std::size_t i = 2; i < over.size(); ++i)
        EXPECT_LT(std::abs(over[i] - 2.0 * over[i - 1] + over[i - 2]), 0.05) << 40.0 + double(i);
}

// Hills, a bank and the sea farther off than where steep waves are solved by themselves.
TEST(Terrain, AgreesWithADirectSolution)
{
    constexpr double frequency = 18.1e6, height = 8.0;
    const TerrainProfile line = hillAndCliff({GroundKind::Real, 30.0, 0.02});
    const TerrainField field = solved(line, frequency, {height});
    const std::vector<double> elevations{radians(5.0), radians(52.0), radians(72.0), radians(80.0)};
    const std::vector<direct::TerrainWaves> expected = direct::terrainWaves(line, frequency, height, elevations);
    for (std::size_t i = 0; i < elevations.size(); ++i) {
        const TerrainResponse got = field.responses(Side::Along, elevations[i]).front();
        EXPECT_LT(std::abs(got.across - expected[i].across), 0.01) << degrees(elevations[i]);
        EXPECT_LT(std::abs(got.vertical - expected[i].vertical), 0.01) << degrees(elevations[i]);
    }
}

// Frequencies a quarter of a per cent apart share a solution, also where the sea far below turns phases fast.
TEST(Terrain, IsTheSameFromTheFrequencyBeside)
{
    constexpr double frequency = 28.5e6, beside = 1.0025 * frequency;
    const TerrainProfile cliff{{{-350.0, 55.0}, {-80.0, 0.0}, {10.0, 0.0}, {25.0, -100.0}}, {garden, garden, garden, garden, sea}};
    const TerrainField here = solved(cliff, frequency, {8.0}), there = solved(cliff, beside, {8.0}),
                       turned = there.retuned(cliff, frequency);
    double kept = 0.0, moved = 0.0;
    for (double deg = 1.0; deg < 90.0; deg += 4.0) {
        const Complex a = here.responses(Side::Along, radians(deg)).front().across,
                      b = turned.responses(Side::Along, radians(deg)).front().across,
                      c = there.responses(Side::Along, radians(deg)).front().across;
        kept = std::max(kept, std::abs(a - b));
        moved = std::max(moved, std::abs(a - c));
    }
    EXPECT_LT(kept, 0.02);
    EXPECT_GT(moved, 4.0 * kept); // what it would be without turning
}

// Below the horizon of a ridge there is a field, some of what there would be in free space: a knife edge as high takes 10 dB.
TEST(Terrain, BehindARidgeThereIsAField)
{
    const TerrainProfile profile{{{100.0, 0.0}, {160.0, 40.0}, {220.0, 0.0}}, {garden, garden, garden, garden}};
    const double field = decibels(solved(profile, 14.1e6, {10.0}).responses(Side::Along, radians(4.0)).front().across, 1.0);
    EXPECT_GT(field, -20.0);
    EXPECT_LT(field, -5.0);
}

TEST(Terrain, RefusesWhatIsNoProfile)
{
    const auto refused = [](const TerrainProfile& p) { return !TerrainField::solve(p, 14e6, {5.0}).ok(); };
    EXPECT_TRUE(refused({{{0.0, 0.0}}, {garden}}));
    EXPECT_TRUE(refused({{{10.0, 0.0}, {5.0, 0.0}}, {garden, garden, garden}}));
    EXPECT_TRUE(refused({{{10.0, 0.0}, {10.0, 0.0}}, {garden, garden, garden}}));
    EXPECT_TRUE(refused({{{NAN, 0.0}}, {garden, garden}}));
    EXPECT_TRUE(refused({{{10.0, 0.0}}, {garden, {GroundKind::Real, 0.5, 0.0}}}));
    EXPECT_FALSE(refused({{}, {garden}}));
    std::atomic<int> asked = 0;
    const Watch stop([&asked] { return ++asked > 20; });
    const auto stopped = TerrainField::solve({{{20.0, 0.0}}, {garden, sea}}, 14e6, {5.0}, stop);
    ASSERT_FALSE(stopped.ok());
    EXPECT_TRUE(stopped.stopped());
}

TEST(GroundProfile, IsKeptInTheDesign)
{
    const std::string text = R"({"format": "vetchling-design", "version": 1, "site": {"name": "cliff", "soil": {"id": "", "name": "rock",
        "relative_permittivity": 6, "conductivity_S_per_m": 0.001}, "profiles": [{"id": "p1", "name": "to the sea", "bearing_deg": 220,
        "colour": "blue", "points": [{"distance_m": 0, "height_m": 0}, {"distance_m": 40, "height_m": -2, "soil": {"relative_permittivity": 13,
        "conductivity_S_per_m": 0.005}}, {"distance_m": 40, "height_m": -20, "soil": "p368-sea-average"}]}]},
        "operation": {"bands": []}, "antennas": []})";
    const auto design = files::parseDesign(text);
    ASSERT_TRUE(design.ok()) << design.firstFault();
    ASSERT_EQ(design->site.profiles.size(), 1u);
    const GroundProfile& p = design->site.profiles.front();
    ASSERT_EQ(p.points.size(), 3u);
    EXPECT_FALSE(p.points[0].soil);
    EXPECT_EQ(p.points[1].soil->figures.relativePermittivity, 13.0);
    EXPECT_GT(p.points[2].soil->figures.conductivity, 1.0) << "of the data";
    const std::string written = files::writeDesign(*design);
    EXPECT_NE(written.find("\"soil\": \"p368-sea-average\""), std::string::npos);
    EXPECT_NE(written.find("blue"), std::string::npos) << "what is not known is kept";
    const auto again = files::parseDesign(written);
    ASSERT_TRUE(again.ok());
    EXPECT_EQ(again->site.profiles, design->site.profiles);
    for (const auto& [from, to] :
         {std::pair("\"distance_m\": 40, \"height_m\": -2,", "\"distance_m\": -4, \"height_m\": -2,"),
          std::pair("\"soil\": \"p368-sea-average\"", "\"soil\": \"cheese\""), std::pair("\"height_m\": -20", "\"height_m\": -2"),
          std::pair("\"bearing_deg\": 220", "\"bearing_deg\": \"west\"")}) {
        std::string wrong = text;
        wrong.replace(wrong.find(from), std::string(from).size(), to);
        const std::string told = vetchling::testing::firstFaultOf(files::parseDesign(wrong));
        EXPECT_NE(told.find("profiles[0]"), std::string::npos) << to << ": " << told;
    }
}

} // namespace
} // namespace vetchling::em
