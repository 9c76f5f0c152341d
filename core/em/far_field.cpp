#include "core/em/far_field.h"

#include "core/em/cos_sin.h"
#include "core/em/gauss.h"
#include "core/em/moments.h"

#include <oneapi/tbb/parallel_for.h>

#include <algorithm>
#include <cmath>

namespace vetchling::em {
namespace {

constexpr double nothing = -300.0; // dBi

/// Power densities of the plane wave spectrum, integrated over the directions above ground; W.
struct SpectrumPowers {
    double sky = 0.0;           ///< sent up
    double intoSoil = 0.0;      ///< propagating waves that enter the soil
    double imageExchange = 0.0; ///< power that a reflection j times the mirror image would take, propagating waves only
    SpectrumPowers& operator+=(const SpectrumPowers& o)
    {
        sky += o.sky, intoSoil += o.intoSoil, imageExchange += o.imageExchange;
        return *this;
    }
};

double horizontalReach(const Mesh& mesh)
{
    double reach = 0.0;
    const Vec3 middle = mesh.elements.front().start;
    for (const Element& e : mesh.elements)
        for (Vec3 p : {e.start, e.end})
            reach = std::max(reach, std::hypot(p.x - middle.x, p.y - middle.y));
    return reach;
}

double verticalReach(const Mesh& mesh, GroundKind kind)
{
    double low = HUGE_VAL, high = -HUGE_VAL;
    for (const Element& e : mesh.elements)
        for (Vec3 p : {e.start, e.end})
            low = std::min(low, p.z), high = std::max(high, p.z);
    return kind == GroundKind::FreeSpace ? high - low : 2.0 * high;
}

SpectrumPowers spectrumPowers(const Solution& solution)
{
    const FarField field(solution);
    const GroundKind kind = solution.model->ground.kind;
    const double k = waveNumber(solution.frequency);
    const int azimuths = 16 + 2 * int(k * horizontalReach(*solution.mesh));
    const int nodes = std::min(64, 20 + int(0.7 * k * (verticalReach(*solution.mesh, kind) + horizontalReach(*solution.mesh))));
    const GaussRule& rule = gaussRule(nodes);
    const double front = waveImpedance * k * k / (32.0 * pi * pi);
    std::vector<SpectrumPowers> parts(nodes);
    tbb::parallel_for(0, nodes, [&](int i) {
        const double t = 0.5 * (1.0 + rule.node[i]);
        // dOmega = d(sin e) d(azimuth); squared near the horizon of a soil, where the reflection changes fast
        const double height = kind == GroundKind::FreeSpace ? rule.node[i] : t * t;
        const double weight = (kind == GroundKind::FreeSpace ? rule.weight[i] : t * rule.weight[i]) * 2.0 * pi / azimuths * front;
        const double elevation = std::asin(height);
        const Reflection r = field.reflection(elevation);
        for (int a = 0; a < azimuths; ++a) {
            const RadiationVectors n = field.vectors(elevation, 2.0 * pi * (a + 0.5) / azimuths);
            parts[i].sky += weight * (std::norm(n.theta + r.tm * n.imageTheta) + std::norm(n.phi - r.te * n.imagePhi));
            parts[i].intoSoil +=
                weight * (std::norm(n.imageTheta) * (1.0 - std::norm(r.tm)) + std::norm(n.imagePhi) * (1.0 - std::norm(r.te)));
            parts[i].imageExchange += weight * -2.0 * (n.imageTheta * std::conj(n.theta) + n.imagePhi * std::conj(n.phi)).imag();
        }
    });
    SpectrumPowers sum;
    for (const SpectrumPowers& p : parts)
        sum += p;
    return sum;
}

double quadraticForm(const Matrix& matrix, const std::vector<Complex>& x, double (*part)(const Complex&))
{
    double sum = 0.0;
    const std::size_t n = x.size();
    for (std::size_t i = 0; i < n; ++i)
        for (std::size_t j = 0; j < n; ++j)
            sum += part(matrix[i * n + j]) * (std::conj(x[i]) * x[j]).real();
    return 0.5 * sum;
}

double realPart(const Complex& z) { return z.real(); }
double imaginaryPart(const Complex& z) { return z.imag(); }

/// Power of the waves that die out above the soil, taken up by it.
Result<double> evanescentPower(const Solution& solution, const SpectrumPowers& spectrum, GroundTableCache& tables, const Watch& watch)
{
    const auto loss = tables.table(solution.model->ground, solution.frequency, TableContent::EvanescentLoss);
    if (!coverMesh(*solution.mesh, *loss, watch))
        return Fault{"", stoppedMessage};
    const double ofRemainder = quadraticForm(remainderMatrix(*solution.mesh, *loss), solution.unknowns, realPart);
    const double imageLoss = loss->image().imag(); // the quasi-static image takes power as j Im Kq times the mirror image
    const double ofImage = -imageLoss * quadraticForm(mirrorMatrix(*solution.mesh), solution.unknowns, imaginaryPart);
    return ofRemainder + ofImage - imageLoss * spectrum.imageExchange;
}

} // namespace

FarField::FarField(const Solution& solution)
    : m_kind(solution.model->ground.kind), m_permittivity(solution.model->ground.complexPermittivity(solution.frequency)),
      m_waveNumber(waveNumber(solution.frequency)), m_inputPower(solution.inputPower)
{
    const Mesh& mesh = *solution.mesh;
    for (std::size_t i = 0; i < mesh.elements.size(); ++i) {
        const Element& e = mesh.elements[i];
        const std::vector<Complex> local = solution.elementCurrents(i);
        const GaussRule& rule = gaussRule(std::min(16, mesh.degree + 2 + int(m_waveNumber * e.length)));
        for (std::size_t q = 0; q < rule.node.size(); ++q) {
            const double v = rule.node[q];
            double p[largestDegree + 1];
            legendre(v, mesh.degree, p);
            Complex current = 0.5 * (1.0 - v) * local[0] + 0.5 * (1.0 + v) * local[1];
            for (int k = 2; k <= mesh.degree; ++k)
                current += local[k] * (p[k] - p[k - 2]) / double(4 * k - 2);
            current *= 0.5 * e.length * rule.weight[q];
            m_points.push_back({e.at(v), current * e.tangent.x, current * e.tangent.y, current * e.tangent.z});
        }
    }
}

RadiationVectors FarField::vectors(double elevation, double azimuth) const
{
    const double ce = std::cos(elevation), se = std::sin(elevation), ca = std::cos(azimuth), sa = std::sin(azimuth);
    const bool image = m_kind != GroundKind::FreeSpace;
    Complex x, y, z, ix, iy, iz;
    for (const Point& p : m_points) {
        const double level = m_waveNumber * ce * (ca * p.position.x + sa * p.position.y), up = m_waveNumber * se * p.position.z;
        const Complex direct{std::cos(level + up), std::sin(level + up)};
        x += p.x * direct, y += p.y * direct, z += p.z * direct;
        if (image) {
            const Complex reflected{std::cos(level - up), std::sin(level - up)};
            ix -= p.x * reflected, iy -= p.y * reflected, iz += p.z * reflected;
        }
    }
    const auto theta = [&](Complex vx, Complex vy, Complex vz) { return se * (ca * vx + sa * vy) - ce * vz; };
    const auto phi = [&](Complex vx, Complex vy) { return ca * vy - sa * vx; };
    return {theta(x, y, z), phi(x, y), theta(ix, iy, iz), phi(ix, iy)};
}

Reflection FarField::reflection(double elevation) const
{
    if (m_kind == GroundKind::FreeSpace)
        return {0.0, 0.0};
    if (m_kind == GroundKind::Perfect)
        return {1.0, -1.0};
    const double c = std::cos(elevation);
    const Complex nu0{0.0, std::sin(elevation)}, nu1 = std::sqrt(c * c - m_permittivity);
    return {(m_permittivity * nu0 - nu1) / (m_permittivity * nu0 + nu1), (nu0 - nu1) / (nu0 + nu1)};
}

FarField::Intensity FarField::intensity(double elevation, double azimuth) const
{
    const RadiationVectors n = vectors(elevation, azimuth);
    const Reflection r = reflection(elevation);
    const double front = waveImpedance * m_waveNumber * m_waveNumber / (32.0 * pi * pi);
    return {front * std::norm(n.theta + r.tm * n.imageTheta), front * std::norm(n.phi - r.te * n.imagePhi)};
}

double FarField::gain(double elevation, double azimuth) const
{
    const double ratio = 4.0 * pi * intensity(elevation, azimuth).total() / m_inputPower;
    return ratio > 1e-30 ? 10.0 * std::log10(ratio) : nothing;
}

std::vector<double> FarField::gainRow(double elevation, const std::vector<double>& azimuths) const
{
    const double ce = std::cos(elevation), se = std::sin(elevation);
    const Reflection r = reflection(elevation);
    const bool ground = m_kind != GroundKind::FreeSpace;
    const double front = waveImpedance * m_waveNumber * m_waveNumber / (8.0 * pi * m_inputPower);
    struct Lifted { // a point's shares of the field but for its phase in plan
        double x, y;
        Complex thetaX, thetaY, phiX, phiY, theta; // factors of cos az, sin az and alone
    };
    std::vector<Lifted> lifted;
    lifted.reserve(m_points.size());
    for (const Point& p : m_points) {
        const double phase = m_waveNumber * se * p.position.z;
        const Complex up{std::cos(phase), std::sin(phase)}, down = ground ? std::conj(up) : Complex{};
        const Complex vertical = up - r.tm * down, upright = up + r.tm * down, horizontal = up + r.te * down;
        lifted.push_back({m_waveNumber * ce * p.position.x, m_waveNumber * ce * p.position.y, se * p.x * vertical, se * p.y * vertical,
                          p.x * horizontal, p.y * horizontal, -ce * p.z * upright});
    }
    std::vector<double> row, level(lifted.size()), cosine(lifted.size()), sine(lifted.size());
    row.reserve(azimuths.size());
    for (double azimuth : azimuths) {
        const double ca = std::cos(azimuth), sa = std::sin(azimuth);
        Complex theta = 0.0, phi = 0.0;
        for (std::size_t i = 0; i < lifted.size(); ++i)
            level[i] = ca * lifted[i].x + sa * lifted[i].y;
        cosSin(level.data(), int(level.size()), cosine.data(), sine.data());
        for (std::size_t i = 0; i < lifted.size(); ++i) {
            const Lifted& p = lifted[i];
            const Complex turn{cosine[i], sine[i]};
            theta += turn * (ca * p.thetaX + sa * p.thetaY + p.theta);
            phi += turn * (ca * p.phiY - sa * p.phiX);
        }
        const double ratio = front * (std::norm(theta) + std::norm(phi));
        row.push_back(ratio > 1e-30 ? 10.0 * std::log10(ratio) : nothing);
    }
    return row;
}

std::vector<std::vector<double>> FarField::gainGrid(const std::vector<double>& elevations, const std::vector<double>& azimuths) const
{
    std::vector<std::vector<double>> grid(elevations.size());
    tbb::parallel_for(std::size_t(0), elevations.size(), [&](std::size_t e) { grid[e] = gainRow(elevations[e], azimuths); });
    return grid;
}

Result<PowerLedger> powerLedger(const Solution& solution, GroundTableCache& tables, const Watch& watch)
{
    PowerLedger ledger;
    const Mesh& mesh = *solution.mesh;
    const double in = solution.inputPower;
    const SpectrumPowers spectrum = spectrumPowers(solution);
    ledger.sky = spectrum.sky / in;
    ledger.wire = quadraticForm(wireMatrix(mesh, *solution.model), solution.unknowns, realPart) / in;
    for (std::size_t l = 0; l < mesh.loads.size(); ++l) {
        Complex current = 0.0;
        for (const auto& [unknown, factor] : mesh.loads[l])
            current += factor * solution.unknowns[unknown];
        ledger.loads += 0.5 * solution.model->loads[l].impedance(solution.frequency).real() * std::norm(current) / in;
    }
    const Ground& ground = solution.model->ground;
    if (ground.kind == GroundKind::Real && ground.complexPermittivity(solution.frequency) != Complex{1.0, 0.0}) {
        const Result<double> evanescent = evanescentPower(solution, spectrum, tables, watch);
        if (!evanescent)
            return evanescent.faults();
        ledger.soil = (spectrum.intoSoil + *evanescent) / in;
    }
    return ledger;
}

} // namespace vetchling::em
