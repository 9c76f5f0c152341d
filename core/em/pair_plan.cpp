#include "core/em/pair_plan.h"

#include <oneapi/tbb/parallel_for.h>

#include <atomic>
#include <cmath>

namespace vetchling::em {

PairPlan::PairPlan(const Mesh& mesh, const WireModel& model, double highestFrequency, const Watch& watch) : pairs(meshPairs(mesh))
{
    PairClasses classes(mesh);
    for (const MeshPair& pair : pairs)
        classOf.push_back(classes.classOf(pair.m, pair.n));
    constexpr double margin = 1.1; // a soil's figures may fall with frequency
    const double k = waveNumber(highestFrequency);
    const double soilK = margin * k * std::sqrt(std::abs(model.ground.complexPermittivity(highestFrequency)));
    constexpr std::size_t mostWithPaths = 6000; // of some 3 kB each
    interactions.resize(classes.founders().size());
    const bool hasRemainder = model.ground.kind == GroundKind::Real && !mesh.reachesSoil() && interactions.size() <= mostWithPaths;
    const Sampled few = fewSamples(mesh.degree), many = manySamples(mesh.degree);
    std::atomic<bool> stopped = false; // once: the reason may be gone again by the next look
    tbb::parallel_for(std::size_t(0), interactions.size(), [&](std::size_t i) {
        if (stopped || watch.stopped()) {
            stopped = true;
            return;
        }
        const auto [m, n] = classes.founders()[i];
        const Element &observer = mesh.elements[m], &source = mesh.elements[n];
        const bool across = observer.inSoil != source.inSoil;
        const double here = observer.inSoil && source.inSoil ? soilK : k;
        interactions[i] = {m, n, {}, std::nullopt, std::nullopt};
        if (hasRemainder)
            interactions[i].remainder = remainderPaths(observer, source, few, many, GroundTable::remainderColumns);
        if (!across || comesClose(observer, source)) // soil_blocks.h takes the others whole from its table
            interactions[i].direct = MomentSeries(observer, source, here, mesh.degree);
        if (model.ground.kind != GroundKind::FreeSpace && !across)
            interactions[i].image = MomentSeries(observer, mirroredElement(source), here, mesh.degree);
    });
    jackets = jacketedPairs(mesh, model);
    coils = coiledPairs(mesh, model);
    complete = !stopped;
}

std::vector<PairPlan::Jacketed> jacketedPairs(const Mesh& mesh, const WireModel& model)
{
    std::vector<PairPlan::Jacketed> out;
    for (std::size_t m = 0; m < mesh.elements.size(); ++m) {
        const auto& jacket = model.wires[mesh.elements[m].wire].insulation;
        if (mesh.elements[m].coil >= 0)
            continue;
        for (std::size_t n = m; jacket && n < mesh.elements.size() && mesh.elements[n].wire == mesh.elements[m].wire; ++n) {
            if (mesh.elements[m].inSoil != mesh.elements[n].inSoil || mesh.elements[n].coil >= 0)
                continue;
            PairPlan::Jacketed pair{m, n, {}};
            if (jacketMoments(mesh.elements[m], mesh.elements[n], jacket->outerRadius, mesh.degree, pair.moments))
                out.push_back(pair);
        }
    }
    return out;
}

} // namespace vetchling::em
