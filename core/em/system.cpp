#include "core/em/system.h"

#include "core/em/conductor.h"
#include "core/em/gauss.h"
#include "core/em/moments.h"
#include "core/em/pair_classes.h"

#include <oneapi/tbb/parallel_for.h>

#include <algorithm>
#include <array>
#include <cmath>

namespace vetchling::em {
namespace {

constexpr int most = largestDegree + 1;
constexpr double nearRatio = 0.9; // the remainder needs its graded rule closer than this times the longer element
constexpr int gradedNodes = 8;
constexpr double shortRatio = 0.25; // an element shorter than this times the distance to the image needs few nodes
constexpr int mostNodes = largestDegree + 2;
constexpr std::size_t pairsAtOnce = 40000; // blocks of 600 bytes

/// The local current functions (mesh.h) and their slopes d/dv.
struct LocalFunctions {
    std::vector<LegendreSum> current, slope;

    explicit LocalFunctions(int degree) : current(degree + 1), slope(degree + 1)
    {
        for (int end : {0, 1}) {
            current[end].add(0, 0.5);
            current[end].add(1, end == 0 ? -0.5 : 0.5);
            slope[end].add(0, end == 0 ? -0.5 : 0.5);
        }
        for (int k = 2; k <= degree; ++k) {
            current[k].add(k, 1.0 / (4 * k - 2));
            current[k].add(k - 2, -1.0 / (4 * k - 2));
            slope[k].add(k - 1, 0.5);
        }
    }
};

struct Block {
    Complex value[most][most]{};
};

/// What a block is made of.
struct Parts {
    bool direct = true;
    Complex image = 0.0; ///< strength of the mirror image, 1 on perfect ground
    const GroundTable* remainder = nullptr;
    const PairPlan* plan = nullptr; ///< has the moments of direct and image
    const Watch* watch = nullptr;   ///< a stop leaves the matrix unfinished
    [[nodiscard]] bool stopped() const { return watch && watch->stopped(); }
};

class BlockMaker {
public:
    BlockMaker(const Mesh& mesh, const Parts& parts)
        : m_degree(mesh.degree), m_k(waveNumber(mesh.frequency)), m_local(mesh.degree), m_parts(parts),
          m_few((mesh.degree + 3) / 2, mesh.degree), m_many(mesh.degree + 2, mesh.degree)
    {
    }

    /// @param known its moments, or null
    Block block(const Element& m, const Element& n, const PairPlan::Interaction* known) const
    {
        Block sum = oneSided(m, n, known);
        if (&m == &n) // reciprocity holds to quadrature accuracy; make it exact
            for (int i = 0; i <= m_degree; ++i)
                for (int j = 0; j < i; ++j)
                    sum.value[i][j] = sum.value[j][i] = 0.5 * (sum.value[i][j] + sum.value[j][i]);
        return sum;
    }

private:
    Block oneSided(const Element& m, const Element& n, const PairPlan::Interaction* known) const
    {
        Block sum;
        if (m_parts.direct)
            addPotentials(m, n, known ? &known->direct : nullptr, 1.0, sum);
        if (m_parts.image != Complex{})
            addPotentials(m, mirroredElement(n), known ? &*known->image : nullptr, -m_parts.image, sum);
        if (m_parts.remainder)
            addRemainder(m, n, sum);
        return sum;
    }

    /// Vector and scalar potential of n tested on m, from the kernel's moments.
    void addPotentials(const Element& m, const Element& n, const MomentSeries* known, Complex strength, Block& sum) const
    {
        Moments moments;
        if (known)
            known->at(m_k, moments);
        else
            kernelMoments(m, n, m_k, m_degree, moments);
        const Complex vector =
            strength * Complex{0.0, waveImpedance * m_k / (4.0 * pi)} * (0.25 * m.length * n.length * dot(m.tangent, n.tangent));
        const Complex scalar = strength * Complex{0.0, -waveImpedance / (m_k * 4.0 * pi)};
        for (int i = 0; i <= m_degree; ++i)
            for (int j = 0; j <= m_degree; ++j)
                sum.value[i][j] += vector * moments.form(m_local.current[i], m_local.current[j]) +
                                   scalar * moments.form(m_local.slope[i], m_local.slope[j]);
    }

    void addRemainder(const Element& m, const Element& n, Block& sum) const
    {
        if (m.length > n.length) {
            Block transposed;
            addRemainder(n, m, transposed); // reciprocity: the half space's field matrix is symmetric
            for (int i = 0; i <= m_degree; ++i)
                for (int j = 0; j <= m_degree; ++j)
                    sum.value[i][j] += transposed.value[j][i];
            return;
        }
        const Element image = mirroredElement(n);
        const double closest = segmentDistance(m.start, m.end, image.start, image.end);
        if (closest > nearRatio * n.length)
            plainRemainder(m, n, closest, sum);
        else
            gradedRemainder(m, n, image, sum);
    }

