#include "core/em/nested_solve.h"

#include <cblas.h>
#include <lapacke.h>

#include <algorithm>

namespace vetchling::em {
namespace {

const Complex one = 1.0, minusOne = -1.0;

lapack_complex_double* raw(Complex* p) { return reinterpret_cast<lapack_complex_double*>(p); }

/// One level's diagonal block, and what ties it to the levels above: coupling = block^-1 * upper rows, column-major.
struct Level {
    int start, size, above;
    std::vector<Complex> coupling, own; ///< own: block^-1 * right-hand side
};

/// Column-major and row-major are the same for a symmetric matrix.
class Eliminator {
public:
    Eliminator(Matrix& matrix, int unknowns, std::vector<Complex> rhs, std::vector<Complex> port)
        : m_matrix(matrix), m_n(unknowns), m_rhs(std::move(rhs)), m_port(std::move(port))
    {
    }

    bool eliminate(Level& level)
    {
        const int s = level.start, m = level.size, t = level.above, next = s + m;
        std::vector<lapack_int> pivots(m);
        if (LAPACKE_zgetrf_work(LAPACK_COL_MAJOR, m, m, raw(at(s, s)), m_n, pivots.data()) != 0)
            return false;
        level.own.assign(m_rhs.begin() + s, m_rhs.begin() + next);
        LAPACKE_zgetrs_work(LAPACK_COL_MAJOR, 'N', m, 1, raw(at(s, s)), m_n, pivots.data(), raw(level.own.data()), m);
        for (int i = 0; i < m; ++i)
            m_portSum += m_port[s + i] * level.own[i];
        if (t == 0)
            return true;
        level.coupling.resize(std::size_t(m) * t);
        for (int c = 0; c < t; ++c)
            std::copy_n(at(s, next + c), m, level.coupling.data() + std::size_t(c) * m);
        LAPACKE_zgetrs_work(LAPACK_COL_MAJOR, 'N', m, t, raw(at(s, s)), m_n, pivots.data(), raw(level.coupling.data()), m);
        updateAbove(level);
        cblas_zgemv(CblasColMajor, CblasNoTrans, t, m, &minusOne, at(next, s), m_n, level.own.data(), 1, &one, m_rhs.data() + next, 1);
        cblas_zgemv(CblasColMajor, CblasTrans, m, t, &minusOne, level.coupling.data(), m, m_port.data() + s, 1, &one, m_port.data() + next,
                    1);
        return true;
    }

    /// Subtracts upper rows * coupling, which is symmetric: the strips on and below the diagonal, then their mirror images.
    void updateAbove(const Level& level)
    {
        constexpr int strip = 96;
        const int s = level.start, m = level.size, next = s + m;
        for (int c = 0; c < level.above; c += strip) {
            const int columns = std::min(strip, level.above - c), rows = level.above - c;
            cblas_zgemm(CblasColMajor, CblasNoTrans, CblasNoTrans, rows, columns, m, &minusOne, at(next + c, s), m_n,
                        level.coupling.data() + std::size_t(c) * m, m, &one, at(next + c, next + c), m_n);
            for (int j = 0; j < columns; ++j)
                for (int i = c + j + 1; i < level.above; ++i)
                    *at(next + c + j, next + i) = *at(next + i, next + c + j);
        }
    }

    Complex portSum() const { return m_portSum; }

private:
    Complex* at(int row, int column) { return m_matrix.data() + std::size_t(column) * m_n + row; }

    Matrix& m_matrix;
    int m_n;
    std::vector<Complex> m_rhs, m_port;
    Complex m_portSum = 0.0;
};

} // namespace

NestedSolution nestedSolve(Matrix& matrix, const std::vector<int>& levelStarts, const std::vector<Complex>& rhs,
                           const std::vector<Complex>& port)
{
    const int n = int(rhs.size());
    NestedSolution out;
    std::vector<Level> levels;
    Eliminator eliminator(matrix, n, rhs, port);
    for (std::size_t l = 0; l < levelStarts.size(); ++l) {
        const int start = levelStarts[l], end = l + 1 < levelStarts.size() ? levelStarts[l + 1] : n;
        if (start < end) {
            levels.push_back({start, end - start, n - end, {}, {}});
            if (!eliminator.eliminate(levels.back()))
                return {};
        }
        out.portByLevel.push_back(eliminator.portSum());
    }
    out.unknowns.resize(n);
    for (auto level = levels.rbegin(); level != levels.rend(); ++level) {
        std::copy(level->own.begin(), level->own.end(), out.unknowns.begin() + level->start);
        if (level->above > 0)
            cblas_zgemv(CblasColMajor, CblasNoTrans, level->size, level->above, &minusOne, level->coupling.data(), level->size,
                        out.unknowns.data() + level->start + level->size, 1, &one, out.unknowns.data() + level->start, 1);
    }
    return out;
}

} // namespace vetchling::em
