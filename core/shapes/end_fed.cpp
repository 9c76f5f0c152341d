/// End-fed half-wave: straight or with one bend, fed through a transformer against a short counterpoise or the shield.
#include "core/shapes/dipole_geometry.h"

#include <algorithm>
#include <cmath>

namespace vetchling::shapes {
namespace {

enum Return { counterpoiseWire = 0, coaxShield = 1 };

constexpr double usualImpedance = 2500.0; // ohm

class EndFed final : public Family {
public:
    std::string id() const override { return "end-fed"; }
    std::string title() const override { return coreText("core", "End-fed half-wave"); }
    std::string summary() const override
    {
        return coreText("core", "Half a wave fed at its end through a transformer, straight or bent round a corner.");
    }

    std::vector<ParameterSpec> parameters(const AntennaShape&) const override
    {
        using units::Quantity;
        std::vector<ParameterSpec> all{
            {"feed_height_m", coreText("core", "Height of feed"), hangsGroup, Quantity::Length, 2.5, 0.05, 500.0, {}, {}},
            {"bend_height_m",
             coreText("core", "Height at the bend"),
             hangsGroup,
             Quantity::Length,
             6.0,
             0.05,
             500.0,
             {},
             coreText("core", "used when there is a bend")},
            {"end_height_m", coreText("core", "Height of far end"), hangsGroup, Quantity::Length, 6.0, 0.05, 500.0, {}, {}},
            {"length_m", coreText("core", "Length of wire"), lengthGroup, Quantity::Length, 20.1, 0.02, 5000.0, {}, {}},
            {"first_run_m",
             coreText("core", "Wire up to the bend"),
             lengthGroup,
             Quantity::Length,
             0.0,
             0.0,
             5000.0,
             {},
             coreText("core", "0: no bend")},
            {"bend_bearing_deg", coreText("core", "Bearing after the bend"), standsGroup, Quantity::Angle, 0.0, -360.0, 360.0, {}, {}},
            {"return_kind",
             coreText("core", "Return current in"),
             feedGroup,
             Quantity::Plain,
             0.0,
             0.0,
             1.0,
             {coreText("core", "short counterpoise"), coreText("core", "coax shield to a choke")},
             coreText("core", "one school says none is needed: then the shield is it")},
            {"counterpoise_m",
             coreText("core", "Length of that"),
             feedGroup,
             Quantity::Length,
             2.0,
             0.02,
             100.0,
             {},
             coreText("core", "counterpoise, or shield from the transformer to the choke"),
             0.05},
            transformerRatio(49.0, 200.0),
            {"transformer_loss_percent",
             coreText("core", "It loses"),
             feedGroup,
             Quantity::Percent,
             10.0,
             0.0,
             60.0,
             {},
             coreText("core", "of the power, into a matched load")},
            {"winding_H",
             coreText("core", "Winding on the line's side"),
             feedGroup,
             Quantity::Inductance,
             0.0,
             0.0,
             1e-2,
             {},
             coreText("core", "inductance; too little lifts the SWR on the lowest band. 0: not counted")},
            {"leakage_H",
             coreText("core", "Leakage inductance"),
             feedGroup,
             Quantity::Inductance,
             0.0,
             0.0,
             1e-4,
             {},
             coreText("core", "on the line's side; spoils the highest bands. 0: not counted")},
        };
        addPlace(all);
        return all;
    }

    /// A short wire cannot climb far.
    void settle(AntennaShape& shape) const override
    {
        const double highest = value(shape, "feed_height_m") + 0.35 * value(shape, "length_m");
        for (const char* key : {"bend_height_m", "end_height_m"})
            shape.parameters[key] = std::min(shape.parameters[key], highest);
    }

    std::vector<TunedLength> tuned(const AntennaShape& shape) const override
    {
        return {{"length_m", coreText("core", "of wire"), shape.designFrequency}};
    }

    /// Its transformer is matched, not its reactance.
    TuneGoal usualGoal() const override { return TuneGoal::LowestSwr; }

    std::vector<RuleOfThumb> rules(const AntennaShape&, const TunedLength& length) const override
    {
        return {
            feetRule("468 / f", coreText("core", "as a centre-fed half-wave, the counterpoise not counted"), 468.0, 1.0, length.frequency),
            feetRule("485 / f", coreText("core", "a cut-long figure: leaves wire to trim"), 485.0, 1.0, length.frequency)};
    }

    std::vector<Lever> levers(const AntennaShape&) const override
    {
        return {{"length_m", coreText("core", "the end"), LeverKind::Cut, LeverSide::OpenEnd, 1},
                {"counterpoise_m", coreText("core", "the counterpoise"), LeverKind::Cut, LeverSide::OpenEnd, 1}};
    }

