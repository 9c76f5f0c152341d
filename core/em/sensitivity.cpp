#include "core/em/sensitivity.h"

#include <algorithm>
#include <cmath>
#include <functional>

namespace vetchling::em {
namespace {

constexpr double relativeStep = 1e-3;

Complex quadraticForm(const Matrix& matrix, const std::vector<Complex>& x)
{
    Complex sum = 0.0;
    const std::size_t n = x.size();
    for (std::size_t i = 0; i < n; ++i) {
        Complex row = 0.0;
        for (std::size_t j = 0; j < n; ++j)
            row += matrix[i * n + j] * x[j];
        sum += x[i] * row;
    }
    return sum;
}

/// What a change of x^T A x does to the impedance, through the driven feed's transformer if it has one.
Complex impedancePerForm(const Solution& s)
{
    std::size_t f = 0;
    while (std::abs(s.model->feeds[f].voltage) == 0.0)
        ++f;
    const Feed& feed = s.model->feeds[f];
    const Complex current = s.feedCurrents[f], perForm = 1.0 / (current * current);
    return feed.transformer ? feed.transformer->at(s.frequency).slope(feed.voltage / current) * perForm : perForm;
}

/// Where the end of a wire may be moved: no other wire meets it and it is not on the ground.
bool freeEnd(const WireModel& model, std::size_t wire, bool atStart)
{
    const Vec3 p = atStart ? model.wires[wire].points.front() : model.wires[wire].points.back();
    if (model.ground.kind == GroundKind::Perfect && p.z <= jointTolerance)
        return false;
    int meeting = 0;
    for (const Wire& w : model.wires)
        for (Vec3 q : w.points)
            meeting += distance(p, q) <= 2.0 * jointTolerance;
    return meeting == 1;
}

void moveEnd(WireModel& model, std::size_t wire, bool atStart, double longer)
{
    std::vector<Vec3>& points = model.wires[wire].points;
    Vec3& end = atStart ? points.front() : points.back();
    const Vec3 neighbour = atStart ? points[1] : points[points.size() - 2];
    end = end + longer * unit(end - neighbour);
    if (!atStart)
        return;
    for (Feed& f : model.feeds)
        if (f.wire == wire)
            f.at += longer;
    for (Load& l : model.loads)
        if (l.wire == wire)
            l.at += longer;
    for (LineSection& s : model.lines) {
        if (s.fromWire == wire)
            s.fromAt += longer;
        if (s.end == LineEnd::Joined && s.toWire == wire)
            s.toAt += longer;
    }
}

class Differences {
public:
    Differences(const Solution& solution, GroundTableCache& tables, const Watch& watch)
        : m_solution(solution), m_tables(tables), m_watch(watch)
    {
    }

    /// Change per unit of a parameter that `change` adds to a copy of the model.
    Complex slope(double step, const std::function<void(WireModel&, double)>& change)
    {
        WireModel lower = *m_solution.model, upper = lower;
        change(lower, -step);
        change(upper, step);
        const Result<Complex> dz = impedanceChange(m_solution, lower, upper, m_tables, m_watch);
        if (!dz) {
            m_faults = dz.faults();
            return 0.0;
        }
        return *dz / (2.0 * step);
    }

    [[nodiscard]] const Faults& faults() const { return m_faults; }

private:
    const Solution& m_solution;
    GroundTableCache& m_tables;
    const Watch& m_watch;
    Faults m_faults;
};

/// I^2 of a load in a point, A^2.
Complex throughPoint(const Solution& solution, std::size_t load)
{
    Complex current = 0.0;
    for (const auto& [unknown, factor] : solution.mesh->loads[load])
        current += factor * solution.unknowns[unknown];
    return current * current;
}

/// The same of a coil that has a length, by the flux of its turns.
Complex throughTurns(const Solution& solution, std::size_t load)
{
    const std::size_t size = solution.unknowns.size();
    Matrix ohm(size * size);
    addCoilOhm(*solution.mesh, *solution.model, load, ohm);
    Complex sum = 0.0;
    for (std::size_t a = 0; a < size; ++a)
        for (std::size_t b = 0; b < size; ++b)
            sum += solution.unknowns[a] * ohm[a * size + b] * solution.unknowns[b];
    return sum;
}

} // namespace

Result<Complex> impedanceChange(const Solution& solution, const WireModel& from, const WireModel& to, GroundTableCache& tables,
                                const Watch& watch)
{
    Complex form[2];
    for (int side : {0, 1}) {
        const WireModel& model = side == 0 ? from : to;
        const Mesh mesh = movedMesh(*solution.mesh, *solution.model, model);
        if (mesh.elements.empty())
            return Fault{"wires", "the changed model has other wires, points, feeds or loads than the solved one"};
        const Result<Matrix> matrix = systemMatrix(mesh, model, tables, watch);
        if (!matrix)
            return matrix.faults();
        form[side] = quadraticForm(*matrix, solution.unknowns);
    }
    return (form[1] - form[0]) * impedancePerForm(solution);
}

Result<Sensitivities> sensitivities(const Solution& solution, GroundTableCache& tables, const Watch& watch)
{
    const WireModel& model = *solution.model;
    Sensitivities out;
    Differences differences(solution, tables, watch);
    for (std::size_t w = 0; w < model.wires.size(); ++w)
        for (bool atStart : {true, false})
            if (freeEnd(model, w, atStart)) {
                const std::vector<Vec3>& p = model.wires[w].points;
                const double piece = atStart ? distance(p[0], p[1]) : distance(p[p.size() - 1], p[p.size() - 2]);
                out.ends.push_back({w, atStart, differences.slope(relativeStep * piece, [&](WireModel& m, double longer) {
                                        moveEnd(m, w, atStart, longer);
                                    })});
            }
    const double lowest = model.lowestPoint();
    if (model.ground.kind != GroundKind::FreeSpace && lowest > jointTolerance)
        out.perHeight = differences.slope(relativeStep * lowest, [](WireModel& m, double up) {
            for (Wire& w : m.wires)
                for (Vec3& p : w.points)
                    p.z += up;
        });
    out.perRadius = differences.slope(relativeStep, [](WireModel& m, double part) {
        for (Wire& w : m.wires) {
            w.radius *= 1.0 + part;
            if (w.endRadius)
                *w.endRadius *= 1.0 + part;
        }
    });
    if (model.ground.kind == GroundKind::Real) {
        out.perPermittivity =
            differences.slope(relativeStep, [](WireModel& m, double part) { m.ground.relativePermittivity *= 1.0 + part; });
        out.perConductivity = differences.slope(relativeStep, [](WireModel& m, double part) { m.ground.conductivity *= 1.0 + part; });
    }
    if (!differences.faults().empty())
        return differences.faults();
    const Complex perForm = impedancePerForm(solution);
    for (std::size_t l = 0; l < model.loads.size(); ++l)
        out.perLoad.push_back(perForm * (model.loads[l].size.inPoint() ? throughPoint(solution, l) : throughTurns(solution, l)));
    return out;
}

} // namespace vetchling::em
