#include "core/line/transformer.h"

#include <cmath>

namespace vetchling {

TwoPort OwnLine::at(double frequency) const
{
    constexpr double decibelsANeper = 8.685889638;
    const double loss = k1 * std::sqrt(frequency / 1e6) * length / 100.0 / decibelsANeper;
    return TwoPort::line(impedance, {loss, 2.0 * pi * frequency * length / (speedOfLight * velocityFactor)});
}

TwoPort Transformer::at(double frequency) const
{
    const double w = 2.0 * pi * frequency;
    Complex across = coreLoss > 0.0 ? 1.0 / coreLoss : 0.0;
    if (magnetisingInductance > 0.0)
        across += 1.0 / Complex{0.0, w * magnetisingInductance};
    const TwoPort windings = TwoPort::shunt({0.0, w * capacitance})
                                 .then(TwoPort::series({0.0, w * leakageInductance}))
                                 .then(TwoPort::shunt(across))
                                 .then(TwoPort::idealTransformer(ratio));
    return ownLine ? windings.then(ownLine->at(frequency)) : windings;
}

} // namespace vetchling
