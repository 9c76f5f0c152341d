#pragma once
/// Where a function crosses a value.

#include <functional>

namespace vetchling {

/// Of a continuous function that rises from `low` to `high`; the nearer end where the value lies outside. By inverse cubic and quadratic
/// steps within a bracket (Alefeld, Potra and Shi 1995, ACM TOMS 748; Boost's).
double whereRising(const std::function<double(double)>& f, double value, double low, double high);

/// The largest value up to which something holds that holds below a place and not above; `low` where it holds nowhere. By halving: a yes or
/// no has no slope to follow.
double lastWhere(const std::function<bool(double)>& holds, double low, double high, int halvings);

} // namespace vetchling
