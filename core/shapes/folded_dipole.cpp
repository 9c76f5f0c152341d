/// Two half-waves side by side, joined at their ends and one of them fed: four times the resistance, and broader.
#include "core/shapes/dipole_geometry.h"

#include <algorithm>

namespace vetchling::shapes {
namespace {

class FoldedDipole final : public DipoleFamily {
public:
    std::string id() const override { return "folded-dipole"; }
    std::string title() const override { return coreText("core", "Folded dipole"); }
    std::string summary() const override
    {
        return coreText("core",
                        "Two half-waves side by side, joined at the ends, one fed in its middle: some 280 ohm, broader than one wire.");
    }

    std::vector<ParameterSpec> parameters(const AntennaShape&) const override
    {
        using units::Quantity;
        std::vector<ParameterSpec> all = dipoleParameters(10.0, 10.0);
        all.push_back({"spacing_m",
                       coreText("core", "Between the two wires"),
                       lengthGroup,
                       Quantity::Length,
                       0.1,
                       0.004,
                       5.0,
                       {},
                       coreText("core", "the second wire runs below the fed one"),
                       0.004});
        all.push_back(transformerRatio(4.0));
        return all;
    }

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
        return {{"leg_m", coreText("core", "each side, both wires"), LeverKind::Cut, LeverSide::OpenEnd, 2}};
    }

    /// Wires too near each other for their thickness would be one.
    void settle(AntennaShape& shape) const override
    {
        constexpr double apart = 6.0; // diameters
        shape.parameters["spacing_m"] = std::max(shape.parameters["spacing_m"], apart * shape.wire.diameter);
    }

    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t) const override
    {
        const Result<DipoleGeometry> g = dipoleGeometry(*this, shape);
        if (!g)
            return g.faults();
        const double spacing = value(shape, "spacing_m");
        constexpr double touching = 1.5; // diameters with their jackets
        if (spacing < touching * (shape.wire.diameter + 2.0 * shape.wire.jacket))
            return Fault{"spacing_m", coreText("core", "the two wires would touch; space them wider")};
        const Vec3 below{0.0, 0.0, -spacing};
        BuiltAntenna out = dipoleFrame(*g, shape);
        out.model.wires = {
            makeWire(shape.wire, "loop", {g->endA, g->centre, g->endB, g->endB + below, g->centre + below, g->endA + below, g->endA})};
        out.transformer = transformer(value(shape, "transformer_ratio"));
        constexpr double usualImpedance = 280.0; // ohm
        out.portReference = usualImpedance;
        out.sections = {{coreText("core", "wire, there and back"), 1, out.model.totalLength(), WireEnd::Centre, WireEnd::Centre}};
        return out;
    }
};

} // namespace

const Family& foldedDipoleFamily()
{
    static const FoldedDipole family;
    return family;
}

} // namespace vetchling::shapes
