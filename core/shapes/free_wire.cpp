/// A wire of one's own: pieces that each go so far, on a bearing, to a height; fed anywhere along it.
#include "core/shapes/end_fed_parts.h"

#include <algorithm>
#include <cmath>

namespace vetchling::shapes {
namespace {

constexpr int fewestPoints = 2, mostPoints = 12;

class FreeWire final : public Family {
public:
    std::string id() const override { return "free"; }
    bool isForSites() const override { return false; }
    Multiples multiples() const override { return Multiples::All; }
    std::string title() const override { return coreText("core", "Drawn by hand"); }
    std::string summary() const override
    {
        return coreText("core", "One wire in pieces: each goes so far, on a bearing, up or down to a height. Fed wherever you like.");
    }

    std::string layout(const AntennaShape& shape) const override { return std::to_string(piecesOf(shape)); }

    std::vector<ParameterSpec> parameters(const AntennaShape& shape) const override
    {
        const int pieces = piecesOf(shape);
        std::vector<ParameterSpec> all{
            lengthSpec("start_height_m", coreText("core", "Begins at a height of"), hangsGroup, {6.0, 0.05, 500.0}),
            numberSpec("piece_count", coreText("core", "Pieces"), piecesGroup, {3.0, double(fewestPoints), double(mostPoints)}),
        };
        for (int piece = 1; piece <= pieces; ++piece) {
            const bool outer = piece == 1 || piece == pieces;
            all.push_back(lengthSpec(key(piece, "_m"), text(piece, lengths), piecesGroup, {5.0, 0.01, 2000.0},
                                     coreText("core", "along the wire, from the point before"), outer ? 0.16 : 0.15));
            all.push_back(angleSpec(key(piece, "_bearing_deg"), text(piece, bearings), piecesGroup, {90.0, -360.0, 360.0},
                                    coreText("core", "towards, counted from the bearing of the whole")));
            all.push_back(lengthSpec(key(piece, "_rise_m"), text(piece, rises), piecesGroup, {0.0, -300.0, 300.0},
                                     coreText("core", "at its far end above its near one; below zero it goes down")));
        }
        all.push_back(percentSpec("feed_percent", coreText("core", "Fed at"), feedGroup, {50.0, 0.5, 99.5},
                                  coreText("core", "of the wire, from its beginning")));
        all.push_back(transformerRatio(1.0, 200.0));
        addPlace(all);
        return all;
    }

    /// A flat zigzag that a first look can make sense of.
    void settle(AntennaShape& shape) const override
    {
        for (int piece = 1; piece <= piecesOf(shape); ++piece)
            shape.parameters[key(piece, "_bearing_deg")] = piece % 2 == 1 ? -20.0 : 20.0;
    }

    std::vector<TunedLength> tuned(const AntennaShape& shape) const override
    {
        return {{key(piecesOf(shape), "_m"), coreText("core", "of the last piece"), shape.designFrequency}};
    }
    std::vector<RuleOfThumb> rules(const AntennaShape& shape, const TunedLength& length) const override
    {
        double before = 0.0;
        for (int piece = 1; piece < piecesOf(shape); ++piece)
            before += value(shape, key(piece, "_m"));
        const double half = feetRule("", "", 468.0, 1.0, length.frequency).value;
        double whole = half;
        while (whole < 1.05 * before)
            whole += 2.0 * half;
        return {{coreText("core", "rest of a half wave"),
                 coreText("core", "all of the wire an odd number of half waves, as if it were straight"), 0.0, 0.0,
                 std::max(0.02, whole - before)}};
    }
    std::vector<Lever> levers(const AntennaShape& shape) const override
    {
        return {{key(piecesOf(shape), "_m"), coreText("core", "the last piece"), LeverKind::Cut, LeverSide::OpenEnd, 1},
                {key(1, "_m"), coreText("core", "the first piece"), LeverKind::Cut, LeverSide::OpenEnd, 1}};
    }

