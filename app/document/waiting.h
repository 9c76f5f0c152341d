#pragma once
/// Something long that somebody waits for: how far it is, and leaving it. As plain functions, so that one widget shows all.

#include <QString>

#include <functional>

namespace vetchling::app {

struct Waiting {
    std::function<bool()> busy, givenUp;
    std::function<double()> progress; ///< 0 to 1
    std::function<void()> giveUp;     ///< what is under way is left, and not begun again by itself
    std::function<void()> goOn;       ///< what was given up is asked again
    std::function<bool()> old = {};   ///< what stands there meanwhile answers an earlier question; null: nothing does
};

struct NamedWaiting {
    QString name; ///< "the coax's outside"
    Waiting waiting;
};

} // namespace vetchling::app
