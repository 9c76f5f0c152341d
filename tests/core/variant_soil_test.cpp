#include "core/design/variants.h"
#include "core/files/design_file.h"
#include "core/study/comparison.h"
#include "core/workshop/build_facts.h"

#include <gtest/gtest.h>

namespace vetchling {
namespace {

const Soil marsh{"", "marsh", "", 30.0, 0.2};
const Soil sand{"", "sand", "", 4.0, 0.001};

/// A low dipole at the site's soil with a variant that stands on a marsh.
Design twoSoils()
{
    Design d;
    d.site.soil = sand;
    d.operation.bands = {{Band{"40 m", 7.0e6, 7.2e6}, Wish::Must, "40"}};
    Antenna a = newAntenna(*shapes::findFamily("dipole"), 7.1e6);
    a.id = "a";
    for (const char* key : {"apex_height_m", "end_height_m"})
        a.shape.parameters[key] = 3.0;
    const Id wet = addVariant(a, {}, "on the marsh");
    d.antennas = {a};
    Design changed = shown(d, {{"a", wet}});
    changed.antennas[0].soil = marsh;
    return stored(changed, d, {{"a", wet}});
}

TEST(VariantSoil, BelongsToTheVariantAlone)
{
    const Design d = twoSoils();
    ASSERT_EQ(d.antennas[0].variants.size(), 1u);
    EXPECT_FALSE(d.antennas[0].soil);
    EXPECT_EQ(d.site.soil, sand);
    EXPECT_TRUE(d.antennas[0].variants[0].values.empty());
    const Antenna varied = asVariant(d.antennas[0], d.antennas[0].variants[0].id);
    EXPECT_EQ(soilUnder(d, varied), marsh);
    EXPECT_EQ(soilUnder(d, d.antennas[0]), sand);
}

TEST(VariantSoil, IsWhatItIsSolvedOver)
{
    const Design d = twoSoils();
    study::Library library;
    const auto asked = study::comparisonOf(d, d.antennas[0], "as drawn");
    const auto drawn = study::comparedOf(library, asked, 0), varied = study::comparedOf(library, asked, 1);
    ASSERT_TRUE(drawn && varied);
    Design moved = d; // the same wire where the whole site is a marsh
    moved.site.soil = marsh;
    const auto there = study::comparedOf(library, study::comparisonOf(moved, moved.antennas[0], "as drawn"), 0);
    ASSERT_TRUE(there);
    EXPECT_DOUBLE_EQ(varied->bands.at("40").gain, there->bands.at("40").gain);
    EXPECT_DOUBLE_EQ(varied->bands.at("40").lowestSwr, there->bands.at("40").lowestSwr);
    EXPECT_GT(varied->bands.at("40").straightUp, drawn->bands.at("40").straightUp + 1.0) << "salt marsh is the better mirror";
}

TEST(VariantSoil, IsSavedAndReadAgain)
{
    Design d = twoSoils();
    ASSERT_TRUE(takeVariant(d.antennas[0], d.antennas[0].variants[0].id, "on the sand"));
    EXPECT_EQ(soilUnder(d, d.antennas[0]), marsh);
    const auto again = files::parseDesign(files::writeDesign(d));
    ASSERT_TRUE(again);
    const Antenna& a = again->antennas[0];
    EXPECT_EQ(soilUnder(*again, a), marsh);
    Design salted = *again;
    salted.site.soil.conductivity = 0.005;
    EXPECT_EQ(soilUnder(salted, asVariant(a, a.variants[0].id)), salted.site.soil) << "the one as drawn before stands on the site's";
    EXPECT_EQ(files::writeDesign(*again), files::writeDesign(d));
}

TEST(VariantSoil, OfAnAntennaGoesAlongWithItsVariants)
{
    Design d = twoSoils();
    d.antennas[0].soil = Soil{"", "clay", "", 20.0, 0.02};
    addVariant(d.antennas[0], {}, "as it is");
    EXPECT_EQ(soilUnder(d, asVariant(d.antennas[0], d.antennas[0].variants[1].id)).name, "clay");
    EXPECT_EQ(soilUnder(d, asVariant(d.antennas[0], d.antennas[0].variants[0].id)), marsh);
}

TEST(VariantSoil, OfOwnFiguresHasNoSeasonsOfItsClass)
{
    Soil soil = marsh;
    soil.id = "marsh";
    soil.dry = SoilFigures{20.0, 0.1};
    makeOwn(soil, "typed");
    EXPECT_EQ(soil, (Soil{"", "typed", "", 30.0, 0.2}));
}

} // namespace
} // namespace vetchling
