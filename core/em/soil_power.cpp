#include "core/em/soil_power.h"

#include "core/em/soil_blocks.h"

#include <oneapi/tbb/parallel_for.h>

#include <cmath>

namespace vetchling::em {
namespace {

/// Sum over pairs of 1/2 Re c_m^H B c_n: in the air what evanescent waves take, all of the rest.
class PairPowers {
public:
    PairPowers(const Solution& solution, const SoilTable& table, const SoilTable& loss)
        : m_solution(solution), m_mesh(*solution.mesh), m_whole(m_mesh, table), m_loss(m_mesh, loss)
    {
    }

    double sum(const Watch& watch) const
    {
        const std::vector<MeshPair> pairs = meshPairs(m_mesh);
        PairClasses classes(m_mesh);
        std::vector<std::size_t> classOf;
        for (const MeshPair& pair : pairs)
            classOf.push_back(classes.classOf(pair.m, pair.n));
        std::vector<Block> blocks(classes.founders().size());
        tbb::parallel_for(std::size_t(0), blocks.size(), [&](std::size_t i) {
            const auto [m, n] = classes.founders()[i];
            const Element &a = m_mesh.elements[m], &b = m_mesh.elements[n];
            if (!watch.stopped())
                blocks[i] = (a.inSoil || b.inSoil ? m_whole : m_loss).block(a, b, nullptr);
        });
        std::vector<std::vector<Complex>> currents;
        for (std::size_t e = 0; e < m_mesh.elements.size(); ++e)
            currents.push_back(m_solution.elementCurrents(e));
        double power = 0.0;
        for (std::size_t p = 0; p < pairs.size(); ++p) {
            const auto& [m, n, weight] = pairs[p];
            power += weight * (m == n ? 0.5 : 1.0) * form(blocks[classOf[p]], currents[m], currents[n]);
        }
        return power;
    }

private:
    [[nodiscard]] static double form(const Block& block, const std::vector<Complex>& left, const std::vector<Complex>& right)
    {
        double sum = 0.0;
        for (std::size_t i = 0; i < left.size(); ++i)
            for (std::size_t j = 0; j < right.size(); ++j)
                sum += block.value[i][j].real() * (std::conj(left[i]) * right[j]).real();
        return sum;
    }

    const Solution& m_solution;
    const Mesh& m_mesh;
    SoilBlockMaker m_whole, m_loss;
};

/// A jump of the current in the air where it goes into the soil.
struct SurfaceNode {
    Vec3 at;
    Complex jump;
};

std::vector<SurfaceNode> surfaceNodes(const Solution& solution)
{
    const Mesh& mesh = *solution.mesh;
    std::vector<SurfaceNode> nodes;
    for (std::size_t e = 0; e < mesh.elements.size(); ++e)
        for (int end : {0, 1}) {
            const Element& element = mesh.elements[e];
            const Vec3 at = end == 0 ? element.start : element.end;
            if (element.inSoil || std::abs(at.z) > jointTolerance)
                continue;
            const Complex current = solution.elementCurrents(e)[std::size_t(end)], jump = end == 0 ? current : -current;
            const auto known =
                std::find_if(nodes.begin(), nodes.end(), [&](const SurfaceNode& n) { return distance(n.at, at) < 2.0 * jointTolerance; });
            if (known != nodes.end())
                known->jump += jump;
            else
                nodes.push_back({at, jump});
        }
    return nodes;
}

/// The waves that propagate are those of whole currents, whose ends in the surface carry a charge. The pairs leave it out, since that of
/// the current going on in the soil cancels it: so much do these charges take from the waves of the currents in the air.
double surfaceChargePower(const Solution& solution)
{
    const Mesh& mesh = *solution.mesh;
    const double k = waveNumber(solution.frequency);
    const Complex eps = solution.model->ground.complexPermittivity(solution.frequency);
    const std::vector<SurfaceNode> nodes = surfaceNodes(solution);
    const auto reaction = [&](Vec3 a, Vec3 b) {
        const double rho = std::hypot(a.x - b.x, a.y - b.y);
        return (scalarFront(k) * k * propagatingScalar(eps, k * rho, k * (a.z + b.z))).real();
    };
    double power = 0.0;
    for (const SurfaceNode& node : nodes) {
        for (const SurfaceNode& other : nodes)
            power += 0.5 * reaction(node.at, other.at) * (std::conj(node.jump) * other.jump).real();
        const GaussRule& rule = gaussRule(mesh.degree + 2);
        for (std::size_t e = 0; e < mesh.elements.size(); ++e) {
            if (mesh.elements[e].inSoil)
                continue;
            const std::vector<Complex> local = solution.elementCurrents(e);
            for (std::size_t q = 0; q < rule.node.size(); ++q)
                power += rule.weight[q] * reaction(node.at, mesh.elements[e].at(rule.node[q])) *
                         (std::conj(node.jump) * currentSlopeOn(mesh.degree, local, rule.node[q])).real();
        }
    }
    return power;
}

} // namespace

Result<double> soilPower(const Solution& solution, double throughSurface, GroundTableCache& tables, const Watch& watch)
{
    const SoilReach reach = soilReach(*solution.mesh);
    const Ground& ground = solution.model->ground;
    const auto table = tables.soilTable(ground, solution.frequency, reach.deepest);
    const auto loss = tables.soilTable(ground, solution.frequency, reach.deepest, true);
    SoilReach above = reach;
    above.inSoil = false;
    if (!table->cover(reach, watch) || (above.inAir && !loss->cover(above, watch)))
        return stoppedFault();
    const double ofPairs = PairPowers(solution, *table, *loss).sum(watch);
    if (watch.stopped())
        return stoppedFault();
    return ofPairs + throughSurface - surfaceChargePower(solution);
}

} // namespace vetchling::em
