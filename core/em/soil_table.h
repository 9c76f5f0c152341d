#pragma once
/// The kernels of soil_kernels.h, tabulated for one soil and one frequency and interpolated: pairs in the air and in the soil over
/// distance and elevation of the path to the mirror point, pairs across the surface over the depth's part of the path as well.
///
/// Grid as in ground_table.h, rows over the distance R, columns over the elevation; a pair across has in each cell Chebyshev points of
/// depth / (height + depth), as many as the phase between the two media asks for. All that a cell holds shares one Sommerfeld path.
/// Accuracy: measured in tests/core/soil_table_test.cpp.

#include "core/em/soil_kernels.h"
#include "core/wire/wire_model.h"
#include "core/work/watch.h"

#include <array>
#include <memory>
#include <mutex>
#include <vector>

namespace vetchling::em {

/// Where the wires lie, m: what a table must hold for them.
struct SoilReach {
    double width = 0.0; ///< longest distance in plan
    bool inAir = false, inSoil = false;
    double lowest = 0.0, highest = 0.0;     ///< above the surface
    double shallowest = 0.0, deepest = 0.0; ///< below it
};

class SoilTable {
public:
    /// @param ground real soil; @param frequency Hz @param deepest m below the surface that will be asked for
    /// @param lossOnly only pairs in the air, and of them what evanescent waves take (soilLossKernels)
    SoilTable(const Ground& ground, double frequency, double deepest, bool lossOnly = false);
    ~SoilTable();

    /// Makes sure that all of it can be asked for. Thread-safe; false if stopped or more than some 100 wavelengths apart.
    bool cover(const SoilReach& reach, const Watch& watch = {});

    /// In 1/m, remainders but for the whole kernels across. @param rho m in plan; the others m from the surface, both sides zero or more
    [[nodiscard]] SoilKernels inAir(double rho, double bothHeights) const;
    [[nodiscard]] SoilKernels inSoil(double rho, double bothDepths) const;
    [[nodiscard]] SoilKernels across(double rho, double height, double depth) const;

    [[nodiscard]] const Ground& ground() const { return m_ground; }
    [[nodiscard]] double frequency() const { return m_frequency; }
    [[nodiscard]] double deepest() const { return m_deepest; }
    [[nodiscard]] bool lossOnly() const { return m_lossOnly; }
    [[nodiscard]] Complex permittivity() const { return m_permittivity; }
    /// Wave number in the soil, rad/m, Im < 0.
    [[nodiscard]] Complex soilWaveNumber() const { return m_waveNumber * std::sqrt(m_permittivity); }

private:
    using Packed = std::array<double, 8>;
    struct Cell;
    struct Row;
    struct Place;
    enum Kind { Air, Soil, Across, kinds };
    struct Span {
        int from = 0, to = 0;
    };
    [[nodiscard]] double rowCoordinate(double q) const;
    [[nodiscard]] double distanceOfRow(double coordinate) const;
    [[nodiscard]] Span columnsFor(int row, double lowest, double highest) const;
    [[nodiscard]] double elevationOf(int column) const;
    [[nodiscard]] double depthPart(double q, int column) const;
    [[nodiscard]] int depthPoints(double q, int column) const;
    void fill(int row, int column, unsigned wanted);
    [[nodiscard]] Place placeOf(double rho, double height) const;
    [[nodiscard]] Complex grazing(double depth) const;
    template <class Value> [[nodiscard]] SoilKernels interpolated(const Place& place, double alone, Complex down, const Value& value) const;

    Ground m_ground;
    bool m_lossOnly;
    int m_columns;
    double m_frequency, m_deepest, m_waveNumber;
    Complex m_permittivity;
    double m_smallest;           ///< k0 R of row 0
    double m_beatRows, m_damped; ///< rows that the beat of the two waves takes for one of k0 R, and until where
    mutable std::mutex m_mutex;
    std::vector<std::unique_ptr<Row>> m_rows;
};

} // namespace vetchling::em
