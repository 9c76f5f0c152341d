/// Verticals whose wire goes on level at the top: inverted L (one way) and T (both ways).
#include "core/shapes/stand.h"

#include <algorithm>
#include <cmath>

namespace vetchling::shapes {
namespace {

/// Both stand on radials and hang by their top.
class TopWires : public Family {
public:
    std::vector<Part> parts() const override { return standParts(); }
    std::optional<std::size_t> hangsBy(const AntennaShape&) const override { return std::nullopt; }

protected:
    std::vector<ParameterSpec> riserParameters(double inWaves) const
    {
        std::vector<ParameterSpec> all = standParameters();
        all.insert(all.begin() + 2, lengthSpec("riser_m", coreText("core", "Upright part"), lengthGroup, {8.0, 0.02, 500.0}, {}, inWaves));
        all.push_back(angleSpec("top_bearing_deg", coreText("core", "Bearing of the top wire"), standsGroup, {90.0, -360.0, 360.0},
                                coreText("core", "the bearing above is that of the first radial")));
        return all;
    }

    Vec3 cornerOf(const AntennaShape& shape) const { return baseOf(*this, shape) + Vec3{0.0, 0.0, value(shape, "riser_m")}; }

    void annotate(const AntennaShape& shape, BuiltAntenna& out, Vec3 corner) const
    {
        const Vec3 base = baseOf(*this, shape);
        out.handles.push_back({coreText("core", "corner"), corner, {"riser_m"}});
        out.handles.push_back({coreText("core", "base"), base, {"base_height_m"}});
        out.dimensions.push_back({base, corner, "riser_m"});
    }
};

class InvertedL final : public TopWires {
public:
    std::string id() const override { return "inverted-l"; }
    std::string title() const override { return coreText("core", "Inverted L"); }
    std::string summary() const override
    {
        return coreText("core", "A quarter wave that goes up as far as it can and then on to a second support, over radials.");
    }

    std::vector<ParameterSpec> parameters(const AntennaShape&) const override
    {
        std::vector<ParameterSpec> all = riserParameters(0.12);
        all.insert(all.begin() + 3, tunedLengthSpec("length_m", coreText("core", "Length of wire")));
        all.insert(all.begin() + 2, lengthSpec("far_rise_m", coreText("core", "Far end higher by"), hangsGroup, {0.0, -200.0, 200.0},
                                               coreText("core", "than the corner; below zero it slopes down")));
        return all;
    }

    std::vector<TunedLength> tuned(const AntennaShape& shape) const override
    {
        return {{"length_m", coreText("core", "of wire"), shape.designFrequency}};
    }
    std::vector<RuleOfThumb> rules(const AntennaShape&, const TunedLength& length) const override
    {
        return quarterWaveRules(length.frequency);
    }
    std::vector<Lever> levers(const AntennaShape&) const override { return standLevers("length_m"); }

    /// Up the first support and over to the second.
    std::optional<AntennaShape> between(const AntennaShape& shape, const Hook& from, const Hook& to) const override
    {
        AntennaShape next = shape;
        const double base = value(shape, "base_height_m"), riser = from.top ? *from.top - base : value(shape, "riser_m");
        next.parameters["x_m"] = from.x;
        next.parameters["y_m"] = from.y;
        next.parameters["riser_m"] = std::clamp(riser, 0.1, 0.85 * value(shape, "length_m"));
        next.parameters["top_bearing_deg"] = bearingTowards(to.x - from.x, to.y - from.y);
        return next;
    }

    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t) const override
    {
        const double length = value(shape, "length_m"), riser = value(shape, "riser_m"), level = length - riser,
                     rise = value(shape, "far_rise_m");
        if (level <= 0.02 * length)
            return Fault{
                "riser_m",
                {coreText("core", "the wire is only %1 long; less of it can stand upright"), Measure{length, units::Quantity::Length}}};
        const std::optional<Climb> climb = climbOf(level, rise);
        if (!climb)
            return Fault{"far_rise_m",
                         {coreText("core", "%1 of wire cannot climb %2; change the height or the length"),
                          Measure{level, units::Quantity::Length}, Measure{rise, units::Quantity::Length}}};
        const Vec3 base = baseOf(*this, shape), corner = cornerOf(shape);
        const Vec3 end = corner + climb->level * towards(value(shape, "top_bearing_deg")) + Vec3{0.0, 0.0, climb->rise};
        BuiltAntenna out = standing(makeWire(wireOf(shape, "radiator"), "radiator", {base, corner, end}), base);
        out.sections = {{coreText("core", "wire, up and along"), 1, length, WireEnd::Centre, WireEnd::Insulator}};
        out.insulators = {end};
        if (Faults faults = addRadials(*this, shape, out); !faults.empty())
            return faults;
        annotate(shape, out, corner);
        out.handles.push_back({coreText("core", "far end"), end, {"far_rise_m", "length_m"}});
        out.dimensions.push_back({corner, end, "length_m"});
        return out;
    }
};

class TVertical final : public TopWires {
public:
    std::string id() const override { return "t-vertical"; }
    std::string title() const override { return coreText("core", "T with top wires"); }
    std::string summary() const override
    {
        return coreText("core", "A short upright wire under two level ones that only load it, over radials.");
    }

