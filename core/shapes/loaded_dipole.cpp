/// Dipole shorter than half a wave with a coil in each arm.
#include "core/shapes/dipole_geometry.h"

namespace vetchling::shapes {
namespace {

class LoadedDipole final : public ArmDipole {
public:
    std::string id() const override { return "loaded-dipole"; }
    std::string title() const override { return coreText("core", "Loaded dipole"); }
    std::string summary() const override
    {
        return coreText("core", "A dipole too short for its band, made resonant by a coil in each arm.");
    }

    std::vector<ParameterSpec> parameters(const AntennaShape& shape) const override
    {
        std::vector<ParameterSpec> all = dipoleParameters(8.0, 8.0, 0.12);
        addArmSpecs(all, kind(), shape);
        return all;
    }
    void settle(AntennaShape& shape) const override { settleArm(kind(), shape); }

    std::vector<TunedLength> tuned(const AntennaShape& shape) const override
    {
        return {{"inductance_H", coreText("core", "in each coil"), shape.designFrequency}};
    }

    std::vector<RuleOfThumb> rules(const AntennaShape& shape, const TunedLength& length) const override
    {
        return {coilRule(lineOf(*this, kind(), shape), length.frequency)};
    }

    std::vector<Trade> trades() const override { return {{"leg_m", "inductance_H"}, {"coil_place_percent", "inductance_H"}}; }

protected:
    const ArmKind& kind() const override
    {
        static const ArmKind kind = [] {
            ArmKind k;
            k.inWaves = 0.12;
            k.coil = Has::Always;
            k.fold = Has::Choice;
            k.henryLabel = coreText("core", "Coil in each arm");
            k.placeLabel = coreText("core", "Coil out along the arm");
            k.placeHelp = coreText("core", "0 is at the feedpoint, 100 at the end");
            k.whole = coreText("core", "leg");
            k.inner = coreText("core", "inner part");
            k.outer = coreText("core", "outer part");
            return k;
        }();
        return kind;
    }
};

} // namespace

const Family& loadedDipoleFamily()
{
    static const LoadedDipole family;
    return family;
}

} // namespace vetchling::shapes
