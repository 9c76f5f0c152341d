#include "core/em/near_field.h"

#include "core/em/gauss.h"
#include "tests/core/helpers.h"

namespace vetchling::em {
namespace {

using namespace testing;

constexpr double nearFieldHz = 14.1e6;

/// Power that leaves a box through all six faces, W.
double outflow(const NearField& field, Vec3 low, Vec3 high)
{
    const GaussRule& rule = gaussRule(12);
    double sum = 0.0;
    const double lows[]{low.x, low.y, low.z}, highs[]{high.x, high.y, high.z};
    for (int axis = 0; axis < 3; ++axis)
        for (bool upper : {false, true})
            for (std::size_t i = 0; i < rule.node.size(); ++i)
                for (std::size_t j = 0; j < rule.node.size(); ++j) {
                    const int a = (axis + 1) % 3, b = (axis + 2) % 3;
                    double p[3];
                    p[axis] = upper ? highs[axis] : lows[axis];
                    p[a] = 0.5 * (lows[a] + highs[a]) + 0.5 * (highs[a] - lows[a]) * rule.node[i];
                    p[b] = 0.5 * (lows[b] + highs[b]) + 0.5 * (highs[b] - lows[b]) * rule.node[j];
                    const auto here = field.at({p[0], p[1], p[2]});
                    EXPECT_TRUE(here) << here.firstFault();
                    const double area = 0.25 * (highs[a] - lows[a]) * (highs[b] - lows[b]) * rule.weight[i] * rule.weight[j];
                    sum += (upper ? 1.0 : -1.0) * area * here->powerFlow()[axis];
                }
    return sum;
}

// Whatever the ground, a box around the antenna is left by the power that its currents give away.
TEST(NearField, PowerThroughABoxIsThePowerFedIn)
{
    for (const Ground& ground : {freeSpace, perfectGround, averageSoil, Ground{GroundKind::Real, 81.0, 5.0}}) {
        GroundTableCache tables;
        const Solution s = solved(fedWire({{-5, 0, 5}, {0, 1, 8}, {5, 0, 6}}, 5.0, ground), nearFieldHz, tables);
        const NearField field(s, tables);
        EXPECT_NEAR(outflow(field, {-9, -4, 2.5}, {9, 5, 12}) / s.inputPower, 1.0, 0.01) << int(ground.kind);
    }
}

// Down through the ground goes what the ledger calls soil, up what it calls sky.
TEST(NearField, FlowIntoTheSoilIsTheLedgersSoil)
{
    GroundTableCache tables;
    const Solution s = solved(dipole(10, 3, averageSoil), nearFieldHz, tables);
    const NearField field(s, tables);
    const PowerLedger ledger = ledgerOf(s);
    const GaussRule& rule = gaussRule(40);
    double down = 0.0;
    constexpr double half = 60.0; // m; what enters farther out is little
    for (std::size_t i = 0; i < rule.node.size(); ++i)
        for (std::size_t j = 0; j < rule.node.size(); ++j) {
            const double x = half * std::pow(rule.node[i], 3.0), y = half * std::pow(rule.node[j], 3.0);
            const double slope = 9.0 * half * half * std::pow(rule.node[i] * rule.node[j], 2.0);
            down -= rule.weight[i] * rule.weight[j] * slope * field.at({x, y, 0.05})->powerFlow()[2];
        }
    EXPECT_NEAR(down / s.inputPower, ledger.soil, 0.03);
    EXPECT_GT(ledger.soil, 0.2);
}

TEST(NearField, FarAwayItIsTheFarField)
{
    for (const Ground& ground : {freeSpace, averageSoil}) {
        GroundTableCache tables;
        const Solution s = solved(dipole(10, 6, ground), nearFieldHz, tables);
        const NearField field(s, tables);
        const double r = 1500.0, elevation = 0.6;
        const auto there = field.at({0, r * std::cos(elevation), 6.0 * (ground.kind == GroundKind::FreeSpace) + r * std::sin(elevation)});
        ASSERT_TRUE(there) << there.firstFault();
        const double expected = std::sqrt(FarField(s).intensity(elevation, 0.5 * pi).total() * waveImpedance) / r; // rms
        EXPECT_NEAR(there->electric() / expected, 1.0, 0.01);
        EXPECT_NEAR(there->electric() / there->magnetic() / waveImpedance, 1.0, 0.01);
    }
}

TEST(NearField, NoTangentialFieldOnPerfectGround)
{
    GroundTableCache tables;
    const Solution s = solved(fedWire({{-5, 0, 2}, {5, 0, 6}}, 5.0, perfectGround), nearFieldHz, tables);
    const auto there = NearField(s, tables).at({3, 4, 0});
    ASSERT_TRUE(there);
    EXPECT_LT(std::abs(there->e[0]) + std::abs(there->e[1]), 1e-9 * std::abs(there->e[2]));
    EXPECT_LT(std::abs(there->h[2]), 1e-9 * std::abs(there->h[0]));
}

// Both sides of the surface differ: the normal field jumps, the tangential does not, so near soil of metal it is small.
TEST(NearField, SoilOfMetalShortsTheTangentialField)
{
    GroundTableCache tables;
    const Ground metal{GroundKind::Real, 1.0, 1e6};
    const Solution s = solved(dipole(10, 4, metal), nearFieldHz, tables);
    const auto low = NearField(s, tables).at({2, 3, 0.01}), high = NearField(s, tables).at({2, 3, 2.0});
    ASSERT_TRUE(low && high);
    EXPECT_LT(std::abs(low->e[0]), 0.03 * std::abs(high->e[0]));
}

TEST(NearField, RefusesInWordsWhatItCannotSay)
{
    GroundTableCache tables;
    const NearField field(solved(dipole(10, 4, averageSoil), nearFieldHz, tables), tables);
    EXPECT_NE(field.at({0, 0, -1}).firstFault().find("above the ground"), std::string::npos);
    EXPECT_NE(field.at({1, 0, 4.001}).firstFault().find("three radii"), std::string::npos) << field.at({1, 0, 4.001}).firstFault();
    EXPECT_NE(field.at({1e5, 0, 4}).firstFault().find("wavelengths"), std::string::npos);
}

} // namespace
} // namespace vetchling::em
