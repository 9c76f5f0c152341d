/// Half-wave dipole whose ends hang straight down, where there is not room for all of it.
#include "core/shapes/dipole_geometry.h"

#include <algorithm>

namespace vetchling::shapes {
namespace {

constexpr double lowestTip = 0.05; // m above ground

class BentDipole final : public DipoleFamily {
public:
    std::string id() const override { return "bent-dipole"; }
    std::string title() const override { return coreText("core", "Dipole, ends dropped"); }
    std::string summary() const override
    {
        return coreText("core", "Half a wave fed in the middle, its ends hanging down where the garden is too short.");
    }

    std::vector<ParameterSpec> parameters(const AntennaShape&) const override
    {
        std::vector<ParameterSpec> all = dipoleParameters(10.0, 10.0);
        for (ParameterSpec& s : all)
            if (s.key == "end_height_m") {
                s.label = coreText("core", "Height of the corners");
                s.help = coreText("core", "where the wire turns down; both, unless the second is set apart");
            }
        all.push_back({"drop_m",
                       coreText("core", "Hanging down, a side"),
                       lengthGroup,
                       units::Quantity::Length,
                       1.5,
                       0.0,
                       500.0,
                       {},
                       coreText("core", "of the length a side; 0 for none"),
                       0.07});
        return all;
    }

    /// Long ends would stand on the ground.
    void settle(AntennaShape& shape) const override
    {
        constexpr double most = 0.6; // of the corners' height
        shape.parameters["drop_m"] = std::min(shape.parameters["drop_m"], most * shape.parameters["end_height_m"]);
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
        return {{"leg_m", coreText("core", "each side"), LeverKind::Cut, LeverSide::OpenEnd, 2},
                {"drop_m", coreText("core", "the place of the corners"), LeverKind::Slide, LeverSide::Middle, 2}};
    }

    /// Cut at its end the wire hangs down less far; the corners stay where they are held.
    AntennaShape levered(const AntennaShape& shape, const std::string& key, double to) const override
    {
        AntennaShape next = DipoleFamily::levered(shape, key, to);
        if (key == "leg_m")
            next.parameters["drop_m"] = std::max(0.0, value(shape, "drop_m") + to - value(shape, "leg_m"));
        return next;
    }
    AntennaShape straightened(const AntennaShape& shape) const override
    {
        AntennaShape next = dipoleStraightened(shape);
        next.parameters["drop_m"] = 0.0;
        return next;
    }
    AntennaShape hung(const AntennaShape& shape, std::size_t handle, const Hook& hook) const override
    {
        const double run = value(shape, "leg_m") - value(shape, "drop_m");
        return dipoleHung(*this, shape, handle > 2 ? handle - 2 : handle, hook, {run, run}); // a tip goes where its corner goes
    }

    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t) const override
    {
        const auto v = [&](const char* key) { return value(shape, key); };
        const Vec3 centre{v("x_m"), v("y_m"), v("apex_height_m")};
        const double leg = v("leg_m"), drop = v("drop_m"), run = leg - drop, corners = v("end_height_m");
        if (run <= 0.02 * leg)
            return Fault{"drop_m",
                         {coreText("core", "a side is only %1 long; let less than that hang down"), Measure{leg, units::Quantity::Length}}};
        const Result<Vec3> a = legEnd(centre, run, corners, v("bearing_deg"));
        const Result<Vec3> b = legEnd(centre, run, corners + v("second_end_m"), v("bearing_deg") + v("opening_deg"));
        if (!a || !b)
            return a ? b.faults() : a.faults();
        if (std::min(a->z, b->z) - drop < lowestTip)
            return Fault{"drop_m",
                         {coreText("core", "the ends would reach the ground; hang down less than %1"),
                          Measure{std::min(a->z, b->z), units::Quantity::Length}}};
        return assemble(shape, centre, *a, *b, leg, drop);
    }

private:
    static BuiltAntenna assemble(const AntennaShape& shape, Vec3 centre, Vec3 a, Vec3 b, double leg, double drop)
    {
        const Vec3 down{0.0, 0.0, -drop}, tipA = a + down, tipB = b + down;
        BuiltAntenna out;
        out.model.wires.push_back(
            makeWire(shape.wire, "legs", drop > 0.0 ? std::vector<Vec3>{tipA, a, centre, b, tipB} : std::vector<Vec3>{a, centre, b}));
        out.model.feeds.push_back({0, leg, 1.0});
        out.feedPoint = centre;
        out.handles = {{coreText("core", "centre"), centre, {"apex_height_m"}},
                       {coreText("core", "first corner"), a, {"end_height_m", "leg_m"}},
                       {coreText("core", "second corner"), b, {"end_height_m", "leg_m"}}};
        out.dimensions = {{centre, a, "leg_m"}, {centre, b, "leg_m"}};
        if (drop > 0.0) {
            out.handles.push_back({coreText("core", "first tip"), tipA, {"drop_m"}});
            out.handles.push_back({coreText("core", "second tip"), tipB, {"drop_m"}});
            out.dimensions.push_back({b, tipB, "drop_m"});
        }
        out.insulators = {tipA, tipB};
        out.sections.push_back({coreText("core", "leg"), 2, leg, WireEnd::Centre, WireEnd::Insulator});
        return out;
    }
};

} // namespace

const Family& bentDipoleFamily()
{
    static const BentDipole family;
    return family;
}

} // namespace vetchling::shapes
