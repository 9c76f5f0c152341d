#pragma once
/// A point or direction in space: x east, y north, z up; metres where it is a point.

#include <cmath>

namespace vetchling {

struct Vec3 {
    double x = 0.0, y = 0.0, z = 0.0;

    friend Vec3 operator+(Vec3 a, Vec3 b) { return {a.x + b.x, a.y + b.y, a.z + b.z}; }
    friend Vec3 operator-(Vec3 a, Vec3 b) { return {a.x - b.x, a.y - b.y, a.z - b.z}; }
    friend Vec3 operator*(double f, Vec3 a) { return {f * a.x, f * a.y, f * a.z}; }
    friend Vec3 operator*(Vec3 a, double f) { return f * a; }
    friend bool operator==(const Vec3&, const Vec3&) = default;
};

inline double dot(Vec3 a, Vec3 b) { return a.x * b.x + a.y * b.y + a.z * b.z; }
inline Vec3 cross(Vec3 a, Vec3 b) { return {a.y * b.z - a.z * b.y, a.z * b.x - a.x * b.z, a.x * b.y - a.y * b.x}; }
inline double norm(Vec3 a) { return std::sqrt(dot(a, a)); }
inline double distance(Vec3 a, Vec3 b) { return norm(a - b); }
inline Vec3 unit(Vec3 a) { return (1.0 / norm(a)) * a; }
/// The mirror image in the ground plane z = 0.
inline Vec3 mirrored(Vec3 a) { return {a.x, a.y, -a.z}; }
inline bool finite(Vec3 a) { return std::isfinite(a.x) && std::isfinite(a.y) && std::isfinite(a.z); }

/// Closest distance of the segments a0-a1 and b0-b1 (Ericson, Real-Time Collision Detection, 2005, 5.1.9).
double segmentDistance(Vec3 a0, Vec3 a1, Vec3 b0, Vec3 b1);

} // namespace vetchling
