#include "core/em/soil_blocks.h"

namespace vetchling::em {
namespace {

Vec3 inPlan(Vec3 v) { return {v.x, v.y, 0.0}; }

} // namespace

SoilBlockMaker::SoilBlockMaker(const Mesh& mesh, const SoilTable& table)
    : m_table(table), m_degree(mesh.degree), m_k(waveNumber(mesh.frequency)), m_soilK(table.soilWaveNumber()),
      m_permittivity(table.permittivity()), m_image((m_permittivity - 1.0) / (m_permittivity + 1.0)), m_local(mesh.degree),
      m_few(fewSamples(mesh.degree)), m_many(manySamples(mesh.degree))
{
}

Block SoilBlockMaker::block(const Element& m, const Element& n, const PairPlan::Interaction* known) const
{
    Block sum;
    addImages(m, n, known, sum);
    addTable(m, n, sum);
    if (&m == &n)
        sum.makeSymmetric(m_degree);
    return sum;
}

void SoilBlockMaker::addImages(const Element& m, const Element& n, const PairPlan::Interaction* known, Block& sum) const
{
    const double lengths = 0.25 * m.length * n.length;
    const Complex vector = vectorFront(m_k) * lengths, scalar = scalarFront(m_k);
    const double along = dot(m.tangent, n.tangent), steep = m.tangent.z * n.tangent.z;
    Moments moments;
    if (m_table.lossOnly()) {
        kernelMoments(m, mirroredElement(n), m_k, m_degree, moments);
        for (auto& row : moments.value)
            for (Complex& value : row)
                value = value.real();
        const Complex loss = imaginaryUnit * m_image.imag();
        sum.add(moments, m_local, m_degree, 2.0 * loss * vector * steep, -loss * scalar);
        return;
    }
    const auto add = [&](const MomentSeries* series, const Element& seen, auto waveNumber, Complex ofVector, Complex ofScalar) {
        if (series)
            series->at(waveNumber, moments);
        else
            kernelMoments(m, seen, waveNumber, m_degree, moments);
        sum.add(moments, m_local, m_degree, vector * ofVector, scalar * ofScalar);
    };
    const MomentSeries *direct = known ? &known->direct : nullptr, *image = known && known->image ? &*known->image : nullptr;
    if (m.inSoil != n.inSoil) {
        if (comesClose(m, n))
            add(direct, n, m_k, along, 2.0 / (1.0 + m_permittivity));
    } else if (m.inSoil) {
        add(direct, n, m_soilK, along, 1.0 / m_permittivity);
        add(image, mirroredElement(n), m_soilK, -2.0 * m_image * steep, m_image / m_permittivity);
    } else {
        add(direct, n, m_k, along, 1.0);
        add(image, mirroredElement(n), m_k, 2.0 * m_image * steep, -m_image);
    }
}

void SoilBlockMaker::addTable(const Element& m, const Element& n, Block& sum) const
{
    if (m.length > n.length) {
        Block transposed;
        addTable(n, m, transposed); // reciprocity
        sum.addTransposed(transposed, m_degree);
        return;
    }
    const Element seen = m.inSoil == n.inSoil ? mirroredElement(n) : n;
    const double closest = segmentDistance(m.start, m.end, seen.start, seen.end);
    const auto sampled = [&](const Element& e) -> const Sampled& { return e.length < shortRatio * closest ? m_few : m_many; };
    if (closest > nearRatio * n.length)
        addPlain(m, n, sampled(m), sampled(n), sum);
    else
        addGraded(m, n, seen, sum);
}

void SoilBlockMaker::addPlain(const Element& m, const Element& n, const Sampled& outer, const Sampled& inner, Block& sum) const
{
    const bool lessImage = m.inSoil != n.inSoil && comesClose(m, n);
    for (int a = 0; a < outer.nodes; ++a) {
        std::array<Complex, mostFunctions> vector{}, scalar{};
        for (int b = 0; b < inner.nodes; ++b) {
            const Potentials p = potentials(m, outer.node[a], n, inner.node[b], lessImage);
            for (int j = 0; j <= m_degree; ++j) {
                vector[j] += inner.function[b][j] * p.vector;
                scalar[j] += inner.slope[b][j] * p.scalar;
            }
        }
        for (int i = 0; i <= m_degree; ++i)
            for (int j = 0; j <= m_degree; ++j)
                sum.value[i][j] += outer.function[a][i] * vector[j] + outer.slope[a][i] * scalar[j];
    }
}

void SoilBlockMaker::addGraded(const Element& m, const Element& n, const Element& seen, Block& sum) const
{
    const bool lessImage = m.inSoil != n.inSoil && comesClose(m, n);
    gradedPoints(m, seen, [&](double u, double v, double weight) {
        const Potentials p = potentials(m, u, n, v, lessImage);
        double fm[mostFunctions], fn[mostFunctions], sm[mostFunctions], sn[mostFunctions];
        localCurrents(u, m_degree, fm);
        localCurrents(v, m_degree, fn);
        localSlopes(u, m_degree, sm);
        localSlopes(v, m_degree, sn);
        for (int j = 0; j <= m_degree; ++j) {
            const Complex vector = weight * fn[j] * p.vector, scalar = weight * sn[j] * p.scalar;
            for (int i = 0; i <= m_degree; ++i)
                sum.value[i][j] += fm[i] * vector + sm[i] * scalar;
        }
    });
}

SoilBlockMaker::Potentials SoilBlockMaker::potentials(const Element& m, double u, const Element& n, double v, bool lessImage) const
{
    const Vec3 a = m.at(u), b = n.at(v), away = inPlan(a - b);
    const double rho = norm(away), height = std::abs(a.z), other = std::abs(b.z);
    SoilKernels k;
    if (m.inSoil != n.inSoil) {
        k = m_table.across(rho, m.inSoil ? other : height, m.inSoil ? height : other);
        if (lessImage) {
            const double r = distance(a, b);
            const Complex image = std::polar(1.0 / r, -m_k * r);
            k.scalar -= 2.0 / (1.0 + m_permittivity) * image;
            k.horizontal -= image;
            k.vertical -= image;
        }
    } else
        k = m.inSoil ? m_table.inSoil(rho, height + other) : m_table.inAir(rho, height + other);
    if (m_table.lossOnly())
        k = imaginaryUnit * k;
    const double cx = rho > 0.0 ? away.x / rho : 1.0, cy = rho > 0.0 ? away.y / rho : 0.0;
    const double mr = m.tangent.x * cx + m.tangent.y * cy, nr = n.tangent.x * cx + n.tangent.y * cy;
    const Complex vector = (m.tangent.x * n.tangent.x + m.tangent.y * n.tangent.y) * k.horizontal + m.tangent.z * n.tangent.z * k.vertical +
                           (m.tangent.z * nr - mr * n.tangent.z) * k.mixed;
    return {vectorFront(m_k) * (0.25 * m.length * n.length) * vector, scalarFront(m_k) * k.scalar};
}

SoilReach soilReach(const Mesh& mesh)
{
    SoilReach reach;
    reach.lowest = reach.shallowest = HUGE_VAL;
    Vec3 low{HUGE_VAL, HUGE_VAL, 0.0}, high{-HUGE_VAL, -HUGE_VAL, 0.0};
    for (const Element& e : mesh.elements)
        for (Vec3 p : {e.start, e.end}) {
            const double away = std::abs(p.z);
            double &nearest = e.inSoil ? reach.shallowest : reach.lowest, &farthest = e.inSoil ? reach.deepest : reach.highest;
            (e.inSoil ? reach.inSoil : reach.inAir) = true;
            nearest = std::min(nearest, away);
            farthest = std::max(farthest, away);
            low = {std::min(low.x, p.x), std::min(low.y, p.y), 0.0};
            high = {std::max(high.x, p.x), std::max(high.y, p.y), 0.0};
        }
    reach.width = norm(high - low);
    return reach;
}

} // namespace vetchling::em
