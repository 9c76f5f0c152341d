/// Dipole shortened by capacity hats: spokes across the wire at each end.
#include "core/shapes/dipole_geometry.h"
#include "core/shapes/hat.h"

#include <algorithm>

namespace vetchling::shapes {
namespace {

class HatDipole final : public DipoleFamily {
public:
    std::string id() const override { return "hat-dipole"; }
    std::string title() const override { return coreText("core", "Dipole with end hats"); }
    std::string summary() const override
    {
        return coreText("core", "Shorter than half a wave without a coil: spokes at each end take the place of the missing wire.");
    }

    std::vector<ParameterSpec> parameters(const AntennaShape&) const override
    {
        std::vector<ParameterSpec> all = dipoleParameters(8.0, 8.0);
        addHat(all, 4.0, 0.05);
        return all;
    }

    /// Spokes that reach the ground would stand on it.
    void settle(AntennaShape& shape) const override
    {
        constexpr double most = 0.6; // of the height
        shape.parameters["hat_m"] = std::min(shape.parameters["hat_m"], most * shape.parameters["end_height_m"]);
        shape.parameters["leg_m"] = rules(shape, tuned(shape).front()).front().value;
    }

    std::vector<TunedLength> tuned(const AntennaShape& shape) const override
    {
        return {{"leg_m", coreText("core", "a side"), shape.designFrequency}};
    }
    /// The hat counts as so many of its spokes' lengths.
    std::vector<RuleOfThumb> rules(const AntennaShape& shape, const TunedLength& length) const override
    {
        const double side = halfWaveRules(length.frequency).front().value;
        return {{coreText("core", "less the hat"), coreText("core", "a hat is worth 0.7 of a spoke, and another 0.3 for each of them"), 0.0,
                 0.0, std::max(0.3 * side, side - hatReach(value(shape, "hat_m"), value(shape, "hat_count")))}};
    }
    std::vector<Lever> levers(const AntennaShape&) const override
    {
        return {{"hat_m", coreText("core", "each spoke"), LeverKind::Cut, LeverSide::OpenEnd, 8},
                {"leg_m", coreText("core", "each side"), LeverKind::Cut, LeverSide::Middle, 2}};
    }
    std::vector<Part> parts() const override { return {{"legs", coreText("core", "Legs")}, {"spokes", coreText("core", "Spokes")}}; }

    std::vector<Trade> trades() const override { return {{"hat_m", "leg_m"}}; }
    AntennaShape hung(const AntennaShape& shape, std::size_t handle, const Hook& hook) const override
    {
        // a spoke takes the whole along. NOLINTNEXTLINE(bugprone-parent-virtual-call)
        return handle > 2 ? Family::hung(shape, handle, hook) : DipoleFamily::hung(shape, handle, hook);
    }

    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t) const override
    {
        const Result<DipoleGeometry> g = dipoleGeometry(*this, shape);
        if (!g)
            return g.faults();
        BuiltAntenna out = dipoleFrame(*g, shape);
        out.model.wires[0] = makeWire(wireOf(shape, "legs"), "legs", {g->endA, g->centre, g->endB});
        out.sections = {{coreText("core", "leg"), 2, g->leg, WireEnd::Centre, WireEnd::Joint}};
        out.insulators.clear();
        for (Vec3 end : {g->endA, g->endB})
            addHatAt(*this, shape, out, end, unit(end - g->centre), end.x == g->endA.x && end.y == g->endA.y ? "a" : "b");
        out.sections.push_back(hatSection(*this, shape, 2));
        return out;
    }
};

} // namespace

const Family& hatDipoleFamily()
{
    static const HatDipole family;
    return family;
}

} // namespace vetchling::shapes
