/// ./dev bench: each figure as a ratio to one zgesv of 500 unknowns in the same run.
#include "bench/cases.h"
#include "bench/drag.h"
#include "bench/reporter.h"
#include "core/em/far_field.h"
#include "core/tune/tune.h"

#include <benchmark/benchmark.h>
#include <cblas.h>
#include <lapacke.h>

#include <cstring>
#include <random>

namespace vetchling::bench {
namespace {

void unit(benchmark::State& state)
{
    constexpr int n = 500;
    std::mt19937 random(1);
    std::normal_distribution<double> normal;
    std::vector<Complex> matrix(n * n), rhs(n);
    for (Complex& v : matrix)
        v = {normal(random), normal(random)};
    for (Complex& v : rhs)
        v = {normal(random), 0.0};
    openblas_set_num_threads(1);
    std::vector<lapack_int> pivots(n);
    for (auto _ : state) {
        state.PauseTiming();
        std::vector<Complex> a = matrix, b = rhs;
        state.ResumeTiming();
        LAPACKE_zgesv(LAPACK_COL_MAJOR, n, 1, reinterpret_cast<lapack_complex_double*>(a.data()), n, pivots.data(),
                      reinterpret_cast<lapack_complex_double*>(b.data()), n);
        benchmark::DoNotOptimize(b.data());
    }
}

/// Percent between the default mesh and a much finer one.
double errorOf(const Case& c, em::GroundTableCache& tables, Complex z)
{
    em::SolveOptions fine;
    fine.mesh.degree = 5;
    fine.mesh.elementsPerWavelength = 12.0;
    if (c.name == "long-wire")
        fine.mesh.elementsPerWavelength = 8.0;
    const auto settled = em::solve(c.model, c.frequency, tables, fine);
    return settled ? 100.0 * std::abs(settled->impedance - z) / std::abs(settled->impedance) : 0.0;
}

void solveOnce(benchmark::State& state, const Case& c)
{
    em::GroundTableCache tables;
    const auto first = em::solve(c.model, c.frequency, tables); // warms the table
    for (auto _ : state) {
        const auto s = em::solve(c.model, c.frequency, tables);
        if (c.name == "long-wire") { // its answer includes one elevation cut
            const em::FarField field(*s);
            for (int e = 1; e <= 90; ++e)
                benchmark::DoNotOptimize(field.gain(radians(e), 0.0));
        }
        benchmark::DoNotOptimize(s->impedance);
    }
    state.counters["unknowns"] = first->mesh->unknowns;
    state.counters["solves"] = 1;
    state.counters["goal"] = c.goal;
    state.counters["error"] = errorOf(c, tables, first->impedance);
}

void table(benchmark::State& state)
{
    const auto model = invertedV();
    const em::Mesh mesh = em::makeMesh(*model, 7.08e6);
    for (auto _ : state) {
        em::GroundTable fresh(demoSoil(), 7.08e6);
        em::coverMesh(mesh, fresh);
        benchmark::DoNotOptimize(fresh.rowCount());
    }
}

void pattern(benchmark::State& state)
{
    em::GroundTableCache tables;
    const auto s = em::solve(invertedV(), 7.08e6, tables);
    std::vector<double> elevations, azimuths;
    for (int e = 0; e <= 180; ++e)
        elevations.push_back(radians(0.5 * e));
    for (int a = 0; a <= 360; ++a)
        azimuths.push_back(radians(a));
    for (auto _ : state) {
        benchmark::DoNotOptimize(em::FarField(*s).gainGrid(elevations, azimuths).size());
    }
    state.counters["goal"] = 2.0;
}

/// Worst relative SWR difference to a brute sweep wherever SWR < 10, percent.
double curveError(const em::ImpedanceCurve& curve, const std::shared_ptr<const WireModel>& model, em::GroundTableCache& tables, int points)
{
    double worst = 0.0;
    for (int i = 0; i < points; ++i) {
        const double f = curve.from * std::pow(curve.to / curve.from, (i + 0.5) / points);
        const auto s = em::solve(model, f, tables);
        if (const double truth = swr(s->impedance); truth < 10.0)
            worst = std::max(worst, 100.0 * std::abs(curve.swrAt(f) / truth - 1.0));
    }
    return worst;
}

void curve(benchmark::State& state, bool warm)
{
    auto tables = std::make_unique<em::GroundTableCache>();
    const auto model = invertedV();
    auto last = em::sweep(model, {1.8e6, 30e6}, *tables);
    for (auto _ : state) {
        if (!warm) {
            state.PauseTiming();
            tables->clear();
            state.ResumeTiming();
        }
        last = em::sweep(model, {1.8e6, 30e6}, *tables);
        benchmark::DoNotOptimize(last->solves);
    }
    state.counters["solves"] = last->solves;
    state.counters["goal"] = warm ? 4.0 : 60.0;
    if (warm) {
        em::GroundTableCache brute(4);
        state.counters["error"] = curveError(*last, model, brute, 400);
    }
}

void tuning(benchmark::State& state)
{
    em::GroundTableCache tables;
    shapes::AntennaShape shape = shapes::findFamily("dipole")->standardShape(7.08e6);
    int solves = 0;
    for (auto _ : state) {
        const auto outcome = tune(shape, demoSoil(), "leg_m", 7.08e6, tables);
        solves = outcome->solves;
    }
    state.counters["solves"] = solves;
    state.counters["goal"] = 3.0;
}

#ifdef VETCHLING_BENCH_APP
void drag(benchmark::State& state, const DragTimes& times, bool median)
{
    for (auto _ : state)
        benchmark::DoNotOptimize(times.median);
    state.counters["milliseconds"] = median ? times.median : times.percentile95;
    state.counters["goal"] = median ? 30.0 : 60.0;
}
#endif

void registerAll()
{
    const auto inMilliseconds = [](benchmark::internal::Benchmark* b) {
        b->Unit(benchmark::kMillisecond)->UseRealTime()->Repetitions(3)->ReportAggregatesOnly(true);
    };
    inMilliseconds(benchmark::RegisterBenchmark(unitName, unit));
    for (const Case& c : cases()) {
        auto* b = benchmark::RegisterBenchmark(c.name.c_str(), [c](benchmark::State& state) { solveOnce(state, c); });
        inMilliseconds(b);
        if (c.name == "long-wire")
            b->Repetitions(1)->Iterations(1);
    }
    inMilliseconds(benchmark::RegisterBenchmark("table", table));
    inMilliseconds(benchmark::RegisterBenchmark("pattern", pattern));
    inMilliseconds(benchmark::RegisterBenchmark("curve-warm", [](benchmark::State& state) { curve(state, true); }));
    benchmark::RegisterBenchmark("curve-cold", [](benchmark::State& state) { curve(state, false); })
        ->Unit(benchmark::kMillisecond)
        ->UseRealTime()
        ->Iterations(3);
    inMilliseconds(benchmark::RegisterBenchmark("tune", tuning));
#ifdef VETCHLING_BENCH_APP
    static const DragTimes times = measureDrag(60);
    benchmark::RegisterBenchmark("drag", [](benchmark::State& state) { drag(state, times, true); })->Iterations(1);
    benchmark::RegisterBenchmark("drag-95", [](benchmark::State& state) { drag(state, times, false); })->Iterations(1);
#endif
}

} // namespace
} // namespace vetchling::bench

int main(int argc, char** argv)
{
    bool json = false;
    for (int i = 1; i < argc; ++i)
        if (std::strcmp(argv[i], "--json") == 0) {
            json = true;
            argv[i] = argv[--argc];
            break;
        }
    benchmark::Initialize(&argc, argv);
    if (benchmark::ReportUnrecognizedArguments(argc, argv))
        return 2;
    vetchling::bench::registerAll();
    vetchling::bench::RatioReporter reporter(json);
    benchmark::RunSpecifiedBenchmarks(&reporter);
    return 0;
}
