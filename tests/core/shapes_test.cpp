#include "core/shapes/family.h"

#include "core/shapes/hang.h"
#include "core/tune/tune.h"
#include "tests/core/shape_helpers.h"

#include <algorithm>
#include <set>

namespace vetchling::shapes {
namespace {

using namespace vetchling::testing;

class EveryFamily : public ::testing::TestWithParam<std::string> {
protected:
    const Family& family() const { return *findFamily(GetParam()); }
};

TEST_P(EveryFamily, StandardShapeCanBeBuiltOnManyBands)
{
    for (double f : {7.1e6, 10.1e6, 14.2e6, 28.5e6}) {
        AntennaShape shape = family().standardShape(f);
        const auto result = buildOver(shape, averageSoil);
        EXPECT_TRUE(result.ok()) << f << result.firstFault();
    }
}

TEST_P(EveryFamily, ParametersAreCompleteAndTheirStandardsInRange)
{
    std::set<std::string> keys;
    for (const ParameterSpec& s : family().parameters(family().standardShape(7.1e6))) {
        EXPECT_TRUE(keys.insert(s.key).second) << s.key;
        EXPECT_FALSE(s.label.empty());
        EXPECT_FALSE(s.group.empty());
        EXPECT_GE(s.standard, s.lowest) << s.key;
        EXPECT_LE(s.standard, s.highest) << s.key;
        if (!s.choices.empty()) {
            EXPECT_EQ(s.highest, double(s.choices.size()) - 1.0);
        }
    }
    for (const char* place : {"x_m", "y_m", "bearing_deg"})
        EXPECT_TRUE(keys.count(place));
    const AntennaShape shape = family().standardShape(7.1e6);
    ASSERT_FALSE(family().tuned(shape).empty());
    for (const TunedLength& t : family().tuned(shape))
        EXPECT_TRUE(keys.count(t.parameter)) << t.parameter;
    ASSERT_FALSE(family().levers(shape).empty());
    for (const Lever& lever : family().levers(shape))
        EXPECT_TRUE(keys.count(lever.parameter)) << lever.parameter;
    EXPECT_FALSE(family().configurations(shape).empty());
    EXPECT_FALSE(family().parts().empty());
    EXPECT_EQ(findFamily(GetParam())->id(), GetParam());
}

TEST_P(EveryFamily, HandlesMoveWithTheirParameters)
{
    const AntennaShape shape = family().standardShape(7.1e6);
    const BuiltAntenna before = built(shape);
    ASSERT_FALSE(before.handles.empty());
    for (std::size_t h = 0; h < before.handles.size(); ++h)
        for (const std::string& key : before.handles[h].parameters) {
            ASSERT_TRUE(family().spec(shape, key)) << key;
            AntennaShape moved = shape;
            moved.parameters[key] += 0.05;
            EXPECT_GT(distance(built(moved).handles[h].at, before.handles[h].at), 1e-4) << before.handles[h].name << key;
        }
}

TEST_P(EveryFamily, SectionsHoldAllWireOfTheModel)
{
    const AntennaShape shape = family().standardShape(7.1e6);
    const auto all = buildOver(shape, averageSoil, family().configurations(shape).size() - 1); // with its links closed
    ASSERT_TRUE(all.ok());
    const BuiltAntenna& b = *all;
    double cut = 0.0;
    for (const WireSection& s : b.sections)
        cut += s.pieces * s.length;
    EXPECT_NEAR(cut + b.notCut, b.model.totalLength(), 1e-6);
}

TEST_P(EveryFamily, MovesAndTurnsAsAWhole)
{
    AntennaShape shape = family().standardShape(14e6);
    const BuiltAntenna here = built(shape);
    shape.parameters["x_m"] += 7.0;
    shape.parameters["y_m"] -= 3.0;
    const BuiltAntenna there = built(shape);
    for (std::size_t w = 0; w < here.model.wires.size(); ++w)
        for (std::size_t p = 0; p < here.model.wires[w].points.size(); ++p)
            EXPECT_LT(distance(there.model.wires[w].points[p], here.model.wires[w].points[p] + Vec3{7, -3, 0}), 1e-9);
    EXPECT_LT(distance(there.feedPoint, here.feedPoint + Vec3{7, -3, 0}), 1e-9);
}

TEST_P(EveryFamily, FeedPointIsWhereTheModelIsFed)
{
    const BuiltAntenna b = built(family().standardShape(7.1e6));
    ASSERT_EQ(b.model.feeds.size(), 1u);
    EXPECT_LT(distance(b.model.wires[b.model.feeds[0].wire].pointAt(b.model.feeds[0].at), b.feedPoint), 1e-9);
}

TEST_P(EveryFamily, RefusesValuesOutOfRangeByName)
{
    for (const ParameterSpec& s : family().parameters(family().standardShape(7.1e6))) {
        AntennaShape shape = family().standardShape(7.1e6);
        shape.parameters[s.key] = std::nan("");
        EXPECT_TRUE(mentions(buildOver(shape, averageSoil).faults(), s.key, "outside")) << s.key;
        shape.parameters[s.key] = s.highest + 1.0;
        EXPECT_FALSE(buildOver(shape, averageSoil).ok()) << s.key;
    }
}

TEST_P(EveryFamily, RulesNameTheirAssumption)
{
    const AntennaShape shape = family().standardShape(7.1e6);
    const auto rules = family().rules(shape, family().tuned(shape).front());
    ASSERT_FALSE(rules.empty());
    for (const RuleOfThumb& r : rules) {
        EXPECT_FALSE(r.assumption.empty());
        EXPECT_GT(r.value, 0.0);
        if (r.feetMegahertz > 0.0) {
            EXPECT_NEAR(r.metreMegahertz / r.feetMegahertz, 0.3048, 1e-9);
        }
    }
}

std::vector<std::string> familyIds()
{
    std::vector<std::string> ids;
    for (const Family* f : families())
        ids.push_back(f->id());
    return ids;
}

INSTANTIATE_TEST_SUITE_P(Families, EveryFamily, ::testing::ValuesIn(familyIds()), [](const auto& info) {
    std::string name = info.param;
    std::replace(name.begin(), name.end(), '-', '_');
    return name;
});

TEST(Families, HaveDifferentNames)
{
    const auto ids = familyIds();
    EXPECT_EQ(ids.size(), families().size());
    EXPECT_EQ(std::set<std::string>(ids.begin(), ids.end()).size(), ids.size());
    EXPECT_EQ(findFamily("nothing"), nullptr);
}

TEST(Families, UnknownFamilyIsAFault)
{
    AntennaShape shape;
    shape.family = "rhombic";
    EXPECT_TRUE(mentions(buildOver(shape, averageSoil).faults(), "family", "rhombic"));
}

TEST(Wire, OddSizesAreRefused)
{
    AntennaShape shape = findFamily("dipole")->standardShape(7.1e6);
    shape.wire.diameter = 0.0;
    EXPECT_TRUE(mentions(buildOver(shape, averageSoil).faults(), "wire.diameter_m", "outside"));
    shape.wire.diameter = 2e-3;
    shape.wire.jacket = -1.0;
    EXPECT_TRUE(mentions(buildOver(shape, averageSoil).faults(), "wire.jacket_m", "outside"));
}

TEST(Wire, CarriesMaterialAndJacket)
{
    WireChoice choice;
    choice.diameter = 2e-3;
    choice.jacket = 0.8e-3;
    const vetchling::Wire w = makeWire(choice, "a", {{0, 0, 1}, {1, 0, 1}});
    EXPECT_DOUBLE_EQ(w.radius, 1e-3);
    ASSERT_TRUE(w.insulation);
    EXPECT_DOUBLE_EQ(w.insulation->outerRadius, 1.8e-3);
    choice.jacket = 0.0;
    EXPECT_FALSE(makeWire(choice, "a", {}).insulation);
}

TEST(Bearing, IsCompassNotMathematical)
{
    EXPECT_LT(distance(towards(0), {0, 1, 0}), 1e-12);
    EXPECT_LT(distance(towards(90), {1, 0, 0}), 1e-12);
    EXPECT_LT(distance(towards(225), {-std::sqrt(0.5), -std::sqrt(0.5), 0}), 1e-12);
}

// The handed-down 468 / f, halved: 33 ft for 7.09 MHz.
TEST(Dipole, RuleOfThumbIsHalfOf468)
{
    const auto rules = findFamily("dipole")->rules({}, {"leg_m", "", 7.09e6});
    EXPECT_NEAR(rules[0].value / 0.3048, 234.0 / 7.09, 1e-9);
}

TEST(Dipole, InvertedVHangsAsAsked)
{
    const BuiltAntenna b = built(shapeOf("dipole", {{"apex_height_m", 13}, {"end_height_m", 8}, {"leg_m", 10}, {"bearing_deg", 60}}));
    const auto& p = b.model.wires[0].points;
    EXPECT_NEAR(distance(p[0], p[1]), 10.0, 1e-9);
    EXPECT_NEAR(distance(p[2], p[1]), 10.0, 1e-9);
    EXPECT_DOUBLE_EQ(p[0].z, 8.0);
    EXPECT_DOUBLE_EQ(p[1].z, 13.0);
    EXPECT_NEAR(std::atan2(p[0].x, p[0].y), radians(60), 1e-9);
    EXPECT_LT(norm(Vec3{p[0].x + p[2].x, p[0].y + p[2].y, 0}), 1e-9); // straight in plan
}

TEST(Dipole, SlopesWhenOneEndIsHigher)
{
    const BuiltAntenna b = built(shapeOf("dipole", {{"apex_height_m", 8}, {"end_height_m", 4}, {"second_end_m", 8}, {"leg_m", 10}}));
    EXPECT_DOUBLE_EQ(b.model.wires[0].points[2].z, 12.0);
    EXPECT_LT(norm(cross(b.model.wires[0].points[0] - b.feedPoint, b.model.wires[0].points[2] - b.feedPoint)), 1e-9);
}

TEST(Dipole, CannotHangLowerThanItIsLong)
{
    const auto result = buildOver(shapeOf("dipole", {{"apex_height_m", 30}, {"end_height_m", 5}, {"leg_m", 10}}), averageSoil);
    EXPECT_TRUE(mentions(result.faults(), "end_height_m", "raise the end"));
}

const Vec3 handleOf(const AntennaShape& shape, std::size_t handle)
{
    const auto built = buildOver(shape, {});
    EXPECT_TRUE(built.ok()) << built.firstFault();
    return built ? built->handles.at(handle).at : Vec3{};
}

void expectPlan(Vec3 p, double x, double y)
{
    EXPECT_NEAR(p.x, x, 1e-9);
    EXPECT_NEAR(p.y, y, 1e-9);
}

// A hook where the handle already is changes nothing; the wire keeps its length wherever it is hung.
TEST_P(EveryFamily, HangsFromAHookWithItsLengthKept)
{
    const Family& family = *findFamily(GetParam());
    const AntennaShape shape = family.standardShape(14.1e6);
    const auto wireOf = [](const AntennaShape& s) {
        double sum = 0.0;
        const auto built = buildOver(s, {});
        EXPECT_TRUE(built.ok()) << built.firstFault();
        for (const Wire& w : built ? built->model.wires : std::vector<Wire>())
            sum += w.length();
        return sum;
    };
    const std::size_t handles = buildOver(shape, {})->handles.size();
    for (std::size_t handle = 0; handle < handles; ++handle) {
        const AntennaShape hung = family.hung(shape, handle, {12.0, -7.0, 9.0});
        EXPECT_NEAR(wireOf(hung), wireOf(shape), 1e-9) << handle;
        const Vec3 before = handleOf(shape, handle), after = handleOf(hung, handle);
        EXPECT_LT(std::hypot(after.x - 12.0, after.y + 7.0), std::hypot(before.x - 12.0, before.y + 7.0)) << handle;
    }
}

TEST(Dipole, HangsItsApexFromAPole)
{
    const AntennaShape hung = dipoleFamily().hung(dipoleFamily().standardShape(14.1e6), 0, {5, 6, 9.0});
    const Vec3 apex = handleOf(hung, 0);
    expectPlan(apex, 5, 6);
    EXPECT_EQ(apex.z, 9.0);
    EXPECT_LT(handleOf(hung, 1).z, 9.0) << "no wire above its pole";
}

// The end lies on the straight line from the apex to the top of the tree: the rest is rope.
TEST(Dipole, TiesAnEndTowardsATree)
{
    AntennaShape shape = dipoleFamily().hung(dipoleFamily().standardShape(14.1e6), 0, {0, 0, 10.0});
    shape = dipoleFamily().hung(shape, 1, {12, 9, 4.0}); // 15 m away, 6 m lower
    const Vec3 end = handleOf(shape, 1), other = handleOf(shape, 2);
    const double leg = dipoleFamily().value(shape, "leg_m"), part = leg / std::hypot(15.0, 6.0);
    expectPlan(end, 12 * part, 9 * part);
    EXPECT_NEAR(end.z, 10.0 - 6.0 * part, 1e-9);
    EXPECT_NEAR(other.x * end.y - other.y * end.x, 0.0, 1e-9) << "the other leg stays in line";
    EXPECT_LT(other.x, 0.0);
}

// Tying the second end leaves the first where a tree holds it already.
TEST(Dipole, TiesBothEndsToDifferentTrees)
{
    Site site;
    site.supports = {{"mast", SupportKind::Pole, {0, 0}, 10.0, false, "m", {}},
                     {"north", SupportKind::Tree, {0, 18}, 5.0, false, "n", {}},
                     {"west", SupportKind::Tree, {-14.4, -10.8}, 7.0, false, "w", {}}};
    AntennaShape shape = dipoleFamily().standardShape(14.1e6);
    for (const auto& [handle, near] :
         {std::pair(0u, PlanPoint{0.3, 0.2}), std::pair(1u, PlanPoint{0.5, 17.8}), std::pair(2u, PlanPoint{-14.9, -11.2})}) {
        const Hung hung = hangAt(site, shape, handle, near, 1.0);
        ASSERT_TRUE(hung.support);
        shape = hung.shape;
    }
    const FitReport fit = fitOnSite(site, built(shape).model);
    EXPECT_TRUE(fit.warnings.empty()) << fit.warnings.front().message.english();
    const double leg = dipoleFamily().value(shape, "leg_m");
    std::vector<double> heights{handleOf(shape, 1).z, handleOf(shape, 2).z};
    std::sort(heights.begin(), heights.end());
    EXPECT_NEAR(heights[0], 10.0 - 5.0 * leg / std::hypot(18.0, 5.0), 1e-9);
    EXPECT_NEAR(heights[1], 10.0 - 3.0 * leg / std::hypot(18.0, 3.0), 1e-9);
    EXPECT_EQ(hangAt(site, shape, 1, {9, 9}, 1.0).support, nullptr);
}

TEST(Carried, WhatIsTiedToASupportFollowsItAndTheRestStays)
{
    Site site;
    site.supports = {{"mast", SupportKind::Pole, {0, 0}, 10.0, false, "m", {}}, {"tree", SupportKind::Tree, {12, 9}, 4.0, false, "t", {}}};
    AntennaShape shape = hangAt(site, dipoleFamily().standardShape(14.1e6), 0, {0, 0}, 1.0).shape;
    shape = hangAt(site, shape, 1, {12, 9}, 1.0).shape;

    Support tree = site.supports[1];
    tree.at = {9, -12};
    const AntennaShape turned = carried(site, tree, shape);
    EXPECT_NEAR(handleOf(turned, 1).x / handleOf(turned, 1).y, -0.75, 1e-9);
    EXPECT_NEAR(handleOf(turned, 1).z, handleOf(shape, 1).z, 1e-9);
    EXPECT_EQ(handleOf(turned, 0).z, 10.0);

    Support mast = site.supports[0];
    mast.at = {1, 2};
    mast.height = 12.0;
    const Vec3 apex = handleOf(carried(site, mast, shape), 0);
    expectPlan(apex, 1, 2);
    EXPECT_EQ(apex.z, 12.0);

    Support other{"other", SupportKind::Pole, {5, 5}, 9.0, false, "o", {}};
    site.supports.push_back(other);
    other.at = {6, 6};
    EXPECT_EQ(carried(site, other, shape), shape);
}

TEST(RopeHeight, IsOnTheLineToTheTopOrTheTopItself)
{
    EXPECT_DOUBLE_EQ(ropeHeight(10.0, 8.0, 4.0, 5.0), 7.0); // 10 away in all, half of it wire
    EXPECT_DOUBLE_EQ(ropeHeight(10.0, 4.0, 7.0, 20.0), 7.0);
    EXPECT_GT(ropeHeight(10.0, 0.0, 0.0, 5.0), 5.0) << "hangs straight down at most";
}

TEST(Bearing, OfADirection)
{
    EXPECT_DOUBLE_EQ(bearingTowards(0, 1), 0.0);
    EXPECT_DOUBLE_EQ(bearingTowards(1, 0), 90.0);
    EXPECT_DOUBLE_EQ(bearingTowards(-1, 0), 270.0);
}

// What lies between the links is the path less the one before it and the gap.
// Round a square: three corners, each side its own length and bearing, the last one what is left.
// Little winding inductance hurts the lowest frequencies, leakage the highest.
TEST(Vertical, RadialsLieEvenlyAround)
{
    const BuiltAntenna b =
        built(shapeOf("vertical", {{"radial_count", 5}, {"base_height_m", 0.02}, {"radial_end_height_m", 0.02}, {"radial_m", 7}}));
    ASSERT_EQ(b.model.wires.size(), 6u);
    Vec3 sum;
    for (std::size_t i = 1; i < 6; ++i)
        sum = sum + b.model.wires[i].points[1] - b.feedPoint;
    EXPECT_LT(norm(sum), 1e-9);
    EXPECT_EQ(b.sections[1].pieces, 5);
}

TEST(Vertical, RadialsMaySlope)
{
    const BuiltAntenna b =
        built(shapeOf("vertical", {{"radial_count", 3}, {"base_height_m", 5}, {"radial_end_height_m", 2}, {"radial_m", 6}}));
    EXPECT_NEAR(b.model.wires[1].points[1].z, 2.0, 1e-9);
    EXPECT_NEAR(b.model.wires[1].length(), 6.0, 1e-9);
    EXPECT_TRUE(mentions(buildOver(shapeOf("vertical", {{"base_height_m", 20}, {"radial_m", 6}}), averageSoil).faults(),
                         "radial_end_height_m", "raise their ends"));
}

// Sides, base and height from plane geometry: equilateral 14.245 m round has sides of 4.748 m and 4.112 m of height.
TEST(DeltaLoop, HasTheSidesOfItsTriangle)
{
    const BuiltAntenna b = built(shapeOf("delta-loop", {{"perimeter_m", 14.24528302}, {"apex_deg", 60}, {"base_height_m", 3}}, 21.2e6));
    const auto& p = b.model.wires[0].points;
    EXPECT_NEAR(distance(p[0], p[1]), 4.748427673, 1e-7);
    EXPECT_NEAR(distance(p[1], p[2]), 4.748427673, 1e-7);
    EXPECT_NEAR(p[2].z - p[0].z, 4.112258993, 1e-7);
}

// 120 degrees at the point: sides 22.487 m, base 38.949 m, 11.244 m high, of 83.924 m of wire.
TEST(DeltaLoop, IsoscelesToo)
{
    const BuiltAntenna b = built(shapeOf("delta-loop", {{"perimeter_m", 83.92438356}, {"apex_deg", 120}, {"point", 1}}, 3.65e6));
    const auto& p = b.model.wires[0].points;
    EXPECT_NEAR(distance(p[0], p[1]), 38.94944196, 1e-6);
    EXPECT_NEAR(p[0].z - p[2].z, 11.2437354, 1e-6); // point down
    EXPECT_NEAR(b.model.wires[0].length(), 83.92438356, 1e-9);
}

TEST(DeltaLoop, IsFedWhereAsked)
{
    const double perimeter = 17.0;
    for (int place = 0; place < 4; ++place) {
        const BuiltAntenna b = built(shapeOf("delta-loop", {{"perimeter_m", perimeter}, {"feed_place", double(place)}}, 18.1e6));
        const auto& p = b.model.wires[0].points;
        const Vec3 expected[] = {p[1], 0.5 * (p[0] + p[1]), p[2], p[2] + 0.25 * perimeter * unit(p[1] - p[2])};
        EXPECT_LT(distance(b.feedPoint, expected[place]), 1e-6) << place;
    }
}

// Each pair works on its own band: a resonance near each, near 50 to 100 ohm.
// Three and more pairs act so strongly on one another that the phase at the rule's length points the wrong way.
TEST(PartWires, ThickenOnlyTheirPart)
{
    AntennaShape shape = shapeOf("vertical", {});
    shape.partWires["radiator"] = shape.wire;
    shape.partWires["radiator"].diameter = 0.03;
    const BuiltAntenna b = built(shape);
    EXPECT_DOUBLE_EQ(b.model.wires[0].radius, 0.015);
    EXPECT_DOUBLE_EQ(b.model.wires[1].radius, 1e-3);
    shape.partWires["radiator"].diameter = 2.0;
    EXPECT_TRUE(mentions(buildOver(shape, averageSoil).faults(), "wires.radiator.diameter_m", "outside"));
}

TEST(UnknownFamily, IsRefusedInWordsAndHasNoParameters)
{
    AntennaShape shape;
    shape.family = "rhombic";
    EXPECT_TRUE(familyOf(shape).tuned(shape).empty());
    EXPECT_TRUE(mentions(buildOver(shape, averageSoil).faults(), "family", "'rhombic'"));
}

// A new antenna can be built at any frequency that is planned for, and has its usual electrical size.
TEST_P(EveryFamily, StandsAtAnyFrequency)
{
    for (double f : {0.14e6, 1.85e6, 50.1e6, 145e6, 433e6, 1.296e9}) {
        const auto result = buildOver(family().standardShape(f), averageSoil);
        ASSERT_TRUE(result.ok()) << f << result.firstFault();
        if (result->notCut > 0.0)
            continue; // a vehicle is as large as it is
        const double waves = result->model.totalLength() / wavelength(f);
        EXPECT_GT(waves, 0.2) << f;
        EXPECT_LT(waves, 3.0) << f;
    }
}

TEST(LoadedDipole, CoilsSitOutAlongEachArm)
{
    const BuiltAntenna b =
        built(shapeOf("loaded-dipole", {{"leg_m", 5}, {"coil_place_percent", 40}, {"inductance_H", 7e-6}, {"coil_q", 200}}));
    ASSERT_EQ(b.coils.size(), 2u);
    for (const CoilPlace& coil : b.coils) {
        EXPECT_NEAR(distance(coil.at, b.feedPoint), 2.0, 1e-9);
        EXPECT_NEAR(norm(coil.along), 1.0, 1e-9);
    }
    ASSERT_EQ(b.model.loads.size(), 2u);
    EXPECT_EQ(b.model.loads[0].inductance, 7e-6);
    EXPECT_EQ(b.sections.size(), 2u);
}

TEST(LoadedDipole, CoilsAtTheFeedLeaveOneSection)
{
    EXPECT_EQ(built(shapeOf("loaded-dipole", {{"coil_place_percent", 0}})).sections.size(), 1u);
}

// A shorter dipole needs a larger coil.
TEST(LoadedDipole, RuleGrowsAsTheWireShrinks)
{
    const Family& family = *findFamily("loaded-dipole");
    double before = 0.0;
    for (double leg : {9.0, 7.0, 5.0, 3.5}) {
        const double henry = family.rules(shapeOf("loaded-dipole", {{"leg_m", leg}}), {"inductance_H", "", 7.1e6}).front().value;
        EXPECT_GT(henry, before);
        before = henry;
    }
}

} // namespace
} // namespace vetchling::shapes
