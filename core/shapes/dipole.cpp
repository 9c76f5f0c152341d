/// Half-wave dipole: flat, inverted V or sloping, by the heights of its centre and ends.
#include "core/shapes/dipole_geometry.h"

namespace vetchling::shapes {
namespace {

class Dipole final : public DipoleFamily {
public:
    std::string id() const override { return "dipole"; }
    std::string title() const override { return coreText("core", "Dipole"); }
    std::string summary() const override { return coreText("core", "Half a wave of wire fed in the middle: flat, inverted V or sloping."); }

    std::vector<ParameterSpec> parameters(const AntennaShape&) const override { return dipoleParameters(10.0, 10.0); }
    std::vector<TunedLength> tuned(const AntennaShape& shape) const override
    {
        return {{"leg_m", coreText("core", "a side"), shape.designFrequency}};
    }
    std::vector<RuleOfThumb> rules(const AntennaShape&, const TunedLength& length) const override
    {
        return halfWaveRules(length.frequency);
    }
    std::vector<Lever> levers(const AntennaShape&) const override
    {
        return {{"leg_m", coreText("core", "each side"), LeverKind::Cut, LeverSide::OpenEnd, 2},
                {"end_height_m", coreText("core", "the height of the ends"), LeverKind::Slide, LeverSide::OpenEnd, 2}};
    }

    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t) const override
    {
        const Result<DipoleGeometry> g = dipoleGeometry(*this, shape);
        if (!g)
            return g.faults();
        BuiltAntenna out = dipoleFrame(*g, shape);
        out.sections.push_back({coreText("core", "leg"), 2, g->leg, WireEnd::Centre, WireEnd::Insulator});
        return out;
    }
};

} // namespace

const Family& dipoleFamily()
{
    static const Dipole family;
    return family;
}

} // namespace vetchling::shapes
