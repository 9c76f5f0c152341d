/// Loaded whip on a vehicle: the body is a frame of wires above the soil, and counts.
#include "core/shapes/loading.h"
#include "core/shapes/stand.h"

#include <algorithm>
#include <cmath>

namespace vetchling::shapes {
namespace {

enum Mount { roof = 0, rear = 1, magnet = 2, clamp = 3 };

class MobileWhip final : public Family {
public:
    std::string id() const override { return "mobile-whip"; }
    bool isForSites() const override { return false; }
    Carrier carrier() const override { return Carrier::Vehicle; }
    std::string title() const override { return coreText("core", "Whip on a vehicle"); }
    std::string summary() const override
    {
        return coreText("core", "A loaded whip against the body of a car, which stands insulated on its tyres above the soil.");
    }
    std::string layout(const AntennaShape& shape) const override
    {
        return armLayout(kind(), shape) + (mountOf(shape) == magnet ? "m" : mountOf(shape) == clamp ? "k" : "");
    }
    AntennaShape levered(const AntennaShape& shape, const std::string& key, double value) const override
    {
        return armLevered(*this, kind(), shape, key, value);
    }

    std::vector<ParameterSpec> parameters(const AntennaShape& shape) const override
    {
        std::vector<ParameterSpec> all{
            choiceSpec("mount", coreText("core", "Mounted on"), hangsGroup,
                       {coreText("core", "the middle of the roof"), coreText("core", "the rear"), coreText("core", "the roof, by a magnet"),
                        coreText("core", "the roof's edge, by a clamp")},
                       coreText("core", "screwed down, or only near to the sheet: a magnet's foot is a capacitor to the roof")),
            lengthSpec("body_height_m", coreText("core", "Height of the roof"), hangsGroup, {1.5, 0.5, 6.0}),
        };
        addBodySpecs(all);
        if (mountOf(shape) == magnet)
            all.push_back(capacitanceSpec("foot_F", coreText("core", "Magnet's foot to roof"), hangsGroup, {300e-12, 5e-12, 1e-7},
                                          coreText("core", "100 to 600 pF by its size and the paint between")));
        if (mountOf(shape) == clamp)
            all.push_back(lengthSpec("bracket_m", coreText("core", "Clamp to the whip's foot"), hangsGroup, {0.08, 0.02, 1.0},
                                     coreText("core", "the strap stands out from the edge, and counts")));
        all.push_back(lengthSpec("radiator_m", coreText("core", "Length of the whip"), lengthGroup, {2.4, 0.05, 20.0},
                                 coreText("core", "above its mount"), 0.14));
        addArmSpecs(all, kind(), shape);
        addPlace(all);
        return all;
    }

    /// A whip that a car can carry.
    void settle(AntennaShape& shape) const override
    {
        constexpr double tallest = 2.4; // m
        shape.parameters["radiator_m"] = std::min(shape.parameters["radiator_m"], tallest);
        shape.parameters["inductance_H"] = rules(shape, tuned(shape).front()).front().value;
    }

    std::vector<TunedLength> tuned(const AntennaShape& shape) const override
    {
        return {{"inductance_H", coreText("core", "in the coil"), shape.designFrequency}};
    }
    std::vector<RuleOfThumb> rules(const AntennaShape& shape, const TunedLength& length) const override
    {
        return {coilRule(lineOf(*this, kind(), shape), length.frequency)};
    }
    std::vector<Lever> levers(const AntennaShape& shape) const override
    {
        return armLevers(*this, kind(), shape, {"radiator_m", coreText("core", "the whip's end"), LeverKind::Slide, LeverSide::OpenEnd, 1});
    }
    std::vector<Part> parts() const override { return {{"whip", coreText("core", "Whip")}, {"body", coreText("core", "Body")}}; }
    std::optional<std::size_t> hangsBy(const AntennaShape&) const override { return std::nullopt; }

    std::vector<Trade> trades() const override { return {{"radiator_m", "inductance_H"}}; }
    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t) const override
    {
        const Result<Body> body = bodyOf(*this, shape, value(shape, "body_height_m"), "body_height_m");
        if (!body)
            return body.faults();
        const Result<Arm> arm = armOf(*this, kind(), shape);
        if (!arm)
            return arm.faults();
        const Mount mount = mountOf(shape);
        const Vec3 joined = body->at(mount == rear ? -0.5 : 0.0, mount == clamp ? 0.5 : 0.0, true);
        const Vec3 foot = mount == clamp ? joined + value(shape, "bracket_m") * towards(body->bearing + 90.0) : joined;
        const ArmLine line = armLine(foot, foot + Vec3{0.0, 0.0, 1.0}, body->bearing + 180.0); // tips bend backwards
        BuiltAntenna out;
        out.feedPoint = foot;
        layArms(shape, kind(), {*arm}, {line}, "whip", out);
        if (mount == magnet) {
            Load gap;
            gap.capacitance = value(shape, "foot_F");
            out.model.loads.push_back(gap);
        }
        if (mount == clamp) {
            WireChoice strap = wireOf(shape, "body");
            strap.diameter = bodyRadius;
            strap.jacket = 0.0;
            out.model.wires.push_back(makeWire(strap, "clamp", {foot, joined}));
            out.notCut += out.model.wires.back().length();
        }
        addBody(*body, wireOf(shape, "body"), out);
        const Vec3 tip = line.at(arm->straight());
        out.handles = {{coreText("core", "tip"), tip, {"radiator_m"}},
                       {coreText("core", "roof"), body->at(0.5, 0.0, true), {"body_height_m", "body_length_m"}}};
        if (arm->droop > 0.0)
            out.dimensions = {{tip, tipOf(*arm, line), "droop_m"}};
        else
            out.dimensions = {{foot, tip, "radiator_m"}};
        return out;
    }

private:
    static Mount mountOf(const AntennaShape& shape)
    {
        const auto found = shape.parameters.find("mount");
        return found == shape.parameters.end() ? roof : Mount(std::clamp(int(std::lround(found->second)), 0, 3));
    }
    static const ArmKind& kind()
    {
        static const ArmKind kind = [] {
            ArmKind k = uprightArm();
            k.part = "whip";
            k.inWaves = 0.035; // a whip that a car can carry is short on the low bands
            k.coil = Has::Always;
            k.place = 30.0;
            k.henry = 30e-6;
            k.placeLabel = coreText("core", "Coil up the whip");
            k.placeHelp = coreText("core", "0 is at its foot");
            k.foot = k.tip = WireEnd::Tube;
            k.whole = coreText("core", "whip");
            return k;
        }();
        return kind;
    }
};

} // namespace

const Family& mobileWhipFamily()
{
    static const MobileWhip family;
    return family;
}

} // namespace vetchling::shapes
