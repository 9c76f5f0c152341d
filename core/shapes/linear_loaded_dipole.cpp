/// Dipole shortened by folding a part of each arm back and forth instead of winding it up.
#include "core/shapes/dipole_geometry.h"
#include "core/shapes/loading.h"

#include <algorithm>
#include <cmath>

namespace vetchling::shapes {
namespace {

enum Fold { inside = 0, alongside = 1 };

class LinearLoadedDipole final : public DipoleFamily {
public:
    std::string id() const override { return "linear-loaded-dipole"; }
    std::string title() const override { return coreText("core", "Linear-loaded dipole"); }
    std::string summary() const override
    {
        return coreText("core", "Shorter than half a wave without a coil: in each arm a pair of wires runs back and forth.");
    }

    std::vector<ParameterSpec> parameters(const AntennaShape&) const override
    {
        std::vector<ParameterSpec> all = dipoleParameters(8.0, 8.0, 0.17);
        all.push_back(lengthSpec("loading_m", coreText("core", "Length of the fold"), coilsGroup, {3.0, 0.01, 500.0},
                                 coreText("core", "of the pair that runs back and forth in each arm")));
        all.push_back(lengthSpec("loading_at_m", coreText("core", "Fold begins at"), coilsGroup, {0.5, 0.005, 500.0},
                                 coreText("core", "out along the arm"), 0.012));
        all.push_back(lengthSpec("loading_spacing_m", coreText("core", "Between its wires"), coilsGroup, {0.1, 0.004, 2.0}, {}, 0.0025));
        all.push_back(choiceSpec("loading_fold", coreText("core", "The pair lies"), coilsGroup,
                                 {coreText("core", "inside the arm"), coreText("core", "below it, as a stub")},
                                 coreText("core", "inside: the arm itself runs out, back and out again")));
        return all;
    }

    void settle(AntennaShape& shape) const override
    {
        constexpr double apart = 6.0; // diameters
        double& spacing = shape.parameters["loading_spacing_m"];
        spacing = std::max(spacing, apart * shape.wire.diameter);
    }

    std::vector<TunedLength> tuned(const AntennaShape& shape) const override
    {
        return {{"loading_m", coreText("core", "of each fold"), shape.designFrequency}};
    }

    /// The fold as a shorted line of Z0 = 120 acosh(D/d) (Terman 1943, sec. 3), whose reactance is that of the missing coil.
    std::vector<RuleOfThumb> rules(const AntennaShape& shape, const TunedLength& length) const override
    {
        const double leg = value(shape, "leg_m");
        const double wanted = loadingReactance({leg, value(shape, "loading_at_m"), shape.wire.diameter}, length.frequency);
        const double line = 120.0 * std::acosh(std::max(1.5, value(shape, "loading_spacing_m") / shape.wire.diameter));
        const double fold = std::atan2(std::max(wanted, 0.0), line) / waveNumber(length.frequency);
        return {{coreText("core", "shorted line"),
                 coreText("core", "the pair's reactance in place of a coil; its own radiation not counted"), 0.0, 0.0,
                 std::max(0.01, std::min(fold, 0.95 * (leg - value(shape, "loading_at_m"))))}};
    }
    std::vector<Lever> levers(const AntennaShape&) const override
    {
        return {{"leg_m", coreText("core", "each end"), LeverKind::Cut, LeverSide::OpenEnd, 2},
                {"loading_m", coreText("core", "the bridge of each fold"), LeverKind::Slide, LeverSide::Middle, 2}};
    }

    std::vector<Trade> trades() const override
    {
        return {{"leg_m", "loading_m"}, {"loading_at_m", "loading_m"}, {"loading_spacing_m", "loading_m"}};
    }
    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t) const override
    {
        const Result<DipoleGeometry> g = dipoleGeometry(*this, shape);
        if (!g)
            return g.faults();
        const double at = value(shape, "loading_at_m"), fold = value(shape, "loading_m"), spacing = value(shape, "loading_spacing_m");
        if (at + fold >= 0.99 * g->leg)
            return Fault{"loading_m",
                         {coreText("core", "the fold would end beyond the arm's %1; make it shorter or begin it farther in"),
                          Measure{g->leg, units::Quantity::Length}}};
        if (spacing < 1.5 * (shape.wire.diameter + 2.0 * shape.wire.jacket))
            return Fault{"loading_spacing_m", coreText("core", "the wires of the fold would touch; space them wider")};
        const std::vector<Vec3> a = armPath(shape, *g, 0), b = armPath(shape, *g, 1);
        std::vector<Vec3> points(a.rbegin(), a.rend());
        points.insert(points.end(), b.begin() + 1, b.end());
        BuiltAntenna out = dipoleFrame(*g, shape);
        Wire wire = makeWire(shape.wire, "legs", points);
        const double whole = wire.length();
        out.model.wires = {std::move(wire)};
        out.model.feeds = {{0, 0.5 * whole, 1.0}};
        const double drop = 2.0 * spacing; // an arm folded inside ends lower by two spacings
        const Vec3 low{0.0, 0.0, value(shape, "loading_fold") < 0.5 ? -drop : 0.0};
        out.handles[1].at = out.handles[1].at + low;
        out.handles[2].at = out.handles[2].at + low;
        out.insulators = {out.handles[1].at, out.handles[2].at};
        out.handles.push_back({coreText("core", "fold"), g->alongLeg(0, at + fold), {"loading_m"}});
        out.dimensions.push_back({g->alongLeg(0, at), g->alongLeg(0, at + fold), "loading_m"});
        out.sections = {{coreText("core", "leg with its fold"), 2, 0.5 * whole, WireEnd::Centre, WireEnd::Insulator}};
        return out;
    }

private:
    /// From the centre to the tip of an arm.
    std::vector<Vec3> armPath(const AntennaShape& shape, const DipoleGeometry& g, int side) const
    {
        const double at = value(shape, "loading_at_m"), fold = value(shape, "loading_m"), spacing = value(shape, "loading_spacing_m");
        const auto low = [&](double along, int rows) { return g.alongLeg(side, along) + Vec3{0.0, 0.0, -rows * spacing}; };
        if (value(shape, "loading_fold") < 0.5)
            return {g.centre, low(at + fold, 0), low(at + fold, 1), low(at, 1), low(at, 2), low(g.leg, 2)};
        // the stub hangs below; where it comes back the arm goes on beside its foot
        return {g.centre,          low(at, 0),           low(at, 2),           low(at + fold, 2),
                low(at + fold, 1), low(at + spacing, 1), low(at + spacing, 0), low(g.leg, 0)};
    }
};

} // namespace

const Family& linearLoadedDipoleFamily()
{
    static const LinearLoadedDipole family;
    return family;
}

} // namespace vetchling::shapes
