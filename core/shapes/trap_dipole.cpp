/// Dipole with a trap in each arm: it ends the wire on the upper band and lengthens it on the lower.
#include "core/shapes/dipole_geometry.h"
#include "core/shapes/loading.h"

namespace vetchling::shapes {
namespace {

constexpr double trapBand = 0.5;      // of the design frequency
constexpr double wholeInWaves = 0.42; // a side at the design frequency's wavelength: the traps' coils shorten the lower band's wire

class TrapDipole final : public DipoleFamily {
public:
    std::string id() const override { return "trap-dipole"; }
    std::string title() const override { return coreText("core", "Trap dipole"); }
    std::string summary() const override
    {
        return coreText("core", "Half a wave on two bands at once: a trap in each arm ends the wire on the upper one.");
    }

    std::vector<ParameterSpec> parameters(const AntennaShape&) const override
    {
        std::vector<ParameterSpec> all = dipoleParameters(10.0, 9.0);
        for (ParameterSpec& s : all)
            if (s.key == "leg_m")
                s.label = coreText("core", "Centre to trap, a side");
        all.push_back(frequencySpec("frequency_2_Hz", coreText("core", "Lower band"), lengthGroup, trapBand));
        all.push_back(
            lengthSpec("whole_m", coreText("core", "Centre to end, a side"), lengthGroup, {16.0, 0.02, 2000.0}, {}, wholeInWaves));
        all.push_back(frequencySpec("trap_Hz", coreText("core", "Traps resonant at"), coilsGroup, 0.985,
                                    coreText("core", "a little below the upper band they lose less")));
        all.push_back(inductanceSpec("trap_inductance_H", coreText("core", "Coil of a trap"), coilsGroup, {6e-6, 1e-9, 1e-3}));
        addCoilSpecs(all);
        return all;
    }

    /// Traps of some 270 ohm: larger ones shorten the outer part more, smaller ones let more of the upper band through.
    void settle(AntennaShape& shape) const override
    {
        constexpr double reactance = 270.0; // ohm
        shape.parameters["trap_inductance_H"] = reactance / (2.0 * pi * shape.designFrequency);
        raiseEnds(shape, value(shape, "whole_m"));
    }

    std::vector<TunedLength> tuned(const AntennaShape& shape) const override
    {
        return {{"leg_m", coreText("core", "a side up to the trap"), shape.designFrequency},
                {"whole_m", coreText("core", "a side, the whole"), value(shape, "frequency_2_Hz")}};
    }
    std::vector<RuleOfThumb> rules(const AntennaShape& shape, const TunedLength& length) const override
    {
        if (length.parameter == "leg_m")
            return halfWaveRules(length.frequency);
        return {{coreText("core", "a part of the wave"), coreText("core", "traps of some 270 ohm; the bands an octave apart"), 0.0, 0.0,
                 wholeInWaves * wavelength(shape.designFrequency)}};
    }
    std::vector<Lever> levers(const AntennaShape&) const override
    {
        return {{"leg_m", coreText("core", "each side at its trap"), LeverKind::Cut, LeverSide::Middle, 2},
                {"whole_m", coreText("core", "each end"), LeverKind::Cut, LeverSide::OpenEnd, 2}};
    }

    /// What is taken at the trap takes the part beyond along.
    AntennaShape levered(const AntennaShape& shape, const std::string& key, double to) const override
    {
        AntennaShape next = DipoleFamily::levered(shape, key, to);
        if (key == "leg_m")
            next.parameters["whole_m"] = value(shape, "whole_m") + to - value(shape, "leg_m");
        return next;
    }

    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t) const override
    {
        const double inner = value(shape, "leg_m"), whole = value(shape, "whole_m");
        if (inner >= 0.98 * whole)
            return Fault{
                "whole_m",
                {coreText("core", "a side is %1 up to its trap; the whole must be longer"), Measure{inner, units::Quantity::Length}}};
        AntennaShape legs = shape;
        legs.parameters["leg_m"] = whole;
        const Result<DipoleGeometry> g = dipoleGeometry(*this, legs);
        if (!g)
            return g.faults();
        const CoilSize size = coilSizeOf(*this, shape);
        if (Faults faults = findSizeFaults(size, inner, whole - inner, shape.wire.diameter); !faults.empty())
            return faults;
        BuiltAntenna out = dipoleFrame(*g, shape);
        for (double at : {whole - inner, whole + inner})
            addTrap(out, 0, at, value(shape, "trap_inductance_H"), value(shape, "trap_Hz"), value(shape, "coil_q"), size);
        out.handles[1].parameters = out.handles[2].parameters = {"end_height_m", "whole_m"};
        out.handles.push_back({coreText("core", "trap"), g->alongLeg(0, inner), {"leg_m"}});
        out.dimensions = {{g->centre, g->alongLeg(0, inner), "leg_m"}, {g->centre, g->endB, "whole_m"}};
        out.sections = {{coreText("core", "inner part"), 2, inner - 0.5 * size.length, WireEnd::Centre, WireEnd::Coil},
                        {coreText("core", "outer part"), 2, whole - inner - 0.5 * size.length, WireEnd::Coil, WireEnd::Insulator}};
        return out;
    }

protected:
    std::array<double, 2> sides(const AntennaShape& shape) const override
    {
        const double whole = value(shape, "whole_m");
        return {whole, whole};
    }
};

} // namespace

const Family& trapDipoleFamily()
{
    static const TrapDipole family;
    return family;
}

} // namespace vetchling::shapes
