/// Dipole shorter than half a wave with a coil in each arm.
#include "core/shapes/dipole_geometry.h"

#include <algorithm>
#include <cmath>

namespace vetchling::shapes {
namespace {

class LoadedDipole final : public Family {
public:
    std::string id() const override { return "loaded-dipole"; }
    std::string title() const override { return coreText("core", "Loaded dipole"); }
    std::string summary() const override
    {
        return coreText("core", "A dipole too short for its band, made resonant by a coil in each arm.");
    }

    std::vector<ParameterSpec> parameters(const AntennaShape&) const override
    {
        using units::Quantity;
        std::vector<ParameterSpec> all = dipoleParameters(8.0, 8.0, 0.12);
        all.push_back({"inductance_H", coreText("core", "Coil in each arm"), coilsGroup, Quantity::Inductance, 8e-6, 0.0, 5e-3, {}, {}});
        all.push_back({"coil_place_percent",
                       coreText("core", "Coil out along the arm"),
                       coilsGroup,
                       Quantity::Percent,
                       50.0,
                       0.0,
                       95.0,
                       {},
                       coreText("core", "0 is at the feedpoint, 100 at the end")});
        all.push_back({"coil_q",
                       coreText("core", "Q of the coil"),
                       coilsGroup,
                       Quantity::Plain,
                       250.0,
                       1.0,
                       2000.0,
                       {},
                       coreText("core", "reactance over loss resistance; good air coils reach 200 to 400")});
        return all;
    }

    std::vector<TunedLength> tuned(const AntennaShape& shape) const override
    {
        return {{"inductance_H", coreText("core", "in each coil"), shape.designFrequency}};
    }

    /// Coils are wound once; the wire ends are trimmed.
    std::vector<Lever> levers(const AntennaShape&) const override
    {
        return {{"leg_m", coreText("core", "each side"), LeverKind::Cut, LeverSide::OpenEnd, 2},
                {"inductance_H", coreText("core", "each coil"), LeverKind::Tap, LeverSide::Middle, 2}};
    }

    /// The arm as a line of Za = 60 (ln(2h/a) - 1): X = Za (cot beyond - tan before) (Belrose 1953, in the form of the
    /// open-ended line); rule for a first coil, not a length.
    std::vector<RuleOfThumb> rules(const AntennaShape& shape, const TunedLength& length) const override
    {
        const double leg = value(shape, "leg_m"), k = waveNumber(length.frequency);
        const double before = k * leg * 0.01 * value(shape, "coil_place_percent"), beyond = k * leg - before;
        const double line = 60.0 * (std::log(4.0 * leg / shape.wire.diameter) - 1.0);
        const double reactance = line * (1.0 / std::tan(1.05 * beyond) - std::tan(before));
        const double henry = std::clamp(reactance / (2.0 * pi * length.frequency), 1e-8, 5e-3);
        return {
            {coreText("core", "line formula"), coreText("core", "each arm as an open line of one impedance, no ground"), 0.0, 0.0, henry}};
    }

    AntennaShape hung(const AntennaShape& shape, std::size_t handle, const Hook& hook) const override
    {
        const double leg = value(shape, "leg_m");
        return dipoleHung(*this, shape, handle, hook, {leg, leg});
    }

    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t) const override
    {
        const Result<DipoleGeometry> g = dipoleGeometry(*this, shape);
        if (!g)
            return g.faults();
        BuiltAntenna out = dipoleFrame(*g, shape);
        const double inner = g->leg * 0.01 * value(shape, "coil_place_percent");
        for (double at : {g->leg - inner, g->leg + inner}) {
            Load coil;
            coil.at = at;
            coil.inductance = value(shape, "inductance_H");
            coil.q = value(shape, "coil_q");
            out.model.loads.push_back(coil);
            const Wire& wire = out.model.wires[0];
            out.coils.push_back({wire.pointAt(at), unit(wire.pointAt(at + 0.01) - wire.pointAt(at - 0.01))});
        }
        if (inner > 0.0)
            out.sections.push_back({coreText("core", "inner part"), 2, inner, WireEnd::Centre, WireEnd::Coil, false});
        out.sections.push_back({coreText("core", "outer part"), 2, g->leg - inner, WireEnd::Coil, WireEnd::Insulator});
        return out;
    }
};

} // namespace

const Family& loadedDipoleFamily()
{
    static const LoadedDipole family;
    return family;
}

} // namespace vetchling::shapes
