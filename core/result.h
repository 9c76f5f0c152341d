#pragma once
/// Values that may fail in expected ways: bad input, no convergence, stop asked for.

#include "core/units/text.h"

#include <cassert>
#include <string>
#include <utility>
#include <variant>
#include <vector>

namespace vetchling {

/// One thing that is wrong: where, and what to do about it.
struct Fault {
    std::string path; ///< place in the input, e.g. "wires[2].points_m[1]"; may be empty. For files and the command line, not for screens
    Text message;     ///< "0.4 m below ground; raise it above z = 0"
    bool stopped = false; ///< nothing is wrong: it was told to stop before it had finished

    [[nodiscard]] std::string text() const { return path.empty() ? message.english() : path + ": " + message.english(); }
};

using Faults = std::vector<Fault>;

inline Fault stoppedFault() { return {"", coreText("core", "stopped"), true}; }

/// A value, the faults that prevented it, or that it was stopped.
template <class T> class [[nodiscard]] Result {
public:
    Result(T value) : m_content(std::move(value)) {}
    Result(Fault fault) : m_content(Faults{std::move(fault)}) {}
    Result(Faults faults) : m_content(std::move(faults)) { assert(!this->faults().empty()); }

    [[nodiscard]] bool ok() const { return std::holds_alternative<T>(m_content); }
    explicit operator bool() const { return ok(); }

    [[nodiscard]] const T& value() const& { return std::get<T>(m_content); }
    [[nodiscard]] T&& value() && { return std::get<T>(std::move(m_content)); }
    const T* operator->() const { return &value(); }
    const T& operator*() const& { return value(); }

    /// Nobody knows what would have come out.
    [[nodiscard]] bool stopped() const
    {
        if (!ok())
            for (const Fault& fault : faults())
                if (fault.stopped)
                    return true;
        return false;
    }

    [[nodiscard]] const Faults& faults() const { return std::get<Faults>(m_content); }
    [[nodiscard]] std::string firstFault() const { return ok() ? std::string() : faults().front().text(); }

private:
    std::variant<T, Faults> m_content;
};

} // namespace vetchling
