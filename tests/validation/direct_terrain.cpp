#include "tests/validation/direct_terrain.h"

#include <lapacke.h>
#include <math.h> // j0, y0 and so on are POSIX's
#include <oneapi/tbb/parallel_for.h>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace vetchling::direct {
namespace {

using Complex = std::complex<double>;
using std::numbers::pi;

constexpr Complex j{0.0, 1.0};
constexpr int order = 8;                          // nodes of a panel
constexpr double longest = 0.6, finest = 3e-3;    // wavelengths: of panels, of those at corners
constexpr double wholeWindow = 2.0, fading = 6.0; // wavelengths beyond the last corners

struct Rule {
    double node[order], weight[order];
    Rule()
    {
        for (int i = 0; i < order; ++i) { // Newton, from Tricomi's guess
            double x = std::cos(pi * (i + 0.75) / (order + 0.5)), slope = 1.0;
            for (int turn = 0; turn < 50; ++turn) {
                const double p = std::legendre(order, x);
                slope = order * (x * p - std::legendre(order - 1, x)) / (x * x - 1.0);
                x -= p / slope;
            }
            node[order - 1 - i] = x, weight[order - 1 - i] = 2.0 / ((1.0 - x * x) * slope * slope);
        }
    }
    /// Lagrange's polynomial of a node.
    [[nodiscard]] double polynomial(int of, double t) const
    {
        double out = 1.0;
        for (int i = 0; i < order; ++i)
            if (i != of)
                out *= (t - node[i]) / (node[of] - node[i]);
        return out;
    }
};

const Rule& rule()
{
    static const Rule one;
    return one;
}

struct Place {
    double x, z;
};

struct Panel {
    Place from, to;
    int piece;
    [[nodiscard]] double length() const { return std::hypot(to.x - from.x, to.z - from.z); }
    [[nodiscard]] Place at(double t) const
    {
        return {from.x + 0.5 * (1.0 + t) * (to.x - from.x), from.z + 0.5 * (1.0 + t) * (to.z - from.z)};
    }
    [[nodiscard]] Place normal() const { return {-(to.z - from.z) / length(), (to.x - from.x) / length()}; }
};

struct Kernels {
    Complex g, slope; ///< G, dG/dn'
};

class Ground {
public:
    Ground(const TerrainProfile& profile, double frequency) : m_k(2.0 * pi * frequency / 299792458.0), m_wave(299792458.0 / frequency)
    {
        for (const vetchling::Ground& soil : profile.soils) {
            const vetchling::Ground here = soil.at(frequency);
            m_permittivity.emplace_back(here.relativePermittivity, -here.conductivity / (2.0 * pi * frequency * 8.8541878128e-12));
        }
        for (const ProfilePoint& p : profile.corners)
            m_corners.push_back({p.x, p.z});
        const double beyond = (wholeWindow + fading) * m_wave;
        m_first = std::min(m_corners.front().x, 0.0) - beyond, m_last = std::max(m_corners.back().x, 0.0) + beyond;
        m_corners.insert(m_corners.begin(), {m_first, m_corners.front().z});
        m_corners.push_back({m_last, m_corners.back().z});
        for (int piece = 0; piece + 1 < int(m_corners.size()); ++piece)
            layPiece(piece);
        fillKernels();
    }

