#include "core/trim/fold.h"

#include "core/bands/bands.h"

#include <algorithm>
#include <cmath>

namespace vetchling {
namespace {

constexpr double thickest = 0.004; // m of radius, that anybody folds
constexpr double elsewhere = 1e-4; // m, from which an end counts as another
constexpr double searched = 0.04;  // of the dip
constexpr double slack = 1.1;      // wires that are folded together do not touch everywhere

bool isOpen(const WireModel& model, std::size_t wire, bool atEnd)
{
    const Vec3 tip = atEnd ? model.wires[wire].points.back() : model.wires[wire].points.front();
    for (std::size_t w = 0; w < model.wires.size(); ++w)
        for (std::size_t i = 0; i < model.wires[w].points.size(); ++i) {
            const bool same = w == wire && i == (atEnd ? model.wires[w].points.size() - 1 : 0);
            if (!same && distance(model.wires[w].points[i], tip) < 1e-6)
                return false;
        }
    return tip.z > 1e-3 || model.ground.kind == GroundKind::FreeSpace;
}

/// sqrt(a d), with d from jacket to jacket.
double foldedRadius(const Wire& wire)
{
    const double outer = wire.insulation ? wire.insulation->outerRadius : wire.radius;
    return std::sqrt(wire.radius * 2.0 * slack * outer);
}

/// The last stretch at an end as a wire of its own. False where the last straight piece is shorter than it.
bool split(WireModel& model, std::size_t place, bool atEnd, double length, double radius)
{
    Wire& wire = model.wires[place];
    const std::size_t n = wire.points.size();
    const Vec3 tip = atEnd ? wire.points.back() : wire.points.front(), before = atEnd ? wire.points[n - 2] : wire.points[1];
    const double piece = distance(tip, before);
    if (piece < 1.05 * length)
        return false;
    const double part = length / piece;
    const Vec3 knot{tip.x + part * (before.x - tip.x), tip.y + part * (before.y - tip.y), tip.z + part * (before.z - tip.z)};
    Wire end = wire;
    end.id += atEnd ? "-fold" : "-fold-first";
    end.points = {knot, tip};
    end.radius = radius;
    end.endRadius.reset();
    (atEnd ? wire.points.back() : wire.points.front()) = knot;
    if (!atEnd) {
        for (Feed& f : model.feeds)
            if (f.wire == place)
                f.at -= length;
        for (Load& l : model.loads)
            if (l.wire == place)
                l.at -= length;
    }
    model.wires.push_back(std::move(end));
    return true;
}

} // namespace

Result<std::optional<double>> foldOverCut(study::Library& library, const study::Subject& uncut, const study::Subject& cut, double length,
                                          double dip, double rise, const Watch& watch)
{
    const auto before = library.study(uncut), after = library.study(cut);
    if (!before || !after || !(length > 0.0) || !(std::abs(rise) > 0.0))
        return std::optional<double>();
    const WireModel &was = before->built->model, &is = after->built->model;
    if (was.wires.size() != is.wires.size())
        return std::optional<double>();
    WireModel thin = is, thick = is;
    bool any = false;
    for (std::size_t w = 0; w < is.wires.size(); ++w)
        for (bool atEnd : {false, true}) {
            const Vec3 a = atEnd ? was.wires[w].points.back() : was.wires[w].points.front(),
                       b = atEnd ? is.wires[w].points.back() : is.wires[w].points.front();
            const double radius = is.wires[w].radius;
            if (distance(a, b) < elsewhere || !isOpen(is, w, atEnd) || radius > thickest)
                continue;
            if (!split(thin, w, atEnd, length, radius) || !split(thick, w, atEnd, length, foldedRadius(is.wires[w])))
                return std::optional<double>();
            any = true;
        }
    if (!any)
        return std::optional<double>();
    const auto dipOf = [&](const WireModel& model) -> std::optional<double> {
        const auto curve =
            library.study(model, after->built->portReference)->curve({(1.0 - searched) * dip, (1.0 + searched) * dip}, watch);
        if (!curve)
            return std::nullopt;
        const study::CurvePart& known = *curve;
        return nearestDip([&](double f) { return after->built->atLine(known->at(f), f); }, dip, (1.0 - searched) * dip,
                          (1.0 + searched) * dip);
    };
    const auto plain = dipOf(thin), folded = dipOf(thick);
    if (!plain || !folded)
        return unlessStopped(watch, std::optional<double>());
    const double ratio = 1.0 + (*folded - *plain) / rise;
    return unlessStopped(watch, ratio > 0.3 && ratio <= 1.05 ? std::optional(std::min(1.0, ratio)) : std::nullopt);
}

} // namespace vetchling
