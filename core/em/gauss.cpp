#include "core/em/gauss.h"

#include <boost/math/special_functions/legendre.hpp>

#include <array>
#include <cassert>

namespace vetchling::em {
namespace {

constexpr int largestRule = 64;

GaussRule makeRule(int count)
{
    GaussRule rule;
    const std::vector<double> zeros = boost::math::legendre_p_zeros<double>(count); // the non-negative ones
    const auto add = [&](double x) {
        const double slope = boost::math::legendre_p_prime(count, x);
        rule.node.push_back(x);
        rule.weight.push_back(2.0 / ((1.0 - x * x) * slope * slope));
    };
    for (auto zero = zeros.rbegin(); zero != zeros.rend(); ++zero)
        if (*zero > 0.0)
            add(-*zero);
    for (double zero : zeros)
        add(zero);
    return rule;
}

} // namespace

const GaussRule& gaussRule(int count)
{
    static const std::array<GaussRule, largestRule + 1> rules = [] {
        std::array<GaussRule, largestRule + 1> all;
        for (int n = 1; n <= largestRule; ++n)
            all[n] = makeRule(n);
        return all;
    }();
    assert(count >= 1 && count <= largestRule);
    return rules[count];
}

} // namespace vetchling::em