    std::vector<ParameterSpec> parameters(const AntennaShape&) const override
    {
        std::vector<ParameterSpec> all = riserParameters(0.15);
        all.insert(all.begin() + 3, tunedLengthSpec("arm_m", coreText("core", "Each top wire")));
        return all;
    }

    std::vector<TunedLength> tuned(const AntennaShape& shape) const override
    {
        return {{"arm_m", coreText("core", "of each top wire"), shape.designFrequency}};
    }

    /// Two open lines on top of a third: 2 tan(k arm) = c cot(k riser), c = 1.4 as opposite wires take less charge than two alone.
    std::vector<RuleOfThumb> rules(const AntennaShape& shape, const TunedLength& length) const override
    {
        constexpr double endEffect = 1.05, shared = 1.4;
        const double k = endEffect * waveNumber(length.frequency);
        const double arm = std::atan2(0.5 * shared * std::cos(k * value(shape, "riser_m")), std::sin(k * value(shape, "riser_m"))) / k;
        return {{coreText("core", "line formula"), coreText("core", "riser and top wires as lines of one impedance, no ground"), 0.0, 0.0,
                 std::max(0.02, arm)}};
    }
    std::vector<Lever> levers(const AntennaShape&) const override
    {
        std::vector<Lever> all = standLevers("arm_m");
        all.front() = {"arm_m", coreText("core", "each top wire"), LeverKind::Cut, LeverSide::OpenEnd, 2};
        return all;
    }

    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t) const override
    {
        const double arm = value(shape, "arm_m");
        const Vec3 base = baseOf(*this, shape), corner = cornerOf(shape), out1 = arm * towards(value(shape, "top_bearing_deg"));
        BuiltAntenna out = standing(makeWire(wireOf(shape, "radiator"), "radiator", {base, corner}), base);
        for (const auto& [end, name] : {std::pair(corner + out1, "first top wire"), std::pair(corner - out1, "second top wire")}) {
            out.model.wires.push_back(makeWire(wireOf(shape, "radiator"), name, {corner, end}));
            out.insulators.push_back(end);
        }
        out.sections = {{coreText("core", "upright"), 1, value(shape, "riser_m"), WireEnd::Centre, WireEnd::Joint, false},
                        {coreText("core", "top wire"), 2, arm, WireEnd::Joint, WireEnd::Insulator}};
        if (Faults faults = addRadials(*this, shape, out); !faults.empty())
            return faults;
        annotate(shape, out, corner);
        out.handles.push_back({coreText("core", "far end"), corner + out1, {"arm_m"}});
        out.dimensions.push_back({corner, corner + out1, "arm_m"});
        return out;
    }
};

} // namespace

const Family& invertedLFamily()
{
    static const InvertedL family;
    return family;
}

const Family& tVerticalFamily()
{
    static const TVertical family;
    return family;
}

} // namespace vetchling::shapes
