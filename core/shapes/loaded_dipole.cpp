/// Dipole shorter than half a wave with a coil in each arm.
#include "core/shapes/dipole_geometry.h"

#include <algorithm>
#include <cmath>

namespace vetchling::shapes {
namespace {

class LoadedDipole final : public Family {
public:
    std::string id() const override { return "loaded-dipole"; }
    std::string title() const override { return "Loaded dipole"; }
    std::string summary() const override { return "A dipole too short for its band, made resonant by a coil in each arm."; }
    std::string tunedParameter() const override { return "inductance_H"; }
    std::string tunedName() const override { return "in each coil"; }

    std::vector<ParameterSpec> parameters() const override
    {
        using units::Quantity;
        std::vector<ParameterSpec> all = dipoleParameters(5.0, 8.0, 8.0);
        all.push_back({"inductance_H", "Coil in each arm", "Coils", Quantity::Inductance, 8e-6, 0.0, 5e-3, {}, {}});
        all.push_back({"coil_place_percent",
                       "Coil out along the arm",
                       "Coils",
                       Quantity::Percent,
                       50.0,
                       0.0,
                       95.0,
                       {},
                       "0 is at the feedpoint, 100 at the end"});
        all.push_back({"coil_q",
                       "Q of the coil",
                       "Coils",
                       Quantity::Plain,
                       250.0,
                       1.0,
                       2000.0,
                       {},
                       "reactance over loss resistance; good air coils reach 200 to 400"});
        return all;
    }

    /// The arm as a line of Za = 60 (ln(2h/a) - 1): X = Za (cot beyond - tan before) (Belrose 1953, in the form of the
    /// open-ended line); rule for a first coil, not a length.
    std::vector<RuleOfThumb> rules(const AntennaShape& shape, double frequency) const override
    {
        const double leg = value(shape, "leg_m"), k = waveNumber(frequency);
        const double before = k * leg * 0.01 * value(shape, "coil_place_percent"), beyond = k * leg - before;
        const double line = 60.0 * (std::log(4.0 * leg / shape.wire.diameter) - 1.0);
        const double reactance = line * (1.0 / std::tan(1.05 * beyond) - std::tan(before));
        const double henry = std::clamp(reactance / (2.0 * pi * frequency), 1e-8, 5e-3);
        return {{"line formula", "each arm as an open line of one impedance, no ground", 0.0, 0.0, henry}};
    }

    Result<BuiltAntenna> build(const AntennaShape& shape) const override
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
            out.coils.push_back(out.model.wires[0].pointAt(at));
        }
        if (inner > 0.0)
            out.sections.push_back({"inner part", 2, inner, WireEnd::Centre, WireEnd::Coil});
        out.sections.push_back({"outer part", 2, g->leg - inner, WireEnd::Coil, WireEnd::Insulator});
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
