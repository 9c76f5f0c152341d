#include "core/em/ground_table.h"

#include "core/em/cos_sin.h"
#include "core/em/stencil.h"

#include <oneapi/tbb/parallel_for.h>

#include <algorithm>
#include <array>
#include <atomic>
#include <cmath>

namespace vetchling::em {
namespace {

constexpr double smallestDistance = 1e-5; // k0 R of row 0; closer in, the stored function no longer changes
constexpr double logStep = 0.22;          // in ln(k0 R)
constexpr std::size_t mostRows = 4096;    // reaches 170 wavelengths; fixed, so that readers never see it move

/// Elevation of column coordinate t = 0..1: quadratic, so that columns crowd towards grazing.
double elevationOf(double t) { return 0.5 * pi * t * t; }

/// The four integrals as plain numbers: the compiler then adds them side by side.
using Packed = std::array<double, 8>;

Packed packed(const HalfSpaceIntegrals& v)
{
    return {v.s.real(), v.s.imag(), v.d.real(), v.d.imag(), v.x.real(), v.x.imag(), v.z.real(), v.z.imag()};
}

HalfSpaceIntegrals unpacked(const Packed& p) { return {{p[0], p[1]}, {p[2], p[3]}, {p[4], p[5]}, {p[6], p[7]}}; }

HalfSpaceIntegrals imaginaryPart(const HalfSpaceIntegrals& v)
{
    return {{0.0, v.s.imag()}, {0.0, v.d.imag()}, {0.0, v.x.imag()}, {0.0, v.z.imag()}};
}

struct Place {
    int first;
    std::array<double, stencil> weight;
};

Place placeOn(double coordinate, int lowest, int highest)
{
    const int first = std::clamp(int(std::floor(coordinate)) - 1, lowest, highest - stencil + 1);
    return {first, lagrangeWeights(coordinate - first - 1)};
}

} // namespace

struct GroundTable::Row {
    explicit Row(int columns) : value(columns) {}
    std::vector<Packed> value;
    Span filled; ///< columns computed
};

GroundTable::GroundTable(const Ground& ground, double frequency, TableContent content)
    : m_ground(ground), m_content(content), m_frequency(frequency), m_waveNumber(waveNumber(frequency)),
      m_permittivity(ground.complexPermittivity(frequency)), m_image(imageStrength(m_permittivity)),
      m_factor(Complex{0.0, -1.0} * waveImpedance * m_waveNumber * m_waveNumber / (8.0 * pi)), m_rows(mostRows)
{
    const Complex refraction = std::sqrt(m_permittivity);
    // The wave in the soil runs ahead by k1 - k0 and matters only where it is not damped within a wavelength.
    const double beat = -refraction.imag() < 0.4 ? std::max(1.0, refraction.real() - 1.0) : 1.0;
    m_columns = m_content == TableContent::Remainder ? remainderColumns : 44; // the loss keeps its waves, which cross many steep paths
    m_linearStep = (m_content == TableContent::Remainder ? 0.55 : 0.35) / beat;
}

GroundTable::~GroundTable() = default;

double GroundTable::rowCoordinate(double q) const
{
    const double x = std::max(q, smallestDistance);
    return std::log(x / smallestDistance) / logStep + (x - smallestDistance) / m_linearStep;
}

double GroundTable::distanceOfRow(double coordinate) const
{
    // Newton in ln q from the smaller of what either part of the coordinate would allow alone, which is above the root
    double y = std::min(std::log(smallestDistance) + logStep * coordinate, std::log(smallestDistance + m_linearStep * coordinate));
    for (int i = 0; i < 60; ++i) {
        const double q = std::exp(y);
        const double value = (y - std::log(smallestDistance)) / logStep + (q - smallestDistance) / m_linearStep - coordinate;
        const double step = value / (1.0 / logStep + q / m_linearStep);
        y -= std::clamp(step, -2.0, 2.0);
        if (std::abs(step) < 1e-14)
            break;
    }
    return std::exp(y);
}

/// Columns between the flattest and the steepest path that a row can be asked for, with the stencil's reach beyond them.
GroundTable::Span GroundTable::columnsFor(int index, double lowest, double highest) const
{
    const double nearest = distanceOfRow(std::max(0, index - stencil)), farthest = distanceOfRow(index + stencil);
    const auto columnAt = [&](double height, double q) {
        return std::sqrt(std::asin(std::min(1.0, m_waveNumber * height / q)) * (2.0 / pi)) * (m_columns - 1);
    };
    const int to = std::min(m_columns, int(columnAt(highest, nearest)) + stencil + 1);
    const int from = std::clamp(int(columnAt(lowest, farthest)) - stencil, 0, m_columns - stencil);
    return {std::min(from, to), to};
}

std::vector<std::array<double, 8>> GroundTable::columnsOf(int index, const Span& columns) const
{
    const double q = distanceOfRow(index);
    std::vector<Packed> out;
    for (int c = columns.from; c < columns.to; ++c) {
        const double elevation = elevationOf(double(c) / (m_columns - 1)), r = q * std::cos(elevation), h = q * std::sin(elevation);
        if (m_content == TableContent::Remainder)
            out.push_back(packed(q * std::exp(imaginaryUnit * q) * tabulatedIntegrals(m_permittivity, r, h)));
        else
            out.push_back(packed(imaginaryPart(q * evanescentIntegrals(m_permittivity, r, h))));
    }
    return out;
}

GroundTable::Span GroundTable::filledColumns(int index) const
{
    const std::lock_guard lock(m_mutex);
    return m_rows[index] ? m_rows[index]->filled : Span{};
}

/// Readers of what is there are not disturbed. A span that does not touch it, since another thread was faster, is dropped.
void GroundTable::keep(int index, const Span& columns, const std::vector<std::array<double, 8>>& values)
{
    const std::lock_guard lock(m_mutex);
    if (!m_rows[index])
        m_rows[index] = std::make_unique<Row>(m_columns);
    Row& row = *m_rows[index];
    if (row.filled.empty())
        row.filled = {columns.from, columns.from};
    if (columns.from > row.filled.to || columns.to < row.filled.from)
        return;
    for (int c = columns.from; c < columns.to; ++c)
        if (c < row.filled.from || c >= row.filled.to)
            row.value[c] = values[c - columns.from];
    row.filled = {std::min(row.filled.from, columns.from), std::max(row.filled.to, columns.to)};
}

std::vector<GroundTable::Span> GroundTable::missingOf(const Span& there, const Span& wanted)
{
    if (there.empty())
        return {wanted};
    std::vector<Span> missing;
    for (const Span& side : {Span{std::min(wanted.from, there.from), there.from}, Span{there.to, std::max(wanted.to, there.to)}})
        if (!side.empty())
            missing.push_back(side);
    return missing;
}

bool GroundTable::cover(double nearest, double farthest, const Watch& watch, double highest, double lowest)
{
    const int first = std::max(0, int(std::floor(rowCoordinate(m_waveNumber * nearest))) - 1);
    const int last = int(std::floor(rowCoordinate(m_waveNumber * farthest))) + 2;
    if (last >= int(mostRows))
        return false;
    std::atomic<bool> stopped{false};
    // The lock is never held across the parallel loop: a thread that waits in it may be given other work on this table.
    tbb::parallel_for(first, last + 1, [&](int i) {
        const Span wanted = columnsFor(i, lowest, highest);
        for (auto missing = missingOf(filledColumns(i), wanted); !missing.empty(); missing = missingOf(filledColumns(i), wanted)) {
            if (stopped || watch.stopped()) {
                stopped = true;
                return;
            }
            keep(i, missing.front(), columnsOf(i, missing.front()));
        }
    });
    return !stopped;
}

HalfSpaceIntegrals GroundTable::at(double rho, double height) const
{
    const double distance = std::sqrt(rho * rho + height * height), q = m_waveNumber * distance;
    const double elevation = std::atan2(height, rho);
    const double row = rowCoordinate(q);
    const Place columnPlace = placeOn(std::sqrt(elevation * (2.0 / pi)) * (m_columns - 1), 0, m_columns - 1);
    const int firstRow = std::max(0, int(row) - 1);
    const std::array<double, stencil> rowWeight = lagrangeWeights(row - firstRow - 1);
    Packed sum{};
    for (int i = 0; i < stencil; ++i) {
        const Packed* value = m_rows[firstRow + i]->value.data() + columnPlace.first;
        for (int j = 0; j < stencil; ++j) {
            const double w = rowWeight[i] * columnPlace.weight[j];
            for (std::size_t c = 0; c < sum.size(); ++c)
                sum[c] += w * value[j][c];
        }
    }
    const double clampedQ = std::max(q, smallestDistance);
    const Complex phase = m_content == TableContent::Remainder ? Complex{std::cos(q), -std::sin(q)} : Complex{1.0, 0.0};
    return (m_factor * phase / clampedQ) * unpacked(sum);
}

TablePath GroundTable::path(double rho, double height, const std::array<double, 4>& parts, int columns)
{
    TablePath out;
    out.distance = std::sqrt(rho * rho + height * height);
    out.logDistance = std::log(out.distance);
    const Place column = placeOn(std::sqrt(std::atan2(height, rho) * (2.0 / pi)) * (columns - 1), 0, columns - 1);
    out.column = column.first;
    out.columnWeight = column.weight;
    out.part = parts;
    return out;
}

namespace {

/// sum over the stencil's cells of weight * value.
VETCHLING_CLONES void addCells(const Packed* const* rows, const double* rowWeight, const double* columnWeight, double* __restrict sum)
{
    for (int i = 0; i < stencil; ++i)
        for (int j = 0; j < stencil; ++j) {
            const double weight = rowWeight[i] * columnWeight[j];
            const double* value = rows[i][j].data();
            for (int c = 0; c < 8; ++c)
                sum[c] += weight * value[c];
        }
}

} // namespace

void GroundTable::at(const std::vector<TablePath>& paths, Complex* out) const
{
    constexpr std::size_t most = 64;
    std::array<double, most> phase, cosine, sine;
    for (std::size_t from = 0; from < paths.size(); from += most) {
        const std::size_t count = std::min(most, paths.size() - from);
        for (std::size_t i = 0; i < count; ++i)
            phase[i] = m_waveNumber * paths[from + i].distance;
        cosSin(phase.data(), int(count), cosine.data(), sine.data());
        const double logShift = std::log(m_waveNumber / smallestDistance);
        for (std::size_t i = 0; i < count; ++i) {
            const TablePath& path = paths[from + i];
            const double q = std::max(phase[i], smallestDistance);
            const double row = std::max(0.0, path.logDistance + logShift) / logStep + (q - smallestDistance) / m_linearStep;
            const int first = std::max(0, int(row) - 1);
            const std::array<double, stencil> rowWeight = lagrangeWeights(row - first - 1);
            std::array<const Packed*, stencil> rows;
            for (int r = 0; r < stencil; ++r)
                rows[r] = m_rows[first + r]->value.data() + path.column;
            double sum[8]{};
            addCells(rows.data(), rowWeight.data(), path.columnWeight.data(), sum);
            Complex wanted = 0.0;
            for (int c = 0; c < 4; ++c)
                wanted += path.part[c] * Complex{sum[2 * c], sum[2 * c + 1]};
            const Complex wave = m_content == TableContent::Remainder ? Complex{cosine[i], -sine[i]} : Complex{1.0};
            out[from + i] = (m_factor / q) * wave * wanted;
        }
    }
}

std::vector<TableRow> GroundTable::rows() const
{
    const std::lock_guard lock(m_mutex);
    std::vector<TableRow> out;
    for (std::size_t i = 0; i < m_rows.size(); ++i)
        if (m_rows[i] && !m_rows[i]->filled.empty()) {
            const Span& filled = m_rows[i]->filled;
            out.push_back({int(i), filled.from, {m_rows[i]->value.begin() + filled.from, m_rows[i]->value.begin() + filled.to}});
        }
    return out;
}

void GroundTable::restore(const std::vector<TableRow>& rows)
{
    for (const TableRow& row : rows) {
        const Span columns{row.from, row.from + int(row.values.size())};
        if (row.index >= 0 && row.index < int(mostRows) && columns.from >= 0 && columns.to <= m_columns)
            keep(row.index, columns, row.values);
    }
}

int GroundTable::rowCount() const
{
    const std::lock_guard lock(m_mutex);
    return int(std::count_if(m_rows.begin(), m_rows.end(), [](const auto& row) { return row != nullptr; }));
}

std::shared_ptr<GroundTable> GroundTableCache::table(const Ground& soil, double frequency, TableContent content)
{
    const std::shared_ptr<Slot> slot = slotOf(soil.at(frequency), frequency, content); // a table is of two figures, however they came about
    if (m_source)
        std::call_once(slot->restored, [&] { m_source(*slot->table); }); // may read a file: not under the lock
    return slot->table;
}

std::shared_ptr<GroundTableCache::Slot> GroundTableCache::slotOf(const Ground& ground, double frequency, TableContent content)
{
    const std::lock_guard lock(m_mutex);
    const auto found = std::find_if(m_entries.begin(), m_entries.end(),
                                    [&](const Entry& e) { return e.ground == ground && e.frequency == frequency && e.content == content; });
    if (found != m_entries.end()) {
        std::rotate(found, found + 1, m_entries.end());
        return m_entries.back().slot;
    }
    if (m_entries.size() >= m_capacity)
        m_entries.erase(m_entries.begin());
    auto made = std::make_shared<Slot>(std::make_shared<GroundTable>(ground, frequency, content));
    m_entries.push_back({ground, frequency, content, made});
    return made;
}

std::shared_ptr<SoilTable> GroundTableCache::soilTable(const Ground& soil, double frequency, double deepest, bool lossOnly)
{
    constexpr double shallowestKind = 0.05; // m; tables serve up to a depth, so that a depth may be dragged
    double kind = shallowestKind;
    while (kind < deepest)
        kind *= 2.0;
    const Ground ground = soil.at(frequency);
    const std::lock_guard lock(m_mutex);
    const auto found = std::find_if(m_soilTables.begin(), m_soilTables.end(), [&](const auto& t) {
        return t->frequency() == frequency && t->ground() == ground && t->deepest() == kind && t->lossOnly() == lossOnly;
    });
    if (found != m_soilTables.end()) {
        std::rotate(found, found + 1, m_soilTables.end());
        return m_soilTables.back();
    }
    if (m_soilTables.size() >= std::max<std::size_t>(1, m_capacity / 6)) // they are larger, a megabyte or two
        m_soilTables.erase(m_soilTables.begin());
    m_soilTables.push_back(std::make_shared<SoilTable>(ground, frequency, kind, lossOnly));
    return m_soilTables.back();
}

std::vector<std::shared_ptr<const GroundTable>> GroundTableCache::tables() const
{
    const std::lock_guard lock(m_mutex);
    std::vector<std::shared_ptr<const GroundTable>> out;
    for (const Entry& e : m_entries)
        out.push_back(e.slot->table);
    return out;
}

void GroundTableCache::clear()
{
    const std::lock_guard lock(m_mutex);
    m_entries.clear();
    m_soilTables.clear();
}

std::size_t GroundTableCache::size() const
{
    const std::lock_guard lock(m_mutex);
    return m_entries.size();
}

} // namespace vetchling::em
