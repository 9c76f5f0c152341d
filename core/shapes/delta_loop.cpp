/// Full-wave delta loop, standing upright, point up or down.
#include "core/shapes/dipole_geometry.h"

#include <algorithm>
#include <cmath>

namespace vetchling::shapes {
namespace {

enum FeedPlace { corner = 0, middleOfBase = 1, point = 2, quarterUpSide = 3 };

constexpr double deltaImpedance = 110.0; // ohm

class DeltaLoop final : public Family {
public:
    std::string id() const override { return "delta-loop"; }
    Multiples multiples() const override { return Multiples::All; }
    std::string title() const override { return coreText("core", "Delta loop"); }
    std::string summary() const override
    {
        return coreText("core", "A full wave of wire in a triangle, point up or down, fed at a corner or mid-side.");
    }

    std::vector<ParameterSpec> parameters(const AntennaShape&) const override
    {
        using units::Quantity;
        std::vector<ParameterSpec> all{
            {"base_height_m", coreText("core", "Height of lowest part"), hangsGroup, Quantity::Length, 3.0, 0.05, 500.0, {}, {}},
            {"point",
             coreText("core", "Point"),
             hangsGroup,
             Quantity::Plain,
             0.0,
             0.0,
             1.0,
             {coreText("core", "up"), coreText("core", "down")},
             {}},
            {"perimeter_m", coreText("core", "Wire round the loop"), lengthGroup, Quantity::Length, 17.0, 0.05, 5000.0, {}, {}},
            {"apex_deg",
             coreText("core", "Angle at the point"),
             lengthGroup,
             Quantity::Angle,
             60.0,
             15.0,
             140.0,
             {},
             coreText("core", "60 makes all sides equal")},
            {"feed_place",
             coreText("core", "Fed at"),
             feedGroup,
             Quantity::Plain,
             0.0,
             0.0,
             3.0,
             {coreText("core", "a corner of the base"), coreText("core", "the middle of the base"), coreText("core", "the point"),
              coreText("core", "a quarter wave from the point")},
             coreText("core", "corner or side: more vertical, lower angles")},
            transformerRatio(1.0),
        };
        addPlace(all);
        return all;
    }

    std::vector<TunedLength> tuned(const AntennaShape& shape) const override
    {
        return {{"perimeter_m", coreText("core", "round the loop"), shape.designFrequency}};
    }

    std::vector<RuleOfThumb> rules(const AntennaShape&, const TunedLength& length) const override { return loopRules(length.frequency); }

    std::vector<Lever> levers(const AntennaShape&) const override
    {
        return {{"perimeter_m", coreText("core", "the loop"), LeverKind::Cut, LeverSide::Feed, 1}};
    }

    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t) const override
    {
        const auto v = [&](const char* key) { return value(shape, key); };
        const double half = radians(0.5 * v("apex_deg")), perimeter = v("perimeter_m");
        const double side = perimeter / (2.0 + 2.0 * std::sin(half)), base = perimeter - 2.0 * side, height = side * std::cos(half);
        const bool up = v("point") < 0.5;
        const Vec3 foot{v("x_m"), v("y_m"), v("base_height_m")}, along = towards(v("bearing_deg"));
        const double baseLevel = up ? 0.0 : height;
        const Vec3 left = foot - 0.5 * base * along + Vec3{0.0, 0.0, baseLevel},
                   right = foot + 0.5 * base * along + Vec3{0.0, 0.0, baseLevel};
        const Vec3 tip = foot + Vec3{0.0, 0.0, up ? height : 0.0};

        BuiltAntenna out;
        out.model.wires.push_back(makeWire(shape.wire, "loop", {left, right, tip, left}));
        out.model.feeds.push_back({0, feedDistance(int(std::lround(v("feed_place"))), base, side, perimeter), 1.0});
        out.feedPoint = out.model.wires[0].pointAt(out.model.feeds[0].at);
        out.transformer = transformer(v("transformer_ratio"));
        out.portReference = deltaImpedance;
        out.handles = {{coreText("core", "right corner"), right, {"base_height_m", "perimeter_m"}},
                       {coreText("core", "point"), tip, {"base_height_m"}}};
        out.dimensions = {{left, right, "perimeter_m"}, {right, tip, "perimeter_m"}, {tip, left, "perimeter_m"}};
        out.sections.push_back({coreText("core", "loop"), 1, perimeter, WireEnd::Centre, WireEnd::Centre});
        return out;
    }

    std::optional<std::size_t> hangsBy(const AntennaShape&) const override { return 1; }
    /// The right corner turns the loop; the point hangs from a top.
    AntennaShape hung(const AntennaShape& shape, std::size_t handle, const Hook& hook) const override
    {
        if (handle == 0) {
            AntennaShape next = shape;
            next.parameters["bearing_deg"] = bearingTowards(hook.x - value(shape, "x_m"), hook.y - value(shape, "y_m"));
            return next;
        }
        AntennaShape next = Family::hung(shape, handle, hook);
        const Result<BuiltAntenna> here = build(shape, 0);
        if (here && hook.top && value(shape, "point") < 0.5)
            next.parameters["base_height_m"] = std::max(0.05, value(shape, "base_height_m") + *hook.top - here->handles[1].at.z);
        return next;
    }

private:
    /// Along the wire, which starts at the left corner of the base and goes right.
    static double feedDistance(int place, double base, double side, double perimeter)
    {
        switch (place) {
        case middleOfBase: return 0.5 * base;
        case point: return base + side;
        case quarterUpSide: return base + side - std::min(0.25 * perimeter, 0.98 * side);
        default: return base;
        }
    }
};

} // namespace

const Family& deltaLoopFamily()
{
    static const DeltaLoop family;
    return family;
}

} // namespace vetchling::shapes
