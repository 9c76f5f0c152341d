/// ./dev bench: each figure as a ratio to one zgesv of 500 unknowns in the same run.
#include "bench/cases.h"
#include "bench/reporter.h"
#include "bench/unit.h"
#include "bench/window.h"
#include "core/em/far_field.h"
#include "core/em/soil_blocks.h"
#include "core/em/terrain.h"
#include "core/em/terrain_cache.h"
#include "core/files/height_file.h"
#include "core/site/height_grid.h"
#include "core/study/far_ground.h"
#include "core/tune/tune.h"

#include <benchmark/benchmark.h>
#include <oneapi/tbb/parallel_for.h>

#include <cstring>
#include <functional>

namespace vetchling::bench {
namespace {

/// Times U right before and after a case and writes it beside the case's own time.
class BesideUnit {
public:
    explicit BesideUnit(benchmark::State& state) : m_state(state), m_before(unitMilliseconds()) {}
    ~BesideUnit() { m_state.counters["unit"] = 0.5 * (m_before + unitMilliseconds()); }
    BesideUnit(const BesideUnit&) = delete;
    BesideUnit& operator=(const BesideUnit&) = delete;

private:
    benchmark::State& m_state;
    double m_before;
};

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

void buriedTable(benchmark::State& state)
{
    const em::Mesh mesh = em::makeMesh(*buriedRadials(16), 7.08e6);
    const em::SoilReach reach = em::soilReach(mesh);
    for (auto _ : state) {
        em::SoilTable fresh(demoSoil(), 7.08e6, reach.deepest);
        benchmark::DoNotOptimize(fresh.cover(reach));
    }
    state.counters["goal"] = 7.5; // three times the table of the same wires just over the soil
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

/// One bearing and band: a hill behind, a cliff and the sea before the antenna, currents up to 10 m, sixty elevations.
void terrain(benchmark::State& state)
{
    const Ground soil = demoSoil(), sea{GroundKind::Real, 70.0, 5.0};
    const TerrainProfile profile{{{-600.0, 40.0}, {-350.0, 55.0}, {-80.0, 0.0}, {40.0, 0.0}, {45.0, -20.0}},
                                 {soil, soil, soil, soil, soil, sea}};
    std::vector<double> heights;
    for (double h = 0.9; h < 11.0; h += 1.77)
        heights.push_back(h);
    for (auto _ : state) {
        const auto field = em::TerrainField::solve(profile, 14.1e6, heights);
        double sum = 0.0;
        for (int e = 1; e <= 60; ++e)
            sum += std::abs(field->responses(em::Side::Along, radians(e)).front().across);
        benchmark::DoNotOptimize(sum);
    }
}

/// 36 bearings of the demo's file of heights, 60 elevations, nine bands, the first time.
void terrainRound(benchmark::State& state)
{
    const auto grid = files::readHeightFile(VETCHLING_DATA "/demo/gannet-skerry-heights.txt");
    const Soil garden{"", "garden", "", 13.0, 0.005};
    Site site;
    site.profiles = linesFrom(*grid, {grid->middle(), 10.0, 5000.0, garden, seaOf({})})->profiles;
    constexpr double highest = 10.0;
    Ground under = garden.ground();
    for (auto _ : state) {
        under.relativePermittivity += 0.1; // what was kept does not serve
        std::vector<TerrainProfile> lines;
        for (const FarSector& s : study::sectorsOf(site))
            lines.push_back(s.over(under));
        for (double f : {3.6e6, 5.36e6, 7.1e6, 10.1e6, 14.1e6, 18.1e6, 21.2e6, 24.9e6, 28.5e6}) {
            em::TerrainHeights::prepare(lines, f, highest);
            tbb::parallel_for(std::size_t(0), lines.size(), [&](std::size_t i) {
                const auto view = em::TerrainHeights::over(lines[i], f, highest);
                for (int e = 1; e <= 60; ++e)
                    benchmark::DoNotOptimize(view->at({2.0, 8.0}, radians(e)).front().across);
            });
        }
    }
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

/// Five pairs on one feed, all tuned together.
void fanTuning(benchmark::State& state)
{
    em::GroundTableCache tables;
    shapes::AntennaShape shape = shapes::findFamily("fan-dipole")->standardShape(7.08e6);
    shape.parameters["pair_count"] = 5.0;
    int solves = 0;
    for (auto _ : state) {
        const auto outcome = tuneAll(shape, demoSoil(), tables);
        solves = outcome ? outcome->solves : 0;
    }
    state.counters["solves"] = solves;
    state.counters["goal_ms"] = 2000.0;
}

void registerCase(const std::string& name, std::function<void(benchmark::State&)> run, int repetitions = 7, int iterations = 0)
{
    auto* b = benchmark::RegisterBenchmark(name.c_str(), [run = std::move(run)](benchmark::State& state) {
        const BesideUnit beside(state);
        run(state);
    });
    b->Unit(benchmark::kMillisecond)->UseRealTime()->Repetitions(repetitions);
    iterations > 0 ? b->Iterations(iterations) : b->MinTime(0.1);
}

#ifdef VETCHLING_BENCH_APP
void registerWait(const Wait& wait)
{
    benchmark::RegisterBenchmark(wait.name.c_str(), [wait](benchmark::State& state) {
        for (auto _ : state)
            benchmark::DoNotOptimize(wait.milliseconds);
        state.counters["milliseconds"] = wait.milliseconds;
        state.counters["goal"] = wait.goal;
    })->Iterations(1);
}
#endif

void registerAll()
{
    for (const Case& c : cases()) {
        const bool isLong = c.name == "long-wire";
        registerCase(
            c.name, [c](benchmark::State& state) { solveOnce(state, c); }, isLong ? 3 : 7, isLong ? 1 : 0);
    }
    registerCase("table", table);
    registerCase("table-buried", buriedTable);
    registerCase("pattern", pattern);
    registerCase("terrain", terrain, 3, 1);
    registerCase("terrain-round", terrainRound, 1, 1);
    registerCase("curve-warm", [](benchmark::State& state) { curve(state, true); });
    registerCase(
        "curve-cold", [](benchmark::State& state) { curve(state, false); }, 3, 2);
    registerCase("tune", tuning);
    registerCase("tune-fan-5", fanTuning, 3, 1);
#ifdef VETCHLING_BENCH_APP
    for (const Wait& wait : measureDrags(60))
        registerWait(wait);
    for (const Wait& wait : measureTurns())
        registerWait(wait);
    for (const Wait& wait : measureBands())
        registerWait(wait);
    for (const Wait& wait : measureSpread())
        registerWait(wait);
    for (const Wait& wait : measureFirstStrip(5))
        registerWait(wait);
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
