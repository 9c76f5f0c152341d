#include "core/workshop/coil.h"

#include "core/em/conductor.h"

#include <boost/math/special_functions/ellint_1.hpp>
#include <boost/math/special_functions/ellint_2.hpp>
#include <lapacke.h>

#include <algorithm>
#include <cmath>
#include <vector>

namespace vetchling {
namespace {

constexpr int mostRings = 36; // a longer stack goes on like its last rings
constexpr double mostTurns = 2000.0, leastTurns = 0.5;

/// Flux that one ampere in a ring sends through another one on the same axis, H (Maxwell 1873, art. 701).
double mutual(double r1, double r2, double along)
{
    const double k2 = 4.0 * r1 * r2 / ((r1 + r2) * (r1 + r2) + along * along), k = std::sqrt(k2);
    return vacuumPermeability * std::sqrt(r1 * r2) * ((2.0 / k - k) * boost::math::ellint_1(k) - 2.0 / k * boost::math::ellint_2(k));
}

/// H of the current sheet.
double sheet(const Coil& c)
{
    const double length = c.turns * c.pitch, diagonal = std::hypot(c.meanDiameter, length);
    const double k = c.meanDiameter / diagonal, k1 = length / diagonal;
    const double nagaoka =
        4.0 / (3.0 * pi * k1) * (k1 * k1 / (k * k) * (boost::math::ellint_1(k) - boost::math::ellint_2(k)) + boost::math::ellint_2(k) - k);
    return vacuumPermeability * c.turns * c.turns * pi * c.meanDiameter * c.meanDiameter / (4.0 * length) * nagaoka;
}

/// Rosa's B: what turns apart from one another differ from strips side by side.
double gapCorrection(double turns)
{
    double sum = 0.0;
    for (int m = 1; m < turns; ++m) {
        const auto part = [](double x) { return x > 0.0 ? x * x * std::log(x) : 0.0; };
        const double strips = 0.5 * (part(m + 1.0) - 2.0 * part(m) + part(m - 1.0)) - 1.5; // log of their mean distance
        sum += (turns - m) * (std::log(double(m)) - strips);
    }
    return 2.0 * sum / turns;
}

/// @param uniform 5/4 for current all over the section, 3/2 for current on its surface
double withRoundWire(const Coil& c, double uniform)
{
    const double a = uniform - std::log(2.0 * c.pitch / c.wireDiameter);
    return sheet(c) - 0.5 * vacuumPermeability * c.meanDiameter * c.turns * (a + gapCorrection(c.turns));
}

/// Equal rings on one axis, one ampere in each; the current round each wire free to go where it will.
class RingStack {
public:
    RingStack(const Coil& coil, double radius, int rings)
        : m_coil(coil), m_radius(radius), m_rings(rings), m_nodes(coil.pitch < 1.3 * coil.wireDiameter ? 24 : 14), m_flux(tables())
    {
    }

    /// With the same current density all round, H.
    [[nodiscard]] double uniform() const
    {
        double sum = 0.0;
        for (int a = 0; a < m_rings; ++a)
            for (int b = 0; b < m_rings; ++b)
                for (int i = 0; i < m_nodes; ++i)
                    for (int j = 0; j < m_nodes; ++j)
                        sum += flux(a, i, b, j);
        return sum / (double(m_nodes) * m_nodes);
    }

    struct Free {
        double inductance = 0.0, proximity = 1.0;
    };
    /// With every ring's surface a line of force.
    [[nodiscard]] Free free() const
    {
        const int unknowns = m_rings * m_nodes, size = unknowns + m_rings;
        std::vector<double> matrix(std::size_t(size) * std::size_t(size), 0.0), right(std::size_t(size), 0.0);
        const auto at = [&](int row, int column) -> double& { return matrix[std::size_t(row) * std::size_t(size) + std::size_t(column)]; };
        const double scale = vacuumPermeability * m_coil.meanDiameter; // brings all rows to one size
        for (int a = 0; a < m_rings; ++a) {
            for (int i = 0; i < m_nodes; ++i) {
                for (int b = 0; b < m_rings; ++b)
                    for (int j = 0; j < m_nodes; ++j)
                        at(a * m_nodes + i, b * m_nodes + j) = flux(a, i, b, j) / scale;
                at(a * m_nodes + i, unknowns + a) = -1.0;
                at(unknowns + a, a * m_nodes + i) = 1.0;
            }
            right[std::size_t(unknowns + a)] = 1.0;
        }
        std::vector<lapack_int> pivots(std::size_t(size), 0);
        if (LAPACKE_dgesv(LAPACK_ROW_MAJOR, size, 1, matrix.data(), size, pivots.data(), right.data(), 1) != 0)
            return {uniform(), 1.0};
        Free out{0.0, 0.0};
        for (int a = 0; a < m_rings; ++a) {
            out.inductance += scale * right[std::size_t(unknowns + a)];
            for (int i = 0; i < m_nodes; ++i) {
                const double current = right[std::size_t(a * m_nodes + i)];
                out.proximity += current * current * m_nodes * 2.0 * ringRadius(i) / m_coil.meanDiameter / m_rings;
            }
        }
        return out;
    }

private:
    [[nodiscard]] double angle(int node) const { return 2.0 * pi * node / m_nodes; }
    [[nodiscard]] double ringRadius(int node) const { return 0.5 * m_coil.meanDiameter + m_radius * std::cos(angle(node)); }
    [[nodiscard]] double flux(int a, int i, int b, int j) const
    {
        // from a to b is from b to a with the picture mirrored along the axis
        const int away = std::abs(a - b);
        const auto turned = [&](int node) { return a <= b ? node : (m_nodes - node) % m_nodes; };
        return m_flux[std::size_t((away * m_nodes + turned(i)) * m_nodes + turned(j))];
    }

