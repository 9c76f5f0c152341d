/// Corners that are typed into a wire that hangs tied, upright runs, and ends that are changed over.
#include "core/design/design.h"
#include "core/shapes/drag.h"
#include "core/shapes/hang.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>

namespace vetchling::shapes {
namespace {

/// A pole 4 m from the feed, and a tree 21 m away in the south-east that the far end is tied to.
struct Garden {
    Design design;
    Antenna antenna;
    Garden()
    {
        design.site.supports = {{"pole", SupportKind::Pole, {0.0, 0.0}, 6.0, false, "pole", {}},
                                {"tree", SupportKind::Tree, {16.0, -14.0}, 9.0, false, "tree", {}}};
        antenna.shape = findFamily("end-fed")->standardShape(7.1e6);
        antenna.shape.parameters["feed_height_m"] = 2.5;
        antenna.shape = hangAt(design.site, antenna.shape, 1, {16.0, -14.0}, 0.5).shape;
    }
    [[nodiscard]] const Support* heldBy() const
    {
        const auto built = buildOver(antenna.shape, {});
        return built ? tiedTo(design.site, *built, *familyOf(antenna.shape).hangsBy(antenna.shape)) : nullptr;
    }
    void type(const std::string& key, double value)
    {
        const AntennaShape before = antenna.shape;
        setParameter(antenna, key, value, {}, {});
        settleTyped(antenna, before, key, design);
    }
    [[nodiscard]] std::vector<Vec3> wire() const { return buildOver(antenna.shape, {})->model.wires.front().points; }
};

// 2026-11: the wire swung to bearing 0 and lost its tie without a word.
TEST(Corners, ANewOneLiesOnTheWireAndTheEndStaysTied)
{
    Garden garden;
    ASSERT_EQ(garden.heldBy()->id, "tree");
    const std::vector<Vec3> straight = garden.wire();
    garden.type("first_run_m", 8.0);
    const std::vector<Vec3> bent = garden.wire();
    ASSERT_EQ(bent.size(), 3u);
    ASSERT_TRUE(garden.heldBy());
    EXPECT_EQ(garden.heldBy()->id, "tree");
    const Vec3 along = (1.0 / distance(straight[0], straight[1])) * (straight[1] - straight[0]);
    EXPECT_LT(distance(bent[1], straight[0] + 8.0 * along), 0.01);
    EXPECT_LT(distance(bent[2], straight[1]), 0.02);
}

TEST(Corners, TheEndFollowsItsTieWhereverTheCornerGoes)
{
    Garden garden;
    garden.type("first_run_m", 5.0);
    for (const auto& [key, value] : {std::pair("bend_height_m", 5.5), std::pair("first_run_m", 3.0), std::pair("more_corners", 1.0),
                                     std::pair("run_2_m", 4.0), std::pair("first_run_m", 0.0)}) {
        garden.type(key, value);
        ASSERT_TRUE(garden.heldBy()) << key << " " << value;
        EXPECT_EQ(garden.heldBy()->id, "tree") << key << " " << value;
    }
    garden.type("bearing_deg", 0.0); // asked for: it is turned away
    EXPECT_FALSE(garden.heldBy());
}

// 2026-11: 3.50 m of wire for a climb of 3.50 m was refused.
TEST(Corners, AWireMayStandUpright)
{
    Garden garden;
    garden.type("first_run_m", 3.5);
    garden.type("bend_height_m", 6.0);
    const std::vector<Vec3> points = garden.wire();
    EXPECT_NEAR(points[1].x, points[0].x, 1e-9);
    EXPECT_NEAR(points[1].z - points[0].z, 3.5, 1e-9);
    setParameter(garden.antenna, "bend_height_m", 6.1, {}, {});
    EXPECT_FALSE(buildOver(garden.antenna.shape, {}).ok()) << "a climb of 3.6 m by 3.5 m of wire";
}

// 2026-11: 40 m of wire were proposed between supports 21 m apart.
TEST(RoomForWire, EndsAtTheTieAndAtTheBoundary)
{
    Garden garden;
    const auto built = [&] { return *buildOver(garden.antenna.shape, {}); };
    const Vec3 feed = built().feedPoint;
    const double toTree = std::sqrt(std::pow(16.0 - feed.x, 2) + std::pow(-14.0 - feed.y, 2) + std::pow(9.0 - 2.5, 2));
    EXPECT_NEAR(roomForWire(garden.design.site, built()).value(), toTree, 1e-6);
    garden.type("first_run_m", 5.0); // a corner on the way changes nothing
    EXPECT_NEAR(roomForWire(garden.design.site, built()).value(), toTree, 0.02);
    garden.type("first_run_m", 0.0);
    for (const auto& [key, value] :
         {std::pair("x_m", 2.0), std::pair("y_m", 3.0), std::pair("bearing_deg", 90.0), std::pair("end_height_m", 2.5)})
        garden.antenna.shape.parameters[key] = value;
    EXPECT_FALSE(roomForWire(garden.design.site, built())) << "an open field";
    garden.design.site.boundary = {{-4.0, -6.0}, {20.0, -6.0}, {20.0, 12.0}, {-4.0, 12.0}};
    EXPECT_NEAR(roomForWire(garden.design.site, built()).value(), 18.0, 1e-6);
    garden.antenna.shape.parameters["bearing_deg"] = 45.0; // to the north side, 9 m away, before the east one
    EXPECT_NEAR(roomForWire(garden.design.site, built()).value(), 9.0 * std::sqrt(2.0), 1e-6);
}

TEST(FlippedEnds, AreTheSameWireFedFromTheOtherEnd)
{
    int flipping = 0;
    for (const Family* family : families()) {
        AntennaShape shape = family->standardShape(7.1e6);
        shape.parameters["x_m"] = 3.0, shape.parameters["y_m"] = -2.0, shape.parameters["bearing_deg"] = 70.0;
        if (family->spec(shape, "first_run_m"))
            for (const auto& [key, value] : std::initializer_list<std::pair<const char*, double>>{
                     {"first_run_m", 6.0}, {"bend_height_m", 5.0}, {"bend_bearing_deg", 160.0}, {"more_corners", 1.0}, {"run_2_m", 5.0}})
                shape.parameters[key] = value;
        const auto flipped = family->flipped(shape);
        if (!flipped)
            continue;
        ++flipping;
        const auto was = buildOver(shape, {}), now = buildOver(*flipped, {});
        ASSERT_TRUE(was && now) << family->id();
        const auto again = family->flipped(*flipped);
        ASSERT_TRUE(again) << family->id();
        const auto back = buildOver(*again, {});
        ASSERT_TRUE(back) << family->id();
        const std::vector<Vec3>&a = was->model.wires[0].points, &b = now->model.wires[0].points, &c = back->model.wires[0].points;
        EXPECT_LT(distance(a.front(), c.front()), 1e-6) << family->id();
        EXPECT_LT(distance(a.back(), c.back()), 1e-6) << family->id();
        if (family->id() == "off-centre-dipole")
            continue;                                                 // its feed stays
        const auto holds = [&](Vec3 p, const BuiltAntenna& antenna) { // one of its handles: all corners and both ends have one
            return std::any_of(antenna.handles.begin(), antenna.handles.end(), [&](const Handle& h) { return distance(h.at, p) < 1e-6; });
        };
        EXPECT_GT(distance(now->feedPoint, was->feedPoint), 5.0) << family->id();
        EXPECT_TRUE(holds(now->feedPoint, *was)) << family->id();
        EXPECT_TRUE(holds(was->feedPoint, *now)) << family->id();
        for (std::size_t i = 0; i < a.size() && family->id() == "end-fed"; ++i)
            EXPECT_LT(distance(a[i], b.at(a.size() - 1 - i)), 1e-6) << "corner " << i;
    }
    EXPECT_GE(flipping, 5);
    AntennaShape hanging = findFamily("end-fed")->standardShape(7.1e6);
    hanging.parameters["drop_m"] = 2.0;
    EXPECT_FALSE(findFamily("end-fed")->flipped(hanging));
    EXPECT_FALSE(findFamily("dipole")->flipped(findFamily("dipole")->standardShape(7.1e6)));
}

} // namespace
} // namespace vetchling::shapes
