#include "core/em/nested_solve.h"

#include <gtest/gtest.h>

#include <cmath>
#include <random>

namespace vetchling::em {
namespace {

struct System {
    Matrix matrix;
    std::vector<Complex> rhs, port;
    int size;
};

/// Symmetric, complex and well behaved, as a Galerkin system is.
System randomSystem(int size)
{
    std::mt19937 random(7);
    std::uniform_real_distribution<double> any(-1.0, 1.0);
    System s{Matrix(std::size_t(size) * size), std::vector<Complex>(size), std::vector<Complex>(size), size};
    for (int i = 0; i < size; ++i) {
        for (int j = i; j < size; ++j)
            s.matrix[i * size + j] = s.matrix[j * size + i] = Complex{any(random), any(random)} + (i == j ? Complex{2.0, -9.0} : Complex{});
        s.rhs[i] = {any(random), any(random)};
        s.port[i] = any(random);
    }
    return s;
}

double residual(const System& s, const std::vector<Complex>& x)
{
    double worst = 0.0;
    for (int i = 0; i < s.size; ++i) {
        Complex sum = -s.rhs[i];
        for (int j = 0; j < s.size; ++j)
            sum += s.matrix[i * s.size + j] * x[j];
        worst = std::max(worst, std::abs(sum));
    }
    return worst;
}

System cutOff(const System& s, int size)
{
    System out{Matrix(std::size_t(size) * size), {s.rhs.begin(), s.rhs.begin() + size}, {s.port.begin(), s.port.begin() + size}, size};
    for (int i = 0; i < size; ++i)
        for (int j = 0; j < size; ++j)
            out.matrix[i * size + j] = s.matrix[i * s.size + j];
    return out;
}

TEST(NestedSolve, SolvesTheWholeSystem)
{
    for (const std::vector<int>& levels : {std::vector<int>{0}, {0, 10}, {0, 3, 17, 40}, {0, 200, 420}}) {
        const System s = randomSystem(std::max(60, levels.back() + 30));
        Matrix matrix = s.matrix;
        EXPECT_LT(residual(s, nestedSolve(matrix, levels, s.rhs, s.port).unknowns), 1e-11);
    }
}

TEST(NestedSolve, PortOfEachLevelIsThatOfTheSystemCutOffThere)
{
    const System s = randomSystem(60);
    const std::vector<int> levels{0, 12, 30};
    Matrix matrix = s.matrix;
    const NestedSolution nested = nestedSolve(matrix, levels, s.rhs, s.port);
    ASSERT_EQ(nested.portByLevel.size(), 3u);
    for (std::size_t l = 0; l < 3; ++l) {
        const System part = cutOff(s, l + 1 < 3 ? levels[l + 1] : 60);
        Matrix own = part.matrix;
        const std::vector<Complex> x = nestedSolve(own, {0}, part.rhs, part.port).unknowns;
        Complex port = 0.0;
        for (int i = 0; i < part.size; ++i)
            port += part.port[i] * x[i];
        EXPECT_LT(std::abs(nested.portByLevel[l] - port), 1e-12);
    }
}

TEST(NestedSolve, EmptyLevelsAreSkipped)
{
    const System s = randomSystem(20);
    Matrix matrix = s.matrix;
    const NestedSolution nested = nestedSolve(matrix, {0, 0, 20}, s.rhs, s.port);
    EXPECT_EQ(nested.portByLevel.size(), 3u);
    EXPECT_EQ(nested.portByLevel[0], Complex{});
    EXPECT_LT(residual(s, nested.unknowns), 1e-11);
}

TEST(NestedSolve, SingularSystemHasNoSolution)
{
    Matrix zero(9);
    EXPECT_TRUE(nestedSolve(zero, {0}, {1, 1, 1}, {1, 0, 0}).unknowns.empty());
}

TEST(NestedSolve, AsksNoFurtherOnceToldToStop)
{
    const System s = randomSystem(450);
    Matrix matrix = s.matrix;
    int asked = 0;
    const Watch watch([&] { return ++asked >= 3; });
    EXPECT_TRUE(nestedSolve(matrix, {0, 200}, s.rhs, s.port, watch).unknowns.empty());
    EXPECT_EQ(asked, 3);
}

} // namespace
} // namespace vetchling::em
