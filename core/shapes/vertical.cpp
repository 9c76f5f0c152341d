/// Quarter-wave vertical over radials: elevated, sloping, or lying just above the soil.
#include "core/shapes/stand.h"

namespace vetchling::shapes {
namespace {

class Vertical final : public Family {
public:
    std::string id() const override { return "vertical"; }
    std::string title() const override { return coreText("core", "Vertical with radials"); }
    std::string summary() const override
    {
        return coreText("core", "A quarter wave standing on radials, elevated or just above the soil.");
    }

    std::vector<ParameterSpec> parameters(const AntennaShape&) const override
    {
        std::vector<ParameterSpec> all = standParameters();
        all.insert(all.begin() + 2, tunedLengthSpec("radiator_m", coreText("core", "Length of radiator")));
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
    std::vector<Lever> levers(const AntennaShape&) const override { return standLevers("radiator_m"); }
    std::vector<Part> parts() const override { return standParts(); }
    std::optional<std::size_t> hangsBy(const AntennaShape&) const override { return std::nullopt; }

    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t) const override
    {
        const Vec3 base = baseOf(*this, shape), top = base + Vec3{0.0, 0.0, value(shape, "radiator_m")};
        BuiltAntenna out = standing(makeWire(wireOf(shape, "radiator"), "radiator", {base, top}), base);
        out.sections = {{coreText("core", "radiator"), 1, value(shape, "radiator_m"), WireEnd::Centre, WireEnd::Insulator}};
        if (Faults faults = addRadials(*this, shape, out); !faults.empty())
            return faults;
        out.handles.push_back({coreText("core", "top"), top, {"radiator_m"}});
        out.handles.push_back({coreText("core", "base"), base, {"base_height_m"}});
        out.dimensions.push_back({base, top, "radiator_m"});
        return out;
    }
};

} // namespace

const Family& verticalFamily()
{
    static const Vertical family;
    return family;
}

} // namespace vetchling::shapes
