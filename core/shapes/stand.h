#pragma once
/// What a vertical stands on: its base and the radials under it.

#include "core/shapes/arm.h"
#include "core/shapes/vehicle.h"

namespace vetchling::shapes {

/// Base and radial ends, length, number, anchors and depth of radials, a ground rod, and the place; a family adds its own.
/// @param base m above ground, of the feed @param count of radials
std::vector<ParameterSpec> standParameters(double base = 2.0, double count = 4.0);
Vec3 baseOf(const Family& family, const AntennaShape& shape);
/// A wire from the base up, fed at its foot: wire 0, to be followed by the radials.
BuiltAntenna standing(Wire radiator, Vec3 base);
/// Adds the radials, and a ground rod if there is one, joined at the base or dug in under it, with the first one's handle, dimension and
/// section, and the vehicle's body. Faults: radials that cannot lie so.
Faults addRadials(const Family& family, const AntennaShape& shape, BuiltAntenna& out);
/// One radial from the base: straight to its end's height, or down to an anchor just above the soil and then along it.
/// @param anchor m from the foot; 0: none @param endHeight m, without an anchor
Result<std::vector<Vec3>> radialPath(Vec3 base, double length, double bearing, double endHeight, double anchor);
/// The customary rules of a quarter wave.
std::vector<RuleOfThumb> quarterWaveRules(double frequency);
/// Cutting the radiator's end, and the radials' slope.
std::vector<Lever> standLevers(const std::string& radiator);
std::vector<Part> standParts();

/// "radiator_m", of the part "radiator", without coil or fold.
ArmKind uprightArm();

/// One arm upright on its base, over radials, a rod or a vehicle.
class ArmVertical : public Family {
public:
    std::string layout(const AntennaShape& shape) const override { return armLayout(kind(), shape) + vehicleLayout(shape); }
    AntennaShape levered(const AntennaShape& shape, const std::string& key, double value) const override
    {
        return armLevered(*this, kind(), shape, key, value);
    }
    std::vector<Lever> levers(const AntennaShape& shape) const override;
    std::vector<Part> parts() const override { return standParts(); }
    std::optional<std::size_t> hangsBy(const AntennaShape&) const override { return std::nullopt; }
    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t) const override;

protected:
    [[nodiscard]] virtual const ArmKind& kind() const = 0;
    /// What sits on the tip or at the foot.
    virtual void addMore(const AntennaShape&, BuiltAntenna&) const {}
};

} // namespace vetchling::shapes
