#include "core/em/solver.h"

#include "core/em/nested_solve.h"

#include <cblas.h>
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace vetchling::em {
namespace {

constexpr int mostUnknowns = int(mostPieces);

std::vector<Complex> excitation(const WireModel& model, const Mesh& mesh)
{
    std::vector<Complex> rhs(mesh.unknowns);
    for (std::size_t f = 0; f < model.feeds.size(); ++f)
        for (const auto& [unknown, factor] : mesh.feeds[f])
            rhs[unknown] += factor * model.feeds[f].voltage;
    return rhs;
}

Complex portCurrent(const PortRow& row, const std::vector<Complex>& x)
{
    Complex sum = 0.0;
    for (const auto& [unknown, factor] : row)
        sum += factor * x[unknown];
    return sum;
}

std::size_t drivenFeed(const WireModel& model)
{
    const auto driven = std::find_if(model.feeds.begin(), model.feeds.end(), [](const Feed& f) { return std::abs(f.voltage) > 0.0; });
    return std::size_t(driven - model.feeds.begin());
}

std::vector<Complex> denseRow(const PortRow& row, int unknowns)
{
    std::vector<Complex> dense(unknowns);
    for (const auto& [unknown, factor] : row)
        dense[unknown] += factor;
    return dense;
}

/// The difference to one degree less, times what makes it hold in 9 of 10 random antennas (tests/validation), and a floor
/// for quadrature and the soil's table.
double impedanceError(const std::vector<Complex>& portByLevel, Complex voltage)
{
    constexpr double factor = 3.0, floor = 3e-4;
    const Complex z = voltage / portByLevel.back(), before = voltage / portByLevel[portByLevel.size() - 2];
    return factor * std::abs(z - before) / std::abs(z) + floor;
}

/// How much the impedance answers, relatively, to gaps twice as wide, to first order in the change dr of a port's row r. The system is
/// symmetric, so that a feed's current I = r A^-1 r V changes by 2 dr x, and a load Z, which is Z r r^T in A, changes the impedance by
/// 2 Z (dr x)(r x) / I^2.
double gapError(const WireModel& model, const Mesh& mesh, std::size_t feed, const std::vector<Complex>& x)
{
    const Complex current = portCurrent(mesh.feeds[feed], x), impedance = model.feeds[feed].voltage / current;
    Complex change = -2.0 * impedance * (portCurrent(mesh.widerFeeds[feed], x) - current) / current;
    for (std::size_t l = 0; l < model.loads.size(); ++l) {
        if (mesh.loads[l].empty())
            continue;
        const Complex through = portCurrent(mesh.loads[l], x), wider = portCurrent(mesh.widerLoads[l], x);
        change += 2.0 * model.loads[l].impedance(mesh.frequency) * (wider - through) * through / (current * current);
    }
    return std::abs(change / impedance);
}

Fault tooLarge(const WireModel& model, double frequency, double unknowns)
{
    return {
        "wires",
        {coreText("core", "%1 wavelengths of wire need %2 unknowns, more than the %3 that fit; lower the frequency or shorten the wires"),
         fmt::format("{:.0f}", model.totalLength() / wavelength(frequency)), fmt::format("{:.0f}", unknowns),
         std::to_string(mostUnknowns)}};
}

/// Wires in soil that conducts so well that the wave there dies out within a few of their radii: a current along the axis is no picture
/// then.
Faults tooThick(const WireModel& model, double frequency)
{
    constexpr double most = 0.25; // of the wave number there times the radius
    Faults faults;
    if (model.ground.kind != GroundKind::Real || model.lowestPoint() >= 0.0)
        return faults;
    const double k = waveNumber(frequency) * std::sqrt(std::abs(model.ground.complexPermittivity(frequency)));
    for (std::size_t w = 0; w < model.wires.size(); ++w) {
        const Wire& wire = model.wires[w];
        const bool inSoil = std::any_of(wire.points.begin(), wire.points.end(), [](Vec3 p) { return p.z < 0.0; });
        if (inSoil && k * std::max(wire.radius, wire.endRadius.value_or(0.0)) > most)
            faults.push_back(
                {fmt::format("wires[{}].radius_m", w),
                 {coreText("core", "the soil conducts so well that a wave in it ends within %1 m: a wire as thick as this cannot be "
                                   "computed to a percent there"),
                  fmt::format("{:.2g}", std::sqrt(2.0) / k)}});
    }
    return faults;
}

/// What drives or loads a wire so deep that nothing of it comes up, at this frequency.
Faults tooDeep(const WireModel& model, double frequency)
{
    Faults faults;
    if (model.ground.kind != GroundKind::Real || model.lowestPoint() >= 0.0)
        return faults;
    const double inSoil = wavelength(frequency) / std::sqrt(std::abs(model.ground.complexPermittivity(frequency)));
    const auto check = [&](std::size_t wire, double at, const char* list, std::size_t index) {
        if (const double depth = -model.wires[wire].pointAt(at).z; depth > inSoil)
            faults.push_back(
                {fmt::format("{}[{}].at_m", list, index),
                 {coreText("core", "lies %1 m deep, more than the wavelength there, %2 m: no field of it comes to the surface"),
                  fmt::format("{:.3g}", depth), fmt::format("{:.3g}", inSoil)}});
    };
    for (std::size_t i = 0; i < model.feeds.size(); ++i)
        check(model.feeds[i].wire, model.feeds[i].at, "feeds", i);
    for (std::size_t i = 0; i < model.loads.size(); ++i)
        check(model.loads[i].wire, model.loads[i].at, "loads", i);
    return faults;
}

Result<Solution> solveOn(const std::shared_ptr<const Mesh>& meshed, const std::shared_ptr<const WireModel>& model, GroundTableCache& tables,
                         const Watch& watch, const PairPlan* plan = nullptr)
{
    const Mesh& mesh = *meshed;
    const double frequency = mesh.frequency;
    for (const Faults& faults : {tooDeep(*model, frequency), tooThick(*model, frequency)})
        if (!faults.empty())
            return faults;
    Solution out;
    out.frequency = frequency;
    out.model = model;
    out.mesh = meshed;
    openblas_set_num_threads(1); // threads are used a level higher, over pairs of elements and frequencies
    Result<Matrix> system = systemMatrix(mesh, *model, tables, watch, plan);
    if (!system)
        return system.faults();
    Matrix matrix = std::move(system).value();
    if (watch.stopped())
        return stoppedFault();

    const std::size_t feed = drivenFeed(*model);
    const Complex voltage = model->feeds[feed].voltage;
    const std::vector<Complex> rhs = excitation(*model, mesh);
    NestedSolution nested = nestedSolve(matrix, mesh.levelStarts, rhs, denseRow(mesh.feeds[feed], mesh.unknowns), watch);
    if (watch.stopped())
        return stoppedFault();
    if (nested.unknowns.empty())
        return Fault{"wires", coreText("core", "the equations have no solution; look for wires that almost touch")};
    out.unknowns = std::move(nested.unknowns);
    for (std::size_t f = 0; f < model->feeds.size(); ++f) {
        const Feed& source = model->feeds[f];
        const Complex current = portCurrent(mesh.feeds[f], out.unknowns);
        const double atGap = 0.5 * (source.voltage * std::conj(current)).real();
        const double passed = source.transformer ? source.transformer->at(frequency).efficiency(source.voltage / current) : 1.0;
        const double atLine = atGap > 0.0 && passed > 0.0 ? atGap / passed : atGap;
        out.feedCurrents.push_back(current);
        out.inputPower += atLine;
        out.transformerPower += atLine - atGap;
    }
    const Complex atGap = voltage / out.feedCurrents[feed];
    double passed = 1.0; // of the relative error
    out.impedance = atGap;
    if (const auto& transformer = model->feeds[feed].transformer) {
        const TwoPort chain = transformer->at(frequency);
        out.impedance = chain.towardsRadio(atGap);
        passed = std::abs(chain.slope(atGap) * atGap / out.impedance);
    }
    if (!std::isfinite(std::abs(out.impedance)))
        return Fault{"feeds", coreText("core", "no current flows at the feed; look for a wire that is not joined")};
    out.gapErrorPercent = 100.0 * passed * gapError(*model, mesh, feed, out.unknowns);
    out.impedanceErrorPercent = 100.0 * passed * impedanceError(nested.portByLevel, voltage) + out.gapErrorPercent;
    return out;
}

Result<Solution> solveOnce(const std::shared_ptr<const WireModel>& model, double frequency, GroundTableCache& tables,
                           const MeshOptions& options, const Watch& watch)
{
    const double atLeast = model->totalLength() / wavelength(frequency) * options.elementsPerWavelength * options.degree;
    if (atLeast > mostUnknowns) // before a mesh is made
        return tooLarge(*model, frequency, atLeast);
    const auto mesh = std::make_shared<const Mesh>(makeMesh(*model, frequency, options));
    if (mesh->unknowns > mostUnknowns)
        return tooLarge(*model, frequency, mesh->unknowns);
    return solveOn(mesh, model, tables, watch);
}

} // namespace

PreparedModel::PreparedModel(std::shared_ptr<const WireModel> model, const MeshOptions& mesh, double highestFrequency, const Watch& watch)
    : m_model(std::move(model)), m_mesh(makeMesh(*m_model, highestFrequency, mesh)), m_plan(m_mesh, *m_model, highestFrequency, watch)
{
}

Result<Solution> PreparedModel::solve(double frequency, GroundTableCache& tables, const Watch& watch) const
{
    auto mesh = std::make_shared<Mesh>(m_mesh);
    mesh->frequency = frequency;
    if (!m_plan.complete)
        return stoppedFault();
    return solveOn(mesh, m_model, tables, watch, &m_plan);
}

Result<Solution> solve(std::shared_ptr<const WireModel> model, double frequency, GroundTableCache& tables, const SolveOptions& options,
                       const Watch& watch)
{
    constexpr double refinement = 3.0, hopeless = 3.0;
    constexpr int mostRefinements = 2, mostRefined = 700; // unknowns; larger meshes are refined once, if at all
    if (Faults faults = findFrequencyFaults(frequency, "frequency"); !faults.empty())
        return faults;
    MeshOptions mesh = options.mesh;
    Result<Solution> best = solveOnce(model, frequency, tables, mesh, watch);
    for (int i = 0; i < mostRefinements && best; ++i) {
        if (options.wantedErrorPercent <= 0.0 || best->impedanceErrorPercent - best->gapErrorPercent <= options.wantedErrorPercent ||
            best->mesh->unknowns > mostRefined)
            break;
        mesh.fineness *= refinement;
        Result<Solution> finer = solveOnce(model, frequency, tables, mesh, watch);
        if (!finer && watch.stopped())
            return finer;
        if (!finer || finer->impedanceErrorPercent - finer->gapErrorPercent >
                          hopeless * (best->impedanceErrorPercent - best->gapErrorPercent))
            break; // too large, or a model with no settled answer: the one before stands
        best = std::move(finer);
    }
    return best;
}

std::vector<Complex> Solution::elementCurrents(std::size_t element) const
{
    std::vector<Complex> local(mesh->degree + 1);
    for (const Share& s : mesh->shares[element])
        local[s.function] += s.factor * unknowns[s.unknown];
    return local;
}

Complex Solution::currentAt(std::size_t wire, double along) const
{
    for (std::size_t e = 0; e < mesh->elements.size(); ++e) {
        const Element& element = mesh->elements[e];
        if (element.wire != wire || along < element.from - jointTolerance || along > element.to + jointTolerance)
            continue;
        const double v = std::clamp(2.0 * (along - element.from) / (element.to - element.from) - 1.0, -1.0, 1.0);
        return currentOn(mesh->degree, elementCurrents(e), v);
    }
    return {};
}

double endVoltage(double peakCurrent, double wireLength, double radius)
{
    return peakCurrent * 60.0 * (std::log(2.0 * wireLength / radius) - 1.0);
}

namespace {

/// The charges of all elements in short straight pieces, and the potential that they make.
class ChargedWires {
public:
    explicit ChargedWires(const Solution& solution) : m_mesh(*solution.mesh), m_k(waveNumber(solution.frequency))
    {
        const Ground& ground = solution.model->ground;
        const double omega = 2.0 * pi * solution.frequency;
        const Complex permittivity = ground.complexPermittivity(solution.frequency);
        m_permittivity = permittivity;
        m_image = ground.kind == GroundKind::FreeSpace ? Complex(0.0)
                  : ground.kind == GroundKind::Perfect ? Complex(-1.0)
                                                       : -(permittivity - 1.0) / (permittivity + 1.0);
        for (std::size_t e = 0; e < m_mesh.elements.size(); ++e) {
            const Element& element = m_mesh.elements[e];
            const std::vector<Complex> local = solution.elementCurrents(e);
            const Complex scale = imaginaryUnit / omega * 2.0 / element.length; // the current's continuity: q = j/w dI/ds
            for (int i = 0; i < piecesEach; ++i) {
                const double v = 2.0 * (i + 0.5) / piecesEach - 1.0;
                const double half = 0.5 * element.length / piecesEach;
                m_pieces.push_back({element.at(v), element.tangent, half, element.radiusAt(v),
                                    scale * currentSlopeOn(m_mesh.degree, local, v), element.inSoil});
            }
        }
    }

    /// V, at v = -1..1 of an element, on the wire's surface.
    [[nodiscard]] Complex potential(std::size_t element, double v) const
    {
        const Vec3 at = m_mesh.elements[element].at(v);
        Complex sum = 0.0;
        const bool inSoil = m_mesh.elements[element].inSoil;
        for (const Piece& piece : m_pieces) {
            if (piece.inSoil || inSoil) { // of line and image across the surface and below it, as the static limits of soil_kernels.h
                const bool across = piece.inSoil != inSoil;
                sum += (across ? 2.0 / (1.0 + m_permittivity) : 1.0 / m_permittivity) * ofPiece(piece, piece.middle, piece.along, at);
                if (!across)
                    sum -= m_image / m_permittivity * ofPiece(piece, mirrored(piece.middle), mirrored(piece.along), at);
                continue;
            }
            sum += ofPiece(piece, piece.middle, piece.along, at);
            if (m_image != 0.0)
                sum += m_image * ofPiece(piece, mirrored(piece.middle), mirrored(piece.along), at);
        }
        return sum / (4.0 * pi * vacuumPermittivity);
    }

private:
    struct Piece {
        Vec3 middle, along;
        double half, radius; ///< m
        Complex charge;      ///< C/m
        bool inSoil = false;
    };

    /// Of an even line charge, its phase that of its middle.
    [[nodiscard]] Complex ofPiece(const Piece& piece, Vec3 middle, Vec3 along, Vec3 at) const
    {
        const Vec3 to = at - middle;
        const double beside = dot(to, along), away = std::sqrt(std::max(0.0, dot(to, to) - beside * beside) + piece.radius * piece.radius);
        const double line = std::asinh((piece.half - beside) / away) + std::asinh((piece.half + beside) / away);
        return piece.charge * line * std::exp(-imaginaryUnit * m_k * norm(to));
    }

    static constexpr int piecesEach = 6;
    const Mesh& m_mesh;
    double m_k;
    Complex m_image, m_permittivity = 1.0;
    std::vector<Piece> m_pieces;
};

} // namespace

std::vector<std::vector<double>> voltageRibbon(const Solution& solution, int pieces)
{
    const ChargedWires wires(solution);
    std::vector<std::vector<double>> ribbon(solution.mesh->elements.size());
    for (std::size_t e = 0; e < ribbon.size(); ++e)
        for (int i = 0; i <= pieces; ++i)
            ribbon[e].push_back(std::abs(wires.potential(e, 2.0 * i / pieces - 1.0)));
    return ribbon;
}

std::vector<std::vector<double>> currentRibbon(const Solution& solution, int pieces)
{
    const Mesh& mesh = *solution.mesh;
    double strongest = 0.0;
    std::vector<std::vector<double>> ribbon(mesh.elements.size());
    for (std::size_t e = 0; e < mesh.elements.size(); ++e) {
        const std::vector<Complex> local = solution.elementCurrents(e);
        for (int i = 0; i <= pieces; ++i)
            ribbon[e].push_back(std::abs(currentOn(mesh.degree, local, 2.0 * i / pieces - 1.0)));
        strongest = std::max(strongest, *std::max_element(ribbon[e].begin(), ribbon[e].end()));
    }
    for (auto& element : ribbon)
        for (double& current : element)
            current = strongest > 0.0 ? current / strongest : 0.0;
    return ribbon;
}

double strongestCurrent(const Solution& solution, std::size_t wire)
{
    constexpr int steps = 6; // of an element
    double strongest = 0.0;
    for (std::size_t e = 0; e < solution.mesh->elements.size(); ++e)
        if (solution.mesh->elements[e].wire == wire)
            for (int i = 0; i <= steps; ++i)
                strongest =
                    std::max(strongest, std::abs(currentOn(solution.mesh->degree, solution.elementCurrents(e), 2.0 * i / steps - 1.0)));
    return strongest;
}

} // namespace vetchling::em