    /// Field at a height over the foot, and its derivative along the ground over jk; phase against the foot.
    [[nodiscard]] std::pair<Complex, Complex> solve(bool vertical, double elevation, double height) const
    {
        const double s = std::sin(elevation), c = std::cos(elevation), level = m_corners.back().z;
        const std::size_t n = m_nodes.size();
        std::vector<Complex> b(m_permittivity.size());
        for (std::size_t p = 0; p < b.size(); ++p)
            b[p] = impedance(int(p), vertical, localCosine(int(p), elevation));
        const Complex r = (s - b.back()) / (s + b.back());
        const auto far = [&](Place p) {
            return std::polar(1.0, m_k * p.x * c) *
                   (std::polar(1.0, m_k * (p.z - level) * s) + r * std::polar(1.0, -m_k * (p.z - level) * s));
        };
        std::vector<Complex> matrix(n * n), right(n), rest(n), field(n), flux(n);
        for (std::size_t i = 0; i < n; ++i) {
            const Panel& panel = m_panels[i / order];
            const Place normal = panel.normal(), p = m_nodes[i];
            const Complex up = std::polar(1.0, m_k * (p.z - level) * s), down = r * std::conj(up);
            const Complex du = j * m_k * std::polar(1.0, m_k * p.x * c) * (normal.x * c * (up + down) + normal.z * s * (up - down));
            rest[i] = du - j * m_k * b[panel.piece] * far(p);
        }
        std::vector<Complex> known(n); // of du/dn when u is the unknown, of u when du/dn is
        for (std::size_t i = 0; i < n; ++i) {
            const Complex own = b[m_panels[i / order].piece];
            const bool isFlux = std::abs(own) > 1.0;
            field[i] = isFlux ? 1.0 / own : 1.0, flux[i] = j * m_k * (isFlux ? 1.0 : own);
            known[i] = isFlux ? rest[i] / (j * m_k * own) : -rest[i];
            for (std::size_t row = 0; row < n; ++row) {
                const Complex atRow = (row == i ? 0.5 : 0.0) - m_twin[i * n + row];
                matrix[i * n + row] = field[i] * atRow + flux[i] * m_single[i * n + row];
                right[row] -= isFlux ? atRow * known[i] : m_single[i * n + row] * known[i];
            }
        }
        std::vector<lapack_int> pivots(n);
        LAPACKE_zgesv(LAPACK_COL_MAJOR, lapack_int(n), 1, reinterpret_cast<lapack_complex_double*>(matrix.data()), lapack_int(n),
                      pivots.data(), reinterpret_cast<lapack_complex_double*>(right.data()), lapack_int(n));
        for (std::size_t i = 0; i < n; ++i) {
            const bool isFlux = std::abs(b[m_panels[i / order].piece]) > 1.0;
            const Complex found = right[i];
            field[i] = field[i] * found + (isFlux ? known[i] : 0.0), flux[i] = flux[i] * found + (isFlux ? 0.0 : known[i]);
        }
        const double foot = heightAt(0.0), step = 1e-3 * m_wave;
        const auto at = [&](Place p) {
            std::vector<Complex> single(n), twin(n);
            row(p, -1, single.data(), twin.data(), 1);
            Complex u = far(p);
            for (std::size_t i = 0; i < n; ++i)
                u += twin[i] * field[i] - single[i] * flux[i];
            return u * std::polar(1.0, m_k * (level - foot) * s); // phase against the foot
        };
        const double z = foot + height;
        return {at({0.0, z}), (at({step, z}) - at({-step, z})) / (2.0 * step * j * m_k)};
    }

private:
    void layPiece(int piece)
    {
        const Place a = m_corners[piece], b = m_corners[piece + 1];
        const auto at = [&](double t) { return Place{a.x + t * (b.x - a.x), a.z + t * (b.z - a.z)}; };
        const double length = std::hypot(b.x - a.x, b.z - a.z), least = finest * m_wave;
        std::vector<double> ends{0.0, length};
        for (double from = std::min(longest * m_wave, 0.5 * length); from > least; from /= 3.0)
            ends.push_back(from), ends.push_back(length - from);
        std::sort(ends.begin(), ends.end());
        for (std::size_t e = 1; e < ends.size(); ++e) {
            const double part = ends[e] - ends[e - 1];
            const int count = std::max(1, int(std::ceil(part / (longest * m_wave) - 1e-9)));
            for (int i = 0; i < count && part > 1e-9; ++i)
                m_panels.push_back(
                    {at((ends[e - 1] + part * i / count) / length), at((ends[e - 1] + part * (i + 1) / count) / length), piece});
        }
    }

    [[nodiscard]] double heightAt(double x) const
    {
        for (std::size_t i = 1; i < m_corners.size(); ++i)
            if (x <= m_corners[i].x)
                return m_corners[i - 1].z +
                       (m_corners[i].z - m_corners[i - 1].z) * (x - m_corners[i - 1].x) / (m_corners[i].x - m_corners[i - 1].x);
        return m_corners.back().z;
    }

    [[nodiscard]] Complex impedance(int piece, bool vertical, double cosine) const
    {
        const Complex across = std::sqrt(m_permittivity[piece] - cosine * cosine);
        return vertical ? across / m_permittivity[piece] : across;
    }

    /// Of the angle between the wave and a piece; grazing where no ray comes.
    [[nodiscard]] double localCosine(int piece, double elevation) const
    {
        const Place a = m_corners[piece], b = m_corners[piece + 1];
        const double tilt = std::atan2(b.z - a.z, b.x - a.x), angle = elevation - tilt;
        const double x = 0.5 * (a.x + b.x), z = 0.5 * (a.z + b.z);
        bool hidden = angle <= 0.0 || angle >= pi;
        for (const Place& p : m_corners)
            hidden = hidden || (p.x > x && p.z > z + (p.x - x) * std::tan(elevation) + 1e-6);
        return hidden ? 1.0 : std::cos(angle);
    }

