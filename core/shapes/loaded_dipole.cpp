/// Dipole shorter than half a wave with a coil in each arm.
#include "core/shapes/dipole_geometry.h"
#include "core/shapes/loading.h"

namespace vetchling::shapes {
namespace {

class LoadedDipole final : public DipoleFamily {
public:
    std::string id() const override { return "loaded-dipole"; }
    std::string title() const override { return coreText("core", "Loaded dipole"); }
    std::string summary() const override
    {
        return coreText("core", "A dipole too short for its band, made resonant by a coil in each arm.");
    }

    std::vector<ParameterSpec> parameters(const AntennaShape&) const override
    {
        std::vector<ParameterSpec> all = dipoleParameters(8.0, 8.0, 0.12);
        all.push_back(inductanceSpec("inductance_H", coreText("core", "Coil in each arm"), coilsGroup, {8e-6, 0.0, 5e-3}));
        all.push_back(percentSpec("coil_place_percent", coreText("core", "Coil out along the arm"), coilsGroup, {50.0, 0.0, 95.0},
                                  coreText("core", "0 is at the feedpoint, 100 at the end")));
        addCoilSpecs(all);
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

    std::vector<RuleOfThumb> rules(const AntennaShape& shape, const TunedLength& length) const override
    {
        const double leg = value(shape, "leg_m");
        return {coilRule({leg, leg * 0.01 * value(shape, "coil_place_percent"), shape.wire.diameter}, length.frequency)};
    }

    std::vector<Trade> trades() const override { return {{"leg_m", "inductance_H"}, {"coil_place_percent", "inductance_H"}}; }
    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t) const override
    {
        const Result<DipoleGeometry> g = dipoleGeometry(*this, shape);
        if (!g)
            return g.faults();
        BuiltAntenna out = dipoleFrame(*g, shape);
        const double inner = g->leg * 0.01 * value(shape, "coil_place_percent");
        const CoilSize size = coilSizeOf(*this, shape);
        if (Faults faults = findSizeFaults(size, inner, g->leg - inner, shape.wire.diameter); !faults.empty())
            return faults;
        for (double at : {g->leg - inner, g->leg + inner})
            addSeriesCoil(out, 0, at, value(shape, "inductance_H"), value(shape, "coil_q"), size);
        if (inner > 0.0)
            out.handles.push_back({coreText("core", "coil"), g->alongLeg(0, inner), {"coil_place_percent"}});
        if (inner > 0.0)
            out.sections.push_back({coreText("core", "inner part"), 2, inner - 0.5 * size.length, WireEnd::Centre, WireEnd::Coil, false});
        out.sections.push_back({coreText("core", "outer part"), 2, g->leg - inner - 0.5 * size.length, WireEnd::Coil, WireEnd::Insulator});
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
