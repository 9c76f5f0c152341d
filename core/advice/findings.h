#pragma once
/// What is to be said of an antenna, once for every page, file and command: each with its gravity, in the order of it.

#include "core/design/design.h"

namespace vetchling::advice {

enum class Gravity { Danger, Wrong, Next, Done };
const char* wordOf(Gravity gravity); ///< "danger", "wrong", "next", "done"

struct Finding {
    Id antenna;
    Gravity gravity = Gravity::Wrong;
    const char* code = "";   ///< "power-line"; names are in docs/cli.md
    Text brief;              ///< in two or three words
    Text message;            ///< what is, and what to do
    bool ofSupport = false;  ///< it names the support that is the danger; else the antenna is meant
    Vec3 at;                 ///< where
    bool everywhere = false; ///< stands in red wherever the antenna is on show
};

/// Of where it hangs: reach of a power line and houses first, then what nothing holds and what lies beyond the boundary, then the rest; of
/// radials and other wires that are low or dug in alike the first one.
std::vector<Finding> placeFindings(const Antenna& antenna, const FitReport& fit);

/// "power-line", "boundary" ... of a warning of the site.
const char* codeOf(SiteWarning::Kind kind);

} // namespace vetchling::advice
