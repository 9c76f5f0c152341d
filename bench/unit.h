#pragma once
/// The unit of all ratios, timed beside each case, since a shared machine is not as fast from minute to minute.

namespace vetchling::bench {

/// One zgesv of 500 complex unknowns on one thread, ms.
double unitMilliseconds();

} // namespace vetchling::bench
