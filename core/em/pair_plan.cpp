#include "core/em/pair_plan.h"

#include <oneapi/tbb/parallel_for.h>

namespace vetchling::em {

PairPlan::PairPlan(const Mesh& mesh, const WireModel& model, double highestFrequency, const Watch& watch)
{
    PairClasses classes(mesh);
    const std::size_t count = mesh.elements.size();
    for (std::size_t m = 0; m < count; ++m)
        for (std::size_t n = m; n < count; ++n)
            classOf.push_back(classes.classOf(m, n));
    const double k = waveNumber(highestFrequency);
    interactions.resize(classes.founders().size());
    tbb::parallel_for(std::size_t(0), interactions.size(), [&](std::size_t i) {
        if (watch.stopped())
            return;
        const auto [m, n] = classes.founders()[i];
        const Element &observer = mesh.elements[m], &source = mesh.elements[n];
        interactions[i] = {m, n, MomentSeries(observer, source, k, mesh.degree), std::nullopt};
        if (model.ground.kind != GroundKind::FreeSpace)
            interactions[i].image = MomentSeries(observer, mirroredElement(source), k, mesh.degree);
    });
    jackets = jacketedPairs(mesh, model);
}

std::vector<PairPlan::Jacketed> jacketedPairs(const Mesh& mesh, const WireModel& model)
{
    std::vector<PairPlan::Jacketed> out;
    for (std::size_t m = 0; m < mesh.elements.size(); ++m) {
        const auto& jacket = model.wires[mesh.elements[m].wire].insulation;
        for (std::size_t n = m; jacket && n < mesh.elements.size() && mesh.elements[n].wire == mesh.elements[m].wire; ++n) {
            PairPlan::Jacketed pair{m, n, {}};
            if (jacketMoments(mesh.elements[m], mesh.elements[n], jacket->outerRadius, mesh.degree, pair.moments))
                out.push_back(pair);
        }
    }
    return out;
}

} // namespace vetchling::em
