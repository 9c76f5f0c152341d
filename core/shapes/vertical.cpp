/// Quarter-wave vertical over radials: elevated, sloping, or lying just above the soil.
#include "core/shapes/dipole_geometry.h"

#include <fmt/format.h>

#include <cmath>

namespace vetchling::shapes {
namespace {

constexpr double quarterWave = 0.238; // of a wire with its end effect

class Vertical final : public Family {
public:
    std::string id() const override { return "vertical"; }
    std::string title() const override { return coreText("core", "Vertical with radials"); }
    std::string summary() const override
    {
        return coreText("core", "A quarter wave standing on radials, elevated or just above the soil.");
    }

    std::vector<ParameterSpec> parameters(const AntennaShape&) const override
    {
        using units::Quantity;
        std::vector<ParameterSpec> all{
            {"base_height_m",
             coreText("core", "Height of base"),
             hangsGroup,
             Quantity::Length,
             2.0,
             0.01,
             300.0,
             {},
             coreText("core", "2 cm for radials lying on the soil")},
            {"radial_end_height_m",
             coreText("core", "Height of radial ends"),
             hangsGroup,
             Quantity::Length,
             2.0,
             0.01,
             300.0,
             {},
             coreText("core", "lower than the base: sloping radials")},
            {"radiator_m", coreText("core", "Length of radiator"), lengthGroup, Quantity::Length, 10.0, 0.02, 2000.0, {}, {}},
            {"radial_m", coreText("core", "Length of radials"), lengthGroup, Quantity::Length, 10.0, 0.02, 2000.0, {}, {}, quarterWave},
            {"radial_count", coreText("core", "Number of radials"), lengthGroup, Quantity::Plain, 4.0, 1.0, 64.0, {}, {}},
        };
        addPlace(all);
        return all;
    }

    std::vector<TunedLength> tuned(const AntennaShape& shape) const override
    {
        return {{"radiator_m", coreText("core", "of radiator"), shape.designFrequency}};
    }

    std::vector<RuleOfThumb> rules(const AntennaShape&, const TunedLength& length) const override
    {
        return {feetRule("234 / f", coreText("core", "thin wire, 5 % for its end"), 234.0, 1.0, length.frequency),
                feetRule("246 / f", coreText("core", "quarter wave in free space, nothing taken off"), 246.0, 1.0, length.frequency)};
    }

    std::vector<Lever> levers(const AntennaShape&) const override
    {
        return {{"radiator_m", coreText("core", "the end"), LeverKind::Cut, LeverSide::OpenEnd, 1},
                {"radial_end_height_m", coreText("core", "the slope of the radials"), LeverKind::Angle, LeverSide::OpenEnd, 1}};
    }

    std::vector<Part> parts() const override
    {
        return {{"radiator", coreText("core", "Radiator")}, {"radials", coreText("core", "Radials")}};
    }

    std::optional<std::size_t> hangsBy(const AntennaShape&) const override { return std::nullopt; }

    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t) const override
    {
        const auto v = [&](const char* key) { return value(shape, key); };
        const Vec3 base{v("x_m"), v("y_m"), v("base_height_m")}, top = base + Vec3{0.0, 0.0, v("radiator_m")};
        const int count = int(std::lround(v("radial_count")));
        const double radial = v("radial_m"), drop = base.z - v("radial_end_height_m");
        if (std::abs(drop) >= 0.999 * radial)
            return Fault{"radial_end_height_m",
                         {coreText("core", "radials of %1 cannot end %2 below the base; raise their ends"),
                          Measure{radial, units::Quantity::Length}, Measure{drop, units::Quantity::Length}}};

        BuiltAntenna out;
        out.model.wires.push_back(makeWire(wireOf(shape, "radiator"), "radiator", {base, top}));
        for (int i = 0; i < count; ++i) {
            const Vec3 end =
                base + std::sqrt(radial * radial - drop * drop) * towards(v("bearing_deg") + 360.0 * i / count) + Vec3{0.0, 0.0, -drop};
            out.model.wires.push_back(makeWire(wireOf(shape, "radials"), fmt::format("radial {}", i + 1), {base, end}));
            out.insulators.push_back(end);
            if (i == 0) {
                out.handles.push_back({coreText("core", "radial end"), end, {"radial_end_height_m", "radial_m"}});
                out.dimensions.push_back({base, end, "radial_m"});
            }
        }
        out.model.feeds.push_back({0, 0.0, 1.0});
        out.feedPoint = base;
        out.handles.push_back({coreText("core", "top"), top, {"radiator_m"}});
        out.handles.push_back({coreText("core", "base"), base, {"base_height_m"}});
        out.dimensions.push_back({base, top, "radiator_m"});
        out.sections = {{coreText("core", "radiator"), 1, v("radiator_m"), WireEnd::Centre, WireEnd::Insulator},
                        {coreText("core", "radial"), count, radial, WireEnd::Joint, WireEnd::Insulator, false}};
        return out;
    }
};

} // namespace

const Family& verticalFamily()
{
    static const Vertical family;
    return family;
}

} // namespace vetchling::shapes
