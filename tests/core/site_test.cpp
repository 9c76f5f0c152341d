#include "core/site/standing.h"

#include "tests/core/helpers.h"

#include <algorithm>

namespace vetchling {
namespace {

using namespace vetchling::testing;

const Outline garden{{0, 0}, {34, 0}, {34, 18}, {0, 18}};

Site site()
{
    Site s;
    s.boundary = garden;
    s.supports = {{"tower", SupportKind::Tower, {32, 16}, 14.0, false}, {"flagpole", SupportKind::Pole, {3, 10}, 9.0, true}};
    return s;
}

TEST(Outline, KnowsInsideFromOutside)
{
    EXPECT_TRUE(inside(garden, {1, 1}));
    EXPECT_TRUE(inside(garden, {33.9, 17.9}));
    EXPECT_FALSE(inside(garden, {34.1, 9}));
    EXPECT_FALSE(inside(garden, {-0.1, 9}));
    const Outline corner{{0, 0}, {10, 0}, {10, 4}, {4, 4}, {4, 10}, {0, 10}}; // an L
    EXPECT_TRUE(inside(corner, {2, 8}));
    EXPECT_FALSE(inside(corner, {8, 8}));
}

TEST(Outline, MeasuresDistances)
{
    EXPECT_DOUBLE_EQ(distanceToOutline(garden, {5, 3}), 3.0);
    EXPECT_DOUBLE_EQ(distanceToOutline(garden, {37, 22}), 5.0);
    EXPECT_DOUBLE_EQ(distanceToSegment({0, 5}, {0, 0}, {0, 0}), 5.0);
    EXPECT_EQ(extentOf(garden), (PlanPoint{34, 18}));
    EXPECT_EQ(extentOf({}), (PlanPoint{0, 0}));
}

TEST(Outline, KeepsItsFormWhenStretched)
{
    const Outline corner{{1, 1}, {11, 1}, {11, 5}, {5, 5}, {5, 11}, {1, 11}}; // an L
    const Outline wide = stretched(corner, {20, 10});
    EXPECT_EQ(wide.size(), 6u);
    EXPECT_EQ(extentOf(wide), (PlanPoint{20, 10}));
    EXPECT_EQ(cornerOf(wide), (PlanPoint{1, 1}));
    EXPECT_EQ(wide[3], (PlanPoint{9, 5}));
    EXPECT_EQ(stretched({}, {4, 3}), rectangle({0, 0}, {4, 3}));
    EXPECT_EQ(moved({{1, 2}}, 3, -1), (Outline{{4, 1}}));
}

TEST(Fit, SaysHowFarInside)
{
    const FitReport fit = fitOnSite(site(), fedWire({{10, 5, 8}, {20, 5, 8}}, 5.0));
    EXPECT_TRUE(fit.insideBoundary);
    EXPECT_DOUBLE_EQ(fit.clearOfBoundary, 5.0);
    EXPECT_EQ(fit.beyondBoundary, 0.0);
}

TEST(Fit, SaysHowFarOutside)
{
    const FitReport fit = fitOnSite(site(), fedWire({{30, 5, 8}, {40, 5, 8}}, 5.0));
    EXPECT_FALSE(fit.insideBoundary);
    EXPECT_DOUBLE_EQ(fit.beyondBoundary, 6.0);
}

TEST(Fit, WithoutABoundaryEverythingFits)
{
    Site open = site();
    open.boundary.clear();
    EXPECT_TRUE(fitOnSite(open, fedWire({{500, 5, 8}, {900, 5, 8}}, 5.0)).insideBoundary);
}

TEST(Fit, FindsWireEndsNearMetal)
{
    const FitReport fit = fitOnSite(site(), fedWire({{3.5, 10, 8}, {13, 10, 8}}, 5.0));
    EXPECT_NEAR(fit.clearOfMetal, 0.5, 1e-12);
    EXPECT_EQ(fit.nearestMetal, "flagpole");
    // Stone does not count, nor a wire high above the pole.
    EXPECT_GT(fitOnSite(site(), fedWire({{32, 16.2, 8}, {22, 16, 8}}, 5.0)).clearOfMetal, 5.0);
    EXPECT_GT(fitOnSite(site(), fedWire({{3.5, 10, 15}, {13, 10, 8}}, 5.0)).clearOfMetal, 5.0);
}

TEST(Fit, WarnsOfWhatCanReachThePowerLine)
{
    Site s = site();
    s.powerLine = PowerLine{{-5, -10}, {45, -10}, 8.0};
    const auto wires = fedWire({{10, 5, 8}, {20, 5, 8}}, 5.0);
    EXPECT_FALSE(fitOnSite(s, wires).nearPowerLine); // 15 m away, 8 m high
    EXPECT_NEAR(fitOnSite(s, wires).toPowerLine, 15.0, 1e-12);
    s.powerLine->from.y = s.powerLine->to.y = 5.0;
    EXPECT_TRUE(fitOnSite(s, wires).nearPowerLine);
    s.powerLine->from.y = s.powerLine->to.y = -4.0; // the wire at 9 m could swing 8 m and a margin
    EXPECT_TRUE(fitOnSite(s, wires).nearPowerLine);
    EXPECT_EQ(fitOnSite(s, wires).endangering, "the wire");
    s.powerLine->from.y = s.powerLine->to.y = 31.0; // 15 m from the 14 m tower: within its fall and the margin
    EXPECT_EQ(fitOnSite(s, wires).endangering, "tower");
}

// 2026-11: only the wire's points were looked at; one that crossed the power line between its ends was "clear".
TEST(Fit, EveryPointOfAWireCountsAgainstThePowerLine)
{
    Site s = site();
    s.supports.clear();
    s.powerLine = PowerLine{{15, -100}, {15, 100}, 8.0}; // north to south, across the middle of the wire
    const FitReport crossing = fitOnSite(s, fedWire({{-15, 5, 3}, {45, 5, 3}}, 5.0));
    EXPECT_TRUE(crossing.nearPowerLine);
    EXPECT_NEAR(crossing.toPowerLine, 0.0, 1e-4);
    // high in the middle, low at its ends: it is the middle that can swing far enough
    s.powerLine = PowerLine{{0, -9}, {30, -9}, 8.0};
    EXPECT_TRUE(fitOnSite(s, fedWire({{5, 5, 2}, {15, 5, 13}, {25, 5, 2}}, 5.0)).nearPowerLine);
    EXPECT_FALSE(fitOnSite(s, fedWire({{5, 5, 2}, {15, 5, 11}, {25, 5, 2}}, 5.0)).nearPowerLine);
    // the line ends; beyond its end nothing can be reached
    s.powerLine = PowerLine{{100, 5}, {140, 5}, 8.0};
    EXPECT_FALSE(fitOnSite(s, fedWire({{5, 5, 8}, {25, 5, 8}}, 5.0)).nearPowerLine);
    EXPECT_NEAR(fitOnSite(s, fedWire({{5, 5, 8}, {25, 5, 8}}, 5.0)).toPowerLine, 75.0, 1e-6);
}

// A wire that leaves a bent garden between its ends and comes back.
TEST(Fit, EveryPointOfAWireCountsAgainstTheBoundary)
{
    Site s;
    s.boundary = {{0, 0}, {30, 0}, {30, 20}, {20, 20}, {20, 8}, {10, 8}, {10, 20}, {0, 20}}; // a U, open to the north
    const FitReport across = fitOnSite(s, fedWire({{5, 15, 8}, {25, 15, 8}}, 5.0));
    EXPECT_FALSE(across.insideBoundary);
    EXPECT_NEAR(across.beyondBoundary, 5.0, 0.01);
    const FitReport below = fitOnSite(s, fedWire({{5, 4, 8}, {25, 4, 8}}, 5.0));
    EXPECT_TRUE(below.insideBoundary);
    EXPECT_NEAR(below.clearOfBoundary, 4.0, 1e-9);
    // passes a corner that juts in, nearer than either of its ends is to the boundary
    EXPECT_NEAR(fitOnSite(s, fedWire({{4, 4, 8}, {16, 7.5, 8}}, 5.0)).clearOfBoundary, 0.5, 1e-9);
}

// 2026-12: 14 m of thin wire upright with nothing beneath, and rods of 8 m to each side, were said to fit.
TEST(Fit, WhatStandsByItselfIsNoHigherThanAMast)
{
    const auto told = [&](const WireModel& model, SiteWarning::Kind kind) {
        const FitReport fit = fitOnSite(site(), model);
        return std::any_of(fit.warnings.begin(), fit.warnings.end(), [&](const SiteWarning& w) { return w.kind == kind; });
    };
    using Kind = SiteWarning::Kind;
    EXPECT_FALSE(told(fedWire({{15, 5, 0.5}, {15, 5, 9.5}}, 0.1), Kind::Mast));
    EXPECT_EQ(ownMastOf(site(), fedWire({{15, 5, 0.5}, {15, 5, 9.5}}, 0.1)).height, 9.5);
    EXPECT_TRUE(told(fedWire({{15, 5, 0.5}, {15, 5, 14.0}}, 0.1), Kind::Mast));
    EXPECT_FALSE(told(fedWire({{32, 15.5, 0.5}, {32, 15.5, 14.0}}, 0.1), Kind::Mast)) << "the tower holds it";
    EXPECT_EQ(ownMastOf(site(), fedWire({{32, 15.5, 0.5}, {32, 15.5, 14.0}}, 0.1)).height, 0.0);
}

TEST(Fit, AnUprightMayHangInAWire)
{
    Site s = site();
    s.supports.push_back({"mast", SupportKind::Pole, {3, 16}, 14.0, false});
    WireModel model = fedWire({{17, 16, 0.5}, {17, 16, 13.0}}, 0.1);
    model.wires.push_back(model.wires.front());
    model.wires.back().points = {{4, 16, 13.0}, {17, 16, 13.0}, {31, 16, 13.0}};
    EXPECT_EQ(ownMastOf(s, model).height, 0.0);
    model.wires.back().points.pop_back();
    EXPECT_EQ(ownMastOf(s, model).height, 13.0) << "one side alone does not carry it";
}

TEST(Fit, TubesReachOutNoFartherThanTheyHoldThemselves)
{
    const auto told = [](double leg, double radius) {
        WireModel model = fedWire({{15 - leg, 5, 8}, {15 + leg, 5, 8}}, leg);
        model.wires.front().radius = radius;
        const FitReport fit = fitOnSite(site(), model);
        EXPECT_EQ(ownMastOf(site(), model).height, 8.0) << "under the feed";
        return std::any_of(fit.warnings.begin(), fit.warnings.end(),
                           [](const SiteWarning& w) { return w.kind == SiteWarning::Kind::Tube; });
    };
    EXPECT_FALSE(told(6.9, 0.0125));
    EXPECT_TRUE(told(7.1, 0.0125));
    EXPECT_TRUE(told(6.5, 0.004)) << "a telescope";
}

// 2026-11: an end pulled towards a distant tree was said to hang from nothing.
TEST(Fit, ARopeInTheWiresLineHoldsItsEnd)
{
    Site s = site();
    s.supports.push_back({"tree", SupportKind::Tree, {20, 5}, 6.0, false});
    const auto warned = [&](double endHeight) {
        const FitReport fit = fitOnSite(s, fedWire({{3, 10, 9}, {3 + 8.5, 10 - 2.5, endHeight}}, 0.1)); // half of the way to the tree
        return std::any_of(fit.warnings.begin(), fit.warnings.end(),
                           [](const SiteWarning& w) { return w.kind == SiteWarning::Kind::Support && w.at.x > 5.0; });
    };
    EXPECT_FALSE(warned(7.5)) << "the rope comes in at 6 m";
    EXPECT_FALSE(warned(5.0)) << "a rope may be tied lower than the top";
    EXPECT_TRUE(warned(8.5)) << "the line would pass the tree at 8 m, above its top";
}

TEST(Soil, BecomesRealGround)
{
    Soil soil;
    soil.relativePermittivity = 20;
    soil.conductivity = 0.03;
    EXPECT_EQ(soil.ground(), (Ground{GroundKind::Real, 20, 0.03}));
    const Complex eps = soil.ground().complexPermittivity(7e6);
    EXPECT_DOUBLE_EQ(eps.real(), 20.0);
    EXPECT_NEAR(-eps.imag() / 20.0, 0.03 / (2 * pi * 7e6 * 20.0 * 8.8541878e-12), 1e-6);
}

} // namespace

TEST(Fit, WiresOfTwoAntennasThatCrossAreFound)
{
    const WireModel low = dipole(20.0, 6.0), across = fedWire({{0, -8, 6.3}, {0, 8, 6.3}}, 8.0),
                    high = fedWire({{0, -8, 8}, {0, 8, 8}}, 8.0);
    const auto crossing = crossingOf(low, across);
    ASSERT_TRUE(crossing);
    EXPECT_NEAR(crossing->apart, 0.3, 1e-9);
    EXPECT_NEAR(crossing->at.x, 0.0, 0.7);
    EXPECT_FALSE(crossingOf(low, high));
}

// A peak between two even steps along the wire is what could reach the line; a warning and the verdict never differ.
TEST(Fit, WarningsTellTheSameAsTheVerdict)
{
    Site s = site();
    s.supports.clear();
    s.powerLine = PowerLine{{-50, -10}, {150, -10}, 8.0};
    const FitReport near = fitOnSite(s, fedWire({{5, 5, 2}, {15.03, 5, 13.01}, {25, 5, 2}}, 5.0));
    ASSERT_TRUE(near.nearPowerLine);
    ASSERT_FALSE(near.warnings.empty());
    EXPECT_EQ(near.warnings.front().kind, SiteWarning::Kind::PowerLine);
    EXPECT_NEAR(near.warnings.front().at.x, 15.03, 1e-6);
    const FitReport beyond = fitOnSite(s, fedWire({{5, 5, 4}, {15, -0.02, 4}, {25, 5, 4}}, 5.0));
    EXPECT_FALSE(beyond.insideBoundary);
    EXPECT_TRUE(std::any_of(beyond.warnings.begin(), beyond.warnings.end(),
                            [](const SiteWarning& w) { return w.kind == SiteWarning::Kind::Boundary && std::abs(w.at.x - 15.0) < 0.5; }));
}

} // namespace vetchling
