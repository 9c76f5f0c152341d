#pragma once
/// Waits for a state, longer where the program is slowed by a checker.

#include <QtTest>

namespace vetchling::app {

#if defined(__SANITIZE_ADDRESS__) || defined(__SANITIZE_THREAD__)
inline constexpr int slowedBy = 10;
#else
inline constexpr int slowedBy = 1;
#endif

/// @param milliseconds at most, of a program at its usual speed
template <class Predicate> bool waitedFor(Predicate predicate, int milliseconds = 5000)
{
    return QTest::qWaitFor(predicate, slowedBy * milliseconds);
}

} // namespace vetchling::app
