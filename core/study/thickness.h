#pragma once
/// What another thickness of wire or tube does to a coil that was worked out before.

#include "core/shapes/family.h"

namespace vetchling::study {

/// The first thickness that differs between two shapes, m, before and after; nothing where anything else differs too, or nothing does.
std::optional<std::pair<double, double>> thicknessChanged(const shapes::AntennaShape& before, const shapes::AntennaShape& after);

/// Remembers for which thickness the coil on show was worked out.
class CoilMemory {
public:
    /// Of a coil that no longer fits its wire.
    struct Misfit {
        double before = 0.0, after = 0.0;   ///< m, thickness
        double drawn = 0.0, suffices = 0.0; ///< H
    };
    /// Told of every answer. @param drawn, solved H, of the coil that the antenna is tuned by
    void learn(const Id& antenna, const shapes::AntennaShape& shape, double drawn, double solved);
    void forget() { m_antenna.clear(), m_misfit.reset(); }
    [[nodiscard]] const std::optional<Misfit>& misfit() const { return m_misfit; }

private:
    Id m_antenna;
    shapes::AntennaShape m_fits; ///< for which it was worked out
    double m_solved = 0.0;       ///< H, then
    std::optional<Misfit> m_misfit;
};

} // namespace vetchling::study
