/// Full-wave loop of equal sides: square, diamond, up to nearly a circle; standing or lying.
#include "core/physics.h"
#include "core/shapes/family.h"

#include <algorithm>
#include <cmath>

namespace vetchling::shapes {
namespace {

enum Attitude { sideDown = 0, cornerDown = 1, lying = 2 };
enum FeedPlace { bottom = 0, side = 1, top = 2 };

constexpr double polygonImpedance = 120.0; // ohm

/// The loop's own plane: across and up, from its middle.
struct Flat {
    double u = 0.0, v = 0.0;
};

class PolygonLoop final : public Family {
public:
    std::string id() const override { return "loop"; }
    Multiples multiples() const override { return Multiples::All; }
    std::string title() const override { return coreText("core", "Loop of equal sides"); }
    std::string summary() const override
    {
        return coreText("core", "A wave of wire as a square, a diamond or nearly a circle, standing or lying flat.");
    }

    std::vector<ParameterSpec> parameters(const AntennaShape&) const override
    {
        using units::Quantity;
        std::vector<ParameterSpec> all{
            {"base_height_m", coreText("core", "Height of lowest part"), hangsGroup, Quantity::Length, 4.0, 0.05, 500.0, {}, {}},
            {"attitude",
             coreText("core", "It is"),
             hangsGroup,
             Quantity::Plain,
             0.0,
             0.0,
             2.0,
             {coreText("core", "standing on a side"), coreText("core", "standing on a corner"), coreText("core", "lying flat")},
             {}},
            {"side_count",
             coreText("core", "Number of sides"),
             lengthGroup,
             Quantity::Plain,
             4.0,
             3.0,
             24.0,
             {},
             coreText("core", "whole: 4 is a square")},
            {"perimeter_m", coreText("core", "Wire round the loop"), lengthGroup, Quantity::Length, 21.7, 0.05, 5000.0, {}, {}},
            {"feed_place",
             coreText("core", "Fed at"),
             feedGroup,
             Quantity::Plain,
             0.0,
             0.0,
             2.0,
             {coreText("core", "the bottom"), coreText("core", "the right, half way up"), coreText("core", "the top")},
             coreText("core", "at the bottom or top it is horizontally polarised, at a side vertically")},
            transformerRatio(2.0),
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

    /// A standing loop hangs by its top.
    std::optional<std::size_t> hangsBy(const AntennaShape& shape) const override
    {
        return attitude(shape) == lying ? std::nullopt : std::optional<std::size_t>(1);
    }

    AntennaShape hung(const AntennaShape& shape, std::size_t handle, const Hook& hook) const override
    {
        AntennaShape next = shape;
        if (handle == 2) { // the right turns it
            next.parameters["bearing_deg"] = bearingTowards(hook.x - value(shape, "x_m"), hook.y - value(shape, "y_m"));
            return next;
        }
        next.parameters["x_m"] = hook.x;
        next.parameters["y_m"] = hook.y;
        const Result<BuiltAntenna> here = build(shape, 0);
        if (here && hook.top && handle == 1)
            next.parameters["base_height_m"] = std::max(0.05, value(shape, "base_height_m") + *hook.top - here->handles[1].at.z);
        return next;
    }

    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t) const override
    {
        const double sides = value(shape, "side_count");
        if (sides != std::floor(sides))
            return Fault{"side_count", coreText("core", "a loop has a whole number of sides")};
        const std::vector<Flat> corners = cornersOf(shape);
        double lowest = 0.0, highest = 0.0;
        for (Flat c : corners)
            lowest = std::min(lowest, c.v), highest = std::max(highest, c.v);
        const double height = value(shape, "base_height_m");
        const Vec3 foot{value(shape, "x_m"), value(shape, "y_m"), height}, along = towards(value(shape, "bearing_deg"));
        const bool flat = attitude(shape) == lying;
        const auto place = [&](Flat p) {
            const Vec3 across{-along.y, along.x, 0.0}; // to the left of the bearing, seen from above
            return flat ? foot + p.u * along + p.v * across : foot + p.u * along + Vec3{0.0, 0.0, p.v - lowest};
        };
        std::vector<Vec3> points;
        for (Flat c : corners)
            points.push_back(place(c));
        points.push_back(points.front());
        BuiltAntenna out;
        out.model.wires.push_back(makeWire(shape.wire, "loop", points));
        const double feedAngles[] = {-90.0, 0.0, 90.0};
        out.model.feeds.push_back({0, distanceTo(corners, feedAngles[int(std::lround(value(shape, "feed_place")))]), 1.0});
        out.feedPoint = out.model.wires[0].pointAt(out.model.feeds[0].at);
        out.transformer = transformer(value(shape, "transformer_ratio"));
        out.portReference = polygonImpedance;
        const auto onWire = [&](double angle) { return out.model.wires[0].pointAt(distanceTo(corners, angle)); };
        out.handles = {{flat ? coreText("core", "nearer part") : coreText("core", "bottom"), onWire(-90.0), {"base_height_m"}},
                       {flat ? coreText("core", "farther part") : coreText("core", "top"), onWire(90.0), {"base_height_m", "perimeter_m"}},
                       {coreText("core", "right"), onWire(0.0), {"perimeter_m"}}};
        out.dimensions = {{points[0], points[1], "perimeter_m"}};
        out.sections.push_back({coreText("core", "loop"), 1, value(shape, "perimeter_m"), WireEnd::Centre, WireEnd::Centre});
        return out;
    }

private:
    int attitude(const AntennaShape& shape) const { return int(std::lround(value(shape, "attitude"))); }

    /// Counter-clockwise, from the lowest side's right corner or from the lowest corner.
    std::vector<Flat> cornersOf(const AntennaShape& shape) const
    {
        const int count = int(value(shape, "side_count"));
        const double step = 2.0 * pi / count, radius = value(shape, "perimeter_m") / (2.0 * count * std::sin(0.5 * step));
        const double first = -0.5 * pi + (attitude(shape) == cornerDown ? 0.0 : 0.5 * step);
        std::vector<Flat> corners;
        for (int i = 0; i < count; ++i)
            corners.push_back({radius * std::cos(first + i * step), radius * std::sin(first + i * step)});
        return corners;
    }

    /// Distance along the wire, which starts at the first corner, to where a ray from the middle meets it. @param angle degrees
    static double distanceTo(const std::vector<Flat>& corners, double angle)
    {
        const Flat ray{std::cos(radians(angle)), std::sin(radians(angle))};
        double before = 0.0;
        for (std::size_t i = 0; i < corners.size(); ++i) {
            const Flat a = corners[i], b = corners[(i + 1) % corners.size()], d{b.u - a.u, b.v - a.v};
            const double length = std::hypot(d.u, d.v), across = ray.u * d.v - ray.v * d.u;
            const double t = (a.v * ray.u - a.u * ray.v) / -across, forward = (a.u * d.v - a.v * d.u) / across;
            constexpr double corner = 1e-9;
            if (forward > 0.0 && t > -corner && t < 1.0 - corner)
                return before + std::max(0.0, t) * length;
            before += length;
        }
        return 0.0;
    }
};

} // namespace

const Family& polygonLoopFamily()
{
    static const PolygonLoop family;
    return family;
}

} // namespace vetchling::shapes
