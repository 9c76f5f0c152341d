/// Rigid dipole of tubes that fit into one another, thinner towards the tips, on a centre piece.
#include "core/shapes/dipole_geometry.h"

#include <algorithm>

namespace vetchling::shapes {
namespace {

class TubeDipole final : public ArmDipole {
public:
    std::string id() const override { return "tube-dipole"; }
    std::string title() const override { return coreText("core", "Dipole of stepped tubes"); }
    std::string summary() const override
    {
        return coreText("core", "Tubes that fit into one another, thinner towards the tips; the tips slide to tune it.");
    }

    std::vector<ParameterSpec> parameters(const AntennaShape& shape) const override
    {
        std::vector<ParameterSpec> all = dipoleParameters(8.0, 8.0);
        addArmSpecs(all, kind(), shape);
        return all;
    }

    /// On the highest bands thinner tubes.
    void settle(AntennaShape& shape) const override
    {
        const double thickest = 0.0035 * wavelength(shape.designFrequency);
        double &inner = shape.parameters["tube_diameter_m"], &step = shape.parameters["tube_step_m"];
        if (inner > thickest)
            step *= thickest / inner, inner = thickest;
        double& lead = shape.parameters["lead_m"];
        lead = std::max({lead, 2.0 * inner, 5.0 * shape.wire.diameter});
        settleArm(kind(), shape);
    }

    std::vector<TunedLength> tuned(const AntennaShape& shape) const override
    {
        return {{"leg_m", coreText("core", "a side, tip to centre"), shape.designFrequency}};
    }
    std::vector<RuleOfThumb> rules(const AntennaShape&, const TunedLength& length) const override
    {
        return halfWaveRules(length.frequency);
    }
    std::vector<Part> parts() const override { return {{"tubes", coreText("core", "Tubes")}, {"leads", coreText("core", "Leads")}}; }

    AntennaShape hung(const AntennaShape& shape, std::size_t handle, const Hook& hook) const override
    {
        return stiffHung(*this, shape, handle, hook);
    }
    std::optional<AntennaShape> between(const AntennaShape&, const Hook&, const Hook&) const override { return std::nullopt; }
    Carrier carrier() const override { return Carrier::Mast; }

protected:
    bool stiff() const override { return true; }
    const ArmKind& kind() const override
    {
        static const ArmKind kind = [] {
            ArmKind k;
            k.part = "tubes";
            k.coil = k.fold = Has::Choice;
            k.henryLabel = coreText("core", "Coil in each arm");
            k.fewestTubes = 2;
            k.usualTubes = 3;
            k.diameter = 0.025;
            k.step = 0.003;
            k.centrePiece = true;
            return k;
        }();
        return kind;
    }
};

} // namespace

const Family& tubeDipoleFamily()
{
    static const TubeDipole family;
    return family;
}

} // namespace vetchling::shapes