    /// By distance in rings, node and node.
    [[nodiscard]] std::vector<double> tables() const
    {
        std::vector<double> all(std::size_t(m_rings * m_nodes * m_nodes));
        for (int away = 0; away < m_rings; ++away)
            for (int i = 0; i < m_nodes; ++i)
                for (int j = 0; j < m_nodes; ++j)
                    all[std::size_t((away * m_nodes + i) * m_nodes + j)] = away == 0 ? own(i, j) : other(away, i, j);
        return all;
    }

    [[nodiscard]] double other(int away, int i, int j) const
    {
        const double along = away * m_coil.pitch + m_radius * (std::sin(angle(j)) - std::sin(angle(i)));
        return mutual(ringRadius(i), ringRadius(j), along);
    }

    /// The kernel's logarithm is integrated by weights of its own, the rest by the trapezoidal rule.
    [[nodiscard]] double own(int i, int j) const
    {
        const double middle = std::sqrt(ringRadius(i) * ringRadius(j)), strength = -0.5 * vacuumPermeability * middle;
        const double apart = angle(i) - angle(j), sine = 2.0 * std::sin(0.5 * apart);
        const double rest = i == j ? vacuumPermeability * middle * (std::log(8.0 * middle / m_radius) - 2.0)
                                   : mutual(ringRadius(i), ringRadius(j), m_radius * (std::sin(angle(j)) - std::sin(angle(i)))) -
                                         strength * std::log(sine * sine);
        const int n = m_nodes / 2;
        double weight = -pi / (double(n) * n) * std::cos(n * apart);
        for (int m = 1; m < n; ++m)
            weight -= 2.0 * pi / n * std::cos(m * apart) / m;
        return strength * weight * m_nodes / (2.0 * pi) + rest;
    }

