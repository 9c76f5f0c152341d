#include "core/line/two_port.h"

#include <cmath>

namespace vetchling {

TwoPort TwoPort::idealTransformer(double ratio)
{
    const double turns = std::sqrt(ratio);
    return {1.0 / turns, 0.0, 0.0, turns};
}

TwoPort TwoPort::line(Complex z, Complex gl)
{
    const Complex rising = 0.5 * std::exp(gl), falling = 0.25 / rising, s = rising - falling, c = rising + falling;
    return {c, z * s, s / z, c};
}

TwoPort TwoPort::then(const TwoPort& n) const { return {a * n.a + b * n.c, a * n.b + b * n.d, c * n.a + d * n.c, c * n.b + d * n.d}; }

Complex TwoPort::slope(Complex load) const
{
    const Complex divided = c * load + d;
    return (a * d - b * c) / (divided * divided);
}

double TwoPort::efficiency(Complex load) const
{
    const double in = ((a * load + b) * std::conj(c * load + d)).real(); // for one ampere into the load
    return in != 0.0 ? load.real() / in : 1.0;
}

} // namespace vetchling
