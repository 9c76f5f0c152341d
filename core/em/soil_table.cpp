#include "core/em/soil_table.h"

#include "core/em/stencil.h"
#include "core/root.h"

#include <oneapi/tbb/parallel_for.h>

#include <algorithm>
#include <atomic>
#include <cmath>

namespace vetchling::em {
namespace {

constexpr int usualColumns = 24, lossColumns = 44; // the loss keeps its waves, which cross many steep paths
constexpr double nearest = 2e-3;                   // of the wave in the soil, k1 R: closer in nothing changes but the mixed kernel's 1/R
constexpr double soilLogStep = 0.24;               // in ln(k0 R)
constexpr double nearLogStep = 0.55;               // of distances so short that little changes with them
constexpr double changesFrom = 0.1;                // k1 R, of where they end
constexpr double farStep = 0.55, lossStep = 0.35;  // in k0 R
constexpr double beatStep = 0.4;                   // in the phase between the waves in soil and air, until the soil's is damped
constexpr double damped = 6.0;                     // neper
constexpr std::size_t mostSoilRows = 2400;
constexpr int fewestPoints = 3, mostPoints = 28; // of depth

double chebyshevPoint(int i, int points) { return 0.5 * (1.0 - std::cos(pi * i / (points - 1))); }

/// Points of every number of them, which queries look up.
struct ChebyshevPoints {
    std::array<std::array<double, mostPoints>, mostPoints + 1> at{};

