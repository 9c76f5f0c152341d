#pragma once
/// What is to be said of an antenna, once for every page, file and command: each with its gravity, where it is shown, and its cure.

#include "core/design/design.h"

#include <functional>
#include <optional>

namespace vetchling::advice {

/// It can hurt somebody; it does not hold or not work so; it is to be done; it is done.
enum class Gravity { Danger, Wrong, Next, Done };
const char* wordOf(Gravity gravity); ///< "danger", "wrong", "next", "done"

/// Of the work, in its order.
enum class Stage { Site, Shape, Bands, Feed, Build, Trim };
const char* idOf(Stage stage); ///< "site", "shape" ...

struct Cure {
    Text label;                          ///< in two to five words, as on a button: "Take 9 : 1"
    std::function<void(Design&)> change; ///< does it; null: it is done by hand, where the finding is shown
};

struct Finding {
    Id antenna;
    Gravity gravity = Gravity::Wrong;
    const char* code = ""; ///< "power-line"; names are in docs/cli.md
    Text brief;            ///< in two to six words
    Text message;          ///< what is, and what to do; of a place it begins with the verb, "passes 3 m from ..."
    Stage stage = Stage::Site;
    const char* view = "";   ///< of that stage, by its id
    bool ofPlace = false;    ///< known as soon as it is drawn, by itself
    bool ofSupport = false;  ///< it names the support that is the danger; else the antenna is meant
    Vec3 at = {};            ///< where, of a place
    bool everywhere = false; ///< stands in red wherever the antenna is on show
    std::optional<Cure> cure = {};
    [[nodiscard]] bool open() const { return gravity != Gravity::Done; }
};

/// Dangers first, then what does not hold, what comes next, what is done; of like gravity in the order of the work.
void sort(std::vector<Finding>& findings);

/// Of where it hangs: reach of a power line and houses first, then what nothing holds and what lies beyond the boundary, then the rest; of
/// radials and other wires that are low or dug in alike the first one.
std::vector<Finding> placeFindings(const Antenna& antenna, const FitReport& fit);

/// Of other antennas whose wires it comes too near to.
std::vector<Finding> crossingFindings(const Design& design, const Antenna& antenna, const std::vector<std::pair<Id, Crossing>>& crossings);

/// "power-line", "boundary" ... of a warning of the site.
const char* codeOf(SiteWarning::Kind kind);

} // namespace vetchling::advice
