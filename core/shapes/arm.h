#pragma once
/// Arms of an antenna: from a foot (the feedpoint, a base) to a tip, made of stretches in order: wire or tube of its own thickness, coil,
/// fold, telescope, and a tip that droops. A dipole has two, alike but for what is told of one alone; what stands has one.

#include "core/shapes/loading.h"

#include <array>

namespace vetchling::shapes {

enum class Has { Never, Choice, Always };

/// What the arms of a family can be, and how those of a new antenna are.
struct ArmKind {
    std::string length = "leg_m"; ///< key of a whole arm's length, foot to tip
    std::string part;             ///< whose metal its wire or tubes are of; empty: the antenna's wire
    bool pair = true;             ///< two arms
    Has coil = Has::Never, fold = Has::Never;
    const char *henryLabel = "", *placeLabel = "", *placeHelp = "";
    double place = 50.0, henry = 8e-6; ///< of the coil: percent of the arm, H
    double inWaves = 0.24;             ///< of a new antenna's whole arm, as its tubes share it
    int fewestTubes = 1, usualTubes = 1;
    double diameter = 0.0, step = 0.0; ///< m, of the innermost tube and by how much the next is thinner; 0: as the wire
    bool centrePiece = false;          ///< leads across it, "lead_m"
    WireEnd foot = WireEnd::Centre, tip = WireEnd::Insulator;
    const char *whole = "", *inner = "", *outer = ""; ///< pieces of an arm of one thickness: without a coil, within it and beyond
};

/// Everything of the arms but their whole length.
void addArmSpecs(std::vector<ParameterSpec>& all, const ArmKind& kind, const AntennaShape& shape);
/// "first_tip_m" and "second_tip_m", by which a pair's arms are longer than the length a side.
void addTipsApart(std::vector<ParameterSpec>& all, const char* group);
/// Part of Family::layout: counts and choices that `addArmSpecs` heeds.
std::string armLayout(const ArmKind& kind, const AntennaShape& shape);
/// Thinner tubes and closer folds on high bands.
void settleArm(const ArmKind& kind, AntennaShape& shape);

struct Stretch {
    enum class Kind { Lead, Wire, Coil, Fold };
    Kind kind = Kind::Wire;
    std::string name;                         ///< of the piece it is cut as; a fold without one belongs to the wire round it
    double length = 0.0;                      ///< m along the arm's line; of a coil in a point 0
    double diameter = 0.0, endDiameter = 0.0; ///< m
    double overlap = 0.0;                     ///< m that it reaches into the one before
    double droop = 0.0;                       ///< degrees below the arm's line
    bool joint = false;                       ///< begins a wire of its own in the model
    bool piece = false;                       ///< begins a piece to cut
    bool trimmed = false;
    WireEnd first = WireEnd::Centre, last = WireEnd::Insulator;
    double henry = 0.0, q = 0.0;      ///< of a coil
    CoilSize size;                    ///< of a coil
    double fold = 0.0, spacing = 0.0; ///< m, of a fold: how far it reaches out, between its wires
    bool inside = true;               ///< the arm itself runs out, back and out again; else a stub below it
};

struct Arm {
    std::vector<Stretch> stretches; ///< from the foot on
    double length = 0.0;            ///< m, foot to tip along the line
    double droop = 0.0;             ///< m of that beyond the corner from which it droops
    double coilAt = 0.0;            ///< m from the foot to the coil's middle
    double foldAt = 0.0, fold = 0.0;
    std::vector<std::pair<double, double>> tubes; ///< m from the foot, where each begins and ends
    /// m of straight line from the foot to the tip or to where it droops.
    [[nodiscard]] double straight() const { return length - droop; }
};

/// @param side 0, and 1 for the second one of a pair
Result<Arm> armOf(const Family& family, const ArmKind& kind, const AntennaShape& shape, int side = 0);
/// Metal, jacket and usual thickness of an arm's wire or tubes.
const WireChoice& metalOf(const ArmKind& kind, const AntennaShape& shape);
/// m, of both sides.
std::array<double, 2> armLengths(const Family& family, const ArmKind& kind, const AntennaShape& shape);
/// An arm as the line formula of its coil takes it. @param more m that its tip counts longer by
LoadedLine lineOf(const Family& family, const ArmKind& kind, const AntennaShape& shape, double more = 0.0);

/// Where an arm goes: from its foot along a line; what hangs from it goes `low`, square to that.
struct ArmLine {
    Vec3 foot, along, low;
    [[nodiscard]] Vec3 at(double m) const { return foot + m * along; }
};

/// A line from a foot towards an end, things hanging downwards, or aside where it is upright.
ArmLine armLine(Vec3 foot, Vec3 towardsEnd, double bearing);
/// The tip of an arm laid along a line, without what its folds lower it by.
Vec3 tipOf(const Arm& arm, const ArmLine& line);

/// Lays one or two arms: wires from 0 on, the feed at their foot, coils, and sections to cut. Two of one thickness are one wire.
void layArms(const AntennaShape& shape, const ArmKind& kind, const std::vector<Arm>& arms, const std::vector<ArmLine>& lines,
             const std::string& wireName, BuiltAntenna& out);

/// The levers of arms: both tips, each by itself, the coils' taps and the folds' bridge; in the order in which they are offered.
std::vector<Lever> armLevers(const Family& family, const ArmKind& kind, const AntennaShape& shape, Lever tips);

/// The shape with a parameter at another value, all else staying where it is built: a coil told as a part of the arm keeps its metres.
AntennaShape armLevered(const Family& family, const ArmKind& kind, const AntennaShape& shape, const std::string& key, double value);

} // namespace vetchling::shapes
