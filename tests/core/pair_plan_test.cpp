/// A plan made for the highest frequency gives the matrix of any lower one.

#include "core/em/pair_plan.h"
#include "core/em/solver.h"
#include "core/em/system.h"

#include "core/em/gauss.h"
#include "tests/core/helpers.h"
#include "tests/validation/random_antennas.h"

namespace vetchling::em {
namespace {

using namespace vetchling::testing;

/// Largest difference of two matrices, relative to the largest entry.
double difference(const Matrix& a, const Matrix& b)
{
    double worst = 0.0, largest = 0.0;
    for (std::size_t i = 0; i < a.size(); ++i)
        worst = std::max(worst, std::abs(a[i] - b[i])), largest = std::max(largest, std::abs(b[i]));
    return worst / largest;
}

class AnyAntenna : public ::testing::TestWithParam<int> {};

TEST_P(AnyAntenna, HasTheSameMatrixByPlan)
{
    const RandomAntenna antenna = randomAntenna(unsigned(GetParam()));
    const PairPlan plan(makeMesh(antenna.model, antenna.frequency), antenna.model, antenna.frequency);
    GroundTableCache tables;
    for (double part : {1.0, 0.5, 0.06}) {
        MeshOptions same;
        same.meshFrequency = antenna.frequency;
        const Mesh mesh = makeMesh(antenna.model, part * antenna.frequency, same);
        const auto byPlan = systemMatrix(mesh, antenna.model, tables, {}, &plan), alone = systemMatrix(mesh, antenna.model, tables);
        EXPECT_LT(difference(*byPlan, *alone), 1e-6) << antenna.kind << part;
    }
}

INSTANTIATE_TEST_SUITE_P(Random, AnyAntenna, ::testing::Range(300, 308));

// Far pairs, whose series starts at their distance, against plain quadrature of the kernel itself.
TEST(MomentSeries, OfAFarPairIsTheIntegralOfTheKernel)
{
    Element m, n;
    m.start = {0, 0, 0}, m.end = {2, 0, 1};
    n.start = {5, 3, 0}, n.end = {7, 3.5, 2};
    for (Element* e : {&m, &n})
        e->length = distance(e->start, e->end), e->tangent = unit(e->end - e->start), e->radius = 1e-3;
    const double highest = 0.6; // the elements are a fifth of that wavelength
    const MomentSeries series(m, n, highest, 4);
    const GaussRule& rule = gaussRule(24);
    for (double k : {highest, 0.1, 1e-4}) {
        Moments moments;
        series.at(k, moments);
        for (int i : {0, 2, 4})
            for (int j : {0, 1, 3}) {
                Complex sum = 0.0;
                for (std::size_t a = 0; a < rule.node.size(); ++a)
                    for (std::size_t b = 0; b < rule.node.size(); ++b) {
                        const double r = distance(m.at(rule.node[a]), n.at(rule.node[b]));
                        sum += rule.weight[a] * rule.weight[b] * std::legendre(unsigned(i), rule.node[a]) *
                               std::legendre(unsigned(j), rule.node[b]) * std::polar(1.0 / r, -k * r);
                    }
                EXPECT_LT(std::abs(moments.value[i][j] - sum), 1e-7) << k << i << j;
            }
    }
}

// 2026-11: with a plan that a stop had left half made, and the reason for the stop gone, the solve went on and answered.
TEST(PreparedModel, OneThatWasStoppedWhileItWasMadeAnswersNothing)
{
    const auto model = std::make_shared<const WireModel>(dipole(10.0, 5.0, averageSoil));
    const MeshOptions mesh{.meshFrequency = 14e6};
    GroundTableCache tables;
    std::atomic<long> looks{0};
    long at = -1;
    const auto once = [&] { return Watch([&] { return looks++ == at; }); }; // asked to stop at one look, and at no other
    ASSERT_TRUE(PreparedModel(model, mesh, 15e6, once()).solve(14e6, tables).ok());
    const long all = looks;
    ASSERT_GT(all, 10);
    for (at = 0; at < all; ++at) {
        looks = 0;
        EXPECT_FALSE(PreparedModel(model, mesh, 15e6, once()).solve(14e6, tables).ok()) << at;
    }
}

TEST(PreparedModel, AnswersAsASolveOfTheSameMesh)
{
    const auto model = std::make_shared<const WireModel>(dipole(20.0, 6.0, averageSoil));
    MeshOptions mesh;
    mesh.meshFrequency = 20e6;
    const PreparedModel prepared(model, mesh, 30e6);
    GroundTableCache tables;
    SolveOptions options;
    options.mesh = mesh;
    for (double f : {1.9e6, 7.1e6, 30e6}) {
        const auto here = prepared.solve(f, tables);
        const auto alone = solve(model, f, tables, options);
        EXPECT_LT(relative(here->impedance, alone->impedance), 1e-5) << f;
        EXPECT_NEAR(here->impedanceErrorPercent, alone->impedanceErrorPercent, 0.01);
    }
}

} // namespace
} // namespace vetchling::em
