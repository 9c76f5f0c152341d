#pragma once
/// What an instrument read over a range, at one place of the feed line.

#include "core/physics.h"

#include <optional>
#include <vector>

namespace vetchling {

struct MeasuredPoint {
    double frequency = 0.0;           ///< Hz
    std::optional<Complex> impedance; ///< ohm; nothing where only the SWR is known
    double swr = 0.0;                 ///< told by the file, or of the impedance against the reference
    friend bool operator==(const MeasuredPoint&, const MeasuredPoint&) = default;
};

struct MeasuredSweep {
    std::vector<MeasuredPoint> points; ///< rising
    double reference = 50.0;           ///< ohm
    /// Where the SWR is lowest, between points by a parabola; null without points.
    struct Dip {
        double frequency = 0.0, swr = 0.0;
        bool atEdge = false; ///< it may lie outside what was swept
    };
    /// Of the lowest SWR; nothing for a sweep without points.
    [[nodiscard]] std::optional<Dip> dip() const;
    /// Where R and X are known: its SWR against another reference, ohm. What told the SWR alone stays what it told.
    [[nodiscard]] MeasuredSweep against(double ohm) const;
};

inline constexpr double highestSwr = 1e4; ///< told for what reflects all

/// SWR of an impedance against a reference, `highestSwr` at most; the same of a reflection.
double measuredSwr(Complex impedance, double reference);
double measuredSwrOf(Complex reflection);
/// ohm of a reflection against a reference
Complex reflectingImpedance(Complex reflection, double reference);

} // namespace vetchling
