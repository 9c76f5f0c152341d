#include "core/em/hankel_row.h"
#include "core/em/panel_kernels.h"

#include <cblas.h>
#include <lapacke.h>
#include <oneapi/tbb/parallel_for.h>

#include <algorithm>
#include <cmath>

namespace vetchling::em {
namespace {

using Columns = std::vector<Complex>; // of all nodes, one after the other

constexpr double coreReach = 1.5, blockReach = 1.0; // wavelengths
constexpr std::size_t leastPanels = 6;              // of a block
constexpr double steepReach = 10.0;                 // wavelengths from the foot, in which steep waves matter
constexpr double steepFading = 8.0;                 // of them, over which their fields go over into the others: an end would radiate
constexpr double againReach = 15.0;                 // wavelengths, in which what comes back matters

/// One polarisation with the soils' impedance at one angle, and what is left to be met.
struct WaveSystem {
    Columns left, found;
    std::vector<Complex> field, flux; ///< what an unknown is of u, and of du/dn
    PanelRange reach;
    std::size_t count = 0; ///< of columns
};

TerrainSurface surfaceOn(const TerrainMesh& mesh, double frequency, const std::vector<double>& heights)
{
    return {mesh.pieces, mesh.panels, heights, mesh.foot, waveNumber(frequency), {}, {}};
}

double lowestOf(const std::vector<double>& heights) { return *std::min_element(heights.begin(), heights.end()); }

/// Marches outwards from the foot.
class TerrainSolver {
public:
    TerrainSolver(const TerrainProfile& profile, double frequency, const std::vector<double>& heights, const Watch& watch)
        : m_mesh(profile, frequency, lowestOf(heights)), m_wave(wavelength(frequency)), m_k(waveNumber(frequency)), m_kernels(m_mesh, m_k),
          m_heights(heights), m_watch(watch), m_surface(surfaceOn(m_mesh, frequency, heights))
    {
    }

    Result<TerrainField> run()
    {
        layBlocks();
        laySystems();
        fillAgain();
        for (std::size_t b = 0; b < m_blocks.size() && !m_watch.stopped(); ++b) {
            fillLocal(b);
            solveBlock(m_blocks[b], m_blocks[b].isAgain ? Push::All : Push::Outwards);
        }
        for (const Block& b : m_blocks)
            if (b.isAgain)
                solveBlock(b, Push::Near);
        if (m_watch.stopped())
            return stoppedFault();
        m_surface.grazing = fieldsOf(m_systems[0], m_systems[1], m_systems[0], m_systems[1]);
        m_surface.steep = fieldsOf(m_systems[2], m_systems[3], m_systems[0], m_systems[1]);
        return TerrainField(std::move(m_surface));
    }

private:
    enum class Where { Core, Right, Left };
    struct Block {
        PanelRange own, group; ///< with the next one outwards
        Where where;
        bool isAgain = false; ///< solved once more with what came back
        PanelKernels::Block local = {};
    };
    enum class Push { Outwards, All, Near };

    [[nodiscard]] double distanceOf(std::size_t panel) const { return m_mesh.panels[panel].distanceTo({0.0, m_mesh.foot}, -1.0, 1.0); }

    /// A panel range that begins at `from` and goes on outwards until it is long enough.
    [[nodiscard]] PanelRange blockFrom(std::size_t from, bool isRight) const
    {
        const std::size_t all = m_mesh.panels.size();
        PanelRange out{from, from};
        double length = 0.0;
        const auto isEnough = [&] { return length >= blockReach * m_wave && out.last - out.first >= leastPanels; };
        while (isRight && out.last < all && !isEnough())
            length += m_mesh.panels[out.last++].length;
        while (!isRight && out.first > 0 && !isEnough())
            length += m_mesh.panels[--out.first].length;
        return out;
    }

    void layBlocks()
    {
        const std::size_t all = m_mesh.panels.size();
        const PanelRange core = within(coreReach * m_wave);
        m_again = within(againReach * m_wave);
        m_blocks.push_back({core, {blockFrom(core.first, false).first, blockFrom(core.last, true).last}, Where::Core});
        for (std::size_t at = core.last; at < all;) {
            const PanelRange own = blockFrom(at, true);
            m_blocks.push_back({own, {own.first, blockFrom(own.last, true).last}, Where::Right});
            at = own.last;
        }
        for (std::size_t at = core.first; at > 0;) {
            const PanelRange own = blockFrom(at, false);
            m_blocks.push_back({own, {blockFrom(own.first, false).first, own.last}, Where::Left});
            at = own.first;
        }
        for (Block& b : m_blocks)
            b.isAgain = overlaps(b.own, m_again);
    }

