#pragma once
/// Round steps of an axis.

#include <vector>

namespace vetchling::app {

/// The smallest of 1, 2, 5 times a power of ten that divides a span into at most so many parts.
double niceStep(double span, int most);
/// Round values between two, at most so many steps.
std::vector<double> niceTicks(double from, double to, int most);

} // namespace vetchling::app
