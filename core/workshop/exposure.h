#pragma once
/// How far people have to keep from the wires: where the fields, near ones included, exceed limits that are data of their own.
///
/// The fields of a solution are followed outwards from points all along the wires, in all directions above the soil, and from the middle
/// of the antenna along all its lobes; a limit's distance is that of its farthest exceeded point from the nearest wire, and 2 % for what
/// lies between the rays. Below some tens of MHz E and H must both be met, and near a wire neither follows from the other, so both are
/// looked at everywhere. Limits are kept to as power is averaged: power times the duty of the mode. Accuracy: no shorter than a dense grid,
/// and within 10 % of it, up to 20 kW (tests/core/exposure_test.cpp). Buildings, bodies and other sources are not counted in.

#include "core/em/near_field.h"

#include <optional>
#include <string>
#include <vector>

namespace vetchling {

/// a f^p, f in MHz.
struct LimitCurve {
    double factor = 0.0, power = 0.0;
    [[nodiscard]] double at(double frequency) const; ///< Hz
};

struct LimitRange {
    double from = 0.0, to = 0.0;         ///< Hz; the upper end belongs to it
    std::optional<LimitCurve> electric;  ///< V/m rms
    std::optional<LimitCurve> magnetic;  ///< A/m rms
    std::optional<LimitCurve> powerFlux; ///< W/m2, as a plane wave; used where the others are not there
};

struct LimitSet {
    std::string id, name, source, note;
    int year = 0;
    double averagingMinutes = 0.0; ///< 0: at every moment
    std::vector<LimitRange> ranges;
    /// Null where the set says nothing.
    [[nodiscard]] const LimitRange* range(double frequency) const;
};

struct KeepAway {
    double fromWires = 0.0; ///< m from the nearest wire; 0: nowhere exceeded farther than where the fields can be told
    double onGround = 0.0;  ///< m in plan from the nearest wire, for people up to 2 m tall on the ground; 0: nowhere
    bool bounded = true;    ///< false: exceeded as far as was looked
};

/// @param power W, averaged, into the solution's feeds @param range see LimitSet::range
/// Faults: the solver's; stopped.
Result<KeepAway> keepAway(const em::Solution& solution, em::GroundTableCache& tables, const LimitRange& range, double power,
                          const Watch& watch = {});

/// The fields round a solution, followed once; several limits and powers are then read off it.
class ExposureScan {
public:
    /// Faults: the solver's; stopped.
    static Result<ExposureScan> of(const em::Solution& solution, em::GroundTableCache& tables, const Watch& watch = {});
    [[nodiscard]] KeepAway keepAway(const LimitRange& range, double power) const;

private:
    struct Step {
        double fromWires, inPlan, height; ///< m
        double electric, magnetic;        ///< rms for 1 W
    };
    double m_frequency = 0.0;
    std::vector<std::vector<Step>> m_rays; ///< outwards
};

} // namespace vetchling
