/// Vertical shorter than a quarter wave: a coil at its base, its middle or its top, a hat, or both.
#include "core/shapes/hat.h"
#include "core/shapes/loading.h"
#include "core/shapes/stand.h"

#include <algorithm>

namespace vetchling::shapes {
namespace {

class LoadedVertical final : public ArmVertical {
public:
    std::string id() const override { return "loaded-vertical"; }
    std::string title() const override { return coreText("core", "Loaded vertical"); }
    std::string summary() const override
    {
        return coreText("core", "Too short for its band, made resonant by a coil at base, middle or top, with a hat if wanted.");
    }

    std::vector<ParameterSpec> parameters(const AntennaShape& shape) const override
    {
        std::vector<ParameterSpec> all = standParameters();
        all.insert(all.begin() + 2,
                   lengthSpec("radiator_m", coreText("core", "Length of radiator"), lengthGroup, {5.0, 0.02, 2000.0}, {}, 0.12));
        addArmSpecs(all, kind(), shape);
        addHat(all, 0.0, 0.02);
        addVehicleSpecs(all, shape);
        return all;
    }
    void settle(AntennaShape& shape) const override { settleArm(kind(), shape); }

    std::vector<TunedLength> tuned(const AntennaShape& shape) const override
    {
        return {{"inductance_H", coreText("core", "in the coil"), shape.designFrequency}};
    }
    std::vector<RuleOfThumb> rules(const AntennaShape& shape, const TunedLength& length) const override
    {
        const double hat = hatReach(value(shape, "hat_m"), value(shape, "hat_count"));
        return {coilRule(lineOf(*this, kind(), shape, hat), length.frequency)};
    }
    std::vector<Part> parts() const override
    {
        std::vector<Part> all = standParts();
        all.push_back({"spokes", coreText("core", "Spokes")});
        return all;
    }

    std::vector<Trade> trades() const override { return {{"radiator_m", "inductance_H"}, {"coil_place_percent", "inductance_H"}}; }

protected:
    const ArmKind& kind() const override
    {
        static const ArmKind kind = [] {
            ArmKind k = uprightArm();
            k.inWaves = 0.12;
            k.coil = Has::Always;
            k.fold = Has::Choice;
            return k;
        }();
        return kind;
    }

    void addMore(const AntennaShape& shape, BuiltAntenna& out) const override
    {
        if (value(shape, "hat_count") < 0.5)
            return;
        const auto arm = std::find_if(out.sections.begin(), out.sections.end(), [](const WireSection& s) { return s.trimmed; });
        if (arm != out.sections.end() && arm->last == WireEnd::Insulator)
            arm->last = WireEnd::Joint;
        const Vec3 base = baseOf(*this, shape), top = base + Vec3{0.0, 0.0, value(shape, "radiator_m")};
        addHatAt(*this, shape, out, top, {0.0, 0.0, 1.0}, "");
        out.sections.push_back(hatSection(*this, shape, 1));
    }
};

} // namespace

const Family& loadedVerticalFamily()
{
    static const LoadedVertical family;
    return family;
}

} // namespace vetchling::shapes
