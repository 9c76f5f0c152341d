/// Dipole shortened by folding a part of each arm back and forth instead of winding it up.
#include "core/shapes/dipole_geometry.h"

#include <algorithm>
#include <cmath>

namespace vetchling::shapes {
namespace {

class LinearLoadedDipole final : public ArmDipole {
public:
    std::string id() const override { return "linear-loaded-dipole"; }
    std::string title() const override { return coreText("core", "Linear-loaded dipole"); }
    std::string summary() const override
    {
        return coreText("core", "Shorter than half a wave without a coil: in each arm a pair of wires runs back and forth.");
    }

    std::vector<ParameterSpec> parameters(const AntennaShape& shape) const override
    {
        std::vector<ParameterSpec> all = dipoleParameters(8.0, 8.0, 0.17);
        addArmSpecs(all, kind(), shape);
        return all;
    }
    void settle(AntennaShape& shape) const override { settleArm(kind(), shape); }

    std::vector<TunedLength> tuned(const AntennaShape& shape) const override
    {
        return {{"loading_m", coreText("core", "of each fold"), shape.designFrequency}};
    }

    /// The fold as a shorted line of Z0 = 120 acosh(D/d) (Terman 1943, sec. 3), whose reactance is that of the missing coil.
    std::vector<RuleOfThumb> rules(const AntennaShape& shape, const TunedLength& length) const override
    {
        const double leg = value(shape, "leg_m"), own = value(shape, "loading_wire_m");
        const double thick = own > 0.0                               ? own
                             : value(shape, "tube_diameter_m") > 0.0 ? value(shape, "tube_diameter_m")
                                                                     : shape.wire.diameter;
        const double wanted = loadingReactance({leg, value(shape, "loading_at_m"), thick}, length.frequency);
        const double line = 120.0 * std::acosh(std::max(1.5, value(shape, "loading_spacing_m") / thick));
        const double fold = std::atan2(std::max(wanted, 0.0), line) / waveNumber(length.frequency);
        return {{coreText("core", "shorted line"),
                 coreText("core", "the pair's reactance in place of a coil; its own radiation not counted"), 0.0, 0.0,
                 std::max(0.01, std::min(fold, 0.95 * (leg - value(shape, "loading_at_m"))))}};
    }

    std::vector<Trade> trades() const override
    {
        return {{"leg_m", "loading_m"}, {"loading_at_m", "loading_m"}, {"loading_spacing_m", "loading_m"}};
    }

protected:
    const ArmKind& kind() const override
    {
        static const ArmKind kind = [] {
            ArmKind k;
            k.inWaves = 0.17;
            k.fold = Has::Always;
            k.whole = coreText("core", "leg with its fold");
            return k;
        }();
        return kind;
    }
};

} // namespace

const Family& linearLoadedDipoleFamily()
{
    static const LinearLoadedDipole family;
    return family;
}

} // namespace vetchling::shapes
