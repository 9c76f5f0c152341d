#include "core/em/gauss.h"
#include "core/em/hankel_row.h"
#include "core/em/terrain_mesh.h"

#include <lapacke.h>
#include <oneapi/tbb/parallel_for.h>

#include <algorithm>
#include <cmath>

namespace vetchling::em {
namespace {

lapack_complex_double* raw(std::vector<Complex>& v) { return reinterpret_cast<lapack_complex_double*>(v.data()); }

/// Matrix and solutions of one profile.
class TerrainSolver {
public:
    TerrainSolver(const TerrainProfile& profile, double frequency, const std::vector<double>& heights, const Watch& watch)
        : m_mesh(profile, frequency, *std::min_element(heights.begin(), heights.end())), m_wave(wavelength(frequency)),
          m_k(waveNumber(frequency)), m_heights(heights), m_watch(watch)
    {
        m_surface.pieces = m_mesh.pieces;
        m_surface.nodes = m_mesh.points;
        m_surface.heights = heights;
        m_surface.foot = m_mesh.foot;
        m_surface.waveNumber = m_k;
    }

    Result<TerrainField> run()
    {
        fill();
        const std::vector<Complex> across = sources([](Complex field, Complex, double, double) { return field; });
        std::vector<Complex> both = sources([](Complex, Complex slope, double, double z) { return z * slope; });
        const std::vector<Complex> vertical = sources([](Complex, Complex slope, double x, double) { return x * slope; });
        both.insert(both.end(), vertical.begin(), vertical.end());
        m_surface.grazing = fields(1.0, across, both);
        m_surface.steep = fields(std::sqrt(1.0 - TerrainSurface::steepSquare), across, both);
        if (m_watch.stopped())
            return stoppedFault();
        return TerrainField(std::move(m_surface));
    }

private:
    /// What a source at each height makes at the nodes, a column each. @param of G, its slope by distance, and the way there
    template <class Of> std::vector<Complex> sources(Of of)
    {
        std::vector<double> x, alongX, alongZ;
        for (double h : m_heights)
            for (ProfilePoint p : m_mesh.nodes) {
                const double dx = p.x, dz = p.z - m_mesh.foot - h, r = std::hypot(dx, dz);
                x.push_back(m_k * r), alongX.push_back(dx / r), alongZ.push_back(dz / r);
            }
        HankelRow hankel;
        hankel.fill(x);
        std::vector<Complex> columns;
        const Complex front = -0.25 * imaginaryUnit;
        for (std::size_t i = 0; i < x.size(); ++i)
            columns.push_back(of(front * Complex{hankel.re0[i], hankel.im0[i]}, front * m_k * Complex{hankel.re1[i], hankel.im1[i]},
                                 alongX[i], alongZ[i]));
        return columns;
    }

    TerrainSurface::Fields fields(double cosine, const std::vector<Complex>& across, const std::vector<Complex>& both)
    {
        TerrainSurface::Fields out;
        out.across = solved(false, cosine, across);
        out.vertical = solved(true, cosine, both);
        const auto middle = out.vertical.begin() + long(std::min(out.vertical.size(), m_heights.size()));
        out.along.assign(out.vertical.begin(), middle);
        out.vertical.erase(out.vertical.begin(), middle);
        return out;
    }

    void fill()
    {
        const std::size_t n = m_mesh.nodes.size();
        m_single.resize(n * n), m_twin.resize(n * n);
        tbb::parallel_for(std::size_t(0), n, [&](std::size_t row) {
            if (!m_watch.stopped())
                fillRow(row);
        });
    }

    /// Points of a surface as a node sees them.
    struct Seen {
        std::vector<double> x, along; ///< k times distance; cosine to the normal
        HankelRow hankel;
        void clear() { x.clear(), along.clear(); }
        void add(ProfilePoint from, ProfilePoint to, double normalX, double normalZ, double k, double least)
        {
            const double dx = from.x - to.x, dz = from.z - to.z, r = std::max(std::hypot(dx, dz), least);
            x.push_back(k * r);
            along.push_back((dx * normalX + dz * normalZ) / r);
        }
        /// G and dG/dn' times a weight: -(j/4)(re + j im) = im/4 - j re/4.
        [[nodiscard]] std::pair<Complex, Complex> kernel(std::size_t i, double weight, double k) const
        {
            return {weight * Complex{0.25 * hankel.im0[i], -0.25 * hankel.re0[i]},
                    weight * k * along[i] * Complex{0.25 * hankel.im1[i], -0.25 * hankel.re1[i]}};
        }
    };

