#include "core/shapes/loading.h"

#include <algorithm>
#include <cmath>

namespace vetchling::shapes {
namespace {

void draw(BuiltAntenna& out, std::vector<CoilPlace>& places, std::size_t wire, double at)
{
    const Wire& w = out.model.wires[wire];
    const double near = 1e-3 * w.length();
    places.push_back({w.pointAt(at), unit(w.pointAt(at + near) - w.pointAt(at - near))});
}

} // namespace

void addSeriesCoil(BuiltAntenna& out, std::size_t wire, double at, double henry, double q)
{
    Load coil;
    coil.wire = wire;
    coil.at = at;
    coil.inductance = henry;
    coil.q = q;
    out.model.loads.push_back(coil);
    draw(out, out.coils, wire, at);
}

void addTrap(BuiltAntenna& out, std::size_t wire, double at, double henry, double resonance, double q)
{
    Load trap;
    trap.wire = wire;
    trap.at = at;
    trap.kind = LoadKind::Parallel;
    trap.inductance = henry;
    trap.capacitance = 1.0 / (std::pow(2.0 * pi * resonance, 2) * henry);
    trap.q = q;
    out.model.loads.push_back(trap);
    draw(out, out.traps, wire, at);
}

double loadingReactance(const Arm& arm, double frequency)
{
    constexpr double endEffect = 1.05; // the open end counts a little longer
    const double k = waveNumber(frequency), before = k * arm.coilAt, beyond = endEffect * (k * arm.length - before);
    const double line = 60.0 * (std::log(4.0 * arm.length / arm.diameter) - 1.0);
    return line * (1.0 / std::tan(beyond) - std::tan(before));
}

RuleOfThumb coilRule(const Arm& arm, double frequency)
{
    const double henry = std::clamp(loadingReactance(arm, frequency) / (2.0 * pi * frequency), 1e-8, 5e-3);
    return {coreText("core", "line formula"), coreText("core", "each arm as an open line of one impedance, no ground"), 0.0, 0.0, henry};
}

} // namespace vetchling::shapes
