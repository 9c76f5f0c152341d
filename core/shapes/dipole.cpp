/// Half-wave dipole: flat, inverted V or sloping, by the heights of its centre and ends.
#include "core/shapes/dipole_geometry.h"

namespace vetchling::shapes {
namespace {

class Dipole final : public Family {
public:
    std::string id() const override { return "dipole"; }
    std::string title() const override { return "Dipole"; }
    std::string summary() const override { return "Half a wave of wire fed in the middle: flat, inverted V or sloping."; }
    std::string tunedParameter() const override { return "leg_m"; }
    std::string tunedName() const override { return "a side"; }

    std::vector<ParameterSpec> parameters() const override { return dipoleParameters(9.95, 10.0, 10.0); }

    std::vector<RuleOfThumb> rules(const AntennaShape&, double frequency) const override
    {
        return {feetRule("468 / f", "bare wire near half a wave up, 5 % for its ends", 468.0, 0.5, frequency),
                feetRule("485 / f", "a cut-long figure: leaves wire to trim", 485.0, 0.5, frequency),
                feetRule("492 / f", "half a wave in free space, nothing taken off", 492.0, 0.5, frequency)};
    }

    Result<BuiltAntenna> build(const AntennaShape& shape) const override
    {
        const Result<DipoleGeometry> g = dipoleGeometry(*this, shape);
        if (!g)
            return g.faults();
        BuiltAntenna out = dipoleFrame(*g, shape);
        out.sections.push_back({"leg", 2, g->leg, WireEnd::Centre, WireEnd::Insulator});
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
