/// End-fed half-wave: straight or round up to four corners, fed through a transformer against a short counterpoise or the shield.
#include "core/shapes/end_fed_parts.h"
#include "core/shapes/loading.h"

#include <algorithm>
#include <cmath>

namespace vetchling::shapes {
namespace {

constexpr int mostMoreCorners = 3;

/// A corner: the wire up to it, its height, and where the wire goes on from there, by their keys.
struct Corner {
    std::string run, height, bearingAfter;
};

/// The first corner is the bend that a wire may have or not; further ones are counted.
Corner cornerKeys(int corner)
{
    if (corner == 1)
        return {"first_run_m", "bend_height_m", "bend_bearing_deg"};
    const std::string number = std::to_string(corner);
    return {"run_" + number + "_m", "bend_" + number + "_height_m", "bend_" + number + "_bearing_deg"};
}

class EndFed final : public Family {
public:
    std::string id() const override { return "end-fed"; }
    Multiples multiples() const override { return Multiples::All; }
    std::string title() const override { return coreText("core", "End-fed half-wave"); }
    std::string summary() const override
    {
        return coreText("core", "Half a wave fed at its end through a transformer, straight or bent round corners.");
    }

    std::string layout(const AntennaShape& shape) const override { return std::to_string(moreCorners(shape)); }

    std::vector<ParameterSpec> parameters(const AntennaShape& shape) const override
    {
        std::vector<ParameterSpec> all = endFedHeights();
        all.insert(all.begin() + 1, lengthSpec("bend_height_m", coreText("core", "Height at the bend"), hangsGroup, {6.0, 0.05, 500.0},
                                               coreText("core", "used when there is a bend")));
        all.push_back(tunedLengthSpec("length_m", coreText("core", "Length of wire")));
        all.push_back(lengthSpec("first_run_m", coreText("core", "Wire up to the bend"), lengthGroup, {0.0, 0.0, 5000.0},
                                 coreText("core", "0: no bend")));
        all.push_back(angleSpec("bend_bearing_deg", coreText("core", "Bearing after the bend"), lengthGroup, {0.0, -360.0, 360.0}));
        all.push_back(numberSpec("more_corners", coreText("core", "Further corners"), lengthGroup, {0.0, 0.0, double(mostMoreCorners)},
                                 coreText("core", "beyond the first bend")));
        for (int i = 0; i < moreCorners(shape); ++i) {
            const Corner keys = cornerKeys(i + 2);
            all.push_back(
                lengthSpec(keys.run, runLabels[i], lengthGroup, {3.0, 0.01, 5000.0}, coreText("core", "from the corner before"), 0.08));
            all.push_back(lengthSpec(keys.height, heightLabels[i], hangsGroup, {6.0, 0.05, 500.0}));
            all.push_back(angleSpec(keys.bearingAfter, bearingLabels[i], lengthGroup, {90.0 * (i + 1), -360.0, 360.0}));
        }
        all.push_back(lengthSpec("drop_m", coreText("core", "Hanging down at the far end"), lengthGroup, {0.0, 0.0, 500.0},
                                 coreText("core", "of the wire's length; 0 for none")));
        all.push_back(inductanceSpec("coil_H", coreText("core", "Compensating coil"), coilsGroup, {0.0, 0.0, 1e-3},
                                     coreText("core", "near the feed it lowers the upper bands more than the lowest; 0 for none")));
        all.push_back(lengthSpec("coil_at_m", coreText("core", "Coil from the feed at"), coilsGroup, {2.0, 0.01, 5000.0},
                                 coreText("core", "along the wire, to its middle"), 0.05));
        addCoilSpecs(all);
        addEndFedFeed(all, 49.0);
        return all;
    }

