/// End-fed, linked, fan and free wires: what follows from their parameters.
#include "core/design/design.h"
#include "core/line/parts.h"
#include "core/tune/tune.h"
#include "tests/core/shape_helpers.h"

namespace vetchling::shapes {
namespace {

TEST(EndFed, BendsRoundACorner)
{
    const BuiltAntenna b = built(shapeOf("end-fed", {{"length_m", 20},
                                                     {"first_run_m", 9},
                                                     {"feed_height_m", 2},
                                                     {"bend_height_m", 6},
                                                     {"end_height_m", 5},
                                                     {"bearing_deg", 0},
                                                     {"bend_bearing_deg", 90}}));
    const auto& p = b.model.wires[0].points;
    ASSERT_EQ(p.size(), 3u);
    EXPECT_NEAR(b.model.wires[0].length(), 20.0, 1e-9);
    EXPECT_NEAR(p[1].x, 0.0, 1e-9);
    EXPECT_GT(p[2].x, 5.0);
    EXPECT_TRUE(b.highVoltageFeed);
    EXPECT_EQ(b.transformer->ratio, 49.0);
}

TEST(FreeWire, IsToldPieceByPiece)
{
    const AntennaShape shape = shapeOf("free", {{"start_height_m", 14},
                                                {"bearing_deg", 60},
                                                {"piece_1_m", 9.8},
                                                {"piece_1_bearing_deg", 0},
                                                {"piece_1_rise_m", -6},
                                                {"piece_2_rise_m", 0},
                                                {"piece_2_bearing_deg", -90}});
    const auto words = findFamily("free")->remarks(shape);
    ASSERT_EQ(words.size(), 4u);
    EXPECT_EQ(words[1].english(), "then 9.80 m towards 60°, down to 8.00 m");
    EXPECT_NE(words[2].english().find("towards 330°, level"), std::string::npos) << words[2].english();
}

TEST(LinkedDipole, SaysItsSections)
{
    const AntennaShape shape = shapeOf("linked-dipole", {{"leg_m", 10.0}, {"leg_2_m", 13.5}, {"link_gap_m", 0.06}});
    const auto words = findFamily("linked-dipole")->remarks(shape);
    ASSERT_EQ(words.size(), 2u);
    EXPECT_NE(words[1].english().find("3.44 m to the end"), std::string::npos) << words[1].english();
}

TEST(EndFed, GoesRoundSeveralCorners)
{
    const AntennaShape shape = shapeOf("end-fed", {{"length_m", 20},
                                                   {"first_run_m", 6},
                                                   {"feed_height_m", 5},
                                                   {"bend_height_m", 5},
                                                   {"end_height_m", 5},
                                                   {"bearing_deg", 0},
                                                   {"bend_bearing_deg", 90},
                                                   {"more_corners", 2},
                                                   {"run_2_m", 5},
                                                   {"bend_2_height_m", 5},
                                                   {"bend_2_bearing_deg", 180},
                                                   {"run_3_m", 5.5},
                                                   {"bend_3_height_m", 5},
                                                   {"bend_3_bearing_deg", 270}});
    const BuiltAntenna b = built(shape);
    const auto& p = b.model.wires[0].points;
    ASSERT_EQ(p.size(), 5u);
    EXPECT_NEAR(b.model.wires[0].length(), 20.0, 1e-9);
    EXPECT_LT(distance(p[2], {5, 6, 5}), 1e-9);
    EXPECT_LT(distance(p[3], {5, 0.5, 5}), 1e-9);
    EXPECT_LT(distance(p[4], {1.5, 0.5, 5}), 1e-9);
    const AntennaShape hung = findFamily("end-fed")->hung(shape, 2, {7.0, 6.0, 6.0});
    EXPECT_LT(distance(built(hung).model.wires[0].points[2], {7, 6, 6}), 1e-9) << "the second corner goes to its hook";
    EXPECT_NEAR(built(hung).model.wires[0].length(), 20.0, 1e-9);
    EXPECT_FALSE(findFamily("end-fed")->spec(shapeOf("end-fed", {}), "run_2_m"));
}

TEST(EndFed, TransformerLosesWhatItIsSaidToIntoAMatchedLoad)
{
    const auto built = shapes::buildOver(shapeOf("end-fed", {{"transformer_ratio", 64}, {"transformer_loss_percent", 15}}), {});
    const Transformer& t = *built->transformer;
    EXPECT_NEAR(t.at(7e6).efficiency(t.ratio * 50.0), 0.85, 1e-9);
    const auto none = shapes::buildOver(shapeOf("end-fed", {{"transformer_ratio", 1}, {"transformer_loss_percent", 0}}), {});
    EXPECT_FALSE(none->transformer);
}

TEST(EndFed, TransformersHaveALowerAndAnUpperEnd)
{
    const auto built = shapes::buildOver(shapeOf("end-fed", {{"winding_H", 4e-6}, {"leakage_H", 2e-7}}), {});
    const Transformer& t = *built->transformer;
    const auto mismatch = [&](double f) { return swr(t.atLine(49.0 * 55.0, f)); };
    EXPECT_GT(mismatch(1.8e6), 1.4 * mismatch(7e6));
    EXPECT_GT(mismatch(50e6), 1.4 * mismatch(7e6));
}

TEST(EndFed, ReturnsThroughCounterpoiseOrShield)
{
    const BuiltAntenna wireReturn = built(shapeOf("end-fed", {{"return_kind", 0}, {"counterpoise_m", 2}}));
    EXPECT_NEAR(wireReturn.model.wires[1].length(), 2.0, 1e-9);
    const BuiltAntenna shield =
        built(shapeOf("end-fed", {{"shield_m", 6}, {"shield_height_m", 0.2}, {"return_kind", 1}, {"feed_height_m", 2.5}}));
    EXPECT_NEAR(shield.model.wires[1].length(), 6.0, 1e-9);
    EXPECT_NEAR(shield.model.wires[1].points.back().z, 0.2, 1e-9); // down and along the ground
    EXPECT_EQ(shield.sections.size(), 1u);                         // the shield is not cut from wire
    EXPECT_EQ(wireReturn.sections.size(), 2u);
    EXPECT_FALSE(wireReturn.shieldWire);
}

// Down from the transformer, round the corners of the feed line's route, and no farther than the choke.
TEST(EndFed, TheShieldFollowsTheFeedLine)
{
    Antenna antenna = newAntenna(*findFamily("end-fed"), 7.1e6);
    antenna.shape.parameters["feed_height_m"] = 3.02;
    antenna.shape.parameters["x_m"] = antenna.shape.parameters["y_m"] = 0.0;
    Site site;
    site.coaxRoute = {{4.0, 0.0}};
    site.feedEntry = {4.0, 30.0};
    const auto shield = [&] {
        settleFeed(antenna, site);
        const BuiltAntenna here = built(antenna.shape);
        return here.model.wires.at(here.shieldWire.value());
    };
    EXPECT_NEAR(shield().length(), 10.0, 1e-9) << "assumed, as nothing is drawn";
    EXPECT_EQ(familyOf(antenna.shape).remarks(antenna.shape).size(), 1u) << "and said";
    ChainPart choke = newPart(part::choke), line = newPart(part::line);
    line.values["length_m"] = 21.0;
    ownChain(antenna).parts = {line};
    EXPECT_NEAR(shield().length(), 21.0, 1e-9) << "no choke: to the radio";
    choke.values["at_m"] = 12.0;
    ownChain(antenna).parts = {choke, line};
    const Wire run = shield();
    ASSERT_EQ(run.points.size(), 4u);
    EXPECT_NEAR(distance(run.points[1], {0.0, 0.0, 0.02}), 0.0, 1e-9);
    EXPECT_NEAR(distance(run.points[2], {4.0, 0.0, 0.02}), 0.0, 1e-9);
    EXPECT_NEAR(distance(run.points[3], {4.0, 5.0, 0.02}), 0.0, 1e-9) << "12 m: 3 down, 4 east, 5 north";
    EXPECT_TRUE(familyOf(antenna.shape).remarks(antenna.shape).empty());
    antenna.shape.parameters["shield_m"] = 2.0;
    EXPECT_NEAR(shield().length(), 2.0, 1e-9) << "what is typed stands";
    EXPECT_EQ(antenna.shape.shield, ShieldRun()) << "and the chain is no matter of it";
}

TEST(EndFed, CannotClimbHigherThanItsWire)
{
    EXPECT_TRUE(mentions(buildOver(shapeOf("end-fed", {{"length_m", 5}, {"feed_height_m", 1}, {"end_height_m", 9}}), averageSoil).faults(),
                         "end_height_m", "cannot climb"));
}

TEST(EndFed, TheModelIsThatOfThePort)
{
    const BuiltAntenna b = built(shapeOf("end-fed", {}));
    EXPECT_FALSE(b.model.feeds[0].transformer);
    ASSERT_TRUE(b.atLine().feeds[0].transformer);
    EXPECT_EQ(b.atLine(Complex{2450.0, 0.0}, 7e6), b.transformer->atLine({2450.0, 0.0}, 7e6));
}

TEST(FanDipole, HasALengthAndAFrequencyForEachPair)
{
    const Family& fan = *findFamily("fan-dipole");
    for (int pairs : {2, 3, 5}) {
        AntennaShape shape = fan.standardShape(7.1e6);
        shape.parameters["pair_count"] = pairs;
        EXPECT_EQ(fan.tuned(shape).size(), std::size_t(pairs));
        EXPECT_EQ(fan.levers(shape).size(), std::size_t(pairs));
        EXPECT_TRUE(fan.spec(shape, "leg_" + std::to_string(pairs) + "_m"));
        EXPECT_FALSE(fan.spec(shape, "leg_" + std::to_string(pairs + 1) + "_m"));
        EXPECT_EQ(built(shape).model.wires.size(), std::size_t(1 + 2 * pairs)); // with the way across the centre piece
    }
}

TEST(FanDipole, EachPairHangsSteeperByTheFan)
{
    const BuiltAntenna b = built(shapeOf("fan-dipole", {{"fan_deg", 15}, {"apex_height_m", 12}, {"end_height_m", 12}, {"leg_m", 10}}));
    const auto slope = [&](std::size_t wire) {
        const Vec3 leg = b.model.wires[wire].points[1] - b.model.wires[wire].points[0];
        return degrees(std::asin(-leg.z / norm(leg)));
    };
    EXPECT_NEAR(slope(1), 0.0, 1e-9);
    EXPECT_NEAR(slope(3), 15.0, 1e-9);
    EXPECT_TRUE(
        mentions(buildOver(shapeOf("fan-dipole", {{"pair_count", 5}, {"fan_deg", 25}}), averageSoil).faults(), "fan_deg", "smaller angle"));
}

TEST(FanDipole, IsResonantOnEveryBandItIsTunedTo)
{
    AntennaShape shape = shapeOf("fan-dipole", {{"frequency_2_Hz", 14.2e6}});
    em::GroundTableCache tables;
    const auto tuned = tuneAll(shape, averageSoil, tables);
    ASSERT_TRUE(tuned.ok()) << tuned.firstFault();
    ASSERT_EQ(tuned->lengths.size(), 2u);
    for (const TunedValue& v : tuned->lengths)
        shape.parameters[v.length.parameter] = v.value;
    for (const TunedValue& v : tuned->lengths) {
        const Complex z = solved(built(shape).model, v.length.frequency, tables).impedance;
        EXPECT_LT(relative(z, v.impedance), 0.01) << v.length.parameter;
        EXPECT_LT(std::abs(z.imag()), 0.01 * std::abs(z)) << v.length.parameter;
        EXPECT_GT(z.real(), 20.0);
        EXPECT_LT(z.real(), 120.0);
    }
    EXPECT_LT(tuned->lengths[1].value, 0.6 * tuned->lengths[0].value);
}

TEST(FanDipole, OfThreePairsIsTunedJointly)
{
    AntennaShape shape = shapeOf("fan-dipole", {{"pair_count", 3}});
    em::GroundTableCache tables;
    const auto tuned = tuneAll(shape, averageSoil, tables);
    ASSERT_TRUE(tuned.ok()) << tuned.firstFault();
    for (const TunedValue& v : tuned->lengths) {
        EXPECT_LT(std::abs(v.impedance.imag()), 0.01 * std::abs(v.impedance)) << v.length.parameter;
        EXPECT_NEAR(v.value / v.ruleValue, 1.0, 0.12) << v.length.parameter;
    }
}

} // namespace
} // namespace vetchling::shapes
