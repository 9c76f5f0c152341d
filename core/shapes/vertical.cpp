/// Quarter-wave vertical over radials: elevated, sloping, or lying just above the soil.
#include "core/shapes/stand.h"

namespace vetchling::shapes {
namespace {

class Vertical final : public ArmVertical {
public:
    std::string id() const override { return "vertical"; }
    std::string title() const override { return coreText("core", "Vertical with radials"); }
    std::string summary() const override
    {
        return coreText("core", "A quarter wave standing on radials, elevated or just above the soil.");
    }

    std::vector<ParameterSpec> parameters(const AntennaShape& shape) const override
    {
        std::vector<ParameterSpec> all = standParameters();
        all.insert(all.begin() + 2, tunedLengthSpec("radiator_m", coreText("core", "Length of radiator")));
        addArmSpecs(all, kind(), shape);
        addVehicleSpecs(all, shape);
        return all;
    }

    std::vector<TunedLength> tuned(const AntennaShape& shape) const override
    {
        return {{"radiator_m", coreText("core", "of radiator"), shape.designFrequency}};
    }
    std::vector<RuleOfThumb> rules(const AntennaShape&, const TunedLength& length) const override
    {
        return quarterWaveRules(length.frequency);
    }

protected:
    const ArmKind& kind() const override
    {
        static const ArmKind kind = [] {
            ArmKind k = uprightArm();
            k.fold = Has::Choice;
            return k;
        }();
        return kind;
    }
};

} // namespace

const Family& verticalFamily()
{
    static const Vertical family;
    return family;
}

} // namespace vetchling::shapes
