#pragma once
/// How an antenna hangs: its spans with sag and pull in still air and in weather, whether the wire stands it, ropes, and heads below it.
///
/// Wind on a wire: 0.5 * 1.25 kg/m3 * v^2 * 1.2 * diameter (drag of a long cylinder, Hoerner 1965, ch. 3). Ice: a sleeve of 900 kg/m3.
/// Dead weight and wind add at right angles. What is tied fast stretches under more load, wire and rope in line, and pulls more: the
/// equation of state of a taut span, H2^2 (H2 - H1 + EA w1^2 L^2 / 24 H1^2) = EA w2^2 L^2 / 24 (Kiessling et al., Overhead Power Lines
/// 2003, sec. 14.6); supports are stiff, and rope gives 12 % at its breaking load. What hangs over a pulley with a weight keeps its pull
/// and sags more.
#include "core/design/workshop.h"
#include "core/result.h"
#include "core/shapes/family.h"
#include "core/site/site.h"
#include "core/workshop/sag.h"

#include <functional>
#include <string>
#include <vector>

namespace vetchling {

/// What a wire's metal weighs and stands.
struct WireStrength {
    double density = 8960.0; ///< kg/m3
    double strength = 220e6; ///< N/m2
    double modulus = 117e9;  ///< N/m2
    friend bool operator==(const WireStrength&, const WireStrength&) = default;
};

/// Ohms of a metre over those of copper of the same thickness, at a frequency.
double lossOverCopper(const shapes::WireChoice& wire, double frequency);

struct WireLoad {
    double mass = 0.0;      ///< kg/m, jacket counted in
    double ice = 0.0;       ///< kg/m
    double wind = 0.0;      ///< N/m
    double times = 1.0;     ///< load in weather over that in still air
    double breaking = 0.0;  ///< N: strength times the metal's area
    double stiffness = 0.0; ///< N: modulus times the metal's area
};
WireLoad loadOf(const shapes::WireChoice& wire, const WireStrength& strength, const Rigging& rigging);

/// A straight stretch of wire between two places that hold it.
struct SpanPlace {
    std::string from, to; ///< names of handles, marked for translation; empty: a corner
    Vec3 start, end;
    int alike = 1;
    bool loaded = false; ///< the feed hangs in it and no support holds that
    shapes::WireChoice wire;
};
/// Those of 1.5 m and more that are off the ground and not upright, longest first.
std::vector<SpanPlace> spansOf(const shapes::BuiltAntenna& built, const shapes::AntennaShape& shape, const Site& site);

struct SpanReport {
    SpanPlace place;
    WireLoad load;
    Hanging still;
    double pullInWeather = 0.0, sagInWeather = 0.0; ///< N at the upper end, m
    double lowest = 0.0;                            ///< m above ground, in still air
    double mostPull = 0.0;                          ///< N level pull in still air that the safety leaves
};

/// From an end to what holds it, to the ground, or to a pole that is not there yet.
struct RopeReport {
    std::string end;       ///< name of the handle
    std::string support;   ///< name of the support it goes to; empty: the ground, or nothing that is there yet
    bool toGround = false; ///< straight on, being steep enough
    Vec3 start, hold;      ///< where the wire ends, and what it is tied to
    double length = 0.0;   ///< m, with knots
    double angle = 0.0;    ///< degrees above level, seen from the end
    double lowest = 0.0;   ///< m above ground
    double pull = 0.0;     ///< N
    double weight = 0.0;   ///< kg over a pulley that pulls as much
};

struct RiggingReport {
    WireLoad load; ///< of the antenna's own wire
    std::vector<SpanReport> spans;
    std::vector<RopeReport> ropes;
    Faults faults;                              ///< spans that cannot hang so
    [[nodiscard]] double strongestPull() const; ///< N, in weather
    /// The span that is nearest to breaking; null without any.
    [[nodiscard]] const SpanReport* weakest() const;
    [[nodiscard]] double lowest() const; ///< m above ground of wire and rope, those that go to the ground left out; huge without any
    [[nodiscard]] bool wireHolds(const Rigging& rigging) const;
    [[nodiscard]] bool ropeHolds(const Rigging& rigging) const;
};

inline constexpr double walkingHeight = 2.5; ///< m; below it a wire or rope is marked
inline constexpr double knots = 1.5;         ///< m of rope for knots and the lowering hand

/// Level pull under another load. @param before N, level pull @param weight N/m @param after N/m @param stiffness N a unit of stretch, of
/// wire and rope together @param length m of the span
double pullUnderLoad(double before, double weight, double after, double stiffness, double length);

/// @param strengthOf by conductor
RiggingReport riggingOf(const shapes::BuiltAntenna& built, const shapes::AntennaShape& shape,
                        const std::function<WireStrength(const std::string& conductor)>& strengthOf, const Rigging& rigging,
                        const Site& site);

} // namespace vetchling
