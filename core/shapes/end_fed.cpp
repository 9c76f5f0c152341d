/// End-fed half-wave: straight or with one bend, fed through a transformer against a short counterpoise or the shield.
#include "core/shapes/end_fed_parts.h"
#include "core/shapes/loading.h"

#include <algorithm>
#include <cmath>

namespace vetchling::shapes {
namespace {

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
        std::vector<ParameterSpec> all = endFedHeights();
        all.insert(all.begin() + 1, lengthSpec("bend_height_m", coreText("core", "Height at the bend"), hangsGroup, {6.0, 0.05, 500.0},
                                               coreText("core", "used when there is a bend")));
        all.push_back(tunedLengthSpec("length_m", coreText("core", "Length of wire")));
        all.push_back(lengthSpec("first_run_m", coreText("core", "Wire up to the bend"), lengthGroup, {0.0, 0.0, 5000.0},
                                 coreText("core", "0: no bend")));
        all.push_back(lengthSpec("drop_m", coreText("core", "Hanging down at the far end"), lengthGroup, {0.0, 0.0, 500.0},
                                 coreText("core", "of the wire's length; 0 for none")));
        all.push_back(angleSpec("bend_bearing_deg", coreText("core", "Bearing after the bend"), standsGroup, {0.0, -360.0, 360.0}));
        all.push_back(inductanceSpec("coil_H", coreText("core", "Compensating coil"), coilsGroup, {0.0, 0.0, 1e-3},
                                     coreText("core", "near the feed it lowers the upper bands more than the lowest; 0 for none")));
        all.push_back(lengthSpec("coil_at_m", coreText("core", "Coil from the feed at"), coilsGroup, {2.0, 0.01, 5000.0},
                                 coreText("core", "along the wire"), 0.05));
        all.push_back(coilQuality());
        addEndFedFeed(all, 49.0);
        return all;
    }

    void settle(AntennaShape& shape) const override { lowerToReach(*this, shape, "length_m", {"bend_height_m", "end_height_m"}); }

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

    std::vector<Part> parts() const override { return endFedParts(); }

    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t) const override
    {
        const auto v = [&](const char* key) { return value(shape, key); };
        const double length = v("length_m"), firstRun = v("first_run_m"), drop = v("drop_m"), hung = length - drop;
        if (drop > 0.0 && hung <= (bent(shape) ? firstRun : 0.0) + 0.02 * length)
            return Fault{"drop_m",
                         {coreText("core", "the wire is only %1 long; let less hang down"), Measure{length, units::Quantity::Length}}};
        std::vector<Vec3> points{{v("x_m"), v("y_m"), v("feed_height_m")}};
        if (bent(shape)) {
            if (Faults f = addRun(points, firstRun, v("bend_height_m"), v("bearing_deg"), "bend_height_m"); !f.empty())
                return f;
            if (Faults f = addRun(points, hung - firstRun, v("end_height_m"), v("bend_bearing_deg"), "end_height_m"); !f.empty())
                return f;
        } else if (Faults f = addRun(points, hung, v("end_height_m"), v("bearing_deg"), "end_height_m"); !f.empty())
            return f;
        const std::vector<Vec3> corners = points;
        if (drop > 0.0)
            points.push_back(points.back() - Vec3{0.0, 0.0, drop});
        BuiltAntenna out = endFedFrame(*this, shape, points, halfWaveFeedImpedance);
        if (Faults f = addCoil(shape, out); !f.empty())
            return f;
        annotate(out, corners, points.back(), drop > 0.0);
        sections(shape, out);
        addCounterpoiseSection(*this, shape, out);
        return out;
    }

    AntennaShape straightened(const AntennaShape& shape) const override
    {
        AntennaShape next = shape;
        next.parameters["first_run_m"] = next.parameters["drop_m"] = 0.0;
        next.parameters["end_height_m"] = value(shape, "feed_height_m");
        return next;
    }
    std::optional<std::size_t> hangsBy(const AntennaShape& shape) const override { return bent(shape) ? 2 : 1; }
    std::optional<AntennaShape> between(const AntennaShape& shape, const Hook& from, const Hook& to) const override
    {
        return endFedBetween(*this, shape, from, to);
    }
    AntennaShape hung(const AntennaShape& shape, std::size_t handle, const Hook& hook) const override
    {
        const auto v = [&](const char* key) { return value(shape, key); };
        const Result<BuiltAntenna> here = build(shape, 0);
        if (!here || handle >= here->handles.size())
            return shape;
        const bool hasBend = bent(shape), isBend = hasBend && handle == 1;
        handle = std::min<std::size_t>(handle, hasBend ? 2 : 1); // what hangs down goes with the end
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
            const double length =
                isBend ? next.parameters["first_run_m"] : v("length_m") - v("drop_m") - (hasBend ? v("first_run_m") : 0.0);
            next.parameters[isBend ? "bend_height_m" : "end_height_m"] = ropeHeight(before.z, away, *hook.top, length);
        }
        return next;
    }

private:
    bool bent(const AntennaShape& shape) const
    {
        const double firstRun = value(shape, "first_run_m");
        return firstRun > 0.0 && firstRun < value(shape, "length_m") - value(shape, "drop_m");
    }

    Faults addCoil(const AntennaShape& shape, BuiltAntenna& out) const
    {
        const double henry = value(shape, "coil_H"), at = value(shape, "coil_at_m"), length = value(shape, "length_m");
        if (henry == 0.0)
            return {};
        if (at >= 0.98 * length)
            return {{"coil_at_m",
                     {coreText("core", "the wire ends at %1; put the coil nearer to the feed"), Measure{length, units::Quantity::Length}}}};
        addSeriesCoil(out, 0, at, henry, value(shape, "coil_q"));
        return {};
    }

    static void annotate(BuiltAntenna& out, const std::vector<Vec3>& corners, Vec3 tip, bool dropped)
    {
        if (corners.size() == 3)
            out.handles.push_back({coreText("core", "bend"), corners[1], {"bend_height_m", "first_run_m"}});
        out.handles.push_back({coreText("core", "far end"), corners.back(), {"end_height_m", "length_m"}});
        for (std::size_t i = 1; i < corners.size(); ++i)
            out.dimensions.push_back({corners[i - 1], corners[i], "length_m"});
        if (dropped) {
            out.handles.push_back({coreText("core", "tip"), tip, {"drop_m"}});
            out.dimensions.push_back({corners.back(), tip, "drop_m"});
        }
        out.insulators.push_back(tip);
    }

    void sections(const AntennaShape& shape, BuiltAntenna& out) const
    {
        const double length = value(shape, "length_m"), at = value(shape, "coil_at_m");
        if (out.coils.empty()) {
            out.sections.push_back({coreText("core", "wire"), 1, length, WireEnd::Transformer, WireEnd::Insulator});
            return;
        }
        out.sections.push_back({coreText("core", "wire up to the coil"), 1, at, WireEnd::Transformer, WireEnd::Coil, false});
        out.sections.push_back({coreText("core", "wire beyond the coil"), 1, length - at, WireEnd::Coil, WireEnd::Insulator});
    }
};

} // namespace

const Family& endFedFamily()
{
    static const EndFed family;
    return family;
}

} // namespace vetchling::shapes
