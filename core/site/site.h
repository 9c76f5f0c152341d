#pragma once
/// The place: soil, boundary, what carries wires and what endangers them. Plan coordinates in metres, x east, y north.

#include "core/id.h"
#include "core/wire/wire_model.h"

#include <optional>
#include <string>
#include <vector>

namespace vetchling {

struct PlanPoint {
    double x = 0.0, y = 0.0;
    friend bool operator==(const PlanPoint&, const PlanPoint&) = default;
};

using Outline = std::vector<PlanPoint>;

struct SoilFigures {
    double relativePermittivity = 1.0;
    double conductivity = 0.0; ///< S/m
    friend bool operator==(const SoilFigures&, const SoilFigures&) = default;
};

/// A ground class from the data, or own figures (empty id).
struct Soil {
    std::string id;
    std::string name;
    std::string source;
    double relativePermittivity = 13.0;
    double conductivity = 0.005; ///< S/m
    double pairFrequency = 0.0;  ///< Hz at which the two were measured, elsewhere by soil_model.h; 0: they hold everywhere
    std::optional<SoilFigures> dry = {}, wet = {}; ///< of the same ground after a dry and a wet season, where its class says so
    KeptFields kept = {};
    [[nodiscard]] Ground ground() const { return {GroundKind::Real, relativePermittivity, conductivity, pairFrequency}; }
    friend bool operator==(const Soil&, const Soil&) = default;
};

/// A soil of no class any more: its figures are about to be typed or fitted, and what its class said of seasons no longer holds.
void makeOwn(Soil& soil, const std::string& name);

enum class SupportKind { Tower, Pole, Tree, Wall, Roof };

struct Support {
    std::string name;
    SupportKind kind = SupportKind::Pole;
    PlanPoint at;
    double height = 0.0; ///< m
    bool metal = false;
    Id id;
    KeptFields kept;
    friend bool operator==(const Support&, const Support&) = default;
};

struct Building {
    std::string name;
    Outline outline;
    double eaves = 2.5, ridge = 4.0; ///< m
    Id id;
    KeptFields kept;
    friend bool operator==(const Building&, const Building&) = default;
};

struct Water {
    std::string name;
    Outline outline;
    Id id;
    KeptFields kept;
    friend bool operator==(const Water&, const Water&) = default;
};

struct PowerLine {
    PlanPoint from, to;
    double height = 8.0; ///< m
    KeptFields kept;
    friend bool operator==(const PowerLine&, const PowerLine&) = default;
};

/// Another ground beyond a shore line, in some directions: what the far field is reflected by there.
struct FarGround {
    std::string name;
    double fromBearing = 0.0, toBearing = 90.0; ///< degrees, clockwise from the one to the other
    double distance = 50.0;                     ///< m from the antenna to its near edge
    double relativePermittivity = 70.0;
    double conductivity = 5.0; ///< S/m
    Id id;
    KeptFields kept;
    [[nodiscard]] Ground ground() const { return {GroundKind::Real, relativePermittivity, conductivity}; }
    /// Whether a bearing, degrees, lies in it.
    [[nodiscard]] bool holds(double bearing) const;
    friend bool operator==(const FarGround&, const FarGround&) = default;
};

struct GeoPlace {
    double latitude = 0.0, longitude = 0.0; ///< degrees, north and east
    friend bool operator==(const GeoPlace&, const GeoPlace&) = default;
};

/// The ground along a bearing, from the antenna's foot outwards; flat beyond its last point.
struct GroundProfile {
    struct Point {
        double distance = 0.0, height = 0.0; ///< m, the height over the foot
        /// From here outwards, of a class of the data or with own figures (empty id); none: as before.
        struct Kind {
            std::string id;
            SoilFigures figures;
            double pairFrequency = 0.0; ///< Hz, see Soil
            friend bool operator==(const Kind&, const Kind&) = default;
        };
        std::optional<Kind> soil = {};
        KeptFields kept = {};
        friend bool operator==(const Point&, const Point&) = default;
    };
    std::string name;
    double bearing = 0.0;      ///< degrees
    std::vector<Point> points; ///< their distances rise
    Id id;
    KeptFields kept;
    friend bool operator==(const GroundProfile&, const GroundProfile&) = default;
};

struct Site {
    std::string name = "My site";
    Soil soil;
    Outline boundary;
    double wallHeight = 0.0; ///< m, 0: no wall
    bool boundaryMayBeCrossed = false;
    std::vector<Support> supports;
    std::vector<Building> buildings;
    std::vector<Water> waters;
    std::optional<PowerLine> powerLine;
    bool powerLineUnread = false; ///< its file has one that could not be read: nobody knows how near it is
    PlanPoint feedEntry;          ///< where the feed line reaches the radio
    Outline coaxRoute;            ///< corners of the feed line on the ground, from the antenna's side to the entry; empty: straight
    std::vector<FarGround> farGrounds;
    std::vector<GroundProfile> profiles; ///< come before any of the far grounds; see study/far_ground.h
    bool countsAsFlat = false;           ///< profiles and far grounds are kept and not counted
    std::optional<GeoPlace> place;       ///< of what the profiles are told from
    std::string notes;
    std::vector<std::string> pictures; ///< paths
    KeptFields kept;
    friend bool operator==(const Site&, const Site&) = default;
};

/// Something to look at before anything is hung there.
struct SiteWarning {
    enum class Kind { PowerLine, Boundary, Building, Support, Mast, Tie, Tube, Water, Metal, Low, Dig } kind;
    Text message;         ///< what is, and what to do
    Vec3 at;              ///< where
    double hold = 0.0;    ///< m: something so high could hold it there; 0: that would not help
    Id support = {};      ///< that is the danger itself; empty: a wire is
    bool upright = false; ///< Low: by what stands or hangs down steeply, to be fenced where it stands
};

/// How a wire model lies on its site.
struct FitReport {
    bool insideBoundary = true;
    double beyondBoundary = 0.0;    ///< m, farthest outside
    double clearOfBoundary = 0.0;   ///< m, nearest wire point to the boundary where inside
    double clearOfMetal = HUGE_VAL; ///< m, wire ends to metal supports
    std::string nearestMetal;
    double toPowerLine = HUGE_VAL;     ///< m, nearest wire or support foot to the power line, in plan
    bool nearPowerLine = false;        ///< something that can fall or swing could reach it
    std::string endangering;           ///< what could reach it; "the wire" is marked for translation
    bool throughBuilding = false;      ///< a wire through a house, or too near to one
    std::vector<SiteWarning> warnings; ///< at most one of each kind and wire; Support: ends and corners where nothing stands to hold them,
                                       ///< Tie: where it is too low or too far, or a wire passes too near to one;
                                       ///< Mast: stands by itself, higher than a mast does; Tube: reaches out farther than it holds itself
    /// Nothing of it lies outside the boundary, in a house, or where it endangers somebody.
    [[nodiscard]] bool fits() const { return insideBoundary && !nearPowerLine && !throughBuilding; }
};

inline constexpr double longestRope = 15.0; ///< m, from an end to what holds it
/// m that a tie may be from a support in plan; a tower is not a point.
double tieReach(const Support& support);
/// Whether a support holds what is tied to it there.
bool holdsAt(const Support& support, Vec3 p);
/// Least distance in m of a straight piece from a building, which is solid from the ground to its ridge; 0: through it.
double distanceToBuilding(Vec3 a, Vec3 b, const Building& building);
inline constexpr double clearOfHouse = 0.5; ///< m, for a wire
inline constexpr double aboveSupport = 0.3; ///< m that a wire may be higher than its support

FitReport fitOnSite(const Site& site, const WireModel& model);

/// What holds an end of a wire by a rope in its line.
struct Rope {
    Vec3 from, to; ///< the end, and the point beside the support
    const Support* support;
};
/// Of all free ends of a model that a support holds so; what is tied to it directly has none.
std::vector<Rope> ropesOf(const Site& site, const WireModel& model);

/// The supports that hold something of a model, by a tie or by a rope.
std::vector<Id> supportsHolding(const Site& site, const WireModel& model);

/// Where wires of two antennas come nearer to one another than they should.
struct Crossing {
    double apart = 0.0; ///< m
    Vec3 at;            ///< on the first one
};
inline constexpr double crossingReach = 0.5; ///< m
/// Nothing where they keep their distance.
std::optional<Crossing> crossingOf(const WireModel& first, const WireModel& second);

/// The support that can hold the end of a wire by a rope in the wire's line, being high enough there; null if none can.
/// @param before the point of the wire next to its end @param longest m of rope
const Support* ropeHold(const Site& site, Vec3 before, Vec3 end, double longest = longestRope);

/// Whether a point is inside an outline (even-odd rule).
bool inside(const Outline& outline, PlanPoint p);
/// Distance of a point to an outline's edge, m.
double distanceToOutline(const Outline& outline, PlanPoint p);
/// Distance of a point to a segment in plan, m.
double distanceToSegment(PlanPoint p, PlanPoint a, PlanPoint b);
/// The point of a segment nearest to p.
PlanPoint nearestOnSegment(PlanPoint p, PlanPoint a, PlanPoint b);
/// Width and depth of the box around an outline, m.
PlanPoint extentOf(const Outline& outline);
/// South-west corner of that box; the origin for an empty outline.
PlanPoint cornerOf(const Outline& outline);
Outline rectangle(PlanPoint corner, PlanPoint extent);
Outline moved(Outline outline, double east, double north);
/// The outline with another extent, its south-west corner and its form kept; a rectangle where there was no area.
Outline stretched(const Outline& outline, PlanPoint extent);

} // namespace vetchling
