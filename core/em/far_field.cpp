#include "core/em/far_field.h"

#include "core/em/cos_sin.h"
#include "core/em/gauss.h"
#include "core/em/soil_power.h"
#include "core/em/terrain_cache.h"

#include <oneapi/tbb/parallel_for.h>

#include <algorithm>
#include <array>
#include <cmath>

namespace vetchling::em {
namespace {

constexpr double nothing = -300.0;        // dBi
constexpr double straight = 1.0 - 1e-12;  // cosine between elements of one run
constexpr double largestPhaseStep = 0.35; // rad at a run's end between two samples: six points then interpolate to 1e-5
constexpr int runStencil = 6;
constexpr double levelWithin = 1e-9; // of a tangent's vertical part

/// Lagrange weights of six points at -2..3; u in 0..1.
std::array<double, runStencil> runWeights(double u)
{
    const double a = u + 2.0, b = u + 1.0, c = u, d = u - 1.0, e = u - 2.0, f = u - 3.0;
    const double cd = c * d, be = b * e, af = a * f;
    return {-b * cd * e * f / 120.0, a * cd * e * f / 24.0,  -af * be * d / 12.0,
            af * be * c / 12.0,      -a * b * cd * f / 24.0, a * b * cd * e / 120.0};
}

/// What currents spread round a tube send out, over those on its axis: J0(sqrt(y)) for y = (k^2 - q^2) a^2, q the wavenumber
/// along the tube, by its series. y stays below 0.1 for the thickest tubes.
double spreadRound(double y) { return 1.0 - 0.25 * y * (1.0 - y / 16.0 * (1.0 - y / 36.0)); }

/// Power densities of the plane wave spectrum, integrated over the directions above ground; W.
struct SpectrumPowers {
    double sky = 0.0;           ///< sent up
    double intoSoil = 0.0;      ///< propagating waves that enter the soil, less what those from wires in it give to wires above
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

/// Nodes and weights over t = 0..1 for any number of oscillations: equal panels of one rule.
GaussRule panelledRule(int nodes)
{
    constexpr int onePanel = 32;
    const int panels = (nodes + onePanel - 1) / onePanel;
    const GaussRule& rule = gaussRule(std::min(nodes, onePanel));
    GaussRule all;
    for (int p = 0; p < panels; ++p)
        for (std::size_t i = 0; i < rule.node.size(); ++i) {
            all.node.push_back((p + 0.5 * (1.0 + rule.node[i])) / panels);
            all.weight.push_back(0.5 * rule.weight[i] / panels);
        }
    return all;
}

SpectrumPowers spectrumPowers(const Solution& solution, const Watch& watch)
{
    const FarField field(solution);
    const GroundKind kind = solution.model->ground.kind;
    const double k = waveNumber(solution.frequency), wide = horizontalReach(*solution.mesh);
    std::vector<double> azimuths(16 + 2 * int(k * wide));
    for (std::size_t a = 0; a < azimuths.size(); ++a)
        azimuths[a] = 2.0 * pi * (double(a) + 0.5) / double(azimuths.size());
    const GaussRule rule = panelledRule(20 + int(0.8 * k * (verticalReach(*solution.mesh, kind) + wide)));
    const double front = waveImpedance * k * k / (32.0 * pi * pi) * 2.0 * pi / double(azimuths.size());
    std::vector<SpectrumPowers> parts(rule.node.size());
    tbb::parallel_for(std::size_t(0), rule.node.size(), [&](std::size_t i) {
        if (watch.stopped())
            return;
        const double t = rule.node[i];
        // dOmega = d(sin e) d(azimuth); squared near the horizon of a soil, where the reflection changes fast
        const double height = kind == GroundKind::FreeSpace ? 2.0 * t - 1.0 : t * t;
        const double weight = 2.0 * (kind == GroundKind::FreeSpace ? 1.0 : t) * rule.weight[i] * front;
        const double elevation = std::asin(height);
        const Reflection r = field.reflection(elevation);
        for (const RadiationVectors& n : field.vectorRow(elevation, azimuths)) {
            parts[i].sky +=
                weight * (std::norm(n.theta + r.tm * n.imageTheta + n.soilTheta) + std::norm(n.phi - r.te * n.imagePhi + n.soilPhi));
            const auto down = [](Complex falls, Complex rises, Complex direct, Complex fromSoil) {
                return std::norm(falls) - std::norm(rises) - 2.0 * (std::conj(direct) * fromSoil).real();
            };
            parts[i].intoSoil += weight * (down(n.imageTheta, r.tm * n.imageTheta + n.soilTheta, n.theta, n.soilTheta) +
                                           down(n.imagePhi, n.soilPhi - r.te * n.imagePhi, n.phi, n.soilPhi));
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
        return stoppedFault();
    const double ofRemainder = quadraticForm(remainderMatrix(*solution.mesh, *loss, watch), solution.unknowns, realPart);
    const double imageLoss = loss->image().imag(); // the quasi-static image takes power as j Im Kq times the mirror image
    const double ofImage = -imageLoss * quadraticForm(mirrorMatrix(*solution.mesh, watch), solution.unknowns, imaginaryPart);
    return ofRemainder + ofImage - imageLoss * spectrum.imageExchange;
}

} // namespace

ReflectionZone reflectionZone(double height, double elevation, double wavelength)
{
    // paths longer than the shortest by half a wave: sqrt(x^2 + h^2) = x cos e + h sin e + lambda / 2
    const double c = std::cos(elevation), s = std::max(std::sin(elevation), 1e-6), whole = height * s + 0.5 * wavelength;
    const double root = std::sqrt(std::max(0.0, whole * whole - s * s * height * height));
    return {(c * whole - root) / (s * s), (c * whole + root) / (s * s)};
}

FarField::FarField(const Solution& solution)
    : m_beyond(solution.model->beyond), m_frequency(solution.frequency), m_ground(solution.model->ground), m_kind(m_ground.kind),
      m_permittivity(solution.model->ground.complexPermittivity(solution.frequency)), m_waveNumber(waveNumber(solution.frequency)),
      m_inputPower(solution.inputPower)
{
    addRuns(solution);
}

FarField FarField::reflectedBy(const Ground& ground, std::vector<FarSector> beyond) const
{
    FarField other = *this;
    other.m_ground = ground;
    other.m_kind = ground.kind;
    other.m_permittivity = ground.complexPermittivity(m_frequency);
    other.m_beyond = std::move(beyond);
    return other;
}

void FarField::addRuns(const Solution& solution)
{
    const Mesh& mesh = *solution.mesh;
    std::vector<double> along, radius, angle, cosine, sine; // of the quadrature points of one run; m from its centre
    std::vector<Complex> moment;                            // their current times weight
    for (std::size_t first = 0, last = 0; first < mesh.elements.size(); first = last) {
        const Element& start = mesh.elements[first];
        for (last = first + 1; last < mesh.elements.size(); ++last) {
            const Element& next = mesh.elements[last];
            if (next.wire != start.wire || next.inSoil != start.inSoil ||
                distance(next.start, mesh.elements[last - 1].end) > jointTolerance || dot(next.tangent, start.tangent) < straight)
                break;
        }
        Run run;
        const Vec3 whole = mesh.elements[last - 1].end - start.start;
        run.tangent = unit(whole);
        run.centre = start.start + 0.5 * whole;
        run.halfLength = 0.5 * norm(whole);
        run.inSoil = start.inSoil;
        const bool steep = start.inSoil && std::abs(run.tangent.z) > levelWithin;
        along.clear(), radius.clear(), moment.clear();
        for (std::size_t e = first; e < last; ++e) {
            const std::vector<Complex> local = solution.elementCurrents(e);
            const Element& element = mesh.elements[e];
            const GaussRule& rule = gaussRule(std::min(16, mesh.degree + 2 + int(m_waveNumber * element.length)));
            for (std::size_t q = 0; q < rule.node.size(); ++q) {
                along.push_back(dot(element.at(rule.node[q]) - run.centre, run.tangent));
                radius.push_back(element.radiusAt(rule.node[q]));
                moment.push_back(0.5 * element.length * rule.weight[q] * currentOn(mesh.degree, local, rule.node[q]));
                if (steep)
                    m_steep.push_back({element.at(rule.node[q]), run.tangent, moment.back()});
                if (start.inSoil)
                    continue;
                m_air.push_back({element.at(rule.node[q]), run.tangent, moment.back()});
                m_highest = std::max(m_highest, m_air.back().point.z);
            }
        }
        if (steep)
            continue;
        run.step = largestPhaseStep / run.halfLength;
        constexpr int before = runStencil / 2 - 1; // steps
        const int count = int(2.0 * m_waveNumber / run.step) + runStencil + 1;
        angle.resize(along.size()), cosine.resize(along.size()), sine.resize(along.size());
        for (int i = 0; i < count; ++i) {
            const double q = -m_waveNumber + (i - before) * run.step;
            for (std::size_t p = 0; p < along.size(); ++p)
                angle[p] = q * along[p];
            cosSin(angle.data(), int(angle.size()), cosine.data(), sine.data());
            Complex sum = 0.0;
            for (std::size_t p = 0; p < along.size(); ++p)
                sum += spreadRound((m_waveNumber * m_waveNumber - q * q) * radius[p] * radius[p]) * moment[p] * Complex{cosine[p], sine[p]};
            run.samples.push_back(sum);
        }
        m_runs.push_back(std::move(run));
    }
}

/// Adds I(q) exp(jk r.c) times the theta and phi parts of a tangent, for all azimuths.
void FarField::addRow(const Run& run, Vec3 tangent, Vec3 centre, double k, Vec3 way, const std::vector<double>& cosine,
                      const std::vector<double>& sine, std::vector<Complex>& theta, std::vector<Complex>& phi)
{
    const double ce = way.x, se = way.z;
    const std::size_t count = cosine.size();
    std::vector<double> phase(count), c(count), s(count);
    for (std::size_t a = 0; a < count; ++a)
        phase[a] = k * (ce * (cosine[a] * centre.x + sine[a] * centre.y) + se * centre.z);
    cosSin(phase.data(), int(count), c.data(), s.data());
    for (std::size_t a = 0; a < count; ++a) {
        const double level = cosine[a] * tangent.x + sine[a] * tangent.y;
        const double place = k * (1.0 + ce * level + se * tangent.z) / run.step;
        const int whole = std::clamp(int(place), 0, int(run.samples.size()) - runStencil);
        const std::array<double, runStencil> weight = runWeights(place - whole);
        double re = 0.0, im = 0.0;
        for (int i = 0; i < runStencil; ++i) {
            re += weight[i] * run.samples[whole + i].real();
            im += weight[i] * run.samples[whole + i].imag();
        }
        const Complex wave{re * c[a] - im * s[a], re * s[a] + im * c[a]};
        theta[a] += (se * level - ce * tangent.z) * wave;
        phi[a] += (cosine[a] * tangent.y - sine[a] * tangent.x) * wave;
    }
}

std::vector<RadiationVectors> FarField::vectorRow(double elevation, const std::vector<double>& azimuths) const
{
    const std::size_t count = azimuths.size();
    std::vector<double> cosine(count), sine(count);
    for (std::size_t a = 0; a < count; ++a)
        cosine[a] = std::cos(azimuths[a]), sine[a] = std::sin(azimuths[a]);
    const Vec3 way{std::cos(elevation), 0.0, std::sin(elevation)};
    std::vector<Complex> theta(count), phi(count), imageTheta(count), imagePhi(count);
    for (const Run& run : m_runs) {
        if (run.inSoil)
            continue;
        addRow(run, run.tangent, run.centre, m_waveNumber, way, cosine, sine, theta, phi);
        if (m_kind != GroundKind::FreeSpace) // the image's current is reversed in plan
            addRow(run, mirrored(run.tangent), mirrored(run.centre), m_waveNumber, way, cosine, sine, imageTheta, imagePhi);
    }
    std::vector<RadiationVectors> row(count);
    for (std::size_t a = 0; a < count; ++a)
        row[a] = {theta[a], phi[a], -imageTheta[a], -imagePhi[a], 0.0, 0.0};
    addSoilRow(elevation, cosine, sine, row);
    return row;
}

void FarField::addSoilRow(double elevation, const std::vector<double>& cosine, const std::vector<double>& sine,
                          std::vector<RadiationVectors>& row) const
{
    const double ce = std::cos(elevation), se = std::sin(elevation);
    const Reflection r = reflection(elevation);
    const Complex along = se * (1.0 - r.tm), down = ce * (1.0 + r.tm) / m_permittivity, across = 1.0 + r.te;
    const Complex g1 = m_waveNumber * std::sqrt(ce * ce - m_permittivity);
    const std::size_t count = cosine.size();
    std::vector<Complex> theta(count), phi(count);
    for (const Run& run : m_runs) {
        if (!run.inSoil)
            continue;
        std::fill(theta.begin(), theta.end(), 0.0);
        std::fill(phi.begin(), phi.end(), 0.0);
        const Vec3 above{run.centre.x, run.centre.y, 0.0};
        addRow(run, run.tangent, above, m_waveNumber, {ce, 0.0, 1.0}, cosine, sine, theta, phi); // whole, along the surface
        const Complex out = std::exp(g1 * run.centre.z);
        for (std::size_t a = 0; a < count; ++a)
            row[a].soilTheta += along * out * theta[a], row[a].soilPhi += across * out * phi[a];
    }
    for (const SoilMoment& m : m_steep) {
        const Complex out = m.moment * std::exp(g1 * m.point.z);
        for (std::size_t a = 0; a < count; ++a) {
            const Complex wave = out * std::polar(1.0, m_waveNumber * ce * (cosine[a] * m.point.x + sine[a] * m.point.y));
            row[a].soilTheta += (along * (cosine[a] * m.tangent.x + sine[a] * m.tangent.y) - down * m.tangent.z) * wave;
            row[a].soilPhi += across * (cosine[a] * m.tangent.y - sine[a] * m.tangent.x) * wave;
        }
    }
}

RadiationVectors FarField::vectors(double elevation, double azimuth) const { return vectorRow(elevation, {azimuth}).front(); }

namespace {

/// Fresnel's coefficients over a soil.
Reflection fresnel(Complex permittivity, double elevation)
{
    const double c = std::cos(elevation);
    const Complex nu0{0.0, std::sin(elevation)}, nu1 = std::sqrt(c * c - permittivity);
    return {(permittivity * nu0 - nu1) / (permittivity * nu0 + nu1), (nu0 - nu1) / (nu0 + nu1)};
}

} // namespace

Reflection FarField::reflection(double elevation) const
{
    if (m_kind == GroundKind::FreeSpace)
        return {0.0, 0.0};
    if (m_kind == GroundKind::Perfect)
        return {1.0, -1.0};
    return fresnel(m_permittivity, elevation);
}

std::vector<FarField::Wave> FarField::flatWaves(double elevation, const std::vector<double>& azimuths) const
{
    const Reflection r = reflection(elevation);
    std::vector<Wave> out;
    for (const RadiationVectors& n : vectorRow(elevation, azimuths))
        out.push_back({n.theta + r.tm * n.imageTheta + n.soilTheta, n.phi - r.te * n.imagePhi + n.soilPhi});
    return out;
}

std::optional<std::vector<FarField::Wave>> FarField::wavesOver(const FarSector& sector, double elevation,
                                                               const std::vector<double>& azimuths) const
{
    const auto terrain = TerrainHeights::over(sector.over(m_ground), m_frequency, m_highest);
    if (!terrain)
        return std::nullopt;
    std::vector<double> heights{0.0}; // at which currents in the soil send out what they do
    for (const AirMoment& m : m_air)
        heights.push_back(m.point.z);
    const std::vector<TerrainResponse> over = terrain->at(heights, elevation);
    const TerrainResponse onFlat = flatResponse(m_ground, m_frequency, 0.0, elevation);
    const auto part = [](Complex a, Complex b) { return std::abs(b) > 1e-12 ? a / b : Complex{1.0, 0.0}; };
    const Complex soilTheta = part(over[0].vertical, onFlat.vertical), soilPhi = part(over[0].across, onFlat.across);
    const bool inSoil = !m_steep.empty() || std::any_of(m_runs.begin(), m_runs.end(), [](const Run& r) { return r.inSoil; });
    const std::vector<RadiationVectors> flat = inSoil ? vectorRow(elevation, azimuths) : std::vector<RadiationVectors>(azimuths.size());
    const double level = m_waveNumber * std::cos(elevation);
    std::vector<double> phase(m_air.size()), cosine(m_air.size()), sine(m_air.size());
    std::vector<Wave> out;
    for (std::size_t a = 0; a < azimuths.size(); ++a) {
        const double c = std::cos(azimuths[a]), s = std::sin(azimuths[a]);
        for (std::size_t i = 0; i < m_air.size(); ++i)
            phase[i] = level * (c * m_air[i].point.x + s * m_air[i].point.y);
        cosSin(phase.data(), int(phase.size()), cosine.data(), sine.data());
        Wave w{soilTheta * flat[a].soilTheta, soilPhi * flat[a].soilPhi};
        for (std::size_t i = 0; i < m_air.size(); ++i) {
            const AirMoment& m = m_air[i];
            const TerrainResponse& r = over[i + 1];
            const Complex moment = m.moment * Complex{cosine[i], sine[i]};
            w.theta += moment * ((c * m.tangent.x + s * m.tangent.y) * r.along - m.tangent.z * r.vertical);
            w.phi += moment * ((c * m.tangent.y - s * m.tangent.x) * r.across);
        }
        out.push_back(w);
    }
    return out;
}

std::vector<FarField::Squares> FarField::squares(double elevation, const std::vector<double>& azimuths) const
{
    std::vector<Squares> all(azimuths.size());
    std::vector<double> left(azimuths.size(), 1.0);
    const std::size_t grounds = m_kind == GroundKind::Real ? m_beyond.size() : 0;
    for (std::size_t s = 0; s <= grounds; ++s) { // flat ground for what is left
        std::vector<std::size_t> which;
        std::vector<double> some, shares;
        for (std::size_t a = 0; a < azimuths.size(); ++a)
            if (const double share = s == grounds ? left[a] : std::min(left[a], m_beyond[s].shareAt(azimuths[a])); share > 1e-9)
                which.push_back(a), some.push_back(azimuths[a]), shares.push_back(share);
        if (which.empty())
            continue;
        auto part = s < grounds ? wavesOver(m_beyond[s], elevation, some) : std::nullopt;
        if (!part)
            part = flatWaves(elevation, some);
        for (std::size_t i = 0; i < which.size(); ++i) {
            all[which[i]].theta += shares[i] * std::norm((*part)[i].theta);
            all[which[i]].phi += shares[i] * std::norm((*part)[i].phi);
            left[which[i]] -= shares[i];
        }
    }
    return all;
}

FarField::Intensity FarField::intensity(double elevation, double azimuth) const
{
    const Squares w = squares(elevation, {azimuth}).front();
    const double front = waveImpedance * m_waveNumber * m_waveNumber / (32.0 * pi * pi);
    return {front * w.theta, front * w.phi};
}

double FarField::gain(double elevation, double azimuth) const
{
    const double ratio = 4.0 * pi * intensity(elevation, azimuth).total() / m_inputPower;
    return ratio > 1e-30 ? 10.0 * std::log10(ratio) : nothing;
}

std::vector<double> FarField::gainRow(double elevation, const std::vector<double>& azimuths) const
{
    const double front = waveImpedance * m_waveNumber * m_waveNumber / (8.0 * pi * m_inputPower);
    std::vector<double> row;
    row.reserve(azimuths.size());
    for (const Squares& w : squares(elevation, azimuths)) {
        const double ratio = front * (w.theta + w.phi);
        row.push_back(ratio > 1e-30 ? 10.0 * std::log10(ratio) : nothing);
    }
    return row;
}

bool FarField::prepare(const std::vector<double>& azimuths, const Watch& watch) const
{
    if (m_kind != GroundKind::Real)
        return !watch.stopped();
    std::vector<TerrainProfile> needed;
    for (const FarSector& s : m_beyond)
        if (std::any_of(azimuths.begin(), azimuths.end(), [&](double a) { return s.shareAt(a) > 1e-9; }))
            needed.push_back(s.over(m_ground));
    TerrainHeights::prepare(needed, m_frequency, m_highest, watch);
    return !watch.stopped();
}

std::vector<std::vector<double>> FarField::gainGrid(const std::vector<double>& elevations, const std::vector<double>& azimuths) const
{
    (void)prepare(azimuths);
    std::vector<std::vector<double>> grid(elevations.size());
    tbb::parallel_for(std::size_t(0), elevations.size(), [&](std::size_t e) { grid[e] = gainRow(elevations[e], azimuths); });
    return grid;
}

namespace {

/// What a line takes from the currents at its ends, W.
double linePower(const LineSection& line, double frequency, Complex near, Complex far)
{
    if (line.end != LineEnd::Joined)
        return 0.5 * line.stubImpedance(frequency).real() * std::norm(near);
    const auto [own, mutual] = line.impedances(frequency);
    return 0.5 * (own.real() * (std::norm(near) + std::norm(far)) + 2.0 * mutual.real() * (near * std::conj(far)).real());
}

} // namespace

Result<PowerLedger> powerLedger(const Solution& solution, GroundTableCache& tables, const Watch& watch)
{
    PowerLedger ledger;
    const Mesh& mesh = *solution.mesh;
    const double in = solution.inputPower;
    const SpectrumPowers spectrum = spectrumPowers(solution, watch);
    if (watch.stopped())
        return stoppedFault();
    ledger.sky = spectrum.sky / in;
    Matrix ofWire(std::size_t(mesh.unknowns) * mesh.unknowns);
    addWire(mesh, *solution.model, ofWire);
    ledger.wire = quadraticForm(ofWire, solution.unknowns, realPart) / in;
    Matrix ofCoils(ofWire.size());
    addCoils(mesh, *solution.model, ofCoils);
    ledger.loads = quadraticForm(ofCoils, solution.unknowns, realPart) / in; // a coil that has a length counts as one that has none
    ledger.wire -= ledger.loads;
    const auto through = [&](const PortRow& row) {
        Complex current = 0.0;
        for (const auto& [unknown, factor] : row)
            current += factor * solution.unknowns[unknown];
        return current;
    };
    for (std::size_t l = 0; l < mesh.loads.size(); ++l)
        ledger.loads += 0.5 * solution.model->loads[l].impedance(solution.frequency).real() * std::norm(through(mesh.loads[l])) / in;
    for (std::size_t l = 0; l < mesh.lines.size(); ++l)
        ledger.lines += linePower(solution.model->lines[l], solution.frequency, through(mesh.lines[l][0]), through(mesh.lines[l][1])) / in;
    ledger.transformer = solution.transformerPower / in;
    const Ground& ground = solution.model->ground;
    if (ground.kind != GroundKind::Real)
        return ledger;
    if (mesh.reachesSoil()) {
        const Result<double> taken = soilPower(solution, spectrum.intoSoil, tables, watch);
        if (!taken)
            return taken.faults();
        Matrix displaced(std::size_t(mesh.unknowns) * mesh.unknowns);
        addDisplacedSoil(mesh, *solution.model, displaced);
        const double spared = quadraticForm(displaced, solution.unknowns, realPart); // below zero
        ledger.soil = (*taken + spared) / in;
        ledger.wire -= spared / in;
        return ledger;
    }
    ledger.soil = spectrum.intoSoil / in;
    if (ground.complexPermittivity(solution.frequency) != Complex{1.0, 0.0}) { // soil like air has no evanescent waves to take
        const Result<double> evanescent = evanescentPower(solution, spectrum, tables, watch);
        if (!evanescent)
            return evanescent.faults();
        ledger.soil += *evanescent / in;
        if (watch.stopped())
            return stoppedFault();
    }
    return ledger;
}

} // namespace vetchling::em