    /// Values of the current functions at the nodes of a rule, times its weights.
    struct Sampled {
        int nodes = 0;
        std::array<double, mostNodes> node{};
        std::array<std::array<double, most>, mostNodes> function{};

        Sampled(int count, int degree) : nodes(count)
        {
            const GaussRule& rule = gaussRule(count);
            for (int a = 0; a < count; ++a) {
                node[a] = rule.node[a];
                localCurrents(node[a], degree, function[a].data());
                for (int i = 0; i <= degree; ++i)
                    function[a][i] *= rule.weight[a];
            }
        }
    };

    /// The field hardly changes along an element much shorter than its distance to the image: the polynomials alone count.
    const Sampled& sampled(const Element& e, double closest) const { return e.length < shortRatio * closest ? m_few : m_many; }

    void plainRemainder(const Element& m, const Element& n, double closest, Block& sum) const
    {
        const Sampled &outer = sampled(m, closest), &inner = sampled(n, closest);
        for (int a = 0; a < outer.nodes; ++a) {
            std::array<Complex, most> row{};
            for (int b = 0; b < inner.nodes; ++b) {
                const Complex field = testedField(m, outer.node[a], n, inner.node[b]);
                for (int j = 0; j <= m_degree; ++j)
                    row[j] += inner.function[b][j] * field;
            }
            for (int i = 0; i <= m_degree; ++i)
                for (int j = 0; j <= m_degree; ++j)
                    sum.value[i][j] += outer.function[a][i] * row[j];
        }
    }

    /// Near the mirror element: inner points through v = v0 + d sinh t, which flattens 1/R; outer graded to its ends.
    void gradedRemainder(const Element& m, const Element& n, const Element& image, Block& sum) const
    {
        const GaussRule& outer = gaussRule(gradedNodes);
        for (int a = 0; a < gradedNodes; ++a) {
            const double x = outer.node[a], u = 0.5 * x * (3.0 - x * x), slope = 1.5 * (1.0 - x * x);
            const Vec3 away = m.at(u) - image.centre();
            const double half = 0.5 * n.length, v0 = dot(away, image.tangent) / half;
            const double d = std::max(1e-9, std::sqrt(std::max(0.0, dot(away, away) / (half * half) - v0 * v0)));
            const double low = std::asinh((-1.0 - v0) / d), high = std::asinh((1.0 - v0) / d);
            const GaussRule& inner = gaussRule(std::min(24, 6 + int(1.2 * (high - low))));
            for (std::size_t b = 0; b < inner.node.size(); ++b) {
                const double t = 0.5 * (low + high) + 0.5 * (high - low) * inner.node[b];
                const double weight = 0.5 * (high - low) * inner.weight[b] * d * std::cosh(t);
                tested(m, u, n, std::clamp(v0 + d * std::sinh(t), -1.0, 1.0), outer.weight[a] * slope * weight, sum);
            }
        }
    }

    /// Adds -t_m . E . t_n at one pair of points, times the current functions there.
    void tested(const Element& m, double u, const Element& n, double v, double weight, Block& sum) const
    {
        const Complex scaled = weight * testedField(m, u, n, v);
        double fm[most], fn[most];
        localCurrents(u, m_degree, fm);
        localCurrents(v, m_degree, fn);
        for (int i = 0; i <= m_degree; ++i)
            for (int j = 0; j <= m_degree; ++j)
                sum.value[i][j] += fm[i] * fn[j] * scaled;
    }

    /// -t_m . E . t_n, times the two lengths that belong to du dv.
    Complex testedField(const Element& m, double u, const Element& n, double v) const
    {
        const Vec3 a = m.at(u), b = n.at(v), away = a - b;
        const double rho = std::sqrt(away.x * away.x + away.y * away.y);
        const HalfSpaceIntegrals g = m_parts.remainder->at(rho, a.z + b.z);
        const double cx = rho > 0.0 ? away.x / rho : 1.0, cy = rho > 0.0 ? away.y / rho : 0.0;
        const double mr = m.tangent.x * cx + m.tangent.y * cy, nr = n.tangent.x * cx + n.tangent.y * cy;
        const double horizontal = m.tangent.x * n.tangent.x + m.tangent.y * n.tangent.y;
        const Complex field =
            horizontal * (g.s + g.d) - 2.0 * mr * nr * g.d + (mr * n.tangent.z - m.tangent.z * nr) * g.x + m.tangent.z * n.tangent.z * g.z;
        return -0.25 * m.length * n.length * field;
    }