    /// Integrals of G and dG/dn' over what each node stands for, seen from one.
    void fillRow(std::size_t row)
    {
        constexpr double near = 1.0; // lengths of a strip
        const std::size_t n = m_mesh.nodes.size();
        const ProfilePoint target = m_mesh.nodes[row];
        Seen far, beside;
        for (const TerrainSurface::Node& p : m_mesh.points)
            far.add(target, {p.x, p.z}, p.normalX, p.normalZ, m_k, 1e-9 * m_wave);
        far.hankel.fill(far.x);
        std::vector<Complex> single(n), twin(n);
        for (std::size_t s = 0; s < m_mesh.strips.size(); ++s) {
            const TerrainStrip& strip = m_mesh.strips[s];
            const TerrainPanel& panel = m_mesh.panels[strip.panel];
            Complex* const here = single.data() + strip.panel * nodesPerPanel;
            Complex* const there = twin.data() + strip.panel * nodesPerPanel;
            if (panel.distanceTo(target, strip.a, strip.b) < near * 0.5 * (strip.b - strip.a) * panel.length) {
                addNear(target, strip, beside, here, there);
                continue;
            }
            for (std::size_t i = s * nodesPerPanel; i < (s + 1) * nodesPerPanel; ++i) {
                const auto [g, slope] = far.kernel(i, m_mesh.points[i].weight * m_mesh.points[i].window, m_k);
                for (int j = 0; j < nodesPerPanel; ++j)
                    here[j] += g * m_mesh.shares[i][j], there[j] += slope * m_mesh.shares[i][j];
            }
        }
        const std::size_t own = m_mesh.panels[row / nodesPerPanel].piece;
        for (std::size_t i = 0; i < n; ++i) {
            m_single[row + i * n] = single[i];
            m_twin[row + i * n] = m_mesh.panels[i / nodesPerPanel].piece == own ? 0.0 : twin[i]; // in line
        }
    }

    /// Halved until no part is much longer than it is away.
    void addNear(ProfilePoint target, const TerrainStrip& strip, Seen& seen, Complex* single, Complex* twin) const
    {
        constexpr int order = 8;
        constexpr double closest = 1e-5, nearest = 0.7; // of -1..1; lengths
        const TerrainPanel& panel = m_mesh.panels[strip.panel];
        std::vector<std::pair<double, double>> open{{strip.a, strip.b}};
        std::vector<double> place, weight;
        const GaussRule& rule = gaussRule(order);
        seen.clear();
        while (!open.empty()) {
            const auto [a, b] = open.back();
            open.pop_back();
            if (b - a > closest && panel.distanceTo(target, a, b) < nearest * 0.5 * (b - a) * panel.length) {
                open.emplace_back(a, 0.5 * (a + b));
                open.emplace_back(0.5 * (a + b), b);
                continue;
            }
            for (int i = 0; i < order; ++i) {
                place.push_back(0.5 * (a + b) + 0.5 * (b - a) * rule.node[i]);
                weight.push_back(0.25 * (b - a) * panel.length * rule.weight[i]);
                seen.add(target, panel.at(place.back()), panel.normalX, panel.normalZ, m_k, 1e-12 * m_wave);
            }
        }
        seen.hankel.fill(seen.x);
        for (std::size_t i = 0; i < place.size(); ++i) {
            const auto [g, slope] = seen.kernel(i, weight[i] * m_mesh.windowAt(panel.at(place[i]).x), m_k);
            const NodeShares shares = m_mesh.sharesAt(strip.panel, place[i]);
            for (int j = 0; j < nodesPerPanel; ++j)
                single[j] += g * shares[j], twin[j] += slope * shares[j];
        }
    }

    /// Total fields at the points for each column of sources. @param cosine of the angle for which the soils' impedance holds
    std::vector<std::vector<Complex>> solved(bool vertical, double cosine, std::vector<Complex> columns)
    {
        const std::size_t n = m_mesh.nodes.size();
        std::vector<Complex> field(n), matrix(n * n); // what one of the unknown is of u
        for (std::size_t i = 0; i < n; ++i) {
            const Complex b = m_surface.impedance(m_mesh.panels[i / nodesPerPanel].piece, vertical, cosine);
            const bool slope = std::abs(b) > 1.0; // then the unknown is du/dn / jk
            field[i] = slope ? 1.0 / b : 1.0;
            const Complex flux = imaginaryUnit * m_k * (slope ? 1.0 : b);
            for (std::size_t row = 0; row < n; ++row)
                matrix[row + i * n] = flux * m_single[row + i * n] - field[i] * m_twin[row + i * n];
            matrix[i + i * n] += 0.5 * field[i];
        }
        std::vector<std::vector<Complex>> all;
        if (m_watch.stopped())
            return all;
        const lapack_int size = lapack_int(n), count = lapack_int(columns.size() / n);
        std::vector<lapack_int> pivots(n);
        LAPACKE_zgesv_work(LAPACK_COL_MAJOR, size, count, raw(matrix), size, pivots.data(), raw(columns), size);
        for (auto column = columns.begin(); column != columns.end(); column += long(n)) {
            std::vector<Complex>& u = all.emplace_back(m_mesh.points.size());
            for (std::size_t i = 0; i < u.size(); ++i) {
                const std::size_t first = m_mesh.strips[i / nodesPerPanel].panel * nodesPerPanel;
                for (int j = 0; j < nodesPerPanel; ++j)
                    u[i] += m_mesh.shares[i][j] * field[first] * column[long(first) + j];
            }
        }
        return all;
    }

    TerrainMesh m_mesh;
    double m_wave, m_k;
    const std::vector<double>& m_heights;
    const Watch& m_watch;
    TerrainSurface m_surface;
    std::vector<Complex> m_single, m_twin; ///< by column
};

} // namespace

Result<TerrainField> TerrainField::solve(const TerrainProfile& profile, double frequency, const std::vector<double>& heights,
                                         const Watch& watch)
{
    if (Faults faults = findFaults(profile); !faults.empty())
        return faults;
    return TerrainSolver(profile, frequency, heights, watch).run();
}

} // namespace vetchling::em
