#pragma once
/// Progress and stop request of long work, as plain functions.

#include <functional>

namespace vetchling {

struct Watch {
    std::function<void(double done)> progress; ///< 0..1, called on the computing thread
    std::function<bool()> stop;                ///< polled often: cheap and thread-safe

    [[nodiscard]] bool stopped() const { return stop && stop(); }
    void report(double done) const
    {
        if (progress)
            progress(done);
    }
};

} // namespace vetchling
