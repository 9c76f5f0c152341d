/// What each family is held to by physics: in free space, where textbooks tell it.
#include "core/tune/tune.h"
#include "tests/core/shape_helpers.h"

namespace vetchling::shapes {
namespace {

/// Resistance of a family at its resonance in free space, and the value that makes it resonant there.
struct Resonant {
    double resistance = 0.0, value = 0.0;
};

Resonant resonantInFreeSpace(const std::string& family, const Parameters& changes, double frequency = 14.1e6)
{
    AntennaShape shape = shapeOf(family, changes, frequency);
    shape.parameters["transformer_ratio"] = 1.0; // at the port
    em::GroundTableCache tables;
    const Ground space{GroundKind::FreeSpace, 1.0, 0.0};
    const std::string key = findFamily(family)->tuned(shape).front().parameter;
    TuneOptions options;
    options.goal = TuneGoal::Resonance;
    const auto tuned = tune(shape, space, key, frequency, tables, options);
    EXPECT_TRUE(tuned.ok()) << family << tuned.firstFault();
    return tuned ? Resonant{tuned->impedance.real(), tuned->value} : Resonant{};
}

// The current of a half-wave is a sine from its end: R rises as one over its square (Kraus 1988, 5-15).
TEST(OffCentreDipole, ResistanceRisesTowardsTheEnd)
{
    const double middle = resonantInFreeSpace("dipole", {}).resistance;
    for (double percent : {50.0, 33.3, 25.0}) {
        const double sine = std::sin(pi * 0.01 * percent);
        EXPECT_NEAR(resonantInFreeSpace("off-centre-dipole", {{"feed_percent", percent}}).resistance / middle, 1.0 / (sine * sine), 0.06)
            << percent;
    }
}

TEST(OffCentreDipole, IsTheOtherWayRoundFromTheOtherEnd)
{
    const Resonant near = resonantInFreeSpace("off-centre-dipole", {{"feed_percent", 30.0}}),
                   far = resonantInFreeSpace("off-centre-dipole", {{"feed_percent", 70.0}});
    EXPECT_NEAR(near.resistance / far.resistance, 1.0, 1e-3);
    EXPECT_NEAR(near.value, far.value, 1e-3);
}

// Two equal wires share the current: four times the resistance (Balanis 2016, 9.5).
TEST(FoldedDipole, HasFourTimesTheResistance)
{
    const Resonant plain = resonantInFreeSpace("dipole", {}), folded = resonantInFreeSpace("folded-dipole", {{"spacing_m", 0.05}});
    EXPECT_NEAR(folded.resistance / plain.resistance, 4.0, 0.12);
    EXPECT_NEAR(folded.value / plain.value, 1.0, 0.02);
}

TEST(FoldedDipole, WiresThatTouchAreRefused)
{
    AntennaShape thick = shapeOf("folded-dipole", {{"spacing_m", 0.02}});
    thick.wire.diameter = 0.016;
    EXPECT_TRUE(mentions(buildOver(thick, averageSoil).faults(), "spacing_m", "touch"));
}

// In free space it matters neither how the loop is turned nor which of its equal sides is fed.
TEST(PolygonLoop, IsTheSameHoweverItIsTurned)
{
    const Resonant first = resonantInFreeSpace("loop", {});
    for (const Parameters& turned : {Parameters{{"attitude", 2.0}}, Parameters{{"feed_place", 1.0}}, Parameters{{"feed_place", 2.0}},
                                     Parameters{{"attitude", 2.0}, {"feed_place", 1.0}, {"bearing_deg", 33.0}}}) {
        const Resonant other = resonantInFreeSpace("loop", turned);
        EXPECT_NEAR(other.resistance / first.resistance, 1.0, 2e-3);
        EXPECT_NEAR(other.value / first.value, 1.0, 2e-3);
    }
}

// A thin circular loop is first resonant a little above a wave round, at some 130 to 140 ohm (Balanis 2016, 5.3.2); fewer corners
// enclose less area and have less.
TEST(PolygonLoop, ResistanceGrowsWithTheAreaTowardsTheCircle)
{
    double before = 0.0;
    for (double sides : {3.0, 4.0, 6.0, 12.0}) {
        const Resonant loop = resonantInFreeSpace("loop", {{"side_count", sides}});
        EXPECT_GT(loop.resistance, before) << sides;
        EXPECT_GT(loop.value / wavelength(14.1e6), 1.02) << sides;
        EXPECT_LT(loop.value / wavelength(14.1e6), 1.10) << sides;
        before = loop.resistance;
    }
    EXPECT_GT(before, 120.0);
    EXPECT_LT(before, 145.0);
}

// Two families that make the same triangle agree.
TEST(PolygonLoop, OfThreeSidesIsTheDeltaLoop)
{
    const BuiltAntenna three = built(shapeOf(
                           "loop", {{"side_count", 3.0}, {"perimeter_m", 21.0}, {"base_height_m", 3.0}, {"transformer_ratio", 1.0}})),
                       delta = built(shapeOf("delta-loop", {{"perimeter_m", 21.0}, {"base_height_m", 3.0}, {"feed_place", 1.0}}));
    em::GroundTableCache tables;
    const Complex a = solved(three.model, 14.1e6, tables).impedance, b = solved(delta.model, 14.1e6, tables).impedance;
    EXPECT_LT(std::abs(a - b) / std::abs(b), 2e-3);
}

TEST(PolygonLoop, StandsWhereAskedAndIsFedThere)
{
    const BuiltAntenna diamond =
        built(shapeOf("loop", {{"attitude", 1.0}, {"perimeter_m", 20.0}, {"base_height_m", 2.0}, {"feed_place", 1.0}}));
    const double diagonal = 5.0 * std::sqrt(2.0);
    EXPECT_NEAR(diamond.handles[0].at.z, 2.0, 1e-9);
    EXPECT_NEAR(diamond.handles[1].at.z, 2.0 + diagonal, 1e-9);
    EXPECT_NEAR(diamond.feedPoint.z, 2.0 + 0.5 * diagonal, 1e-9);
    EXPECT_NEAR(diamond.feedPoint.x, 0.5 * diagonal, 1e-9);
    EXPECT_TRUE(mentions(buildOver(shapeOf("loop", {{"side_count", 4.5}}), averageSoil).faults(), "side_count", "whole"));
}

// What hangs down radiates little of its own and adds its wire: less resistance, nearly the same length.
TEST(BentDipole, LosesResistanceAndKeepsItsLength)
{
    const Resonant straight = resonantInFreeSpace("dipole", {}), none = resonantInFreeSpace("bent-dipole", {{"drop_m", 0.0}}),
                   bent = resonantInFreeSpace("bent-dipole", {{"drop_m", 1.5}});
    EXPECT_NEAR(none.resistance, straight.resistance, 1e-6);
    EXPECT_LT(bent.resistance, 0.93 * straight.resistance);
    EXPECT_GT(bent.resistance, 0.6 * straight.resistance);
    EXPECT_NEAR(bent.value / straight.value, 1.0, 0.04);
}

TEST(BentDipole, MustNotStandOnTheGroundOrBeAllTip)
{
    EXPECT_TRUE(
        mentions(buildOver(shapeOf("bent-dipole", {{"end_height_m", 4.0}, {"apex_height_m", 5.0}, {"drop_m", 4.5}}), averageSoil).faults(),
                 "drop_m", "ground"));
    EXPECT_TRUE(mentions(
        buildOver(shapeOf("bent-dipole", {{"end_height_m", 90.0}, {"apex_height_m", 90.0}, {"drop_m", 80.0}}), averageSoil).faults(),
        "drop_m", "side is only"));
}

} // namespace
} // namespace vetchling::shapes
