#include "core/bands/multiples.h"

#include <cmath>

namespace vetchling {

std::vector<int> multiplesIn(const Band& band, double fundamental, shapes::Multiples which)
{
    std::vector<int> all;
    if (!(fundamental > 0.0))
        return all;
    constexpr int most = 1000;
    constexpr double rounding = 1e-12; // of a band's edge
    const int first = std::max(1, int(std::ceil(band.from / fundamental * (1.0 - rounding))));
    for (int n = first; n <= most && n * fundamental <= band.to * (1.0 + rounding); ++n)
        if (which == shapes::Multiples::All || n % 2 == 1)
            all.push_back(n);
    return all;
}

double ruleFundamental(const shapes::AntennaShape& shape, const std::string& parameter, double value)
{
    const shapes::Family& family = shapes::familyOf(shape);
    const shapes::ParameterSpec* spec = family.spec(shape, parameter);
    if (!spec || spec->quantity != units::Quantity::Length || !(value > 0.0))
        return 0.0;
    for (const shapes::TunedLength& t : family.tuned(shape))
        if (t.parameter == parameter)
            if (const auto rules = family.rules(shape, t); !rules.empty())
                return t.frequency * rules.front().value / value;
    return 0.0;
}

} // namespace vetchling
