#include "core/shapes/loading.h"

#include "core/wire/coil_limits.h"

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

void addCoilSpecs(std::vector<ParameterSpec>& all)
{
    all.push_back(coilQuality());
    all.push_back(sizeSpec("coil_length_m", coreText("core", "Length of the coil"), coilsGroup, {0.0, 0.0, 5.0},
                           coreText("core", "along the wire; 0: it counts as a point. Build takes it from the winding")));
    all.push_back(sizeSpec("coil_diameter_m", coreText("core", "Its diameter"), coilsGroup, {0.04, 0.001, 2.0},
                           coreText("core", "from centre to centre of its wire")));
    all.push_back(sizeSpec("coil_wire_m", coreText("core", "Its wire"), coilsGroup, {0.0012, 0.0, 0.05},
                           coreText("core", "thickness of the metal; 0: so close that the turns are a tube")));
}

bool isCoilSize(const std::string& key) { return key == "coil_length_m" || key == "coil_diameter_m" || key == "coil_wire_m"; }

CoilSize coilSizeOf(const Family& family, const AntennaShape& shape)
{
    CoilSize size{family.value(shape, "coil_length_m"), family.value(shape, "coil_diameter_m"), family.value(shape, "coil_wire_m")};
    return size.inPoint() ? CoilSize{} : size;
}

Faults findSizeFaults(const CoilSize& coil, double before, double beyond, double wire)
{
    if (coil.inPoint())
        return {};
    if (coil.diameter <= wire)
        return {{"coil_diameter_m", coreText("core", "a coil is thicker than the wire it is in")}};
    if (coil.wireDiameter >= 0.5 * coil.diameter)
        return {{"coil_wire_m", coreText("core", "the coil's wire must be thinner than half of the coil")}};
    if (tooShort(coil))
        return {{"coil_length_m",
                 coreText("core", "a coil shorter than a fifth of its diameter is taken as one in a point: make its length 0")}};
    const double room = 2.0 * std::min(before, beyond);
    if (coil.length <= room)
        return {};
    return {{"coil_length_m",
             {coreText("core",
                       "there is straight wire for a coil of %1; make it shorter, move it, or give it the length 0, for one in a point"),
              Measure{std::max(0.0, room), units::Quantity::Length}}}};
}

void addSeriesCoil(BuiltAntenna& out, std::size_t wire, double at, double henry, double q, const CoilSize& size)
{
    Load coil;
    coil.wire = wire;
    coil.at = at;
    coil.inductance = henry;
    coil.q = q;
    if (henry > 0.0)
        coil.size = size;
    out.notCut += size.length;
    out.model.loads.push_back(coil);
    draw(out, out.coils, wire, at);
}

void addTrap(BuiltAntenna& out, std::size_t wire, double at, double henry, double resonance, double q, const CoilSize& size)
{
    Load trap;
    trap.wire = wire;
    trap.at = at;
    trap.kind = LoadKind::Parallel;
    trap.inductance = henry;
    trap.capacitance = 1.0 / (std::pow(2.0 * pi * resonance, 2) * henry);
    trap.q = q;
    trap.size = size;
    out.notCut += size.length;
    out.model.loads.push_back(trap);
    draw(out, out.traps, wire, at);
}

double loadingReactance(const LoadedLine& arm, double frequency)
{
    constexpr double endEffect = 1.05; // the open end counts a little longer
    const double k = waveNumber(frequency), before = k * arm.coilAt, beyond = endEffect * (k * arm.length - before);
    const auto line = [&](double diameter) { return 60.0 * (std::log(4.0 * arm.length / diameter) - 1.0); };
    return line(arm.beyond > 0.0 ? arm.beyond : arm.diameter) / std::tan(beyond) - line(arm.diameter) * std::tan(before);
}

RuleOfThumb coilRule(const LoadedLine& arm, double frequency)
{
    const double henry = std::clamp(loadingReactance(arm, frequency) / (2.0 * pi * frequency), 1e-8, 5e-3);
    return {coreText("core", "line formula"), coreText("core", "each arm as an open line of one impedance, no ground"), 0.0, 0.0, henry};
}

} // namespace vetchling::shapes