    std::vector<Part> parts() const override
    {
        return {{"wire", coreText("core", "Wire")}, {"counterpoise", coreText("core", "Counterpoise")}};
    }

    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t) const override
    {
        const auto v = [&](const char* key) { return value(shape, key); };
        const Vec3 feed{v("x_m"), v("y_m"), v("feed_height_m")};
        const double length = v("length_m"), firstRun = v("first_run_m");
        std::vector<Vec3> points{feed};
        if (bent(shape)) {
            if (Faults f = run(points, firstRun, v("bend_height_m"), v("bearing_deg"), "bend_height_m"); !f.empty())
                return f;
            if (Faults f = run(points, length - firstRun, v("end_height_m"), v("bend_bearing_deg"), "end_height_m"); !f.empty())
                return f;
        } else if (Faults f = run(points, length, v("end_height_m"), v("bearing_deg"), "end_height_m"); !f.empty())
            return f;

        BuiltAntenna out;
        out.model.wires.push_back(makeWire(wireOf(shape, "wire"), "wire", points));
        out.model.wires.push_back(makeWire(wireOf(shape, "counterpoise"), "counterpoise", returnPath(shape, feed)));
        out.model.feeds.push_back({0, 0.0, 1.0});
        out.portReference = usualImpedance;
        out.transformer = transformer(v("transformer_ratio"), v("transformer_loss_percent"), v("winding_H"), v("leakage_H"));
        out.highVoltageFeed = true;
        out.feedPoint = feed;
        annotate(out, points, length, v("counterpoise_m"), v("return_kind") > 0.5);
        return out;
    }

    std::optional<std::size_t> hangsBy(const AntennaShape& shape) const override { return bent(shape) ? 2 : 1; }
    AntennaShape hung(const AntennaShape& shape, std::size_t handle, const Hook& hook) const override
    {
        const auto v = [&](const char* key) { return value(shape, key); };
        const Result<BuiltAntenna> here = build(shape, 0);
        if (!here || handle >= here->handles.size())
            return shape;
        const bool hasBend = bent(shape), isBend = hasBend && handle == 1;
        AntennaShape next = shape;
        if (handle == 0) {
            next = Family::hung(shape, handle, hook);
            if (hook.top)
                next.parameters["feed_height_m"] = std::min(v("feed_height_m"), *hook.top);
            return next;
        }
        const Vec3 before = here->handles[handle - 1].at;
        const double east = hook.x - before.x, north = hook.y - before.y, away = std::hypot(east, north);
        next.parameters[hasBend && !isBend ? "bend_bearing_deg" : "bearing_deg"] = bearingTowards(east, north);
        if (isBend) // the wire turns at the hook itself, where there is enough of it
            next.parameters["first_run_m"] =
                std::min(std::hypot(away, hook.top ? *hook.top - before.z : before.z - v("bend_height_m")), 0.98 * v("length_m"));
        if (hook.top) {
            const double length = isBend ? next.parameters["first_run_m"] : v("length_m") - (hasBend ? v("first_run_m") : 0.0);
            next.parameters[isBend ? "bend_height_m" : "end_height_m"] = ropeHeight(before.z, away, *hook.top, length);
        }
        return next;
    }

private:
    bool bent(const AntennaShape& shape) const
    {
        const double firstRun = value(shape, "first_run_m");
        return firstRun > 0.0 && firstRun < value(shape, "length_m");
    }

    /// Adds the next point: so much wire, ending at that height, on that bearing.
    static Faults run(std::vector<Vec3>& points, double length, double height, double bearing, const char* key)
    {
        const double rise = height - points.back().z;
        if (std::abs(rise) >= 0.999 * length)
            return {{key,
                     {coreText("core", "%1 of wire cannot climb %2; change the height or the length"),
                      Measure{length, units::Quantity::Length}, Measure{rise, units::Quantity::Length}}}};
        points.push_back(points.back() + std::sqrt(length * length - rise * rise) * towards(bearing) + Vec3{0.0, 0.0, rise});
        return {};
    }

    /// A counterpoise hangs level away from the wire; a shield drops to 20 cm and runs on there.
    std::vector<Vec3> returnPath(const AntennaShape& shape, Vec3 feed) const
    {
        constexpr double shieldHeight = 0.2;
        const double length = value(shape, "counterpoise_m");
        const Vec3 away = towards(value(shape, "bearing_deg") + 180.0);
        if (value(shape, "return_kind") < 0.5)
            return {feed, feed + length * away};
        const double drop = std::min(length, feed.z - shieldHeight);
        if (drop <= 0.01)
            return {feed, feed + length * away};
        std::vector<Vec3> points{feed, feed - Vec3{0.0, 0.0, drop}};
        if (length - drop > 0.02)
            points.push_back(points.back() + (length - drop) * away);
        return points;
    }

    static void annotate(BuiltAntenna& out, const std::vector<Vec3>& points, double length, double counterpoise, bool shield)
    {
        out.handles.push_back({coreText("core", "feed"), points.front(), {"feed_height_m"}});
        if (points.size() == 3)
            out.handles.push_back({coreText("core", "bend"), points[1], {"bend_height_m", "first_run_m"}});
        out.handles.push_back({coreText("core", "far end"), points.back(), {"end_height_m", "length_m"}});
        for (std::size_t i = 1; i < points.size(); ++i)
            out.dimensions.push_back({points[i - 1], points[i], "length_m"});
        out.insulators.push_back(points.back());
        out.sections.push_back({coreText("core", "wire"), 1, length, WireEnd::Transformer, WireEnd::Insulator});
        if (!shield)
            out.sections.push_back({coreText("core", "counterpoise"), 1, counterpoise, WireEnd::Transformer, WireEnd::Insulator, false});
    }
};

} // namespace

const Family& endFedFamily()
{
    static const EndFed family;
    return family;
}

} // namespace vetchling::shapes