    int m_degree;
    double m_k;
    LocalFunctions m_local;
    Parts m_parts;
    Sampled m_few, m_many;
};

void scatter(const Mesh& mesh, std::size_t m, std::size_t n, const Block& block, Matrix& matrix)
{
    const std::size_t size = mesh.unknowns;
    for (const Share& a : mesh.shares[m])
        for (const Share& b : mesh.shares[n]) {
            const Complex value = a.factor * b.factor * block.value[a.function][b.function];
            matrix[a.unknown * size + b.unknown] += value;
            if (m != n)
                matrix[b.unknown * size + a.unknown] += value;
        }
}

Matrix assembleByPlan(const Mesh& mesh, const Parts& parts)
{
    const BlockMaker maker(mesh, parts);
    const auto& interactions = parts.plan->interactions;
    std::vector<Block> blocks(interactions.size());
    for (std::size_t i = 0; i < blocks.size() && !parts.stopped(); ++i) // in turn: who has a plan solves several frequencies at once
        blocks[i] = maker.block(mesh.elements[interactions[i].m], mesh.elements[interactions[i].n], &interactions[i]);
    Matrix matrix(std::size_t(mesh.unknowns) * mesh.unknowns);
    std::size_t pair = 0;
    for (std::size_t m = 0; m < mesh.elements.size(); ++m)
        for (std::size_t n = m; n < mesh.elements.size(); ++n)
            scatter(mesh, m, n, blocks[parts.plan->classOf[pair++]], matrix);
    return matrix;
}

Matrix assemble(const Mesh& mesh, const Parts& parts)
{
    if (parts.plan)
        return assembleByPlan(mesh, parts);
    const BlockMaker maker(mesh, parts);
    const std::size_t count = mesh.elements.size();
    Matrix matrix(std::size_t(mesh.unknowns) * mesh.unknowns);
    const std::size_t batch = std::max<std::size_t>(1, pairsAtOnce / count); // rows whose blocks are held at once
    PairClasses classes(mesh);
    std::vector<std::size_t> classOf;
    std::vector<Block> blocks;
    for (std::size_t first = 0; first < count && !parts.stopped(); first += batch) {
        const std::size_t last = std::min(count, first + batch);
        classes.clear();
        classOf.clear();
        for (std::size_t m = first; m < last; ++m)
            for (std::size_t n = m; n < count; ++n)
                classOf.push_back(classes.classOf(m, n));
        const auto& founders = classes.founders();
        blocks.resize(founders.size());
        tbb::parallel_for(std::size_t(0), founders.size(), [&](std::size_t i) {
            if (!parts.stopped())
                blocks[i] = maker.block(mesh.elements[founders[i].first], mesh.elements[founders[i].second], nullptr);
        });
        std::size_t pair = 0;
        for (std::size_t m = first; m < last; ++m)
            for (std::size_t n = m; n < count; ++n)
                scatter(mesh, m, n, blocks[classOf[pair++]], matrix);
    }
    return matrix;
}

/// impedance * int f_i f_j dv.
Block resistiveBlock(const LocalFunctions& local, int degree, Complex impedance)
{
    Moments squares; // int P_p P_q dv = 2/(2p+1) for p = q
    for (int p = 0; p <= degree; ++p)
        squares.value[p][p] = 2.0 / (2 * p + 1);
    Block block;
    for (int i = 0; i <= degree; ++i)
        for (int j = 0; j <= degree; ++j)
            block.value[i][j] = impedance * squares.form(local.current[i], local.current[j]);
    return block;
}

/// The charges of one element in the potential that the jacket takes from another's.
Block jacketBlock(const LocalFunctions& local, const Mesh& mesh, const Moments& moments, const Insulation& jacket)
{
    const Complex er = jacket.relativePermittivity * Complex{1.0, -jacket.lossTangent};
    const Complex front = imaginaryUnit * (1.0 - 1.0 / er) * waveImpedance / (waveNumber(mesh.frequency) * 4.0 * pi);
    Block block;
    for (int i = 0; i <= mesh.degree; ++i)
        for (int j = 0; j <= mesh.degree; ++j)
            block.value[i][j] = front * moments.form(local.slope[i], local.slope[j]);
    return block;
}

} // namespace

Result<Matrix> systemMatrix(const Mesh& mesh, const WireModel& model, GroundTableCache& tables, const Watch& watch, const PairPlan* plan)
{
    std::shared_ptr<GroundTable> table;
    if (model.ground.kind == GroundKind::Real && model.ground.complexPermittivity(mesh.frequency) != Complex{1.0, 0.0}) {
        table = tables.table(model.ground, mesh.frequency);
        if (!coverMesh(mesh, *table, watch))
            return watch.stopped()
                       ? Fault{"", stoppedMessage}
                       : Fault{"wires",
                               coreText("core", "the wires lie more than 170 wavelengths apart; lower the frequency or move them closer")};
    }
    if (watch.stopped())
        return Fault{"", stoppedMessage};
    Matrix matrix = fieldMatrix(mesh, model.ground, table.get(), plan, watch);
    if (watch.stopped())
        return Fault{"", stoppedMessage};
    addWire(mesh, model, matrix, plan);
    for (std::size_t l = 0; l < model.loads.size(); ++l)
        addLoad(matrix, mesh.unknowns, mesh.loads[l], model.loads[l].impedance(mesh.frequency));
    addLines(mesh, model, matrix);
    return matrix;
}

void addLines(const Mesh& mesh, const WireModel& model, Matrix& matrix)
{
    const auto add = [&](const PortRow& left, const PortRow& right, Complex impedance) {
        for (const auto& [a, fa] : left)
            for (const auto& [b, fb] : right)
                matrix[std::size_t(a) * mesh.unknowns + b] += impedance * fa * fb;
    };
    for (std::size_t l = 0; l < model.lines.size(); ++l) {
        const auto& [near, far] = mesh.lines[l];
        if (model.lines[l].end != LineEnd::Joined) {
            add(near, near, model.lines[l].stubImpedance(mesh.frequency));
            continue;
        }
        const auto [own, mutual] = model.lines[l].impedances(mesh.frequency);
        add(near, near, own);
        add(far, far, own);
        add(near, far, mutual);
        add(far, near, mutual);
    }
}

Matrix fieldMatrix(const Mesh& mesh, const Ground& ground, const GroundTable* table, const PairPlan* plan, const Watch& watch)
{
    if (ground.kind == GroundKind::Perfect)
        return assemble(mesh, {true, 1.0, nullptr, plan, &watch});
    return assemble(mesh, {true, table ? table->image() : Complex{}, table, plan, &watch});
}

Matrix remainderMatrix(const Mesh& mesh, const GroundTable& table, const Watch& watch)
{
    return assemble(mesh, {false, 0.0, &table, nullptr, &watch});
}

Matrix mirrorMatrix(const Mesh& mesh, const Watch& watch) { return assemble(mesh, {false, 1.0, nullptr, nullptr, &watch}); }

void addWire(const Mesh& mesh, const WireModel& model, Matrix& matrix, const PairPlan* plan)
{
    const LocalFunctions local(mesh.degree);
    double knownRadius = -1.0;
    std::size_t knownWire = 0;
    Complex zi;
    for (std::size_t e = 0; e < mesh.elements.size(); ++e) {
        const Element& element = mesh.elements[e];
        const Wire& wire = model.wires[element.wire];
        if (wire.conductivity) {
            if (element.radius != knownRadius || element.wire != knownWire)
                zi = internalImpedance(wire, element.radius, mesh.frequency);
            knownRadius = element.radius, knownWire = element.wire;
            scatter(mesh, e, e, resistiveBlock(local, mesh.degree, 0.5 * element.length * zi), matrix);
        }
    }
    for (const auto& [m, n, moments] : plan ? plan->jackets : jacketedPairs(mesh, model))
        scatter(mesh, m, n, jacketBlock(local, mesh, moments, *model.wires[mesh.elements[m].wire].insulation), matrix);
}

void addLoad(Matrix& matrix, int unknowns, const PortRow& row, Complex impedance)
{
    for (const auto& [a, fa] : row)
        for (const auto& [b, fb] : row)
            matrix[std::size_t(a) * unknowns + b] += impedance * fa * fb;
}

bool coverMesh(const Mesh& mesh, GroundTable& table, const Watch& watch)
{
    double lowest = HUGE_VAL, highest = 0.0;
    Vec3 low{HUGE_VAL, HUGE_VAL, 0.0}, high{-HUGE_VAL, -HUGE_VAL, 0.0};
    for (const Element& e : mesh.elements)
        for (Vec3 p : {e.start, e.end}) {
            lowest = std::min(lowest, p.z);
            highest = std::max(highest, p.z);
            low = {std::min(low.x, p.x), std::min(low.y, p.y), 0.0};
            high = {std::max(high.x, p.x), std::max(high.y, p.y), 0.0};
        }
    const double farthest = norm(Vec3{high.x - low.x, high.y - low.y, 2.0 * highest});
    return table.cover(2.0 * lowest, farthest, watch, 2.0 * highest, 2.0 * lowest);
}

} // namespace vetchling::em
