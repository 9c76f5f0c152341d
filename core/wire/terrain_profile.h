#pragma once
/// The ground along a bearing through an antenna's foot: straight pieces, each of one soil, flat to infinity at both ends.

#include "core/result.h"
#include "core/wire/ground.h"

#include <vector>

namespace vetchling {

struct ProfilePoint {
    double x = 0.0; ///< m along the bearing, from the antenna's foot
    double z = 0.0; ///< m
    friend bool operator==(const ProfilePoint&, const ProfilePoint&) = default;
};

/// Ground on both sides of an antenna that stands at x = 0, along a bearing and against it.
struct TerrainProfile {
    std::vector<ProfilePoint> corners; ///< x rising; flat before the first and after the last
    std::vector<Ground> soils;         ///< before, between and after them: one more
    /// m, of the ground at a place.
    [[nodiscard]] double heightAt(double x) const;
    [[nodiscard]] const Ground& soilAt(double x) const;
    friend bool operator==(const TerrainProfile&, const TerrainProfile&) = default;
};

/// What is wrong with a profile; paths are those of its file. Empty: it can be solved.
Faults findFaults(const TerrainProfile& profile);

} // namespace vetchling