    /// Straight wires only: the tail goes on where the wire ends.
    std::optional<AntennaShape> withLowerBand(const AntennaShape& shape, double frequency) const override
    {
        if (value(shape, "first_run_m") > 0.0 || moreCorners(shape) > 0 || value(shape, "drop_m") > 0.0)
            return std::nullopt;
        return endFedWithTail(shape, frequency);
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

    std::vector<Lever> levers(const AntennaShape& shape) const override
    {
        std::vector<Lever> all{{"length_m", coreText("core", "the end"), LeverKind::Cut, LeverSide::OpenEnd, 1}};
        addCounterpoiseLever(shape, all);
        return all;
    }
    std::vector<Text> remarks(const AntennaShape& shape) const override { return returnRemarks(shape); }

    std::vector<Part> parts() const override { return endFedParts(); }

    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t) const override
    {
        const double length = value(shape, "length_m"), drop = value(shape, "drop_m");
        const std::vector<Corner> turns = cornersOf(shape);
        double left = length - drop, bearing = value(shape, "bearing_deg");
        for (const Corner& turn : turns)
            left -= value(shape, turn.run);
        if (left <= 0.02 * length)
            return Fault{drop > 0.0 ? "drop_m" : turns.back().run,
                         {coreText("core", "the wire is only %1 long; let less hang down, or turn sooner"),
                          Measure{length, units::Quantity::Length}}};
        std::vector<Vec3> points{{value(shape, "x_m"), value(shape, "y_m"), value(shape, "feed_height_m")}};
        for (const Corner& turn : turns) {
            if (Faults f = addRun(points, value(shape, turn.run), value(shape, turn.height), bearing, turn.height); !f.empty())
                return f;
            bearing = value(shape, turn.bearingAfter);
        }
        if (Faults f = addRun(points, left, value(shape, "end_height_m"), bearing, "end_height_m"); !f.empty())
            return f;
        const std::vector<Vec3> corners = points;
        if (drop > 0.0)
            points.push_back(points.back() - Vec3{0.0, 0.0, drop});
        BuiltAntenna out = endFedFrame(*this, shape, points, halfWaveFeedImpedance);
        if (Faults f = addCoil(shape, out); !f.empty())
            return f;
        annotate(out, turns, corners, points.back(), drop > 0.0);
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
    std::optional<std::size_t> hangsBy(const AntennaShape& shape) const override { return cornersOf(shape).size() + 1; }
    std::optional<AntennaShape> between(const AntennaShape& shape, const Hook& from, const Hook& to) const override
    {
        return endFedBetween(*this, shape, from, to);
    }
    /// What hangs down at the far end has no feed to come up to it.
    std::optional<AntennaShape> flipped(const AntennaShape& shape) const override
    {
        const Result<BuiltAntenna> here = build(shape, 0);
        if (!here || value(shape, "drop_m") > 0.0)
            return std::nullopt;
        const std::vector<Vec3> way(here->model.wires.front().points.rbegin(), here->model.wires.front().points.rend());
        const std::vector<Corner> turns = cornersOf(shape);
        AntennaShape next = shape;
        next.parameters["x_m"] = way.front().x;
        next.parameters["y_m"] = way.front().y;
        next.parameters["feed_height_m"] = way.front().z;
        next.parameters["end_height_m"] = way.back().z;
        for (std::size_t i = 0; i + 1 < way.size(); ++i) {
            const Vec3 run = way[i + 1] - way[i];
            next.parameters[i == 0 ? "bearing_deg" : turns[i - 1].bearingAfter] = bearingTowards(run.x, run.y);
            if (i < turns.size()) {
                next.parameters[turns[i].run] = distance(way[i], way[i + 1]);
                next.parameters[turns[i].height] = way[i + 1].z;
            }
        }
        return next;
    }
    bool shapesCorners(const std::string& key) const override
    {
        return key == "first_run_m" || key == "more_corners" || key.starts_with("run_") || key.starts_with("bend_");
    }
    void beginCorners(const AntennaShape& before, AntennaShape& next) const override
    {
        const Result<BuiltAntenna> was = build(before, 0);
        const std::vector<Corner> turns = cornersOf(next);
        const std::size_t old = cornersOf(before).size();
        if (!was || turns.size() <= old)
            return;
        const Wire& wire = was->model.wires.front();
        double at = 0.0;
        for (std::size_t i = 0; i < turns.size(); ++i) {
            at += value(next, turns[i].run);
            if (i < old || at >= wire.length())
                continue;
            constexpr double ahead = 0.01; // m
            const Vec3 here = wire.pointAt(at), then = wire.pointAt(std::min(wire.length(), at + ahead));
            next.parameters[turns[i].height] = here.z;
            next.parameters[turns[i].bearingAfter] = bearingTowards(then.x - here.x, then.y - here.y);
        }
    }
    AntennaShape hung(const AntennaShape& shape, std::size_t handle, const Hook& hook) const override
    {
        const Result<BuiltAntenna> here = build(shape, 0);
        if (!here || handle >= here->handles.size() || here->handles[handle].parameters.front() == "coil_at_m")
            return shape;
        const std::vector<Corner> turns = cornersOf(shape);
        handle = std::min(handle, turns.size() + 1); // what hangs down goes with the end
        AntennaShape next = shape;
        if (handle == 0) {
            next = Family::hung(shape, handle, hook);
            if (hook.top)
                next.parameters["feed_height_m"] = std::min(value(shape, "feed_height_m"), *hook.top);
            return next;
        }
        const Vec3 before = here->handles[handle - 1].at;
        const double east = hook.x - before.x, north = hook.y - before.y, away = std::hypot(east, north);
        const bool isEnd = handle == turns.size() + 1;
        const std::string height = isEnd ? "end_height_m" : turns[handle - 1].height;
        next.parameters[handle == 1 ? "bearing_deg" : turns[handle - 2].bearingAfter] = bearingTowards(east, north);
        double length = distance(here->handles[handle].at, before);
        if (!isEnd) { // the wire turns at the hook itself, where there is enough of it
            length = std::min(std::hypot(away, (hook.top ? *hook.top : value(shape, height)) - before.z),
                              length + 0.9 * distance(here->handles[handle + 1].at, here->handles[handle].at));
            next.parameters[turns[handle - 1].run] = length;
        }
        if (hook.top)
            next.parameters[height] = ropeHeight(before.z, away, *hook.top, length);
        return next;
    }

private:
    using Texts = const char* const[mostMoreCorners];
    static constexpr Texts runLabels = {coreText("core", "Wire to the second corner"), coreText("core", "Wire to the third corner"),
                                        coreText("core", "Wire to the fourth corner")};
    static constexpr Texts heightLabels = {coreText("core", "Height at the second corner"), coreText("core", "Height at the third corner"),
                                           coreText("core", "Height at the fourth corner")};
    static constexpr Texts bearingLabels = {coreText("core", "Bearing after the second"), coreText("core", "Bearing after the third"),
                                            coreText("core", "Bearing after the fourth")};

    static int moreCorners(const AntennaShape& shape) { return countOf(shape, "more_corners", 0, mostMoreCorners); }

    /// None where the first bend would lie beyond the wire.
    std::vector<Corner> cornersOf(const AntennaShape& shape) const
    {
        const double firstRun = value(shape, "first_run_m");
        if (!(firstRun > 0.0 && firstRun < value(shape, "length_m") - value(shape, "drop_m")))
            return {};
        std::vector<Corner> all;
        for (int corner = 1; corner <= 1 + moreCorners(shape); ++corner)
            all.push_back(cornerKeys(corner));
        return all;
    }

    Faults addCoil(const AntennaShape& shape, BuiltAntenna& out) const
    {
        const double henry = value(shape, "coil_H"), at = value(shape, "coil_at_m"), length = value(shape, "length_m");
        if (henry == 0.0)
            return {};
        if (at >= 0.98 * length)
            return {{"coil_at_m",
                     {coreText("core", "the wire ends at %1; put the coil nearer to the feed"), Measure{length, units::Quantity::Length}}}};
        const CoilSize size = coilSizeOf(*this, shape);
        if (Faults faults = findSizeFaults(size, at, length - at, wireOf(shape, "wire").diameter); !faults.empty())
            return faults;
        addSeriesCoil(out, 0, at, henry, value(shape, "coil_q"), size);
        return {};
    }

    static void annotate(BuiltAntenna& out, const std::vector<Corner>& turns, const std::vector<Vec3>& corners, Vec3 tip, bool dropped)
    {
        for (std::size_t i = 0; i < turns.size(); ++i)
            out.handles.push_back(
                {i == 0 ? coreText("core", "bend") : coreText("core", "corner"), corners[i + 1], {turns[i].height, turns[i].run}});
        out.handles.push_back({coreText("core", "far end"), corners.back(), {"end_height_m", "length_m"}});
        for (std::size_t i = 1; i < corners.size(); ++i)
            out.dimensions.push_back({corners[i - 1], corners[i], "length_m"});
        if (dropped) {
            out.handles.push_back({coreText("core", "tip"), tip, {"drop_m"}});
            out.dimensions.push_back({corners.back(), tip, "drop_m"});
        }
        out.insulators.push_back(tip);
        for (const CoilPlace& coil : out.coils)
            out.handles.push_back({coreText("core", "coil"), coil.at, {"coil_at_m"}});
    }

    void sections(const AntennaShape& shape, BuiltAntenna& out) const
    {
        const double length = value(shape, "length_m"), at = value(shape, "coil_at_m");
        if (out.coils.empty()) {
            out.sections.push_back({coreText("core", "wire"), 1, length, WireEnd::Transformer, WireEnd::Insulator});
            return;
        }
        const double half = 0.5 * out.model.loads.front().size.length;
        out.sections.push_back({coreText("core", "wire up to the coil"), 1, at - half, WireEnd::Transformer, WireEnd::Coil, false});
        out.sections.push_back({coreText("core", "wire beyond the coil"), 1, length - at - half, WireEnd::Coil, WireEnd::Insulator});
    }
};

} // namespace

const Family& endFedFamily()
{
    static const EndFed family;
    return family;
}

} // namespace vetchling::shapes
