#include "core/em/coil_blocks.h"

#include "core/em/gauss.h"

#include <algorithm>
#include <cmath>

namespace vetchling::em {
namespace {

constexpr int outerNodes = 9, innerNodes = 9;

/// Mutual inductance of two circles `apart` radii apart, over mu0 a.
double ringMutual(double apart)
{
    constexpr double nearest = 1e-7;
    const double x = std::max(std::abs(apart), nearest), k = 2.0 / std::sqrt(4.0 + x * x);
    return (2.0 / k - k) * std::comp_ellint_1(k) - 2.0 / k * std::comp_ellint_2(k);
}

/// int int P_i(u) P_j(v) M du dv over mu0 a, of two elements on one axis.
Moments ringMoments(const Element& m, const Element& n, double radius, int degree)
{
    Moments out;
    const GaussRule &outer = gaussRule(outerNodes), &inner = gaussRule(innerNodes);
    const double half = 0.5 * n.length;
    for (int a = 0; a < outerNodes; ++a) {
        double pm[largestDegree + 1], row[largestDegree + 1]{};
        legendre(outer.node[a], degree, pm);
        const double here = dot(m.at(outer.node[a]) - n.centre(), n.tangent) / half, split = std::clamp(here, -1.0, 1.0);
        for (double end : {-1.0, 1.0}) // v = split + (end - split) s^2 flattens the logarithm where the circles meet
            for (int b = 0; b < innerNodes; ++b) {
                const double s = 0.5 * (1.0 + inner.node[b]), v = split + (end - split) * s * s;
                const double weight = inner.weight[b] * s * std::abs(end - split) * ringMutual((v - here) * half / radius);
                double pn[largestDegree + 1];
                legendre(v, degree, pn);
                for (int j = 0; j <= degree; ++j)
                    row[j] += weight * pn[j];
            }
        for (int i = 0; i <= degree; ++i)
            for (int j = 0; j <= degree; ++j)
                out.value[i][j] += outer.weight[a] * pm[i] * row[j];
    }
    if (&m == &n)
        for (int i = 0; i <= degree; ++i)
            for (int j = 0; j < i; ++j)
                out.value[i][j] = out.value[j][i] = 0.5 * (out.value[i][j] + out.value[j][i]);
    return out;
}

/// factor int P_i P_j dv.
void addSquares(Moments& moments, int degree, Complex factor)
{
    for (int i = 0; i <= degree; ++i)
        moments.value[i][i] += factor * 2.0 / double(2 * i + 1);
}

/// One coil's pairs, with the flux of an even current in them all making its inductance.
void addCoil(const Mesh& mesh, const WireModel& model, std::size_t load, const std::vector<std::size_t>& elements,
             std::vector<CoiledPair>& out)
{
    const Load& coil = model.loads[load];
    const std::size_t first = out.size();
    double even = 0.0;
    for (std::size_t a = 0; a < elements.size(); ++a)
        for (std::size_t b = a; b < elements.size(); ++b) {
            const Element &m = mesh.elements[elements[a]], &n = mesh.elements[elements[b]];
            out.push_back({elements[a], elements[b], load, ringMoments(m, n, 0.5 * coil.size.diameter, mesh.degree), {}});
            even += (a == b ? 1.0 : 2.0) * 0.25 * m.length * n.length * out.back().flux.value[0][0].real();
        }
    const double sparse = gridElastance(coil);
    for (std::size_t i = first; i < out.size(); ++i) {
        CoiledPair& pair = out[i];
        const double here = mesh.elements[pair.m].length, there = mesh.elements[pair.n].length;
        const double henry = coil.inductance * 0.25 * here * there / even;
        for (auto& row : pair.flux.value)
            for (Complex& value : row)
                value *= henry;
        if (pair.m != pair.n)
            continue;
        if (coil.q > 0.0)
            addSquares(pair.flux, mesh.degree, Complex{0.0, -coil.inductance / coil.q * 0.5 * here / coil.size.length});
        addSquares(pair.elastance, mesh.degree, 2.0 * sparse * 2.0 / here);
    }
}

/// Of a current sheet (Wheeler 1928) with corrections for round wires apart (Rosa 1906, for current in their skin).
double turnsOf(const Load& coil)
{
    const double radius = 0.5 * coil.size.diameter, length = coil.size.length;
    const double sheet = vacuumPermeability * pi * radius * radius / (length + 0.9 * radius); // times the turns squared
    constexpr double manyTurns = 0.3, skin = 1.5;
    double turns = std::sqrt(coil.inductance / sheet);
    for (int i = 0; i < 20; ++i) {
        const double apart = manyTurns + skin - std::log(2.0 * length / (turns * coil.size.wireDiameter));
        const double half = 0.5 * vacuumPermeability * radius * apart / sheet;
        turns = half + std::sqrt(half * half + coil.inductance / sheet);
    }
    return turns;
}

} // namespace

double gridElastance(const Load& coil)
{
    if (!(coil.size.wireDiameter > 0.0))
        return 0.0;
    const double pitch = coil.size.length / turnsOf(coil);
    return std::max(0.0, pitch / (pi * coil.size.diameter) * std::log(pitch / (pi * coil.size.wireDiameter)));
}

std::vector<CoiledPair> coiledPairs(const Mesh& mesh, const WireModel& model)
{
    std::vector<CoiledPair> out;
    for (std::size_t l = 0; l < model.loads.size(); ++l) {
        std::vector<std::size_t> elements;
        for (std::size_t e = 0; e < mesh.elements.size(); ++e)
            if (mesh.elements[e].coil == int(l))
                elements.push_back(e);
        if (!elements.empty())
            addCoil(mesh, model, l, elements, out);
    }
    return out;
}

} // namespace vetchling::em
