/// End-fed half-wave: straight or with one bend, fed through a transformer against a short counterpoise or the shield.
#include "core/shapes/dipole_geometry.h"

#include <fmt/format.h>

#include <cmath>

namespace vetchling::shapes {
namespace {

enum Return { counterpoiseWire = 0, coaxShield = 1 };

class EndFed final : public Family {
public:
    std::string id() const override { return "end-fed"; }
    std::string title() const override { return "End-fed half-wave"; }
    std::string summary() const override { return "Half a wave fed at its end through a transformer, straight or bent round a corner."; }
    std::string tunedParameter() const override { return "length_m"; }
    std::string tunedName() const override { return "of wire"; }
    int trimmedEnds() const override { return 1; }

    std::vector<ParameterSpec> parameters() const override
    {
        using units::Quantity;
        std::vector<ParameterSpec> all{
            {"feed_height_m", "Height of feed", "Where it hangs", Quantity::Length, 2.5, 0.05, 500.0, {}, {}},
            {"bend_height_m", "Height at the bend", "Where it hangs", Quantity::Length, 6.0, 0.05, 500.0, {}, "used when there is a bend"},
            {"end_height_m", "Height of far end", "Where it hangs", Quantity::Length, 6.0, 0.05, 500.0, {}, {}},
            {"length_m", "Length of wire", "Length", Quantity::Length, 20.1, 0.5, 5000.0, {}, {}},
            {"first_run_m", "Wire up to the bend", "Length", Quantity::Length, 0.0, 0.0, 5000.0, {}, "0: no bend"},
            {"bend_bearing_deg", "Bearing after the bend", "Where it stands", Quantity::Angle, 0.0, -360.0, 360.0, {}, {}},
            {"return_kind",
             "Return current in",
             "Feed",
             Quantity::Plain,
             0.0,
             0.0,
             1.0,
             {"short counterpoise", "coax shield to a choke"},
             "one school says none is needed: then the shield is it"},
            {"counterpoise_m",
             "Length of that",
             "Feed",
             Quantity::Length,
             2.0,
             0.1,
             100.0,
             {},
             "counterpoise, or shield from the transformer to the choke"},
            {"transformer_ratio", "Transformer 1 to", "Feed", Quantity::Plain, 49.0, 1.0, 200.0, {}, "impedance ratio"},
            {"transformer_loss_percent", "It loses", "Feed", Quantity::Percent, 10.0, 0.0, 60.0, {}, "of the power, into a matched load"},
            {"winding_H",
             "Winding on the line's side",
             "Feed",
             Quantity::Inductance,
             0.0,
             0.0,
             1e-2,
             {},
             "inductance; too little lifts the SWR on the lowest band. 0: not counted"},
            {"leakage_H",
             "Leakage inductance",
             "Feed",
             Quantity::Inductance,
             0.0,
             0.0,
             1e-4,
             {},
             "on the line's side; spoils the highest bands. 0: not counted"},
        };
        for (ParameterSpec& s : placeParameters())
            all.push_back(std::move(s));
        return all;
    }

    std::vector<RuleOfThumb> rules(const AntennaShape&, double frequency) const override
    {
        return {feetRule("468 / f", "as a centre-fed half-wave, the counterpoise not counted", 468.0, 1.0, frequency),
                feetRule("485 / f", "a cut-long figure: leaves wire to trim", 485.0, 1.0, frequency)};
    }

    Result<BuiltAntenna> build(const AntennaShape& shape) const override
    {
        const auto v = [&](const char* key) { return value(shape, key); };
        const Vec3 feed{v("x_m"), v("y_m"), v("feed_height_m")};
        const double length = v("length_m"), firstRun = v("first_run_m");
        std::vector<Vec3> points{feed};
        if (firstRun > 0.0 && firstRun < length) {
            if (Faults f = run(points, firstRun, v("bend_height_m"), v("bearing_deg"), "bend_height_m"); !f.empty())
                return f;
            if (Faults f = run(points, length - firstRun, v("end_height_m"), v("bend_bearing_deg"), "end_height_m"); !f.empty())
                return f;
        } else if (Faults f = run(points, length, v("end_height_m"), v("bearing_deg"), "end_height_m"); !f.empty())
            return f;

        BuiltAntenna out;
        out.model.wires.push_back(makeWire(shape.wire, "wire", points));
        out.model.wires.push_back(makeWire(shape.wire, "counterpoise", returnPath(shape, feed)));
        out.model.feeds.push_back({0, 0.0, 1.0});
        out.model.feeds[0].transformer = transformer(v("transformer_ratio"), v("transformer_loss_percent"), v("winding_H"), v("leakage_H"));
        out.highVoltageFeed = true;
        out.feedPoint = feed;
        annotate(out, points, length, v("counterpoise_m"), v("return_kind") > 0.5);
        return out;
    }

private:
    /// Adds the next point: so much wire, ending at that height, on that bearing.
    static Faults run(std::vector<Vec3>& points, double length, double height, double bearing, const char* key)
    {
        const double rise = height - points.back().z;
        if (std::abs(rise) >= 0.999 * length)
            return {{key, fmt::format("{:.2f} m of wire cannot climb {:.2f} m; change the height or the length", length, rise)}};
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
        out.handles.push_back({"feed", points.front(), {"feed_height_m"}});
        if (points.size() == 3)
            out.handles.push_back({"bend", points[1], {"bend_height_m", "first_run_m"}});
        out.handles.push_back({"far end", points.back(), {"end_height_m", "length_m"}});
        for (std::size_t i = 1; i < points.size(); ++i)
            out.dimensions.push_back({points[i - 1], points[i], "length_m"});
        out.insulators.push_back(points.back());
        out.sections.push_back({"wire", 1, length, WireEnd::Transformer, WireEnd::Insulator});
        if (!shield)
            out.sections.push_back({"counterpoise", 1, counterpoise, WireEnd::Transformer, WireEnd::Insulator});
    }
};

} // namespace

const Family& endFedFamily()
{
    static const EndFed family;
    return family;
}

} // namespace vetchling::shapes
