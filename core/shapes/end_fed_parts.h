#pragma once
/// What end-fed wires share: the transformer at the feed and where the return current goes.

#include "core/shapes/specs.h"

namespace vetchling::shapes {

inline constexpr double halfWaveFeedImpedance = 2500.0; // ohm, of a half wave at its end

inline constexpr double assumedShield = 10.0; // m of coax to a choke, where none is drawn

/// Whether the return current has the feed line's outside, and whether that is as long as the chain and the site have it.
bool returnsByShield(const AntennaShape& shape);
bool followsFeedLine(const AntennaShape& shape);
/// What is assumed of the return; nothing where it is typed or drawn.
std::vector<Text> returnRemarks(const AntennaShape& shape);
/// Adds the counterpoise, where there is one.
void addCounterpoiseLever(const AntennaShape& shape, std::vector<Lever>& all);

/// Heights of feed and far end.
std::vector<ParameterSpec> endFedHeights();
/// Return path, transformer and place; to stand after the family's own.
void addEndFedFeed(std::vector<ParameterSpec>& all, double ratio, double lossPercent = 10.0);
/// "shield_m" and "shield_height_m": how much of the feed line's outside takes part, and where it lies.
void addShieldSpecs(std::vector<ParameterSpec>& all);
/// Whether any of the feed line's outside is part of the antenna: what works without needs some told or drawn that is long enough to act.
bool shieldActs(const AntennaShape& shape);
/// The feed line's outside from a point on, down and along its route.
Wire shieldFrom(const Family& family, const AntennaShape& shape, Vec3 from);
/// Adds the next point: so much wire, ending at that height, on that bearing. Faults name the height's key.
Faults addRun(std::vector<Vec3>& points, double length, double height, double bearing, const std::string& key);
/// Wire 0 fed at its first point against wire 1, counterpoise or shield, behind the transformer. The wire's own handles come after "feed".
BuiltAntenna endFedFrame(const Family& family, const AntennaShape& shape, std::vector<Vec3> wire, double portReference);
/// The counterpoise's section, where it is a wire; after the family's own.
void addCounterpoiseSection(const Family& family, const AntennaShape& shape, BuiltAntenna& out);
/// The shape as an end-fed with coil and tail for a lower band.
AntennaShape endFedWithTail(const AntennaShape& shape, double lowerFrequency);
/// "Wire" and "Counterpoise".
std::vector<Part> endFedParts();
/// A short wire cannot climb far: lowers the heights named.
void lowerToReach(const Family& family, AntennaShape& shape, const std::string& length, const std::vector<std::string>& heights);
/// From the foot of the first support to the top of the second; see Family::between.
AntennaShape endFedBetween(const Family& family, const AntennaShape& shape, const Hook& from, const Hook& to);
/// A straight end-fed wire hung by its feed (handle 0) or its far end (1); see Family::hung. @param length m, of the whole wire
AntennaShape straightHung(const Family& family, const AntennaShape& shape, std::size_t handle, const Hook& hook, double length);
/// A straight one fed from where its far end was; see Family::flipped.
std::optional<AntennaShape> straightFlipped(const Family& family, const AntennaShape& shape);

} // namespace vetchling::shapes
