#include "core/em/nested_solve.h"

#include "core/em/blas_room.h"

#include <cblas.h>
#include <lapacke.h>

#include <algorithm>

namespace vetchling::em {
namespace {

const Complex one = 1.0, minusOne = -1.0;

lapack_complex_double* raw(Complex* p) { return reinterpret_cast<lapack_complex_double*>(p); }

/// Columns that are treated between two looks at the watch; also the width of a panel of the factorisation.
constexpr int strip = 96;

/// A = P L U in place as zgetrf would, panel by panel (right-looking; Golub & Van Loan 2013, sec. 3.6.1), so that a stop is heeded.
/// @return false if singular or stopped
bool factorise(Complex* a, int n, int stride, std::vector<lapack_int>& pivots, const Watch& watch)
{
    const auto at = [&](int row, int column) { return a + std::size_t(column) * stride + row; };
    for (int k = 0; k < n; k += strip) {
        const int wide = std::min(strip, n - k), next = k + wide;
        if (watch.stopped() || LAPACKE_zgetrf_work(LAPACK_COL_MAJOR, n - k, wide, raw(at(k, k)), stride, pivots.data() + k) != 0)
            return false;
        for (int i = k; i < next; ++i)
            pivots[i] += k;
        LAPACKE_zlaswp_work(LAPACK_COL_MAJOR, k, raw(a), stride, k + 1, next, pivots.data(), 1);
        for (int c = next; c < n; c += strip) {
            const int columns = std::min(strip, n - c);
            LAPACKE_zlaswp_work(LAPACK_COL_MAJOR, columns, raw(at(0, c)), stride, k + 1, next, pivots.data(), 1);
            cblas_ztrsm(CblasColMajor, CblasLeft, CblasLower, CblasNoTrans, CblasUnit, wide, columns, &one, at(k, k), stride, at(k, c),
                        stride);
            if (watch.stopped())
                return false;
            cblas_zgemm(CblasColMajor, CblasNoTrans, CblasNoTrans, n - next, columns, wide, &minusOne, at(next, k), stride, at(k, c),
                        stride, &one, at(next, c), stride);
        }
    }
    return true;
}

/// One level's diagonal block, and what ties it to the levels above: coupling = block^-1 * upper rows, column-major.
struct Level {
    int start, size, above;
    std::vector<Complex> coupling, own; ///< own: block^-1 * right-hand side
};

/// Column-major and row-major are the same for a symmetric matrix.
class Eliminator {
public:
    Eliminator(Matrix& matrix, int unknowns, std::vector<Complex> rhs, std::vector<Complex> port, const Watch& watch)
        : m_matrix(matrix), m_n(unknowns), m_rhs(std::move(rhs)), m_port(std::move(port)), m_watch(watch)
    {
        giveRoom(m_rhs);
        giveRoom(m_port);
    }

    bool eliminate(Level& level)
    {
        const int s = level.start, m = level.size, t = level.above, next = s + m;
        std::vector<lapack_int> pivots(m);
        if (!factorise(at(s, s), m, m_n, pivots, m_watch))
            return false;
        level.own.assign(m_rhs.begin() + s, m_rhs.begin() + next);
        giveRoom(level.own);
        LAPACKE_zgetrs_work(LAPACK_COL_MAJOR, 'N', m, 1, raw(at(s, s)), m_n, pivots.data(), raw(level.own.data()), m);
        for (int i = 0; i < m; ++i)
            m_portSum += m_port[s + i] * level.own[i];
        if (t == 0)
            return true;
        level.coupling = zerosWithRoom(std::size_t(m) * t);
        for (int c = 0; c < t; ++c)
            std::copy_n(at(s, next + c), m, level.coupling.data() + std::size_t(c) * m);
        for (int c = 0; c < t; c += strip) {
            if (m_watch.stopped())
                return false;
            LAPACKE_zgetrs_work(LAPACK_COL_MAJOR, 'N', m, std::min(strip, t - c), raw(at(s, s)), m_n, pivots.data(),
                                raw(level.coupling.data() + std::size_t(c) * m), m);
        }
        if (!updateAbove(level))
            return false;
        cblas_zgemv(CblasColMajor, CblasNoTrans, t, m, &minusOne, at(next, s), m_n, level.own.data(), 1, &one, m_rhs.data() + next, 1);
        cblas_zgemv(CblasColMajor, CblasTrans, m, t, &minusOne, level.coupling.data(), m, m_port.data() + s, 1, &one, m_port.data() + next,
                    1);
        return true;
    }

    /// Subtracts upper rows * coupling, which is symmetric: the strips on and below the diagonal, then their mirror images.
    bool updateAbove(const Level& level)
    {
        const int s = level.start, m = level.size, next = s + m;
        for (int c = 0; c < level.above; c += strip) {
            const int columns = std::min(strip, level.above - c), rows = level.above - c;
            if (m_watch.stopped())
                return false;
            cblas_zgemm(CblasColMajor, CblasNoTrans, CblasNoTrans, rows, columns, m, &minusOne, at(next + c, s), m_n,
                        level.coupling.data() + std::size_t(c) * m, m, &one, at(next + c, next + c), m_n);
            for (int j = 0; j < columns; ++j)
                for (int i = c + j + 1; i < level.above; ++i)
                    *at(next + c + j, next + i) = *at(next + i, next + c + j);
        }
        return true;
    }

    Complex portSum() const { return m_portSum; }

private:
    Complex* at(int row, int column) { return m_matrix.data() + std::size_t(column) * m_n + row; }

    Matrix& m_matrix;
    int m_n;
    std::vector<Complex> m_rhs, m_port;
    Complex m_portSum = 0.0;
    const Watch& m_watch;
};

} // namespace

NestedSolution nestedSolve(Matrix& matrix, const std::vector<int>& levelStarts, const std::vector<Complex>& rhs,
                           const std::vector<Complex>& port, const Watch& watch)
{
    const int n = int(rhs.size());
    NestedSolution out;
    std::vector<Level> levels;
    Eliminator eliminator(matrix, n, rhs, port, watch);
    for (std::size_t l = 0; l < levelStarts.size(); ++l) {
        const int start = levelStarts[l], end = l + 1 < levelStarts.size() ? levelStarts[l + 1] : n;
        if (start < end) {
            levels.push_back({start, end - start, n - end, {}, {}});
            if (!eliminator.eliminate(levels.back()))
                return {};
        }
        out.portByLevel.push_back(eliminator.portSum());
    }
    out.unknowns = zerosWithRoom(std::size_t(n));
    for (auto level = levels.rbegin(); level != levels.rend(); ++level) {
        std::copy(level->own.begin(), level->own.end(), out.unknowns.begin() + level->start);
        if (level->above > 0)
            cblas_zgemv(CblasColMajor, CblasNoTrans, level->size, level->above, &minusOne, level->coupling.data(), level->size,
                        out.unknowns.data() + level->start + level->size, 1, &one, out.unknowns.data() + level->start, 1);
    }
    return out;
}

} // namespace vetchling::em
