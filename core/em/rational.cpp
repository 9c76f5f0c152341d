#include "core/em/rational.h"

#include <lapacke.h>

#include <algorithm>
#include <cmath>

namespace vetchling::em {
namespace {

/// Right singular vector of the smallest singular value of a rows x columns matrix (column-major, destroyed).
std::vector<Complex> smallestSingularVector(std::vector<Complex>& matrix, int rows, int columns)
{
    std::vector<double> singular(std::min(rows, columns));
    std::vector<Complex> vt(std::size_t(columns) * columns), u(1);
    std::vector<double> work(std::max(1, std::min(rows, columns)));
    LAPACKE_zgesvd(LAPACK_COL_MAJOR, 'N', 'A', rows, columns, reinterpret_cast<lapack_complex_double*>(matrix.data()), rows,
                   singular.data(), reinterpret_cast<lapack_complex_double*>(u.data()), 1,
                   reinterpret_cast<lapack_complex_double*>(vt.data()), columns, work.data());
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
        m_weight = smallestSingularVector(loewner, rows, columns);
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
