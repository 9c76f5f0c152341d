#include "core/tune/slips.h"

#include <cmath>

namespace vetchling {
namespace {

constexpr double foot = 0.3048;
constexpr double nearRatio = 0.025;   // relative: a length cut by another rule is still that length
constexpr double nearConstant = 5e-4; // relative: the constant as typed
constexpr double plausible = 0.02;    // relative: what is that near the solved length is no slip

struct Slip {
    double ratio;
    const char* question;
};
const Slip slips[] = {
    {0.5, coreText("core", "half of the %1 that belong here: is it one side of two?")},
    {2.0, coreText("core", "twice the %1 that belong here: is it both sides together?")},
    {1.0 / foot, coreText("core", "3.28 times the %1 that belong here: were feet taken for metres?")},
    {foot, coreText("core", "0.305 times the %1 that belong here: were metres taken for feet?")},
};

/// The constants that two neighbouring digits swapped would give: 468 -> 648, 486.
std::vector<int> swapped(int constant)
{
    std::vector<int> all;
    const std::string digits = std::to_string(constant);
    for (std::size_t i = 1; i < digits.size(); ++i) {
        std::string other = digits;
        std::swap(other[i - 1], other[i]);
        if (other != digits && other[0] != '0')
            all.push_back(std::stoi(other));
    }
    return all;
}

} // namespace

std::optional<Text> slipQuestion(double typed, double solved, const std::vector<shapes::RuleOfThumb>& rules)
{
    if (!(typed > 0.0) || (solved > 0.0 && std::abs(typed / solved - 1.0) < plausible))
        return std::nullopt;
    for (const shapes::RuleOfThumb& rule : rules) {
        if (!(rule.feetMegahertz > 0.0 && rule.value > 0.0))
            continue;
        const double constant = rule.feetMegahertz * typed / rule.value;
        for (int other : swapped(int(std::lround(rule.feetMegahertz))))
            if (std::abs(constant / other - 1.0) < nearConstant)
                return Text(coreText("core", "this is %1 over the frequency: was %2 meant?"), std::to_string(other),
                            std::to_string(std::lround(rule.feetMegahertz)));
    }
    for (const Slip& slip : slips)
        if (solved > 0.0 && std::abs(typed / (slip.ratio * solved) - 1.0) < nearRatio)
            return Text(slip.question, Measure{solved, units::Quantity::Length});
    return std::nullopt;
}

} // namespace vetchling
