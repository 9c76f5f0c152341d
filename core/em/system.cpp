#include "core/em/system.h"

#include "core/em/blas_room.h"
#include "core/em/blocks.h"
#include "core/em/conductor.h"
#include "core/em/pair_classes.h"
#include "core/em/soil_blocks.h"

#include <oneapi/tbb/parallel_for.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>

namespace vetchling::em {
namespace {

constexpr std::size_t pairsAtOnce = 40000; // whose blocks of 600 bytes are held

/// What a block is made of.
struct Parts {
    bool direct = true;
    Complex image = 0.0; ///< strength of the mirror image, 1 on perfect ground
    const GroundTable* remainder = nullptr;
    const SoilTable* soil = nullptr; ///< of a model with wires in the soil: then nothing else but plan and watch counts
    const PairPlan* plan = nullptr;  ///< has the moments of direct and image
    const Watch* watch = nullptr;    ///< a stop leaves the matrix unfinished
    [[nodiscard]] bool stopped() const { return watch && watch->stopped(); }
};

class BlockMaker {
public:
    BlockMaker(const Mesh& mesh, const Parts& parts)
        : m_degree(mesh.degree), m_k(waveNumber(mesh.frequency)), m_local(mesh.degree), m_parts(parts), m_few(fewSamples(mesh.degree)),
          m_many(manySamples(mesh.degree))
    {
        if (parts.soil)
            m_soil.emplace(mesh, *parts.soil);
    }

    /// @param known its moments, or null
    Block block(const Element& m, const Element& n, const PairPlan::Interaction* known) const
    {
        if (m_soil)
            return m_soil->block(m, n, known);
        Block sum = oneSided(m, n, known);
        if (&m == &n)
            sum.makeSymmetric(m_degree);
        return sum;
    }

private:
    Block oneSided(const Element& m, const Element& n, const PairPlan::Interaction* known) const
    {
        Block sum;
        Moments vector, scalar;
        if (m_parts.direct)
            addPotentials(m, n, known ? &known->direct : nullptr, 1.0, vector, scalar);
        if (m_parts.image != Complex{})
            addPotentials(m, mirroredElement(n), known ? &*known->image : nullptr, -m_parts.image, vector, scalar);
        sum.add(vector, scalar, m_local, m_degree);
        if (m_parts.remainder)
            addRemainder(m, n, known && known->remainder ? &*known->remainder : nullptr, sum);
        return sum;
    }

    /// Vector and scalar potential of n tested on m, from the kernel's moments.
    void addPotentials(const Element& m, const Element& n, const MomentSeries* known, Complex strength, Moments& vector,
                       Moments& scalar) const
    {
        Moments moments;
        if (known)
            known->at(m_k, moments);
        else
            kernelMoments(m, n, m_k, m_degree, moments);
        const Complex ofVector = strength * vectorFront(m_k) * (0.25 * m.length * n.length * dot(m.tangent, n.tangent)),
                      ofScalar = strength * scalarFront(m_k);
        for (int i = 0; i <= m_degree; ++i)
            for (int j = 0; j <= m_degree; ++j) {
                vector.value[i][j] += ofVector * moments.value[i][j];
                scalar.value[i][j] += ofScalar * moments.value[i][j];
            }
    }

    void addRemainder(const Element& m, const Element& n, const RemainderPaths* known, Block& sum) const
    {
        RemainderPaths made;
        if (!known) {
            made = remainderPaths(m, n, m_few, m_many, m_parts.remainder->columnCount());
            known = &made;
        }
        Block block;
        const Element &outer = known->turned ? n : m, &inner = known->turned ? m : n;
        if (known->plain)
            addPlain(*known, block);
        else
            addGraded(outer, inner, block);
        if (known->turned)
            sum.addTransposed(block, m_degree); // reciprocity: the half space's field matrix is symmetric
        else
            sum.add(block, m_degree);
    }

    void addPlain(const RemainderPaths& pair, Block& sum) const
    {
        const Sampled &outer = pair.fewOuter ? m_few : m_many, &inner = pair.fewInner ? m_few : m_many;
        std::array<Complex, std::size_t(mostSamples) * mostSamples> fields;
        m_parts.remainder->at(pair.paths, fields.data());
        const Complex* field = fields.data();
        for (int a = 0; a < outer.nodes; ++a) {
            std::array<Complex, mostFunctions> row{};
            for (int b = 0; b < inner.nodes; ++b, ++field)
                for (int j = 0; j <= m_degree; ++j)
                    row[j] += inner.function[b][j] * *field;
            for (int i = 0; i <= m_degree; ++i)
                for (int j = 0; j <= m_degree; ++j)
                    sum.value[i][j] += outer.function[a][i] * row[j];
        }
    }