    ChebyshevPoints()
    {
        for (int n = 2; n <= mostPoints; ++n)
            for (int i = 0; i < n; ++i)
                at[n][i] = chebyshevPoint(i, n);
    }
};

const ChebyshevPoints& chebyshev()
{
    static const ChebyshevPoints points;
    return points;
}

/// Barycentric weights at t in 0..1 on the Chebyshev points with ends (Berrut and Trefethen 2004, SIAM Review 46, eq. 5.4).
void depthWeights(double t, int points, double* out)
{
    const auto& at = chebyshev().at[points];
    double sum = 0.0;
    for (int i = 0; i < points; ++i) {
        const double away = t - at[i];
        if (std::abs(away) < 1e-13) {
            std::fill(out, out + points, 0.0);
            out[i] = 1.0;
            return;
        }
        const double weight = (i == 0 || i == points - 1 ? 0.5 : 1.0) * (i % 2 ? -1.0 : 1.0);
        sum += out[i] = weight / away;
    }
    for (int i = 0; i < points; ++i)
        out[i] /= sum;
}

std::array<double, 8> packed(const SoilKernels& k)
{
    return {k.scalar.real(),   k.scalar.imag(),   k.horizontal.real(), k.horizontal.imag(),
            k.vertical.real(), k.vertical.imag(), k.mixed.real(),      k.mixed.imag()};
}

/// Stored is (1 + q) exp(jq) times the remainders, q exp(jq) times the mixed ones and all across: smooth from nearest to far. What a
/// grazing wave loses down to the depth, exp(-n1 d) with n1 of x = 1, is taken out.
std::array<double, 8> scaled(const SoilKernels& k, double q, double alone, Complex down)
{
    const Complex phase = std::exp(imaginaryUnit * q + down), plain = phase * (alone + q);
    return packed({plain * k.scalar, plain * k.horizontal, plain * k.vertical, phase * q * k.mixed});
}

} // namespace

struct SoilTable::Cell {
    unsigned filled = 0; ///< bits of kinds
    Packed air{}, soil{};
    std::vector<Packed> across;
    double part = 1.0; ///< of the path, that the depths span
};

struct SoilTable::Row {
    explicit Row(int columns) : cell(std::size_t(columns)) {}
    std::vector<Cell> cell;
};

struct SoilTable::Place {
    int row = 0, column = 0;
    std::array<double, stencil> rowWeight{}, columnWeight{};
    double q = 0.0;
};

SoilTable::SoilTable(const Ground& ground, double frequency, double deepest, bool lossOnly)
    : m_ground(ground.at(frequency)), m_lossOnly(lossOnly), m_columns(lossOnly ? lossColumns : usualColumns), m_frequency(frequency),
      m_deepest(deepest), m_waveNumber(waveNumber(frequency)), m_permittivity(ground.complexPermittivity(frequency)), m_rows(mostSoilRows)
{
    const Complex refraction = std::sqrt(m_permittivity);
    m_smallest = nearest / std::abs(refraction);
    m_beatRows = std::abs(refraction - 1.0) / beatStep;
    m_damped = damped / std::max(1e-6, -refraction.imag());
}

SoilTable::~SoilTable() = default;

double SoilTable::elevationOf(int column) const
{
    const double t = double(column) / (m_columns - 1);
    return 0.5 * pi * t * t;
}

double SoilTable::rowCoordinate(double q) const
{
    const double x = std::max(q, m_smallest), turn = m_smallest * (changesFrom / nearest);
    return std::log(x / m_smallest) / nearLogStep + (1.0 / soilLogStep - 1.0 / nearLogStep) * std::log((x + turn) / (m_smallest + turn)) +
           x / (m_lossOnly ? lossStep : farStep) - m_beatRows * m_damped * std::expm1(-x / m_damped);
}

double SoilTable::distanceOfRow(double coordinate) const
{
    const double low = std::log(m_smallest), high = low + nearLogStep * std::max(coordinate, 0.0) + 1e-12;
    return std::exp(whereRising([&](double y) { return rowCoordinate(std::exp(y)); }, coordinate, low, high));
}

SoilTable::Span SoilTable::columnsFor(int row, double lowest, double highest) const
{
    const double near = row <= stencil ? 0.0 : distanceOfRow(row - stencil), far = distanceOfRow(row + stencil);
    const auto columnAt = [&](double height, double q) {
        const double part = q > 0.0 ? std::min(1.0, m_waveNumber * height / q) : (height > 0.0 ? 1.0 : 0.0);
        return std::sqrt(std::asin(part) * (2.0 / pi)) * (m_columns - 1);
    };
    const int to = row <= stencil ? m_columns : std::min(m_columns, int(columnAt(highest, near)) + stencil + 1);
    const int from = std::clamp(int(columnAt(lowest, far)) - stencil, 0, m_columns - stencil);
    return {std::min(from, to), to};
}

/// How much of a path's vertical part can lie in the soil, for any path that this cell serves: they reach two columns and rows down.
double SoilTable::depthPart(double q, int column) const
{
    if (column <= 2)
        return 1.0;
    const double height = q * std::sin(elevationOf(column)), least = 0.6 * q * std::sin(elevationOf(column - 2));
    return height > 0.0 ? std::min(1.0, m_waveNumber * m_deepest / least) : 1.0;
}

/// Exponent of a grazing wave at a depth (times k0), so large that it could overflow nowhere.
Complex SoilTable::grazing(double depth) const
{
    const Complex down = imaginaryUnit * std::sqrt(m_permittivity - 1.0) * depth;
    return {std::min(down.real(), 300.0), down.imag()};
}

int SoilTable::depthPoints(double q, int column) const
{
    const double depth = depthPart(q, column) * q * std::sin(elevationOf(column));
    constexpr double depthless = 0.03; // a phase that three points follow
    return std::clamp(fewestPoints + int(1.0 + 0.7 * std::abs(std::sqrt(m_permittivity) - 1.0) * depth - depthless), fewestPoints,
                      mostPoints);
}

void SoilTable::fill(int row, int column, unsigned wanted)
{
    const double q = distanceOfRow(row), elevation = elevationOf(column), h = q * std::sin(elevation);
    if (m_lossOnly) {
        const Packed loss = scaled(soilLossKernels(m_permittivity, q * std::cos(elevation), h), q, 1.0, -imaginaryUnit * q);
        const std::lock_guard lock(m_mutex);
        Cell& cell = m_rows[row]->cell[column];
        if (!cell.filled)
            cell.air = loss;
        cell.filled = wanted;
        return;
    }
    SoilKernelsWanted want;
    want.air = wanted & (1u << Air);
    want.soil = wanted & (1u << Soil);
    const double part = depthPart(q, column);
    if (wanted & (1u << Across))
        for (int i = 0, points = depthPoints(q, column); i < points; ++i)
            want.depths.push_back(part * h * chebyshevPoint(i, points));
    const SoilKernelsAt at = soilKernels(m_permittivity, q * std::cos(elevation), h, want);
    std::vector<Packed> across;
    for (std::size_t i = 0; i < at.across.size(); ++i)
        across.push_back(scaled(at.across[i], q, 0.0, grazing(want.depths[i])));
    const std::lock_guard lock(m_mutex);
    Cell& cell = m_rows[row]->cell[column];
    const unsigned missing = wanted & ~cell.filled;
    if (missing & (1u << Air))
        cell.air = scaled(at.air, q, 1.0, 0.0);
    if (missing & (1u << Soil))
        cell.soil = scaled(at.soil, q, 1.0, grazing(h));
    if (missing & (1u << Across))
        cell.across = std::move(across), cell.part = part;
    cell.filled |= missing;
}

bool SoilTable::cover(const SoilReach& reach, const Watch& watch)
{
    struct Range {
        unsigned kind;
        double low, high;
    };
    std::vector<Range> ranges;
    if (reach.inAir)
        ranges.push_back({Air, 2.0 * reach.lowest, 2.0 * reach.highest});
    if (reach.inSoil)
        ranges.push_back({Soil, 2.0 * reach.shallowest, 2.0 * reach.deepest});
    if (reach.inAir && reach.inSoil)
        ranges.push_back({Across, reach.lowest + reach.shallowest, reach.highest + reach.deepest});
    double low = HUGE_VAL, far = 0.0;
    for (const Range& r : ranges) {
        low = std::min(low, r.low);
        far = std::max(far, std::hypot(reach.width, r.high));
    }
    const int first = std::max(0, int(std::floor(rowCoordinate(m_waveNumber * low))) - 1);
    const int last = std::max(first + stencil, int(std::floor(rowCoordinate(m_waveNumber * far))) + 2);
    if (last >= int(mostSoilRows))
        return false;
    {
        const std::lock_guard lock(m_mutex);
        for (int i = first; i <= last; ++i)
            if (!m_rows[i])
                m_rows[i] = std::make_unique<Row>(m_columns);
    }
    std::atomic<bool> stopped{false};
    tbb::parallel_for(first, last + 1, [&](int i) {
        std::vector<unsigned> wanted(m_columns);
        for (const Range& r : ranges) {
            if (i < int(std::floor(rowCoordinate(m_waveNumber * r.low))) - 1)
                continue;
            const Span columns = columnsFor(i, r.low, r.high);
            for (int c = columns.from; c < columns.to; ++c)
                wanted[c] |= 1u << r.kind;
        }
        for (int c = 0; c < m_columns; ++c) {
            unsigned missing = 0;
            {
                const std::lock_guard lock(m_mutex);
                missing = wanted[c] & ~m_rows[i]->cell[c].filled;
            }
            if (stopped || watch.stopped()) {
                stopped = true;
                return;
            }
            if (missing)
                fill(i, c, missing);
        }
    });
    return !stopped;
}

SoilTable::Place SoilTable::placeOf(double rho, double height) const
{
    Place place;
    place.q = m_waveNumber * std::sqrt(rho * rho + height * height);
    const double row = rowCoordinate(place.q), elevation = std::atan2(height, rho);
    const double column = std::sqrt(elevation * (2.0 / pi)) * (m_columns - 1);
    place.row = std::max(0, int(row) - 1);
    place.rowWeight = lagrangeWeights(row - place.row - 1);
    place.column = std::clamp(int(column) - 1, 0, m_columns - stencil);
    place.columnWeight = lagrangeWeights(column - place.column - 1);
    return place;
}

/// @param value called as value(cell, weight, sum), adds to the sum
template <class Value> SoilKernels SoilTable::interpolated(const Place& place, double alone, Complex down, const Value& value) const
{
    Packed sum{};
    for (int i = 0; i < stencil; ++i) {
        const Cell* cell = m_rows[place.row + i]->cell.data() + place.column;
        for (int j = 0; j < stencil; ++j)
            value(cell[j], place.rowWeight[i] * place.columnWeight[j], sum);
    }
    const double q = std::max(place.q, 1e-12);
    const Complex phase = m_waveNumber * std::exp(Complex{0.0, -q} - down), plain = phase / (alone + q);
    return {plain * Complex{sum[0], sum[1]}, plain * Complex{sum[2], sum[3]}, plain * Complex{sum[4], sum[5]},
            phase / q * Complex{sum[6], sum[7]}};
}

SoilKernels SoilTable::inAir(double rho, double bothHeights) const
{
    const Place place = placeOf(rho, bothHeights);
    const Complex down{0.0, m_lossOnly ? -place.q : 0.0}; // the loss has no phase of its own
    return interpolated(place, 1.0, down, [](const Cell& cell, double weight, Packed& sum) {
        for (std::size_t c = 0; c < sum.size(); ++c)
            sum[c] += weight * cell.air[c];
    });
}

SoilKernels SoilTable::inSoil(double rho, double bothDepths) const
{
    return interpolated(placeOf(rho, bothDepths), 1.0, grazing(m_waveNumber * bothDepths),
                        [](const Cell& cell, double weight, Packed& sum) {
                            for (std::size_t c = 0; c < sum.size(); ++c)
                                sum[c] += weight * cell.soil[c];
                        });
}

SoilKernels SoilTable::across(double rho, double height, double depth) const
{
    const double whole = height + depth, part = whole > 0.0 ? depth / whole : 0.0;
    double knownPart = -1.0, weights[mostPoints];
    int known = 0; // neighbouring cells mostly have the same points
    return interpolated(placeOf(rho, whole), 0.0, grazing(m_waveNumber * depth), [&](const Cell& cell, double weight, Packed& sum) {
        const int points = int(cell.across.size());
        if (points != known || cell.part != knownPart)
            depthWeights(std::min(1.0, part / cell.part), points, weights);
        known = points, knownPart = cell.part;
        for (int i = 0; i < points; ++i) {
            const double w = weight * weights[i];
            const Packed& value = cell.across[std::size_t(i)];
            for (std::size_t c = 0; c < sum.size(); ++c)
                sum[c] += w * value[c];
        }
    });
}

} // namespace vetchling::em
