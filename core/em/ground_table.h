#pragma once
/// The soil's remainder field (sommerfeld.h), tabulated for one soil and one frequency and interpolated.
///
/// Grid: rows over the distance R to the mirror point, logarithmic near and linear far (so that the wave in the soil is
/// followed), columns over the elevation of the path, crowded towards grazing. Stored is k0 R exp(j k0 R) times the
/// integrals, which is smooth; interpolation is cubic in both. Rows are computed when first asked for.
/// Accuracy: within 0.25 % of the mirror dipole's field between nodes, mostly far better; measured in
/// tests/core/ground_table_test.cpp.

#include "core/em/soil_table.h"
#include "core/em/sommerfeld.h"
#include "core/wire/wire_model.h"
#include "core/work/watch.h"

#include <array>
#include <cmath>
#include <functional>
#include <memory>
#include <mutex>
#include <vector>

namespace vetchling::em {

/// What a table holds: the remainder itself, or j times the imaginary part of its evanescent waves (far_field.h).
enum class TableContent { Remainder, EvanescentLoss };

/// Some columns of one row, for keeping a table beyond the program's run.
struct TableRow {
    int index = 0, from = 0;
    std::vector<std::array<double, 8>> values;
};

/// To be raised whenever the grid or the integrals change: kept tables of another version are of no use.
inline constexpr int tableVersion = 1;

/// A path between two points over the soil, and how much of each of the four integrals is wanted of it.
struct TablePath {
    double distance = 0.0, logDistance = 0.0; ///< m to the mirror point
    int column = 0;                           ///< of the remainder's table, the first of its stencil
    std::array<double, 4> columnWeight{}, part{};
};

class GroundTable {
public:
    static constexpr int remainderColumns = 22; ///< of a table of the remainder
    /// @param columns of the table that will be asked
    static TablePath path(double rho, double height, const std::array<double, 4>& parts, int columns);
    /// @param ground real soil; @param frequency Hz
    GroundTable(const Ground& ground, double frequency, TableContent content = TableContent::Remainder);
    ~GroundTable();

    /// Makes sure that all distances between the two (m) can be asked for. Thread-safe; returns false if stopped or too far (170
    /// wavelengths).
    /// @param lowest, highest sums of two heights that will be asked for, m: flatter and steeper paths are left out
    bool cover(double nearest, double farthest, const Watch& watch = {}, double highest = HUGE_VAL, double lowest = 0.0);

    /// The remainder of the electric field in V/m per A m, as the four integrals times their common factor.
    /// @param rho horizontal distance, @param height sum of both heights, m; sqrt(rho^2+height^2) must be covered
    [[nodiscard]] HalfSpaceIntegrals at(double rho, double height) const;

    /// The wanted parts of paths made for this number of columns, summed over the four integrals.
    void at(const std::vector<TablePath>& paths, Complex* out) const;

    /// All that has been computed; and taken back into a new table of the same ground, frequency and content.
    [[nodiscard]] std::vector<TableRow> rows() const;
    void restore(const std::vector<TableRow>& rows);

    [[nodiscard]] const Ground& ground() const { return m_ground; }
    [[nodiscard]] TableContent content() const { return m_content; }
    /// Columns of a whole row.
    [[nodiscard]] int columnCount() const { return m_columns; }
    [[nodiscard]] Complex image() const { return m_image; }
    [[nodiscard]] double frequency() const { return m_frequency; }
    /// Rows computed so far; for tests and benchmarks.
    [[nodiscard]] int rowCount() const;

private:
    struct Row;
    [[nodiscard]] double rowCoordinate(double q) const;
    [[nodiscard]] double distanceOfRow(double coordinate) const;
    /// Columns from .. to - 1.
    struct Span {
        int from = 0, to = 0;
        [[nodiscard]] bool empty() const { return to <= from; }
    };
    [[nodiscard]] Span columnsFor(int index, double lowest, double highest) const;
    /// Computed without the lock.
    [[nodiscard]] std::vector<std::array<double, 8>> columnsOf(int index, const Span& columns) const;
    [[nodiscard]] Span filledColumns(int index) const;
    void keep(int index, const Span& columns, const std::vector<std::array<double, 8>>& values);
    /// The pieces of `wanted` that are missing, so that what is there stays one piece.
    [[nodiscard]] static std::vector<Span> missingOf(const Span& there, const Span& wanted);

    Ground m_ground;
    TableContent m_content;
    double m_frequency, m_waveNumber;
    Complex m_permittivity, m_image, m_factor;
    double m_linearStep; ///< k0 R between rows far away
    int m_columns;
    mutable std::mutex m_mutex;
    std::vector<std::unique_ptr<Row>> m_rows;
};

/// Tables of recent soils and frequencies, shared by all solves of the program. Thread-safe.
class GroundTableCache {
public:
    /// @param capacity tables kept; the least recently used goes first
    explicit GroundTableCache(std::size_t capacity = 600) : m_capacity(capacity) {}
    /// Never null; empty where it was not filled yet.
    std::shared_ptr<GroundTable> table(const Ground& ground, double frequency, TableContent content = TableContent::Remainder);
    /// For wires in the soil. @param deepest m @param lossOnly as the table has it
    std::shared_ptr<SoilTable> soilTable(const Ground& ground, double frequency, double deepest, bool lossOnly = false);
    /// Called with each new table before anyone sees it, to bring back what an earlier run computed. Set before the first use.
    void setSource(std::function<void(GroundTable&)> source) { m_source = std::move(source); }
    [[nodiscard]] std::vector<std::shared_ptr<const GroundTable>> tables() const;
    void clear();
    [[nodiscard]] std::size_t size() const;

private:
    /// Brought back by whoever asks first, while nobody else has to wait but for the same table.
    struct Slot {
        explicit Slot(std::shared_ptr<GroundTable> made) : table(std::move(made)) {}
        std::once_flag restored;
        std::shared_ptr<GroundTable> table;
    };
    struct Entry {
        Ground ground;
        double frequency;
        TableContent content;
        std::shared_ptr<Slot> slot;
    };
    std::shared_ptr<Slot> slotOf(const Ground& ground, double frequency, TableContent content);
    std::size_t m_capacity;
    std::function<void(GroundTable&)> m_source;
    mutable std::mutex m_mutex;
    std::vector<Entry> m_entries; ///< most recent last
    std::vector<std::shared_ptr<SoilTable>> m_soilTables;
};

} // namespace vetchling::em
