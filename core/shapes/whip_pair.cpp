/// Dipole of two telescopic whips on a centre mount, set to length for each band.
#include "core/shapes/dipole_geometry.h"
#include "core/shapes/whip.h"

#include <algorithm>

namespace vetchling::shapes {
namespace {

class WhipPair final : public StiffDipoleFamily {
public:
    std::string id() const override { return "whip-pair"; }
    std::string title() const override { return coreText("core", "Pair of telescopic whips"); }
    std::string summary() const override
    {
        return coreText("core", "Two telescopic whips on one mount: pulled out or pushed in to the same length, a dipole for many bands.");
    }

    std::vector<ParameterSpec> parameters(const AntennaShape&) const override
    {
        std::vector<ParameterSpec> all = dipoleParameters(4.0, 4.0);
        for (ParameterSpec& s : all)
            if (s.key == "leg_m")
                s.help = coreText("core", "from the middle of the mount to the tip; the same on both sides");
        addTelescope(all);
        addTipsApart(all, lengthGroup);
        all.push_back(lengthSpec("mount_m", coreText("core", "Inside the mount, a side"), feedGroup, {0.03, 0.0005, 1.0},
                                 coreText("core", "leads and studs; they radiate and count"), 0.002));
        return all;
    }

    /// Leads longer than they are thick.
    void settle(AntennaShape& shape) const override
    {
        settleTelescope(shape, "leg_m");
        shape.parameters["mount_m"] = std::max(shape.parameters["mount_m"], 2.5 * shape.wire.diameter);
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
        return {{"leg_m", coreText("core", "each whip"), LeverKind::Slide, LeverSide::OpenEnd, 2},
                {"opening_deg", coreText("core", "the angle between the whips"), LeverKind::Angle, LeverSide::Feed, 1},
                {"first_tip_m", coreText("core", "the first whip alone"), LeverKind::Slide, LeverSide::OpenEnd, 1},
                {"second_tip_m", coreText("core", "the second whip alone"), LeverKind::Slide, LeverSide::OpenEnd, 1}};
    }
    std::array<double, 2> sides(const AntennaShape& shape) const override
    {
        const double leg = value(shape, "leg_m");
        return {leg + value(shape, "first_tip_m"), leg + value(shape, "second_tip_m")};
    }
    std::vector<Part> parts() const override { return {{"whips", coreText("core", "Whips")}, {"leads", coreText("core", "Leads")}}; }

    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t) const override
    {
        const std::array<double, 2> legs = sides(shape);
        const Result<DipoleGeometry> g = dipoleGeometry(*this, shape, legs);
        if (!g)
            return g.faults();
        const double mount = value(shape, "mount_m");
        if (mount >= 0.5 * std::min(legs[0], legs[1]))
            return Fault{
                "mount_m",
                {coreText("core", "a side is only %1 long; less of it can be in the mount"), Measure{g->leg, units::Quantity::Length}}};
        for (double leg : legs)
            if (Faults faults = telescopeFaults(*this, shape, "leg_m", leg - mount); !faults.empty())
                return faults;
        BuiltAntenna out = dipoleFrame(*g, shape);
        out.model.wires = {makeWire(wireOf(shape, "leads"), "leads", {g->alongLeg(0, mount), g->centre, g->alongLeg(1, mount)})};
        out.model.feeds = {{0, mount, 1.0}};
        for (int side : {0, 1})
            out.model.wires.push_back(taperedWhip(*this, shape, "whips", side == 0 ? "first whip" : "second whip", g->alongLeg(side, mount),
                                                  side == 0 ? g->endA : g->endB));
        out.insulators.clear();
        out.sections = {{coreText("core", "leads in the mount"), 2, mount, WireEnd::Joint, WireEnd::Joint, false}};
        if (legs[0] == legs[1])
            out.sections.push_back({coreText("core", "whip"), 2, legs[0] - mount, WireEnd::Tube, WireEnd::Tube, false});
        else
            out.sections.insert(
                out.sections.end(),
                {{coreText("core", "first whip"), 1, legs[0] - mount, WireEnd::Tube, WireEnd::Tube, false},
                 {coreText("core", "second whip"), 1, legs[1] - mount, WireEnd::Tube, WireEnd::Tube, false}});
        return out;
    }
};

} // namespace

const Family& whipPairFamily()
{
    static const WhipPair family;
    return family;
}

} // namespace vetchling::shapes
