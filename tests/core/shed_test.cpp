#include "core/files/shed_file.h"
#include "core/workshop/build_facts.h"
#include "core/workshop/feed_line.h"
#include "tests/core/demo.h"
#include "tests/core/shape_helpers.h"

#include <gtest/gtest.h>

namespace vetchling {
namespace {

StockItem wire(const Id& id, double metres, int count = 1) { return {id, StockKind::Wire, id, count, 0.0, metres, 0.0, 0.5, {}}; }
StockItem whip(double shortest, double longest) { return {"whip", StockKind::Whip, "whip", 1, shortest, longest, 0.0, 0.0, {}}; }
Need side(double metres) { return {StockKind::Wire, "side", metres, 0.0}; }

TEST(Shed, WireIsCutFromTheShortestPieceThatIsLongEnough)
{
    const Shed shed{"", {wire("spool", 100.0), wire("rest", 11.0)}, {}};
    const Inventory inventory = inventoryOf({side(10.0)}, shed);
    ASSERT_EQ(inventory.rows.size(), 1u);
    EXPECT_EQ(inventory.rows[0].item, "rest");
    EXPECT_EQ(inventory.rows[0].how, Met::How::Cut);
    EXPECT_NEAR(inventory.rows[0].change, 1.0, 1e-9);
    EXPECT_TRUE(inventory.complete());
    EXPECT_EQ(inventory.price, 0.0);
}

TEST(Shed, APieceServesOnceAndItsRestServesOn)
{
    const Shed shed{"", {wire("spool", 25.0)}, {}};
    EXPECT_TRUE(inventoryOf({side(10.0), side(10.0)}, shed).complete());
    const Inventory three = inventoryOf({side(10.0), side(10.0), side(10.0)}, shed);
    EXPECT_FALSE(three.complete());
    EXPECT_EQ(three.worst(), Met::How::Extended);
    EXPECT_NEAR(three.price, 0.5 * 5.0, 1e-9); // five metres lack
}

TEST(Shed, AWhipReachesBetweenItsShortestAndItsLongest)
{
    const Shed shed{"", {whip(0.6, 5.4)}, {}};
    const auto how = [&](double length) { return inventoryOf({{StockKind::Whip, "whip", length, 0.0}}, shed).rows[0]; };
    EXPECT_EQ(how(3.0).how, Met::How::AsFound);
    EXPECT_EQ(how(0.4).how, Met::How::Cut);
    EXPECT_EQ(how(7.0).how, Met::How::Extended);
    EXPECT_NEAR(how(7.0).change, 1.6, 1e-9);
}

TEST(Shed, ACoilGivesTurnsAwayAndTakesNone)
{
    const StockItem coil{"coil", StockKind::Coil, "coil", 1, 0.0, 0.0, 8e-6, 12.0, {}};
    const auto how = [&](double inductance) { return inventoryOf({{StockKind::Coil, "coil", 0.0, inductance}}, {"", {coil}, {}}); };
    EXPECT_EQ(how(8e-6).rows[0].how, Met::How::AsFound);
    EXPECT_EQ(how(5e-6).rows[0].how, Met::How::Cut);
    EXPECT_EQ(how(12e-6).rows[0].how, Met::How::Missing);
    EXPECT_EQ(how(12e-6).price, 12.0);
}

TEST(Shed, WhatHasNoPriceIsCountedByItself)
{
    const Inventory inventory = inventoryOf({side(10.0), {StockKind::Coax, "feed line", 20.0, 0.0}}, {"", {wire("bit", 2.0)}, {}});
    EXPECT_EQ(inventory.unpriced, 1);
    EXPECT_NEAR(inventory.price, 0.5 * 8.0, 1e-9);
}

TEST(Shed, AnAntennaNeedsItsCutListItsCoilsAndItsFeedLine)
{
    const testing::Demo demo;
    const Antenna& coils = demo.antenna("Coil dipole 30");
    const auto built = shapes::buildOver(coils.shape, demo.design.site.soil.ground());
    ASSERT_TRUE(built.ok());
    const auto needs = needsOf(coils, *built, demo.design.site);
    const auto count = [&](StockKind kind) {
        return std::count_if(needs.begin(), needs.end(), [&](const Need& n) { return n.kind == kind; });
    };
    EXPECT_EQ(count(StockKind::Coil), 2);
    EXPECT_EQ(count(StockKind::Coax), 1);
    EXPECT_GE(count(StockKind::Wire), 4);
    const double line = std::find_if(needs.begin(), needs.end(), [](const Need& n) { return n.kind == StockKind::Coax; })->length;
    double drawn = 0.0;
    for (const ChainPart& part : coils.feed.chains.front().parts)
        if (part.kind == "line")
            drawn += part.values.at("length_m");
    ASSERT_GT(drawn, 0.0);
    EXPECT_NEAR(line, drawn, 1e-9) << "as Feed has it";
    const auto parts = partsOf(coils, *built, {}, demo.design.site);
    const auto coax = std::find_if(parts.begin(), parts.end(), [](const PartRow& r) { return r.key == "coax"; });
    ASSERT_NE(coax, parts.end());
    EXPECT_EQ(coax->count, std::ceil(drawn)) << "and as Parts buys it";
    Antenna bare = coils; // nothing drawn in Feed: the way to the radio
    bare.feed.chains.clear();
    const PlanPoint entry = demo.design.site.feedEntry;
    const double way = built->feedPoint.z + std::hypot(built->feedPoint.x - entry.x, built->feedPoint.y - entry.y);
    EXPECT_NEAR(feedLineOf(bare, built->feedPoint, demo.design.site).coax, way, 1e-9);
    const auto bought = partsOf(bare, *built, {}, demo.design.site);
    EXPECT_EQ(std::find_if(bought.begin(), bought.end(), [](const PartRow& r) { return r.key == "coax"; })->count, std::ceil(way));
}

// A rod is bought by the piece: wire is wire, on the trail, under Parts and on the command line.
TEST(Shed, RodsAreNoWireToBuy)
{
    const testing::Demo demo;
    const Antenna& whip = demo.antenna("Walking whip 17");
    const auto built = shapes::buildOver(whip.shape, demo.design.site.soil.ground());
    ASSERT_TRUE(built.ok());
    double radials = 0.0;
    for (const CutRow& row : cutList(built->sections, whip.allowances))
        if (row.name == "radial")
            radials += row.pieces * row.cut;
    ASSERT_GT(radials, 5.0);
    const BuildFacts facts = buildFactsOf(demo.design, whip, *built, {});
    EXPECT_NEAR(facts.wire, radials, 1e-9);
    for (const PartRow& row : facts.parts)
        if (row.key == "wire") {
            EXPECT_EQ(row.count, std::ceil(facts.wire));
        }
}

TEST(Shed, SaysWhichBandsAFamilyReaches)
{
    Design design;
    design.operation.bands = {{{"40 m", 7e6, 7.2e6}, Wish::Must, "forty", {}, {}}, {{"20 m", 14e6, 14.35e6}, Wish::Nice, "twenty", {}, {}}};
    const Antenna dipole = newAntenna(*shapes::findFamily("dipole"), 7.1e6);
    const auto reach = bandsFromShed(design, dipole, {"", {wire("bits", 6.5, 2)}, {}});
    ASSERT_EQ(reach.size(), 2u);
    EXPECT_EQ(reach[0].how, Met::How::Extended);
    EXPECT_LE(reach[1].how, Met::How::Cut);
}

TEST(Shed, IsReadAndWrittenWhole)
{
    const auto shed = files::readShed(VETCHLING_DATA "/demo/shed.json");
    ASSERT_TRUE(shed.ok()) << shed.firstFault();
    EXPECT_EQ(shed->items.size(), 6u);
    const auto again = files::parseShed(files::writeShed(*shed));
    ASSERT_TRUE(again.ok()) << again.firstFault();
    EXPECT_EQ(*again, *shed);
    EXPECT_NE(files::parseShed(R"({"format":"vetchling-shed","version":1,"items":[{"name":"x","kind":"spoon"}]})")
                  .firstFault()
                  .find("items[0].kind"),
              std::string::npos);
    EXPECT_FALSE(files::parseShed(R"({"format":"vetchling-design","version":1,"items":[]})").ok());
    EXPECT_FALSE(files::parseShed(R"({"format":"vetchling-shed","version":1,"items":[{"name":"x","kind":"wire","price":-1}]})").ok());
    for (const char* count : {"1e300", "-1e300", "4294967297"})
        EXPECT_FALSE(files::parseShed(std::string(R"({"format":"vetchling-shed","version":1,"items":[{"name":"x","kind":"wire","count":)") +
                                      count + "}]}")
                         .ok())
            << count;
    const auto kept = files::parseShed(R"({"format":"vetchling-shed","version":1,"items":[{"name":"x","kind":"wire","shelf":"top"}]})");
    ASSERT_TRUE(kept.ok());
    EXPECT_NE(files::writeShed(*kept).find("\"shelf\""), std::string::npos);
}

} // namespace
} // namespace vetchling
