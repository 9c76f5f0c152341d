#include "core/files/design_file.h"

#include <gtest/gtest.h>

namespace vetchling {
namespace {

Design withCompromise()
{
    Design d;
    Antenna a = newAntenna(*shapes::findFamily("linked-dipole"), 7.1e6);
    a.id = "a";
    a.shape.parameters["leg_m"] = 9.9;
    agree(a, Compromise::From::Shift);
    d.antennas = {a};
    return d;
}

TEST(Compromise, HoldsAsLongAsItsLengths)
{
    Antenna a = withCompromise().antennas[0];
    ASSERT_TRUE(compromiseOf(a));
    EXPECT_EQ(compromiseOf(a)->lengths.size(), 2u);
    a.shape.parameters["apex_height_m"] = 8.0;
    EXPECT_TRUE(compromiseOf(a));
    a.shape.parameters["leg_m"] = 9.8;
    EXPECT_FALSE(compromiseOf(a));
    a.shape.parameters["leg_m"] = 9.9;
    EXPECT_TRUE(compromiseOf(a)) << "taken back";
    a.shape = shapes::findFamily("vertical")->standardShape(7.1e6);
    EXPECT_FALSE(compromiseOf(a));
}

TEST(Compromise, IsSaved)
{
    const Design d = withCompromise();
    const auto again = files::parseDesign(files::writeDesign(d));
    ASSERT_TRUE(again);
    EXPECT_EQ(again->antennas[0].compromise, d.antennas[0].compromise);
}

} // namespace
} // namespace vetchling