    /// Panels from the first to the last that is so near to the foot.
    [[nodiscard]] PanelRange within(double reach) const
    {
        PanelRange out{0, m_mesh.panels.size()};
        while (out.first + 1 < out.last && distanceOf(out.first) > reach)
            ++out.first;
        while (out.first + 1 < out.last && distanceOf(out.last - 1) > reach)
            --out.last;
        return out;
    }

    void laySystems()
    {
        const std::size_t n = m_mesh.nodes.size(), heights = m_heights.size();
        Columns across(n * heights), both(2 * n * heights);
        std::vector<double> x(n);
        HankelRow hankel;
        for (std::size_t h = 0; h < heights; ++h) {
            const auto away = [&](std::size_t i) {
                return ProfilePoint{m_mesh.nodes[i].x, m_mesh.nodes[i].z - m_mesh.foot - m_heights[h]};
            };
            for (std::size_t i = 0; i < n; ++i)
                x[i] = m_k * std::hypot(away(i).x, away(i).z);
            hankel.fill(x);
            for (std::size_t i = 0; i < n; ++i) {
                const Complex front = -0.25 * imaginaryUnit, slope = front * m_k * Complex{hankel.re1[i], hankel.im1[i]} * (m_k / x[i]);
                across[h * n + i] = front * Complex{hankel.re0[i], hankel.im0[i]};
                both[h * n + i] = slope * away(i).z;
                both[(heights + h) * n + i] = slope * away(i).x;
            }
        }
        const PanelRange near = within(steepReach * m_wave);
        for (const double cosine : {1.0, std::sqrt(1.0 - TerrainSurface::steepSquare)})
            for (const bool vertical : {false, true}) {
                WaveSystem& s = m_systems.emplace_back();
                s.left = vertical ? both : across;
                s.count = vertical ? 2 * heights : heights;
                s.found.assign(s.left.size(), 0.0);
                s.reach = cosine == 1.0 ? PanelRange{0, m_mesh.panels.size()} : near;
                for (std::size_t i = 0; i < n; ++i) {
                    const Complex b =
                        surfaceImpedance(m_mesh.pieces[m_mesh.panels[i / nodesPerPanel].piece].permittivity, vertical, cosine);
                    const bool isSlope = std::abs(b) > 1.0; // then the unknown is du/dn / jk
                    s.field.push_back(isSlope ? 1.0 / b : 1.0);
                    s.flux.push_back(imaginaryUnit * m_k * (isSlope ? 1.0 : b));
                }
            }
    }

    /// Rows of the equation: `targets` by the nodes from `first` on, as many as the block has.
    void assemble(const WaveSystem& s, const PanelKernels::Block& block, PanelRange targets, PanelRange sources, Columns& out) const
    {
        const std::size_t rows = targets.nodes();
        out.resize(rows * sources.nodes());
        for (std::size_t j = 0; j < sources.nodes(); ++j) {
            const std::size_t node = sources.firstNode() + j;
            const Complex flux = s.flux[node], field = s.field[node];
            for (std::size_t i = 0; i < rows; ++i)
                out[j * rows + i] = flux * block.single[j * rows + i] - field * block.twin[j * rows + i];
            if (node >= targets.firstNode() && node < targets.firstNode() + rows)
                out[j * rows + node - targets.firstNode()] += 0.5 * field;
        }
    }

    static bool overlaps(PanelRange a, PanelRange b) { return a.first < b.last && b.first < a.last; }

    static bool holds(PanelRange all, PanelRange some) { return all.first <= some.first && some.last <= all.last; }

    /// Of what is solved twice, all at once.
    void fillAgain()
    {
        constexpr std::size_t mostNodes = 1500; // memory
        const std::size_t rows = m_again.nodes();
        if (rows > mostNodes)
            return;
        m_kept.single.resize(rows * rows), m_kept.twin.resize(rows * rows);
        tbb::parallel_for(m_again.first, m_again.last, [&](std::size_t panel) {
            if (m_watch.stopped())
                return;
            PanelKernels::Block some;
            m_kernels.fill({panel, panel + 1}, m_again, some);
            const std::size_t row = (panel - m_again.first) * nodesPerPanel;
            for (std::size_t j = 0; j < rows; ++j) {
                std::copy_n(some.single.begin() + long(j * nodesPerPanel), nodesPerPanel, m_kept.single.begin() + long(j * rows + row));
                std::copy_n(some.twin.begin() + long(j * nodesPerPanel), nodesPerPanel, m_kept.twin.begin() + long(j * rows + row));
            }
        });
    }