    /// The pieces as one would tell them to somebody who walks along the wire.
    std::vector<Text> remarks(const AntennaShape& shape) const override
    {
        using units::Quantity;
        double height = value(shape, "start_height_m");
        std::vector<Text> all{{coreText("core", "it begins %1 above the ground"), Measure{height, Quantity::Length}}};
        for (int piece = 1; piece <= piecesOf(shape); ++piece) {
            const double rise = value(shape, key(piece, "_rise_m"));
            const double bearing = std::fmod(value(shape, "bearing_deg") + value(shape, key(piece, "_bearing_deg")) + 720.0, 360.0);
            height += rise;
            const Measure length{value(shape, key(piece, "_m")), Quantity::Length}, towards{bearing, Quantity::Angle},
                to{height, Quantity::Length};
            if (rise == 0.0)
                all.push_back({coreText("core", "then %1 towards %2, level"), length, towards});
            else
                all.push_back(
                    {rise > 0.0 ? coreText("core", "then %1 towards %2, up to %3") : coreText("core", "then %1 towards %2, down to %3"),
                     length, towards, to});
        }
        return all;
    }

    /// What is dragged to a hook takes its piece along and leaves the length.
    AntennaShape hung(const AntennaShape& shape, std::size_t handle, const Hook& hook) const override
    {
        const Result<BuiltAntenna> here = build(shape, 0);
        if (!here || handle >= here->handles.size() || handle == 0) {
            AntennaShape next = Family::hung(shape, handle, hook);
            if (hook.top && here)
                next.parameters["start_height_m"] = *hook.top;
            return next;
        }
        const int piece = int(handle);
        const Vec3 from = here->handles[handle - 1].at;
        const double length = value(shape, key(piece, "_m")), east = hook.x - from.x, north = hook.y - from.y;
        AntennaShape next = shape;
        next.parameters[key(piece, "_bearing_deg")] = withinTurn(bearingTowards(east, north) - value(shape, "bearing_deg"));
        if (hook.top)
            next.parameters[key(piece, "_rise_m")] = ropeHeight(from.z, std::hypot(east, north), *hook.top, length) - from.z;
        return next;
    }

    std::optional<AntennaShape> withCorner(const AntennaShape& shape, Vec3 at) const override
    {
        constexpr double near = 0.02; // of the wire
        const Result<BuiltAntenna> here = build(shape, 0);
        if (!here || piecesOf(shape) >= mostPoints)
            return std::nullopt;
        std::vector<Vec3> points = here->model.wires[0].points;
        std::size_t place = points.size(); // as a new end
        double closest = near * here->model.wires[0].length();
        for (std::size_t i = 1; i < points.size(); ++i)
            if (const double away = distanceToPiece(at, points[i - 1], points[i]); away < closest) {
                closest = away;
                place = i;
            }
        points.insert(points.begin() + std::ptrdiff_t(place), at);
        return through(shape, points);
    }

    std::optional<AntennaShape> withoutCorner(const AntennaShape& shape, std::size_t handle) const override
    {
        const Result<BuiltAntenna> here = build(shape, 0);
        if (!here || piecesOf(shape) <= fewestPoints || handle >= here->handles.size())
            return std::nullopt;
        std::vector<Vec3> points = here->model.wires[0].points;
        points.erase(points.begin() + std::ptrdiff_t(handle));
        return through(shape, points);
    }