    [[nodiscard]] double window(double x) const
    {
        const auto fade = [](double t) { return t <= 0.0 ? 1.0 : t >= 1.0 ? 0.0 : 1.0 / (1.0 + std::exp(1.0 / (1.0 - t) - 1.0 / t)); };
        return fade((m_first + fading * m_wave - x) / (fading * m_wave)) * fade((x - m_last) / (fading * m_wave) + 1.0);
    }

    [[nodiscard]] Kernels kernels(Place target, Place source, Place normal) const
    {
        const double dx = target.x - source.x, dz = target.z - source.z, away = std::hypot(dx, dz), x = m_k * away;
        const Complex h0{::j0(x), -::y0(x)}, h1{::j1(x), -::y1(x)};
        return {-0.25 * j * h0, -0.25 * j * m_k * h1 * (dx * normal.x + dz * normal.z) / away};
    }

    /// Integrals over the part a..b of a panel, halved until it is short against its distance.
    void near(Place target, const Panel& panel, double a, double b, Complex* single, Complex* twin, std::size_t stride) const
    {
        const double part = 0.5 * (b - a) * panel.length();
        const Place middle = panel.at(0.5 * (a + b));
        const double away = std::hypot(target.x - middle.x, target.z - middle.z);
        if (away < 1.5 * part && part > 1e-9 * m_wave) {
            near(target, panel, a, 0.5 * (a + b), single, twin, stride);
            near(target, panel, 0.5 * (a + b), b, single, twin, stride);
            return;
        }
        for (int q = 0; q < order; ++q) {
            const double t = 0.5 * (a + b) + 0.5 * (b - a) * rule().node[q];
            const Place p = panel.at(t);
            if (std::hypot(p.x - target.x, p.z - target.z) < 1e-14)
                continue;
            const Kernels k = kernels(target, p, panel.normal());
            const double weight = 0.5 * part * rule().weight[q] * window(p.x);
            for (int i = 0; i < order; ++i) {
                const double share = weight * rule().polynomial(i, t);
                single[i * stride] += share * k.g, twin[i * stride] += share * k.slope;
            }
        }
    }

    /// What all unknowns make at a place. @param own piece on which it lies
    void row(Place target, int own, Complex* single, Complex* twin, std::size_t stride) const
    {
        for (std::size_t p = 0; p < m_panels.size(); ++p) {
            const Panel& panel = m_panels[p];
            Complex *g = single + p * order * stride, *slope = twin + p * order * stride;
            const Place middle = panel.at(0.0);
            if (std::hypot(target.x - middle.x, target.z - middle.z) < 2.0 * panel.length())
                near(target, panel, -1.0, 1.0, g, slope, stride);
            else
                for (int i = 0; i < order; ++i) {
                    const Place at = m_nodes[p * order + i];
                    const Kernels k = kernels(target, at, panel.normal());
                    const double weight = 0.5 * panel.length() * rule().weight[i] * window(at.x);
                    g[i * stride] = weight * k.g, slope[i * stride] = weight * k.slope;
                }
            if (panel.piece == own)
                for (int i = 0; i < order; ++i)
                    slope[i * stride] = 0.0; // in line
        }
    }

    void fillKernels()
    {
        for (const Panel& p : m_panels)
            for (double t : rule().node)
                m_nodes.push_back(p.at(t));
        const std::size_t n = m_nodes.size();
        m_single.assign(n * n, 0.0), m_twin.assign(n * n, 0.0);
        tbb::parallel_for(std::size_t(0), n,
                          [&](std::size_t i) { row(m_nodes[i], m_panels[i / order].piece, m_single.data() + i, m_twin.data() + i, n); });
    }

    double m_k, m_wave, m_first = 0.0, m_last = 0.0;
    std::vector<Place> m_corners, m_nodes;
    std::vector<Panel> m_panels;
    std::vector<Complex> m_permittivity, m_single, m_twin; ///< kernels by column
};

} // namespace

std::vector<TerrainWaves> terrainWaves(const TerrainProfile& profile, double frequency, double height,
                                       const std::vector<double>& elevations)
{
    const Ground ground(profile, frequency);
    std::vector<TerrainWaves> out;
    for (double e : elevations)
        out.push_back({ground.solve(false, e, height).first, ground.solve(true, e, height).second});
    return out;
}

} // namespace vetchling::direct
