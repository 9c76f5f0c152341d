#include "core/wire/range.h"

#include "tests/core/helpers.h"

namespace vetchling {
namespace {

using namespace testing;

constexpr double f = 14.1e6;

std::string firstNote(const WireModel& model)
{
    const auto notes = rangeNotes(model, f);
    return notes.empty() ? "" : notes.front().message;
}

TEST(RangeNotes, NothingToSayOfAnOrdinaryAntenna)
{
    EXPECT_EQ(firstNote(dipole(10, 5, averageSoil)), "");
    EXPECT_EQ(firstNote(fedWire({{-5, 0, 3}, {0, 0, 6}, {5, 0, 3}}, 5.0)), "");
    EXPECT_EQ(firstNote(fedWire({{-5, 0, 8}, {5, 0, 8}, {5, 0.1, 8}, {-5, 0.1, 8}, {-5, 0, 8}}, 5.0)), "");
}

TEST(RangeNotes, ThickTubes)
{
    EXPECT_EQ(firstNote(dipole(10, 5, freeSpace, 0.40)), "");
    EXPECT_NE(firstNote(dipole(10, 5, freeSpace, 0.45)).find("thicker than 1/25"), std::string::npos);
}

TEST(RangeNotes, SharpBendsAtTheirJoint)
{
    const auto bent = [](double angle) {
        return fedWire({{0, 0, 5}, {10, 0, 5}, {10 - 8 * std::cos(radians(angle)), 8 * std::sin(radians(angle)), 5}}, 3.0);
    };
    EXPECT_EQ(firstNote(bent(12)), "");
    const auto notes = rangeNotes(bent(6), f);
    ASSERT_EQ(notes.size(), 1u);
    EXPECT_NE(notes[0].message.english().find("6.0 degrees"), std::string::npos);
    EXPECT_LT(distance(notes[0].at, {10, 0, 5}), 1e-9);
}

TEST(RangeNotes, CloseNeighboursOnTheWireConcerned)
{
    WireModel model = dipole(10, 5);
    model.wires.push_back(wire("b", {{-4, 0.003, 5}, {4, 0.003, 5}}));
    const auto notes = rangeNotes(model, f);
    ASSERT_EQ(notes.size(), 1u);
    EXPECT_EQ(notes[0].wire, 1u);
    model.wires[1].points = {{-4, 0.005, 5}, {4, 0.005, 5}};
    EXPECT_TRUE(rangeNotes(model, f).empty());
}

TEST(RangeNotes, ShortPieces)
{
    EXPECT_NE(firstNote(fedWire({{0, 0, 5}, {0, 0, 5.003}, {10, 0, 5}}, 5.0)).find("hardly longer"), std::string::npos);
}

} // namespace
} // namespace vetchling
