#include "core/em/terrain.h"
#include "core/study/far_ground.h"
#include "core/study/neighbours.h"
#include "core/study/sky.h"
#include "tests/core/demo.h"
#include "tests/core/helpers.h"

#include <gtest/gtest.h>

namespace vetchling::study {
namespace {

using testing::averageSoil;
using testing::Demo;
using testing::dipole;
using testing::fedWire;
using testing::solved;

/// A dipole for 40 m with a metal mast some way off.
Design besideMast(double away, double height)
{
    Design d;
    d.operation.bands = {{{"40 m", 7e6, 7.2e6}, Wish::Must, "forty", {}, {}}};
    d.site.supports = {{"mast", SupportKind::Pole, {away, 0.0}, height, true, "mast", {}}};
    Antenna vertical = newAntenna(*shapes::findFamily("vertical"), 7.1e6);
    vertical.id = "vertical";
    vertical.shape.parameters["x_m"] = vertical.shape.parameters["y_m"] = 0.0;
    d.antennas = {vertical};
    return d;
}

NeighbourEffect effectOf(const Design& d)
{
    Library library;
    const auto effects = neighbourEffects(library, d, d.antennas.front(), "forty", 0);
    EXPECT_TRUE(effects.ok()) << effects.firstFault();
    return effects->front();
}

TEST(Neighbours, AMastOfAQuarterWaveNearByMattersAndAFarOneDoesNot)
{
    const NeighbourEffect near = effectOf(besideMast(3.0, 10.0)), far = effectOf(besideMast(80.0, 10.0));
    EXPECT_GT(std::abs(near.change), 10.0 * std::abs(far.change));
    EXPECT_GT(std::abs(near.change), 2.0);
    EXPECT_TRUE(near.fault.empty());
    EXPECT_FALSE(far.matters());
}

TEST(Neighbours, AShortMastDoesLessThanAResonantOne)
{
    EXPECT_GT(std::abs(effectOf(besideMast(5.0, 10.0)).change), 4.0 * std::abs(effectOf(besideMast(5.0, 3.0)).change));
}

TEST(Neighbours, AreCountedInWhereTheAntennaSaysSo)
{
    Design d = besideMast(3.0, 10.0);
    EXPECT_TRUE(questionOf(d, d.antennas.front()).subject.neighbours.empty());
    d.antennas.front().surroundings.metal = true;
    const Question question = questionOf(d, d.antennas.front(), "forty");
    EXPECT_FALSE(question.subject.neighbours.empty());
    Library library;
    const auto with = curveOf(library, question);
    Question alone = question;
    alone.subject.neighbours.clear();
    const auto without = curveOf(library, alone);
    ASSERT_TRUE(with.ok() && without.ok());
    const Complex change = (*with)->atLine(7.1e6) - (*without)->atLine(7.1e6);
    EXPECT_GT(std::abs(change), 1.0);
}

TEST(Neighbours, AMastEndsBelowTheWireThatItCarries)
{
    WireModel model = dipole(20.0, 9.0, averageSoil);
    const Neighbour mast{"mast", {{0.0, 0.0, 0.04}, {0.0, 0.0, 9.0}}, 0.03, 7e6, {}, true};
    putIn({mast}, model);
    ASSERT_EQ(model.wires.size(), 8u); // with its earth
    EXPECT_LT(model.wires[1].points.back().z, 8.8);
    EXPECT_GT(model.wires[1].points.back().z, 8.0);
    EXPECT_TRUE(findFaults(model).empty());
}

TEST(Neighbours, WhatWouldCrossTheAntennaIsHungLower)
{
    WireModel model = dipole(20.0, 9.0, averageSoil);
    const Neighbour other{"other", {{0.0, -8.0, 9.0}, {0.0, 8.0, 9.0}}, 1e-3, 5.8e7, {}, false};
    putIn({other}, model);
    ASSERT_EQ(model.wires.size(), 2u);
    EXPECT_NEAR(model.wires[1].points.front().z, 8.7, 1e-9);
    EXPECT_TRUE(findFaults(model).empty());
}

TEST(Neighbours, TheDemosAllCanBeCountedInTogether)
{
    Demo demo;
    Library library;
    for (Antenna& a : demo.design.antennas) {
        a.surroundings.metal = a.surroundings.coax = true;
        for (const Antenna& other : demo.design.antennas)
            if (other.id != a.id)
                a.surroundings.antennas[other.id] = Surroundings::Feed::Open;
        const auto studied = library.study(questionOf(demo.design, a).subject);
        ASSERT_TRUE(studied.ok()) << a.name;
        EXPECT_TRUE(findFaults(studied->built->model).empty()) << a.name << ": " << findFaults(studied->built->model).front().text();
    }
}

TEST(Neighbours, AnOpenFeedAndATerminatedOneAreNotTheSame)
{
    Demo demo;
    Antenna& v = demo.design.antennas.front();
    const Id other = demo.antenna("Wall end-fed 40").id;
    v.surroundings.antennas[other] = Surroundings::Feed::Open;
    const auto open = countedIn(demo.design, v);
    v.surroundings.antennas[other] = Surroundings::Feed::Terminated;
    const auto terminated = countedIn(demo.design, v);
    ASSERT_EQ(open.size(), terminated.size());
    EXPECT_NE(open, terminated);
}

// --- ground beyond a shore

/// A vertical over soil, with sea in the east from some way off.
WireModel besideSea(double distance)
{
    WireModel model = fedWire({{0, 0, 0.05}, {0, 0, 10.0}}, 0.3, averageSoil);
    model.beyond = {shoreSector(-0.5, 1.0, distance, {GroundKind::Real, 70.0, 5.0})};
    return model;
}

TEST(FarGround, ReachesOnlyItsSectorAndLeavesTheImpedanceAlone)
{
    const em::Solution with = solved(besideSea(20.0), 14.1e6);
    WireModel plain = besideSea(20.0);
    plain.beyond.clear();
    const em::Solution without = solved(plain, 14.1e6);
    EXPECT_EQ(with.impedance, without.impedance);
    const em::FarField sea(with), land(without);
    EXPECT_GT(sea.gain(radians(8.0), 0.0), land.gain(radians(8.0), 0.0) + 1.5); // a vertical gains towards the sea
    EXPECT_EQ(sea.gain(radians(8.0), 2.0), land.gain(radians(8.0), 2.0));
    const auto row = sea.gainGrid({radians(8.0)}, {0.0, 2.0}).front();
    EXPECT_NEAR(row[0], sea.gain(radians(8.0), 0.0), 1e-9);
    EXPECT_NEAR(row[1], land.gain(radians(8.0), 2.0), 1e-9);
}

// 2026-12: weighted by the zone of the reflection, a vertical 100 m from the sea was told 5 to 6 dB too much at low angles. What it gains
// over flat ground there comes from an independent solution (tests/data/terrain/mixed_sea100_v2_14).
TEST(FarGround, GivesAVerticalWhatTheSeaReallyGives)
{
    WireModel model = fedWire({{0, 0, 1.9}, {0, 0, 2.1}}, 0.1, averageSoil);
    const em::FarField land(solved(model, 14.1e6)), shore = land.over({shoreSector(-0.5, 1.0, 100.0, {GroundKind::Real, 81.0, 5.0})});
    for (const auto& [deg, gain] : {std::pair(2.0, 10.46), std::pair(4.0, 6.38), std::pair(10.0, 0.91), std::pair(15.0, -1.09)})
        EXPECT_NEAR(shore.gain(radians(deg), 0.0) - land.gain(radians(deg), 0.0), gain, 0.1) << deg;
}

TEST(FarGround, GoesFromNearlyAllSeaToNoneWithTheDistance)
{
    const double low = radians(10.0);
    const em::FarField field(solved(besideSea(0.0), 14.1e6));
    const Ground sea{GroundKind::Real, 70.0, 5.0};
    const auto gainAt = [&](double distance) { return field.over({shoreSector(-0.5, 1.0, distance, sea)}).gain(low, 0.0); };
    const double land = field.over({}).gain(low, 0.0);
    const auto flat = [&](const Ground& ground) { return std::abs(em::flatResponse(ground, 14.1e6, 4.0, low).vertical); };
    EXPECT_NEAR(gainAt(1.0) - land, 20.0 * std::log10(flat(sea) / flat(averageSoil)), 0.8) << "nearly as if it stood in the sea";
    EXPECT_GT(gainAt(20.0), land + 1.0);
    EXPECT_NEAR(gainAt(2000.0), land, 0.1);
}

TEST(FarGround, TheZoneIsAsLongAsLowWavesWantIt)
{
    const double wave = 20.0;
    for (double degreesUp : {3.0, 5.0, 10.0}) {
        const double e = radians(degreesUp);
        // of a low antenna about a wavelength over the angle squared
        EXPECT_NEAR(em::reflectionZone(0.5, e, wave).to, wave / (e * e), 0.08 * wave / (e * e)) << degreesUp;
    }
    const em::ReflectionZone high = em::reflectionZone(30.0, radians(30.0), wave);
    EXPECT_LT(high.from, 30.0 / std::tan(radians(30.0))); // the mirror's place lies inside
    EXPECT_GT(high.to, 30.0 / std::tan(radians(30.0)));
    // at its edge the way is half a wave longer than the mirror's
    const double x = high.to, c = std::cos(radians(30.0)), s = std::sin(radians(30.0));
    EXPECT_NEAR(std::hypot(x, 30.0) - x * c - 30.0 * s, 0.5 * wave, 1e-6);
}

TEST(FarGround, SectorsTurnFromBearingsToAzimuths)
{
    Site site;
    site.farGrounds = {{"sea", 350.0, 20.0, 30.0, 70.0, 5.0, "sea", {}}};
    const auto sectors = sectorsOf(site);
    for (double bearing : {0.0, 15.0, 351.0, 349.0, 25.0, 180.0})
        EXPECT_EQ(sectors.front().shareAt(radians(90.0 - bearing)), site.farGrounds.front().holds(bearing) ? 1.0 : 0.0) << bearing;
    EXPECT_TRUE(site.farGrounds.front().holds(355.0));
    EXPECT_FALSE(site.farGrounds.front().holds(180.0));
    site.farGrounds.front() = {"sea all round", 0.0, 360.0, 30.0, 70.0, 5.0, "sea", {}};
    EXPECT_EQ(sectorsOf(site).front().shareAt(2.3), 1.0);
}

// --- ground along a bearing

GroundProfile profileTo(double bearing, std::vector<GroundProfile::Point> points) { return {"", bearing, std::move(points), "p", {}}; }

const GroundProfile::Point::Kind sea{"", {70.0, 5.0}, 0.0};

TEST(GroundProfiles, OneWithTheSeaOnItIsAShore)
{
    const em::FarField field(solved(besideSea(0.0), 14.1e6));
    Site site;
    site.profiles = {profileTo(90.0, {{60.0, 0.0, sea}})};
    const em::FarField profiled = field.over(sectorsOf(site)),
                       shore = field.over({shoreSector(-0.1, 0.2, 60.0, {GroundKind::Real, 70.0, 5.0})});
    for (double deg : {3.0, 10.0, 40.0})
        EXPECT_NEAR(profiled.gain(radians(deg), 0.0), shore.gain(radians(deg), 0.0), 0.02) << deg;
    EXPECT_EQ(profiled.gain(0.1, radians(6.0)), field.over({}).gain(0.1, radians(6.0))) << "5 degrees to either side and no more";
}

TEST(GroundProfiles, AreMixedBetweenNeighbours)
{
    Site site;
    site.profiles = {profileTo(350.0, {{60.0, 0.0, sea}}), profileTo(10.0, {{60.0, 5.0}}), profileTo(60.0, {{60.0, 5.0}})};
    const auto sectors = sectorsOf(site);
    ASSERT_EQ(sectors.size(), 3u);
    const auto shares = [&](double bearing) {
        std::vector<double> all;
        for (const FarSector& s : sectors)
            all.push_back(std::round(1000.0 * s.shareAt(radians(90.0 - bearing))) / 1000.0);
        return all;
    };
    EXPECT_EQ(shares(350.0), (std::vector{1.0, 0.0, 0.0}));
    EXPECT_EQ(shares(355.0), (std::vector{0.75, 0.25, 0.0}));
    EXPECT_EQ(shares(5.0), (std::vector{0.25, 0.75, 0.0}));
    EXPECT_EQ(shares(14.5), (std::vector{0.0, 1.0, 0.0})) << "too far from the next";
    EXPECT_EQ(shares(15.5), (std::vector{0.0, 0.0, 0.0}));
    EXPECT_EQ(shares(56.0), (std::vector{0.0, 0.0, 1.0}));
    EXPECT_EQ(shares(345.5), (std::vector{1.0, 0.0, 0.0}));

    const em::FarField field = em::FarField(solved(besideSea(0.0), 14.1e6)).over(sectors);
    const auto power = [&](double bearing) { return std::pow(10.0, 0.1 * field.gain(radians(8.0), radians(90.0 - bearing))); };
    site.profiles.resize(1);
    const auto only = field.over(sectorsOf(site));
    const double one = std::pow(10.0, 0.1 * only.gain(radians(8.0), radians(90.0 - 352.0)));
    EXPECT_NEAR(power(352.0), 0.9 * one + 0.1 * power(12.0), 0.02 * one) << "of an upright, which sends as much to all bearings";
}

TEST(GroundProfiles, TheOneOppositeLiesBehind)
{
    Site site;
    site.profiles = {profileTo(10.0, {{50.0, -8.0}, {80.0, -20.0, sea}}), profileTo(190.0, {{0.0, 0.0}, {40.0, 12.0}})};
    const TerrainProfile over = sectorsOf(site).front().over(averageSoil);
    EXPECT_EQ(over.corners, (std::vector<ProfilePoint>{{-40.0, 12.0}, {0.0, 0.0}, {50.0, -8.0}, {80.0, -20.0}}));
    ASSERT_EQ(over.soils.size(), 5u);
    EXPECT_EQ(over.soils[0], averageSoil);
    EXPECT_EQ(over.soils[3], averageSoil);
    EXPECT_EQ(over.soils[4].conductivity, 5.0);
    EXPECT_TRUE(findFaults(over).empty());
}

// Opposite bearings share one solution, seen from its two sides.
TEST(GroundProfiles, EachBearingSeesItsOwnSide)
{
    const em::FarField field(solved(besideSea(0.0), 14.1e6));
    const auto gains = [&](double seaward) { // a cliff towards the sea, and a hill behind
        Site site;
        site.profiles = {profileTo(seaward, {{20.0, 0.0}, {25.0, -15.0, sea}}), profileTo(seaward + 180.0, {{30.0, 0.0}, {90.0, 25.0}})};
        const em::FarField over = field.over(sectorsOf(site));
        return std::pair(over.gain(radians(4.0), radians(90.0 - seaward)), over.gain(radians(4.0), radians(-90.0 - seaward)));
    };
    const auto [seaOne, hillOne] = gains(70.0);
    const auto [seaOther, hillOther] = gains(250.0);
    EXPECT_NEAR(seaOne, seaOther, 0.02);
    EXPECT_NEAR(hillOne, hillOther, 0.02);
    EXPECT_GT(seaOne, hillOne + 10.0);
}

// A hill that falls away lifts the low lobe of a level dipole; one in front takes it.
TEST(GroundProfiles, AFallingSlopeLiftsTheLowLobe)
{
    const em::FarField flat(solved(dipole(10.0, 10.0, averageSoil), 14.1e6));
    const auto gainOn = [&](double slope) {
        Site site;
        const double rise = std::tan(radians(slope));
        site.profiles = {profileTo(0.0, {{300.0, 300.0 * rise}}), profileTo(180.0, {{100.0, -100.0 * rise}})};
        return flat.over(sectorsOf(site)).gain(radians(5.0), radians(90.0));
    };
    const double level = flat.gain(radians(5.0), radians(90.0));
    EXPECT_GT(gainOn(-8.0), level + 3.0);
    EXPECT_LT(gainOn(8.0), level - 3.0);
}

} // namespace
} // namespace vetchling::study
