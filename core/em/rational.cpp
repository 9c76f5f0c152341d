#include "core/em/rational.h"

#include "core/em/blas_room.h"

#include <lapacke.h>

#include <algorithm>
#include <cmath>

namespace vetchling::em {
namespace {

/// Right singular vector of the smallest singular value of a rows x columns matrix (column-major); empty where it does not converge.
std::vector<Complex> smallestSingularVector(std::vector<Complex> matrix, int rows, int columns)
{
    const auto plain = [](std::vector<Complex>& v) { return reinterpret_cast<lapack_complex_double*>(v.data()); };
    const std::size_t least = std::size_t(std::min(rows, columns));
    giveRoom(matrix);
    std::vector<double> singular(least), real(5 * least);
    std::vector<Complex> vt = zerosWithRoom(std::size_t(columns) * columns), u(1), size(1);
    if (LAPACKE_zgesvd_work(LAPACK_COL_MAJOR, 'N', 'A', rows, columns, plain(matrix), rows, singular.data(), plain(u), 1, plain(vt),
                            columns, plain(size), -1, real.data()) != 0)
        return {};
    std::vector<Complex> work = zerosWithRoom(std::size_t(size[0].real()));
    if (LAPACKE_zgesvd_work(LAPACK_COL_MAJOR, 'N', 'A', rows, columns, plain(matrix), rows, singular.data(), plain(u), 1, plain(vt),
                            columns, plain(work), int(size[0].real()), real.data()) != 0)
        return {};
    std::vector<Complex> vector(columns);
    for (int j = 0; j < columns; ++j)
        vector[j] = std::conj(vt[std::size_t(j) * columns + columns - 1]);
    return vector;
}

} // namespace

RationalFit::RationalFit(const std::vector<double>& points, const std::vector<Complex>& values, double tolerance)
{
    const std::size_t count = points.size();
    std::vector<bool> used(count, false);
    std::vector<Complex> fitted(count);
    Complex mean = 0.0;
    for (Complex v : values)
        mean += v / double(count);
    std::fill(fitted.begin(), fitted.end(), mean);
    while (m_support.size() < (count + 1) / 2) {
        std::size_t worst = count;
        for (std::size_t i = 0; i < count; ++i)
            if (!used[i] && (worst == count || std::abs(values[i] - fitted[i]) > std::abs(values[worst] - fitted[worst])))
                worst = i;
        if (!m_support.empty() && std::abs(values[worst] - fitted[worst]) < tolerance)
            break;
        used[worst] = true;
        m_support.push_back(points[worst]);
        m_value.push_back(values[worst]);

        const int columns = int(m_support.size()), rows = int(count) - columns;
        if (rows < 1)
            break;
        std::vector<Complex> loewner(std::size_t(rows) * columns);
        int row = 0;
        for (std::size_t i = 0; i < count; ++i) {
            if (used[i])
                continue;
            for (int j = 0; j < columns; ++j)
                loewner[std::size_t(j) * rows + row] = (values[i] - m_value[j]) / (points[i] - m_support[j]);
            ++row;
        }
        std::vector<Complex> weight = smallestSingularVector(std::move(loewner), rows, columns);
        if (weight.empty()) { // values that are no numbers: the fit before stands, and its error tells
            m_support.pop_back();
            m_value.pop_back();
            break;
        }
        m_weight = std::move(weight);
        for (std::size_t i = 0; i < count; ++i)
            fitted[i] = used[i] ? values[i] : at(points[i]);
    }
    if (m_weight.size() != m_support.size())
        m_weight.assign(m_support.size(), 1.0);
}

Complex RationalFit::at(double x) const
{
    Complex above = 0.0, below = 0.0;
    for (std::size_t j = 0; j < m_support.size(); ++j) {
        const double gap = x - m_support[j];
        if (gap == 0.0)
            return m_value[j];
        const Complex term = m_weight[j] / gap;
        above += term * m_value[j];
        below += term;
    }
    return above / below;
}

} // namespace vetchling::em
