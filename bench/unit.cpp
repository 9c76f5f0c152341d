#include "bench/unit.h"

#include <cblas.h>
#include <lapacke.h>

#include <chrono>
#include <complex>
#include <random>
#include <vector>

namespace vetchling::bench {
namespace {

constexpr int unknowns = 500;

struct Problem {
    std::vector<std::complex<double>> matrix, rhs;
    Problem() : matrix(unknowns * unknowns), rhs(unknowns)
    {
        std::mt19937 random(1);
        std::normal_distribution<double> normal;
        for (auto& v : matrix)
            v = {normal(random), normal(random)};
        for (auto& v : rhs)
            v = {normal(random), 0.0};
    }
};

} // namespace

double unitMilliseconds()
{
    static const Problem problem;
    openblas_set_num_threads(1);
    std::vector<std::complex<double>> a = problem.matrix, b = problem.rhs;
    std::vector<lapack_int> pivots(unknowns);
    const auto start = std::chrono::steady_clock::now();
    LAPACKE_zgesv(LAPACK_COL_MAJOR, unknowns, 1, reinterpret_cast<lapack_complex_double*>(a.data()), unknowns, pivots.data(),
                  reinterpret_cast<lapack_complex_double*>(b.data()), unknowns);
    return std::chrono::duration<double, std::milli>(std::chrono::steady_clock::now() - start).count();
}

} // namespace vetchling::bench
