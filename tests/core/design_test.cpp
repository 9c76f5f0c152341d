#include "core/design/design.h"

#include <gtest/gtest.h>

#include <set>

namespace vetchling {
namespace {

Antenna antenna(const std::string& name, const Id& id = {})
{
    Antenna a;
    a.id = id;
    a.name = name;
    a.shape = shapes::findFamily("dipole")->standardShape(7.1e6);
    return a;
}

Design design()
{
    Design d;
    d.operation.bands = {{{"80 m", 3.5e6, 3.8e6}, Wish::No, {}, {}},
                         {{"40 m", 7e6, 7.2e6}, Wish::Must, {}, {}},
                         {{"20 m", 14e6, 14.35e6}, Wish::Nice, {}, {}}};
    d.antennas = {antenna("a"), antenna("b"), antenna("c")};
    nameThings(d);
    return d;
}

TEST(Ids, AreNeverTheSame)
{
    std::set<Id> seen;
    for (int i = 0; i < 20000; ++i)
        EXPECT_TRUE(seen.insert(newId()).second);
}

TEST(Ids, FollowAThingThroughReorderingAndRemoval)
{
    Design d = design();
    const Id b = d.antennas[1].id;
    std::swap(d.antennas[0], d.antennas[2]);
    d.antennas.erase(d.antennas.begin());
    ASSERT_TRUE(findAntenna(d, b));
    EXPECT_EQ(findAntenna(d, b)->name, "b");
    EXPECT_EQ(indexOfAntenna(d, b), 0);
    EXPECT_FALSE(findAntenna(d, "nobody"));
    EXPECT_EQ(indexOfAntenna(d, "nobody"), -1);
}

TEST(Ids, NewThingsGetThemAndOldOnesKeepTheirs)
{
    Design d = design();
    const Design before = d;
    nameNewThings(d);
    EXPECT_TRUE(d == before);
    d.antennas.insert(d.antennas.begin(), antenna("new"));
    nameNewThings(d);
    EXPECT_FALSE(d.antennas[0].id.empty());
    for (std::size_t i = 0; i < before.antennas.size(); ++i)
        EXPECT_EQ(d.antennas[i + 1].id, before.antennas[i].id);
}

TEST(BandFor, IsTheOneThatHoldsTheFrequencyElseTheFirstWanted)
{
    const Design d = design();
    EXPECT_EQ(bandFor(d, 14.1e6), d.operation.bands[2].id);
    EXPECT_EQ(bandFor(d, 3.6e6), d.operation.bands[0].id); // wanted or not
    EXPECT_EQ(bandFor(d, 145e6), d.operation.bands[1].id);
    EXPECT_TRUE(bandFor(Design(), 7e6).empty());
}

// 2026-11: an antenna for the lower edge of 20 m was judged on whichever band came first within two percent.
TEST(BandFor, PrefersTheBandThatHoldsItToOneNearby)
{
    Design d;
    d.operation.bands = {{{"a", 13.8e6, 13.95e6}, Wish::Must, "a", {}}, {{"b", 14.0e6, 14.35e6}, Wish::No, "b", {}}};
    EXPECT_EQ(bandFor(d, 14.1e6), "b");
}

TEST(Names, GetTheNextFreeNumber)
{
    EXPECT_EQ(freeName("pole", {}), "pole");
    EXPECT_EQ(freeName("pole", {"pole"}), "pole 2");
    EXPECT_EQ(freeName("pole 2", {"pole", "pole 2"}), "pole 3");
    EXPECT_EQ(freeName("40 m", {"40 m"}), "40 m 2");
    EXPECT_EQ(freeName("Tower V 40", {"Tower V 40"}), "Tower V 40 (2)");
}

TEST(NewAntenna, HangsFromTheTallestSupport)
{
    Site site;
    site.supports = {{"tree", SupportKind::Tree, {20, 5}, 7.0, false, "t", {}}, {"mast", SupportKind::Pole, {3, 4}, 10.0, false, "m", {}}};
    for (const shapes::Family* family : shapes::families()) {
        const Antenna antenna = newAntenna(*family, 14.1e6, site);
        const auto built = shapes::buildOver(antenna.shape, site.soil.ground());
        ASSERT_TRUE(built.ok()) << family->id() << built.firstFault();
        for (const Wire& wire : built->model.wires)
            for (Vec3 p : wire.points)
                EXPECT_LE(p.z, family->hangsBy(antenna.shape) ? 10.01 : 40.0) << family->id();
    }
    const Antenna dipole = newAntenna(shapes::dipoleFamily(), 14.1e6, site);
    EXPECT_EQ(dipole.shape.parameters.at("x_m"), 3.0);
    EXPECT_EQ(dipole.shape.parameters.at("apex_height_m"), 10.0);
}

TEST(StoredCopies, BringAShapeBack)
{
    Antenna a = antenna("a");
    a.typed["leg_m"] = "33ft";
    const Antenna before = a;
    const Id copy = storeCopy(a, "before the second pair", "2026-05-12T10:40");
    a.shape.parameters["leg_m"] = 5.0;
    a.typed.clear();
    a.name = "renamed since";
    EXPECT_FALSE(takeCopy(a, "no such copy"));
    ASSERT_TRUE(takeCopy(a, copy));
    EXPECT_TRUE(a.shape == before.shape);
    EXPECT_EQ(a.typed, before.typed);
    EXPECT_EQ(a.name, "renamed since");
    EXPECT_EQ(a.copies.size(), 1u);
}

} // namespace
} // namespace vetchling
