#pragma once
/// A mast or tripod that stands by itself: what wind does to it, and what keeps it up.
///
/// Wind on round things: 0.5 * 1.25 kg/m3 * v^2 * 1.2 * diameter * length (Hoerner 1965, ch. 3). A tripod tips over the line between two of
/// its feet, half its radius from the middle; everything is told with one and a half times the wind's moment.

#include "core/design/workshop.h"
#include "core/site/site.h"
#include "core/units/text.h"
#include "core/wire/wire_model.h"

#include <optional>
#include <vector>

namespace vetchling {

/// What is exposed: a pole from the ground up, and what stands or lies on it.
struct Exposed {
    double pole = 0.0; ///< m
    double top = 0.0;  ///< m, of the whole
    double area = 0.0; ///< m2 of what is on the pole, as the wind meets it
    double at = 0.0;   ///< m, height of that area's middle
};

struct MastStand {
    double height = 0.0;    ///< m, of what stands
    double force = 0.0;     ///< N of wind
    double moment = 0.0;    ///< Nm at its foot
    double footprint = 0.0; ///< m, radius of the circle that the three feet stand on
    double ballast = 0.0;   ///< kg that have to lie on the feet besides its own weight; 0: none
    double pegPull = 0.0;   ///< N on the peg of one foot, in place of that
    double guyAt = 0.0, guyOut = 0.0,
           guyPull = 0.0;  ///< m up, m out from the foot, N in the one of three guys that takes the wind; 0: no pole to guy
    double unstaked = 0.0; ///< m that it may be high with the usual ballast alone
};

inline constexpr double usualBallast = 20.0;                  ///< kg of water or stones that is at hand
inline constexpr double poleDiameter = 0.045, poleMass = 0.4; ///< m, kg a metre, of a pole that nobody described
inline constexpr double againstTipping = 1.5;                 ///< times the wind's moment

/// Of what needs a mast of its own on this site, or stands as a tube from the ground; nothing where supports hold it.
std::optional<MastStand> mastStandOf(const Site& site, const WireModel& model, double wind);
MastStand standOf(const Exposed& exposed, double wind);

/// In sentences. @param wind m/s
std::vector<Text> standWords(const MastStand& stand, double wind);

} // namespace vetchling
