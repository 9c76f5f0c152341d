/// Thick rods on their leads, as on VHF, where gap, leads and the bracket count by percent.
#include "core/shapes/dipole_geometry.h"

#include <algorithm>

namespace vetchling::shapes {
namespace {

constexpr double stripAsWire = 0.25; // a strip acts like a wire whose radius is a quarter of its width

class RodDipole final : public StiffDipoleFamily {
public:
    std::string id() const override { return "rod-dipole"; }
    std::string title() const override { return coreText("core", "Dipole of thick rods"); }
    std::string summary() const override
    {
        return coreText("core", "Two rods with the gap, the leads and the bracket between them in the model, as it takes on VHF.");
    }

    std::vector<ParameterSpec> parameters(const AntennaShape&) const override
    {
        std::vector<ParameterSpec> all = dipoleParameters(6.0, 6.0);
        for (ParameterSpec& s : all)
            if (s.key == "leg_m")
                s.help = coreText("core", "from the middle of the gap to the tip");
        all.push_back(sizeSpec("rod_diameter_m", coreText("core", "Diameter of the rods"), lengthGroup, {0.01, 0.001, 0.3},
                               coreText("core", "a square tube of side s counts as a round one of 1.18 s, a flat strip of width w as w/2"),
                               0.005));
        all.push_back(lengthSpec("gap_m", coreText("core", "Gap between the rods"), feedGroup, {0.02, 0.002, 2.0}, {}, 0.012));
        all.push_back(lengthSpec("lead_m", coreText("core", "Leads down to the connector"), feedGroup, {0.03, 0.002, 3.0},
                                 coreText("core", "each; part of the antenna"), 0.016));
        all.push_back(lengthSpec("bracket_m", coreText("core", "Length of the bracket"), standsGroup, {0.1, 0.0, 10.0},
                                 coreText("core", "a metal strip under the rods, insulated from them; 0 for none"), 0.06));
        all.push_back(sizeSpec("bracket_width_m", coreText("core", "Width of the strip"), standsGroup, {0.03, 0.001, 0.5},
                               coreText("core", "acts like a wire of radius a quarter of it"), 0.01));
        all.push_back(
            lengthSpec("bracket_below_m", coreText("core", "Bracket below the rods"), standsGroup, {0.06, 0.005, 5.0}, {}, 0.035));
        return all;
    }

    /// On HF a rod is a tube that can still be lifted.
    void settle(AntennaShape& shape) const override
    {
        constexpr double thickest = 0.025; // m
        shape.parameters["rod_diameter_m"] = std::min(shape.parameters["rod_diameter_m"], thickest);
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
        return {{"leg_m", coreText("core", "each rod"), LeverKind::Cut, LeverSide::OpenEnd, 2}};
    }
    std::vector<Part> parts() const override { return {{"rods", coreText("core", "Rods")}, {"leads", coreText("core", "Leads")}}; }

    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t) const override
    {
        const Result<DipoleGeometry> g = dipoleGeometry(*this, shape);
        if (!g)
            return g.faults();
        const double half = 0.5 * value(shape, "gap_m"), lead = value(shape, "lead_m"), bracket = value(shape, "bracket_m");
        const double below = value(shape, "bracket_below_m");
        if (half >= 0.5 * g->leg)
            return Fault{"gap_m",
                         {coreText("core", "a side is only %1 long; make the gap smaller"), Measure{g->leg, units::Quantity::Length}}};
        if (bracket > 0.0 && below < 1.2 * lead)
            return Fault{"bracket_below_m",
                         {coreText("core", "the leads end %1 below the rods; put the bracket lower than that"),
                          Measure{lead, units::Quantity::Length}}};
        return assemble(shape, *g, half, lead, bracket, below);
    }

private:
    BuiltAntenna assemble(const AntennaShape& shape, const DipoleGeometry& g, double half, double lead, double bracket, double below) const
    {
        const Vec3 down{0.0, 0.0, -1.0}, a = g.alongLeg(0, half), b = g.alongLeg(1, half);
        const Vec3 footA = a + lead * down, footB = b + lead * down, along = unit(b - a);
        BuiltAntenna out = dipoleFrame(g, shape);
        out.model.wires = {makeWire(wireOf(shape, "leads"), "leads", {a, footA, footB, b})};
        out.model.feeds = {{0, lead + 0.5 * distance(footA, footB), 1.0}};
        out.feedPoint = 0.5 * (footA + footB);
        WireChoice rod = wireOf(shape, "rods");
        rod.diameter = value(shape, "rod_diameter_m");
        out.model.wires.push_back(makeWire(rod, "first rod", {a, g.endA}));
        out.model.wires.push_back(makeWire(rod, "second rod", {b, g.endB}));
        out.sections = {{coreText("core", "leads"), 1, out.model.wires[0].length(), WireEnd::Joint, WireEnd::Joint, false},
                        {coreText("core", "rod"), 2, g.leg - half, WireEnd::Tube, WireEnd::Tube}};
        if (bracket > 0.0) {
            WireChoice strip = wireOf(shape, "rods");
            strip.diameter = 2.0 * stripAsWire * value(shape, "bracket_width_m");
            const Vec3 middle = g.centre + below * down;
            out.model.wires.push_back(makeWire(strip, "bracket", {middle - 0.5 * bracket * along, middle + 0.5 * bracket * along}));
            out.sections.push_back({coreText("core", "bracket"), 1, bracket, WireEnd::Tube, WireEnd::Tube, false});
        }
        out.insulators.clear();
        return out;
    }
};

} // namespace

const Family& rodDipoleFamily()
{
    static const RodDipole family;
    return family;
}

} // namespace vetchling::shapes
