#pragma once
/// Small wire models and comparisons that many tests share.

#include "core/em/far_field.h"
#include "core/em/solver.h"
#include "core/wire/wire_model.h"

#include <gtest/gtest.h>

#include <cmath>
#include <memory>

namespace vetchling::testing {

inline const Ground averageSoil{GroundKind::Real, 13.0, 0.005};
inline const Ground perfectGround{GroundKind::Perfect, 1.0, 0.0};
inline const Ground freeSpace{};

inline Wire wire(std::string id, std::vector<Vec3> points, double radius = 1e-3)
{
    Wire w;
    w.id = std::move(id);
    w.points = std::move(points);
    w.radius = radius;
    return w;
}

/// One wire fed at a distance along it.
inline WireModel fedWire(std::vector<Vec3> points, double at, const Ground& ground = freeSpace, double radius = 1e-3)
{
    WireModel model;
    model.ground = ground;
    model.wires.push_back(wire("a", std::move(points), radius));
    model.feeds.push_back({0, at, 1.0});
    return model;
}

/// A dipole along x, fed in the middle.
inline WireModel dipole(double length, double height, const Ground& ground = freeSpace, double radius = 1e-3)
{
    return fedWire({{-0.5 * length, 0, height}, {0.5 * length, 0, height}}, 0.5 * length, ground, radius);
}

inline em::Solution solved(const WireModel& model, double frequency, em::GroundTableCache& tables, const em::SolveOptions& options = {})
{
    EXPECT_TRUE(findFaults(model).empty()) << findFaults(model).front().text();
    const auto solution = em::solve(std::make_shared<const WireModel>(model), frequency, tables, options);
    EXPECT_TRUE(solution.ok()) << solution.firstFault();
    return solution.ok() ? *solution : em::Solution{};
}

inline em::Solution solved(const WireModel& model, double frequency, const em::SolveOptions& options = {})
{
    em::GroundTableCache tables;
    return solved(model, frequency, tables, options);
}

inline em::PowerLedger ledgerOf(const em::Solution& solution)
{
    em::GroundTableCache tables;
    const auto ledger = em::powerLedger(solution, tables);
    EXPECT_TRUE(ledger.ok());
    return ledger.ok() ? *ledger : em::PowerLedger{};
}

inline double relative(Complex a, Complex b) { return std::abs(a - b) / std::abs(b); }

inline bool mentions(const Faults& faults, const std::string& path, const std::string& words)
{
    for (const Fault& f : faults)
        if (f.path == path && f.message.english().find(words) != std::string::npos)
            return true;
    return false;
}

inline std::string listed(const Faults& faults)
{
    std::string out;
    for (const Fault& f : faults)
        out += f.text() + "\n";
    return out;
}

} // namespace vetchling::testing
