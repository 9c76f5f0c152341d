#include "core/em/sensitivity.h"

#include "tests/core/helpers.h"

namespace vetchling::em {
namespace {

using namespace testing;

constexpr double sensitivityHz = 14.1e6;

/// A bent wire with a coil over soil: every sensitivity is there.
WireModel bentWire()
{
    WireModel model = fedWire({{-6, 0, 3}, {0, 1, 6}, {5, 0, 4}}, 4.0, averageSoil);
    model.wires[0].conductivity = 5.8e7;
    model.loads.push_back({0, 8.0, LoadKind::Series, 3.0, 2e-6, 0.0, 200.0});
    return model;
}

class Sensitivity : public ::testing::Test {
protected:
    Complex difference(double step, const std::function<void(WireModel&, double)>& change)
    {
        WireModel lower = bentWire(), upper = bentWire();
        change(lower, -step);
        change(upper, step);
        return (solved(upper, sensitivityHz, tables).impedance - solved(lower, sensitivityHz, tables).impedance) / (2.0 * step);
    }

    GroundTableCache tables;
    Solution solution = solved(bentWire(), sensitivityHz, tables);
    Sensitivities s = *sensitivities(solution, tables);
};

TEST_F(Sensitivity, ToTheFreeEnds)
{
    ASSERT_EQ(s.ends.size(), 2u);
    const Complex last = difference(0.02, [](WireModel& m, double d) {
        Vec3& end = m.wires[0].points.back();
        end = end + d * unit(end - m.wires[0].points[1]);
    });
    EXPECT_LT(relative(s.ends[1].perMetre, last), 0.02);
    const Complex first = difference(0.02, [](WireModel& m, double d) {
        Vec3& end = m.wires[0].points.front();
        end = end + d * unit(end - m.wires[0].points[1]);
        m.feeds[0].at += d;
        m.loads[0].at += d;
    });
    EXPECT_LT(relative(s.ends[0].perMetre, first), 0.02);
}

TEST_F(Sensitivity, IsThatAtTheLineBehindATransformer)
{
    const auto behind = [](WireModel model) {
        model.feeds[0].transformer = Transformer{4.0, 1e-7, 5e-6, 300.0};
        return model;
    };
    const auto raised = [&](double d) {
        WireModel model = behind(bentWire());
        for (Vec3& p : model.wires[0].points)
            p.z += d;
        return solved(model, sensitivityHz, tables).impedance;
    };
    const Solution here = solved(behind(bentWire()), sensitivityHz, tables);
    EXPECT_LT(relative(sensitivities(here, tables)->perHeight, (raised(0.05) - raised(-0.05)) / 0.1), 0.02);
}

// A stub sits at its place on the wire; when the wire's first end is drawn out it stays there.
TEST_F(Sensitivity, LinesKeepTheirPlaceWhenAnEndMoves)
{
    const auto withStub = [](double longer) {
        WireModel model = bentWire();
        LineSection stub;
        stub.fromAt = 6.5 + longer;
        stub.end = LineEnd::Open;
        stub.length = 2.0;
        model.lines.push_back(stub);
        Vec3& end = model.wires[0].points.front();
        end = end + longer * unit(end - model.wires[0].points[1]);
        model.feeds[0].at += longer;
        model.loads[0].at += longer;
        return model;
    };
    const Solution here = solved(withStub(0.0), sensitivityHz, tables);
    const Complex expected = (solved(withStub(0.02), sensitivityHz, tables).impedance - solved(withStub(-0.02), sensitivityHz, tables).impedance) / 0.04;
    EXPECT_LT(relative(sensitivities(here, tables)->ends[0].perMetre, expected), 0.02);
}

TEST_F(Sensitivity, ToTheHeight)
{
    const Complex raised = difference(0.05, [](WireModel& m, double d) {
        for (Vec3& p : m.wires[0].points)
            p.z += d;
    });
    EXPECT_LT(relative(s.perHeight, raised), 0.02);
}

TEST_F(Sensitivity, ToTheRadius)
{
    const Complex thicker = difference(0.02, [](WireModel& m, double part) { m.wires[0].radius *= 1.0 + part; });
    EXPECT_LT(relative(s.perRadius, thicker), 0.05); // the mesh of the compared solves follows the radius
}

TEST_F(Sensitivity, ToTheSoil)
{
    EXPECT_LT(relative(s.perPermittivity, difference(0.02, [](WireModel& m, double p) { m.ground.relativePermittivity *= 1.0 + p; })),
              0.01);
    EXPECT_LT(relative(s.perConductivity, difference(0.02, [](WireModel& m, double p) { m.ground.conductivity *= 1.0 + p; })), 0.01);
}

TEST_F(Sensitivity, ToALoad)
{
    const Complex ohm = difference(0.1, [](WireModel& m, double r) { m.loads[0].resistance += r; });
    EXPECT_LT(relative(s.perLoad[0], ohm), 1e-3);
}

TEST_F(Sensitivity, OtherWiresAreRefusedInWords)
{
    WireModel other = bentWire();
    other.wires[0].points.push_back({9, 0, 4});
    const auto change = impedanceChange(solution, bentWire(), other, tables);
    ASSERT_FALSE(change);
    EXPECT_NE(change.firstFault().find("other wires"), std::string::npos);
}

TEST(SensitivityLimits, NothingOfTheGroundMattersInFreeSpace)
{
    GroundTableCache tables;
    const auto s = sensitivities(solved(dipole(10, 0), sensitivityHz, tables), tables);
    ASSERT_TRUE(s);
    EXPECT_EQ(s->perHeight, Complex{});
    EXPECT_EQ(s->perPermittivity, Complex{});
    // both halves of a dipole answer alike, and a longer one is more inductive
    EXPECT_LT(relative(s->ends[0].perMetre, s->ends[1].perMetre), 1e-6);
    EXPECT_GT(s->ends[0].perMetre.imag(), 0.0);
}

} // namespace
} // namespace vetchling::em
