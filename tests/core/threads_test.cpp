/// Solves from several threads at once, as the window and its background work make them. Run by `./dev check threads` too.

#include "core/em/sweep.h"
#include "tests/core/helpers.h"

#include <oneapi/tbb/global_control.h>

#include <atomic>
#include <thread>

namespace vetchling::em {
namespace {

using namespace testing;

#ifdef __SANITIZE_THREAD__
/// The checker does not see the locks inside the task library: under it each thread of this program works alone within itself.
const oneapi::tbb::global_control alone{oneapi::tbb::global_control::max_allowed_parallelism, 1};
#endif

TEST(Threads, SolvesThatShareTablesAgreeWithOneAlone)
{
    constexpr double f = 14.1e6;
    const auto impedance = [&](int i, GroundTableCache& tables) {
        const auto model = std::make_shared<const WireModel>(dipole(10.0, 3.0 + i % 4, averageSoil));
        return solve(model, f + 1e5 * (i % 3), tables)->impedance;
    };
    GroundTableCache shared(2); // smaller than what is asked for, so that tables come and go
    std::vector<Complex> together(24);
    std::vector<std::thread> threads;
    for (int t = 0; t < 4; ++t)
        threads.emplace_back([&, t] {
            for (int i = t; i < 24; i += 4)
                together[std::size_t(i)] = impedance(i, shared);
        });
    for (std::thread& thread : threads)
        thread.join();
    GroundTableCache own;
    for (int i = 0; i < 24; ++i)
        EXPECT_LT(relative(together[std::size_t(i)], impedance(i, own)), 1e-12) << i;
}

TEST(Threads, OneMeshIsSolvedAtManyFrequenciesAtOnce)
{
    const auto model = std::make_shared<const WireModel>(dipole(20.0, 6.0, averageSoil));
    const auto frequency = [](int i) { return 4e6 + 1.1e6 * i; };
    MeshOptions mesh;
    mesh.meshFrequency = 20e6;
    const PreparedModel prepared(model, mesh, 30e6);
    GroundTableCache shared, own;
    std::vector<Complex> together(16);
    std::vector<std::thread> threads;
    for (int t = 0; t < 4; ++t)
        threads.emplace_back([&, t] {
            for (int i = t; i < 16; i += 4)
                together[std::size_t(i)] = prepared.solve(frequency(i), shared)->impedance;
        });
    for (std::thread& thread : threads)
        thread.join();
    for (int i = 0; i < 16; ++i)
        EXPECT_LT(relative(together[std::size_t(i)], prepared.solve(frequency(i), own)->impedance), 1e-12) << i;
}

TEST(Threads, ASweepIsStoppedFromOutsideWhileAnotherGoesOn)
{
    GroundTableCache tables;
    SweepOptions options{1.8e6, 30e6};
    options.from = 13e6, options.to = 15e6;
    std::atomic<bool> stop{false};
    const Watch watch([&] { return stop.load(); });
    bool stopped = false, finished = false;
    std::thread first([&] {
        while (!stopped) // until the stop comes in its middle
            stopped = !sweep(std::make_shared<const WireModel>(dipole(10, 5, averageSoil)), options, tables, watch);
    });
    std::thread second([&] { finished = bool(sweep(std::make_shared<const WireModel>(dipole(9, 4, averageSoil)), options, tables)); });
    second.join();
    stop = true;
    first.join();
    EXPECT_TRUE(stopped);
    EXPECT_TRUE(finished);
}

} // namespace
} // namespace vetchling::em