    const Coil& m_coil;
    double m_radius;
    int m_rings, m_nodes;
    std::vector<double> m_flux;
};

/// What a stack of so many rings loses of its inductance at a skin depth, and the factor on its resistance.
struct Crowding {
    double loss = 0.0, proximity = 1.0;
};

Crowding crowdingOf(const Coil& coil, double depth, int rings)
{
    const double radius = 0.5 * coil.wireDiameter, inside = std::max(0.3 * radius, radius - 0.5 * depth);
    const RingStack::Free free = RingStack(coil, inside, rings).free();
    return {RingStack(coil, radius, rings).uniform() - free.inductance, free.proximity};
}

/// Between whole numbers of rings straight; a long coil goes on as its last turns do.
Crowding crowdingOf(const Coil& coil, double depth)
{
    const auto between = [](const Crowding& a, const Crowding& b, double t) {
        return Crowding{a.loss + t * (b.loss - a.loss), a.proximity + t * (b.proximity - a.proximity)};
    };
    if (coil.turns > mostRings) {
        const Crowding few = crowdingOf(coil, depth, mostRings - 6), many = crowdingOf(coil, depth, mostRings);
        return {many.loss + (coil.turns - mostRings) * (many.loss - few.loss) / 6.0, many.proximity};
    }
    const int fewer = std::max(1, int(std::floor(coil.turns)));
    const double part = coil.turns - fewer;
    const Crowding whole = crowdingOf(coil, depth, fewer);
    return part > 1e-9 ? between(whole, crowdingOf(coil, depth, fewer + 1), part) : whole;
}

double skinDepth(const Coil& coil, double frequency) { return 1.0 / std::sqrt(pi * frequency * vacuumPermeability * coil.conductivity); }

/// C of a coil with one end earthed, F; D in m (Medhurst 1947, as an interpolation of his table).
double ownCapacitance(const Coil& coil)
{
    const double shape = coil.turns * coil.pitch / coil.meanDiameter;
    return 1e-10 * coil.meanDiameter * (0.1126 * shape + 0.08 + 0.27 / std::sqrt(shape));
}

double inductanceAt(const Coil& coil, double frequency)
{
    return frequency > 0.0 ? withRoundWire(coil, 1.5) - crowdingOf(coil, skinDepth(coil, frequency)).loss : withRoundWire(coil, 1.25);
}

} // namespace

Faults findCoilFaults(const Coil& c)
{
    Faults faults;
    const auto check = [&](bool good, const char* member, Text message) {
        if (!good)
            faults.push_back({member, std::move(message)});
    };
    check(c.wireDiameter >= 1e-5 && c.wireDiameter <= 0.1, "wire", coreText("core", "the wire is between 0.01 and 100 mm thick"));
    check(c.meanDiameter > c.wireDiameter && c.meanDiameter <= 10.0, "mean-diameter",
          coreText("core", "the coil is wider than its wire is thick, and at most 10 m"));
    check(c.pitch > c.wireDiameter, "pitch", coreText("core", "turns touch: the pitch is larger than the wire's thickness"));
    check(c.pitch <= 100.0 * c.meanDiameter, "pitch", coreText("core", "that is hardly a coil: the pitch is a hundred times its diameter"));
    check(c.turns >= leastTurns && c.turns <= mostTurns, "turns", coreText("core", "a coil has from a half to 2000 turns"));
    check(c.conductivity >= 1e4 && c.conductivity <= 1e9, "conductivity", coreText("core", "a metal conducts with 1e4 to 1e9 S/m"));
    return faults;
}

Result<CoilFigures> coilFigures(const Coil& coil, double frequency)
{
    if (Faults faults = findCoilFaults(coil); !faults.empty())
        return faults;
    CoilFigures out;
    out.length = coil.turns * coil.pitch;
    out.wire = coil.turns * std::hypot(pi * coil.meanDiameter, coil.pitch);
    out.inductance = out.atFrequency = withRoundWire(coil, 1.25);
    out.selfResonance = 1.0 / (2.0 * pi * std::sqrt(out.inductance * ownCapacitance(coil)));
    const double radius = 0.5 * coil.wireDiameter;
    out.resistance = out.wire / (coil.conductivity * pi * radius * radius);
    if (!(frequency > 0.0))
        return out;
    const Crowding crowding = crowdingOf(coil, skinDepth(coil, frequency));
    out.proximity = crowding.proximity;
    out.atFrequency = withRoundWire(coil, 1.5) - crowding.loss;
    out.resistance = crowding.proximity * out.wire * em::internalImpedance(frequency, radius, coil.conductivity, 1.0).real();
    out.q = 2.0 * pi * frequency * out.atFrequency / out.resistance;
    return out;
}

Result<Coil> coilFor(Coil coil, double inductance, double frequency)
{
    coil.turns = 1.0;
    if (Faults faults = findCoilFaults(coil); !faults.empty())
        return faults;
    if (!(inductance > 0.0))
        return Fault{"inductance", coreText("core", "give an inductance above 0, such as 9 uH")};
    const auto with = [&](double turns) {
        Coil tried = coil;
        tried.turns = turns;
        return tried;
    };
    if (inductanceAt(with(leastTurns), frequency) > inductance)
        return Fault{"inductance", coreText("core", "less than half a turn would do: take a narrower coil")};
    double low = leastTurns, high = 4.0;
    while (inductanceAt(with(high), 0.0) < 1.1 * inductance) {
        low = high;
        high *= 2.0;
        if (high > mostTurns)
            return Fault{"inductance", coreText("core", "it would take more than 2000 turns: take a wider coil or a smaller pitch")};
    }
    low = std::max(leastTurns, 0.5 * low);
    // regula falsi on the inductance over the turns, which is nearly straight there
    double atLow = inductanceAt(with(low), frequency) / low, atHigh = inductanceAt(with(high), frequency) / high;
    double turns = high;
    for (int i = 0; i < 60; ++i) {
        const double slope = (atHigh - atLow) / (high - low), constant = atLow - slope * low; // L / turns as a straight line
        const double root =
            slope > 0.0 ? (-constant + std::sqrt(constant * constant + 4.0 * slope * inductance)) / (2.0 * slope) : 0.5 * (low + high);
        turns = root > low && root < high ? root : 0.5 * (low + high);
        const double here = inductanceAt(with(turns), frequency);
        if (std::abs(here / inductance - 1.0) < 1e-9)
            break;
        (here < inductance ? low : high) = turns;
        (here < inductance ? atLow : atHigh) = here / turns;
    }
    return with(turns);
}

double leadInductance(const Coil& coil)
{
    constexpr double perMetre = 2e-7; // mu0 / 2 pi
    const double lead = 0.5 * coil.meanDiameter, apart = coil.turns * coil.pitch;
    const double own = perMetre * lead * (std::log(4.0 * lead / coil.wireDiameter) - 1.0);
    const double shared = perMetre * (lead * std::asinh(lead / apart) - std::hypot(lead, apart) + apart);
    return 2.0 * (own - shared * std::cos(2.0 * pi * coil.turns));
}

} // namespace vetchling
