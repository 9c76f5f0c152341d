#include "core/design/variants.h"
#include "core/files/design_file.h"
#include "core/study/comparison.h"
#include "tests/core/demo.h"

#include <gtest/gtest.h>

namespace vetchling {
namespace {

using testing::Demo;

/// A dipole with two variants: its ends higher, and loaded with coils.
Antenna antenna()
{
    Antenna a = newAntenna(*shapes::findFamily("dipole"), 7.1e6);
    a.id = "a";
    a.shape.parameters["end_height_m"] = 5.0;
    a.typed["leg_m"] = "33 ft";
    addVariant(a, {}, "ends higher");
    a.variants[0].values["end_height_m"] = 8.0;
    a.variants[0].typed["end_height_m"] = "8 m";
    addVariant(a, {}, "coils");
    Design before;
    before.antennas = {a};
    const ChosenVariants chosen{{"a", a.variants[1].id}};
    Design changed = shown(before, chosen);
    changed.antennas[0].shape = shapes::findFamily("loaded-dipole")->standardShape(7.1e6);
    changed.antennas[0].typed.clear();
    return stored(changed, before, chosen).antennas[0];
}

Design variantsOf(const Antenna& a)
{
    Design d;
    d.antennas = {a};
    nameThings(d);
    return d;
}

TEST(Variants, TellOnlyWhatDiffers)
{
    const Antenna a = antenna();
    EXPECT_EQ(a.variants[0].values.size(), 1u);
    EXPECT_TRUE(a.variants[0].family.empty());
    EXPECT_EQ(a.variants[1].family, "loaded-dipole");
    EXPECT_EQ(asVariant(a, a.variants[1].id).shape, shapes::findFamily("loaded-dipole")->standardShape(7.1e6));
}

TEST(Variants, FollowTheAntennaInWhatTheyDoNotTell)
{
    Antenna a = antenna();
    a.shape.parameters["leg_m"] = 9.5;
    const Antenna higher = asVariant(a, a.variants[0].id);
    EXPECT_EQ(higher.shape.parameters.at("leg_m"), 9.5);
    EXPECT_EQ(higher.shape.parameters.at("end_height_m"), 8.0);
    EXPECT_EQ(higher.typed.at("leg_m"), "33 ft");
    EXPECT_EQ(higher.typed.at("end_height_m"), "8 m");
}

TEST(Variants, AnEditOfAChosenOneLeavesTheAntennaAsDrawn)
{
    const Design d = variantsOf(antenna());
    const ChosenVariants chosen{{"a", d.antennas[0].variants[0].id}};
    Design edited = shown(d, chosen);
    edited.antennas[0].shape.parameters["leg_m"] = 9.9;
    edited.antennas[0].typed["leg_m"] = "9.9 m";
    edited.antennas[0].notes = "of both";
    const Design back = stored(edited, d, chosen);
    EXPECT_EQ(back.antennas[0].shape, d.antennas[0].shape);
    EXPECT_EQ(back.antennas[0].typed, d.antennas[0].typed);
    EXPECT_EQ(back.antennas[0].notes, "of both");
    EXPECT_EQ(back.antennas[0].variants[0].values.at("leg_m"), 9.9);
    EXPECT_EQ(shown(back, chosen).antennas[0].shape, edited.antennas[0].shape);
    EXPECT_EQ(shown(back, chosen).antennas[0].typed, edited.antennas[0].typed);
    EXPECT_EQ(stored(shown(d, chosen), d, chosen), d); // looking changes nothing
}

TEST(Variants, AValueBroughtBackIsNoDifference)
{
    const Design d = variantsOf(antenna());
    const ChosenVariants chosen{{"a", d.antennas[0].variants[0].id}};
    Design edited = shown(d, chosen);
    edited.antennas[0].shape.parameters["end_height_m"] = 5.0;
    EXPECT_TRUE(stored(edited, d, chosen).antennas[0].variants[0].values.empty());
}

TEST(Variants, ANewOneIsWhatIsLookedAt)
{
    Antenna a = antenna();
    const Id fresh = addVariant(a, a.variants[0].id, "ends higher");
    EXPECT_EQ(findVariant(a, fresh)->name, "ends higher 2");
    EXPECT_EQ(asVariant(a, fresh).shape, asVariant(a, a.variants[0].id).shape);
}

TEST(Variants, OneBecomesTheAntennaAndAllKeepTheirShapes)
{
    Antenna a = antenna();
    const auto drawn = a.shape, higher = asVariant(a, a.variants[0].id).shape, coils = asVariant(a, a.variants[1].id).shape;
    const Id first = a.variants[0].id, second = a.variants[1].id;
    ASSERT_TRUE(takeVariant(a, first, "as it was"));
    EXPECT_EQ(a.shape, higher);
    EXPECT_EQ(asVariant(a, first).shape, drawn);
    EXPECT_EQ(findVariant(a, first)->name, "as it was");
    EXPECT_EQ(asVariant(a, second).shape, coils);
    EXPECT_FALSE(takeVariant(a, "nobody", "x"));
}

// A support moved while a variant is looked at takes the antenna as drawn along too, and the variants with it.
TEST(Variants, AllFollowASupportThatIsMoved)
{
    Design d = variantsOf(antenna());
    d.site.supports = {{"pole", SupportKind::Pole, {10.0, 5.0}, 10.0, false, "pole", {}}};
    for (const char* key : {"x_m", "y_m"})
        d.antennas[0].shape.parameters[key] = key[0] == 'x' ? 10.0 : 5.0;
    d.antennas[0].shape.parameters["apex_height_m"] = 10.0;
    const ChosenVariants chosen{{"a", d.antennas[0].variants[0].id}};
    Design edited = shown(d, chosen);
    changeSupport(edited, "pole", [](Support& s) { s.at = {12.0, 6.0}; });
    const Design back = stored(edited, d, chosen);
    EXPECT_EQ(back.antennas[0].shape.parameters.at("x_m"), 12.0);
    EXPECT_EQ(back.antennas[0].shape.parameters.at("y_m"), 6.0);
    EXPECT_FALSE(back.antennas[0].variants[0].values.contains("x_m")) << "it only follows";
    EXPECT_EQ(shown(back, chosen).antennas[0].shape.parameters.at("x_m"), 12.0);
}

TEST(Variants, OfOneAntennaLeaveTheOthersAlone)
{
    Design d = variantsOf(antenna());
    Antenna other = antenna();
    other.id = "b";
    d.antennas.push_back(other);
    const ChosenVariants chosen{{"a", d.antennas[0].variants[0].id}};
    Design edited = shown(d, chosen);
    edited.antennas[1].shape.parameters["leg_m"] = 5.0;
    std::swap(edited.antennas[0], edited.antennas[1]);
    const Design back = stored(edited, d, chosen);
    EXPECT_EQ(findAntenna(back, "b")->shape.parameters.at("leg_m"), 5.0);
    EXPECT_EQ(findAntenna(back, "a")->shape, findAntenna(d, "a")->shape);
    edited = shown(d, chosen);
    edited.antennas.erase(edited.antennas.begin());
    EXPECT_EQ(stored(edited, d, chosen).antennas.size(), 1u);
}

TEST(Variants, OneThatIsTakenOutLeavesTheAntennaAsDrawn)
{
    const Design d = variantsOf(antenna());
    const ChosenVariants chosen{{"a", d.antennas[0].variants[0].id}};
    Design edited = shown(d, chosen);
    edited.antennas[0].variants.clear();
    const Design back = stored(edited, d, chosen);
    EXPECT_EQ(back.antennas[0].shape, d.antennas[0].shape);
    EXPECT_TRUE(back.antennas[0].variants.empty());
}

TEST(Variants, AreWrittenAsDifferencesAndReadBack)
{
    Design d = variantsOf(antenna());
    d.antennas[0].variants[0].note = "if the tree bears it";
    d.antennas[0].variants[0].wire = d.antennas[0].shape.wire;
    d.antennas[0].variants[0].wire->diameter = 1e-3;
    d.antennas[0].surroundings = {true, false, {{"b", Surroundings::Feed::Terminated}}};
    d.antennas[0].pictures = {"mast.jpg"};
    d.operation.tolerances.height = 0.5;
    d.site.notes = "gate is locked at night";
    d.site.farGrounds = {{"sea", 45.0, 135.0, 30.0, 70.0, 5.0, "sea", {}}};
    d.site.coaxRoute = {{1.0, 2.0}, {3.0, 4.0}};
    d.site.soil.dry = SoilFigures{7.0, 0.001};
    const std::string text = files::writeDesign(d);
    const auto read = files::parseDesign(text);
    ASSERT_TRUE(read.ok()) << read.firstFault();
    EXPECT_EQ(*read, d);
    EXPECT_EQ(files::writeDesign(*read), text);
}

TEST(Variants, UnknownFieldsOfOneAreKept)
{
    Design d = variantsOf(antenna());
    std::string text = files::writeDesign(d);
    const std::string mark = "\"note\": \"\"";
    text.insert(text.find(mark), "\"mood\": \"good\", ");
    const auto read = files::parseDesign(text);
    ASSERT_TRUE(read.ok()) << read.firstFault();
    EXPECT_NE(files::writeDesign(*read).find("\"mood\": \"good\""), std::string::npos);
}

TEST(Variants, WhatIsWrongInAFileIsSaidWithItsPlace)
{
    const auto faultOf = [](const std::string& change, const std::string& by) {
        Design d = variantsOf(antenna());
        d.site.farGrounds = {{"sea", 45.0, 135.0, 30.0, 70.0, 5.0, "sea", {}}};
        d.operation.tolerances.height = 0.5;
        std::string text = files::writeDesign(d);
        text.replace(text.find(change), change.size(), by);
        return testing::firstFaultOf(files::parseDesign(text));
    };
    EXPECT_NE(faultOf("\"distance_m\": 30.0", "\"distance_m\": -3").find("far_grounds[0].distance_m"), std::string::npos);
    EXPECT_NE(faultOf("\"height_m\": 0.5", "\"height_m\": -0.5").find("operation.tolerances.height_m"), std::string::npos);
    EXPECT_NE(faultOf("\"end_height_m\": 8.0", "\"end_height_m\": \"tall\"").find("variants[0].parameters.end_height_m"),
              std::string::npos);
}

TEST(Comparison, HasARowForEachVariantAndSaysWhatCannotBe)
{
    const Demo demo;
    Antenna a = demo.antenna("Tower V 60/40");
    a.variants.clear();
    addVariant(a, {}, "lower");
    a.variants[0].values["end_height_m"] = 2.6;
    addVariant(a, {}, "impossible");
    a.variants[1].values["end_height_m"] = 300.0;
    study::Library library;
    const auto asked = study::comparisonOf(demo.design, a, "as drawn");
    ASSERT_EQ(asked.antennas.size(), 3u);
    const auto drawn = study::comparedOf(library, asked, 0), lower = study::comparedOf(library, asked, 1),
               impossible = study::comparedOf(library, asked, 2);
    const Id forty = bandFor(demo.design, 7.1e6);
    ASSERT_TRUE(drawn->bands.contains(forty));
    EXPECT_GT(drawn->bands.at(forty).lost + 0.02, 0.0);
    EXPECT_LT(lower->bands.at(forty).straightUp, drawn->bands.at(forty).straightUp); // nearer the ground, more is lost in it
    EXPECT_GT(lower->bands.at(forty).lost, drawn->bands.at(forty).lost);
    EXPECT_NEAR(drawn->wire, lower->wire, 1e-9);
    EXPECT_FALSE(impossible->fault.empty());
    EXPECT_TRUE(impossible->bands.empty());
    EXPECT_EQ(drawn->tally.served, 2);
}

} // namespace
} // namespace vetchling
