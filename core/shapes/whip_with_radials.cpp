/// Telescopic whip on a mast with two radials that slope to anchors and lie on the soil beyond.
#include "core/shapes/stand.h"
#include "core/shapes/whip.h"

#include <algorithm>

namespace vetchling::shapes {
namespace {

class WhipWithRadials final : public Family {
public:
    Carrier carrier() const override { return Carrier::Tripod; }
    std::string id() const override { return "whip"; }
    std::string title() const override { return coreText("core", "Whip with two radials"); }
    std::string summary() const override
    {
        return coreText("core", "A telescopic whip on a low mast; two radials slope to anchors, whose distance fine-tunes it.");
    }

    std::string layout(const AntennaShape& shape) const override { return vehicleLayout(shape); }
    std::vector<ParameterSpec> parameters(const AntennaShape& shape) const override
    {
        std::vector<ParameterSpec> all{
            lengthSpec("base_height_m", coreText("core", "Height of the mount"), hangsGroup, {1.5, 0.05, 100.0}),
            lengthSpec("anchor_m", coreText("core", "First anchor at"), hangsGroup, {3.0, 0.02, 500.0},
                       coreText("core", "distance from the mast; nearer, the radial droops more steeply"), 0.15),
            lengthSpec("second_anchor_m", coreText("core", "Second anchor at"), hangsGroup, {3.0, 0.02, 500.0}, {}, 0.15),
            angleSpec("between_deg", coreText("core", "Angle between the radials in plan"), standsGroup, {180.0, 20.0, 180.0}),
            tunedLengthSpec("whip_m", coreText("core", "Whip pulled out to")),
            lengthSpec("radial_m", coreText("core", "Length of a radial"), lengthGroup, {5.0, 0.02, 500.0}, {}, 0.238),
        };
        addTelescope(all);
        addVehicleSpecs(all, shape);
        addPlace(all);
        return all;
    }

    void settle(AntennaShape& shape) const override { settleTelescope(shape, "whip_m"); }

    std::vector<TunedLength> tuned(const AntennaShape& shape) const override
    {
        return {{"whip_m", coreText("core", "of whip"), shape.designFrequency}};
    }
    std::vector<RuleOfThumb> rules(const AntennaShape&, const TunedLength& length) const override
    {
        return quarterWaveRules(length.frequency);
    }
    std::vector<Lever> levers(const AntennaShape&) const override
    {
        return {{"whip_m", coreText("core", "the whip"), LeverKind::Slide, LeverSide::OpenEnd, 1},
                {"anchor_m", coreText("core", "the first anchor"), LeverKind::Angle, LeverSide::OpenEnd, 1},
                {"second_anchor_m", coreText("core", "the second anchor"), LeverKind::Angle, LeverSide::OpenEnd, 1}};
    }
    std::vector<Part> parts() const override { return {{"whip", coreText("core", "Whip")}, {"radials", coreText("core", "Radials")}}; }
    std::optional<std::size_t> hangsBy(const AntennaShape&) const override { return std::nullopt; }

    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t) const override
    {
        const auto v = [&](const char* key) { return value(shape, key); };
        const double whip = v("whip_m"), radial = v("radial_m");
        if (Faults faults = telescopeFaults(*this, shape, "whip_m", whip); !faults.empty())
            return faults;
        const Vec3 base = baseOf(*this, shape), top = base + Vec3{0.0, 0.0, whip};
        BuiltAntenna out = standing(taperedWhip(*this, shape, "whip", "whip", base, top), base);
        if (vehicleOf(shape) == OnVehicle::Roof)
            return Fault{"vehicle", coreText("core", "its radials would lie on the roof; stand it on a bracket at the rear")};
        if (Faults faults = addVehicle(*this, shape, base, v("bearing_deg") + 0.5 * v("between_deg") + 180.0, "radials", out);
            !faults.empty())
            return faults;
        const char* const anchors[] = {"anchor_m", "second_anchor_m"};
        for (int side : {0, 1}) {
            const Result<std::vector<Vec3>> path =
                radialPath(base, radial, v("bearing_deg") + side * v("between_deg"), base.z, v(anchors[side]));
            if (!path)
                return path.faults();
            out.model.wires.push_back(makeWire(wireOf(shape, "radials"), side == 0 ? "first radial" : "second radial", *path));
            out.insulators.push_back(path->back());
            out.handles.push_back({side == 0 ? coreText("core", "first radial's bend") : coreText("core", "second radial's bend"),
                                   (*path)[1],
                                   {anchors[side]}});
            out.dimensions.push_back({base, (*path)[1], anchors[side]});
        }
        out.handles.push_back({coreText("core", "tip"), top, {"whip_m"}});
        out.handles.push_back({coreText("core", "mount"), base, {"base_height_m"}});
        out.dimensions.push_back({base, top, "whip_m"});
        out.sections = {{coreText("core", "whip"), 1, whip, WireEnd::Tube, WireEnd::Tube, false},
                        {coreText("core", "radial"), 2, radial, WireEnd::Joint, WireEnd::Insulator, false}};
        return out;
    }
};

} // namespace

const Family& whipFamily()
{
    static const WhipWithRadials family;
    return family;
}

} // namespace vetchling::shapes
