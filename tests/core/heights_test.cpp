/// Ground from files of heights: the files themselves, sound and hostile, places, and lines against the shape that the heights were made
/// of.
#include "core/files/design_file.h"
#include "core/files/height_file.h"
#include "core/site/height_grid.h"
#include "core/site/place_words.h"
#include "core/study/far_ground.h"
#include "tests/core/demo.h"

#include <fmt/format.h>
#include <gtest/gtest.h>

#include <cmath>
#include <filesystem>
#include <fstream>

namespace vetchling {
namespace {

class HeightFile : public ::testing::Test {
protected:
    void SetUp() override
    {
        m_folder = std::filesystem::temp_directory_path() /
                   ("vetchling-heights-" + std::string(::testing::UnitTest::GetInstance()->current_test_info()->name()));
        std::filesystem::create_directories(m_folder);
    }
    void TearDown() override { std::filesystem::remove_all(m_folder); }
    Result<HeightGrid> read(const std::string& name, const std::string& bytes)
    {
        const std::string path = (m_folder / name).string();
        std::ofstream(path, std::ios::binary) << bytes;
        return files::readHeightFile(path);
    }
    std::filesystem::path m_folder;
};

const std::string head = "ncols 3\nNROWS 2\nxllcorner 100\nyllcorner 200\ncellsize 10\nnodata_value -9999\n";

TEST_F(HeightFile, APlainGridIsReadFromNorthToSouth)
{
    const auto grid = read("a.txt", head + "1 2 3\n4 5 -9999\n");
    ASSERT_TRUE(grid.ok()) << grid.firstFault();
    EXPECT_FALSE(grid->inDegrees);
    EXPECT_DOUBLE_EQ(grid->heightAt(105.0, 215.0), 1.0); // middles of cells
    EXPECT_DOUBLE_EQ(grid->heightAt(105.0, 205.0), 4.0);
    EXPECT_DOUBLE_EQ(grid->heightAt(110.0, 210.0), 3.0) << "between four";
    EXPECT_TRUE(std::isnan(grid->heightAt(122.0, 207.0))) << "one is not known";
    EXPECT_TRUE(std::isnan(grid->heightAt(90.0, 210.0)));
    EXPECT_TRUE(std::isnan(grid->heightAt(NAN, 210.0)));
    const auto centred = read("b.txt", "ncols 2 nrows 2 xllcenter -3 yllcenter 54 cellsize 0.01\n1 2 3 4");
    ASSERT_TRUE(centred.ok()) << centred.firstFault();
    EXPECT_TRUE(centred->inDegrees);
    EXPECT_DOUBLE_EQ(centred->heightAt(-3.0, 54.0), 3.0);
}

TEST_F(HeightFile, ATileLiesWhereItsNameSays)
{
    std::string bytes;
    for (int row = 0; row < 1201; ++row)
        for (int column = 0; column < 1201; ++column) {
            const int height = row == 0 && column == 0 ? -32768 : column - row; // below 0 in the south-west
            bytes += char((height >> 8) & 0xff);
            bytes += char(height & 0xff);
        }
    const auto grid = read("S12W077.hgt", bytes);
    ASSERT_TRUE(grid.ok()) << grid.firstFault();
    EXPECT_NEAR(grid->heightAt(-76.0, -11.0), 1200.0, 1e-6) << "the north-east corner";
    EXPECT_TRUE(std::isnan(grid->heightAt(-76.0, -12.0 - 1e-3)));
    EXPECT_NEAR(grid->heightAt(-76.5, -11.5), 0.0, 1e-6);
    EXPECT_TRUE(std::isnan(grid->heightAt(-77.0, -11.0))) << "a void";
    EXPECT_FALSE(read("heights.hgt", bytes).ok()) << "nobody knows where it lies";
}

TEST_F(HeightFile, NonsenseIsToldWithItsPlace)
{
    const auto told = [&](const std::string& bytes) {
        const auto grid = read("x.txt", bytes);
        return grid ? std::string("read") : grid.firstFault();
    };
    EXPECT_NE(told("").find("ncols"), std::string::npos);
    EXPECT_NE(told("a picture of a hill").find("line 1"), std::string::npos);
    EXPECT_NE(told(std::string("\0\xff\0PNG\0", 8)).find("line 1"), std::string::npos);
    EXPECT_NE(told(head + "1 2 3\n4 5").find("after 5 of its 6"), std::string::npos) << told(head + "1 2 3\n4 5");
    EXPECT_NE(told(head + "1 2 3\n4 5 6 7").find("more heights"), std::string::npos);
    EXPECT_NE(told(head + "1 2 three\n4 5 6").find("line 7"), std::string::npos) << told(head + "1 2 three\n4 5 6");
    for (const auto& [from, to] : {std::pair("ncols 3", "ncols 1e9"), std::pair("ncols 3", "ncols -3"), std::pair("ncols 3", "ncols 2.5"),
                                   std::pair("ncols 3", "ncols nan"), std::pair("cellsize 10", "cellsize 0"),
                                   std::pair("cellsize 10", "cellsize 1e300"), std::pair("xllcorner 100", "xll 100")}) {
        std::string wrong = head + "1 2 3\n4 5 6\n";
        wrong.replace(wrong.find(from), std::string(from).size(), to);
        EXPECT_NE(told(wrong), "read") << to;
    }
    EXPECT_FALSE(files::readHeightFile((m_folder / "none.txt").string()).ok());
    EXPECT_FALSE(files::readHeightFile(m_folder.string()).ok());
}

TEST(Place, IsReadAsPeopleWriteIt)
{
    for (const char* text : {"54.5, -3.25", "54.5 -3.25", "54.5;-3.25", "54,5 -3,25", "54,5; -3,25", " 54.5 N 3.25 W ", "54.5°N, 3.25°W"}) {
        const auto place = readPlace(text);
        ASSERT_TRUE(place.ok()) << text;
        EXPECT_NEAR(place->latitude, 54.5, 1e-9) << text;
        EXPECT_NEAR(place->longitude, -3.25, 1e-9) << text;
    }
    const auto square = readPlace("JO31"), sub = readPlace("jo31ab");
    ASSERT_TRUE(square.ok() && sub.ok());
    EXPECT_NEAR(square->latitude, 51.5, 1e-9);
    EXPECT_NEAR(square->longitude, 7.0, 1e-9);
    EXPECT_NEAR(sub->latitude, 51.0 + 1.5 / 24.0, 1e-9);
    EXPECT_NEAR(sub->longitude, 6.0 + 1.0 / 24.0, 1e-9);
    EXPECT_EQ(locatorOf(*sub), "JO31ab");
    EXPECT_EQ(locatorOf({-90.0, -180.0}), "AA00aa");
    EXPECT_EQ(locatorOf({90.0, 180.0}), "RR99xx");
    for (const char* text : {"", "here", "54.5", "54.5, -3.25, 7", "95, 0", "54, 190", "ZZ99", "JO3", "54.5 E 3 N", "1e400, 0", "nan, 3"})
        EXPECT_FALSE(readPlace(text).ok()) << text;
}

/// A round island with its top in the middle, steep at the shore, as a formula.
double islandHeight(double east, double north)
{
    const double away = std::hypot(east, north);
    return away > 400.0 ? 0.0 : away > 300.0 ? 0.3 * (400.0 - away) : 30.0 + 10.0 * std::cos(pi * away / 300.0) + 10.0;
}

HeightGrid islandGrid()
{
    HeightGrid grid{201, 201, -1000.0, -1000.0, 10.0, false, {}};
    for (int row = 0; row < 201; ++row)
        for (int column = 0; column < 201; ++column)
            grid.heights.push_back(float(islandHeight(-1000.0 + 10.0 * column, 1000.0 - 10.0 * row)));
    return grid;
}

TEST(GroundLine, FollowsTheHeightsAndTheShore)
{
    GroundLinesQuery query{{0.0, 0.0}, 15.0, 5000.0, {"", "garden", "", 13.0, 0.005}, {"", "sea", "", 70.0, 5.0}};
    const auto lines = linesFrom(islandGrid(), query);
    ASSERT_TRUE(lines.ok()) << lines.firstFault();
    ASSERT_EQ(lines->profiles.size(), 24u);
    EXPECT_NEAR(lines->footHeight, 50.0, 1e-3);
    EXPECT_EQ(lines->sea, 24u);
    EXPECT_NEAR(lines->shortest, 1000.0, 10.0) << "the grid ends in the north";
    Site site;
    site.profiles = lines->profiles;
    for (const GroundProfile& p : lines->profiles) {
        const auto ground = study::groundTowards(site, p.bearing);
        ASSERT_TRUE(ground.has_value());
        const TerrainProfile line = ground->over({GroundKind::Real, 13.0, 0.005});
        EXPECT_LT(p.points.size(), 14u);
        for (double x = 5.0; x < 900.0; x += 7.0) {
            const double truth = islandHeight(x * std::sin(radians(p.bearing)), x * std::cos(radians(p.bearing))) - 50.0;
            EXPECT_NEAR(line.heightAt(x), truth, 2.5 + 0.003 * x) << p.bearing << " " << x; // of the grid itself, and of the line
            if (std::abs(x - 400.0) > 12.0) {
                EXPECT_EQ(line.soilAt(x).conductivity > 1.0, x > 400.0) << p.bearing << " " << x;
            }
        }
    }
    query.place = {2000.0, 0.0};
    EXPECT_FALSE(linesFrom(islandGrid(), query).ok()) << "beside the grid";
}

TEST(GroundLine, ALakeAndWhatLiesBehindItAreTold)
{
    HeightGrid grid{101, 3, 0.0, -10.0, 10.0, false, {}};
    for (int row = 0; row < 3; ++row)
        for (int column = 0; column < 101; ++column)
            grid.heights.push_back(column > 30 && column < 50 ? 0.0F : 5.0F);
    const auto lines = linesFrom(grid, {{0.0, 10.0}, 90.0, 5000.0, {"", "garden", "", 13.0, 0.005}, {"", "sea", "", 70.0, 5.0}});
    ASSERT_TRUE(lines.ok());
    Site site;
    site.profiles = {lines->profiles[1]}; // to the east
    const TerrainProfile line = study::groundTowards(site, 90.0)->over({GroundKind::Real, 13.0, 0.005});
    EXPECT_LT(line.soilAt(200.0).conductivity, 1.0);
    EXPECT_GT(line.soilAt(400.0).conductivity, 1.0);
    EXPECT_LT(line.soilAt(700.0).conductivity, 1.0) << "land again";
}

TEST(GroundLine, ASlopeFallsAllRound)
{
    Site site;
    site.profiles = slopeLines(8.0, 220.0, 100.0);
    EXPECT_EQ(site.profiles.size(), 36u);
    const auto heightAt = [&](double bearing, double x) { return study::groundTowards(site, bearing)->over({}).heightAt(x); };
    EXPECT_NEAR(heightAt(220.0, 100.0), -100.0 * std::tan(radians(8.0)), 0.01);
    EXPECT_NEAR(heightAt(40.0, 50.0), 50.0 * std::tan(radians(8.0)), 0.01);
    EXPECT_NEAR(heightAt(310.0, 100.0), 0.0, 0.01) << "level across";
    EXPECT_NEAR(heightAt(280.0, 100.0), -100.0 * std::tan(radians(8.0)) * 0.5, 0.01);
    EXPECT_NEAR(heightAt(220.0, -100.0), 100.0 * std::tan(radians(8.0)), 0.01) << "what lies behind is the opposite one";
}

TEST(GroundLine, CountsAsFlatWhereThatIsWished)
{
    Design changed = testing::Demo().design;
    changed.site.profiles = slopeLines(8.0, 220.0, 100.0);
    changed.site.place = GeoPlace{54.5, -3.25};
    EXPECT_EQ(study::sectorsOf(changed.site).size(), 36u);
    changed.site.countsAsFlat = true;
    EXPECT_TRUE(study::sectorsOf(changed.site).empty());
    const auto again = files::parseDesign(files::writeDesign(changed));
    ASSERT_TRUE(again.ok()) << again.firstFault();
    EXPECT_EQ(again->site, changed.site) << "and nothing is lost";
}

TEST(GroundPlace, GainIsThatOfTheGroundMovedByHand)
{
    WireModel model;
    model.ground = {GroundKind::Real, 13.0, 0.005};
    model.wires.push_back({"w", {{0.0, -5.0, 8.0}, {0.0, 5.0, 8.0}}, 0.001});
    model.feeds = {{0, 5.0}};
    study::Library library;
    const auto solution = em::solve(std::make_shared<const WireModel>(model), 14.1e6, library.tables());
    ASSERT_TRUE(solution.ok()) << solution.firstFault();
    const em::FarField field(*solution);
    Site site;
    site.soil.relativePermittivity = 13.0, site.soil.conductivity = 0.005;
    const GroundProfile::Point::Kind sea{"", {70.0, 5.0}, 0.0};
    site.profiles = {{"", 90.0, {{0.0, 0.0}, {60.0, 0.0}, {90.0, -20.0}, {90.1, -20.0, sea}}, "p", {}}};
    const auto higher = study::fieldHigher(library.tables(), *solution);
    ASSERT_TRUE(higher.ok() && higher->has_value());
    const auto places = study::gainsByPlace(field, *higher, site, {90.0, 6.0, 80.0, 4});
    ASSERT_TRUE(places.ok());
    ASSERT_EQ(places->size(), 9u);
    for (const study::PlaceGain& p : *places) {
        Site there = site; // everything comes nearer, or goes away
        for (GroundProfile::Point& q : there.profiles.front().points)
            q.distance = std::max(0.0, q.distance - p.away);
        if (p.away <= 0.0) {
            EXPECT_NEAR(p.gain, field.over(study::sectorsOf(there)).gain(radians(6.0), 0.0), 0.01) << p.away;
        }
        ASSERT_TRUE(p.higher.has_value());
    }
    EXPECT_GT(places->at(7).gain, places->at(4).gain + 0.5) << "at the edge it sends lower";
    EXPECT_TRUE(places->at(4).isFirm);
    EXPECT_FALSE(places->back().isFirm) << "on the cliff";

    WireModel raised = model;
    for (Vec3& v : raised.wires.front().points)
        v.z += study::PlaceGain::raisedBy;
    const auto high = em::solve(std::make_shared<const WireModel>(raised), 14.1e6, library.tables());
    const double truth = em::FarField(*high).over(study::sectorsOf(site)).gain(radians(6.0), 0.0);
    EXPECT_NEAR(*places->at(4).higher, truth, 0.01) << "its resistance changes with the height, too";
}

} // namespace
} // namespace vetchling
