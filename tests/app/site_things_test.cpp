#include "app/plots/site_things.h"

#include <gtest/gtest.h>

namespace vetchling::app {
namespace {

using Kind = SiteThing::Kind;

/// A garden with a house and a pond in it, and a feed line that goes round a corner.
Design garden()
{
    Design d;
    d.site.boundary = rectangle({0, 0}, {34, 18});
    d.site.buildings = {{"house", rectangle({3, 2}, {9, 6}), 3.0, 6.0, "house", {}}};
    d.site.waters = {{"pond", rectangle({20, 4}, {6, 4}), "pond", {}}};
    d.site.supports = {{"pole", SupportKind::Pole, {30, 9}, 8.0, false, "pole", {}}};
    d.site.coaxRoute = {{28, 9}, {15, 5}};
    d.site.feedEntry = {12, 5};
    return d;
}

TEST(SiteThings, AllThatHaveCornersAreKnownByThem)
{
    const Design d = garden();
    EXPECT_EQ(thingsOf(d).size(), 6u);
    EXPECT_EQ(outlineOf(d, {Kind::Building, "house"})->size(), 4u);
    EXPECT_EQ(outlineOf(d, {Kind::Boundary})->size(), 4u);
    EXPECT_EQ(outlineOf(d, {Kind::Coax})->size(), 2u);
    EXPECT_FALSE(outlineOf(d, {Kind::Support, "pole"}));
    EXPECT_FALSE(outlineOf(d, {Kind::Building, "nobody"}));
    EXPECT_TRUE(isThere(d, {Kind::Building, "house", 3}));
    EXPECT_FALSE(isThere(d, {Kind::Building, "house", 4}));
    EXPECT_FALSE(isThere(d, {Kind::Support, "pole", 0}));
}

TEST(SiteThings, ACornerIsMovedAlone)
{
    Design d = garden();
    const SiteThing corner{Kind::Building, "house", 2};
    EXPECT_EQ(placeOf(d, corner), (PlanPoint{12, 8}));
    moveTo(d, corner, {13, 9});
    EXPECT_EQ(placeOf(d, corner), (PlanPoint{13, 9}));
    EXPECT_EQ((*outlineOf(d, corner))[0], (PlanPoint{3, 2}));
    moveTo(d, corner.whole(), {4, 2});
    EXPECT_EQ(placeOf(d, corner), (PlanPoint{14, 9})) << "as a whole it takes all corners along";
}

TEST(SiteThings, CornersComeAfterTheOneNamedAndGoDownToThree)
{
    Design d = garden();
    const SiteThing added = addCorner(d, {Kind::Water, "pond"}, 3, {19, 6}); // on the edge that closes it
    EXPECT_EQ(added.corner, 4);
    EXPECT_EQ(placeOf(d, added), (PlanPoint{19, 6}));
    EXPECT_TRUE(removeCorner(d, added));
    EXPECT_TRUE(removeCorner(d, {Kind::Water, "pond", 0}));
    EXPECT_FALSE(removeCorner(d, {Kind::Water, "pond", 0})) << "two corners are no area";
    EXPECT_EQ(outlineOf(d, {Kind::Water, "pond"})->size(), 3u);
    EXPECT_FALSE(removeCorner(d, {Kind::Water, "pond"})) << "none is chosen";
    EXPECT_TRUE(removeCorner(d, {Kind::Coax, {}, 1}));
    EXPECT_TRUE(removeCorner(d, {Kind::Coax, {}, 0})) << "a feed line may go straight";
    EXPECT_TRUE(d.site.coaxRoute.empty());
    EXPECT_EQ(addCorner(d, {Kind::Water, "pond"}, 7, {0, 0}), (SiteThing{Kind::Water, "pond"}));
}

TEST(SiteThings, TheNearestEdgeOfAnAreaClosesItAndOfAFeedLineDoesNot)
{
    const Design d = garden();
    const auto [edge, off] = nearestEdge(d, {Kind::Building, "house"}, {2.5, 5.0});
    EXPECT_EQ(edge, 3);
    EXPECT_NEAR(off, 0.5, 1e-12);
    EXPECT_EQ(nearestEdge(d, {Kind::Coax}, {20, 7}).first, 0);
    EXPECT_EQ(nearestEdge(d, {Kind::Support, "pole"}, {30, 9}).first, -1);
}

TEST(SiteThings, ADraggedCornerSnapsToCornersEdgesAndItsNeighbours)
{
    const Design d = garden();
    const SiteThing corner{Kind::Building, "house", 1};
    EXPECT_EQ(snapped(d, corner, {20.2, 4.1}, 0.5), (PlanPoint{20, 4})) << "a corner of the pond";
    EXPECT_NEAR(snapped(d, corner, {14.03, 0.2}, 0.5).x, 14.03, 1e-9);
    EXPECT_EQ(snapped(d, corner, {14.03, 0.2}, 0.5).y, 0.0) << "the south edge of the boundary";
    EXPECT_EQ(snapped(d, corner, {15.26, 2.2}, 0.5), (PlanPoint{15.3, 2})) << "level with the corner before";
    EXPECT_EQ(snapped(d, corner, {15.26, 3.2}, 0.5), (PlanPoint{15.3, 3.2})) << "else to tenths";
}

TEST(SiteThings, WhatIsTakenAwayIsGoneAndItsNameFree)
{
    Design d = garden();
    removeThing(d, {Kind::Boundary});
    removeThing(d, {Kind::Coax});
    removeThing(d, {Kind::Building, "house"});
    EXPECT_EQ(thingsOf(d).size(), 3u); // the pole, the pond, where the feed line comes in
    renameThing(d, {Kind::Water, "pond"}, QStringLiteral("house"));
    EXPECT_EQ(d.site.waters.front().name, "house");
    EXPECT_EQ(nameOf(garden(), {Kind::Coax}), QStringLiteral("feed line's route"));
}

} // namespace
} // namespace vetchling::app
