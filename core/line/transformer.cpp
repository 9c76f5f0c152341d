#include "core/line/transformer.h"

namespace vetchling {

TwoPort Transformer::at(double frequency) const
{
    const double w = 2.0 * pi * frequency;
    Complex across = coreLoss > 0.0 ? 1.0 / coreLoss : 0.0;
    if (magnetisingInductance > 0.0)
        across += 1.0 / Complex{0.0, w * magnetisingInductance};
    return TwoPort::series({0.0, w * leakageInductance}).then(TwoPort::shunt(across)).then(TwoPort::idealTransformer(ratio));
}

} // namespace vetchling
