/// The error that goes with an impedance against a much finer mesh, on random antennas of every shape.

#include "tests/core/helpers.h"
#include "tests/validation/random_antennas.h"

#include <oneapi/tbb/parallel_for.h>

#include <mutex>

namespace vetchling::em {
namespace {

TEST(ErrorEstimate, HoldsInNineOfTenRandomAntennas)
{
    constexpr unsigned first = 1000, count = 100;
    GroundTableCache tables(20);
    std::mutex mutex;
    int honest = 0, withinOne = 0;
    tbb::parallel_for(first, first + count, [&](unsigned seed) {
        const testing::RandomAntenna antenna = testing::randomAntenna(seed);
        const auto model = std::make_shared<const WireModel>(antenna.model);
        SolveOptions usual, fine;
        usual.wantedErrorPercent = usualErrorPercent;
        fine.mesh.degree = 5;
        fine.mesh.elementsPerWavelength = 5.0;
        fine.mesh.fineness = 16.0;
        const auto answer = solve(model, antenna.frequency, tables, usual), truth = solve(model, antenna.frequency, tables, fine);
        const std::lock_guard lock(mutex);
        ASSERT_TRUE(answer && truth) << seed << antenna.kind;
        const double error = 100.0 * std::abs(answer->impedance - truth->impedance) / std::abs(truth->impedance);
        honest += error <= answer->impedanceErrorPercent;
        withinOne += error <= 1.0;
    });
    EXPECT_GE(honest, int(0.9 * count));
    EXPECT_GE(withinOne, int(0.95 * count));
}

} // namespace
} // namespace vetchling::em
