/// The error that goes with an impedance against a much finer mesh, on random antennas of every shape.

#include "core/shapes/family.h"
#include "tests/core/helpers.h"
#include "tests/long_form.h"
#include "tests/validation/random_antennas.h"

#include <oneapi/tbb/parallel_for.h>

#include <functional>
#include <mutex>

namespace vetchling::em {
namespace {

struct Honesty {
    int honest = 0, withinOne = 0; ///< antennas whose error is below their estimate, and below 1 %
};

/// Usual answers to random antennas beside those of a much finer mesh. @param look at each answer, several at a time
Honesty judged(testing::RandomAntenna (*antennaOf)(unsigned seed), unsigned first, unsigned count, double fineness,
               const std::function<void(const testing::RandomAntenna&, const Solution&, GroundTableCache&)>& look = {})
{
    GroundTableCache tables(20);
    std::mutex mutex;
    Honesty out;
    tbb::parallel_for(first, first + count, [&](unsigned seed) {
        const testing::RandomAntenna antenna = antennaOf(seed);
        const auto model = std::make_shared<const WireModel>(antenna.model);
        SolveOptions usual, fine;
        usual.wantedErrorPercent = usualErrorPercent;
        fine.mesh.degree = 5;
        fine.mesh.elementsPerWavelength = 5.0;
        fine.mesh.fineness = fineness;
        const auto answer = solve(model, antenna.frequency, tables, usual), truth = solve(model, antenna.frequency, tables, fine);
        ASSERT_TRUE(answer && truth) << seed << antenna.kind;
        if (look) // without the lock: it may work in parallel itself and be given another antenna meanwhile
            look(antenna, *answer, tables);
        const std::lock_guard lock(mutex);
        const double error = 100.0 * std::abs(answer->impedance - truth->impedance) / std::abs(truth->impedance);
        out.honest += error <= answer->impedanceErrorPercent;
        out.withinOne += error <= 1.0;
    });
    return out;
}

TEST(ErrorEstimate, HoldsInNineOfTenRandomAntennas)
{
    constexpr unsigned count = 100;
    const Honesty found = judged(testing::randomAntenna, 1000, count, 16.0);
    EXPECT_GE(found.honest, int(0.9 * count));
    EXPECT_GE(found.withinOne, int(0.95 * count));
}

// Sky, soil, wire, loads and transformer, each by its own integral. The last seeds are a tube of 0.019 wavelength radius,
// which sends out less than a current on its axis would, and a steep wire of a wavelength over wet soil.
TEST(PowerBalance, HoldsForRandomAntennasOfEveryShape)
{
    std::vector<unsigned> seeds{108, 298};
    for (unsigned seed = 2000; seed < testing::many(2030u, 2080u); ++seed)
        seeds.push_back(seed);
    GroundTableCache tables(20);
    std::mutex mutex;
    tbb::parallel_for(std::size_t(0), seeds.size(), [&](std::size_t i) {
        const testing::RandomAntenna antenna = testing::randomAntenna(seeds[i]);
        const auto solution = solve(std::make_shared<const WireModel>(antenna.model), antenna.frequency, tables);
        const auto ledger = powerLedger(*solution, tables);
        const std::lock_guard lock(mutex);
        EXPECT_NEAR(ledger->sum(), 1.0, 0.003) << seeds[i] << antenna.kind; // 0.12 % at worst over 600
    });
}

TEST(BuriedErrorEstimate, HoldsInNineOfTenRandomAntennas)
{
    const unsigned count = testing::many(20u, 60u);
    const auto balanced = [](const testing::RandomAntenna& antenna, const Solution& answer, GroundTableCache& tables) {
        EXPECT_NEAR(powerLedger(answer, tables)->sum(), 1.0, 0.003) << antenna.kind;
    };
    const Honesty found = judged(testing::randomBuried, 0, count, 8.0, balanced);
    EXPECT_GE(found.honest, int(0.9 * count));
    EXPECT_GE(found.withinOne, int(0.95 * count));
}

// Of one solution, beside another one whose voltage really acts over twice the gap.
TEST(GapEstimate, IsWhatATwiceWiderGapDoes)
{
    GroundTableCache tables(20);
    int seen = 0;
    for (const char* family : {"dipole", "vertical", "end-fed", "end-fed-tail", "long-wire", "rod-dipole", "mobile-whip", "delta-loop"})
        for (double frequency : {7.1e6, 145e6}) {
            const shapes::AntennaShape shape = shapes::findFamily(family)->standardShape(frequency);
            const auto built = shapes::buildOver(shape, testing::averageSoil);
            ASSERT_TRUE(built.ok()) << family << built.firstFault();
            const auto model = std::make_shared<const WireModel>(built->model);
            for (double times : {1.0, 2.0, 3.0}) {
                SolveOptions usual, wider;
                wider.mesh.gapInRadii = 2.0 * usual.mesh.gapInRadii;
                const auto one = solve(model, times * frequency, tables, usual), two = solve(model, times * frequency, tables, wider);
                ASSERT_TRUE(one && two);
                const double really = 100.0 * std::abs(two->impedance - one->impedance) / std::abs(one->impedance);
                EXPECT_NEAR(one->gapErrorPercent, really, 0.5 * really + 0.01) << family << ' ' << frequency << ' ' << times;
                EXPECT_GT(one->impedanceErrorPercent, one->gapErrorPercent);
                seen += really > 0.05;
            }
        }
    EXPECT_GT(seen, 5) << "else nothing was compared";
}

} // namespace
} // namespace vetchling::em