    void kernels(PanelRange targets, PanelRange sources, PanelKernels::Block& out) const
    {
        if (m_kept.single.empty() || !holds(m_again, targets) || !holds(m_again, sources)) {
            m_kernels.fill(targets, sources, out);
            return;
        }
        const std::size_t rows = targets.nodes(), all = m_again.nodes();
        out.single.resize(rows * sources.nodes()), out.twin.resize(out.single.size());
        for (std::size_t j = 0; j < sources.nodes(); ++j) {
            const std::size_t at = (sources.firstNode() + j - m_again.firstNode()) * all + targets.firstNode() - m_again.firstNode();
            std::copy_n(m_kept.single.begin() + long(at), rows, out.single.begin() + long(j * rows));
            std::copy_n(m_kept.twin.begin() + long(at), rows, out.twin.begin() + long(j * rows));
        }
    }

    /// What the group's panels make at one another; what the block before had of them is taken from there.
    void fillLocal(std::size_t number)
    {
        Block& b = m_blocks[number];
        b.local.single.resize(b.group.nodes() * b.group.nodes()), b.local.twin.resize(b.local.single.size());
        Block* before = number > 0 && holds(m_blocks[number - 1].group, b.own) ? &m_blocks[number - 1] : nullptr;
        tbb::parallel_for(b.group.first, b.group.last, [&](std::size_t panel) {
            const PanelRange target{panel, panel + 1};
            if (!before || !holds(b.own, target)) {
                place(target, b.group, b);
                return;
            }
            place(target, {b.group.first, b.own.first}, b);
            place(target, {b.own.last, b.group.last}, b);
            copy(target, *before, b);
        });
        if (number > 0 && !m_blocks[number - 1].isAgain)
            m_blocks[number - 1].local = {};
    }

    void place(PanelRange targets, PanelRange sources, Block& to) const
    {
        if (sources.isEmpty())
            return;
        PanelKernels::Block some;
        kernels(targets, sources, some);
        const std::size_t rows = to.group.nodes(), row = targets.firstNode() - to.group.firstNode(), count = targets.nodes();
        for (std::size_t j = 0; j < sources.nodes(); ++j) {
            const std::size_t at = (sources.firstNode() + j - to.group.firstNode()) * rows + row;
            std::copy_n(some.single.begin() + long(j * count), count, to.local.single.begin() + long(at));
            std::copy_n(some.twin.begin() + long(j * count), count, to.local.twin.begin() + long(at));
        }
    }

    /// At some targets, of the sources that are the block's own.
    static void copy(PanelRange targets, const Block& from, Block& to)
    {
        for (std::size_t node = to.own.firstNode(); node < to.own.firstNode() + to.own.nodes(); ++node) {
            const auto at = [&](const Block& b) {
                return long((node - b.group.firstNode()) * b.group.nodes() + targets.firstNode() - b.group.firstNode());
            };
            std::copy_n(from.local.single.begin() + at(from), targets.nodes(), to.local.single.begin() + at(to));
            std::copy_n(from.local.twin.begin() + at(from), targets.nodes(), to.local.twin.begin() + at(to));
        }
    }

    void solveBlock(const Block& b, Push to)
    {
        if (m_watch.stopped())
            return;
        std::vector<Columns> change(m_systems.size());
        tbb::parallel_for(std::size_t(0), m_systems.size(), [&](std::size_t i) {
            if (overlaps(m_systems[i].reach, b.own))
                change[i] = correct(m_systems[i], b);
        });
        const PanelRange near = to == Push::Outwards ? PanelRange{} : m_again;
        const PanelRange right = to != Push::Near && b.where != Where::Left ? PanelRange{b.group.last, m_mesh.panels.size()}
                                                                            : PanelRange{b.group.last, near.last};
        const PanelRange left =
            to != Push::Near && b.where != Where::Right ? PanelRange{0, b.group.first} : PanelRange{near.first, b.group.first};
        push(right, b.own, change);
        if (to != Push::Outwards || b.where != Where::Right)
            push(left, b.own, change);
    }

    /// Solves the group, keeps what is its block's own, and takes it from what is left in the group.
    Columns correct(WaveSystem& s, const Block& b)
    {
        const std::size_t n = m_mesh.nodes.size(), rows = b.group.nodes(), own = b.own.nodes();
        const std::size_t offset = b.own.firstNode() - b.group.firstNode();
        Columns matrix, columns(rows * s.count), change(own * s.count);
        assemble(s, b.local, b.group, b.group, matrix);
        const Columns ownColumns(matrix.begin() + long(offset * rows), matrix.begin() + long((offset + own) * rows));
        for (std::size_t c = 0; c < s.count; ++c)
            std::copy_n(s.left.begin() + long(c * n + b.group.firstNode()), rows, columns.begin() + long(c * rows));
        std::vector<lapack_int> pivots(rows);
        LAPACKE_zgesv_work(LAPACK_COL_MAJOR, lapack_int(rows), lapack_int(s.count), raw(matrix), lapack_int(rows), pivots.data(),
                           raw(columns), lapack_int(rows));
        for (std::size_t c = 0; c < s.count; ++c)
            for (std::size_t i = 0; i < own; ++i) {
                change[c * own + i] = columns[c * rows + offset + i];
                s.found[c * n + b.own.firstNode() + i] += change[c * own + i];
            }
        take(s, ownColumns, b.group, b.own, change);
        return change;
    }

