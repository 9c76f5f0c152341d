/// Quarter-wave vertical over radials: elevated, sloping, or lying just above the soil.
#include "core/shapes/dipole_geometry.h"

#include <fmt/format.h>

#include <cmath>

namespace vetchling::shapes {
namespace {

class Vertical final : public Family {
public:
    std::string id() const override { return "vertical"; }
    std::string title() const override { return "Vertical with radials"; }
    std::string summary() const override { return "A quarter wave standing on radials, elevated or just above the soil."; }
    std::string tunedParameter() const override { return "radiator_m"; }
    std::string tunedName() const override { return "of radiator"; }
    int trimmedEnds() const override { return 1; }

    std::vector<ParameterSpec> parameters() const override
    {
        using units::Quantity;
        std::vector<ParameterSpec> all{
            {"base_height_m",
             "Height of base",
             "Where it hangs",
             Quantity::Length,
             2.0,
             0.01,
             300.0,
             {},
             "0.02 m for radials lying on the soil"},
            {"radial_end_height_m",
             "Height of radial ends",
             "Where it hangs",
             Quantity::Length,
             2.0,
             0.01,
             300.0,
             {},
             "lower than the base: sloping radials"},
            {"radiator_m", "Length of radiator", "Length", Quantity::Length, 10.0, 0.05, 300.0, {}, {}},
            {"radial_m", "Length of radials", "Length", Quantity::Length, 10.0, 0.05, 300.0, {}, {}},
            {"radial_count", "Number of radials", "Length", Quantity::Plain, 4.0, 1.0, 64.0, {}, {}},
        };
        for (ParameterSpec& s : placeParameters())
            all.push_back(std::move(s));
        return all;
    }

    std::vector<RuleOfThumb> rules(const AntennaShape&, double frequency) const override
    {
        return {feetRule("234 / f", "thin wire, 5 % for its end", 234.0, 1.0, frequency),
                feetRule("246 / f", "quarter wave in free space, nothing taken off", 246.0, 1.0, frequency)};
    }

    Result<BuiltAntenna> build(const AntennaShape& shape) const override
    {
        const auto v = [&](const char* key) { return value(shape, key); };
        const Vec3 base{v("x_m"), v("y_m"), v("base_height_m")}, top = base + Vec3{0.0, 0.0, v("radiator_m")};
        const int count = int(std::lround(v("radial_count")));
        const double radial = v("radial_m"), drop = base.z - v("radial_end_height_m");
        if (std::abs(drop) >= 0.999 * radial)
            return Fault{"radial_end_height_m",
                         fmt::format("radials of {:.2f} m cannot end {:.2f} m below the base; raise their ends", radial, drop)};

        BuiltAntenna out;
        out.model.wires.push_back(makeWire(shape.wire, "radiator", {base, top}));
        for (int i = 0; i < count; ++i) {
            const Vec3 end =
                base + std::sqrt(radial * radial - drop * drop) * towards(v("bearing_deg") + 360.0 * i / count) + Vec3{0.0, 0.0, -drop};
            out.model.wires.push_back(makeWire(shape.wire, fmt::format("radial {}", i + 1), {base, end}));
            out.insulators.push_back(end);
            if (i == 0) {
                out.handles.push_back({"radial end", end, {"radial_end_height_m", "radial_m"}});
                out.dimensions.push_back({base, end, "radial_m"});
            }
        }
        out.model.feeds.push_back({0, 0.0, 1.0});
        out.feedPoint = base;
        out.handles.push_back({"top", top, {"radiator_m"}});
        out.handles.push_back({"base", base, {"base_height_m"}});
        out.dimensions.push_back({base, top, "radiator_m"});
        out.sections = {{"radiator", 1, v("radiator_m"), WireEnd::Centre, WireEnd::Insulator},
                        {"radial", count, radial, WireEnd::Joint, WireEnd::Insulator}};
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
