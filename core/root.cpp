#include "core/root.h"

#include <boost/math/tools/toms748_solve.hpp>

#include <cstdint>

namespace vetchling {

double whereRising(const std::function<double(double)>& f, double value, double low, double high)
{
    constexpr int bits = 50;
    const auto off = [&](double x) { return f(x) - value; };
    const double below = off(low), above = off(high);
    if (below >= 0.0)
        return low;
    if (above <= 0.0)
        return high;
    std::uintmax_t iterations = 200;
    const auto [a, b] =
        boost::math::tools::toms748_solve(off, low, high, below, above, boost::math::tools::eps_tolerance<double>(bits), iterations);
    return 0.5 * (a + b);
}

double lastWhere(const std::function<bool(double)>& holds, double low, double high, int halvings)
{
    for (int i = 0; i < halvings; ++i) {
        const double middle = 0.5 * (low + high);
        (holds(middle) ? low : high) = middle;
    }
    return low;
}

} // namespace vetchling
