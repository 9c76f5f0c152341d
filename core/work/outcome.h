#pragma once
/// What work comes to when it may throw: a fault of the program itself is a fault like others for whoever waits.

#include "core/result.h"

#include <exception>

namespace vetchling::work {

inline Fault brokenOff(const char* why)
{
    return {"", {coreText("core", "the computation broke off (%1); change a dimension and try again"), std::string(why)}};
}

template <class Answer, class Work> Result<Answer> outcomeOf(const Work& work)
{
    try {
        return work();
    } catch (const std::exception& e) {
        return brokenOff(e.what());
    } catch (...) {
        return brokenOff("?");
    }
}

} // namespace vetchling::work
