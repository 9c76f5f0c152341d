#include "core/design/design.h"
#include "core/files/design_file.h"
#include "core/study/trade.h"
#include "core/tune/tune.h"

#include "tests/core/demo.h"
#include "tests/core/shape_helpers.h"

#include <algorithm>

namespace vetchling {
namespace {

using namespace vetchling::testing;
using shapes::built;
using shapes::shapeOf;

// ---- lengths with a name

TEST(NamedLengths, StandInExpressionsAsLengths)
{
    units::Context context;
    context.designFrequency = 7.1e6;
    context.lengths = {{"side", 20.0}, {"side2", 3.0}};
    EXPECT_NEAR(*units::parse("=side/2-10 cm", units::Quantity::Length, context), 9.9, 1e-12);
    EXPECT_NEAR(*units::parse("=2side+side2", units::Quantity::Length, context), 43.0, 1e-12);
    EXPECT_NEAR(*units::parse("=lambda/4-side", units::Quantity::Length, context), wavelength(7.1e6) / 4.0 - 20.0, 1e-9);
    EXPECT_FALSE(units::parse("=side+1", units::Quantity::Length, context).ok()) << "a bare number is no length";
    EXPECT_FALSE(units::parse("=tower", units::Quantity::Length, context).ok());
}

TEST(NamedLengths, MayNotMeanSomethingElse)
{
    for (const char* name : {"side", "a", "Wall3"})
        EXPECT_TRUE(units::isFreeName(name)) << name;
    for (const char* name : {"", "lambda", "f", "m", "ft", "in", "sin", "3a", "a b", "a-b", "seite_ä"})
        EXPECT_FALSE(units::isFreeName(name)) << name;
}

TEST(NamedLengths, TakeAlongWhatIsTypedWithThem)
{
    Antenna antenna = newAntenna(*shapes::findFamily("dipole"), 7.1e6);
    ASSERT_TRUE(nameLength(antenna, "side", 20.0, "20 m").empty());
    setParameter(antenna, "leg_m", 10.0, "=side/2", "");
    setParameter(antenna, "apex_height_m", 12.0, "=lambda/4", "");
    ASSERT_TRUE(nameLength(antenna, "side", 21.0, "").empty());
    EXPECT_NEAR(antenna.shape.parameters.at("leg_m"), 10.5, 1e-12);
    EXPECT_EQ(antenna.shape.parameters.at("apex_height_m"), 12.0) << "what does not name it stays";
    EXPECT_EQ(antenna.named.size(), 1u);
    const Faults faults = nameLength(antenna, "side", 1e6, ""); // beyond the leg's limit
    ASSERT_EQ(faults.size(), 1u);
    EXPECT_NEAR(antenna.shape.parameters.at("leg_m"), 10.5, 1e-12);
    EXPECT_FALSE(nameLength(antenna, "lambda", 1.0, "").empty());
    forgetLength(antenna, "side");
    EXPECT_TRUE(antenna.named.empty());
    EXPECT_FALSE(antenna.typed.contains("leg_m"));
    EXPECT_TRUE(antenna.typed.contains("apex_height_m"));
}

TEST(NamedLengths, AndAimsAndSegmentsSurviveTheFile)
{
    Design design;
    design.operation.bands = {{{"40 m", 7e6, 7.2e6}, Wish::Must, "forty", {}, {{"net", 7.06e6, 7.08e6, Wish::Nice}}}};
    design.operation.favourite = "forty";
    design.operation.reference = 75.0;
    design.operation.aimElevation = 12.0;
    design.operation.aimBearing = 225.0;
    design.antennas = {newAntenna(*shapes::findFamily("dipole"), 7.1e6)};
    nameThings(design);
    ASSERT_TRUE(nameLength(design.antennas[0], "side", 20.0, "65ft 7in").empty());
    const auto again = files::parseDesign(files::writeDesign(design));
    ASSERT_TRUE(again.ok()) << again.firstFault();
    EXPECT_EQ(*again, design);
    std::string text = files::writeDesign(design);
    text.replace(text.find("7060000.0"), 9, "6900000.0"); // outside its band
    EXPECT_NE(testing::firstFaultOf(files::parseDesign(text)).find("segment"), std::string::npos);
}

// ---- fans on spacers

TEST(FanOnSpacers, RunsParallelAtTheSpacingAndKeepsItsLengths)
{
    const shapes::AntennaShape fan = shapeOf(
        "fan-dipole", {{"fan_by", 1}, {"spacer_m", 0.25}, {"pair_count", 3}, {"leg_m", 10}, {"leg_2_m", 5}, {"leg_3_m", 3.4}}, 7.1e6);
    const shapes::BuiltAntenna antenna = built(fan);
    const auto leg = [&](const char* id) {
        return *std::find_if(antenna.model.wires.begin(), antenna.model.wires.end(), [&](const Wire& w) { return w.id == id; });
    };
    const Wire top = leg("leg 1 a"), second = leg("leg 2 a"), third = leg("leg 3 a");
    const Vec3 along = unit(top.points[1] - top.points[0]);
    for (const Wire& lower : {second, third}) {
        ASSERT_EQ(lower.points.size(), 3u);
        EXPECT_NEAR(norm(cross(unit(lower.points[2] - lower.points[1]), along)), 0.0, 1e-9);
    }
    EXPECT_NEAR(top.points[0].z + (second.points[1].x - top.points[0].x) / along.x * along.z - second.points[1].z, 0.25, 1e-6);
    const double halfGap = 0.5 * distance(top.points[0], leg("leg 1 b").points[0]);
    EXPECT_NEAR(second.length() + halfGap, 5.0, 1e-9);
    EXPECT_NEAR(third.length() + halfGap, 3.4, 1e-9);
    shapes::AntennaShape wide = fan;
    wide.parameters["spacer_m"] = 1.5;
    EXPECT_FALSE(shapes::buildOver(wide, averageSoil).ok()) << "three of these would be longer than the shortest pair";
}

// Close wires act on one another: the lower band's resonance of the upper pair moves more.
TEST(FanOnSpacers, CloserPairsMoveEachOtherMore)
{
    const auto resistanceAt = [](double spacing) {
        em::GroundTableCache tables;
        const shapes::AntennaShape fan = shapeOf(
            "fan-dipole",
            {{"fan_by", 1}, {"spacer_m", spacing}, {"leg_m", 10.1}, {"leg_2_m", 5.05}, {"apex_height_m", 12}, {"end_height_m", 12}}, 7.1e6);
        return solved(built(fan).model, 14.2e6, tables).impedance;
    };
    const Complex near = resistanceAt(0.05), far = resistanceAt(0.6), farther = resistanceAt(0.75);
    EXPECT_GT(std::abs(near - far), 4.0 * std::abs(far - farther));
}

// ---- a wire drawn by hand

TEST(FreeWire, ACornerOnTheWireChangesNothingAndOneBesideItIsANewPiece)
{
    const shapes::Family& family = shapes::freeWireFamily();
    const shapes::AntennaShape wire = shapeOf("free", {{"piece_count", 2}, {"piece_1_m", 8}, {"piece_2_m", 12}}, 7.1e6);
    const Wire before = built(wire).model.wires[0];
    const auto split = family.withCorner(wire, before.pointAt(3.0));
    ASSERT_TRUE(split.has_value());
    const Wire after = built(*split).model.wires[0];
    ASSERT_EQ(after.points.size(), 4u);
    EXPECT_NEAR(after.length(), before.length(), 1e-9);
    EXPECT_NEAR(distance(after.points[1], before.pointAt(3.0)), 0.0, 1e-9);
    EXPECT_EQ(split->parameters.at("piece_count"), 3.0);
    const Vec3 away = before.points.back() + Vec3{3.0, 4.0, 1.0};
    const auto longer = family.withCorner(wire, away);
    ASSERT_TRUE(longer.has_value());
    EXPECT_NEAR(distance(built(*longer).model.wires[0].points.back(), away), 0.0, 1e-9);
    EXPECT_NEAR(built(*longer).model.wires[0].length(), before.length() + std::sqrt(26.0), 1e-9);
}

TEST(FreeWire, LosesACornerButNotItsLastTwoPieces)
{
    const shapes::Family& family = shapes::freeWireFamily();
    const shapes::AntennaShape wire = shapeOf("free", {{"piece_count", 3}}, 7.1e6);
    const Wire before = built(wire).model.wires[0];
    const auto fewer = family.withoutCorner(wire, 1);
    ASSERT_TRUE(fewer.has_value());
    const Wire after = built(*fewer).model.wires[0];
    ASSERT_EQ(after.points.size(), 3u);
    EXPECT_NEAR(distance(after.points[1], before.points[2]), 0.0, 1e-9);
    EXPECT_FALSE(fewer->parameters.contains("piece_3_m"));
    EXPECT_FALSE(family.withoutCorner(*fewer, 1).has_value());
    EXPECT_FALSE(shapes::findFamily("dipole")->withCorner(shapeOf("dipole", {}), {}).has_value());
}

// ---- where a coil stands

TEST(CoilPlace, HasAHandleWhereTheCoilIs)
{
    for (const char* family : {"loaded-dipole", "loaded-vertical"}) {
        const shapes::BuiltAntenna antenna = built(shapeOf(family, {{"coil_place_percent", 40}}, 7.1e6));
        const auto handle =
            std::find_if(antenna.handles.begin(), antenna.handles.end(), [](const shapes::Handle& h) { return h.name == "coil"; });
        ASSERT_NE(handle, antenna.handles.end()) << family;
        EXPECT_NEAR(std::min(distance(handle->at, antenna.coils.front().at), distance(handle->at, antenna.coils.back().at)), 0.0, 1e-6)
            << family;
    }
    const shapes::BuiltAntenna endFed = built(shapeOf("end-fed", {{"coil_H", 2e-6}}, 7.1e6));
    EXPECT_EQ(endFed.handles.back().name, std::string("coil"));
}

// A coil farther out needs more inductance for the same resonance and gives more resistance (less current is wasted below it).
TEST(TradeCurve, ACoilFartherOutIsLargerAndRaisesTheResistance)
{
    study::Library library;
    const study::Subject subject{shapeOf("loaded-dipole", {{"leg_m", 4.6}, {"coil_place_percent", 40}}, 10.12e6), averageSoil, 0};
    study::TradeOptions options;
    options.points = 5;
    options.pair = 1;
    const auto curve = study::tradeCurve(library, subject, 10.12e6, options);
    ASSERT_TRUE(curve.ok()) << curve.firstFault();
    EXPECT_EQ(curve->what.free, "coil_place_percent");
    ASSERT_GE(curve->points.size(), 4u);
    for (std::size_t i = 1; i < curve->points.size(); ++i) {
        EXPECT_GT(curve->points[i].solved, curve->points[i - 1].solved);
        EXPECT_GT(curve->points[i].resistance, curve->points[i - 1].resistance);
    }
}

// ---- voltage along the wire

TEST(VoltageRibbon, IsHighAtTheEndsAndNothingInTheMiddleOfAHalfWave)
{
    const em::Solution solution = solved(dipole(20.3, 10.0, averageSoil), 7.1e6);
    const auto volts = em::voltageRibbon(solution, 6);
    std::vector<double> all;
    for (const auto& element : volts)
        all.insert(all.end(), element.begin(), element.end());
    const double ends = std::max(all.front(), all.back()), highest = *std::max_element(all.begin(), all.end());
    EXPECT_GT(ends, 0.8 * highest);
    double quarterWayIn = 0.0, middle = HUGE_VAL;
    const em::Mesh& mesh = *solution.mesh;
    for (std::size_t e = 0; e < mesh.elements.size(); ++e) {
        const double at = 0.5 * (mesh.elements[e].from + mesh.elements[e].to);
        if (std::abs(at - 5.0) < 1.5)
            quarterWayIn = volts[e][3];
        if (std::abs(at - 10.15) > 0.2 && std::abs(at - 10.15) < 1.5)
            middle = std::min(middle, volts[e][3]);
    }
    EXPECT_LT(middle, 0.25 * ends);
    EXPECT_GT(quarterWayIn, 0.4 * ends); // as the cosine, 0.7
    EXPECT_LT(quarterWayIn, 0.95 * ends);
    const double standing = em::endVoltage(em::strongestCurrent(solution, 0), 20.3, 1e-3);
    EXPECT_NEAR(ends / standing, 1.0, 0.35);
}

} // namespace
} // namespace vetchling
