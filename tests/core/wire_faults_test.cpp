#include "core/wire/wire_model.h"

#include "tests/core/helpers.h"

#include <functional>

namespace vetchling {
namespace {

using namespace vetchling::testing;

WireModel good()
{
    WireModel model = dipole(10, 5, averageSoil);
    model.wires.push_back(wire("b", {{0, 3, 2}, {0, 8, 2}, {4, 8, 3}}));
    Load load;
    load.at = 2.0;
    load.inductance = 1e-6;
    model.loads.push_back(load);
    return model;
}

TEST(Faults, NoneInAGoodModel) { EXPECT_TRUE(findFaults(good()).empty()) << listed(findFaults(good())); }

struct Spoil {
    const char* name;
    std::function<void(WireModel&)> change;
    const char* path;
    const char* words;
};

class Faulty : public ::testing::TestWithParam<Spoil> {};

// Every fault names its place as the wire file has it, and says what to do.
TEST_P(Faulty, IsNamedWithPlaceAndCure)
{
    WireModel model = good();
    GetParam().change(model);
    const Faults faults = findFaults(model);
    EXPECT_TRUE(mentions(faults, GetParam().path, GetParam().words)) << listed(faults);
}

const double nan = std::nan("");

INSTANTIATE_TEST_SUITE_P(
    Models, Faulty,
    ::
        testing::
            Values(
                Spoil{"below_perfect_ground",
                      [](WireModel& m) {
                          m.ground.kind = GroundKind::Perfect;
                          m.wires[1].points[1].z = -0.4;
                      },
                      "wires[1].points_m[1]", "0.4 m below perfect ground"},
                Spoil{"ends_in_the_surface", [](WireModel& m) { m.wires[1].points[1].z = 0.0; }, "wires[1].points_m[1]",
                      "join a rod or buried radials"},
                Spoil{"just_above_the_surface", [](WireModel& m) { m.wires[1].points[1].z = 5e-4; }, "wires[1].points_m[1]", "within 1 mm"},
                Spoil{"just_below_the_surface", [](WireModel& m) { m.wires[1].points[1].z = -5e-4; }, "wires[1].points_m[1]",
                      "within 1 mm"},
                Spoil{"lies_in_the_surface",
                      [](WireModel& m) {
                          for (Vec3& p : m.wires[1].points)
                              p.z = 0.0;
                      },
                      "wires[1].points_m[1]", "lies in the soil's surface"},
                Spoil{"slides_into_the_soil",
                      [](WireModel& m) {
                          m.wires[1].points[0].z = 0.1;
                          m.wires[1].points[1].z = -0.05;
                      },
                      "wires[1].points_m[1]", "at less than 5 degrees"},
                Spoil{"nan_point", [](WireModel& m) { m.wires[0].points[0].x = nan; }, "wires[0].points_m[0]", "three finite numbers"},
                Spoil{"far_away", [](WireModel& m) { m.wires[0].points[0].x = 1e9; }, "wires[0].points_m[0]", "1000 km"},
                Spoil{"one_point", [](WireModel& m) { m.wires[1].points.resize(1); }, "wires[1].points_m", "two points or more"},
                Spoil{"repeated_point", [](WireModel& m) { m.wires[1].points[1] = m.wires[1].points[0]; }, "wires[1].points_m[1]",
                      "same as the point before"},
                Spoil{"zero_radius", [](WireModel& m) { m.wires[0].radius = 0.0; }, "wires[0].radius_m", "radius in metres"},
                Spoil{"nan_radius", [](WireModel& m) { m.wires[0].radius = nan; }, "wires[0].radius_m", "radius in metres"},
                Spoil{"negative_end_radius", [](WireModel& m) { m.wires[0].endRadius = -1.0; }, "wires[0].end_radius_m",
                      "radius in metres"},
                Spoil{"core_of_no_resistance",
                      [](WireModel& m) {
                          m.feeds[0].transformer = Transformer{49.0, 0.0, 0.0, 1e-300};
                      },
                      "feeds[0].transformer.core_loss_ohm", "short circuit across the line"},
                Spoil{"winding_of_no_inductance",
                      [](WireModel& m) {
                          m.feeds[0].transformer = Transformer{49.0, 0.0, 1e-300, 0.0};
                      },
                      "feeds[0].transformer.magnetising_H", "short circuit across the line"},
                Spoil{"thick_wall", [](WireModel& m) { m.wires[0].conductivity = 5.8e7, m.wires[0].wall = 1.0; }, "wires[0].wall_m",
                      "between zero (solid) and the radius"},
                Spoil{"wall_of_perfect_conductor", [](WireModel& m) { m.wires[0].conductivity.reset(), m.wires[0].wall = 1e-5; },
                      "wires[0].conductivity_S_per_m", "metal below"},
                Spoil{"coating_as_thick_as_the_wire",
                      [](WireModel& m) {
                          m.wires[0].conductivity = 5.8e6, m.wires[0].coating = Coating{m.wires[0].radius, 5.8e7, 1.0};
                      },
                      "wires[0].coating.thickness_m", "less than the radius"},
                Spoil{"coating_without_conductivity",
                      [](WireModel& m) {
                          m.wires[0].conductivity = 5.8e6, m.wires[0].coating = Coating{1e-5, 0.0, 1.0};
                      },
                      "wires[0].coating.conductivity_S_per_m", "above zero"},
                Spoil{"negative_permeability", [](WireModel& m) { m.wires[0].relativePermeability = -1.0; },
                      "wires[0].relative_permeability", "1 for all but iron"},
                Spoil{"zero_conductivity", [](WireModel& m) { m.wires[0].conductivity = 0.0; }, "wires[0].conductivity_S_per_m",
                      "leave it out for a perfect conductor"},
                Spoil{"thin_jacket",
                      [](WireModel& m) {
                          m.wires[0].insulation = Insulation{0.5e-3, 2.3, 0.0};
                      },
                      "wires[0].insulation.outer_radius_m", "larger than the wire's radius"},
                Spoil{"jacket_of_nothing",
                      [](WireModel& m) {
                          m.wires[0].insulation = Insulation{2e-3, 0.0, 0.0};
                      },
                      "wires[0].insulation.relative_permittivity", "between 1 and 1000"},
                Spoil{"negative_tangent",
                      [](WireModel& m) {
                          m.wires[0].insulation = Insulation{2e-3, 2.0, -0.1};
                      },
                      "wires[0].insulation.loss_tangent", "zero or a small"},
                Spoil{"thick_as_long", [](WireModel& m) { m.wires[1].radius = 3.0; }, "wires[1].points_m[2]",
                      "shorter than the wire is thick"},
                Spoil{"surface_on_ground",
                      [](WireModel& m) {
                          m.wires[1].points[0].z = m.wires[1].points[1].z = 0.01;
                          m.wires[1].radius = 0.02;
                      },
                      "wires[1].points_m[1]", "surface touches the ground"},
                Spoil{"crossing",
                      [](WireModel& m) {
                          m.wires[1].points = {{1, -2, 5}, {1, 2, 5}};
                      },
                      "wires[1].points_m[1]", "without a joint"},
                Spoil{"duplicate", [](WireModel& m) { m.wires[1].points = m.wires[0].points; }, "wires[1].points_m[1]", "lies on piece"},
                Spoil{
                    "duplicate_reversed",
                    [](WireModel& m) {
                        m.wires[1].points = {m.wires[0].points[1], m.wires[0].points[0]};
                    },
                    "wires[1].points_m[1]", "lies on piece"},
                Spoil{"folded_back", [](WireModel& m) { m.wires[1].points = {{0, 3, 2}, {0, 8, 2}, {0, 4, 2}}; }, "wires[1].points_m[2]",
                      "runs back along"},
                Spoil{"overlapping_from_a_joint", [](WireModel& m) { m.wires[1].points = {{5, 0, 5}, {0.5, 0, 5}}; },
                      "wires[1].points_m[1]", "runs back along"},
                Spoil{"no_wires", [](WireModel& m) { m.wires.clear(); }, "wires", "there is no wire"},
                Spoil{"no_feed", [](WireModel& m) { m.feeds.clear(); }, "feeds", "there is no feed"},
                Spoil{"feed_off_the_wire", [](WireModel& m) { m.feeds[0].at = 11.0; }, "feeds[0].at_m", "off the wire, which is 10 m long"},
                Spoil{"feed_before_the_wire", [](WireModel& m) { m.feeds[0].at = -1.0; }, "feeds[0].at_m", "off the wire"},
                Spoil{"feed_nan", [](WireModel& m) { m.feeds[0].at = nan; }, "feeds[0].at_m", "off the wire"},
                Spoil{"feed_at_free_end", [](WireModel& m) { m.feeds[0].at = 10.0; }, "feeds[0].at_m", "free end"},
                Spoil{"feed_on_no_wire", [](WireModel& m) { m.feeds[0].wire = 7; }, "feeds[0].wire", "no such wire"},
                Spoil{"dead_feeds", [](WireModel& m) { m.feeds[0].voltage = 0.0; }, "feeds", "zero volts"},
                Spoil{"infinite_voltage", [](WireModel& m) { m.feeds[0].voltage = HUGE_VAL; }, "feeds[0].voltage_V", "zero or 1 nV"},
                Spoil{"load_off_the_wire", [](WireModel& m) { m.loads[0].at = 99.0; }, "loads[0].at_m", "off the wire"},
                Spoil{"negative_resistance", [](WireModel& m) { m.loads[0].resistance = -5.0; }, "loads[0].resistance_ohm",
                      "zero or a positive"},
                Spoil{"nan_inductance", [](WireModel& m) { m.loads[0].inductance = nan; }, "loads[0].inductance_H", "zero or a positive"},
                Spoil{"negative_capacitance", [](WireModel& m) { m.loads[0].capacitance = -1e-12; }, "loads[0].capacitance_F",
                      "zero or a positive"},
                Spoil{"negative_q", [](WireModel& m) { m.loads[0].q = -1; }, "loads[0].q", "zero or a positive"},
                Spoil{"soil_below_air", [](WireModel& m) { m.ground.relativePermittivity = 0.5; }, "ground.relative_permittivity",
                      "outside 1 to 1000"},
                Spoil{"negative_soil", [](WireModel& m) { m.ground.conductivity = -0.1; }, "ground.conductivity_S_per_m", "outside 0"}),
    [](const auto& info) { return std::string(info.param.name); });

TEST(Faults, AllAreListedAtOnce)
{
    WireModel model = good();
    model.wires[0].radius = 0.0;
    model.wires[1].points[0].x = nan;
    model.ground.conductivity = -1.0;
    EXPECT_GE(findFaults(model).size(), 3u);
}

TEST(Faults, WiresMayEndOnPerfectGround)
{
    EXPECT_TRUE(findFaults(fedWire({{0, 0, 0}, {0, 0, 10}}, 0.0, perfectGround)).empty());
    EXPECT_FALSE(findFaults(fedWire({{0, 0, 0}, {10, 0, 0}}, 5.0, perfectGround)).empty());
}

TEST(Faults, WiresMayTouchAtJointsOnly)
{
    WireModel model = dipole(10, 5);
    model.wires.push_back(wire("b", {{5, 0, 5}, {5, 4, 5}}));
    EXPECT_TRUE(findFaults(model).empty()) << listed(findFaults(model));
    model.wires[1].points = {{2, 0, 5}, {2, 4, 5}}; // meets the middle of a piece, where there is no point
    EXPECT_FALSE(findFaults(model).empty());
}

TEST(Faults, AcuteBendsOfTenDegreesAreFine)
{
    const double angle = radians(10.0);
    EXPECT_TRUE(findFaults(fedWire({{0, 0, 5}, {5, 0, 5}, {5 - 5 * std::cos(angle), 5 * std::sin(angle), 5}}, 2.0)).empty());
}

TEST(Faults, ParallelWiresFourRadiiApartAreFine)
{
    WireModel model = dipole(10, 5);
    model.wires.push_back(wire("b", {{-5, 0.004, 5}, {5, 0.004, 5}}));
    EXPECT_TRUE(findFaults(model).empty()) << listed(findFaults(model));
}

TEST(Faults, FrequenciesOutOfRangeAreNamed)
{
    EXPECT_TRUE(findFrequencyFaults(7.1e6, "f").empty());
    for (double f : {0.0, -1.0, 1e12, nan, HUGE_VAL})
        EXPECT_TRUE(mentions(findFrequencyFaults(f, "f"), "f", "10 kHz to 3 GHz")) << f;
}

TEST(Faults, CountlessPiecesAreRefusedQuickly)
{
    WireModel model = dipole(10, 5);
    std::vector<Vec3> points;
    for (int i = 0; i < 30000; ++i)
        points.push_back({0.3 * i, 5.0 + (i % 2) * 0.1, 5});
    model.wires.push_back(wire("b", points));
    EXPECT_TRUE(mentions(findFaults(model), "wires", "use fewer points"));
}

TEST(Wire, MeasuresAndPlacesAlongItself)
{
    const Wire w = wire("a", {{0, 0, 0}, {3, 4, 0}, {3, 4, 12}});
    EXPECT_DOUBLE_EQ(w.length(), 17.0);
    EXPECT_LT(distance(w.pointAt(2.5), {1.5, 2, 0}), 1e-12);
    EXPECT_LT(distance(w.pointAt(11.0), {3, 4, 6}), 1e-12);
    EXPECT_LT(distance(w.pointAt(17.0), {3, 4, 12}), 1e-12);
}

TEST(Vec3, SegmentDistances)
{
    EXPECT_NEAR(segmentDistance({0, 0, 0}, {1, 0, 0}, {0, 1, 0}, {1, 1, 0}), 1.0, 1e-12);
    EXPECT_NEAR(segmentDistance({0, 0, 0}, {1, 0, 0}, {0.5, -1, 0.3}, {0.5, 1, 0.3}), 0.3, 1e-12);
    EXPECT_NEAR(segmentDistance({0, 0, 0}, {1, 0, 0}, {4, 4, 0}, {4, 9, 0}), 5.0, 1e-12);
    EXPECT_NEAR(segmentDistance({0, 0, 0}, {1, 0, 0}, {0.2, 0, 0}, {3, 0, 0}), 0.0, 1e-12);
    EXPECT_NEAR(segmentDistance({0, 0, 0}, {1, 1, 0}, {1, 0, 0}, {0, 1, 0}), 0.0, 1e-12);
    EXPECT_NEAR(segmentDistance({0, 0, 0}, {1, 0, 0}, {2, 0, 0}, {5, 0, 0}), 1.0, 1e-12);
}

TEST(Vec3, Products)
{
    EXPECT_EQ(cross({1, 0, 0}, {0, 1, 0}), (Vec3{0, 0, 1}));
    EXPECT_DOUBLE_EQ(dot({1, 2, 3}, {4, 5, 6}), 32.0);
    EXPECT_EQ(mirrored({1, 2, 3}), (Vec3{1, 2, -3}));
    EXPECT_NEAR(norm(unit({3, -4, 12})), 1.0, 1e-15);
}

} // namespace
} // namespace vetchling