    /// Adds -t_m . E . t_n at pairs of points near the mirror element, times the current functions there.
    void addGraded(const Element& m, const Element& n, Block& sum) const
    {
        gradedPoints(m, mirroredElement(n), [&](double u, double v, double weight) {
            const std::vector<TablePath> path{remainderPath(m.at(u), m.tangent, n.at(v), n.tangent, 0.25 * weight * m.length * n.length,
                                                            m_parts.remainder->columnCount())};
            Complex field;
            m_parts.remainder->at(path, &field);
            double fm[mostFunctions], fn[mostFunctions];
            localCurrents(u, m_degree, fm);
            localCurrents(v, m_degree, fn);
            for (int i = 0; i <= m_degree; ++i)
                for (int j = 0; j <= m_degree; ++j)
                    sum.value[i][j] += fm[i] * fn[j] * field;
        });
    }

    int m_degree;
    double m_k;
    LocalFunctions m_local;
    Parts m_parts;
    Sampled m_few, m_many;
    std::optional<SoilBlockMaker> m_soil;
};

void scatter(const Mesh& mesh, const MeshPair& pair, const Block& block, Matrix& matrix)
{
    const std::size_t size = mesh.unknowns;
    for (const Share& a : mesh.shares[pair.m])
        for (const Share& b : mesh.shares[pair.n]) {
            const Complex value = pair.weight * a.factor * b.factor * block.value[a.function][b.function];
            matrix[a.unknown * size + b.unknown] += value;
            if (pair.m != pair.n)
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
    Matrix matrix = zerosWithRoom(std::size_t(mesh.unknowns) * mesh.unknowns);
    for (std::size_t p = 0; p < parts.plan->pairs.size(); ++p)
        scatter(mesh, parts.plan->pairs[p], blocks[parts.plan->classOf[p]], matrix);
    return matrix;
}

Matrix assemble(const Mesh& mesh, const Parts& parts)
{
    if (parts.plan)
        return assembleByPlan(mesh, parts);
    const BlockMaker maker(mesh, parts);
    Matrix matrix = zerosWithRoom(std::size_t(mesh.unknowns) * mesh.unknowns);
    const std::vector<MeshPair> pairs = meshPairs(mesh);
    PairClasses classes(mesh);
    std::vector<std::size_t> classOf;
    std::vector<Block> blocks;
    for (std::size_t first = 0; first < pairs.size() && !parts.stopped(); first += pairsAtOnce) {
        const std::size_t last = std::min(pairs.size(), first + pairsAtOnce);
        classes.clear();
        classOf.clear();
        for (std::size_t p = first; p < last; ++p)
            classOf.push_back(classes.classOf(pairs[p].m, pairs[p].n));
        const auto& founders = classes.founders();
        blocks.resize(founders.size());
        tbb::parallel_for(std::size_t(0), founders.size(), [&](std::size_t i) {
            if (!parts.stopped())
                blocks[i] = maker.block(mesh.elements[founders[i].first], mesh.elements[founders[i].second], nullptr);
        });
        for (std::size_t p = first; p < last; ++p)
            scatter(mesh, pairs[p], blocks[classOf[p - first]], matrix);
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

/// The charges of one element in the potential that a jacket of this inverse permittivity makes of another's.
Block jacketBlock(const LocalFunctions& local, const Mesh& mesh, const Moments& moments, Complex inverse)
{
    Block block;
    block.add(moments, local, mesh.degree, 0.0, scalarFront(waveNumber(mesh.frequency)) * inverse);
    return block;
}

/// 1/er of what is around an element.
Complex inverseAround(const Element& element, const WireModel& model, double frequency)
{
    return element.inSoil ? 1.0 / model.ground.complexPermittivity(frequency) : Complex{1.0};
}

Fault tooFarApart()
{
    return {"wires", coreText("core", "the wires lie more than 170 wavelengths apart; lower the frequency or move them closer")};
}

/// Fields of all currents by the table that the ground asks for, extended to the mesh.
Result<Matrix> tabulatedFields(const Mesh& mesh, const Ground& ground, GroundTableCache& tables, const Watch& watch, const PairPlan* plan)
{
    const Fault stopped = stoppedFault();
    if (mesh.reachesSoil()) {
        const SoilReach reach = soilReach(mesh);
        const auto table = tables.soilTable(ground, mesh.frequency, reach.deepest);
        if (!table->cover(reach, watch))
            return watch.stopped() ? stopped : tooFarApart();
        return assemble(mesh, {false, 0.0, nullptr, table.get(), plan, &watch});
    }
    std::shared_ptr<GroundTable> table;
    if (ground.kind == GroundKind::Real && ground.complexPermittivity(mesh.frequency) != Complex{1.0, 0.0}) {
        table = tables.table(ground, mesh.frequency);
        if (!coverMesh(mesh, *table, watch))
            return watch.stopped() ? stopped : tooFarApart();
    }
    if (watch.stopped())
        return stopped;
    return fieldMatrix(mesh, ground, table.get(), plan, watch);
}

} // namespace

Result<Matrix> systemMatrix(const Mesh& mesh, const WireModel& model, GroundTableCache& tables, const Watch& watch, const PairPlan* plan)
{
    Result<Matrix> fields = tabulatedFields(mesh, model.ground, tables, watch, plan);
    if (!fields)
        return fields.faults();
    Matrix matrix = std::move(fields).value();
    if (watch.stopped())
        return stoppedFault();
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
        return assemble(mesh, {true, 1.0, nullptr, nullptr, plan, &watch});
    return assemble(mesh, {true, table ? table->image() : Complex{}, table, nullptr, plan, &watch});
}

Matrix remainderMatrix(const Mesh& mesh, const GroundTable& table, const Watch& watch)
{
    return assemble(mesh, {false, 0.0, &table, nullptr, nullptr, &watch});
}

Matrix mirrorMatrix(const Mesh& mesh, const Watch& watch) { return assemble(mesh, {false, 1.0, nullptr, nullptr, nullptr, &watch}); }

void addWire(const Mesh& mesh, const WireModel& model, Matrix& matrix, const PairPlan* plan)
{
    const LocalFunctions local(mesh.degree);
    double knownRadius = -1.0;
    std::size_t knownWire = 0;
    Complex zi;
    for (std::size_t e = 0; e < mesh.elements.size(); ++e) {
        const Element& element = mesh.elements[e];
        const Wire& wire = model.wires[element.wire];
        if (wire.conductivity && element.coil < 0) {
            if (element.radius != knownRadius || element.wire != knownWire)
                zi = internalImpedance(wire, element.radius, mesh.frequency);
            knownRadius = element.radius, knownWire = element.wire;
            scatter(mesh, {e, e, 1.0}, resistiveBlock(local, mesh.degree, 0.5 * element.length * zi), matrix);
        }
    }
    for (const auto& [m, n, moments] : plan ? plan->jackets : jacketedPairs(mesh, model)) {
        const Insulation& jacket = *model.wires[mesh.elements[m].wire].insulation;
        const Complex own = 1.0 / (jacket.relativePermittivity * Complex{1.0, -jacket.lossTangent});
        const Complex inverse = own - inverseAround(mesh.elements[m], model, mesh.frequency);
        scatter(mesh, {m, n, 1.0}, jacketBlock(local, mesh, moments, inverse), matrix);
    }
    addCoils(mesh, model, matrix, plan);
}

void addCoils(const Mesh& mesh, const WireModel& model, Matrix& matrix, const PairPlan* plan)
{
    const LocalFunctions local(mesh.degree);
    const Complex jw{0.0, 2.0 * pi * mesh.frequency}, charges = scalarFront(waveNumber(mesh.frequency));
    for (const auto& [m, n, load, flux, elastance] : plan ? plan->coils : coiledPairs(mesh, model)) {
        Block block;
        block.add(flux, local, mesh.degree, jw * model.loads[load].acrossCoil(mesh.frequency), 0.0);
        block.add(elastance, local, mesh.degree, 0.0, charges);
        scatter(mesh, {m, n, 1.0}, block, matrix);
    }
}

void addCoilOhm(const Mesh& mesh, const WireModel& model, std::size_t load, Matrix& matrix)
{
    const LocalFunctions local(mesh.degree);
    for (CoiledPair pair : coiledPairs(mesh, model)) {
        if (pair.load != load)
            continue;
        for (auto& row : pair.flux.value)
            for (Complex& value : row)
                value = value.real(); // without the loss
        Block block;
        block.add(pair.flux, local, mesh.degree, 1.0 / model.loads[load].inductance, 0.0);
        scatter(mesh, {pair.m, pair.n, 1.0}, block, matrix);
    }
}

void addDisplacedSoil(const Mesh& mesh, const WireModel& model, Matrix& matrix)
{
    const LocalFunctions local(mesh.degree);
    for (const auto& [m, n, moments] : jacketedPairs(mesh, model))
        if (mesh.elements[m].inSoil)
            scatter(mesh, {m, n, 1.0}, jacketBlock(local, mesh, moments, -inverseAround(mesh.elements[m], model, mesh.frequency)), matrix);
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
