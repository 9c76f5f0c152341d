#pragma once
/// Open, short and load: what an analyser and the cable to its end add to a reading, and how to take it away again.
///
/// The raw reflection m of a true one g is m = e00 + t g / (1 - e11 g): directivity e00, source match e11, tracking t. With
/// d = e00 e11 - t each standard gives one linear equation e00 + g m e11 - g d = m; three of them give all
/// (Rytting 2001, "Network analyzer error models and calibration methods", one port).

#include "core/design/measured_sweep.h"
#include "core/result.h"

#include <vector>

namespace vetchling {

/// What the standards really are. Ideal ones need no change.
struct Standards {
    double openCapacitance = 0.0; ///< F, of its rim
    double shortInductance = 0.0; ///< H
    double load = 50.0;           ///< ohm
};

enum class Standard { Open, Short, Load };
/// Reflection of a standard against 50 ohm.
Complex reflectionOf(Standard which, const Standards& standards, double frequency);

/// Raw reflections of an instrument over a range.
struct RawSweep {
    std::vector<double> frequency; ///< Hz, rising
    std::vector<Complex> reflection;
    friend bool operator==(const RawSweep&, const RawSweep&) = default;
};

/// The three terms at one frequency.
struct ErrorTerms {
    Complex directivity = 0.0, match = 0.0, tracking = 1.0;
    /// What the instrument would read of a true reflection, and back.
    [[nodiscard]] Complex raw(Complex actual) const { return directivity + tracking * actual / (1.0 - match * actual); }
    [[nodiscard]] Complex actual(Complex raw) const
    {
        const Complex d = directivity * match - tracking;
        return (raw - directivity) / (raw * match - d);
    }
};

/// Why a calibration is not to be trusted, and what to do.
enum class CalibrationDoubt {
    SameTwice,    ///< two standards read alike
    OpenTouched,  ///< open and short are not opposite and alike in size
    LoadReflects, ///< the load is none
    Swapped,      ///< open and short seem to be exchanged
    MoreComesBack ///< a corrected reading reflects more than was sent
};
struct CalibrationSign {
    CalibrationDoubt doubt;
    Text words;
};

class Calibration {
public:
    /// Faults: different ranges, a standard missing; readings that give no answer (two of them the same).
    static Result<Calibration> from(const RawSweep& open, const RawSweep& shorted, const RawSweep& load, const Standards& standards = {});

    [[nodiscard]] double from() const { return m_frequency.front(); }
    [[nodiscard]] double to() const { return m_frequency.back(); }
    [[nodiscard]] const std::vector<ErrorTerms>& terms() const { return m_terms; }
    /// What hung at the calibrated end. Between the calibrated frequencies the terms are interpolated.
    /// A fault for a sweep that leaves the range: calibrate again.
    [[nodiscard]] Result<MeasuredSweep> correct(const RawSweep& raw, double reference = 50.0) const;
    /// Empty where nothing speaks against it.
    [[nodiscard]] const std::vector<CalibrationSign>& signs() const { return m_signs; }

private:
    void look(const RawSweep& open, const RawSweep& shorted, const RawSweep& load);
    std::vector<double> m_frequency;
    std::vector<ErrorTerms> m_terms;
    std::vector<CalibrationSign> m_signs;
};

/// A corrected sweep that reflects more than was sent: the calibration does not belong to it.
std::vector<CalibrationSign> signsOf(const MeasuredSweep& corrected);

} // namespace vetchling