    /// left -= matrix change, in the rows of the targets.
    void take(WaveSystem& s, const Columns& matrix, PanelRange targets, PanelRange sources, const Columns& change) const
    {
        const Complex minusOne = -1.0, one = 1.0;
        const int rows = int(targets.nodes()), own = int(sources.nodes()), n = int(m_mesh.nodes.size());
        cblas_zgemm(CblasColMajor, CblasNoTrans, CblasNoTrans, rows, int(s.count), own, &minusOne, matrix.data(), rows, change.data(), own,
                    &one, s.left.data() + targets.firstNode(), n);
    }

    /// What a block's change makes farther off.
    void push(PanelRange targets, PanelRange sources, const std::vector<Columns>& change)
    {
        constexpr std::size_t atOnce = 8; // panels
        if (targets.isEmpty())
            return;
        const std::size_t parts = (targets.last - targets.first + atOnce - 1) / atOnce;
        tbb::parallel_for(std::size_t(0), parts, [&](std::size_t part) {
            const PanelRange some{targets.first + part * atOnce, std::min(targets.last, targets.first + (part + 1) * atOnce)};
            if (m_watch.stopped())
                return;
            PanelKernels::Block block;
            Columns matrix;
            kernels(some, sources, block);
            for (std::size_t i = 0; i < m_systems.size(); ++i)
                if (!change[i].empty() && overlaps(m_systems[i].reach, some)) {
                    assemble(m_systems[i], block, some, sources, matrix);
                    take(m_systems[i], matrix, some, sources, change[i]);
                }
        });
    }

    static lapack_complex_double* raw(Columns& v) { return reinterpret_cast<lapack_complex_double*>(v.data()); }

    /// @param beyond what holds where the systems do not reach
    [[nodiscard]] TerrainSurface::Fields fieldsOf(const WaveSystem& across, const WaveSystem& both, const WaveSystem& acrossBeyond,
                                                  const WaveSystem& bothBeyond) const
    {
        TerrainSurface::Fields out;
        for (std::size_t h = 0; h < m_heights.size(); ++h) {
            out.across.push_back(fieldOf(across, acrossBeyond, h));
            out.along.push_back(fieldOf(both, bothBeyond, h));
            out.vertical.push_back(fieldOf(both, bothBeyond, m_heights.size() + h));
        }
        return out;
    }

    [[nodiscard]] TerrainSurface::Fields::Column fieldOf(const WaveSystem& near, const WaveSystem& beyond, std::size_t column) const
    {
        const std::size_t n = m_mesh.nodes.size();
        TerrainSurface::Fields::Column out(n);
        for (std::size_t i = 0; i < n; ++i) {
            const auto of = [&](const WaveSystem& s) { return s.field[i] * s.found[column * n + i]; };
            const double away = std::hypot(m_mesh.nodes[i].x, m_mesh.nodes[i].z - m_mesh.foot) / m_wave;
            const double share = fadeOut((away - steepReach + steepFading) / steepFading);
            out[i] = std::complex<float>((share * of(near) + (1.0 - share) * of(beyond)) * m_mesh.windowAt(m_mesh.nodes[i].x));
        }
        return out;
    }

    TerrainMesh m_mesh;
    double m_wave, m_k;
    PanelKernels m_kernels;
    const std::vector<double>& m_heights;
    const Watch& m_watch;
    TerrainSurface m_surface;
    PanelRange m_again;
    PanelKernels::Block m_kept;  ///< of those panels; empty where they are too many
    std::vector<Block> m_blocks; ///< in the order of their solution
    std::vector<WaveSystem> m_systems;
};

} // namespace

TerrainSurface surfaceOf(const TerrainProfile& profile, double frequency, const std::vector<double>& heights)
{
    return surfaceOn(TerrainMesh(profile, frequency, lowestOf(heights)), frequency, heights);
}

TerrainField TerrainField::retuned(const TerrainProfile& profile, double frequency) const
{
    const TerrainMesh mesh(profile, frequency, lowestOf(heights()));
    TerrainField out = *this;
    out.m_waveNumber = waveNumber(frequency);
    for (std::size_t p = 0; p < out.m_permittivities.size(); ++p)
        out.m_permittivities[p] = mesh.pieces[p].permittivity;
    out.takeWaves();
    return out;
}

Result<TerrainField> TerrainField::solve(const TerrainProfile& profile, double frequency, const std::vector<double>& heights,
                                         const Watch& watch)
{
    if (Faults faults = findFaults(profile); !faults.empty())
        return faults;
    return TerrainSolver(profile, frequency, heights, watch).run();
}

} // namespace vetchling::em
