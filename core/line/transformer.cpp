#include "core/line/transformer.h"

#include "core/line/parts.h"

namespace vetchling {

TwoPort OwnLine::at(double frequency) const { return lineAt(impedance, length, velocityFactor, k1, 0.0, frequency); }

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
    TwoPort whole = ownLine ? windings.then(ownLine->at(frequency)) : windings;
    for (const ChainPart& part : behind)
        whole = kindOf(part).at(part, frequency).then(whole);
    return whole;
}

} // namespace vetchling