    Result<BuiltAntenna> build(const AntennaShape& shape, std::size_t) const override
    {
        std::vector<Vec3> points{{value(shape, "x_m"), value(shape, "y_m"), value(shape, "start_height_m")}};
        const int pieces = piecesOf(shape);
        for (int piece = 1; piece <= pieces; ++piece)
            if (Faults f = addRun(points, value(shape, key(piece, "_m")), points.back().z + value(shape, key(piece, "_rise_m")),
                                  value(shape, "bearing_deg") + value(shape, key(piece, "_bearing_deg")), key(piece, "_rise_m"));
                !f.empty())
                return f;
        BuiltAntenna out;
        out.model.wires = {makeWire(shape.wire, "wire", points)};
        const double whole = out.model.wires[0].length(), fed = 0.01 * value(shape, "feed_percent") * whole;
        out.model.feeds = {{0, fed, 1.0}};
        out.feedPoint = out.model.wires[0].pointAt(fed);
        out.transformer = transformer(value(shape, "transformer_ratio"));
        out.portReference = 50.0 * value(shape, "transformer_ratio");
        out.handles = {{coreText("core", "beginning"), points.front(), {"start_height_m"}}};
        for (int piece = 1; piece <= pieces; ++piece) {
            const Vec3 to = points[std::size_t(piece)];
            out.handles.push_back({piece == pieces ? coreText("core", "end") : coreText("core", "corner"),
                                   to,
                                   {key(piece, "_m"), key(piece, "_rise_m"), key(piece, "_bearing_deg")}});
            out.dimensions.push_back({points[std::size_t(piece) - 1], to, key(piece, "_m")});
        }
        out.insulators = {points.front(), points.back()};
        out.sections = {{coreText("core", "wire before the feed"), 1, fed, WireEnd::Insulator, WireEnd::Centre},
                        {coreText("core", "wire beyond the feed"), 1, whole - fed, WireEnd::Centre, WireEnd::Insulator}};
        return out;
    }

private:
    using Texts = const char* const[mostPoints];
    static constexpr Texts lengths = {
        coreText("core", "First piece"),   coreText("core", "Second piece"),   coreText("core", "Third piece"),
        coreText("core", "Fourth piece"),  coreText("core", "Fifth piece"),    coreText("core", "Sixth piece"),
        coreText("core", "Seventh piece"), coreText("core", "Eighth piece"),   coreText("core", "Ninth piece"),
        coreText("core", "Tenth piece"),   coreText("core", "Eleventh piece"), coreText("core", "Twelfth piece")};
    static constexpr Texts bearings = {
        coreText("core", "First towards"),   coreText("core", "Second towards"),   coreText("core", "Third towards"),
        coreText("core", "Fourth towards"),  coreText("core", "Fifth towards"),    coreText("core", "Sixth towards"),
        coreText("core", "Seventh towards"), coreText("core", "Eighth towards"),   coreText("core", "Ninth towards"),
        coreText("core", "Tenth towards"),   coreText("core", "Eleventh towards"), coreText("core", "Twelfth towards")};
    static constexpr Texts rises = {
        coreText("core", "First rises by"),   coreText("core", "Second rises by"),   coreText("core", "Third rises by"),
        coreText("core", "Fourth rises by"),  coreText("core", "Fifth rises by"),    coreText("core", "Sixth rises by"),
        coreText("core", "Seventh rises by"), coreText("core", "Eighth rises by"),   coreText("core", "Ninth rises by"),
        coreText("core", "Tenth rises by"),   coreText("core", "Eleventh rises by"), coreText("core", "Twelfth rises by")};
    static constexpr const char* piecesGroup = coreText("core", "Pieces, from its beginning");

    static const char* text(int piece, Texts& texts) { return texts[piece - 1]; }
    static std::string key(int piece, const char* what) { return "piece_" + std::to_string(piece) + what; }
    static int piecesOf(const AntennaShape& shape)
    {
        const auto found = shape.parameters.find("piece_count");
        return found == shape.parameters.end() ? 3 : countOf(shape, "piece_count", fewestPoints, mostPoints);
    }
    /// The same wire through other points; its feed stays where it is along the wire.
    AntennaShape through(const AntennaShape& shape, const std::vector<Vec3>& points) const
    {
        AntennaShape next = shape;
        next.parameters["x_m"] = points[0].x;
        next.parameters["y_m"] = points[0].y;
        next.parameters["start_height_m"] = points[0].z;
        next.parameters["piece_count"] = double(points.size() - 1);
        for (std::size_t i = 1; i < points.size(); ++i) {
            const Vec3 run = points[i] - points[i - 1];
            const int piece = int(i);
            next.parameters[key(piece, "_m")] = norm(run);
            next.parameters[key(piece, "_rise_m")] = run.z;
            next.parameters[key(piece, "_bearing_deg")] = withinTurn(bearingTowards(run.x, run.y) - value(shape, "bearing_deg"));
        }
        std::erase_if(next.parameters,
                      [&](const auto& p) { return p.first.starts_with("piece_") && p.first != "piece_count" && !spec(next, p.first); });
        return next;
    }
    static double distanceToPiece(Vec3 p, Vec3 a, Vec3 b)
    {
        const Vec3 run = b - a;
        const double along = std::clamp(dot(p - a, run) / dot(run, run), 0.0, 1.0);
        return distance(p, a + along * run);
    }
    static double withinTurn(double degrees) { return std::remainder(degrees, 360.0); }
};

} // namespace

const Family& freeWireFamily()
{
    static const FreeWire family;
    return family;
}

} // namespace vetchling::shapes
