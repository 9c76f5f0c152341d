#include "core/physics.h"

#include <limits>

namespace vetchling {

double swr(Complex impedance, double reference)
{
    const double rho = std::abs((impedance - reference) / (impedance + reference));
    if (!(rho < 1.0))
        return std::numeric_limits<double>::infinity();
    return (1.0 + rho) / (1.0 - rho);
}

} // namespace vetchling
