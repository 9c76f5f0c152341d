/// Rigid dipole of tubes that fit into one another, thinner towards the tips, on a centre piece.
#include "core/shapes/dipole_geometry.h"

#include <algorithm>

namespace vetchling::shapes {
namespace {

constexpr int fewestTubes = 2, mostTubes = 6;
constexpr double sectionInWaves = 0.06;

class TubeDipole final : public StiffDipoleFamily {
public:
    std::string id() const override { return "tube-dipole"; }
    std::string title() const override { return coreText("core", "Dipole of stepped tubes"); }
    std::string summary() const override
    {
        return coreText("core", "Tubes that fit into one another, thinner towards the tips; the tips slide to tune it.");
    }

    std::string layout(const AntennaShape& shape) const override { return std::to_string(countOf(shape, "tube_count", fewestTubes, mostTubes)); }

    std::vector<ParameterSpec> parameters(const AntennaShape& shape) const override
    {
        std::vector<ParameterSpec> all = dipoleParameters(8.0, 8.0);
        all.push_back(numberSpec("tube_count", coreText("core", "Tubes a side"), lengthGroup, {3.0, double(fewestTubes), double(mostTubes)}));
        for (int tube = 1; tube < countOf(shape, "tube_count", fewestTubes, mostTubes); ++tube)
            all.push_back(lengthSpec(tubeKey(tube), labels[std::size_t(tube - 1)], lengthGroup, {2.0, 0.01, 100.0},
                                     coreText("core", "of it in sight, from the one before to the next"), sectionInWaves));
        all.push_back(sizeSpec("tube_diameter_m", coreText("core", "Diameter of the innermost"), lengthGroup, {0.025, 0.0001, 0.3}));
        all.push_back(sizeSpec("tube_step_m", coreText("core", "Each next one thinner by"), lengthGroup, {0.003, 0.0, 0.05}));
        all.push_back(lengthSpec("lead_m", coreText("core", "Across the centre piece"), feedGroup, {0.06, 0.002, 2.0},
                                 coreText("core", "leads from one inner end to the other; part of the antenna"), 0.003));
        return all;
    }

    /// On the highest bands thinner tubes.
    void settle(AntennaShape& shape) const override
    {
        const double thickest = 0.0035 * wavelength(shape.designFrequency);
        double &inner = shape.parameters["tube_diameter_m"], &step = shape.parameters["tube_step_m"];
        if (inner > thickest)
            step *= thickest / inner, inner = thickest;
        double& lead = shape.parameters["lead_m"];
        lead = std::max({lead, 2.0 * inner, 5.0 * shape.wire.diameter});
    }

    std::vector<TunedLength> tuned(const AntennaShape& shape) const override
    {
        return {{"leg_m", coreText("core", "a side, tip to centre"), shape.designFrequency}};
    }
    std::vector<RuleOfThumb> rules(const AntennaShape&, const TunedLength& length) const override
    {
        return halfWaveRules(length.frequency);
    }
    std::vector<Lever> levers(const AntennaShape&) const override
    {
        return {{"leg_m", coreText("core", "each tip"), LeverKind::Slide, LeverSide::OpenEnd, 2}};
    }
    std::vector<Part> parts() const override { return {{"tubes", coreText("core", "Tubes")}, {"leads", coreText("core", "Leads")}}; }

    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t) const override
    {
        const Result<DipoleGeometry> g = dipoleGeometry(*this, shape);
        if (!g)
            return g.faults();
        const int count = countOf(shape, "tube_count", fewestTubes, mostTubes);
        const double half = 0.5 * value(shape, "lead_m"), inner = value(shape, "tube_diameter_m"), step = value(shape, "tube_step_m");
        if (inner - (count - 1) * step < 1e-4)
            return Fault{"tube_step_m",
                         coreText("core", "the tip would be thinner than a tenth of a millimetre; take a smaller step or fewer tubes")};
        std::vector<double> joints{half};
        for (int tube = 1; tube < count; ++tube)
            joints.push_back(joints.back() + value(shape, tubeKey(tube)));
        if (joints.back() >= 0.99 * g->leg)
            return Fault{"leg_m",
                         {coreText("core", "the inner tubes alone reach %1; a side must be longer, or they shorter"),
                          Measure{joints.back(), units::Quantity::Length}}};
        joints.push_back(g->leg);
        return assemble(shape, *g, joints, inner, step);
    }

private:
    static constexpr const char* labels[] = {coreText("core", "First tube"), coreText("core", "Second tube"),
                                             coreText("core", "Third tube"), coreText("core", "Fourth tube"),
                                             coreText("core", "Fifth tube")};
    static std::string tubeKey(int tube) { return "tube_" + std::to_string(tube) + "_m"; }

    static BuiltAntenna assemble(const AntennaShape& shape, const DipoleGeometry& g, const std::vector<double>& joints, double inner,
                                 double step)
    {
        BuiltAntenna out = dipoleFrame(g, shape);
        const double half = joints.front();
        out.model.wires = {makeWire(wireOf(shape, "leads"), "leads", {g.alongLeg(0, half), g.centre, g.alongLeg(1, half)})};
        out.model.feeds = {{0, half, 1.0}};
        out.sections = {{coreText("core", "leads"), 2, half, WireEnd::Joint, WireEnd::Joint, false}};
        for (std::size_t tube = 0; tube + 1 < joints.size(); ++tube) {
            shapes::WireChoice choice = wireOf(shape, "tubes");
            choice.diameter = inner - double(tube) * step;
            for (int side : {0, 1})
                out.model.wires.push_back(makeWire(choice, "tube " + std::to_string(tube + 1) + (side == 0 ? "a" : "b"),
                                                   {g.alongLeg(side, joints[tube]), g.alongLeg(side, joints[tube + 1])}));
            const bool tip = tube + 2 == joints.size();
            out.sections.push_back(
                {tip ? coreText("core", "tip") : labels[tube], 2, joints[tube + 1] - joints[tube], WireEnd::Tube, WireEnd::Tube, tip});
            if (!tip)
                out.dimensions.push_back({g.alongLeg(1, joints[tube]), g.alongLeg(1, joints[tube + 1]), tubeKey(int(tube) + 1)});
        }
        out.insulators.clear();
        return out;
    }
};

} // namespace

const Family& tubeDipoleFamily()
{
    static const TubeDipole family;
    return family;
}

} // namespace vetchling::shapes
