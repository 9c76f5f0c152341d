/// How high an antenna hangs: where its ends go when its supports are raised, and what that brings.
#include "core/shapes/height.h"
#include "core/study/length_map.h"
#include "tests/core/demo.h"
#include "tests/core/shape_helpers.h"

namespace vetchling {
namespace {

using namespace vetchling::shapes;

/// m of a point from a straight line through two others.
double offLine(Vec3 p, Vec3 a, Vec3 b)
{
    const Vec3 u = unit(b - a), d = p - a;
    const double along = d.x * u.x + d.y * u.y + d.z * u.z;
    return distance(p, a + along * u);
}

struct Ends {
    Vec3 apex, first, second;
};
Ends endsOf(const AntennaShape& shape)
{
    const auto built = buildOver(shape, testing::averageSoil);
    EXPECT_TRUE(built.ok()) << built.firstFault();
    return {built->handles[0].at, built->handles[1].at, built->handles[2].at};
}

Site siteWith(std::initializer_list<Support> supports)
{
    Site site;
    site.supports = supports;
    return site;
}

Support pole(const char* id, double x, double y, double height)
{
    Support s;
    s.id = s.name = id;
    s.kind = SupportKind::Pole;
    s.at = {x, y};
    s.height = height;
    return s;
}

TEST(Height, EndsThatAreRopedToPegsStayInTheLineToThem)
{
    // apex on a pole of 10 m, ends 5 m lower on legs of 10 m: the lines meet the ground 17.3 m out
    const AntennaShape v = shapeOf("dipole", {{"leg_m", 10.0}, {"apex_height_m", 10.0}, {"end_height_m", 5.0}}, 7.1e6);
    const Ties ties(siteWith({pole("mast", 0.0, 0.0, 10.0)}), v);
    const Ends before = endsOf(v), after = endsOf(ties.higher(4.0)), alone = endsOf(ties.withApexAt(14.0));
    EXPECT_NEAR(after.apex.z, 14.0, 1e-6);
    const Vec3 out = unit(before.first - before.apex), peg = before.first + (before.first.z / -out.z) * out;
    EXPECT_NEAR(std::hypot(peg.x, peg.y), std::sqrt(300.0), 1e-6);
    EXPECT_LT(offLine(after.first, after.apex, peg), 1e-3);
    EXPECT_NEAR(distance(after.first, after.apex), 10.0, 1e-3) << "the leg keeps its length";
    EXPECT_NEAR(alone.first.z, after.first.z, 1e-3);
    EXPECT_NEAR(alone.second.z, after.second.z, 1e-3);
}

TEST(Height, ASloperOfAnEndFedStaysInTheLineToItsPeg)
{
    const AntennaShape sloper = shapeOf("end-fed", {{"length_m", 9.0}, {"feed_height_m", 9.0}, {"end_height_m", 4.0}}, 14.1e6);
    const Site site = siteWith({pole("mast", 0.0, 0.0, 9.0)});
    const auto ends = [](const AntennaShape& shape) {
        const auto built = buildOver(shape, testing::averageSoil);
        EXPECT_TRUE(built.ok()) << built.firstFault();
        const std::vector<Vec3>& p = built->model.wires.front().points;
        return p.front().z > p.back().z ? std::pair(p.front(), p.back()) : std::pair(p.back(), p.front());
    };
    const auto [top, low] = ends(sloper);
    const auto [higherTop, higherLow] = ends(Ties(site, sloper).higher(3.0));
    const Vec3 out = unit(low - top), peg = low + (low.z / -out.z) * out;
    EXPECT_NEAR(higherTop.z, top.z + 3.0, 1e-6);
    EXPECT_LT(offLine(higherLow, higherTop, peg), 2e-3);
    EXPECT_NEAR(distance(higherTop, higherLow), distance(top, low), 2e-3);
}

TEST(Height, OneSupportTakesAlongWhatItHolds)
{
    const AntennaShape flat =
        shapeOf("dipole", {{"leg_m", 10.0}, {"apex_height_m", 10.0}, {"end_height_m", 10.0}, {"bearing_deg", 90.0}}, 7.1e6);
    const Site site = siteWith({pole("middle", 0.0, 0.0, 10.0), pole("east", 12.0, 0.0, 10.0), pole("west", -12.0, 0.0, 10.0)});
    const Ties ties(site, flat);
    EXPECT_EQ(ties.supports().size(), 3u);
    const Ends all = endsOf(ties.higher(3.0)), east = endsOf(ties.higher("east", 3.0)), middle = endsOf(ties.higher("middle", 3.0));
    for (Vec3 p : {all.apex, all.first, all.second})
        EXPECT_NEAR(p.z, 13.0, 1e-6);
    EXPECT_NEAR(east.apex.z, 10.0, 1e-6);
    const double eastEnd = std::max(east.first.z, east.second.z), westEnd = std::min(east.first.z, east.second.z);
    EXPECT_NEAR(eastEnd, 10.0 + 10.0 / std::hypot(12.0, 3.0) * 3.0, 1e-3) << "on the rope's line to the raised top";
    EXPECT_NEAR(westEnd, 10.0, 1e-3);
    EXPECT_NEAR(middle.apex.z, 13.0, 1e-6);
    EXPECT_NEAR(middle.first.z, 13.0 - 10.0 / std::hypot(12.0, 3.0) * 3.0, 1e-3);
}

TEST(Height, WhatNothingHoldsGoesUpAsAWholeAndALowFeedStays)
{
    const AntennaShape flat = shapeOf("dipole", {{"leg_m", 10.0}, {"apex_height_m", 8.0}, {"end_height_m", 8.0}}, 7.1e6);
    const Ends up = endsOf(Ties({}, flat).withApexAt(12.0));
    EXPECT_NEAR(up.first.z, 12.0, 1e-6) << "no slope is known to hold its ends";
    const testing::Demo demo;
    const Antenna& wall = demo.antenna("Wall end-fed 40");
    const AntennaShape raisedWire = Ties(demo.design.site, wall.shape).higher(2.0);
    EXPECT_EQ(familyOf(raisedWire).value(raisedWire, "feed_height_m"), familyOf(wall.shape).value(wall.shape, "feed_height_m"));
    EXPECT_NEAR(familyOf(raisedWire).value(raisedWire, "bend_height_m"), familyOf(wall.shape).value(wall.shape, "bend_height_m") + 2.0,
                1e-6);
}

TEST(Height, GainByHeightIsThatOfTheAntennaHungThere)
{
    Design design;
    design.operation.aimElevation = 20.0;
    WantedBand band;
    band.id = "40";
    band.band = {"40 m", 7.0e6, 7.2e6};
    band.wish = Wish::Must;
    design.operation.bands = {band};
    Antenna antenna;
    antenna.id = "a";
    antenna.shape = shapeOf("dipole", {{"leg_m", 10.1}, {"apex_height_m", 8.0}, {"end_height_m", 8.0}}, 7.1e6);
    design.antennas = {antenna};
    const auto question = study::mapQuestionOf(design, antenna, study::allSupports, 4.0, 22.0, 10);
    ASSERT_TRUE(question.ok()) << question.firstFault();
    study::LengthMap map{*question, {}, {}, {}, {}};
    study::Library library;
    for (double h : question->values)
        map.columns.push_back(*study::mapColumn(library, *question, h, study::Care::Usual));
    for (std::size_t i : {std::size_t(0), std::size_t(4), std::size_t(9)}) {
        AntennaShape there = antenna.shape; // by hand
        there.parameters["apex_height_m"] = there.parameters["end_height_m"] = question->values[i];
        const auto built = buildOver(there, design.site.soil.ground());
        ASSERT_TRUE(built.ok());
        em::GroundTableCache tables;
        const auto solution = em::solve(std::make_shared<const WireModel>(built->model), 7.1e6, tables);
        ASSERT_TRUE(solution.ok());
        const em::FarField field(*solution);
        double strongest = -300.0;
        for (int azimuth = 0; azimuth < 360; ++azimuth)
            strongest = std::max(strongest, field.gain(radians(20.0), radians(azimuth)));
        EXPECT_NEAR(map.columns[i].cells[0].gain, strongest, 0.05) << question->values[i];
        EXPECT_NEAR(map.columns[i].cells[0].up, field.gain(0.5 * pi, 0.0), 0.05);
    }
    // a metre brings much low down and little high up; below a quarter wave the gain straight up grows, above it falls
    const auto gain = [&](std::size_t i) { return map.columns[i].cells[0].gain; };
    EXPECT_GT(gain(9), gain(0) + 5.0);
    EXPECT_GT(map.columns[3].cells[0].up, map.columns[9].cells[0].up + 3.0);
    const auto enough = map.enoughHeight(0);
    ASSERT_TRUE(enough);
    for (std::size_t i = 0; i + 1 < map.columns.size(); ++i)
        if (map.columns[i].value >= *enough) {
            EXPECT_LT((gain(i + 1) - gain(i)) / (map.columns[i + 1].value - map.columns[i].value), 1.0);
        }
}

TEST(Height, WhatTurnsIsToldWhereItStandsFree)
{
    Design design;
    design.site.boundary = rectangle({-5.0, -2.0}, {10.0, 4.0}); // long from west to east
    Antenna antenna;
    antenna.shape =
        shapeOf("rod-dipole", {{"leg_m", 3.0}, {"apex_height_m", 6.0}, {"end_height_m", 6.0}, {"x_m", 0.0}, {"y_m", 0.0}}, 24.9e6);
    ASSERT_TRUE(study::turns(antenna));
    EXPECT_FALSE(study::turns({.shape = shapeOf("dipole", {}, 7.1e6)}));
    const auto question = study::mapQuestionOf(design, antenna, study::turning, 0.0, 90.0, 10);
    ASSERT_TRUE(question.ok()) << question.firstFault();
    ASSERT_EQ(question->free.size(), 10u);
    for (std::size_t i = 0; i < question->values.size(); ++i) // a rod of 3 m reaches 3 cos(bearing) to the north
        EXPECT_EQ(question->free[i], 3.0 * std::cos(radians(question->values[i])) <= 2.0) << question->values[i];
}

} // namespace
} // namespace vetchling
